"""What a part is made of: ordered steps, each of which adds, cuts, keeps, marks or changes what the ones before it left.

Lengths stay as typed; places are measured from the part's own origin, x to the right, y up. A step's edges and corners
are called after it: the rectangle `blank` has the edges blank.bottom, blank.right, blank.top and blank.left and the
corners blank.bottom-left and so on; an outline's are called after its nodes, an imported one's are numbered.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from ..codec import Many, Name, Number, OneOf, Title, Whole, Words
from ..lettering import FONTS, SINGLE_STROKE
from ..lettering.text import Align
from ..operations import Operation, Side
from ..typed import Typed
from ..units import Length

MOST_STEPS = 500
MOST_NODES = 5000
MOST_COPIES = 10_000

Id = Annotated[str, Name()]
ZERO = Length("0")
Degrees = Annotated[float, Number(-360, 360, "°")]


def _fonts() -> tuple[str, ...]:
    return (*FONTS, SINGLE_STROKE)


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
    """All closed outlines of an SVG or DXF file that the job keeps by its content; of some layers, if any are named."""

    file: Annotated[str, Words(64), Title("File")]
    layers: Annotated[tuple[Annotated[str, Words(120)], ...], Many(200)] = ()
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


Shape = Rectangle | Disc | Outline | Imported | Lettering | Line | OtherPart


@dataclass(frozen=True)
class Grid:
    """Copies in columns and rows; the first one is where the step says."""

    columns: Annotated[int, Whole(1, 1000), Title("Columns")] = 1
    rows: Annotated[int, Whole(1, 1000), Title("Rows")] = 1
    dx: Annotated[Length, Title("Column spacing")] = ZERO
    dy: Annotated[Length, Title("Row spacing")] = ZERO
    kind: ClassVar[str] = "grid"


@dataclass(frozen=True)
class Around:
    """Copies round a centre on the part, over `sweep` degrees."""

    count: Annotated[int, Whole(1, MOST_COPIES), Title("Copies")]
    x: Annotated[Length, Title("Centre, from the left")]
    y: Annotated[Length, Title("Centre, from the bottom")]
    sweep: Annotated[Degrees, Title("Sweep")] = 360.0
    kind: ClassVar[str] = "around"


Pattern = Grid | Around
Does = Literal["add", "cut", "keep", "mark"]


@dataclass(frozen=True)
class ShapeStep(Typed):
    """A shape, and what it does: it adds to the part, is cut out of it, keeps only what lies inside it, or is marked.

    `operation` is what a mark is; `side` is where the beam runs along a cut or a mark; `depth` is a pocket's. A mark on
    the back is placed as seen from the back.
    """

    id: Id
    shape: Shape
    does: Annotated[Does, Title("What it does")] = "add"
    operation: Annotated[Operation, Title("Operation")] = "engrave"
    x: Annotated[Length, Title("From the left")] = ZERO
    y: Annotated[Length, Title("From the bottom")] = ZERO
    turn: Annotated[Degrees, Title("Rotation")] = 0.0
    scale: Annotated[float, Number(0.001, 1000), Title("Scale")] = 1.0
    mirrored: Annotated[bool, Title("Mirrored")] = False
    pattern: Annotated[Pattern | None, Title("Copies")] = None
    depth: Annotated[Length | None, Title("Depth")] = None
    side: Annotated[Side, Title("The beam runs")] = "auto"
    face: Annotated[Literal["front", "back"], Title("Face")] = "front"
    title: Annotated[str, Words(80, required=False), Title("Name")] = ""
    on: Annotated[bool, Title("Switched on")] = True
    kind: ClassVar[str] = "shape"
    KEY: ClassVar[str] = "id"


@dataclass(frozen=True)
class CornerStep(Typed):
    """Corners by name, rounded by a radius or cut off straight `size` along both edges."""

    id: Id
    corners: Annotated[tuple[Annotated[str, Words(90)], ...], Many(200, 1), Title("Corners")]
    size: Annotated[Length, Title("Size")]
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
    angle: Annotated[Degrees, Title("Angle of the line")] = 90.0
    keep: Annotated[bool, Title("Keep the first half")] = True
    title: Annotated[str, Words(80, required=False), Title("Name")] = ""
    on: Annotated[bool, Title("Switched on")] = True
    kind: ClassVar[str] = "mirror"
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
    """All that there is so far, turned round a point and scaled from it."""

    id: Id
    x: Annotated[Length, Title("About, from the left")] = ZERO
    y: Annotated[Length, Title("About, from the bottom")] = ZERO
    turn: Annotated[Degrees, Title("Rotation")] = 0.0
    scale: Annotated[float, Number(0.001, 1000), Title("Scale")] = 1.0
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
    angle: Annotated[float, Number(-179, 179, "°"), Title("Bend by")] = 90.0
    radius: Annotated[Length | None, Title("Inside radius")] = None
    title: Annotated[str, Words(80, required=False), Title("Name")] = ""
    on: Annotated[bool, Title("Switched on")] = True
    kind: ClassVar[str] = "bend"
    KEY: ClassVar[str] = "id"


Step = ShapeStep | CornerStep | MirrorStep | GrowStep | TurnStep | BendStep
