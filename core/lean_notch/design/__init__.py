"""What the maker decided, as a plain versioned document. No measured number is ever baked into it."""

from .document import (
    RELIEFS,
    SIDES,
    Design,
    Dimension,
    EdgeRef,
    FingerJoint,
    Hole,
    Panel,
    Part,
    Pose,
    Relief,
    Side,
    design_from_json,
    design_to_json,
)
from .marks import CORNERS, MARK_LENGTHS, CornerCut, Mark, corners_from_json, mark_to_json, marks_from_json

__all__ = [
    "CORNERS", "MARK_LENGTHS", "RELIEFS", "SIDES", "CornerCut", "Design", "Dimension", "EdgeRef", "FingerJoint", "Hole",
    "Mark", "Panel", "Part", "Pose", "Relief", "Side", "corners_from_json", "design_from_json", "design_to_json",
    "mark_to_json", "marks_from_json",
]  # fmt: skip
