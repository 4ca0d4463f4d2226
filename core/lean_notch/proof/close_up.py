"""A close look at one corner: in, a nominal outline, what is left of it, and the paths beside it; out, what lies in a small window,
and how far each line is from nominal, measured across the edge beside the corner.

Places are on the sheet, in mm.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Literal

from ..geometry import Point, Region
from .compare import EDGE_MM

if TYPE_CHECKING:
    import shapely

SHARP = math.radians(20)
"""A corner turns by more than that."""

LEAST_REACH_MM = 0.15
MOST_REACH_MM = 60.0
MOST_POINTS = 600
"""Of all lines of a window together: one that holds more shows them shortened."""

What = Literal["inner corner", "outer corner", "edge"]
Points = tuple[Point, ...]


@dataclass(frozen=True)
class Measured:
    """How far a line is from nominal, outwards positive, and the place where that was measured. Of "corner" it is what is left
    in an inner corner, or missing at an outer one."""

    of: Literal["path", "finished", "corner"]
    off: float
    at: Point


@dataclass(frozen=True)
class CloseUp:
    """A square window about `place`, `reach` either way. `across` is the place on the nominal edge where lines were measured,
    `outward` the way out of the part there. `finished` and `nominal` are closed where they are areas; `beam` is its width."""

    what: What
    part: str
    copy: int
    sheet: int
    place: Point
    reach: float
    across: Point
    outward: Point
    beam: float
    nominal: tuple[Points, ...]
    finished: tuple[Points, ...]
    paths: tuple[Points, ...]
    measured: tuple[Measured, ...]
    finding: int = -1
    """The number of the finding that it shows, -1 for none."""


@dataclass(frozen=True)
class Spot:
    """Where to look: a corner of an outline or a place on its edge, and the way along an edge from there with its length."""

    what: What
    place: Point
    along: Point
    length: float


def spots(nominal: Region) -> list[Spot]:
    """The corners between straight edges of a region, the inner ones first; without any, a place on its first edge."""
    found: list[tuple[int, float, Spot]] = []
    for ring in nominal.rings:
        segments = ring.segments
        for before, after in zip((segments[-1], *segments[:-1]), segments, strict=True):
            (ax, ay), (bx, by), (cx, cy) = before.start, after.start, after.end
            arriving, leaving = (bx - ax, by - ay), (cx - bx, cy - by)
            length, other = math.hypot(*leaving), math.hypot(*arriving)
            if before.bulge or after.bulge or min(length, other) < 1e-6:
                continue
            turn = math.atan2(arriving[0] * leaving[1] - arriving[1] * leaving[0],
                              arriving[0] * leaving[0] + arriving[1] * leaving[1])  # fmt: skip
            if abs(turn) > SHARP:
                inner = turn < 0
                spot = Spot("inner corner" if inner else "outer corner", after.start,
                            (leaving[0] / length, leaving[1] / length), length)  # fmt: skip
                found.append((not inner, -min(length, other), spot))
    if found:
        return [spot for _, _, spot in sorted(found, key=lambda one: one[:2])]
    first = nominal.outer.segments[0]
    (x, y), (fx, fy) = first.start, first.end
    if first.bulge:  # a curve: along its tangent
        cx, cy = first.centre
        way = (-(y - cy), x - cx) if first.bulge > 0 else (y - cy, -(x - cx))
    else:
        way = (fx - x, fy - y)
    size = math.hypot(*way)
    return [Spot("edge", (x, y), (way[0] / size, way[1] / size), first.length)]


class CloseLooks:
    """The cut paths of one sheet, to be looked at closely at several places."""

    def __init__(self, sheet: int, cut: Sequence[shapely.Geometry], kerf: float) -> None:
        import shapely

        self.sheet, self.kerf = sheet, kerf
        self.lines = list(cut)
        self.tree = shapely.STRtree(self.lines)

    def at(
        self, spot: Spot, part: str, copy: int, wanted: shapely.Polygon, finished: shapely.Geometry, amount: float = 0.0
    ) -> CloseUp:
        """`wanted` is the nominal outline; `amount` is what has to be seen there: a window is no smaller."""
        import shapely

        reach = min(max(2.2 * self.kerf, 1.6 * abs(amount), LEAST_REACH_MM), MOST_REACH_MM)
        (x, y), (ux, uy) = spot.place, spot.along
        outward = (uy, -ux)  # material lies to the left of an outline
        run = 0.0 if spot.what == "edge" else min(0.62 * reach, 0.5 * spot.length)
        across = (x + run * ux, y + run * uy)
        window = shapely.box(x - reach, y - reach, x + reach, y + reach)
        beside = [self.lines[i] for i in self.tree.query(window)]
        measured = _measured(across, outward, reach, finished, beside)
        if spot.what != "edge":
            off = (
                float(shapely.distance(shapely.Point(spot.place), finished.boundary)) if not finished.is_empty else 0.0
            )
            measured.append(Measured("corner", off, spot.place))
        return CloseUp(
            spot.what, part, copy, self.sheet, spot.place, reach, across, outward, self.kerf,
            _lines(shapely.intersection(wanted.boundary, window)), _areas(shapely.intersection(finished, window)),
            _lines(shapely.union_all([shapely.intersection(line, window) for line in beside])) if beside else (),
            tuple(measured),
        )  # fmt: skip


def nearest(found: Sequence[Spot], place: Point, within: float) -> Spot | None:
    """The spot nearest to a place, if one is that near."""
    best = min(found, key=lambda one: math.dist(one.place, place))
    return best if math.dist(best.place, place) <= within else None


def edge_at(nominal: Region, place: Point) -> Spot:
    """The place on a region's outline that is nearest to another."""
    import numpy as np

    from ..geometry.segments import segments_of_rings

    segments, _ = segments_of_rings(list(nominal.rings), [0] * (1 + len(nominal.holes)))
    every = np.arange(len(segments))
    off = segments.distance_to(every, np.repeat(np.asarray([place]), len(segments), axis=0))
    index = int(off.argmin())
    one = segments.take(np.asarray([index]))
    (x0, y0), (x1, y1) = one.start[0], one.end[0]
    size = max(math.hypot(x1 - x0, y1 - y0), 1e-9)
    ux, uy = (x1 - x0) / size, (y1 - y0) / size
    share = min(max(((place[0] - x0) * ux + (place[1] - y0) * uy) / size, 0.0), 1.0)
    spot = one.at(np.asarray([share]))[0]
    tangent = one.tangents(share)[0]
    return Spot("edge", (float(spot[0]), float(spot[1])), (float(tangent[0]), float(tangent[1])), size)


def _measured(
    across: Point, outward: Point, reach: float, finished: shapely.Geometry, beside: Sequence[shapely.Geometry]
) -> list[Measured]:
    """Along a line straight through the nominal edge: where the finished edge is, and the nearest path on the outer side."""
    import shapely

    ends = [(across[0] + k * outward[0], across[1] + k * outward[1]) for k in (-reach, reach)]
    probe = shapely.LineString(ends)

    def crossings(line: shapely.Geometry) -> list[float]:
        points = shapely.get_coordinates(shapely.intersection(probe, line))
        return [(x - across[0]) * outward[0] + (y - across[1]) * outward[1] for x, y in points.tolist()]

    found: list[Measured] = []
    edge = crossings(finished.boundary) if not finished.is_empty else []
    if edge:
        off = min(edge, key=abs)
        found.append(Measured("finished", off, _moved(across, outward, off)))
    paths = [off for line in beside for off in crossings(line)]
    outside = [one for one in paths if one >= -EDGE_MM] or paths
    if outside:
        off = min(outside, key=abs)
        found.append(Measured("path", off, _moved(across, outward, off)))
    return found


def _moved(place: Point, way: Point, by: float) -> Point:
    return (place[0] + by * way[0], place[1] + by * way[1])


def _lines(shape: shapely.Geometry) -> tuple[Points, ...]:
    import shapely

    merged = shapely.line_merge(shape) if shape.geom_type == "MultiLineString" else shape
    parts = [one for one in shapely.get_parts(merged) if one.geom_type == "LineString" and not one.is_empty]
    return _short([one.coords for one in parts])


def _areas(shape: shapely.Geometry) -> tuple[Points, ...]:
    import shapely

    parts = [one for one in shapely.get_parts(shape) if one.geom_type == "Polygon" and not one.is_empty]
    return _short([ring.coords for one in parts for ring in (one.exterior, *one.interiors)])


def _short(lines: Sequence[Sequence[Point]]) -> tuple[Points, ...]:
    step = max(1, sum(map(len, lines)) // MOST_POINTS)
    return tuple(
        tuple((round(x, 5), round(y, 5)) for x, y in (*line[:-1:step], line[-1])) for line in lines
    )  # fmt: skip
