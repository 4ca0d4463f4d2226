"""Design + basis → Build: exact flat parts at finished size, and which feature of which part meets which."""

from ..joints import Change, Contact, Mate
from ..steps.being_made import FailedStep, FlatMark
from ..steps.brought import Brought, Outlines, no_files
from ..steps.titles import title_of
from .before_joints import site_of
from .build import Build, build
from .fit import JointFit, fit_wants, joint_fits
from .flat import FlatPart
from .proposals import Proposal, proposals
from .solid import Block, Face, blocks, faces, is_sunk, slices
from .stand import Standing

__all__ = [
    "Block", "Brought", "Build", "Change", "Contact", "Face", "FailedStep", "FlatMark", "FlatPart", "JointFit", "Mate", "Outlines", "Proposal", "Standing",
    "blocks", "build", "faces", "fit_wants", "is_sunk", "joint_fits", "no_files", "proposals", "site_of", "slices", "title_of",
]  # fmt: skip
