"""One finished piece against its nominal outline: how far off its edges and its corners are, and where."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

from ..geometry import Circle, Point, Region, Segment, flatten
from .as_cut import CHORD_MM

if TYPE_CHECKING:
    import numpy as np
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
    `extra` is the worst point of the finished edge beyond what an inside corner may keep.
    """

    edge: Deviation
    corner: Deviation
    inside_corner: Deviation
    extra: Deviation
    larger: bool

    def ok(self, unsure: float = 0.0) -> bool:
        """Whether the piece is as wanted, where its edges may be off by `unsure` mm for all that is known of the kerf."""
        return (
            self.edge.amount <= EDGE_MM + unsure
            and self.corner.amount <= CORNER_MM + 1.5 * unsure
            and self.extra.amount <= EDGE_MM + unsure
        )


def nominal_polygon(region: Region) -> shapely.Polygon:
    import shapely

    outer, *holes = (flatten(ring.segments, CHORD_MM) for ring in region.rings)
    return shapely.Polygon(outer, holes)


def compare(finished: shapely.Geometry, nominal: Region, kerf: float) -> Comparison:
    """`finished` (not empty) with `nominal`, both in the same place.

    What no beam of that width could take away without cutting into the part is not held against the piece.
    """
    import numpy as np
    import shapely

    edges, sharp, hollow = _places(nominal, kerf)
    boundary = finished.boundary
    shape = nominal_polygon(nominal)
    edge = _worst_reachable(edges, boundary, EDGE_MM, shape, kerf)
    larger = bool(finished.contains(shapely.Point(edge.place)))
    outline = shapely.get_coordinates(shapely.segmentize(boundary, 5.0))
    points = shapely.points(outline)
    off = _distances(points, shape.boundary)
    # What an inside corner keeps: a fillet of half the kerf, within reach of that corner.
    allowed = np.zeros(len(outline))
    for place, angle in hollow:
        reach = (kerf / 2) / math.tan(angle / 2) + EDGE_MM
        near = np.hypot(*(outline - place).T) <= reach + kerf / 2
        allowed[near] = np.maximum(allowed[near], kept_in_corner(angle, kerf))
    excess = np.maximum(off - allowed, 0)
    for index in np.flatnonzero(excess > EDGE_MM).tolist():
        if not shape.contains(points[index]) and not _reachable(outline[index], shape, kerf):
            excess[index] = 0.0
    at = int(excess.argmax())
    return Comparison(
        edge=edge,
        corner=_worst_reachable(sharp, boundary, CORNER_MM, shape, kerf),
        inside_corner=_worst([place for place, _ in hollow], boundary),
        extra=Deviation(float(excess[at]), (float(outline[at][0]), float(outline[at][1]))),
        larger=larger,
    )


_RINGS, _SPOKES = 3, 120


def _reachable(place: Point, shape: shapely.Geometry, kerf: float) -> bool:
    """Whether a beam somewhere beside the part could come as near to `place` as is asked without cutting into it."""
    import numpy as np
    import shapely

    spokes = np.linspace(0, 2 * math.pi, _SPOKES, endpoint=False)
    away = np.stack([np.cos(spokes), np.sin(spokes)], axis=1)
    reach = kerf / 2 + 0.8 * EDGE_MM
    centres = np.concatenate([away * reach * (ring + 1) / _RINGS for ring in range(_RINGS)]) + np.asarray(place)
    return bool((shapely.distance(shapely.points(centres), shape) >= kerf / 2 - CHORD_MM).any())


_MANY = 4000  # from here on, measured, building the tree takes less than asking every segment


def _distances(points: np.ndarray, boundary: shapely.Geometry) -> np.ndarray:
    """From each of some points to a boundary; with many segments, as of a thousand holes, a tree finds the nearest."""
    import numpy as np
    import shapely

    if shapely.get_num_coordinates(boundary) < _MANY:
        return np.asarray(shapely.distance(points, boundary))
    coordinates, ring = shapely.get_coordinates(shapely.get_parts(boundary), return_index=True)
    ends = np.stack([coordinates[:-1], coordinates[1:]], axis=1)[ring[:-1] == ring[1:]]
    tree = shapely.STRtree(shapely.linestrings(ends))
    return np.asarray(tree.query_nearest(points, return_distance=True, all_matches=False)[1])


def _worst(places: list[Point], boundary: shapely.Geometry) -> Deviation:
    import shapely

    if not places:
        return Deviation(0.0, (0.0, 0.0))
    distances = _distances(shapely.points(places), boundary)
    at = int(distances.argmax())
    return Deviation(float(distances[at]), places[at])


def kept_in_corner(angle: float, kerf: float) -> float:
    """What a round beam leaves in an inside corner between walls `angle` apart, from the corner to the material."""
    return (1 / math.sin(angle / 2) - 1) * kerf / 2


def _worst_reachable(
    places: list[Point], boundary: shapely.Geometry, limit: float, shape: shapely.Geometry, kerf: float
) -> Deviation:
    """The worst of the places that a beam can come near to; the others are asked about only if they are beyond `limit`."""
    import shapely

    worst = _worst(places, boundary)
    if worst.amount <= limit:
        return worst
    off = _distances(shapely.points(places), boundary)
    return _worst(
        [p for p, far in zip(places, off, strict=True) if far <= limit or _reachable(p, shape, kerf)], boundary
    )


def _places(nominal: Region, kerf: float) -> tuple[list[Point], list[Point], list[tuple[Point, float]]]:
    """Points on edges clear of corners, convex corners, and inside corners with their open angle."""
    edges: list[Point] = []
    sharp: list[Point] = []
    hollow: list[tuple[Point, float]] = []
    for ring in nominal.rings:
        segments = ring.segments
        turns = [0.0 if isinstance(ring, Circle) else _turn(segments[i - 1], s) for i, s in enumerate(segments)]
        clear = [_clear(turn, kerf) for turn in turns]
        for index, segment in enumerate(segments):
            first, last = clear[index], segment.length - clear[(index + 1) % len(segments)]
            if first < last:
                edges += [segment.at((first + (last - first) * share) / segment.length) for share in (0.0, 0.5, 1.0)]
            if turns[index] > _SMOOTH:
                sharp.append(segment.start)
            elif turns[index] < -_SMOOTH:
                hollow.append((segment.start, math.pi + turns[index]))
    return edges, sharp, hollow


def _clear(turn: float, kerf: float) -> float:
    """How far along its edges a corner's own rounding may reach."""
    return max(kerf, kerf / 2 / math.tan((math.pi + turn) / 2) + EDGE_MM) if turn < -_SMOOTH else kerf


def _turn(before: Segment, after: Segment) -> float:
    """Signed angle by which travel turns between two segments; left is positive."""
    (x0, y0), (x1, y1), (x2, y2) = before.start, before.end, after.end
    out = math.atan2(y1 - y0, x1 - x0) + before.sweep / 2
    onward = math.atan2(y2 - y1, x2 - x1) - after.sweep / 2
    return math.remainder(onward - out, 2 * math.pi)
