"""How long the machine takes: in, paths, speeds and an acceleration; out, seconds.

The head speeds up and slows down evenly, takes arcs no faster than the acceleration holds it on them, and slows at
corners in so far as they turn. Travel starts and ends at rest.
"""

from __future__ import annotations

import math
from collections.abc import Sequence

from ..geometry import Segment
from ..geometry.corners import turn_between

JERK_MM_S = 5.0
"""How much a machine's speed may change at once, in any direction, at a corner. A common order of size; an estimate."""


def path_seconds(segments: Sequence[Segment], speed: float, acceleration: float) -> float:
    """Along `segments` at up to `speed` mm/s, from rest to rest.

    >>> from ..geometry import rectangle
    >>> line = rectangle(0, 0, 100, 1).segments[:1]
    >>> round(path_seconds(line, 10, 1000), 3)  # 10 s, and the ends of a hundredth each
    10.01
    """
    if not segments:
        return 0.0
    limits = [_limit(segment, speed, acceleration) for segment in segments]
    at = [0.0]
    for i in range(1, len(segments)):
        at.append(min(limits[i - 1], limits[i], _corner(segments[i - 1], segments[i], speed)))
    at.append(0.0)
    # No faster at a corner than can be reached from the one before, or braked for by the one after.
    for i, segment in enumerate(segments):
        at[i + 1] = min(at[i + 1], math.sqrt(at[i] ** 2 + 2 * acceleration * segment.length))
    for i in range(len(segments) - 1, -1, -1):
        at[i] = min(at[i], math.sqrt(at[i + 1] ** 2 + 2 * acceleration * segments[i].length))
    return math.fsum(
        _seconds(segment.length, at[i], at[i + 1], limits[i], acceleration) for i, segment in enumerate(segments)
    )


def travel_seconds(length: float, speed: float, acceleration: float) -> float:
    """A straight way of `length` mm from rest to rest."""
    return _seconds(length, 0.0, 0.0, speed, acceleration)


def area_seconds(area: float, spacing: float, speed: float) -> float:
    """An area gone over in lines `spacing` mm apart."""
    return area / spacing / speed


def _limit(segment: Segment, speed: float, acceleration: float) -> float:
    return min(speed, math.sqrt(acceleration * segment.radius)) if segment.bulge else speed


def _corner(before: Segment, after: Segment, speed: float) -> float:
    change = 2 * math.sin(abs(turn_between(before, after)) / 2)
    return speed if change * speed <= JERK_MM_S else JERK_MM_S / change


def _seconds(length: float, first: float, last: float, most: float, acceleration: float) -> float:
    """Over `length` from one speed to another, going up to `most` between them."""
    top = min(most, math.sqrt((2 * acceleration * length + first**2 + last**2) / 2))
    ramps = (2 * top**2 - first**2 - last**2) / (2 * acceleration)
    steady = max(length - ramps, 0.0) / top if top else 0.0
    return (2 * top - first - last) / acceleration + steady
