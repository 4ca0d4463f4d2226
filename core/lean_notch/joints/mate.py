"""What a joint is made of, whatever its kind: two members where they stand, in; what each gains and loses, and contacts, out.

A contact is one thing that goes into another. Proof, room for the beam, relief, loupe, ledger and start points work on
contacts and know no kind.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Hashable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any, Literal, NamedTuple, Protocol

from ..basis import BoardBasis
from ..documents.as_typed import Typed
from ..geometry import Box, Contour, Point, Region, Vertex
from ..geometry.space import Frame, Triple, add
from ..ground.findings import Finding
from ..lengths.figures import Figure

FACE = "face"
"""What a joint calls the whole face of a part, where it names no edge."""

Line = tuple[Point, Point]
Interval = tuple[float, float]


def rising(line: Line) -> Line:
    """A line from its left end, or from its lower end where it is upright: so places along edges are measured."""
    return line if line[0] <= line[1] else (line[1], line[0])


class Stretch(NamedTuple):
    """An edge in space: its ends, unit vectors along it and into its part, and its length."""

    start: Triple
    end: Triple
    along: Triple
    inward: Triple
    span: float


@dataclass(frozen=True, eq=False)
class Seat:
    """One member of a joint as it stands, before joints. `named` is the edge that the joint names, or FACE.

    `edges` are its straight edges by name, its material to their left. Two seats are equal if all that counts for a joint is.
    """

    placement: str
    part: str
    title: str
    named: str
    frame: Frame
    board: BoardBasis
    edges: Mapping[str, Line]
    outline: Region

    @property
    def thickness(self) -> float:
        return self.board.thickness

    @property
    def line(self) -> Line:
        return self.edges[self.named]

    @cached_property
    def stretch(self) -> Stretch:
        """The edge that is named, in space."""
        start, end = self.line
        along, inward, span = ways(self.line)
        place = self.frame
        return Stretch(place.at(start), place.at(end), place.towards(along), place.towards(inward), span)

    @cached_property
    def plain(self) -> Box | None:
        """Its box, where its outline is nothing else."""
        box, ring = self.outline.box, self.outline.outer
        if self.outline.holes or not isinstance(ring, Contour) or len(ring.vertices) != 4:
            return None
        square = all(v.bulge == 0 and v.x in (box[0], box[2]) and v.y in (box[1], box[3]) for v in ring.vertices)
        return box if square else None

    @cached_property
    def _counts(self) -> tuple[object, ...]:
        board = self.board
        there = self.outline if self.named == FACE else self.edges.get(self.named)
        return (
            self.placement, self.part, self.title, self.named, self.frame, there, board.thickness, board.clearance, board.kerf
        )  # fmt: skip

    @cached_property
    def _hash(self) -> int:
        return hash(self._counts)

    def __hash__(self) -> int:
        return self._hash

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Seat) and self._counts == other._counts


def ways(line: Line) -> tuple[Point, Point, float]:
    """Unit vectors along a line and to its left, and its length."""
    (x0, y0), (x1, y1) = line
    span = math.dist((x0, y0), (x1, y1))
    ux, uy = (x1 - x0) / span, (y1 - y0) / span
    return (ux, uy), (-uy, ux), span


@dataclass(frozen=True)
class Strip:
    """Where a joint runs on one member: a point of it is `origin` + position x `along` + depth x `inward`.

    It takes the depths from `low` to `high`; `tip` is the depth at which the other part does not cover it.
    """

    edge: str
    origin: Point
    along: Point
    inward: Point
    low: float
    high: float
    tip: float = 0.0

    def point(self, position: float, depth: float) -> Point:
        (x, y), (ax, ay), (ix, iy) = self.origin, self.along, self.inward
        return (x + position * ax + depth * ix, y + position * ay + depth * iy)

    def flat(self, place: Point) -> tuple[float, float]:
        """Position and depth of a place on the part."""
        dx, dy = place[0] - self.origin[0], place[1] - self.origin[1]
        return (
            dx * self.along[0] + dy * self.along[1],
            dx * self.inward[0] + dy * self.inward[1],
        )

    def box(self, start: float, end: float) -> tuple[float, float, float, float]:
        """Left, low, right, high of the strip from `start` to `end`."""
        return box_round([self.point(position, depth) for position in (start, end) for depth in (self.low, self.high)])


def on_edge_at(line: Line, strip: Strip, position: float) -> float:
    """How far along an edge a position of a strip on it lies, as `rising` measures."""
    line = rising(line)
    (ux, uy), _, _ = ways(line)
    (x0, y0), (x, y) = line[0], strip.point(position, 0.0)
    return (x - x0) * ux + (y - y0) * uy


class End(NamedTuple):
    """An end of a shared edge. Where a third panel stands there too, `owner` has the `block` mm beyond; "" for none."""

    owner: Literal["", "first", "second", "third"] = ""
    block: float = 0.0


@dataclass(frozen=True)
class Meeting:
    """Where two members meet, and how far: positions run from 0 to `length` from `start` along `axis`, in space.

    `shares_bar` says that both have the same bar of material, square, as along an edge; then corners with a third panel matter.
    `own` is how much of either end is a corner that the first member has. `angle` is that between the two boards, in degrees, on
    the side where their material lies.
    """

    start: Triple
    axis: Triple
    length: float
    first: Strip
    second: Strip
    angle: float
    shares_bar: bool = False
    ends: tuple[End, End] = (End(), End())
    own: tuple[float, float] = (0.0, 0.0)

    def trimmed(self, low: float, high: float, ends: tuple[End, End]) -> Meeting:
        """Only from `low` to `high`, with other ends."""
        start = add(self.start, self.axis, low)
        first, second = (replace(strip, origin=strip.point(low, 0.0)) for strip in (self.first, self.second))
        return replace(self, start=start, length=high - low, first=first, second=second, ends=ends)


@dataclass(frozen=True)
class Asked:
    """A joint to be made: `how` it was chosen, its `lengths` in mm by their path in it, who meets, and where.

    `into_second` is how much wider than the first member what takes it in the second is to be, in mm; `into_first` the reverse.
    """

    id: str
    title: str
    how: Any
    lengths: Mapping[str, float]
    first: Seat
    second: Seat
    meeting: Meeting
    into_second: float
    into_first: float


class Notch(NamedTuple):
    """A rectangle along an edge, from `start` to `end` as `rising` measures: taken away `depth` deep, or, where `depth` is
    negative, a tab that stands out."""

    edge: str
    start: float
    end: float
    depth: float


class SharpCorner(NamedTuple):
    """An inside corner that takes a square one: where it is, unit directions along its floor and its flank into the void,
    how much material stands beside the flank, how deep the flank is, and where the square corner goes home. `floor` is how long
    a floor is that keeps its mate from going sideways, 0 for one that does not."""

    place: Point
    along: Point
    across: Point
    beside: float
    flank: float
    home: Point
    floor: float = 0.0


def counter_clockwise(places: Sequence[Point]) -> Region:
    """The polygon through some places, whichever way they go round."""
    contour = Contour(tuple(Vertex(*place) for place in places))
    return Region(contour if contour.area > 0 else Contour(tuple(reversed(contour.vertices))))


def box_round(places: Sequence[Point]) -> Box:
    xs, ys = zip(*places, strict=True)
    return (min(xs), min(ys), max(xs), max(ys))


def no_corners() -> tuple[SharpCorner, ...]:
    return ()


class Pocket(NamedTuple):
    """An area that is taken out of a face `depth` mm deep; one on the `back` lies where it would be seen through the front."""

    region: Region
    depth: float
    back: bool


@dataclass(frozen=True)
class Change:
    """What a joint does to one member: notches and tabs along edges, what is cut through, added and sunk.

    `zones` are the boxes on the part, besides the strip along an edge, where nothing else should be. `corners` makes its sharp
    corners: they are asked for where a tool or a proof is.
    """

    placement: str
    part: str
    strip: Strip | None = None
    notches: tuple[Notch, ...] = ()
    cuts: tuple[Region, ...] = ()
    adds: tuple[Region, ...] = ()
    pockets: tuple[Pocket, ...] = ()
    zones: tuple[Box, ...] = ()
    corners: Callable[[], tuple[SharpCorner, ...]] = field(default=no_corners, compare=False, repr=False)

    @cached_property
    def sharp(self) -> tuple[SharpCorner, ...]:
        return self.corners()


Run = tuple[float, float, float, float]
"""From a position and a depth of a strip to others."""


class Caliper(NamedTuple):
    """Where to measure on a part, along runs of one of its strips: across its material, or across a void. Each run's middle
    is in what is measured; of several the one counts that leaves the least room."""

    part: str
    strip: Strip
    runs: tuple[Run, ...]

    @property
    def lines(self) -> tuple[Line, ...]:
        return tuple((self.strip.point(a, b), self.strip.point(c, d)) for a, b, c, d in self.runs)


class Contact(NamedTuple):
    """One thing that goes into another, `clearance` wider. `inner` is None where the board itself goes in, by its
    thickness; then `inner_part` says whose, and `width` is that thickness, at a slant where the two cross askew. One `in_pocket`
    is not cut through, so that no sweep of the beam tells it.

    `width` is that of the inner at finished size, `depth` how deep it goes, `stands` where to measure how long it is (as a
    void beside it if `stands_void`), `through` the part through whose board it stands.
    """

    inner_part: str
    inner: Caliper | None
    outer: Caliper
    width: float
    clearance: float
    depth: float
    through: str
    stands: Caliper | None = None
    stands_void: bool = False
    in_pocket: bool = False

    @property
    def outer_width(self) -> float:
        return self.width + self.clearance

    @property
    def narrowest(self) -> float:
        return min(self.width, self.outer_width)


@dataclass(frozen=True)
class Mate:
    """A joint as built. `inner` and `outer` say what its contacts are called; `figures` are rows of its own kind, `findings`
    what the maker should know of it. `pushes` are the ways in which the first member leaves the second, unit vectors in space; none
    if that is not known."""

    id: str
    title: str
    kind: str
    about: str
    inner: str
    outer: str
    first: Change
    second: Change
    contacts: tuple[Contact, ...]
    meeting: Meeting
    figures: tuple[Figure, ...] = ()
    findings: tuple[Finding, ...] = ()
    pushes: tuple[Triple, ...] = ()

    @property
    def members(self) -> tuple[Change, Change]:
        return (self.first, self.second)

    @cached_property
    def parts(self) -> tuple[str, ...]:
        """All parts that it is of: both members', and those that its contacts go through."""
        contacts = (part for one in self.contacts for part in (one.inner_part, one.outer.part, one.through))
        return tuple(dict.fromkeys([self.first.part, self.second.part, *filter(None, contacts)]))

    @cached_property
    def narrowest(self) -> float:
        """Of all that goes into something, or that something goes into; infinite where there is nothing."""
        return min((one.narrowest if one.inner else one.outer_width for one in self.contacts), default=math.inf)


At = Literal["edge", "face"]


class JointKind(Hashable, Protocol):
    """One kind of joint. `how` is what the document says of it."""

    @property
    def how(self) -> type[Typed]: ...

    @property
    def title(self) -> str: ...

    @property
    def ends(self) -> tuple[At, At]:
        """What its first and its second member are joined at."""
        ...

    def meet(self, first: Seat, second: Seat) -> Meeting:
        """Where the members meet. Raises NotMeeting if they do not, with the nearest values that work."""
        ...

    def make(self, asked: Asked) -> Mate:
        """What the joint does. Raises NotchError at the field of `how` ("width"), at "size" where the edge is too short, or
        at "clearance"."""
        ...
