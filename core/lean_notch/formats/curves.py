"""Pieces of outlines under an affine map: in, lines, arcs and cubics in a file's units; out, lines and arcs in mm.

Circles stay circles where the map keeps its proportions; where it does not, they become curves, and curves arcs.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import NamedTuple

from ..geometry import Cubic, Point, Segment
from ..geometry.cubic import ARC_MM, biarcs
from .read_file import Room

CURVE = 4
"""How many lines an arc of a curve counts for: it takes that much longer to find."""

_SAME_SHARE = 1e-9
_STEP, _FINE_STEP, _LARGE_MM = math.radians(45), math.radians(30), 20.0


class Affine(NamedTuple):
    """x' = a x + c y + e, y' = b x + d y + f: the order of SVG's matrix()."""

    a: float = 1.0
    b: float = 0.0
    c: float = 0.0
    d: float = 1.0
    e: float = 0.0
    f: float = 0.0

    def point(self, p: Point) -> Point:
        return (self.a * p[0] + self.c * p[1] + self.e, self.b * p[0] + self.d * p[1] + self.f)

    def after(self, first: Affine) -> Affine:
        """The map that does `first`, then this."""
        a, b, c, d, e, f = first
        x, y = self.point((e, f))
        return Affine(
            self.a * a + self.c * b, self.b * a + self.d * b, self.a * c + self.c * d, self.b * c + self.d * d, x, y
        )

    @property
    def turns_over(self) -> bool:
        return self.a * self.d - self.b * self.c < 0

    @property
    def scale(self) -> float:
        """By how much lengths grow, on the whole."""
        return math.sqrt(abs(self.a * self.d - self.b * self.c))

    @property
    def keeps_circles(self) -> bool:
        size = max(abs(self.a), abs(self.b), abs(self.c), abs(self.d), 1e-300)
        sign = -1.0 if self.turns_over else 1.0
        return abs(self.a - sign * self.d) + abs(self.b + sign * self.c) <= _SAME_SHARE * size


def mapped(pieces: Sequence[Segment | Cubic], affine: Affine, room: Room) -> tuple[tuple[Segment, ...], bool]:
    """`pieces` as lines and arcs in the map's target, and whether curves had to become arcs for it.

    Raises UnreadableFile where they find no room.
    """
    room.take(len(pieces))
    found: list[Segment] = []
    curved = False
    sense = -1.0 if affine.turns_over else 1.0
    keeps_circles = affine.keeps_circles
    a, b, c, d, e, f = affine
    for piece in pieces:
        if isinstance(piece, Segment) and (keeps_circles or piece.bulge == 0):
            (x0, y0), (x1, y1), bulge = piece
            start, end = (a * x0 + c * y0 + e, b * x0 + d * y0 + f), (a * x1 + c * y1 + e, b * x1 + d * y1 + f)
            found.append(Segment(start, end, sense * bulge))
            continue
        curved = True
        for cubic in (piece,) if isinstance(piece, Cubic) else as_cubics(piece):
            arcs = list(biarcs(Cubic(*map(affine.point, cubic)), ARC_MM))
            room.take(CURVE * len(arcs))
            found += arcs
    return tuple(found), curved


def as_cubics(arc: Segment) -> Iterator[Cubic]:
    """A circular arc as cubics of at most 45 degrees, 30 where it is large: within 0.1 µm of any circle of up to 500 mm."""
    step = _STEP if arc.radius < _LARGE_MM else _FINE_STEP
    count = math.ceil(abs(arc.sweep) / step - 1e-9)
    reach = 4 / 3 * math.tan(arc.sweep / count / 4)
    cx, cy = arc.centre
    here = arc.start
    for index in range(count):
        end = arc.end if index == count - 1 else arc.at((index + 1) / count)
        yield Cubic(
            here,
            (here[0] - reach * (here[1] - cy), here[1] + reach * (here[0] - cx)),
            (end[0] + reach * (end[1] - cy), end[1] - reach * (end[0] - cx)),
            end,
        )
        here = end


def from_quadratic(start: Point, control: Point, end: Point) -> Cubic:
    """A quadratic curve as a cubic."""

    def third(near: Point) -> Point:
        return (near[0] + 2 / 3 * (control[0] - near[0]), near[1] + 2 / 3 * (control[1] - near[1]))

    return Cubic(start, third(start), third(end), end)


def turn_pieces(centre: Point, radius: float, first: float, sweep: float) -> list[Segment]:
    """An arc from the angle `first` over `sweep`, in radians, in four equal pieces; a full turn ends where it starts."""
    turns = [first + sweep * i / 4 for i in range(5)]
    points = [(centre[0] + radius * math.cos(turn), centre[1] + radius * math.sin(turn)) for turn in turns]
    if sweep == 2 * math.pi:
        points[4] = points[0]
    return [Segment(points[i], points[i + 1], math.tan(sweep / 16)) for i in range(4)]


def ellipse_pieces(
    start: Point, end: Point, rx: float, ry: float, degrees: float, large: bool, sweep: bool
) -> Iterator[Segment | Cubic]:
    """An SVG arc as pieces. W3C SVG 2, appendix B.2: endpoint to centre, and radii that are too small grow."""
    rx, ry = abs(rx), abs(ry)
    if rx == 0 or ry == 0:
        yield Segment(start, end, 0.0)
        return
    if rx == ry:
        half = math.dist(start, end) / 2
        if half:
            yield Segment(start, end, _arc_bulge(half / rx, large, sweep))
        return
    # Turned back and squeezed so that the ellipse is a circle of radius 1.
    turn = math.radians(degrees)
    cos, sin = math.cos(turn), math.sin(turn)
    to_circle = Affine(1 / rx, 0, 0, 1 / ry).after(Affine(cos, -sin, sin, cos))
    (x0, y0), (x1, y1) = to_circle.point(start), to_circle.point(end)
    half = math.hypot(x1 - x0, y1 - y0) / 2
    if half == 0:
        return
    bulge = _arc_bulge(half, large, sweep)
    back = Affine(cos, sin, -sin, cos).after(Affine(rx, 0, 0, ry))
    cubics = [Cubic(*map(back.point, cubic)) for cubic in as_cubics(Segment((x0, y0), (x1, y1), bulge))]
    cubics[0] = cubics[0]._replace(start=start)
    cubics[-1] = cubics[-1]._replace(end=end)
    yield from cubics


def _arc_bulge(half: float, large: bool, sweep: bool) -> float:
    """Of an arc whose chord is 2 x `half` radii; a chord longer than the circle is wide makes the circle grow."""
    angle = 2 * math.asin(min(half, 1.0))
    angle = 2 * math.pi - angle if large else angle
    return math.tan(angle / 4) * (1 if sweep else -1)
