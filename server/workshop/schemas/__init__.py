"""The border of the workshop: rack, machines, profiles, what is measured. Lengths may be numbers in mm or texts in `unit`."""

from .measuring import *  # noqa: F403
from .rack import *  # noqa: F403
from .typed import *  # noqa: F403
