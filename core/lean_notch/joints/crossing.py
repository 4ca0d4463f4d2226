"""Where two parts cross: in, two whole parts as they stand; out, the stretch of the line that both have material along.

Positions run upwards along the line in which the boards cross: the way of it that points up, or, where it lies level, to the
back, or to the right. Any outline counts as it is there, before joints.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from ..geometry import Region, loops
from ..geometry.space import Triple, add, cross, dot, minus, times, unit
from ..ground.remembered import by_value
from ..lengths.said import say_mm
from .mate import FACE, Interval, Meeting, Seat, Strip
from .meeting import LEAST_ANGLE, NotMeeting, band

if TYPE_CHECKING:
    import shapely

_FINE_MM = 0.001
_THIN_MM = 1e-6


@dataclass(frozen=True)
class Crossed(Meeting):
    """`limbs` are from where to where either member has material there, and `whole` the same of all of it in that lane, in
    positions; the meeting's own stretch, from 0, is what both have."""

    limbs: tuple[Interval, Interval] = ((0.0, 0.0), (0.0, 0.0))
    whole: tuple[Interval, Interval] = ((0.0, 0.0), (0.0, 0.0))


def crossing(first: Seat, second: Seat) -> Crossed:
    """Where two parts pass through each other. Raises NotMeeting."""
    sine = math.hypot(*cross(first.frame.n, second.frame.n))
    angle = math.degrees(math.asin(min(1.0, sine)))
    if angle < LEAST_ANGLE:
        raise NotMeeting(
            f"{first.title} and {second.title} cross at {angle:.1f}°; slots are cut from {LEAST_ANGLE:g}° on.",
            fix=f"Turn one of them by {LEAST_ANGLE - angle:.1f}° or more.", place=first.frame.origin, amount=LEAST_ANGLE - angle,
        )  # fmt: skip
    axis = upwards(unit(cross(first.frame.n, second.frame.n)))
    base = _on_both(first, second)
    lanes = [_Lane.of(seat, other, axis, base) for seat, other in ((first, second), (second, first))]
    pieces = [lane.pieces() for lane in lanes]
    best = max(
        ((min(a[1], b[1]) - max(a[0], b[0]), a, b) for a in pieces[0] for b in pieces[1]), default=None,
        key=lambda one: one[0],
    )  # fmt: skip
    if best is None or best[0] <= _THIN_MM:
        raise _apart(first, second, pieces, best[0] if best else 0.0, add(base, axis, _middle_of(pieces)))
    _, one, two = best
    low, high = max(one[0], two[0]), min(one[1], two[1])
    start = add(base, axis, low)
    strips = [lane.strip(low) for lane in lanes]
    limbs = ((one[0] - low, one[1] - low), (two[0] - low, two[1] - low))
    whole = [(some[0][0] - low, some[-1][1] - low) for some in pieces]
    return Crossed(
        start, axis, high - low, strips[0], strips[1], angle=90.0 if angle > 90 - 1e-6 else angle,
        limbs=limbs, whole=(whole[0], whole[1]),
    )  # fmt: skip


def upwards(axis: Triple) -> Triple:
    """The one of a line's two ways that goes up, else to the back, else to the right."""
    tells = next(part for part in (axis[2], axis[1], axis[0]) if abs(part) > 1e-9)
    return tuple((-x if tells < 0 else x) + 0.0 for x in axis)  # type: ignore[return-value]


def _on_both(first: Seat, second: Seat) -> Triple:
    """A place on both faces, the one nearest to the first member's origin."""
    n, m, origin = first.frame.n, second.frame.n, first.frame.origin
    way = minus(m, times(n, dot(m, n)))
    return add(origin, way, second.frame.depth(origin) / dot(way, m))


@dataclass(frozen=True)
class _Lane:
    """The strip of a part that another's board passes through: `low` to `high` across it."""

    seat: Seat
    base: Triple
    axis: Triple
    across: Triple
    low: float
    high: float

    @classmethod
    def of(cls, seat: Seat, other: Seat, axis: Triple, base: Triple) -> _Lane:
        across = cross(seat.frame.n, axis)
        low, high = band(seat, other, base, across)
        return cls(seat, base, axis, across, low, high)

    def strip(self, low: float) -> Strip:
        """Positions along the line from `low` of the lane, depths across it from where the other's board begins."""
        frame = self.seat.frame
        along = (dot(self.axis, frame.u) + 0.0, dot(self.axis, frame.v) + 0.0)
        across = (dot(self.across, frame.u) + 0.0, dot(self.across, frame.v) + 0.0)
        return Strip(
            FACE, frame.flat(add(add(self.base, self.axis, low), self.across, self.low)), along, across, 0.0, self.high - self.low
        )  # fmt: skip

    def pieces(self) -> list[Interval]:
        """From where to where along the line the part has material in its lane, rising."""
        strip, box = self.strip(0.0), self.seat.plain
        if box and _upright(strip):
            (left, low), (right, high) = sorted(strip.flat(corner) for corner in (box[:2], box[2:]))
            low, high = min(low, high), max(low, high)
            return [(left, right)] if low < strip.high - _THIN_MM and high > _THIN_MM else []
        import shapely

        shape = shapely.transform(_shape(self.seat.outline), lambda xy: _flat(xy, strip))
        left, _, right, _ = shape.bounds
        inside = shapely.clip_by_rect(shape, left - 1, _THIN_MM, right + 1, strip.high - _THIN_MM)
        found = [one.bounds for one in shapely.get_parts(inside) if one.area > _THIN_MM]
        return sorted((one[0], one[2]) for one in found)


@by_value(256)
def _shape(outline: Region) -> shapely.Polygon:
    import shapely

    return shapely.Polygon(*loops(outline, _FINE_MM))


def _flat(xy: Any, strip: Strip) -> Any:
    """Places on the part as positions and depths of a strip."""
    import numpy as np

    (ax, ay), (ix, iy) = strip.along, strip.inward
    return (xy - np.array(strip.origin)) @ np.array([[ax, ix], [ay, iy]])


def _upright(strip: Strip) -> bool:
    return strip.along in ((1.0, 0.0), (-1.0, 0.0), (0.0, 1.0), (0.0, -1.0))


def _middle_of(pieces: Sequence[Sequence[Interval]]) -> float:
    some = next((one for one in pieces if one), [(0.0, 0.0)])
    return (some[0][0] + some[-1][1]) / 2


def _apart(first: Seat, second: Seat, pieces: list[list[Interval]], over: float, place: Triple) -> NotMeeting:
    if pieces[0] and pieces[1]:
        gap = -over
        return NotMeeting(
            f"{first.title} and {second.title} miss each other by {say_mm(gap)} along the line where they would cross.",
            fix=f"Move one of them {say_mm(gap)} and more towards the other, or make it that much longer.", place=place, amount=gap,
        )  # fmt: skip
    without = first if not pieces[0] else second
    other = second if without is first else first
    return NotMeeting(
        f"{other.title} passes beside {without.title}: they cross outside it.",
        fix=f"Move {other.title} onto {without.title}.", place=place,
    )  # fmt: skip
