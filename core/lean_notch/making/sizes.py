"""The sizes of a step where they stand on the flat part: in, a step, the part as made and all lengths by name; out, lines with the
path of the length that each shows. Places are on the part, in mm."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Literal

from ..design import Annulus, Disc, Ellipse, Grid, Lettering, Line, Polygon, Rectangle, ShapeStep, Slot, Step
from ..geometry import Point
from ..ground.errors import NotchError
from ..lengths.length import Length
from ..steps.place import Named
from ..steps.words import of_words
from .flat import FlatPart

Where = Literal["below", "right", "along"]


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
    side: Where


def sizes_of(step: Step, part: FlatPart, names: Mapping[str, float]) -> tuple[SizeOnPart, ...]:
    """Of a shape on the front; of any other step, and of one that cannot be worked out, none."""
    drawn = next((one for one in part.named if one.step == step.id), None)
    if not isinstance(step, ShapeStep) or not step.on or step.face == "back" or drawn is None:
        return ()
    lengths = {path: typed for path, typed in step.lengths if isinstance(typed, Length)}

    def size(path: str, says: str, start: Point, end: Point, side: Where) -> SizeOnPart:
        typed = lengths[path]
        return SizeOnPart(path, says, typed.mm(names), typed.text, typed.unit, start, end, side)

    try:
        upright = step.turn.value(names) == 0 and step.scale.value(names) == 1 and not step.mirrored
        found = [size(*one) for one in _own(step, drawn, upright)]
        if upright and isinstance(step.pattern, Grid):
            found += [size(*one) for one in _spacing(step, step.pattern, drawn, lengths, names)]
        for one in part.measured:
            if one.step == step.id and _tells(step, one.path, one.start != one.end):
                found.append(size(one.path, _from(step, one.path), one.start, one.end, "along"))
    except NotchError:
        return ()
    return tuple(found)


def _tells(step: ShapeStep, axis: str, away: bool) -> bool:
    """Whether a distance is worth a line: not one of 0 from the part's zero, or from halfway between two things."""
    return away or (getattr(step, f"from_{axis}").startswith("edge:") and not getattr(step, f"to_{axis}"))


_Line = tuple[str, str, Point, Point, Where]


def _own(step: ShapeStep, drawn: Named, upright: bool) -> Iterator[_Line]:
    """The shape's own sizes; of one that is turned, those that stand along its edges."""
    points, edges = dict(drawn.points), dict(drawn.edges)
    shape, name = step.shape, step.id
    if isinstance(shape, Line):
        return
    (left, _), (right, _) = points[f"side:{name}.left"], points[f"side:{name}.right"]
    (_, low), (_, high) = points[f"side:{name}.bottom"], points[f"side:{name}.top"]

    def below(path: str, says: str) -> _Line:
        return (f"shape/{path}", says, (left, low), (right, low), "below")

    def beside(path: str, says: str) -> _Line:
        return (f"shape/{path}", says, (right, low), (right, high), "right")

    if isinstance(shape, Rectangle):
        bottom, side = edges[f"{name}.bottom"], edges[f"{name}.right"]
        yield "shape/width", "wide", bottom.start, bottom.end, "below" if upright else "along"
        yield "shape/height", "high", side.start, side.end, "right" if upright else "along"
    elif isinstance(shape, Disc | Annulus):
        yield below("diameter", "across")
    elif not upright:
        return
    elif isinstance(shape, Ellipse):
        yield below("width", "wide")
        yield beside("height", "high")
    elif isinstance(shape, Slot):
        yield below("length", "long")
        yield beside("width", "wide")
    elif isinstance(shape, Lettering):
        yield beside("height", "high")
    elif isinstance(shape, Polygon) and shape.measured == "flats":
        yield beside("across", "across flats")


def _spacing(
    step: ShapeStep, pattern: Grid, drawn: Named, lengths: Mapping[str, Length], names: Mapping[str, float]
) -> Iterator[_Line]:  # fmt: skip
    x, y = dict(drawn.points)[f"centre:{step.id}"]
    dx, dy = (lengths[f"pattern/{path}"].mm(names) for path in ("dx", "dy"))
    if pattern.columns.value(names) > 1:
        yield "pattern/dx", "apart", (x, y), (x + dx, y), "along"
    if pattern.rows.value(names) > 1:
        yield "pattern/dy", "apart", (x, y), (x, y + dy), "along"


def _from(step: ShapeStep, axis: str) -> str:
    of = getattr(step, f"from_{axis}")
    if getattr(step, f"to_{axis}"):
        return "off the middle"
    return f"from {of_words(of)}" if of else "from the left" if axis == "x" else "from the bottom"
