"""A panel's outline drawn in one go from what each side gives away: no boolean, so no stray corner.

In: the panel's size and the notches of each side; out: one contour with two corners a step.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import NamedTuple

from ..design import Side
from ..geometry import Contour, Point, Vertex

_SAME_MM = 1e-9


class Notch(NamedTuple):
    """What a side gives away: from `start` to `end` along it, `depth` into the panel, or out of it where negative.

    Bottom and top are measured from the left, left and right from below.
    """

    start: float
    end: float
    depth: float


Notches = Mapping[Side, tuple[Notch, ...]]


def outline(width: float, height: float, notches: Mapping[Side, Sequence[Notch]]) -> Contour:
    """The panel from (0, 0) to (width, height) less its notches, counter-clockwise.

    >>> [v.point for v in outline(4, 2, {"bottom": [Notch(1, 3, 0.5)]}).vertices]
    [(1.0, 0.0), (1.0, 0.5), (3.0, 0.5), (3.0, 0.0), (4.0, 0.0), (4.0, 2.0), (0.0, 2.0), (0.0, 0.0)]
    """
    steps = {side: _steps(notches.get(side, ()), width if side in _FLAT else height) for side in _NEIGHBOURS}
    points: list[Point] = []
    for side, (low, high) in _NEIGHBOURS.items():
        end = width if side in _FLAT else height
        which = -1 if side in ("right", "top") else 0  # the end of its neighbours at which this side lies
        run = [*steps[side]]
        run[0] = (steps[low][which][1], run[0][1])
        run[-1] = (end - steps[high][which][1], run[-1][1])
        placed = [_POINT[side](s, depth, width, height) for s, depth in run]
        points += placed if side in ("bottom", "right") else placed[::-1]
    return Contour(tuple(Vertex(float(x), float(y)) for x, y in _tidy(points)))


def can_be_drawn(width: float, height: float, notches: Mapping[Side, Sequence[Notch]]) -> bool:
    """Whether no two notches of neighbouring sides meet, but for two that begin at their corner and share it: else the
    outline would cross or touch itself."""
    deepest = max((notch.depth for some in notches.values() for notch in some), default=0.0) + _SAME_MM
    for side in ("bottom", "top"):
        for other in ("left", "right"):
            mine = _near_corner(notches.get(side, ()), width, deepest, far=other == "right")
            theirs = _near_corner(notches.get(other, ()), height, deepest, far=side == "top")
            if any(_meet(one, two) for one in mine for two in theirs):
                return False
    return True


def _near_corner(notches: Sequence[Notch], length: float, near: float, *, far: bool) -> list[Notch]:
    """Those that begin near one end of their side, as measured from there."""
    if far:
        return [Notch(length - end, length - start, depth) for start, end, depth in notches if length - end <= near]
    return [notch for notch in notches if notch.start <= near]


def _meet(one: Notch, two: Notch) -> bool:
    """Of two notches at one corner, each measured from it: the one goes as deep as the other runs along."""
    if one.depth <= 0 or two.depth <= 0:
        return False
    at_corner = one.start <= _SAME_MM and two.start <= _SAME_MM
    if at_corner:
        return one.end < two.depth - _SAME_MM or two.end < one.depth - _SAME_MM
    return one.start <= two.depth + _SAME_MM and two.start <= one.depth + _SAME_MM


_FLAT = ("bottom", "top")
_NEIGHBOURS: Mapping[Side, tuple[Side, Side]] = {
    "bottom": ("left", "right"),
    "right": ("bottom", "top"),
    "top": ("left", "right"),
    "left": ("bottom", "top"),
}
"""Counter-clockwise; with each side the ones it meets at its low and at its high end."""

_POINT: Mapping[Side, Callable[[float, float, float, float], Point]] = {
    "bottom": lambda s, depth, width, height: (s, depth),
    "right": lambda s, depth, width, height: (width - depth, s),
    "top": lambda s, depth, width, height: (s, height - depth),
    "left": lambda s, depth, width, height: (depth, s),
}


def _steps(notches: Sequence[Notch], length: float) -> list[Point]:
    """A side as (position, depth) from its low end to its high end."""
    run: list[Point] = [(0.0, 0.0)]
    for start, end, depth in sorted(notches):
        run = [(0.0, depth)] if start <= _SAME_MM else [*run, (start, 0.0), (start, depth)]
        if end < length - _SAME_MM:
            run += [(end, depth), (end, 0.0)]
    return [*run, (length, run[-1][1])]


def _tidy(points: Sequence[Point]) -> list[Point]:
    """Without repeated points and points on a straight line between their neighbours."""
    unlike: list[Point] = []
    x0, y0 = points[-1]
    for x, y in points:
        if abs(x - x0) > _SAME_MM or abs(y - y0) > _SAME_MM:
            unlike.append((x, y))
        x0, y0 = x, y
    kept = []
    (ax, ay), (bx, by) = unlike[-1], unlike[0]
    for cx, cy in (*unlike[1:], unlike[0]):
        dx, dy = cx - ax, cy - ay
        # Twice the triangle's area against the line between the neighbours, whose length is at most |dx| + |dy|.
        if abs((bx - ax) * dy - (by - ay) * dx) > _SAME_MM * (abs(dx) + abs(dy)):
            kept.append((bx, by))
        ax, ay, bx, by = bx, by, cx, cy
    return kept
