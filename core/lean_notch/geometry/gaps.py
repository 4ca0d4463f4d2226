"""How near segments come to each other: in, pairs of segments; out, the least distance of each pair, and where. Exact, also for arcs."""

from __future__ import annotations

import numpy as np

from .segments import Floats, Ints, Segments


def gaps(s: Segments, i: Ints, j: Ints) -> tuple[Floats, Floats]:
    """How near the segments of each pair come, and where; crossing ones count by their ends alone.

    Two lines are nearest at an end of one. An arc may be nearest where the way to the other's line or centre leaves it.
    """
    best, place = np.full(len(i), np.inf), np.zeros((len(i), 2))

    def consider(at: Ints, points: Floats, on: Ints) -> None:
        gap = s.distance_to(on, points)
        closer = gap < best[at]
        best[at[closer]] = gap[closer]
        place[at[closer]] = points[closer]

    every = np.arange(len(i))
    for a, b in ((i, j), (j, i)):
        consider(every, s.start[a], b)
        consider(every, s.end[a], b)
        arcs = np.flatnonzero(s.round[a])
        towards = np.where(s.round[b[arcs]][:, None], s.centre[b[arcs]], _foot(s, b[arcs], s.centre[a[arcs]]))
        way = towards - s.centre[a[arcs]]
        size = np.maximum(np.hypot(*way.T), 1e-12)
        for sign in (1.0, -1.0):
            points = s.centre[a[arcs]] + sign * way * (s.radius[a[arcs]] / size)[:, None]
            on = s.on_arc_side(a[arcs], points)
            consider(arcs[on], points[on], b[arcs[on]])
    return best, place


def _foot(s: Segments, line: Ints, points: Floats) -> Floats:
    share = ((points - s.start[line]) * s.chord[line]).sum(axis=1) / s.span[line] ** 2
    return np.asarray(s.start[line] + share[:, None] * s.chord[line])
