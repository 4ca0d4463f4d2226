"""What the maker decided, as a plain versioned document. No measured number is ever baked into it."""

from .document import (
    SIDES,
    Design,
    Dimension,
    EdgeRef,
    FingerJoint,
    Hole,
    Panel,
    Part,
    Pose,
    Side,
    design_from_json,
    design_to_json,
)

__all__ = [
    "SIDES", "Design", "Dimension", "EdgeRef", "FingerJoint", "Hole", "Panel", "Part", "Pose", "Side",
    "design_from_json", "design_to_json",
]  # fmt: skip
