"""Outlines moved sideways by a fixed distance: what a beam's centre must follow, and what it leaves.

The lines and circles themselves are moved, never chords of them. Where the moved pieces meet cleanly that is
all; where they collide, they are cut up at their crossings and kept where they are far enough from the source.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from .boolean import MOST_AT_ONCE, NUDGES_MM, combine, tangled
from .contour import JOIN_MM, Circle, Contour, Segment, Vertex
from .corners import shifted, turn_between
from .linking import Unlinked, link
from .noding import Neighbours, Pieces, cut_up, meetings, quarters
from .region import Region
from .ring import Ring
from .segments import (
    Flags,
    Floats,
    Ints,
    Segments,
    distances,
    next_in_ring,
    previous_in_ring,
    segments_of,
    segments_of_rings,
)
from .winding import winding

SHARPEST_MITRE = math.radians(60)
"""Narrower corners get an arc instead of a point that reaches far out. The finished part is the same."""

_STRAIGHT_ON = 1e-9
AT_CORNER_MM = 4 * JOIN_MM
"""Meetings this near to a segment's end are its corner."""

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
    smooth = np.abs(turn) < _STRAIGHT_ON
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
    moved = _Moved.of([ring for ring, _ in rings], [number for _, number in rings], distance)
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


def _solids(moved: _Moved, index: int, ring: Ring, clean: bool, distance: float, *, square: bool) -> list[Region]:
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
    return region if len(_collisions(moved, owner)[0]) else Region(rings[0], tuple(rings[1:]))


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


@dataclass
class _Moved:
    """Rings with every segment moved to its right, corners settled; `sound` where that went well.

    Corner i is where segment i starts; `entry` and `leave` are its two ends, equal but where an arc goes round it.
    """

    rings: Sequence[Ring]
    source: Segments
    ring_of: Ints
    distance: float
    entry: Floats
    leave: Floats
    rounded: Flags
    turn: Floats
    bulge: Floats
    sound: Flags

    @classmethod
    def of(cls, rings: Sequence[Ring], groups: Sequence[int], distance: float) -> _Moved:
        source, ring_of = segments_of_rings(rings, groups)
        before, after = previous_in_ring(ring_of), next_in_ring(ring_of)
        leaving, arriving = source.tangents(0), source.tangents(1)[before]
        shifted_start = source.start + distance * _right(leaving)
        shifted_end = source.end[before] + distance * _right(arriving)
        cross = arriving[:, 0] * leaving[:, 1] - arriving[:, 1] * leaving[:, 0]
        turn = np.arctan2(cross, (arriving * leaving).sum(axis=1))
        sound = np.ones(len(source), bool)
        entry, leave = shifted_end.copy(), shifted_start.copy()
        smooth = np.abs(turn) < _STRAIGHT_ON
        entry[smooth] = leave[smooth]
        lines = ~source.round & ~source.round[before]
        parting = ~smooth & (turn * distance > 0)
        long_enough = np.minimum(source.span, source.span[before]) > 2 * abs(distance)
        mitre = parting & lines & long_enough & (np.pi - np.abs(turn) >= SHARPEST_MITRE - 1e-9)
        reach = distance * np.tan(turn[mitre] / 2)
        entry[mitre] = leave[mitre] = shifted_end[mitre] + reach[:, None] * arriving[mitre]
        meeting = np.flatnonzero(~smooth & ~parting)
        radius = np.where(source.round, source.radius + np.sign(source.bulge) * distance, np.inf)
        places, found = _where_they_meet(
            source, meeting, before[meeting], shifted_start, shifted_end, radius, leaving, arriving
        )
        entry[meeting] = leave[meeting] = places
        sound[meeting] = found
        # What is left of each segment between its two corners.
        end = entry[after]
        bulge, kept = _same_way(source, leave, end, radius)
        sound &= kept
        return cls(rings, source, ring_of, distance, entry, leave, parting & ~mitre, turn, bulge, sound)

    def checked(self) -> tuple[list[bool], set[int]]:
        """Of each ring whether it can stay as it was moved, and the regions whose rings collide with each other."""
        circle = np.array([isinstance(ring, Circle) for ring in self.rings])
        clean = np.ones(len(self.rings), bool)
        clean[self.ring_of[~self.sound]] = False
        clean |= circle
        ends = self.entry[next_in_ring(self.ring_of)]
        on = self.sound & clean[self.ring_of]
        arcs = np.flatnonzero(self.rounded & clean[self.ring_of])
        group = self.source.group
        loop = Segments(
            np.concatenate([self.leave[on], self.entry[arcs]]),
            np.concatenate([ends[on], self.leave[arcs]]),
            np.concatenate([self.bulge[on], self._round_bulge(arcs)]),
            np.concatenate([group[on], group[arcs]]),
        )
        ring = np.concatenate([self.ring_of[on], self.ring_of[arcs]])
        tangled: set[int] = set()
        if len(loop):
            bad, other = _collisions(loop, ring)
            near, source = self._too_near(loop)
            bad, other = np.r_[bad, ring[near]], np.r_[other, self.ring_of[source]]
            clean[bad[bad == other]] = False
            region_of = np.zeros(len(self.rings), np.int64)
            region_of[self.ring_of] = group
            tangled = set(region_of[bad[bad != other]].tolist())
        areas = np.bincount(ring, loop.areas, minlength=len(self.rings))
        flips = areas * np.array([ring.area for ring in self.rings]) <= 0
        clean &= ~flips | circle
        return clean.tolist(), tangled

    def _too_near(self, loop: Segments) -> tuple[Ints, Ints]:
        """(moved segment, source segment) where a moved segment's middle is nearer than it should be."""
        middle, reach = loop.middle, abs(self.distance)
        around = Neighbours(self.source)
        query, source = around.touching(np.hstack([middle, middle]), loop.group, slack=reach)
        short = self.source.distance_to(source, middle[query]) < reach - 2 * JOIN_MM
        return query[short], source[short]

    def _round_bulge(self, corners: Ints) -> Floats:
        return np.copysign(np.tan(np.abs(self.turn[corners]) / 4), self.distance)

    def ring(self, index: int) -> Ring | None:
        """A ring as moved; None for a circle that has vanished."""
        source = self.rings[index]
        if isinstance(source, Circle):
            radius = source.radius - self.distance if source.hole else source.radius + self.distance
            return Circle(source.x, source.y, radius, source.hole) if radius > JOIN_MM else None
        low, high = np.searchsorted(self.ring_of, [index, index + 1])
        here = slice(low, high)
        start, bulge, rounded = self.leave[here].tolist(), self.bulge[here].tolist(), self.rounded[here]
        if not rounded.any():
            return Contour(tuple(Vertex(x, y, b) for (x, y), b in zip(start, bulge, strict=True)))
        entry, arc = self.entry[here].tolist(), self._round_bulge(np.arange(low, high)).tolist()
        vertices = []
        for (x, y), b, (u, v), a, goes_round in zip(start, bulge, entry, arc, rounded.tolist(), strict=True):
            if goes_round:
                vertices.append(Vertex(u, v, a))
            vertices.append(Vertex(x, y, b))
        return Contour(tuple(vertices))


def _right(direction: Floats) -> Floats:
    return np.stack([direction[:, 1], -direction[:, 0]], axis=1)


def _where_they_meet(
    source: Segments,
    at: Ints,
    before: Ints,
    starts: Floats,
    ends: Floats,
    radius: Floats,
    leaving: Floats,
    arriving: Floats,
) -> tuple[Floats, Flags]:
    """Where the moved carriers of the segments before and after the corners `at` meet, nearest to the corner."""
    place, found = np.zeros((len(at), 2)), np.zeros(len(at), bool)
    corner = source.start[at]
    round_after, round_before = source.round[at], source.round[before]
    # Two lines.
    k = np.flatnonzero(~round_after & ~round_before)
    u, v = arriving[at[k]], leaving[at[k]]
    between, cross = starts[at[k]] - ends[at[k]], u[:, 0] * v[:, 1] - u[:, 1] * v[:, 0]
    found[k] = np.abs(cross) > _STRAIGHT_ON
    with np.errstate(divide="ignore", invalid="ignore"):
        t = (between[:, 0] * v[:, 1] - between[:, 1] * v[:, 0]) / cross
        place[k] = ends[at[k]] + t[:, None] * u
    # A line and a circle.
    k = np.flatnonzero(round_after != round_before)
    arc = np.where(round_after[k], at[k], before[k])
    through = np.where(round_after[k][:, None], ends[at[k]], starts[at[k]])
    unit = np.where(round_after[k][:, None], arriving[at[k]], leaving[at[k]])
    centre = source.centre[arc]
    foot = through + ((centre - through) * unit).sum(axis=1)[:, None] * unit
    place[k], found[k] = _nearer(
        corner[k], foot, unit, radius[arc] ** 2 - ((foot - centre) ** 2).sum(axis=1), radius[arc]
    )
    # Two circles.
    k = np.flatnonzero(round_after & round_before)
    a, b = source.centre[before[k]], source.centre[at[k]]
    apart = np.hypot(*(b - a).T)
    with np.errstate(divide="ignore", invalid="ignore"):
        unit = (b - a) / apart[:, None]
        along = (apart**2 + radius[before[k]] ** 2 - radius[at[k]] ** 2) / (2 * apart)
        foot = a + along[:, None] * unit
    place[k], found[k] = _nearer(
        corner[k], foot, _right(unit), radius[before[k]] ** 2 - along**2, np.minimum(radius[before[k]], radius[at[k]])
    )
    return place, found


def _nearer(corner: Floats, foot: Floats, unit: Floats, square: Floats, radius: Floats) -> tuple[Floats, Flags]:
    """Of the two points of a line at sqrt(`square`) from its foot, the one nearer to the corner, if there is one."""
    found = (square >= -JOIN_MM * np.maximum(np.abs(radius), 1e-3)) & (radius > JOIN_MM)
    half = np.sqrt(np.maximum(square, 0.0))[:, None] * unit
    low, high = foot - half, foot + half
    nearer = ((low - corner) ** 2).sum(axis=1) < ((high - corner) ** 2).sum(axis=1)
    return np.where(nearer[:, None], low, high), np.asarray(found)


def _same_way(source: Segments, start: Floats, end: Floats, radius: Floats) -> tuple[Floats, Flags]:
    """Bulges of the moved pieces from `start` to `end`, and whether they still run the way their sources do."""
    chord = end - start
    kept = (chord * source.chord).sum(axis=1) > JOIN_MM * source.span
    bulge = np.zeros(len(source))
    arcs = np.flatnonzero(source.round)
    if arcs.size:
        centre, sign = source.centre[arcs], np.sign(source.bulge[arcs])
        first, last = start[arcs] - centre, end[arcs] - centre
        angle = np.arctan2(last[:, 1], last[:, 0]) - np.arctan2(first[:, 1], first[:, 0])
        sweep = np.mod(angle * sign, 2 * np.pi)
        bulge[arcs] = sign * np.tan(sweep / 4)
        # A moved arc that suddenly sweeps far more than its source has turned inside out.
        grown = sweep >= np.abs(source.sweep[arcs]) + np.pi / 2
        kept[arcs] = (radius[arcs] > JOIN_MM) & ~grown & (np.hypot(*chord[arcs].T) > JOIN_MM)
    return bulge, kept


def _collisions(loop: Segments, ring: Ints) -> tuple[Ints, Ints]:
    """Pairs of rings that meet, or a ring twice where it meets itself, elsewhere than from one segment to the next."""
    first, second = Neighbours(loop).pairs()
    follows = (loop.end[first] == loop.start[second]).all(axis=1) | (loop.end[second] == loop.start[first]).all(axis=1)
    open_ = ~(follows & _turn(loop, first, second))
    owner, other, place = meetings(loop, first[open_], second[open_])
    within = loop.from_ends(owner, place) > AT_CORNER_MM
    # Every corner starts one segment: where two start in one place, rings touch, or one touches itself.
    touch = ~follows & (distances(loop.start[first], loop.start[second]) <= 2 * AT_CORNER_MM)
    one = np.concatenate([ring[owner[within]], ring[first[touch]]])
    two = np.concatenate([ring[other[within]], ring[second[touch]]])
    return one, two


def _turn(s: Segments, i: Ints, j: Ints) -> Flags:
    """Of pairs of segments: two lines that are not parallel, and so meet once at most."""
    d, e = s.chord[i], s.chord[j]
    turns = np.abs(d[:, 0] * e[:, 1] - d[:, 1] * e[:, 0]) > _STRAIGHT_ON * s.span[i] * s.span[j]
    return np.asarray(turns & ~s.round[i] & ~s.round[j])


def _move_and_resolve(ring: Ring, distance: float) -> list[Region]:
    """A ring as a solid, its moved pieces cut up where they cross and kept where they are far enough from all of it.

    Raises BadGeometry for a ring that crosses itself: nobody can tell its inside from its outside.
    """
    source, ring_of = segments_of_rings([ring], [0])
    if len(_collisions(source, ring_of)[0]):
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
