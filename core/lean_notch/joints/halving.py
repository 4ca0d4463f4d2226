"""Halving: two parts that lie in one plane cross, and each gives away a part of its thickness there; router work."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal, NamedTuple

from ..documents.as_typed import Typed
from ..documents.rules import AmountRule, Title
from ..geometry import Motion, Point, Region, Segment
from ..geometry.space import Triple, dot, times
from ..lengths.figures import Figure
from ..lengths.length import Amount, amount
from ..lengths.said import say_mm
from .mate import FACE, Asked, At, Caliper, Change, Contact, Mate, Meeting, Pocket, Seat, Strip, ways
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
        across = _crossings(first, second)
        if not across:
            raise NotMeeting(
                f"{first.title} and {second.title} do not cross.", fix="Move one of them onto the other.",
                place=first.frame.origin,
            )  # fmt: skip
        one = across[0].second
        (x, y), (ux, uy), half = one.centre, one.way, one.width / 2
        start = first.frame.at((x - half * ux, y - half * uy))
        axis = first.frame.towards(one.way)
        strip = Strip(
            FACE, first.frame.flat(start), one.way, (-uy, ux), -across[0].first.width / 2, across[0].first.width / 2
        )
        other = Strip(
            FACE, second.frame.flat(start), flat_way(second, axis), flat_way(second, first.frame.towards(strip.inward)), strip.low,
            strip.high,
        )  # fmt: skip
        return Meeting(start, axis, one.width, strip, other, angle=180.0)

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
            tuple(_contacts(asked, share)), asked.meeting, _figures(asked),
            (depth_not_swept(asked, f"joints/{asked.id}/how/share"),),
            (times(first.frame.n, 1.0 if back else -1.0),),
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


class _Across(NamedTuple):
    """Straight across one of two boards where they cross, flat on the first: the middle, the way, and how wide the board is."""

    centre: Point
    way: Point
    width: float


class _Crossing(NamedTuple):
    """Across the first board and across the second."""

    first: _Across
    second: _Across


def _crossings(first: Seat, second: Seat) -> list[_Crossing]:
    """Everywhere that two outlines overlap, from left to right."""
    from ..geometry.boolean import intersection

    other = _onto(first, second)
    both = sorted(intersection([first.outline], [other]), key=lambda region: region.box)
    return [_Crossing(_across(region, first.outline), _across(region, other)) for region in both]


def _across(region: Region, board: Region) -> _Across:
    """Square to the longest straight side that a crossing has of a board; where it has none, along the first part's x."""
    sides = [one for one in region.outer.segments if one.bulge == 0 and _is_of(one, board)]
    longest = max(sides, key=lambda one: one.length, default=None)
    (ux, uy), (vx, vy), _ = ways((longest.start, longest.end)) if longest else ((0.0, 1.0), (1.0, 0.0), 0.0)
    corners = [segment.start for segment in region.outer.segments]
    along = [x * ux + y * uy for x, y in corners]
    out = [x * vx + y * vy for x, y in corners]
    at, middle = (min(along) + max(along)) / 2, (min(out) + max(out)) / 2
    return _Across((at * ux + middle * vx, at * uy + middle * vy), (vx, vy), max(out) - min(out))


def _is_of(side: Segment, board: Region) -> bool:
    """Whether a straight side lies on one of a board's own."""
    for ring in board.rings:
        for edge in ring.segments:
            if edge.bulge:
                continue
            (ux, uy), (vx, vy), span = ways((edge.start, edge.end))
            places = [(x - edge.start[0], y - edge.start[1]) for x, y in (side.start, side.end)]
            if all(abs(x * vx + y * vy) < _ON_MM and -_ON_MM < x * ux + y * uy < span + _ON_MM for x, y in places):
                return True
    return False


_ON_MM = 1e-6


def _contacts(asked: Asked, share: float) -> Iterator[Contact]:
    """At every crossing each board in the other's pocket, across its own sides."""
    first, second = asked.first, asked.second
    for crossing in _crossings(first, second):
        for inner, outer, one, clearance, depth in (
            (second, first, crossing.second, asked.into_first, share * first.thickness),
            (first, second, crossing.first, asked.into_second, (1 - share) * second.thickness),
        ):
            middle, way = first.frame.at(one.centre), first.frame.towards(one.way)
            reach = 0.75 * (one.width + abs(clearance))
            strips = [_line(seat, middle, way) for seat in (inner, outer)]
            calipers = [
                Caliper(seat.part, strip, ((-reach, 0.0, reach, 0.0),))
                for seat, strip in zip((inner, outer), strips, strict=True)
            ]
            yield Contact(inner.part, calipers[0], calipers[1], one.width, clearance, depth, outer.part, in_pocket=True)


def _line(seat: Seat, middle: Triple, way: Triple) -> Strip:
    """Across a part, from a place in space on."""
    x, y = flat_way(seat, way)
    return Strip(FACE, seat.frame.flat(middle), (x, y), (-y, x), 0.0, 0.0)


def _figures(asked: Asked) -> tuple[Figure, ...]:
    share, path = asked.lengths["share"], f"joints/{asked.id}/how"
    return (
        Figure("share", "share of the first", share, "chosen", "", kind="share", field=f"{path}/share", typed=asked.how.share.text),
        Figure("first_depth", f"pocket in {asked.first.title}", share * asked.first.thickness, "computed", f"from its {asked.how.face}"),
        Figure("second_depth", f"pocket in {asked.second.title}", (1 - share) * asked.second.thickness, "computed", "from its other side"),
    )  # fmt: skip
