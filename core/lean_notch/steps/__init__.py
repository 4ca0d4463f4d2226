"""What a part is made of: ordered steps, each of which adds, cuts, keeps, marks or changes what the ones before it left.

Numbers stay as typed; places are measured from the part's own origin, x to the right, y up, or from something of an
earlier step. A step's edges and corners are called after it: the rectangle `blank` has the edges blank.bottom,
blank.right, blank.top and blank.left and the corners blank.bottom-left and so on; an outline's are called after its nodes,
a polygon's and an imported one's are numbered. What a place is measured from is written with its sort, "edge:blank.right",
"corner:blank.top-left", "middle:blank.top" (of an edge), "side:hole.left" (the middle of a side of its box) and
"centre:hole" (of its box).

Each kind of step is one file; see docs/adding.md.
"""

from __future__ import annotations

from functools import reduce
from operator import or_
from typing import TYPE_CHECKING

from .bend import BendStep
from .corner import CornerStep
from .fields import ZERO, Degrees, Id, Of
from .grow import GrowStep
from .kind import Given, StepKind
from .mirror import MirrorStep
from .patterns import Around, Grid, Pattern, Spread
from .repeat import RepeatStep
from .shape import ShapeStep
from .shapes import (
    FILE_UNITS,
    Annulus,
    Disc,
    Ellipse,
    Imported,
    Lettering,
    Line,
    Node,
    OtherPart,
    Outline,
    Polygon,
    Rectangle,
    Shape,
    Slot,
)
from .titles import title_of
from .turn import TurnStep

ALL: tuple[type[StepKind], ...] = (ShapeStep, CornerStep, MirrorStep, RepeatStep, GrowStep, TurnStep, BendStep)

if TYPE_CHECKING:
    Step = StepKind
else:
    Step = reduce(or_, ALL)
"""One step of a part: one class a kind, for the codec to tell apart."""

__all__ = [
    "ALL", "FILE_UNITS", "ZERO", "Annulus", "Around", "BendStep", "CornerStep", "Degrees", "Disc", "Ellipse", "Given", "Grid", "GrowStep", "Id", "Imported",
    "Lettering", "Line", "MirrorStep", "Node", "Of", "OtherPart", "Outline", "Pattern", "Polygon", "Rectangle", "RepeatStep", "Shape", "ShapeStep",
    "Slot", "Spread", "Step", "StepKind", "TurnStep", "title_of",
]  # fmt: skip
