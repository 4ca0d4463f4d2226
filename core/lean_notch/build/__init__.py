"""Design + basis → Build: exact flat parts at finished size, and which feature of which part meets which."""

from .build import Build, FlatPart, build
from .marks import FlatMark
from .mates import Mate, Member

__all__ = ["Build", "FlatMark", "FlatPart", "Mate", "Member", "build"]
