"""What the maker decided, as a plain versioned document. No measured number is ever baked into it."""

from .document import (
    MAIN,
    OF_THE_BASIS,
    RELIEFS,
    SIDES,
    Against,
    AlongAxes,
    Answer,
    BoardNeed,
    ByNumbers,
    Design,
    Dimension,
    Joint,
    Member,
    Origin,
    Part,
    Placement,
    Pose,
    Relief,
    Side,
    dangling,
)
from .migrate import design_from_json, design_to_json
from .steps import (
    Around,
    BendStep,
    CornerStep,
    Disc,
    Grid,
    GrowStep,
    Imported,
    Lettering,
    Line,
    MirrorStep,
    Node,
    OtherPart,
    Outline,
    Rectangle,
    Shape,
    ShapeStep,
    Step,
    TurnStep,
)

__all__ = [
    "MAIN", "OF_THE_BASIS", "RELIEFS", "SIDES", "Against", "AlongAxes", "Answer", "Around", "BendStep", "BoardNeed", "ByNumbers",
    "CornerStep", "Design", "Dimension", "Disc", "Grid", "GrowStep", "Imported", "Joint", "Lettering", "Line", "Member", "MirrorStep", "Node", "Origin",
    "OtherPart", "Outline", "Part", "Placement", "Pose", "Rectangle", "Relief", "Shape", "ShapeStep", "Side", "Step", "TurnStep",
    "dangling", "design_from_json", "design_to_json",
]  # fmt: skip
