"""Finger joint: two edges meet and take turns along the edge.

One division of the shared edge, from its length, the boards' thicknesses and the clearance, that both members follow. At other
angles than 90 degrees fingers are as long as the other board is wide at that slant, and a square cut leaves a wedge.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import partial
from typing import Annotated, ClassVar, Literal

from ..documents.as_typed import Typed
from ..documents.rules import Title, Whole
from ..geometry.space import times
from ..ground.errors import FingerTooNarrow, FingerTooWide
from ..ground.findings import Finding
from ..lengths.figures import Figure
from ..lengths.length import Length
from ..lengths.said import say_mm
from .finger_division import FingerDivision, divide_edge
from .mate import (
    Asked,
    At,
    Caliper,
    Change,
    Contact,
    End,
    Interval,
    Mate,
    Meeting,
    Notch,
    Run,
    Seat,
    SharpCorner,
    Strip,
    on_edge_at,
)
from .meeting import edge_to_edge


@dataclass(frozen=True)
class Finger(Typed):
    """Two edges that meet take turns; the one that `ends` names has a finger where it begins, and, of an odd count, where it ends.

    `width` is the wanted width of one finger; None leaves it to the thickness of the board. `count` overrules it. At other angles
    than 90 degrees fingers are `short`, so that nothing stands out, or `proud`, to be planed flush.
    """

    width: Annotated[Length | None, Title("Finger width", "empty: 3 × thickness")] = None
    count: Annotated[int | None, Whole(3, 400), Title("Fingers", "empty: by width")] = None
    ends: Annotated[Literal["first", "second"], Title("End finger on")] = "first"
    margin: Annotated[Length | None, Title("Plain ends", "empty: none")] = None
    tips: Annotated[Literal["short", "proud"], Title("At a slant, tips are")] = "short"
    kind: ClassVar[str] = "finger"


_TOUCH_MM = 1e-6
_SHARES = (0.5, 0.05)
"""Fingers are measured half-way and near their tips: a bone takes a bite out of a flank, never out of all of it."""


class FingerJoint:
    how = Finger
    title = "finger joint"
    ends: tuple[At, At] = ("edge", "edge")

    def meet(self, first: Seat, second: Seat) -> Meeting:
        return edge_to_edge(first, second)

    def make(self, asked: Asked) -> Mate:
        first, second, how, clearance = asked.first, asked.second, asked.how, asked.into_second
        meeting = _with_ends(asked.meeting, how)
        try:
            division = divide_edge(
                meeting.length, max(first.thickness, second.thickness), clearance, asked.lengths.get("width"), how.count,
                asked.lengths.get("margin", 0.0),
            )  # fmt: skip
        except (FingerTooWide, FingerTooNarrow) as error:
            # Without a wanted width the edge itself is what is too short.
            if error.field not in ("count", "margin"):
                error.field = "width" if "width" in asked.lengths else "size"
            raise
        parity = 0 if how.ends == "first" else 1
        keeps = (division.first_keeps, division.second_keeps)
        gives = _given(division, meeting, parity)
        tips = [_tip(seat.thickness, meeting, how.tips) for seat in (first, second)]
        changes = (
            _change(first, meeting.first, gives[0], keeps[1 - parity], division.finger, keeps[parity], tips[0]),
            _change(second, meeting.second, gives[1], keeps[parity], division.finger, keeps[1 - parity], tips[1]),
        )
        square = meeting.angle == 90.0
        about = f"finger joint at {'90' if square else f'{meeting.angle:.4g}'}°"
        return Mate(
            asked.id, asked.title, Finger.kind, about, "finger", "socket", *changes,
            _contacts(first.part, second.part, meeting, division, parity), meeting, _figures(asked, division, tips),
            () if square else (_wedge(asked, meeting),),
            (first.stretch.inward, times(second.stretch.inward, -1.0)),
        )  # fmt: skip


def _with_ends(meeting: Meeting, how: Finger) -> Meeting:
    """Without the corners of the first member where the second has the end finger."""
    low, high = (block if seconds else 0.0 for block, seconds in zip(meeting.own, _seconds(how), strict=True))
    if not low and not high:
        return meeting
    ends = (End("first", low) if low else meeting.ends[0], End("first", high) if high else meeting.ends[1])
    return meeting.trimmed(low, meeting.length - high, ends)


def _seconds(how: Finger) -> tuple[bool, bool]:
    """Whether the end finger is the second member's: where the meeting begins, and where it ends."""
    begins = how.ends == "second"
    return begins, begins if how.count is None or how.count % 2 else not begins


def _given(
    division: FingerDivision, meeting: Meeting, parity: int
) -> tuple[tuple[Interval, ...], tuple[Interval, ...]]:
    """What the first and the second member give away, corners included; `parity` is 1 where the second has the first finger.

    A corner block of one is one more socket of the other; where a third panel has the block, whoever gives the piece beside it
    gives it away too.
    """
    length, last = division.cuts[-1], division.count - 1
    both = [[*division.first_gives], [*division.second_gives]]
    first, second = (both[0], both[1]) if parity == 0 else (both[1], both[0])
    low, high = meeting.ends
    for end, place, beyond, number in ((low, 0.0, -low.block, 0), (high, length, length + high.block, last)):
        if end.owner == "third":
            _give(second if (number + parity) % 2 == 0 else first, place, beyond)
        elif end.owner:
            _give(first if end.owner == "second" else second, place, beyond)
    return tuple(first), tuple(second)


def _give(mine: list[Interval], place: float, beyond: float) -> None:
    for i, (start, end) in enumerate(mine):
        if abs((start if beyond < place else end) - place) <= _TOUCH_MM:
            mine[i] = (min(start, beyond), max(end, beyond))
            return
    mine.append((min(place, beyond), max(place, beyond)))
    mine.sort()


def _tip(thickness: float, meeting: Meeting, tips: str) -> float:
    """How far from its edge a member's fingers end, negative: beyond it. At a slant the two faces end at different places."""
    if meeting.angle == 90.0:
        return 0.0
    lean = thickness / math.tan(math.radians(meeting.angle))
    return max(0.0, lean) if tips == "short" else min(0.0, lean)


def _wedge(asked: Asked, meeting: Meeting) -> Finding:
    """What a square cut leaves at the tips of fingers that stand at a slant."""
    deep = [seat.thickness / abs(math.tan(math.radians(meeting.angle))) for seat in (asked.first, asked.second)]
    short, most = asked.how.tips == "short", max(deep)
    return Finding(
        "wedge", "look",
        f"“{asked.title}” meets at {meeting.angle:.4g}°: square cuts leave a wedge of {say_mm(most, 2)} at the tips of its fingers, "
        + ("open to the outside." if short else "standing out."),
        "Fill it, or make the tips proud and plane them flush." if short else "Plane or sand the tips flush after gluing.",
        amount=most, joint=asked.id, placement=asked.first.placement, field=f"joints/{asked.id}/how/tips",
        space=meeting.start,
    )  # fmt: skip


def _change(
    seat: Seat, strip: Strip, gives: tuple[Interval, ...], fingers: tuple[Interval, ...], finger: float,
    own: tuple[Interval, ...], tip: float,
) -> Change:  # fmt: skip
    """`fingers` are the other member's, which go into what this one `gives`; its `own` end `tip` from the edge."""
    line, named = seat.line, seat.named
    start_at = on_edge_at(line, strip, 0.0)
    sense = 1.0 if on_edge_at(line, strip, 1.0) > start_at else -1.0
    span = math.dist(*line)
    notches = []
    for some, depth in ((gives, strip.high), (own if tip else (), tip)):
        for start, end in some:
            a, b = _met(start_at + sense * start, span), _met(start_at + sense * end, span)
            notches.append(Notch(named, min(a, b), max(a, b), depth))
    corners = partial(_sharp, strip, gives, fingers, finger, start_at, sense, span)
    return Change(seat.placement, seat.part, strip, tuple(sorted(notches)), corners=corners)


def _met(at: float, span: float) -> float:
    """A place along an edge; its ends are met exactly."""
    return 0.0 if at <= _TOUCH_MM else span if at >= span - _TOUCH_MM else at


def _sharp(
    strip: Strip, gives: tuple[Interval, ...], fingers: tuple[Interval, ...], finger: float,
    start_at: float, sense: float, span: float,
) -> tuple[SharpCorner, ...]:  # fmt: skip
    """The inside corners of sockets, those at an open end left out."""
    found, depth = [], strip.high
    homes = sorted(place for one in fingers for place in one)
    for start, end in gives:
        inside = [one for one in homes if start - _TOUCH_MM <= one <= end + _TOUCH_MM]
        for place, way in ((start, 1.0), (end, -1.0)):
            at = _met(start_at + sense * place, span)
            if at in (0.0, span):
                continue
            home = (min(inside) if way > 0 else max(inside)) if inside else place
            beside = min(at if way * sense > 0 else span - at, finger)
            along = (way * strip.along[0], way * strip.along[1])
            across = (-strip.inward[0], -strip.inward[1])
            found.append(SharpCorner(strip.point(place, depth), along, across, beside, depth, strip.point(home, depth)))
    return tuple(found)


def _contacts(
    first: str, second: str, meeting: Meeting, division: FingerDivision, parity: int
) -> tuple[Contact, ...]:  # fmt: skip
    """Every finger that stands between two others."""
    finger, cuts, clearance = division.finger, division.cuts, division.clearance
    sides = ((first, meeting.first, second, meeting.second), (second, meeting.second, first, meeting.first))
    square, found = meeting.angle == 90.0, []
    for i in range(1, division.count - 1):
        inner, mine, outer, theirs = sides[(i + parity) % 2]
        low, deep = cuts[i] + cuts[i + 1], mine.high
        low, high, beside = low / 2 - finger, low / 2 + finger, (cuts[i - 1] + cuts[i]) / 2
        found.append(
            Contact(
                inner, Caliper(inner, mine, _runs(low, high, mine)), Caliper(outer, theirs, _runs(low, high, theirs)),
                finger - clearance / 2, clearance, deep, outer,
                Caliper(inner, mine, ((beside, 0.0, beside, 1.5 * deep),)) if square else None, square,
            )
        )  # fmt: skip
    return tuple(found)


def _runs(low: float, high: float, strip: Strip) -> tuple[Run, Run]:
    half, tips = (strip.low + share * (strip.high - strip.low) for share in _SHARES)
    return (low, half, high, half), (low, tips, high, tips)


def _figures(asked: Asked, division: FingerDivision, tips: list[float]) -> tuple[Figure, ...]:
    how, path = asked.how, f"joints/{asked.id}/how"
    wanted: Length | None = how.width
    margin: Length | None = how.margin
    slant = asked.meeting.angle != 90.0
    deep = (asked.meeting.first.high, asked.meeting.second.high)
    rows = [
        Figure("fingers", "fingers", division.count, "chosen" if how.count else "computed",
               "" if how.count else "an odd count, so that both ends are alike", kind="count", field=f"{path}/count",
               typed=str(how.count or "")),
        Figure("wanted", "finger width wanted", asked.lengths.get("width"), "chosen",
               "the nearest odd count of fingers is taken", kind="length" if wanted else "word", word="by thickness",
               field=f"{path}/width", typed=wanted.text if wanted else "", unit=wanted.unit if wanted else "mm"),
        Figure("pitch", "finger pitch", division.finger, "computed",
               f"edge {say_mm(division.cuts[-1] - 2 * division.margin)} / {division.count} fingers"),
        Figure("margin", "plain ends", asked.lengths.get("margin"), "chosen", "", kind="length" if margin else "word", word="none",
               field=f"{path}/margin", typed=margin.text if margin else "", unit=margin.unit if margin else "mm"),
    ]  # fmt: skip
    if slant:
        for seat, other, depth, tip in zip(
            (asked.first, asked.second), (asked.second, asked.first), deep, tips, strict=True
        ):
            at = f"{asked.meeting.angle:.4g}°"
            rows.append(
                Figure(f"slant_{seat.placement}", f"sockets of {seat.title}, deep", depth, "computed",
                       f"{other.title} is {say_mm(other.thickness)} thick and comes at {at}"
                       + (f"; its own fingers end {say_mm(abs(tip))} {'short of' if tip > 0 else 'beyond'} the edge" if tip else ""))
            )  # fmt: skip
    return tuple(rows)
