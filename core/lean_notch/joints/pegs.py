"""Pegs: short tabs of one part in a row of holes of another that has more holes than pegs, so that it can be moved along."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated, ClassVar

from ..documents.as_typed import Typed
from ..documents.rules import Title, Whole
from ..geometry import Region
from ..ground.errors import FingerTooNarrow, OutOfRange
from ..lengths.figures import Figure
from ..lengths.length import Length
from ..lengths.said import say_mm
from .finger_division import narrowest_finger
from .mate import Asked, At, Mate, Meeting, Seat
from .meeting import edge_on_face
from .tab_and_slot import asked_for, refuse_beyond, slot_of, tabs_through
from .tabs import Tabs

PEG_PER_THICKNESS = 2.0
HOLES_PER_PEG = 2.0
"""Pegs twice as wide as their board is thick, holes twice that apart. Common practice."""


@dataclass(frozen=True)
class Pegs(Typed):
    """Pegs along the first member's edge, `pitch` apart, in the middle of it; the second's face has a row of holes of that pitch
    that goes on for `more` holes to either side."""

    count: Annotated[int, Whole(1, 100), Title("Pegs")] = 2
    width: Annotated[Length | None, Title("Peg width", "empty: 2 × thickness")] = None
    pitch: Annotated[Length | None, Title("From peg to peg", "empty: 2 × peg width")] = None
    more: Annotated[int, Whole(0, 100), Title("More holes on either side")] = 2
    kind: ClassVar[str] = "pegs"


class PegsJoint:
    how = Pegs
    title = "pegs in a row of holes"
    ends: tuple[At, At] = ("edge", "face")

    def meet(self, first: Seat, second: Seat) -> Meeting:
        return edge_on_face(first, second)

    def make(self, asked: Asked) -> Mate:
        how, pegs = asked.how, _pegs(asked)
        mate = tabs_through(asked, pegs, Pegs.kind, None, None, _figures(asked, pegs))
        holes = tuple(_more_holes(asked, pegs, how.more))
        refuse_beyond(holes, asked.second, asked.title)
        second = replace(
            mate.second, cuts=(*mate.second.cuts, *holes), zones=(*mate.second.zones, *(hole.box for hole in holes))
        )
        square = "" if asked.meeting.angle == 90.0 else f" at {asked.meeting.angle:.4g}°"
        return replace(
            mate, second=second, inner="peg", outer="hole",
            about=f"{pegs.count} pegs{square} in a row of {pegs.count + 2 * how.more} holes",
        )  # fmt: skip


def _pegs(asked: Asked) -> Tabs:
    """Raises FingerTooNarrow at "width", OutOfRange at "pitch" or "count"."""
    first, second, count, length = asked.first, asked.second, asked.how.count, asked.meeting.length
    least = narrowest_finger(first.thickness, asked.into_second)
    width = asked.lengths.get("width", max(least, PEG_PER_THICKNESS * first.thickness))
    if width < least:
        raise FingerTooNarrow(
            f"Pegs of {say_mm(width)} are narrower than their board is thick, {say_mm(first.thickness)}.",
            fix=f"Use pegs of at least {say_mm(least)}.", field="width",
        )  # fmt: skip
    pitch = asked.lengths.get("pitch", HOLES_PER_PEG * width)
    web = max(first.thickness, second.thickness)
    if pitch < width + abs(asked.into_second) + web:
        raise OutOfRange(
            f"Holes {say_mm(pitch)} apart leave {say_mm(pitch - width)} between pegs of {say_mm(width)}.",
            fix=f"Put them at least {say_mm(width + abs(asked.into_second) + web)} apart.", field="pitch",
        )  # fmt: skip
    whole = (count - 1) * pitch + width
    if whole > length:
        most = int((length - width) / pitch) + 1 if length >= width else 0
        raise OutOfRange(
            f"{count} pegs {say_mm(pitch)} apart take {say_mm(whole)} of an edge of {say_mm(length)}.",
            fix=f"Use at most {most}, or put them nearer together." if most else "Use a longer edge.", field="count",
        )  # fmt: skip
    start = (length - whole) / 2
    return Tabs(tuple((start + i * pitch, start + i * pitch + width) for i in range(count)), width, pitch)


def _more_holes(asked: Asked, pegs: Tabs, more: int) -> list[Region]:
    (low, _), (last, _) = pegs.spans[0], pegs.spans[-1]
    starts = [low - i * pegs.pitch for i in range(1, more + 1)] + [last + i * pegs.pitch for i in range(1, more + 1)]
    return [slot_of(asked, (start, start + pegs.width)) for start in starts]


def _figures(asked: Asked, pegs: Tabs) -> tuple[Figure, ...]:
    path, how = f"joints/{asked.id}/how", asked.how
    return (
        Figure("pegs", "pegs", pegs.count, "chosen", "", kind="count", field=f"{path}/count", typed=str(how.count)),
        asked_for(asked, "width", "peg width", "2 × thickness"),
        asked_for(asked, "pitch", "from peg to peg", "2 × peg width"),
        Figure("more", "more holes on either side", how.more, "chosen", "", kind="count", field=f"{path}/more", typed=str(how.more)),
    )  # fmt: skip
