"""The sizes of a step where they stand on the flat part: in, a step and all lengths by name; out, lines with the path of the length
that each shows. Places are on the part, in mm."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Literal

from ..design import Disc, Lettering, Rectangle, ShapeStep, Step
from ..errors import NotchError
from ..geometry import Point
from ..units import Length


@dataclass(frozen=True)
class SizeOnPart:
    """`path` is the length's, below its step; `side` is where its line goes: beside the shape, or along it where it stands."""

    path: str
    says: str
    value: float
    text: str
    unit: Literal["mm", "in"]
    start: Point
    end: Point
    side: Literal["below", "right", "along"]


def sizes_of(step: Step, names: Mapping[str, float]) -> tuple[SizeOnPart, ...]:
    """Of a shape that stands straight on the front; of any other step, and of one that cannot be worked out, none."""
    if not isinstance(step, ShapeStep) or not step.on or step.turn or step.scale != 1 or step.mirrored:
        return ()
    if step.face == "back":
        return ()
    try:
        return tuple(_sizes(step, names))
    except NotchError:
        return ()


def _sizes(step: ShapeStep, names: Mapping[str, float]) -> Iterator[SizeOnPart]:
    x, y = step.x.mm(names), step.y.mm(names)

    def size(
        path: str, says: str, length: Length, start: Point, end: Point, side: Literal["below", "right", "along"]
    ) -> SizeOnPart:
        return SizeOnPart(path, says, length.mm(names), length.text, length.unit, start, end, side)

    shape = step.shape
    middle = y
    if isinstance(shape, Rectangle):
        width, height = shape.width.mm(names), shape.height.mm(names)
        yield size("shape/width", "wide", shape.width, (x, y), (x + width, y), "below")
        yield size("shape/height", "high", shape.height, (x + width, y), (x + width, y + height), "right")
        middle = y + height / 2
    elif isinstance(shape, Disc):
        radius = shape.diameter.mm(names) / 2
        yield size(
            "shape/diameter", "across", shape.diameter, (x - radius, y - radius), (x + radius, y - radius), "below"
        )
    elif isinstance(shape, Lettering):
        height = shape.height.mm(names)
        yield size("shape/height", "high", shape.height, (x, y), (x, y + height), "right")
    if x:
        yield size("x", "from the left", step.x, (0.0, middle), (x, middle), "along")
    if y:
        yield size("y", "from the bottom", step.y, (x, 0.0), (x, y), "along")
