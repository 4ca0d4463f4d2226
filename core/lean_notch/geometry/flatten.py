"""Arcs as chords, for whoever needs plain points: polygon libraries and drawings."""

from __future__ import annotations

import math
from collections.abc import Sequence

from .contour import Point, Segment
from .region import Region


def flatten(segments: Sequence[Segment], chord_mm: float) -> list[Point]:
    """Points along `segments` without the last one, none of the chords further than `chord_mm` from its arc.

    >>> from .contour import rectangle
    >>> flatten(rectangle(0, 0, 2, 1).segments, 0.01)
    [(0.0, 0.0), (2.0, 0.0), (2.0, 1.0), (0.0, 1.0)]
    """
    points: list[Point] = []
    for segment in segments:
        if segment.bulge == 0:
            points.append(segment.start)
            continue
        half = math.acos(max(1 - chord_mm / segment.radius, 0.0))
        steps = max(2, math.ceil(abs(segment.sweep) / (2 * half)))
        (cx, cy), (x, y), sweep = segment.centre, segment.start, segment.sweep
        dx, dy = x - cx, y - cy
        if steps > _MANY:
            points += _arc(cx, cy, dx, dy, sweep, steps)
            continue
        for step in range(steps):
            turn = step / steps * sweep
            cos, sin = math.cos(turn), math.sin(turn)
            points.append((cx + dx * cos - dy * sin, cy + dx * sin + dy * cos))
    return points


_MANY = 24
"""From so many chords on, numpy is quicker."""


def _arc(cx: float, cy: float, dx: float, dy: float, sweep: float, steps: int) -> list[Point]:
    import numpy as np

    turn = np.arange(steps) / steps * sweep
    cos, sin = np.cos(turn), np.sin(turn)
    return list(zip((cx + dx * cos - dy * sin).tolist(), (cy + dx * sin + dy * cos).tolist(), strict=True))


def loops(region: Region, chord_mm: float) -> tuple[list[Point], list[list[Point]]]:
    """The outer outline of a region and its holes as points, as polygon libraries take them."""
    outer, *holes = (flatten(ring.segments, chord_mm) for ring in region.rings)
    return outer, holes
