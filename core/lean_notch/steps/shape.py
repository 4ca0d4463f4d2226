"""A shape, and what it does to the part: it adds, cuts, keeps or marks."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Annotated, ClassVar, Literal

from ..documents.rules import Title
from ..documents.rules import Words as Text
from ..ground.operations import Operation, Side
from ..lengths.length import Length
from .being_made import Making
from .fields import NONE, ONE, ZERO, Called, Id, Of, On, Scale, Turn
from .kind import Given, StepKind
from .patterns import Pattern, Spread
from .shape_begun import BEGINS
from .shape_made import made
from .shape_said import said
from .shapes import Shape
from .words import Say, Words

Does = Literal["add", "cut", "keep", "mark"]


@dataclass(frozen=True)
class ShapeStep(StepKind):
    """A shape, and what it does: it adds to the part, is cut out of it, keeps only what lies inside it, or is marked.

    `operation` is what a mark is; `side` is where the beam runs along a cut or a mark; `depth` is a pocket's. A mark on
    the back is placed as seen from the back.

    `x` and `y` say where its `anchor` is ("" is the shape's own origin, else "centre", a side or a corner of its box such
    as "top-left", one of its own corners, or the middle of one of its own edges): to the right and up from the part's zero, or from the point that `from_x` and
    `from_y` name. From an edge they count inwards, square to it, to the anchor, or where there is none to the nearest of
    the shape. With `to_x` or `to_y` they count from halfway between the two.
    """

    id: Id
    shape: Shape
    does: Annotated[Does, Title("What it does")] = "add"
    operation: Annotated[Operation, Title("Operation")] = "engrave"
    x: Annotated[Length, Title("From the left")] = ZERO
    y: Annotated[Length, Title("From the bottom")] = ZERO
    turn: Annotated[Turn, Title("Rotation")] = NONE
    scale: Annotated[Scale, Title("Scale")] = ONE
    mirrored: Annotated[bool, Title("Mirrored")] = False
    anchor: Annotated[str, Text(90, required=False), Title("Anchor")] = ""
    from_x: Annotated[Of, Title("Across, measured from")] = ""
    to_x: Annotated[Of, Title("Halfway to")] = ""
    from_y: Annotated[Of, Title("Up, measured from")] = ""
    to_y: Annotated[Of, Title("Halfway to")] = ""
    pattern: Annotated[Pattern | None, Title("Copies")] = None
    depth: Annotated[Length | None, Title("Depth")] = None
    side: Annotated[Side, Title("The cut runs")] = "auto"
    face: Annotated[Literal["front", "back"], Title("Face")] = "front"
    title: Called = ""
    on: On = True
    kind: ClassVar[str] = "shape"
    begins = BEGINS

    def take(self, making: Making, at: Mapping[str, float], given: Given) -> None:
        made(making, self, at, given)

    def said(self, say: Say) -> Iterator[Words]:
        yield from said(self, say)

    @property
    def redraws(self) -> bool:
        return self.does in ("add", "keep")

    def follows(self) -> Iterator[str]:
        spread = (self.pattern.start, self.pattern.end) if isinstance(self.pattern, Spread) else ()
        yield from filter(None, (self.from_x, self.to_x, self.from_y, self.to_y, *spread))

    def renamed(self, name: Callable[[str], str]) -> ShapeStep:
        pattern = self.pattern
        if isinstance(pattern, Spread):
            pattern = replace(pattern, start=name(pattern.start), end=name(pattern.end))
        return replace(
            self, pattern=pattern, from_x=name(self.from_x), to_x=name(self.to_x), from_y=name(self.from_y),
            to_y=name(self.to_y),
        )  # fmt: skip
