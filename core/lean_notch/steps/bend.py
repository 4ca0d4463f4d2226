"""A line to bend the part along."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Annotated, ClassVar

from ..documents.rules import AmountRule, Title
from ..geometry import Trace, Vertex
from ..ground.errors import OutOfRange
from ..lengths.length import Amount, Length
from .begun import Begun
from .being_made import FlatMark, Making
from .fields import RIGHT_ANGLE, Called, Id, On
from .kind import Given, StepKind
from .titles import title_of
from .words import Say, Words, pair


@dataclass(frozen=True)
class BendStep(StepKind):
    """A line to bend the part along by `angle` degrees, up towards its face if positive. On the flat it is a fold line."""

    id: Id
    x: Annotated[Length, Title("Start, from the left")]
    y: Annotated[Length, Title("Start, from the bottom")]
    to_x: Annotated[Length, Title("End, from the left")]
    to_y: Annotated[Length, Title("End, from the bottom")]
    angle: Annotated[Amount, AmountRule(-179, 179, "°"), Title("Bend by")] = RIGHT_ANGLE
    radius: Annotated[Length | None, Title("Inside radius")] = None
    title: Called = ""
    on: On = True
    kind: ClassVar[str] = "bend"
    begins = (Begun("bend", "A bend line", lambda on: on.across[0] | on.across[1]),)

    redraws = False

    def take(self, making: Making, at: Mapping[str, float], given: Given) -> None:
        ends = (Vertex(at["x"], at["y"]), Vertex(at["to_x"], at["to_y"]))
        if ends[0] == ends[1]:
            raise OutOfRange("The bend line has no length.", fix="Give it another end.", field="to_x")
        path = f"parts/{given.part}/steps/{self.id}"
        making.marks.append(FlatMark(self.id, title_of(self), "fold", (), (Trace(ends),), "auto", path))

    def said(self, say: Say) -> Iterator[Words]:
        yield Words("bend by ")
        yield say("angle")
        yield Words("° along a line from ")
        yield from pair(say, "x", "y")
        yield Words(" to ")
        yield from pair(say, "to_x", "to_y")
