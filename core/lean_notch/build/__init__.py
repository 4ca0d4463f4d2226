"""Design + basis → Build: exact flat parts at finished size, and which feature of which part meets which."""

from ..joints import Change, Contact, Mate
from .build import Build, build, site_of
from .fit import JointFit, fit_wants, joint_fits
from .flat import FailedStep, FlatMark, FlatPart
from .part import Outlines, title_of
from .proposals import Proposal, proposals
from .stand import Standing

__all__ = [
    "Build", "Change", "Contact", "FailedStep", "FlatMark", "FlatPart", "JointFit", "Mate", "Outlines", "Proposal", "Standing", "build", "fit_wants",
    "joint_fits", "proposals", "site_of", "title_of",
]  # fmt: skip
