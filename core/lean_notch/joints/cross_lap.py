"""Cross-lap: two parts that cross, a slot from above in one and from below in the other, the depths together the height there."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import partial
from typing import Annotated, ClassVar, Literal

from ..documents.as_typed import Typed
from ..documents.rules import AmountRule, Title
from ..geometry import Box, Point
from ..geometry.space import times
from ..ground.errors import OutOfRange
from ..lengths.figures import Figure
from ..lengths.length import Amount, Length, amount
from ..lengths.said import say_mm
from .crossing import Crossed, crossing
from .mate import (
    Asked,
    At,
    Caliper,
    Change,
    Contact,
    Mate,
    Notch,
    Seat,
    SharpCorner,
    Strip,
    box_round,
    counter_clockwise,
    on_edge_at,
    ways,
)
from .meeting import NotMeeting

HALF = amount(0.5)
_BEYOND_MM = 1.0
_NEAR_MM = 1e-6


@dataclass(frozen=True)
class CrossLap(Typed):
    """The first member's slot is open above and takes `share` of the height at the crossing, the second's is open below and
    takes the rest. `ease` cuts the corners of both mouths off, so that they find each other."""

    share: Annotated[Amount, AmountRule(0.05, 0.95), Title("First’s share of the height")] = HALF
    ease: Annotated[Length | None, Title("Easing at the mouths", "empty: none")] = None
    kind: ClassVar[str] = "cross-lap"


@dataclass(frozen=True)
class _Slot:
    """A slot in one member: from `floor` out through `mouth`, in positions of its strip; `gap` is its clearance across, in the
    part's plane, and `beside` how much of the part stands at its thinner side."""

    seat: Seat
    strip: Strip
    floor: float
    mouth: float
    gap: float
    beside: float

    @property
    def low(self) -> float:
        return -self.gap / 2

    @property
    def high(self) -> float:
        return self.strip.high + self.gap / 2

    @property
    def way(self) -> float:
        """Upwards 1, downwards -1: towards the mouth."""
        return 1.0 if self.mouth > self.floor else -1.0

    @property
    def depth(self) -> float:
        return abs(self.mouth - self.floor)

    @property
    def box(self) -> Box:
        return box_round(
            [self.strip.point(at, out) for at in (self.floor, self.mouth) for out in (self.low, self.high)]
        )


class CrossLapJoint:
    how = CrossLap
    title = "cross-lap"
    ends: tuple[At, At] = ("face", "face")

    def meet(self, first: Seat, second: Seat) -> Crossed:
        return crossing(first, second)

    def make(self, asked: Asked) -> Mate:
        meeting = asked.meeting
        assert isinstance(meeting, Crossed), "as it met"
        middle = (1 - asked.lengths["share"]) * meeting.length
        slots = (
            _slot(asked.first, asked.second, meeting, 0, middle, asked.into_first, "above"),
            _slot(asked.second, asked.first, meeting, 1, middle, asked.into_second, "below"),
        )
        ease = asked.lengths.get("ease", 0.0)
        if ease and not 0 < ease < min(slot.depth for slot in slots) / 2:
            raise OutOfRange(
                f"An easing of {say_mm(ease)} does not fit a slot {say_mm(min(slot.depth for slot in slots))} deep.",
                fix="Give less than half of the slot’s depth, or leave it empty.", field="ease",
            )  # fmt: skip
        seats = (asked.first, asked.second)
        return Mate(
            asked.id, asked.title, CrossLap.kind, f"crossed at {meeting.angle:.3g}°, each slotted for the other", "board", "slot",
            _change(slots[0], ease), _change(slots[1], ease),
            tuple(_contact(slots[i], seats[1 - i]) for i in (0, 1)), meeting, _figures(asked, slots, meeting), (),
            (times(meeting.axis, -slots[0].way),),
        )  # fmt: skip


def _slot(
    seat: Seat,
    other: Seat,
    meeting: Crossed,
    number: int,
    floor: float,
    clearance: float,
    side: Literal["above", "below"],
) -> _Slot:
    """Open to one side. Raises NotMeeting where material of the part itself closes that side, or nothing would hold it."""
    limb, whole, strip = meeting.limbs[number], meeting.whole[number], (meeting.first, meeting.second)[number]
    mouth, far = (limb[1], whole[1]) if side == "above" else (limb[0], whole[0])
    if abs(far - mouth) > _NEAR_MM:
        raise NotMeeting(
            f"The slot of {seat.title} for {other.title} does not come out {side}: {seat.title} has material there too.",
            fix="Swap the members, so that the slots open to the other sides, or move the part.",
            place=seat.frame.at(strip.point(floor, strip.high / 2)),
        )  # fmt: skip
    gap = clearance / math.sin(math.radians(meeting.angle))
    return _Slot(seat, strip, floor, mouth, gap, _beside(seat, other, strip, gap))


def _beside(seat: Seat, other: Seat, strip: Strip, gap: float) -> float:
    """How much of the part stands at the slot's thinner side. Raises NotMeeting where the slot would take a piece off."""
    places = [strip.flat(corner)[1] for corner in _corners_of(seat.outline.box)]
    beside = min(-gap / 2 - min(places), max(places) - strip.high - gap / 2)
    if beside <= _NEAR_MM:
        raise NotMeeting(
            f"{other.title} crosses {seat.title} at its very side: the slot would cut a piece off.",
            fix=f"Move {other.title} inwards by {say_mm(other.thickness - beside)}, or use a finger joint at the edge.",
            place=seat.frame.at(strip.point(0.0, strip.high / 2)), amount=-beside,
        )  # fmt: skip
    return beside


def _corners_of(box: Box) -> list[Point]:
    left, low, right, high = box
    return [(x, y) for x in (left, right) for y in (low, high)]


def _change(slot: _Slot, ease: float) -> Change:
    seat, strip, corners = slot.seat, slot.strip, partial(_sharp, slot)
    notch = None if ease else _notch(slot)
    if notch:
        return Change(seat.placement, seat.part, None, (notch,), corners=corners, zones=(slot.box,))
    eased, out = slot.mouth - slot.way * ease, slot.mouth + slot.way * _BEYOND_MM
    left = [(slot.floor, slot.low), (eased, slot.low), (slot.mouth, slot.low - ease), (out, slot.low - ease)]
    right = [(at, slot.low + slot.high - across) for at, across in reversed(left)]
    ring = counter_clockwise([strip.point(*place) for place in dict.fromkeys((*left, *right))])
    return Change(seat.placement, seat.part, None, cuts=(ring,), corners=corners, zones=(slot.box,))


def _notch(slot: _Slot) -> Notch | None:
    """The slot as a notch of the edge that it opens at, where that is one straight edge square to it."""
    strip = slot.strip
    mouth = [strip.point(slot.mouth, across) for across in (slot.low, slot.high)]
    for name, line in slot.seat.edges.items():
        (ux, uy), (ix, iy), span = ways(line)
        if abs(ux * strip.inward[0] + uy * strip.inward[1]) < 1 - 1e-12:
            continue
        (x0, y0) = line[0]
        if any(abs((x - x0) * ix + (y - y0) * iy) > _NEAR_MM for x, y in mouth):
            continue
        at = sorted(on_edge_at(line, _across(strip, slot.mouth), across) for across in (slot.low, slot.high))
        if at[0] > _NEAR_MM and at[1] < span - _NEAR_MM:
            return Notch(name, at[0], at[1], slot.depth)
    return None


def _across(strip: Strip, at: float) -> Strip:
    """A strip whose positions run across the slot at a place of it."""
    return Strip(strip.edge, strip.point(at, 0.0), strip.inward, strip.along, 0.0, 0.0)


def _sharp(slot: _Slot) -> tuple[SharpCorner, ...]:
    """Both corners of its floor: the other's edge goes home there."""
    strip, found = slot.strip, []
    out = (slot.way * strip.along[0], slot.way * strip.along[1])
    for across, way in ((slot.low, 1.0), (slot.high, -1.0)):
        floor = (way * strip.inward[0], way * strip.inward[1])
        home = strip.point(slot.floor, across + way * slot.gap / 2)
        found.append(SharpCorner(strip.point(slot.floor, across), floor, out, slot.beside, slot.depth, home))
    return tuple(found)


def _contact(slot: _Slot, other: Seat) -> Contact:
    """The other's board in this slot."""
    made, middle, runs = slot.high - slot.low, (slot.low + slot.high) / 2, []
    for share in (0.25, 0.75):
        at = slot.floor + share * (slot.mouth - slot.floor)
        runs.append((at, middle - 0.75 * made, at, middle + 0.75 * made))
    caliper = Caliper(slot.seat.part, slot.strip, tuple(runs))
    return Contact(other.part, None, caliper, slot.strip.high, slot.gap, slot.depth, slot.seat.part)


def _figures(asked: Asked, slots: tuple[_Slot, _Slot], meeting: Crossed) -> tuple[Figure, ...]:
    path, share = f"joints/{asked.id}/how", asked.how.share
    ease: Length | None = asked.how.ease
    return (
        Figure("height", "height at the crossing", meeting.length, "computed", "along the line where both have material"),
        Figure("share", "share of the first", asked.lengths["share"], "chosen", "", kind="share", field=f"{path}/share",
               typed=share.text),
        Figure("first_depth", f"slot in {asked.first.title}", slots[0].depth, "computed", "from above"),
        Figure("second_depth", f"slot in {asked.second.title}", slots[1].depth, "computed", "from below"),
        Figure("ease", "easing at the mouths", asked.lengths.get("ease"), "chosen", "", kind="length" if ease else "word",
               word="none", field=f"{path}/ease", typed=ease.text if ease else "", unit=ease.unit if ease else "mm"),
    )  # fmt: skip
