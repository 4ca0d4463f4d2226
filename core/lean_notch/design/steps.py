"""What a part is made of: ordered steps, each of which adds, cuts, keeps, marks or changes what the ones before it left.

Numbers stay as typed; places are measured from the part's own origin, x to the right, y up, or from something of an
earlier step. A step's edges and corners are called after it: the rectangle `blank` has the edges blank.bottom,
blank.right, blank.top and blank.left and the corners blank.bottom-left and so on; an outline's are called after its nodes,
a polygon's and an imported one's are numbered. What a place is measured from is written with its sort, "edge:blank.right",
"corner:blank.top-left", "middle:blank.top" (of an edge), "side:hole.left" (the middle of a side of its box) and
"centre:hole" (of its box).
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from ..documents.as_typed import Typed
from ..documents.rules import AmountRule, Many, Name, Number, OneOf, Title, Words
from ..ground.limits import MOST_COPIES, MOST_NODES
from ..ground.operations import Operation, Side
from ..lengths.length import Amount, Length
from ..lengths.units import MM_PER_INCH
from ..lettering import FONTS, SINGLE_STROKE
from ..lettering.text import Align

Id = Annotated[str, Name()]
ZERO = Length("0")
Degrees = Annotated[float, Number(-360, 360, "°")]
Turn = Annotated[Amount, AmountRule(-360, 360, "°")]
Scale = Annotated[Amount, AmountRule(0.001, 1000)]
NONE, ONE, RIGHT_ANGLE, FULL_TURN = Amount("0"), Amount("1"), Amount("90"), Amount("360")

Of = Annotated[str, Words(120, required=False)]
"""What a place is measured from: "edge:blank.right", "centre:hole"; "" is the part's own zero."""


def _fonts() -> tuple[str, ...]:
    return (*FONTS, SINGLE_STROKE)


FILE_UNITS = {"mm": 1.0, "cm": 10.0, "in": MM_PER_INCH}
"""Millimetres in the units that a file may be said to be in."""


def file_units() -> tuple[str, ...]:
    return ("", *FILE_UNITS)


@dataclass(frozen=True)
class Rectangle:
    """From its lower left corner to the right and up; `radius` rounds its corners."""

    width: Annotated[Length, Title("Width")]
    height: Annotated[Length, Title("Height")]
    radius: Annotated[Length | None, Title("Corner radius", "empty: square")] = None
    kind: ClassVar[str] = "rectangle"


@dataclass(frozen=True)
class Disc:
    """Round its centre."""

    diameter: Annotated[Length, Title("Diameter")]
    kind: ClassVar[str] = "disc"


@dataclass(frozen=True)
class Ellipse:
    """Round its centre, along the axes."""

    width: Annotated[Length, Title("Width")]
    height: Annotated[Length, Title("Height")]
    kind: ClassVar[str] = "ellipse"


@dataclass(frozen=True)
class Annulus:
    """A ring round its centre: an outside and an inside diameter."""

    diameter: Annotated[Length, Title("Outside diameter")]
    inside: Annotated[Length, Title("Inside diameter")]
    kind: ClassVar[str] = "ring"


@dataclass(frozen=True)
class Polygon:
    """A regular polygon round its centre, a side at the bottom; `across` its corners (their circle) or its flats (the
    circle inside)."""

    sides: Annotated[Amount, AmountRule(3, 360, whole=True), Title("Sides")]
    across: Annotated[Length, Title("Across")]
    measured: Annotated[Literal["corners", "flats"], Title("Measured over")] = "corners"
    kind: ClassVar[str] = "polygon"


@dataclass(frozen=True)
class Slot:
    """A slot with round ends about its centre: `length` over all."""

    length: Annotated[Length, Title("Length over all")]
    width: Annotated[Length, Title("Width")]
    kind: ClassVar[str] = "slot"


@dataclass(frozen=True)
class Node:
    """A corner of an outline. `bulge` bends the edge to the next one: tan(angle / 4), positive to the left when leaving."""

    id: Id
    x: Annotated[Length, Title("From the left")]
    y: Annotated[Length, Title("From the bottom")]
    bulge: Annotated[float, Number(-1e3, 1e3), Title("Bulge")] = 0.0
    KEY: ClassVar[str] = "id"


@dataclass(frozen=True)
class Outline:
    """A closed outline through its nodes."""

    nodes: Annotated[tuple[Node, ...], Many(MOST_NODES, 2)]
    kind: ClassVar[str] = "outline"


@dataclass(frozen=True)
class Imported:
    """All closed outlines of an SVG or DXF file that the job keeps by its content; of some layers, if any are named. `unit` is asked
    for where the file names none; `width` is how wide all of it is to be, as drawn if it is left out."""

    file: Annotated[str, Words(64), Title("File")]
    layers: Annotated[tuple[Annotated[str, Words(120)], ...], Many(200)] = ()
    unit: Annotated[str, OneOf(file_units), Title("Unit of the file", "where it names none")] = ""
    width: Annotated[Length | None, Title("Width of all of it", "empty: as drawn")] = None
    kind: ClassVar[str] = "imported"


@dataclass(frozen=True)
class Lettering:
    """A line of text on its base line. `bridge` is how wide the bars are that hold the islands of cut letters."""

    text: Annotated[str, Words(200), Title("Text")]
    height: Annotated[Length, Title("Height of capitals")]
    font: Annotated[str, OneOf(_fonts), Title("Font")] = "sans"
    align: Annotated[Align, Title("Set")] = "left"
    bridge: Annotated[Length | None, Title("Bridges", "empty: as wide as the board is thick")] = None
    kind: ClassVar[str] = "lettering"


@dataclass(frozen=True)
class Line:
    """From the step's place to an end, both measured on the part."""

    to_x: Annotated[Length, Title("End, from the left")]
    to_y: Annotated[Length, Title("End, from the bottom")]
    kind: ClassVar[str] = "line"


@dataclass(frozen=True)
class OtherPart:
    """The outline of another part of the design, as its own steps make it, joints not counted."""

    part: Annotated[Id, Title("Part")]
    kind: ClassVar[str] = "part"


Shape = Rectangle | Disc | Ellipse | Annulus | Polygon | Slot | Outline | Imported | Lettering | Line | OtherPart


@dataclass(frozen=True)
class Grid:
    """Copies in columns and rows; the first one is where the step says."""

    columns: Annotated[Amount, AmountRule(1, 1000, whole=True), Title("Columns")] = ONE
    rows: Annotated[Amount, AmountRule(1, 1000, whole=True), Title("Rows")] = ONE
    dx: Annotated[Length, Title("Column spacing")] = ZERO
    dy: Annotated[Length, Title("Row spacing")] = ZERO
    kind: ClassVar[str] = "grid"


@dataclass(frozen=True)
class Around:
    """Copies round a centre on the part, over `sweep` degrees."""

    count: Annotated[Amount, AmountRule(1, MOST_COPIES, whole=True), Title("Copies")]
    x: Annotated[Length, Title("Centre, from the left")]
    y: Annotated[Length, Title("Centre, from the bottom")]
    sweep: Annotated[Turn, Title("Sweep")] = FULL_TURN
    kind: ClassVar[str] = "around"


@dataclass(frozen=True)
class Spread:
    """Copies spread evenly between two things, the part's own ends where none is named.

    By `gaps`: the gaps between neighbours are equal, and those at both ends too unless a `margin` is given; by `centres`:
    the distances from centre to centre are, and those to both ends.
    """

    count: Annotated[Amount, AmountRule(1, MOST_COPIES, whole=True), Title("Copies")]
    along: Annotated[Literal["x", "y"], Title("Along")] = "x"
    start: Annotated[Of, Title("Between")] = ""
    end: Annotated[Of, Title("And")] = ""
    by: Annotated[Literal["gaps", "centres"], Title("Equal")] = "gaps"
    margin: Annotated[Length | None, Title("Margin at the ends", "empty: as wide as the gaps")] = None
    kind: ClassVar[str] = "spread"


Pattern = Grid | Around | Spread
Does = Literal["add", "cut", "keep", "mark"]


@dataclass(frozen=True)
class ShapeStep(Typed):
    """A shape, and what it does: it adds to the part, is cut out of it, keeps only what lies inside it, or is marked.

    `operation` is what a mark is; `side` is where the beam runs along a cut or a mark; `depth` is a pocket's. A mark on
    the back is placed as seen from the back.

    `x` and `y` say where its `anchor` is ("" is the shape's own origin, else "centre", a side or a corner of its box such
    as "top-left", one of its own corners, or the middle of one of its own edges): to the right and up from the part's zero, or from the point that `from_x` and
    `from_y` name. From an edge they count inwards, square to it, to the anchor, or where there is none to the nearest of
    the shape. With `to_x` or `to_y` they count from halfway between the two.
    """

    id: Id
    shape: Shape
    does: Annotated[Does, Title("What it does")] = "add"
    operation: Annotated[Operation, Title("Operation")] = "engrave"
    x: Annotated[Length, Title("From the left")] = ZERO
    y: Annotated[Length, Title("From the bottom")] = ZERO
    turn: Annotated[Turn, Title("Rotation")] = NONE
    scale: Annotated[Scale, Title("Scale")] = ONE
    mirrored: Annotated[bool, Title("Mirrored")] = False
    anchor: Annotated[str, Words(90, required=False), Title("Anchor")] = ""
    from_x: Annotated[Of, Title("Across, measured from")] = ""
    to_x: Annotated[Of, Title("Halfway to")] = ""
    from_y: Annotated[Of, Title("Up, measured from")] = ""
    to_y: Annotated[Of, Title("Halfway to")] = ""
    pattern: Annotated[Pattern | None, Title("Copies")] = None
    depth: Annotated[Length | None, Title("Depth")] = None
    side: Annotated[Side, Title("The cut runs")] = "auto"
    face: Annotated[Literal["front", "back"], Title("Face")] = "front"
    title: Annotated[str, Words(80, required=False), Title("Name")] = ""
    on: Annotated[bool, Title("Switched on")] = True
    kind: ClassVar[str] = "shape"
    KEY: ClassVar[str] = "id"


@dataclass(frozen=True)
class CornerStep(Typed):
    """Corners by name, or all, or all that stand out or reach in, rounded by a radius or cut off straight `size` along both
    edges."""

    id: Id
    size: Annotated[Length, Title("Size")]
    corners: Annotated[tuple[Annotated[str, Words(90)], ...], Many(200), Title("Corners")] = ()
    which: Annotated[Literal["named", "all", "outer", "inner"], Title("Which")] = "named"
    shape: Annotated[Literal["round", "chamfer"], Title("Shape")] = "round"
    title: Annotated[str, Words(80, required=False), Title("Name")] = ""
    on: Annotated[bool, Title("Switched on")] = True
    kind: ClassVar[str] = "corner"
    KEY: ClassVar[str] = "id"


@dataclass(frozen=True)
class MirrorStep(Typed):
    """All that there is so far, mirrored at a line through a point; with `keep` the first half stays as well."""

    id: Id
    x: Annotated[Length, Title("Line through, from the left")] = ZERO
    y: Annotated[Length, Title("Line through, from the bottom")] = ZERO
    angle: Annotated[Turn, Title("Angle of the line")] = RIGHT_ANGLE
    keep: Annotated[bool, Title("Keep the first half")] = True
    title: Annotated[str, Words(80, required=False), Title("Name")] = ""
    on: Annotated[bool, Title("Switched on")] = True
    kind: ClassVar[str] = "mirror"
    KEY: ClassVar[str] = "id"


@dataclass(frozen=True)
class RepeatStep(Typed):
    """All that there is so far, repeated in columns and rows or round a centre, and united."""

    id: Id
    pattern: Annotated[Grid | Around, Title("Copies")]
    title: Annotated[str, Words(80, required=False), Title("Name")] = ""
    on: Annotated[bool, Title("Switched on")] = True
    kind: ClassVar[str] = "repeat"
    KEY: ClassVar[str] = "id"


@dataclass(frozen=True)
class GrowStep(Typed):
    """The outline moved outwards all round, or inwards where `by` is negative; holes close or open by as much."""

    id: Id
    by: Annotated[Length, Title("Grow by", "less than 0: shrink")]
    title: Annotated[str, Words(80, required=False), Title("Name")] = ""
    on: Annotated[bool, Title("Switched on")] = True
    kind: ClassVar[str] = "grow"
    KEY: ClassVar[str] = "id"


@dataclass(frozen=True)
class TurnStep(Typed):
    """All that there is so far, turned round a point and scaled from it, then moved."""

    id: Id
    x: Annotated[Length, Title("About, from the left")] = ZERO
    y: Annotated[Length, Title("About, from the bottom")] = ZERO
    turn: Annotated[Turn, Title("Rotation")] = NONE
    scale: Annotated[Scale, Title("Scale")] = ONE
    dx: Annotated[Length, Title("Move to the right")] = ZERO
    dy: Annotated[Length, Title("Move up")] = ZERO
    title: Annotated[str, Words(80, required=False), Title("Name")] = ""
    on: Annotated[bool, Title("Switched on")] = True
    kind: ClassVar[str] = "turn"
    KEY: ClassVar[str] = "id"


@dataclass(frozen=True)
class BendStep(Typed):
    """A line to bend the part along by `angle` degrees, up towards its face if positive. On the flat it is a fold line."""

    id: Id
    x: Annotated[Length, Title("Start, from the left")]
    y: Annotated[Length, Title("Start, from the bottom")]
    to_x: Annotated[Length, Title("End, from the left")]
    to_y: Annotated[Length, Title("End, from the bottom")]
    angle: Annotated[Amount, AmountRule(-179, 179, "°"), Title("Bend by")] = RIGHT_ANGLE
    radius: Annotated[Length | None, Title("Inside radius")] = None
    title: Annotated[str, Words(80, required=False), Title("Name")] = ""
    on: Annotated[bool, Title("Switched on")] = True
    kind: ClassVar[str] = "bend"
    KEY: ClassVar[str] = "id"


Step = ShapeStep | CornerStep | MirrorStep | RepeatStep | GrowStep | TurnStep | BendStep
