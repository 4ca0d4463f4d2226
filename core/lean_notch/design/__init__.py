"""What the maker decided, as a plain versioned document. No measured number is ever baked into it."""

from .document import (
    MAIN,
    OF_THE_BASIS,
    RELIEFS,
    SIDES,
    AlongAxes,
    Answer,
    BoardNeed,
    Design,
    Dimension,
    Finger,
    Joint,
    Member,
    Origin,
    Part,
    Placement,
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
    "MAIN", "OF_THE_BASIS", "RELIEFS", "SIDES", "AlongAxes", "Answer", "Around", "BendStep", "BoardNeed", "CornerStep", "Design", "Dimension",
    "Disc", "Finger", "Grid", "GrowStep", "Imported", "Joint", "Lettering", "Line", "Member", "MirrorStep", "Node", "Origin",
    "OtherPart", "Outline", "Part", "Placement", "Rectangle", "Relief", "Shape", "ShapeStep", "Side", "Step", "TurnStep",
    "dangling", "design_from_json", "design_to_json",
]  # fmt: skip
