"""Outlines moved sideways by a fixed distance: what a beam's centre must follow, and what it leaves.

The lines and circles themselves are moved, never chords of them. Where the moved pieces meet cleanly that is
all; where they collide, they are cut up at their crossings and kept where they are far enough from the source.
"""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

from .boolean import MOST_AT_ONCE, NUDGES_MM, combine, tangled
from .contour import JOIN_MM, Circle, Contour, Segment, Vertex
from .corners import shifted, turn_between
from .linking import Unlinked, link
from .moved_rings import SHARPEST_MITRE, STRAIGHT_ON, Moved, collisions
from .noding import Neighbours, Pieces, cut_up, quarters
from .region import Region
from .ring import Ring
from .segments import (
    Floats,
    Ints,
    Segments,
    next_in_ring,
    previous_in_ring,
    segments_of,
    segments_of_rings,
)
from .winding import winding

SLACKS_MM = (1e-9, 1e-8, 1e-7, 1e-6)
LOOSE_MM = 0.001
"""Ends longer than this are no rounding."""


def offset(region: Region, distance: float) -> list[Region]:
    """`region` grown by `distance` mm on all sides (holes shrink), or shrunk where it is negative.

    Square corners stay square where both edges are longer than 2 x distance; other convex corners get an exact
    arc. A region may fall apart or vanish, so there may be any number of results.
    """
    return offset_all([region], distance)[0]


def lengths_all(regions: Sequence[Region], distance: float) -> list[float | None]:
    """How long all outlines of `offset` of each region are, in mm, without making it; None where only making it tells.

    A ring that is moved cleanly grows by the distance times what its corners and arcs turn: 2 tan(turn / 2) where a corner
    stays one, the turn itself where an arc goes round it. It is clean for sure where no two segments but neighbours come near
    each other, nothing turns inside out, and no arc meets another segment at an angle.
    """
    rings = [(ring, number) for number, region in enumerate(regions) for ring in region.rings]
    found = np.zeros(len(regions))
    known = np.ones(len(regions), bool)
    circles = [(ring, number) for ring, number in rings if isinstance(ring, Circle)]
    for ring, number in circles:
        radius = ring.radius - distance if ring.hole else ring.radius + distance
        found[number] += 2 * math.pi * max(radius, 0.0)
        known[number] &= radius > JOIN_MM
    s, ring_of = segments_of_rings([ring for ring, _ in rings], [number for _, number in rings])
    round_ring = np.array([isinstance(ring, Circle) for ring, _ in rings])[ring_of]
    before, after = previous_in_ring(ring_of), next_in_ring(ring_of)
    leaving, arriving = s.tangents(0), s.tangents(1)[before]
    turn = np.arctan2(arriving[:, 0] * leaving[:, 1] - arriving[:, 1] * leaving[:, 0], (arriving * leaving).sum(axis=1))
    smooth = np.abs(turn) < STRAIGHT_ON
    lines, parting = ~s.round & ~s.round[before], turn * distance > 0
    long_enough = np.minimum(s.span, s.span[before]) > 2 * abs(distance)
    pointed = lines & (~parting | (long_enough & (np.pi - np.abs(turn) >= SHARPEST_MITRE - 1e-9)))
    corner = np.where(smooth, 0.0, np.where(pointed, 2 * np.tan(turn / 2), turn))
    # How much of a line its two corners take, or add.
    reach = np.where(pointed & ~smooth, distance * np.tan(turn / 2), 0.0)
    left = np.where(s.round, s.radius + np.sign(s.bulge) * distance, s.span + reach + reach[after])
    wrong = ~smooth & ~parting & ~lines
    wrong |= left <= LOOSE_MM
    straight = ~round_ring
    np.add.at(found, s.group[straight], (s.length + distance * (np.where(s.round, s.sweep, 0.0) + corner))[straight])
    known[s.group[wrong & straight]] = False
    first, second = _near(s, 2 * abs(distance))
    apart = (first < second) & (after[first] != second) & (after[second] != first)
    apart &= (ring_of[first] != ring_of[second]) | ~round_ring[first]
    known[s.group[first[apart]]] = False
    return [length if sure else None for length, sure in zip(found.tolist(), known.tolist(), strict=True)]


def _near(s: Segments, reach: float) -> tuple[Ints, Ints]:
    """Pairs of segments of one group whose boxes come within `reach` on either side, each with itself among them."""
    sizes = np.bincount(s.group)
    many = sizes[s.group] > _FEW
    first, second = _touching_few(s, np.flatnonzero(~many), sizes, reach)
    if many.any():
        some = np.flatnonzero(many)
        left = s.take(some)
        query, found = Neighbours(left).touching(left.box, left.group, slack=2 * reach)
        first, second = np.r_[first, some[query]], np.r_[second, some[found]]
    return first, second


_FEW = 128
"""Up to so many segments, measured, asking each for each other is quicker than a tree."""


def _touching_few(s: Segments, at: Ints, sizes: Ints, reach: float) -> tuple[Ints, Ints]:
    """Pairs of segments of small groups whose boxes come within 2 x `reach`, each with itself among them."""
    if not len(at):
        return at, at
    groups, row = np.unique(s.group[at], return_inverse=True)
    first = np.searchsorted(s.group[at], groups)
    table = np.full((len(groups), int(sizes[groups].max())), -1)
    table[row, np.arange(len(at)) - first[row]] = at
    box = np.where(table[:, :, None] >= 0, s.box[table], np.nan)
    low, high = box[:, :, :2] - 2 * reach, box[:, :, 2:]
    near = low[:, :, None, 0] <= high[:, None, :, 0]
    near &= low[:, None, :, 0] <= high[:, :, None, 0]
    near &= low[:, :, None, 1] <= high[:, None, :, 1]
    near &= low[:, None, :, 1] <= high[:, :, None, 1]
    group, i, j = np.nonzero(near)
    return table[group, i], table[group, j]


def offset_all(regions: Sequence[Region], distance: float) -> list[list[Region]]:
    """`offset` of each of `regions` by itself, many of them in one pass."""
    if distance == 0:
        return [[region] for region in regions]
    results: list[list[Region]] = []
    for at in range(0, len(regions), MOST_AT_ONCE):
        results += _offset_some(regions[at : at + MOST_AT_ONCE], distance)
    return results


def _offset_some(regions: Sequence[Region], distance: float) -> list[list[Region]]:
    rings = [(ring, number) for number, region in enumerate(regions) for ring in region.rings]
    moved = Moved.of([ring for ring, _ in rings], [number for _, number in rings], distance)
    clean, tangled = moved.checked()
    results: list[list[Region]] = []
    mixed: list[tuple[int, list[Region], list[Region]]] = []
    at = 0
    for number, region in enumerate(regions):
        here = range(at, at + 1 + len(region.holes))
        at = here.stop
        if all(clean[i] for i in here) and number not in tangled:
            outer, *holes = (moved.ring(i) for i in here)
            results.append([Region(outer, tuple(hole for hole in holes if hole))] if outer else [])
            continue
        # Near another edge a square corner would keep away what a round one reaches.
        square = number not in tangled
        solids = [
            _solids(moved, i, ring, clean[i] and (square or isinstance(ring, Circle)), distance, square=square)
            for i, ring in zip(here, region.rings, strict=True)
        ]
        bores = [bore for solid in solids[1:] for bore in solid]
        results.append(solids[0])
        if bores and solids[0]:
            mixed.append((number, solids[0], bores))
    if mixed:
        cut = combine([(outer, bores) for _, outer, bores in mixed], "difference")
        for (number, _, _), parts in zip(mixed, cut, strict=True):
            results[number] = parts
    return results


def _solids(moved: Moved, index: int, ring: Ring, clean: bool, distance: float, *, square: bool) -> list[Region]:
    """What a moved ring goes round, taken as a solid even if it is a hole."""
    if clean:
        there = moved.ring(index)
        return [Region(there)] if there else []
    outer = ring.area > 0
    solid, by = (ring, distance) if outer else (ring.reversed, -distance)
    resolved = _move_and_resolve(solid, by)
    return [_squared(region, solid, by) for region in resolved] if square else resolved


def _squared(region: Region, source: Ring, distance: float) -> Region:
    """Arcs round corners that would have stayed square had nothing collided elsewhere are made square again."""
    if isinstance(source, Circle):
        return region
    segments, ring_of = segments_of_rings([source], [0])
    before = previous_in_ring(ring_of)
    leaving, arriving = segments.tangents(0), segments.tangents(1)[before]
    turn = np.arctan2(
        arriving[:, 0] * leaving[:, 1] - arriving[:, 1] * leaving[:, 0], (arriving * leaving).sum(axis=1)
    )  # fmt: skip
    long_enough = np.minimum(segments.span, segments.span[before]) > 2 * abs(distance)
    square = ~segments.round & ~segments.round[before] & (turn * distance > 0) & long_enough
    square &= np.pi - np.abs(turn) >= SHARPEST_MITRE - 1e-9
    corners = {_key(segments.start[i]): float(turn[i]) for i in np.flatnonzero(square).tolist()}
    rings = [_with_points(ring, corners, distance) for ring in region.rings]
    if all(new is old for new, old in zip(rings, region.rings, strict=True)):
        return region
    moved, owner = segments_of_rings(rings, [0] * len(rings))
    return region if len(collisions(moved, owner)[0]) else Region(rings[0], tuple(rings[1:]))


def _with_points(ring: Ring, corners: dict[tuple[float, float], float], distance: float) -> Ring:
    if not isinstance(ring, Contour):
        return ring
    segments, vertices = ring.segments, ring.vertices
    points: dict[int, Vertex] = {}
    for i, segment in enumerate(segments):
        turn = corners.get(_key(np.asarray(segment.centre))) if segment.bulge else None
        straight = segments[i - 1].bulge == 0 and segments[(i + 1) % len(segments)].bulge == 0
        if turn is not None and straight and abs(segment.sweep - turn) < _WHOLE_TURN:
            (x0, y0), (x1, y1) = segments[i - 1].start, segment.start
            reach = abs(distance * math.tan(turn / 2)) / math.dist((x0, y0), (x1, y1))
            points[i] = Vertex(x1 + (x1 - x0) * reach, y1 + (y1 - y0) * reach)
    if not points:
        return ring
    # The arc's start becomes the point; its end goes.
    gone = {(i + 1) % len(vertices) for i in points}
    return Contour(tuple(points.get(i, vertex) for i, vertex in enumerate(vertices) if i not in gone))


_WHOLE_TURN = 1e-6


def _key(place: Floats) -> tuple[float, float]:
    return (round(float(place[0]), 5), round(float(place[1]), 5))


def _move_and_resolve(ring: Ring, distance: float) -> list[Region]:
    """A ring as a solid, its moved pieces cut up where they cross and kept where they are far enough from all of it.

    Raises BadGeometry for a ring that crosses itself: nobody can tell its inside from its outside.
    """
    source, ring_of = segments_of_rings([ring], [0])
    if len(collisions(source, ring_of)[0]):
        raise tangled()
    for nudge in NUDGES_MM:
        nudged = distance + nudge
        segments, _ = quarters(segments_of([_raw_pieces(ring, nudged)], [0]))
        pieces = cut_up(segments)
        # Where pieces part at a small angle, the short ones between are hardly nearer than the others; where nodes
        # were joined, the others are not quite where they should be.
        for slack in SLACKS_MM:
            try:
                return _far_enough(ring, segments, pieces, nudged, slack)
            except Unlinked:
                continue
    raise tangled()


def _far_enough(ring: Ring, segments: Segments, pieces: Pieces, distance: float, slack: float) -> list[Region]:
    """Each piece lies wholly on the new outline or wholly nearer to the source than that: its middle tells."""
    reach = abs(distance)
    middle = pieces.as_segments.middle
    source, _ = segments_of_rings([ring], [0])
    query, other = Neighbours(source).touching(np.hstack([middle, middle]), pieces.group, slack=reach)
    near = np.full(len(middle), np.inf)
    np.minimum.at(near, query, source.distance_to(other, middle[query]))
    far = np.flatnonzero(near >= reach - slack)
    far = far[[(winding(source, middle[k]) != 0) == (distance < 0) for k in far]]
    # Pieces that run to and fro along one line bound nothing.
    place = pieces.same[far]
    net = np.zeros(int(pieces.same.max(initial=-1)) + 1, np.int64)
    np.add.at(net, place, np.where(pieces.forward[far], 1, -1))
    far = far[np.sign(net[place]) == np.where(pieces.forward[far], 1, -1)]
    _, first = np.unique(pieces.same[far], return_index=True)
    kept = _without_loose_ends(pieces, far[first])
    return link(pieces, segments, kept, np.zeros(len(kept), bool), 1)[0]


def _without_loose_ends(pieces: Pieces, kept: Ints) -> Ints:
    """Without pieces that lead nowhere. Raises Unlinked if that takes more than rounding could have left."""
    before = float(pieces.as_segments.length[kept].sum())
    while len(kept):
        count = len(pieces.nodes)
        leaving, arriving = (np.bincount(ends[kept], minlength=count) for ends in (pieces.first, pieces.last))
        good = (arriving[pieces.first[kept]] > 0) & (leaving[pieces.last[kept]] > 0)
        if good.all():
            break
        kept = kept[good]
    if before - float(pieces.as_segments.length[kept].sum()) > LOOSE_MM:
        raise Unlinked
    return kept


def _raw_pieces(ring: Ring, distance: float) -> list[Segment]:
    """Every segment moved, even if its arc turns inside out, and an arc round every corner where two part."""
    segments = ring.segments
    moved = [shifted(segment, distance) for segment in segments]
    pieces = list(moved)
    for index, segment in enumerate(segments):
        turn = turn_between(segments[index - 1], segment)
        if turn * distance > 1e-9:
            bulge = math.copysign(math.tan(abs(turn) / 4), distance)
            pieces.append(Segment(moved[index - 1].end, moved[index].start, bulge))
    return [piece for piece in pieces if math.dist(piece.start, piece.end) > JOIN_MM]
