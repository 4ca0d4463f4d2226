"""One finished piece against its nominal outline: how far off its edges and its corners are, and where."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

from ..geometry import Circle, Point, Region, Segment, flatten
from .as_cut import CHORD_MM

if TYPE_CHECKING:
    import shapely

EDGE_MM = 0.005
"""Straight edges and holes must come out this near to nominal."""

CORNER_MM = 0.01
"""Convex corners must be this sharp."""

_SMOOTH = math.radians(1)


@dataclass(frozen=True)
class Deviation:
    """The worst distance from nominal in mm, and the place on the nominal outline."""

    amount: float
    place: Point


@dataclass(frozen=True)
class Comparison:
    """`edge` over all edges, `corner` over convex corners, `inside_corner` over the others.

    Positive amounts are distances; `larger` tells whether the piece is larger than nominal at its worst edge.
    `extra` is the worst point of the finished edge that belongs to no nominal edge or inside corner.
    """

    edge: Deviation
    corner: Deviation
    inside_corner: Deviation
    extra: Deviation
    larger: bool

    def ok(self, kerf: float) -> bool:
        return (
            self.edge.amount <= EDGE_MM
            and self.corner.amount <= CORNER_MM
            and self.extra.amount <= EDGE_MM
            and self.inside_corner.amount <= kerf / 2 + EDGE_MM
        )


def nominal_polygon(region: Region) -> shapely.Polygon:
    import shapely

    outer, *holes = (flatten(ring.segments, CHORD_MM) for ring in region.rings)
    return shapely.Polygon(outer, holes)


def compare(finished: shapely.Geometry, nominal: Region, kerf: float) -> Comparison:
    """`finished` (not empty) with `nominal`, both in the same place."""
    import numpy as np
    import shapely

    edges, sharp, hollow = _places(nominal, kerf)
    boundary = finished.boundary
    shape = nominal_polygon(nominal)
    edge = _worst(edges, boundary)
    larger = bool(finished.contains(shapely.Point(edge.place)))
    outline = shapely.get_coordinates(shapely.segmentize(boundary, 5.0))
    points = shapely.points(outline)
    off = shapely.distance(points, shape.boundary)
    # What an inside corner keeps: a fillet of half the kerf, within reach of that corner.
    allowed = np.zeros(len(outline))
    for place, angle in hollow:
        reach = (kerf / 2) / math.tan(angle / 2) + EDGE_MM
        near = np.hypot(*(outline - place).T) <= reach + kerf / 2
        allowed[near] = np.maximum(allowed[near], (1 / math.sin(angle / 2) - 1) * kerf / 2)
    excess = np.maximum(off - allowed, 0)
    at = int(excess.argmax())
    return Comparison(
        edge=edge,
        corner=_worst(sharp, boundary),
        inside_corner=_worst([place for place, _ in hollow], boundary),
        extra=Deviation(float(excess[at]), (float(outline[at][0]), float(outline[at][1]))),
        larger=larger,
    )


def _worst(places: list[Point], boundary: shapely.Geometry) -> Deviation:
    import shapely

    if not places:
        return Deviation(0.0, (0.0, 0.0))
    distances = shapely.distance(shapely.points(places), boundary)
    at = int(distances.argmax())
    return Deviation(float(distances[at]), places[at])


def _places(nominal: Region, kerf: float) -> tuple[list[Point], list[Point], list[tuple[Point, float]]]:
    """Points on edges clear of corners, convex corners, and inside corners with their open angle."""
    edges: list[Point] = []
    sharp: list[Point] = []
    hollow: list[tuple[Point, float]] = []
    for ring in nominal.rings:
        segments = ring.segments
        for index, segment in enumerate(segments):
            clear = min(kerf / segment.length, 0.5)
            edges += [segment.at(clear + (1 - 2 * clear) * share) for share in (0.0, 0.5, 1.0)]
            turn = 0.0 if isinstance(ring, Circle) else _turn(segments[index - 1], segment)
            if turn > _SMOOTH:
                sharp.append(segment.start)
            elif turn < -_SMOOTH:
                hollow.append((segment.start, math.pi + turn))
    return edges, sharp, hollow


def _turn(before: Segment, after: Segment) -> float:
    """Signed angle by which travel turns between two segments; left is positive."""
    (x0, y0), (x1, y1), (x2, y2) = before.start, before.end, after.end
    out = math.atan2(y1 - y0, x1 - x0) + before.sweep / 2
    onward = math.atan2(y2 - y1, x2 - x1) - after.sweep / 2
    return math.remainder(onward - out, 2 * math.pi)
