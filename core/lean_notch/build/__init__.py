"""Design + basis → Build: exact flat parts at finished size, and which feature of which part meets which."""

from .build import Build, FlatPart, build
from .mates import Mate, Member

__all__ = ["Build", "FlatPart", "Mate", "Member", "build"]
