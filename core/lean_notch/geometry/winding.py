"""How often closed loops of lines and arcs go round a point: chords that a ray crosses, and the lens beside each arc.

A point on a chord counts as lying to its right, for the chord and for its lens alike, so that the two always agree.
"""

from __future__ import annotations

import numpy as np

from .contour import Point
from .segments import Flags, Floats, Ints, Segments


def on_left(start: Floats, end: Floats, point: Floats) -> Flags:
    """Whether points lie to the left of the way from start to end."""
    (x0, y0), (x1, y1), (x, y) = start.T, end.T, point.T
    return np.asarray((x1 - x0) * (y - y0) - (y1 - y0) * (x - x0) > 0)


def crossed(start: Floats, end: Floats, point: Floats, left: Flags) -> Ints:
    """1 where a ray from `point` along x meets a chord going up, -1 where it goes down."""
    up = (start[:, 1] <= point[:, 1]) & (end[:, 1] > point[:, 1])
    down = (start[:, 1] > point[:, 1]) & (end[:, 1] <= point[:, 1])
    return np.asarray((up & left).astype(np.int64) - (down & ~left))


def in_lens(segments: Segments, arc: Ints, point: Floats, left: Flags) -> Ints:
    """What an arc adds to its chord: 1 or -1 for points between the two, by the way it turns."""
    away = point - segments.centre[arc]
    inside = np.hypot(away[:, 0], away[:, 1]) < segments.radius[arc]
    turn = np.sign(segments.bulge[arc]).astype(np.int64)
    return np.asarray(turn * (inside & (left == (turn < 0))))


def winding(around: Segments, point: Floats | Point) -> int:
    """How often closed loops of segments go round `point`, which lies on none of them."""
    here = np.broadcast_to(np.asarray(point), (len(around), 2))
    left = on_left(around.start, around.end, here)
    arc = np.flatnonzero(around.round)
    lenses = in_lens(around, arc, here[arc], left[arc])
    return int(crossed(around.start, around.end, here, left).sum() + lenses.sum())


MOST_AT_ONCE = 1_000_000


def windings(around: Segments, points: Floats) -> Ints:
    """How often closed loops of segments go round each of `points` (n, 2)."""
    some = max(MOST_AT_ONCE // max(len(around), 1), 1)
    return np.concatenate([_windings(around, points[at : at + some]) for at in range(0, len(points), some)])


def _windings(around: Segments, points: Floats) -> Ints:
    every = np.tile(np.arange(len(around)), len(points))
    here = np.repeat(points, len(around), axis=0)
    start, end = around.start[every], around.end[every]
    left = on_left(start, end, here)
    counted = crossed(start, end, here, left)
    arc = np.flatnonzero(around.round[every])
    counted[arc] += in_lens(around, every[arc], here[arc], left[arc])
    return np.asarray(counted.reshape(len(points), len(around)).sum(axis=1))
