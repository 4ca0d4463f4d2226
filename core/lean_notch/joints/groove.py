"""Groove: an edge of one part sits in a groove of the other's face, as deep as is asked; router work."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Annotated, ClassVar

from ..documents.as_typed import Typed
from ..documents.rules import Title
from ..geometry.space import times
from ..ground.errors import FingerTooWide
from ..lengths.figures import Figure
from ..lengths.length import Length
from ..lengths.said import say_mm
from .mate import Asked, At, Mate, Meeting, Seat
from .meeting import edge_on_face
from .tab_and_slot import asked_for, tabs_through
from .tabs import Tabs

DEEP_SHARE = 1 / 3
"""A groove takes about a third of its board. Common practice."""


@dataclass(frozen=True)
class Groove(Typed):
    """The whole edge goes into the face, `deep` mm, or from `stop` mm of either end on: then the groove's ends are not seen."""

    deep: Annotated[Length | None, Title("Depth", "empty: a third of the board")] = None
    stop: Annotated[Length | None, Title("Stopped at both ends by", "empty: right through")] = None
    kind: ClassVar[str] = "groove"


class GrooveJoint:
    how = Groove
    title = "groove"
    ends: tuple[At, At] = ("edge", "face")

    def meet(self, first: Seat, second: Seat) -> Meeting:
        return edge_on_face(first, second)

    def make(self, asked: Asked) -> Mate:
        length = asked.meeting.length
        stop = asked.lengths.get("stop", 0.0)
        deep = asked.lengths.get("deep", DEEP_SHARE * asked.second.thickness)
        if stop < 0 or 2 * stop > length - asked.first.thickness:
            raise FingerTooWide(
                f"Stopped by {say_mm(stop)} at both ends nothing is left of an edge of {say_mm(length)}.",
                fix=f"Stop it by at most {say_mm(max(0.0, (length - asked.first.thickness) / 2))}.", field="stop",
            )  # fmt: skip
        tongue = Tabs(((stop, length - stop),), length - 2 * stop, length)
        mate = tabs_through(asked, tongue, Groove.kind, deep, None, _figures(asked, deep))
        about = f"groove {say_mm(deep)} deep" + (f", stopped by {say_mm(stop)}" if stop else "")
        # The board in its groove: the ends are far apart and no fit.
        contacts = tuple(one for one in mate.contacts if one.inner is None)
        axis = asked.meeting.axis
        slides = () if stop else (axis, times(axis, -1.0))
        return replace(
            mate, about=about, inner="edge", outer="groove", contacts=contacts, pushes=(*mate.pushes, *slides)
        )


def _figures(asked: Asked, deep: float) -> tuple[Figure, ...]:
    rows = [
        asked_for(asked, "deep", "depth", "a third of the board"),
        asked_for(asked, "stop", "stopped at both ends by", "not"),
    ]
    if asked.how.deep is None:
        rows.append(
            Figure("depth", "depth", deep, "computed", f"{asked.second.title} {say_mm(asked.second.thickness)} / 3")
        )
    return tuple(rows)
