"""One finished piece against its nominal outline: how far off its edges and its corners are, and where."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import TYPE_CHECKING

from ..geometry import Point, Region, flatten
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

    places = _places(nominal, kerf)
    boundary, shape = finished.boundary, nominal_polygon(nominal)
    counts = np.cumsum([len(places.edges), len(places.sharp)])
    all_places = np.concatenate([places.edges, places.sharp, places.hollow])
    at_edges, at_sharp, at_hollow = np.split(_distances(shapely.points(all_places), boundary), counts)
    edge = _worst_reachable(places.edges, at_edges, EDGE_MM, shape, kerf)
    outline = shapely.get_coordinates(shapely.segmentize(boundary, 5.0))
    points = shapely.points(outline)
    off = _distances(points, shape.boundary)
    # What an inside corner keeps: a fillet of half the kerf, within reach of that corner.
    allowed = np.zeros(len(outline))
    beyond = np.flatnonzero(off > EDGE_MM)
    if len(places.hollow):
        # From a corner to what a round beam leaves in it, and how far that reaches along its walls.
        kept = (1 / np.sin(places.angles / 2) - 1) * kerf / 2
        reach = kerf / 2 / np.tan(places.angles / 2) + EDGE_MM + kerf / 2
        for some in np.array_split(beyond, 1 + len(beyond) * len(kept) // _AT_ONCE):
            apart = np.hypot(*(outline[some][:, None] - places.hollow[None]).transpose(2, 0, 1))
            allowed[some] = np.where(apart <= reach, kept, 0.0).max(axis=1)
    excess = np.maximum(off - allowed, 0)
    for index in np.flatnonzero(excess > EDGE_MM).tolist():
        if not shape.contains(points[index]) and not _reachable(outline[index], shape, kerf):
            excess[index] = 0.0
    at = int(excess.argmax())
    return Comparison(
        edge=edge,
        corner=_worst_reachable(places.sharp, at_sharp, CORNER_MM, shape, kerf),
        inside_corner=_worst(places.hollow, at_hollow),
        extra=Deviation(float(excess[at]), (float(outline[at][0]), float(outline[at][1]))),
        larger=bool(finished.contains(shapely.Point(edge.place))),
    )


_RINGS, _SPOKES = 3, 120
_AT_ONCE = 1_000_000  # pairs whose distances are held at one time


def _reachable(place: Point | np.ndarray, shape: shapely.Geometry, kerf: float) -> bool:
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


def _worst(places: np.ndarray, off: np.ndarray) -> Deviation:
    if not len(places):
        return Deviation(0.0, (0.0, 0.0))
    at = int(off.argmax())
    return Deviation(float(off[at]), (float(places[at][0]), float(places[at][1])))


def _worst_reachable(
    places: np.ndarray, off: np.ndarray, limit: float, shape: shapely.Geometry, kerf: float
) -> Deviation:
    """The worst of the places that a beam can come near to; the others are asked about only if they are beyond `limit`."""
    import numpy as np

    beyond = np.flatnonzero(off > limit)
    kept = np.ones(len(places), bool)
    kept[[i for i in beyond.tolist() if not _reachable(places[i], shape, kerf)]] = False
    return _worst(places[kept], off[kept])


@dataclass(frozen=True)
class _Places:
    """Points on edges clear of corners, convex corners, and inside corners with their open angles."""

    edges: np.ndarray
    sharp: np.ndarray
    hollow: np.ndarray
    angles: np.ndarray


def _places(nominal: Region, kerf: float) -> _Places:
    import numpy as np

    from ..geometry.segments import next_in_ring, previous_in_ring, segments_of_rings

    rings = list(nominal.rings)
    segments, ring = segments_of_rings(rings, [0] * len(rings))
    arriving, leaving = segments.tangents(1)[previous_in_ring(ring)], segments.tangents(0)
    turn = np.arctan2(arriving[:, 0] * leaving[:, 1] - arriving[:, 1] * leaving[:, 0], (arriving * leaving).sum(axis=1))
    hollow = turn < -_SMOOTH
    # How far along its edges a corner's own rounding may reach.
    angles = math.pi + turn
    rounding = kerf / 2 / np.tan(np.where(hollow, angles, math.pi) / 2) + EDGE_MM
    clear = np.where(hollow, np.maximum(kerf, rounding), kerf)
    first, last = clear, segments.length - clear[next_in_ring(ring)]
    room = np.flatnonzero(first < last)
    some = segments.take(room)
    shares = [(first[room] + (last - first)[room] * share) / some.length for share in (0.0, 0.5, 1.0)]
    edges = np.stack([some.at(share) for share in shares], axis=1).reshape(-1, 2)
    return _Places(edges, segments.start[turn > _SMOOTH], segments.start[hollow], angles[hollow])
