"""One outline or line as SVG path data, with true arcs."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence

from ..geometry import Cubic, Curved, Point, Ring, Segment, Trace

LONGEST_ARC = math.radians(120)
"""A longer arc with rounded ends loses its centre: 70 µm for a half circle at 4 decimals."""

Place = Callable[[Point], Point]


def path_data(
    shape: Ring | Trace, place: Place | None = None, *, flipped: bool = False, per_mm: float = 1.0, digits: int = 4
) -> str:
    """`shape` as path data in mm, at most four decimals (0.1 µm), y up.

    `place` puts its points elsewhere, `flipped` if it turns y over and `per_mm` times as large.

    >>> from lean_notch.geometry import rectangle
    >>> path_data(rectangle(0, 0, 2, 1))
    'M0 0L2 0L2 1L0 1Z'
    """

    def say(point: Point) -> str:
        x, y = place(point) if place else point
        return f"{number(x, digits)} {number(y, digits)}"

    pieces = list(shape.pieces if isinstance(shape, Curved) else shape.segments)
    start = pieces[0].start
    closed = not isinstance(shape, Trace)
    if closed and isinstance(pieces[-1], Segment) and pieces[-1].bulge == 0:  # Z draws the last line
        pieces.pop()
    commands = [f"M{say(start)}"]
    for piece in pieces:
        if isinstance(piece, Cubic):
            commands.append(f"C{say(piece.first)} {say(piece.second)} {say(piece.end)}")
        elif piece.bulge == 0:
            commands.append(f"L{say(piece.end)}")
        else:
            commands += _arc(piece, say, flipped, number(piece.radius * per_mm, digits))
    return "".join(commands) + ("Z" if closed else "")


def segments_data(segments: Sequence[Segment]) -> str:
    """Segments as a reader found them, as path data in mm, y up, wherever one ends."""

    def say(point: Point) -> str:
        return f"{number(point[0])} {number(point[1])}"

    commands: list[str] = []
    here: Point | None = None
    for segment in segments:
        if segment.start != here:
            commands.append(f"M{say(segment.start)}")
        if segment.bulge:
            commands += _arc(segment, say, False, number(segment.radius))
        else:
            commands.append(f"L{say(segment.end)}")
        here = segment.end
    return "".join(commands)


def _arc(arc: Segment, say: Callable[[Point], str], flipped: bool, radius: str) -> list[str]:
    count = math.ceil(abs(arc.sweep) / LONGEST_ARC - 1e-9)
    # SVG's sweep flag is set for turns from x to y; where y is turned over, so is the flag.
    sweep = int((arc.bulge > 0) != flipped)
    ends = [arc.at((i + 1) / count) for i in range(count - 1)] + [arc.end]
    return [f"A{radius} {radius} 0 0 {sweep} {say(end)}" for end in ends]


def number(value: float, digits: int = 4) -> str:
    """At most `digits` decimals, no trailing zeros, no minus zero."""
    text = f"{value:.{digits}f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text
