"""One finished piece against its nominal outline: how far off its edges and its corners are, and where."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property
from typing import TYPE_CHECKING, cast

from ..geometry import Point, Region, loops
from ..geometry.inside import inside
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


Run = tuple[tuple[float, float, float, float], ...]
"""Places along an edge that is off, each with the way from there to the finished edge: x, y, dx, dy."""

Kept = tuple[float, float, float]
"""An inside corner, and how far what a round beam leaves in it reaches: x, y, mm."""

MOST_SHOWN = 400
KEPT_MM = 0.005


@dataclass(frozen=True)
class Comparison:
    """`edge` over all edges, `corner` over convex corners, `inside_corner` over the others.

    Positive amounts are distances; `larger` tells whether the piece is larger than nominal where it is off the most.
    `extra` is the worst point of the finished edge beyond what an inside corner may keep. `runs` are the edges that are off,
    `kept` the inside corners that keep something; of both at most `MOST_SHOWN`.
    """

    edge: Deviation
    corner: Deviation
    inside_corner: Deviation
    extra: Deviation
    larger: bool
    runs: tuple[Run, ...] = ()
    kept: tuple[Kept, ...] = ()

    def ok(self, unsure: float = 0.0) -> bool:
        """Whether the piece is as wanted, where its edges may be off by `unsure` mm for all that is known of the kerf."""
        return (
            self.edge.amount <= EDGE_MM + unsure
            and self.corner.amount <= CORNER_MM + 1.5 * unsure
            and self.extra.amount <= EDGE_MM + unsure
        )


def nominal_polygon(region: Region) -> shapely.Polygon:
    import numpy as np
    import shapely

    outer, holes = loops(region, CHORD_MM)
    return shapely.polygons(np.asarray(outer), [shapely.linearrings(np.asarray(hole)) for hole in holes] or None)


def compare(finished: shapely.Geometry, nominal: Region, kerf: float) -> Comparison:
    """`finished` (not empty) with `nominal`, both in the same place.

    What no beam of that width could take away without cutting into the part is not held against the piece.
    """
    import numpy as np
    import shapely

    places = _places(nominal, kerf)
    boundary = finished.boundary
    reachable = _Reach(nominal, kerf)
    counts = np.cumsum([len(places.edges), len(places.sharp)])
    all_places = np.concatenate([places.edges, places.sharp, places.hollow])
    at_edges, at_sharp, at_hollow = np.split(_distances(shapely.points(all_places), boundary), counts)
    edge = _worst_reachable(places.edges, at_edges, EDGE_MM, reachable)
    outline, ring = _with_middles(shapely.get_parts(shapely.segmentize(boundary, 5.0)))
    off = _off_outline(outline, nominal)
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
    left = np.flatnonzero(excess > EDGE_MM)
    if len(left):
        # Material stays there for good reason if no beam could have come nearer to what lies just behind that edge.
        behind = _just_inside(finished, outline, ring, left)
        excused = ~inside(reachable.shape, outline[left]) & ~reachable(behind)
        excess[left[excused]] = 0.0
    at = int(excess.argmax())
    corner = _worst_reachable(places.sharp, at_sharp, CORNER_MM, reachable)
    extra = Deviation(float(excess[at]), (float(outline[at][0]), float(outline[at][1])))
    worst = edge if edge.amount > EDGE_MM else max((corner, extra, edge), key=lambda one: one.amount)
    on_part = worst is not extra
    larger = (
        finished.contains(shapely.Point(worst.place))
        if on_part
        else not reachable.shape.contains(shapely.Point(worst.place))
    )
    keeping = np.flatnonzero(at_hollow > KEPT_MM)[:MOST_SHOWN]
    return Comparison(
        edge, corner, _worst(places.hollow, at_hollow), extra, bool(larger),
        _runs(places.edges, at_edges, boundary),
        tuple((float(x), float(y), float(off)) for (x, y), off in zip(places.hollow[keeping], at_hollow[keeping], strict=True)),
    )  # fmt: skip


CHORD_ASKED_MM = 0.1
"""A chord that is longer may leave its arc between its ends by what an edge may not: 0.005 at a radius of 0.25."""


def _with_middles(rings: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
    """The corners of some rings in their order, with the middle of each longer segment, and the number of each one's ring."""
    import numpy as np
    import shapely

    places, ring = shapely.get_coordinates(rings, return_index=True)
    way = np.diff(places, axis=0)
    long = np.flatnonzero((ring[1:] == ring[:-1]) & (np.hypot(*way.T) > CHORD_ASKED_MM))
    return np.insert(places, long + 1, places[long] + way[long] / 2, axis=0), np.insert(ring, long + 1, ring[long])


_AT_ONCE = 1_000_000  # pairs whose distances are held at one time


def _runs(edges: np.ndarray, off: np.ndarray, boundary: shapely.Geometry) -> tuple[Run, ...]:
    """The edges that are off, by the three places that are measured on each."""
    import numpy as np
    import shapely

    beyond = np.flatnonzero((off.reshape(-1, 3) > EDGE_MM).any(axis=1))[:MOST_SHOWN]
    if not len(beyond):
        return ()
    places = edges.reshape(-1, 3, 2)[beyond].reshape(-1, 2)
    ways = shapely.get_coordinates(shapely.shortest_line(shapely.points(places), boundary)).reshape(-1, 2, 2)
    rows = np.hstack([places, ways[:, 1] - ways[:, 0]]).reshape(-1, 3, 4)
    return tuple(tuple((x, y, dx, dy) for x, y, dx, dy in run) for run in rows.tolist())


class _Reach:
    """Which places a beam beside the part could come as near to as is asked, without cutting into the part."""

    def __init__(self, nominal: Region, kerf: float) -> None:
        self.nominal, self.kerf = nominal, kerf

    @cached_property
    def shape(self) -> shapely.Polygon:
        return nominal_polygon(self.nominal)

    @cached_property
    def forbidden(self) -> shapely.Geometry:
        """Where the middle of the beam may not be."""
        return self.shape.buffer(max(self.kerf / 2 - CHORD_MM, 0.0), quad_segs=64)

    def __call__(self, places: np.ndarray) -> np.ndarray:
        import numpy as np
        import shapely

        off = _distances(shapely.points(places), self.forbidden.boundary)
        return cast("np.ndarray", np.where(inside(self.forbidden, places), off, 0.0) <= self.kerf / 2 + 0.8 * EDGE_MM)


def _just_inside(finished: shapely.Geometry, outline: np.ndarray, ring: np.ndarray, at: np.ndarray) -> np.ndarray:
    """For points of a piece's outline a place a little further into its material, square to the outline there."""
    import numpy as np

    last = len(outline) - 1
    before, after = np.maximum(at - 1, 0), np.minimum(at + 1, last)
    before, after = np.where(ring[before] == ring[at], before, at), np.where(ring[after] == ring[at], after, at)
    way = outline[after] - outline[before]
    normal = np.stack([-way[:, 1], way[:, 0]], axis=1) / np.maximum(np.hypot(*way.T), 1e-12)[:, None]
    there, back = outline[at] + 2 * EDGE_MM * normal, outline[at] - 2 * EDGE_MM * normal
    return cast("np.ndarray", np.where(inside(finished, there)[:, None], there, back))


_MANY = 4000  # from here on, measured, building the tree takes less than asking every segment


def _distances(points: np.ndarray, boundary: shapely.Geometry) -> np.ndarray:
    """From each of some points to a boundary; with many segments, as of a thousand holes, a tree finds the nearest."""
    import numpy as np
    import shapely

    if shapely.get_num_coordinates(boundary) < _MANY:
        return np.asarray(shapely.distance(points, boundary))
    coordinates, ring = shapely.get_coordinates(shapely.get_parts(boundary), return_index=True)
    # In runs of a few segments: less to make a tree of than each by itself.
    first = np.flatnonzero(np.r_[True, ring[1:] != ring[:-1]])
    within = np.arange(len(ring)) - np.repeat(first, np.diff(np.r_[first, len(ring)]))
    last = np.r_[ring[1:] != ring[:-1], True]
    both = (within % _RUN == 0) & (within > 0) & ~last
    twice = np.repeat(np.arange(len(ring)), 1 + both)
    begins = np.r_[True, twice[1:] == twice[:-1]] | (within[twice] == 0)
    tree = shapely.STRtree(shapely.linestrings(coordinates[twice], indices=np.cumsum(begins) - 1))
    return np.asarray(tree.query_nearest(points, return_distance=True, all_matches=False)[1])


_RUN = 16
_BESIDE_MM = 0.5


def _off_outline(places: np.ndarray, nominal: Region) -> np.ndarray:
    """How far some places are from a nominal outline, by its own lines and arcs."""
    import numpy as np
    import shapely

    from ..geometry.segments import segments_of_rings

    s, _ = segments_of_rings(list(nominal.rings), [0] * (1 + len(nominal.holes)))
    boxes = s.box + np.array([-_BESIDE_MM, -_BESIDE_MM, _BESIDE_MM, _BESIDE_MM])
    # A diagonal has the box's envelope, which is all that the tree asks for.
    tree = shapely.STRtree(shapely.linestrings(boxes.reshape(-1, 2, 2)))
    place, segment = tree.query(shapely.points(places))
    off = np.full(len(places), np.inf)
    np.minimum.at(off, place, s.distance_to(segment, places[place]))
    far = np.flatnonzero(off > _BESIDE_MM)
    if len(far):  # nothing is beside it: all of it is asked
        off[far] = shapely.distance(shapely.points(places[far]), nominal_polygon(nominal).boundary)
    return off


def _worst(places: np.ndarray, off: np.ndarray) -> Deviation:
    if not len(places):
        return Deviation(0.0, (0.0, 0.0))
    at = int(off.argmax())
    return Deviation(float(off[at]), (float(places[at][0]), float(places[at][1])))


def _worst_reachable(places: np.ndarray, off: np.ndarray, limit: float, reachable: _Reach) -> Deviation:
    """The worst of the places that a beam can come near to; the others are asked about only if they are beyond `limit`."""
    import numpy as np

    beyond = np.flatnonzero(off > limit)
    kept = np.ones(len(places), bool)
    if len(beyond):
        kept[beyond] = reachable(places[beyond])
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
