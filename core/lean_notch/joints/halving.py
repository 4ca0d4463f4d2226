"""Halving: two parts that lie in one plane cross, and each gives away a part of its thickness there; router work."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from ..codec import AmountRule, Title
from ..figures import Figure
from ..geometry import Motion, Region
from ..geometry.space import dot
from ..typed import Typed
from ..units import Amount, amount, say_mm
from .mate import FACE, Asked, At, Caliper, Change, Contact, Mate, Meeting, Pocket, Seat, Strip
from .meeting import FLUSH_MM, STRAIGHT, NotMeeting, flat_way
from .tab_and_slot import depth_not_swept

HALF = amount(0.5)


@dataclass(frozen=True)
class Halving(Typed):
    """The first member gives away `share` of its thickness from the face that is named, the second the rest from its other side."""

    share: Annotated[Amount, AmountRule(0.1, 0.9), Title("First’s share of the thickness")] = HALF
    face: Annotated[Literal["front", "back"], Title("Cut into the first’s")] = "front"
    kind: ClassVar[str] = "halving"


class HalvingJoint:
    how = Halving
    title = "halving"
    ends: tuple[At, At] = ("face", "face")

    def meet(self, first: Seat, second: Seat) -> Meeting:
        """Raises NotMeeting where they do not lie in one plane, or beside each other."""
        n, m = first.frame.n, second.frame.n
        if abs(dot(n, m)) < 1 - STRAIGHT**2:
            raise NotMeeting(
                f"{first.title} and {second.title} do not lie in one plane; a halving is cut where they do.",
                fix="Turn one of them flat, or use a cross-lap.", place=first.frame.origin, amount=90.0,
            )  # fmt: skip
        off = (
            second.frame.depth(first.frame.origin)
            if dot(n, m) > 0
            else second.thickness - second.frame.depth(first.frame.origin)
        )
        more = abs(first.thickness - second.thickness)
        if abs(off) > FLUSH_MM or more > FLUSH_MM:
            raise NotMeeting(
                f"{first.title} lies {say_mm(abs(off))} off the plane of {second.title}." if abs(off) > FLUSH_MM
                else f"{first.title} and {second.title} are not equally thick: {say_mm(first.thickness)} and {say_mm(second.thickness)}.",
                fix=f"Move one of them by {say_mm(abs(off))}." if abs(off) > FLUSH_MM else "Use one board for both.",
                place=first.frame.origin, amount=abs(off) or more,
            )  # fmt: skip
        from ..geometry.boolean import intersection

        both = intersection([first.outline], [_onto(first, second)])
        if not both:
            raise NotMeeting(
                f"{first.title} and {second.title} do not cross.", fix="Move one of them onto the other.",
                place=first.frame.origin,
            )  # fmt: skip
        left, low, right, high = both[0].box
        start = first.frame.at((left, (low + high) / 2))
        strip = Strip(FACE, (left, (low + high) / 2), (1.0, 0.0), (0.0, 1.0), (low - high) / 2, (high - low) / 2)
        other = Strip(
            FACE,
            second.frame.flat(start),
            flat_way(second, first.frame.u),
            flat_way(second, first.frame.v),
            strip.low,
            strip.high,
        )
        return Meeting(start, first.frame.u, right - left, strip, other, angle=180.0)

    def make(self, asked: Asked) -> Mate:
        first, second, share = asked.first, asked.second, asked.lengths["share"]
        same = dot(first.frame.n, second.frame.n) > 0
        back = asked.how.face == "back"
        pockets = (
            _pocket(first, second, asked.into_first, share * first.thickness, back),
            _pocket(second, first, asked.into_second, (1 - share) * second.thickness, back != same),
        )
        changes = [
            Change(seat.placement, seat.part, pockets=pocket, zones=tuple(one.region.box for one in pocket))
            for seat, pocket in zip((first, second), pockets, strict=True)
        ]
        return Mate(
            asked.id, asked.title, Halving.kind, "each cut away to a part of its thickness", "board", "pocket", changes[0], changes[1],
            (_contact(asked, share * first.thickness),), asked.meeting, _figures(asked),
            (depth_not_swept(asked, f"joints/{asked.id}/how/share"),),
        )  # fmt: skip


def _onto(seat: Seat, other: Seat) -> Region:
    """The other's outline, looked at squarely from this one's face."""
    x, y = seat.frame.flat(other.frame.origin)
    (ux, uy), (vx, vy) = flat_way(seat, other.frame.u), flat_way(seat, other.frame.v)
    mirrored = ux * vy - uy * vx < 0
    angle = math.degrees(math.atan2(-uy, -ux) if mirrored else math.atan2(uy, ux))
    return Motion(x, y, angle, mirrored).region(other.outline)


def _pocket(seat: Seat, other: Seat, clearance: float, depth: float, back: bool) -> tuple[Pocket, ...]:
    from ..geometry.boolean import intersection
    from ..geometry.offset import offset

    wide = offset(_onto(seat, other), clearance / 2)
    return tuple(Pocket(region, depth, back) for region in intersection([seat.outline], wide))


def _contact(asked: Asked, depth: float) -> Contact:
    """The second member's width in the first one's pocket, where its box runs."""
    strip = asked.meeting.first
    middle = asked.meeting.length / 2
    wide = asked.meeting.length
    caliper = Caliper(asked.first.part, strip, ((-0.5 * wide, 0.0, 1.5 * wide, 0.0),))
    inner = Caliper(asked.second.part, asked.meeting.second, ((middle - wide, 0.0, middle + wide, 0.0),))
    return Contact(asked.second.part, inner, caliper, wide, asked.into_first, depth, asked.first.part, in_pocket=True)


def _figures(asked: Asked) -> tuple[Figure, ...]:
    share, path = asked.lengths["share"], f"joints/{asked.id}/how"
    return (
        Figure("share", "share of the first", share, "chosen", "", kind="share", field=f"{path}/share", typed=asked.how.share.text),
        Figure("first_depth", f"pocket in {asked.first.title}", share * asked.first.thickness, "computed", f"from its {asked.how.face}"),
        Figure("second_depth", f"pocket in {asked.second.title}", (1 - share) * asked.second.thickness, "computed", "from its other side"),
    )  # fmt: skip
