"""The border of designs: what the page may ask, and what it gets to draw. Lengths out are mm, y points up."""

from .asked import *  # noqa: F403
from .jobs import *  # noqa: F403
from .made import *  # noqa: F403
from .proved import *  # noqa: F403
