"""Many segments at once, as arrays: in, rings or segments of any number of groups; out, where they lie and meet.

What `contour.Segment` says of one segment is said here of all, so that whole jobs are cut up in a few passes.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import chain
from typing import Any

import numpy as np
from numpy.typing import NDArray

from .contour import JOIN_MM, Point, Segment
from .ring import Ring

Floats = NDArray[Any]
Ints = NDArray[Any]
Flags = NDArray[Any]
"""Arrays of numbers, of indices, of yes and no. NumPy's own types do not carry through its operators."""


@dataclass(frozen=True)
class Segments:
    """`start` and `end` are (n, 2) in mm, `bulge` (n,). Only segments of one `group` have to do with each other."""

    start: Floats
    end: Floats
    bulge: Floats
    group: Ints

    def __len__(self) -> int:
        return len(self.bulge)

    def take(self, which: Ints | Flags) -> Segments:
        return Segments(self.start[which], self.end[which], self.bulge[which], self.group[which])

    @cached_property
    def round(self) -> Flags:
        """Which ones are arcs."""
        return self.bulge != 0

    @cached_property
    def chord(self) -> Floats:
        return self.end - self.start

    @cached_property
    def span(self) -> Floats:
        """Lengths of the chords."""
        return np.hypot(self.chord[:, 0], self.chord[:, 1])

    @cached_property
    def sweep(self) -> Floats:
        """Signed angles in radians; 0 for lines."""
        return 4 * np.arctan(self.bulge)

    @cached_property
    def centre(self) -> Floats:
        """Centres of the arcs; the middle of a line."""
        s = (1 / np.where(self.round, self.bulge, 1.0) - self.bulge) / 4 * self.round
        dx, dy = self.chord.T
        return (self.start + self.end) / 2 + np.stack([-s * dy, s * dx], axis=1)

    @cached_property
    def radius(self) -> Floats:
        """Radii of the arcs; infinite for lines."""
        with np.errstate(divide="ignore"):
            return self.span * (1 + self.bulge**2) / (4 * np.abs(self.bulge))

    @cached_property
    def length(self) -> Floats:
        return np.where(self.round, np.where(self.round, self.radius, 0.0) * np.abs(self.sweep), self.span)

    @cached_property
    def areas(self) -> Floats:
        """What each adds to the signed area of its closed loop, in mm²."""
        (x0, y0), (x1, y1) = self.start.T, self.end.T
        radius = np.where(self.round, self.radius, 0.0)
        return (x0 * y1 - x1 * y0 + radius**2 * (self.sweep - np.sin(self.sweep))) / 2

    @cached_property
    def middle(self) -> Floats:
        """The point half-way along each."""
        dx, dy = self.chord.T
        # The rise of an arc over its chord is bulge x half the chord, to the right of travel for a left turn.
        return (self.start + self.end) / 2 + np.stack([dy, -dx], axis=1) * self.bulge[:, None] / 2

    def at(self, share: Floats) -> Floats:
        """The point of each at its share of the way along."""
        straight = self.start + share[:, None] * self.chord
        arcs = np.flatnonzero(self.round)
        if arcs.size:
            away, turn = (self.start - self.centre)[arcs], (share * self.sweep)[arcs]
            cos, sin = np.cos(turn), np.sin(turn)
            straight[arcs, 0] = self.centre[arcs, 0] + away[:, 0] * cos - away[:, 1] * sin
            straight[arcs, 1] = self.centre[arcs, 1] + away[:, 0] * sin + away[:, 1] * cos
        return straight

    def tangents(self, share: float) -> Floats:
        """Unit directions of travel at the start (0) or the end (1)."""
        unit = self.chord / self.span[:, None]
        turn = self.sweep * (share - 0.5)
        cos, sin = np.cos(turn), np.sin(turn)
        return np.stack([unit[:, 0] * cos - unit[:, 1] * sin, unit[:, 0] * sin + unit[:, 1] * cos], axis=1)

    @cached_property
    def box(self) -> Floats:
        """(n, 4): left, low, right, high."""
        low, high = np.minimum(self.start, self.end), np.maximum(self.start, self.end)
        arcs = np.flatnonzero(self.round)
        if arcs.size:
            centre, radius = self.centre[arcs], self.radius[arcs]
            for axis in (0, 1):
                for sign, reach in ((-1, low), (1, high)):
                    top = centre.copy()
                    top[:, axis] += sign * radius
                    on = self.on_arc_side(arcs, top)
                    reach[arcs[on], axis] = top[on, axis]
        return np.hstack([low, high])

    def on_arc_side(self, which: Ints, points: Floats) -> Flags:
        """Of points on the circles of the arcs `which`: whether they lie on the arcs themselves."""
        chord, away = self.chord[which], points - self.start[which]
        cross = chord[:, 0] * away[:, 1] - chord[:, 1] * away[:, 0]
        return cross * self.bulge[which] < 0

    def lies_on(self, which: Ints, points: Floats) -> Flags:
        """Whether each point is within JOIN_MM of the segment named beside it."""
        near = self.from_ends(which, points) <= JOIN_MM
        chord, span, away = self.chord[which], self.span[which], points - self.start[which]
        along = (away * chord).sum(axis=1) / span
        across = np.abs(away[:, 0] * chord[:, 1] - away[:, 1] * chord[:, 0]) / span
        on_line = (across <= JOIN_MM) & (along >= 0) & (along <= span)
        arcs = self.round[which]
        if not arcs.any():
            return np.asarray(near | on_line)
        off = np.abs(distances(points, self.centre[which]) - np.where(arcs, self.radius[which], 0.0))
        on_arc = (off <= JOIN_MM) & self.on_arc_side(which, points)
        return np.asarray(near | np.where(arcs, on_arc, on_line))

    def from_ends(self, which: Ints, points: Floats) -> Floats:
        """How far each point is from the nearer end of the segment named beside it."""
        return np.minimum(distances(points, self.start[which]), distances(points, self.end[which]))

    def distance_to(self, which: Ints, points: Floats) -> Floats:
        """How far each point is from the segment named beside it, in mm."""
        start, chord = self.start[which], self.chord[which]
        share = ((points - start) * chord).sum(axis=1) / self.span[which] ** 2
        foot = start + np.clip(share, 0, 1)[:, None] * chord
        straight = distances(points, foot)
        arcs = self.round[which]
        if not arcs.any():
            return straight
        centre, radius = self.centre[which], np.where(arcs, self.radius[which], 0.0)
        away = points - centre
        reach = np.maximum(np.hypot(away[:, 0], away[:, 1]), 1e-300)
        foot = centre + away * (radius / reach)[:, None]
        ends = self.from_ends(which, points)
        return np.where(arcs, np.where(self.on_arc_side(which, foot), np.abs(reach - radius), ends), straight)

    def nearest(self, point: Point) -> float:
        """How far `point` is from the nearest of all segments, in mm."""
        return float(self.distance_to(np.arange(len(self)), np.broadcast_to(point, (len(self), 2))).min())

    def param(self, which: Ints, points: Floats) -> Floats:
        """How far along its segment each point lies: mm for lines, radians for arcs, 0 at the start."""
        away = points - self.start[which]
        along = (away * self.chord[which]).sum(axis=1) / self.span[which]
        arcs = self.round[which]
        if not arcs.any():
            return np.asarray(along)
        centre = self.centre[which]
        first, here = self.start[which] - centre, points - centre
        sign = np.sign(self.bulge[which])
        turn = np.arctan2(first[:, 0] * here[:, 1] - first[:, 1] * here[:, 0], (first * here).sum(axis=1)) * sign
        # A turn further back than the middle of the gap is one that goes all the way round.
        turn = np.where(turn < np.abs(self.sweep[which]) / 2 - np.pi, turn + 2 * np.pi, turn)
        return np.where(arcs, turn, along)


def segments_of(loops: Sequence[Iterable[Segment]], groups: Sequence[int]) -> Segments:
    """The segments of `loops` one after the other, each loop of the group named at its place."""
    rows = [(*s.start, *s.end, s.bulge, group) for loop, group in zip(loops, groups, strict=True) for s in loop]
    table = np.array(rows, dtype=float).reshape(-1, 6)
    return Segments(table[:, 0:2], table[:, 2:4], table[:, 4], table[:, 5].astype(np.int64))


def segments_of_rings(rings: Sequence[Ring], groups: Sequence[int]) -> tuple[Segments, Ints]:
    """The segments of closed `rings`, and of each segment the number of its ring."""
    corners = [ring.corners for ring in rings]
    ring = np.repeat(np.arange(len(rings)), [len(some) for some in corners])
    numbers = chain.from_iterable(chain.from_iterable(corners))
    here = np.fromiter(numbers, dtype=float, count=3 * len(ring)).reshape(-1, 3)
    following = next_in_ring(ring)
    return Segments(here[:, :2], here[following, :2], here[:, 2], np.asarray(groups, np.int64)[ring]), ring


def next_in_ring(ring: Ints) -> Ints:
    """For rings stored one after the other, the place of each one's successor."""
    following = np.arange(1, len(ring) + 1)
    first = np.flatnonzero(np.r_[True, ring[1:] != ring[:-1]])
    last = np.r_[first[1:], len(ring)] - 1
    following[last] = first
    return following


def previous_in_ring(ring: Ints) -> Ints:
    before = np.empty(len(ring), np.int64)
    before[next_in_ring(ring)] = np.arange(len(ring))
    return before


def distances(a: Floats, b: Floats) -> Floats:
    return np.asarray(np.hypot(a[:, 0] - b[:, 0], a[:, 1] - b[:, 1]))
