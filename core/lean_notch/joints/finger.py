"""Finger joint: two edges meet at 90 degrees and take turns along the edge.

One division of the shared edge, from its length, the boards' thicknesses and the clearance, that both members follow.
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import partial
from typing import Annotated, ClassVar, Literal

from ..codec import Title
from ..errors import ClearanceTooLarge, FingerTooNarrow, FingerTooWide
from ..figures import Figure
from ..typed import Typed
from ..units import Length, say_mm
from .mate import Asked, Caliper, Change, Contact, Mate, Meeting, Notch, Run, Seat, SharpCorner, Strip, on_edge_at
from .meeting import edge_to_edge

FINGER_PER_THICKNESS = 3.0
"""Fingers about three times as wide as the board is thick look right and hold well. Common practice."""

Interval = tuple[float, float]


def finger_edges(length: float, finger: float) -> tuple[float, ...]:
    """Positions of the cuts along an edge, n + 1 rising values in mm, from 0.0 to `length`.

    n is the odd count nearest to length / finger (the smaller of two), so that both ends carry a finger.
    Raises FingerTooWide if three do not fit.

    >>> finger_edges(90, 20)
    (0.0, 18.0, 36.0, 54.0, 72.0, 90.0)
    """
    if 3 * finger > length * (1 + 1e-12):
        raise FingerTooWide(
            f"An edge of {say_mm(length)} has no room for three fingers of {say_mm(finger)}.",
            fix=f"Use fingers of at most {say_mm(length / 3)}, or an edge of at least {say_mm(3 * finger)}.",
            field="finger",
        )
    count = max(3, 2 * math.ceil(length / finger / 2 - 1 - 1e-9) + 1)
    # length * (i / n), not length * i / n: the last cut is then exactly `length`.
    return tuple(length * (i / count) for i in range(count + 1))


def narrowest_finger(thickness: float, clearance: float) -> float:
    """A finger no wider than its board is thick splits along the grain. Common practice."""
    return thickness + abs(clearance)


def divide_edge(length: float, thickness: float, clearance: float, wanted: float | None = None) -> FingerDivision:
    """The division of an edge of `length` between two members of (at most) `thickness`, all in mm.

    Fingers are about three thicknesses wide unless `wanted` is given, and never narrower than
    `narrowest_finger`. Raises FingerTooWide, FingerTooNarrow or ClearanceTooLarge.

    >>> divide_edge(63, 3, 0).cuts
    (0.0, 9.0, 18.0, 27.0, 36.0, 45.0, 54.0, 63.0)
    """
    least = narrowest_finger(thickness, clearance)
    if wanted is not None and wanted < least:
        raise FingerTooNarrow(
            f"Fingers of {say_mm(wanted)} are narrower than the board is thick, {say_mm(thickness)}.",
            fix=f"Use fingers of at least {say_mm(least)}.",
            field="finger",
        )
    if wanted is None and length < 3 * least:
        raise FingerTooWide(
            f"An edge of {say_mm(length)} has no room for three fingers of {say_mm(least)}, "
            f"as wide as the board is thick.",
            fix=f"Make that edge at least {say_mm(3 * least)} long, or use a thinner board.",
            field="finger",
        )
    if wanted is None:
        wanted = max(least, min(FINGER_PER_THICKNESS * thickness, length / 3))
    cuts = finger_edges(length, wanted)
    if length / (len(cuts) - 1) < least and len(cuts) > 4:
        cuts = tuple(length * (i / (len(cuts) - 3)) for i in range(len(cuts) - 2))
    division = FingerDivision(cuts, clearance)
    if abs(clearance) >= division.finger / 2:
        raise ClearanceTooLarge(
            f"A clearance of {say_mm(clearance)} eats half of a finger of {say_mm(division.finger)}.",
            fix=f"Choose a clearance below {say_mm(division.finger / 2)}.",
            field="clearance",
        )
    return division


@dataclass(frozen=True)
class FingerDivision:
    """An odd count of equal fingers along an edge; the first member has both end ones.

    `cuts` are the positions in mm where the members take turns. Each member draws back from every inner cut by
    a quarter of `clearance`, so that a finger has `clearance` in its socket, half of it on either side.
    """

    cuts: tuple[float, ...]
    clearance: float

    @property
    def count(self) -> int:
        return len(self.cuts) - 1

    @property
    def finger(self) -> float:
        """Width of one finger before clearance."""
        return self.cuts[-1] / self.count

    @property
    def first_keeps(self) -> tuple[Interval, ...]:
        """The first member's fingers, finished size."""
        return self._fingers(0)

    @property
    def second_keeps(self) -> tuple[Interval, ...]:
        return self._fingers(1)

    @property
    def first_gives(self) -> tuple[Interval, ...]:
        """The first member's sockets, finished size."""
        return self._sockets(1)

    @property
    def second_gives(self) -> tuple[Interval, ...]:
        return self._sockets(0)

    def _fingers(self, parity: int) -> tuple[Interval, ...]:
        return self._pieces(parity, self.clearance / 4)

    def _sockets(self, parity: int) -> tuple[Interval, ...]:
        return self._pieces(parity, -self.clearance / 4)

    def _pieces(self, parity: int, inset: float) -> tuple[Interval, ...]:
        last = self.count
        return tuple(
            (
                self.cuts[i] + (inset if i > 0 else 0.0),
                self.cuts[i + 1] - (inset if i + 1 < last else 0.0),
            )
            for i in range(parity, last, 2)
        )


@dataclass(frozen=True)
class Finger(Typed):
    """Two edges that meet at 90 degrees take turns; the first has a finger at both ends.

    `width` is the wanted width of one finger; None leaves it to the thickness of the board.
    """

    width: Annotated[Length | None, Title("Finger width", "empty: 3 × thickness")] = None
    kind: ClassVar[str] = "finger"


_TOUCH_MM = 1e-6
_SHARES = (0.5, 0.05)
"""Fingers are measured half-way and near their tips: a bone takes a bite out of a flank, never out of all of it."""


class FingerJoint:
    how = Finger
    title = "finger joint"
    second: Literal["edge", "face"] = "edge"

    def meet(self, first: Seat, second: Seat) -> Meeting:
        return edge_to_edge(first, second)

    def make(self, asked: Asked) -> Mate:
        first, second, meeting = asked.first, asked.second, asked.meeting
        clearance = first.board.clearance
        try:
            division = divide_edge(
                meeting.length, max(first.thickness, second.thickness), clearance, asked.lengths.get("width")
            )
        except (FingerTooWide, FingerTooNarrow) as error:
            # Without a wanted width the edge itself is what is too short.
            error.field = "width" if "width" in asked.lengths else "size"
            raise
        gives = _given(division, meeting)
        changes = (
            _change(first, meeting.first, gives[0], division.second_keeps, division.finger),
            _change(second, meeting.second, gives[1], division.first_keeps, division.finger),
        )
        return Mate(
            asked.id, asked.title, Finger.kind, "finger joint at 90°", "finger", "socket", *changes,
            _contacts(first.part, second.part, meeting, division), meeting, _figures(asked, division),
        )  # fmt: skip


def _given(division: FingerDivision, meeting: Meeting) -> tuple[tuple[Interval, ...], tuple[Interval, ...]]:
    """What the first and the second member give away, corners included.

    A corner block of the second is one more socket of the first; where a third panel has the block, the second gives it
    away with its end piece.
    """
    length = division.cuts[-1]
    first, second = list(division.first_gives), list(division.second_gives)
    low, high = meeting.ends
    if low.owner == "second":
        first.insert(0, (-low.block, 0.0))
    if high.owner == "second":
        first.append((length, length + high.block))
    if low.owner == "third":
        second[0] = (-low.block, second[0][1])
    if high.owner == "third":
        second[-1] = (second[-1][0], length + high.block)
    return tuple(first), tuple(second)


def _change(
    seat: Seat, strip: Strip, gives: tuple[Interval, ...], fingers: tuple[Interval, ...], finger: float
) -> Change:
    """`fingers` are the other member's, which go into what this one `gives`."""
    line, named, depth = seat.line, seat.named, strip.high
    start_at = on_edge_at(line, strip, 0.0)
    sense = 1.0 if on_edge_at(line, strip, 1.0) > start_at else -1.0
    span = math.dist(*line)
    notches = []
    for start, end in gives:
        a, b = _met(start_at + sense * start, span), _met(start_at + sense * end, span)
        notches.append(Notch(named, min(a, b), max(a, b), depth))
    corners = partial(_sharp, strip, gives, fingers, finger, start_at, sense, span)
    return Change(seat.placement, seat.part, strip, tuple(sorted(notches)), (), corners)


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


def _contacts(first: str, second: str, meeting: Meeting, division: FingerDivision) -> tuple[Contact, ...]:
    """Every finger that stands between two others."""
    finger, cuts, clearance = division.finger, division.cuts, division.clearance
    sides = ((first, meeting.first, second, meeting.second), (second, meeting.second, first, meeting.first))
    found = []
    for i in range(1, division.count - 1):
        inner, mine, outer, theirs = sides[i % 2]
        low, deep = cuts[i] + cuts[i + 1], mine.high
        low, high, beside = low / 2 - finger, low / 2 + finger, (cuts[i - 1] + cuts[i]) / 2
        found.append(
            Contact(
                inner, Caliper(inner, mine, _runs(low, high, deep)), Caliper(outer, theirs, _runs(low, high, theirs.high)),
                finger - clearance / 2, clearance, deep, outer,
                Caliper(inner, mine, ((beside, 0.0, beside, 1.5 * deep),)), True,
            )
        )  # fmt: skip
    return tuple(found)


def _runs(low: float, high: float, depth: float) -> tuple[Run, Run]:
    half, tips = _SHARES[0] * depth, _SHARES[1] * depth
    return (low, half, high, half), (low, tips, high, tips)


def _figures(asked: Asked, division: FingerDivision) -> tuple[Figure, ...]:
    wanted: Length | None = asked.how.width
    return (
        Figure("fingers", "fingers", division.count, "computed", "an odd count, so that both ends are alike", kind="count"),
        Figure("wanted", "finger width wanted", asked.lengths.get("width"), "chosen",
               "the nearest odd count of fingers is taken", kind="length" if wanted else "word", word="by thickness",
               field=f"joints/{asked.id}/how/width", typed=wanted.text if wanted else "", unit=wanted.unit if wanted else "mm"),
        Figure("pitch", "finger pitch", division.finger, "computed",
               f"edge {say_mm(division.cuts[-1])} / {division.count} fingers"),
    )  # fmt: skip
