"""Rings with every segment moved to its right, all at once: corners settled where that goes well, and what collides."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from .contour import JOIN_MM, Circle, Contour, Vertex
from .noding import Neighbours, meetings
from .ring import Ring
from .segments import (
    Flags,
    Floats,
    Ints,
    Segments,
    distances,
    next_in_ring,
    previous_in_ring,
    segments_of_rings,
)

SHARPEST_MITRE = math.radians(60)
"""Narrower corners get an arc instead of a point that reaches far out. The finished part is the same."""


STRAIGHT_ON = 1e-9


AT_CORNER_MM = 4 * JOIN_MM
"""Meetings this near to a segment's end are its corner."""


@dataclass
class Moved:
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
    def of(cls, rings: Sequence[Ring], groups: Sequence[int], distance: float) -> Moved:
        source, ring_of = segments_of_rings(rings, groups)
        before, after = previous_in_ring(ring_of), next_in_ring(ring_of)
        leaving, arriving = source.tangents(0), source.tangents(1)[before]
        shifted_start = source.start + distance * _right(leaving)
        shifted_end = source.end[before] + distance * _right(arriving)
        cross = arriving[:, 0] * leaving[:, 1] - arriving[:, 1] * leaving[:, 0]
        turn = np.arctan2(cross, (arriving * leaving).sum(axis=1))
        sound = np.ones(len(source), bool)
        entry, leave = shifted_end.copy(), shifted_start.copy()
        smooth = np.abs(turn) < STRAIGHT_ON
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
            bad, other = collisions(loop, ring)
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
    found[k] = np.abs(cross) > STRAIGHT_ON
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


def collisions(loop: Segments, ring: Ints) -> tuple[Ints, Ints]:
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
    turns = np.abs(d[:, 0] * e[:, 1] - d[:, 1] * e[:, 0]) > STRAIGHT_ON * s.span[i] * s.span[j]
    return np.asarray(turns & ~s.round[i] & ~s.round[j])
