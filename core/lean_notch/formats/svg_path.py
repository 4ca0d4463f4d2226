"""One closed outline as SVG path data, with true arcs."""

from __future__ import annotations

import math

from ..geometry import Ring, Segment

LONGEST_ARC = math.radians(120)
"""A longer arc with rounded ends loses its centre: 70 µm for a half circle at 4 decimals."""


def path_data(ring: Ring, height: float | None = None) -> str:
    """`ring` as path data in mm, at most four decimals (0.1 µm), y up; y down from `height` if that is given.

    >>> from lean_notch.geometry import rectangle
    >>> path_data(rectangle(0, 0, 2, 1))
    'M0 0L2 0L2 1L0 1Z'
    """
    segments = list(ring.segments)
    start = segments[0].start
    if segments[-1].bulge == 0:  # Z draws the last line
        segments.pop()
    return f"M{_place(start, height)}" + "".join(_command(segment, height) for segment in segments) + "Z"


def _command(segment: Segment, height: float | None) -> str:
    if segment.bulge == 0:
        return f"L{_place(segment.end, height)}"
    pieces = math.ceil(abs(segment.sweep) / LONGEST_ARC - 1e-9)
    # SVG's sweep flag is set for turns from x to y; where y is turned over, so is the flag.
    sweep = int((segment.bulge > 0) == (height is None))
    ends = [segment.at((i + 1) / pieces) for i in range(pieces - 1)] + [segment.end]
    radius = number(segment.radius)
    return "".join(f"A{radius} {radius} 0 0 {sweep} {_place(end, height)}" for end in ends)


def _place(point: tuple[float, float], height: float | None) -> str:
    return f"{number(point[0])} {number(point[1] if height is None else height - point[1])}"


def number(value: float) -> str:
    """At most four decimals, no trailing zeros, no minus zero."""
    text = f"{value:.4f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text
