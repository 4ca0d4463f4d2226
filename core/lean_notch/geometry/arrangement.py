"""Outlines cut up at every crossing, flattened for a polygon library, and recovered exactly afterwards.

The polygon library (GEOS, through shapely) decides only what is inside. Every point and every arc of a result
comes from the outlines that went in: each flattened chord remembers the line or circle it stands for.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from typing import TYPE_CHECKING, Any, NamedTuple

from .contour import JOIN_MM, Circle, Contour, Point, Segment, Vertex
from .crossings import crossings, turn_to
from .linking import SLIVER_MM2
from .region import Region
from .ring import Ring

if TYPE_CHECKING:
    import shapely

CHORD_MM = 0.001
"""How far a chord may leave its arc while the polygon library decides; features thinner than this may blur."""

_STRAIGHT_MM = 1e-7


class _Carrier(NamedTuple):
    """The circle an arc lies on."""

    x: float
    y: float
    radius: float


@dataclass
class Arrangement:
    """Grows by `add`; turns outlines into polygons and polygons back into outlines."""

    _nodes: dict[tuple[int, int], list[Point]] = field(default_factory=dict)
    _circles: dict[tuple[int, int, int], _Carrier] = field(default_factory=dict)
    _carrier_of: dict[tuple[Point, Point], _Carrier | None] = field(default_factory=dict)
    _lookup: tuple[Any, list[tuple[Point, Point]]] | None = None

    def flatten(self, loops: Sequence[Sequence[Segment]]) -> list[list[Point]]:
        """Each closed loop as points, cut at all crossings with itself and the others, arcs as chords."""
        segments = [segment for loop in loops for segment in loop]
        for segment in segments:  # first, so that corners win over computed crossings
            self._node(segment.start)
        cuts: list[list[Point]] = [[] for _ in segments]
        for i, j in _near_pairs(segments):
            for point in crossings(segments[i], segments[j]):
                cuts[i].append(point)
                cuts[j].append(point)
        pieces = iter([self._chords(segment, cut) for segment, cut in zip(segments, cuts, strict=True)])
        return [[point for _ in loop for point in next(pieces)[:-1]] for loop in loops]

    def chords(self) -> list[tuple[Point, Point]]:
        """All chords so far, each once."""
        return [(a, b) for a, b in self._carrier_of if a < b]

    def recover(self, points: Sequence[Point]) -> Ring | None:
        """The exact outline that a flattened loop stands for, or None for a sliver."""
        edges = [(a, b, self._carrier(a, b)) for a, b in _pairs(points) if a != b]
        runs = _merge_runs(edges)
        if len(runs) == 1 and (circle := runs[0][2]):
            return Circle(circle.x, circle.y, circle.radius, hole=_signed_area(points) < 0)
        vertices = [Vertex(*start, _bulge(start, end, circle, turn)) for start, end, circle, turn in runs]
        if len(vertices) < 2 or (len(vertices) == 2 and not any(v.bulge for v in vertices)):
            return None
        ring = Contour(tuple(vertices))
        return ring if abs(ring.area) >= SLIVER_MM2 else None

    def _node(self, point: Point) -> Point:
        """The point that stands for `point`: an earlier one within JOIN_MM, else itself."""
        cell = (round(point[0] / (2 * JOIN_MM)), round(point[1] / (2 * JOIN_MM)))
        for dx in (0, -1, 1):
            for dy in (0, -1, 1):
                for known in self._nodes.get((cell[0] + dx, cell[1] + dy), ()):
                    if math.dist(known, point) <= JOIN_MM:
                        return known
        self._nodes.setdefault(cell, []).append(point)
        return point

    def _circle(self, segment: Segment) -> _Carrier:
        (x, y), radius = segment.centre, segment.radius
        cell = (round(x / (2 * JOIN_MM)), round(y / (2 * JOIN_MM)), round(radius / (2 * JOIN_MM)))
        for dx in (0, -1, 1):
            for dy in (0, -1, 1):
                for dr in (0, -1, 1):
                    if known := self._circles.get((cell[0] + dx, cell[1] + dy, cell[2] + dr)):
                        return known
        return self._circles.setdefault(cell, _Carrier(x, y, radius))

    def _chords(self, segment: Segment, cuts: Iterable[Point]) -> list[Point]:
        """`segment` as points; remembers the carrier of each chord."""
        ends = {self._node(point) for point in (segment.start, segment.end, *cuts)}
        start, end = self._node(segment.start), self._node(segment.end)
        if segment.bulge == 0:
            ordered = sorted(ends, key=lambda p: math.dist(p, start))
            circle = None
        else:
            circle = self._circle(segment)
            centre = (circle.x, circle.y)
            inner = sorted(ends - {start, end}, key=lambda p: turn_to(segment, centre, p))
            ordered = [start, *inner, end]
        points = [start]
        for a, b in itertools.pairwise(ordered):
            between = _on_grid(a, b, circle, segment.bulge > 0) if circle else []
            run = [a, *between, b]
            for p, q in itertools.pairwise(run):
                self._carrier_of[p, q] = self._carrier_of[q, p] = circle
            points += run[1:]
        return points

    def _carrier(self, a: Point, b: Point) -> _Carrier | None:
        """The circle that the chord from `a` to `b`, or the longer chord it is a piece of, stands for."""
        if (a, b) in self._carrier_of:
            return self._carrier_of[a, b]
        # Two arcs that nearly touch can have chords that cross where the arcs do not.
        import shapely

        if self._lookup is None or len(self._lookup[1]) != len(self._carrier_of):
            known = list(self._carrier_of)
            self._lookup = shapely.STRtree([shapely.LineString(chord) for chord in known]), known
        tree, known = self._lookup
        return self._carrier_of[known[tree.nearest(shapely.Point((a[0] + b[0]) / 2, (a[1] + b[1]) / 2))]]


def _near_pairs(segments: Sequence[Segment]) -> list[tuple[int, int]]:
    """Pairs of segments whose boxes touch."""
    import numpy as np
    import shapely

    boxes = np.array([segment.box for segment in segments])
    boxes[:, :2] -= JOIN_MM
    boxes[:, 2:] += JOIN_MM
    shapes: Any = shapely.box(*boxes.T)
    first, second = shapely.STRtree(shapes).query(shapes)
    ahead = first < second
    return list(zip(first[ahead].tolist(), second[ahead].tolist(), strict=True))


def _on_grid(a: Point, b: Point, circle: _Carrier, ccw: bool) -> list[Point]:
    """Points between `a` and `b` at fixed angles of the circle, so that coincident arcs get equal chords."""
    half = math.acos(max(1 - CHORD_MM / circle.radius, 0.5))
    count = 4 * math.ceil(math.pi / half / 4)
    step = 2 * math.pi / count
    first = math.atan2(a[1] - circle.y, a[0] - circle.x) / step
    last = math.atan2(b[1] - circle.y, b[0] - circle.x) / step
    if ccw:
        last += count if last <= first else 0
        ticks: Iterable[int] = range(math.floor(first + 1e-6) + 1, math.ceil(last - 1e-6))
    else:
        last -= count if last >= first else 0
        ticks = range(math.ceil(first - 1e-6) - 1, math.floor(last + 1e-6), -1)
    return [
        (
            circle.x + circle.radius * math.cos(tick % count * step),
            circle.y + circle.radius * math.sin(tick % count * step),
        )
        for tick in ticks
    ]


_Run = tuple[Point, Point, _Carrier | None, int]


def _merge_runs(edges: Sequence[tuple[Point, Point, _Carrier | None]]) -> list[_Run]:
    """Consecutive edges of one line or one circle joined, round the whole loop."""
    runs: list[_Run] = []
    for start, end, circle in edges:
        turn = _turn(start, end, circle)
        if runs and _goes_on(runs[-1], end, circle, turn):
            runs[-1] = (runs[-1][0], end, circle, turn)
        else:
            runs.append((start, end, circle, turn))
    if len(runs) > 1 and _goes_on(runs[-1], runs[0][1], runs[0][2], runs[0][3]):
        start = runs.pop()[0]
        runs[0] = (start, *runs[0][1:])
    return runs


def _goes_on(run: _Run, end: Point, circle: _Carrier | None, turn: int) -> bool:
    if circle or run[2]:
        return circle is run[2] and turn == run[3]
    (x0, y0), (x1, y1), (x2, y2) = run[0], run[1], end
    length = math.hypot(x2 - x0, y2 - y0)
    ahead = (x1 - x0) * (x2 - x1) + (y1 - y0) * (y2 - y1) > 0
    return ahead and abs((x1 - x0) * (y2 - y0) - (y1 - y0) * (x2 - x0)) <= _STRAIGHT_MM * length


def _turn(start: Point, end: Point, circle: _Carrier | None) -> int:
    """1 when the chord runs counter-clockwise round its circle, -1 when clockwise, 0 for a line."""
    if circle is None:
        return 0
    cross = (start[0] - circle.x) * (end[1] - circle.y) - (start[1] - circle.y) * (end[0] - circle.x)
    return 1 if cross > 0 else -1


def _bulge(start: Point, end: Point, circle: _Carrier | None, turn: int) -> float:
    if circle is None:
        return 0.0
    first = math.atan2(start[1] - circle.y, start[0] - circle.x)
    last = math.atan2(end[1] - circle.y, end[0] - circle.x)
    return turn * math.tan((last - first) * turn % (2 * math.pi) / 4)


def _pairs(points: Sequence[Point]) -> Iterable[tuple[Point, Point]]:
    return zip(points, (*points[1:], points[0]), strict=True)


def _signed_area(points: Sequence[Point]) -> float:
    return sum(a[0] * b[1] - b[0] * a[1] for a, b in _pairs(points)) / 2


def ring_points(ring: shapely.LinearRing) -> list[Point]:
    """A polygon library's ring as points, without the repeated last."""
    return [(x, y) for x, y in ring.coords[:-1]]


def combine_chords(first: Sequence[Region], second: Sequence[Region], operation: str) -> list[Region]:
    """The boolean `operation` by way of chords and a polygon library."""
    import shapely

    if not first:
        return []
    arrangement = Arrangement()
    regions = [*first, *second]
    flat = iter(arrangement.flatten([ring.segments for region in regions for ring in region.rings]))
    polygons = [shapely.Polygon(next(flat), [next(flat) for _ in region.holes]) for region in regions]
    result = shapely.union_all(polygons[: len(first)])
    if operation != "union":
        result = getattr(shapely, operation)(result, shapely.union_all(polygons[len(first) :]))
    return recover_regions(arrangement, result)


def recover_regions(arrangement: Arrangement, shape: shapely.Geometry) -> list[Region]:
    """The exact regions that a polygon library's result stands for; slivers are left out."""
    import shapely

    found = []
    for polygon in shapely.get_parts(shape):
        if polygon.geom_type != "Polygon" or polygon.is_empty:
            continue
        if outer := arrangement.recover(ring_points(polygon.exterior)):
            holes = [arrangement.recover(ring_points(interior)) for interior in polygon.interiors]
            found.append(Region(outer, tuple(hole for hole in holes if hole)))
    return found
