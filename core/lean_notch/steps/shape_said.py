"""A step with a shape as a sentence."""

from __future__ import annotations

from collections.abc import Iterator
from typing import TYPE_CHECKING

from .fields import ONE
from .patterns import Spread, pattern_words
from .shapes import Annulus, Disc, Ellipse, Imported, Lettering, Line, OtherPart, Outline, Polygon, Rectangle, Slot
from .words import Say, Titles, Words, of_words, pair, spoken

if TYPE_CHECKING:
    from .shape import ShapeStep

_MARKS = {
    "score": "score", "engrave": "engrave", "pocket": "sink", "fold": "fold along", "reference": "draw for reference", "cut": "cut",
}  # fmt: skip


def said(step: ShapeStep, say: Say) -> Iterator[Words]:
    verb = {"add": "start from" if say.first else "add", "cut": "cut", "keep": "keep what lies inside"}.get(step.does)
    yield Words(f"{verb or _MARKS[step.operation]} ")
    yield from _shape(step, say)
    if step.does == "mark" and step.operation == "pocket":
        yield Words(" as a pocket ")
        if step.depth is not None:
            yield say("depth")
            yield Words(" deep")
        else:
            yield Words("without a depth")
    yield from pattern_words(step.pattern, say)
    if not (say.first and say.zero("x") and say.zero("y") and not step.from_x and not step.from_y):
        yield from _place(step, say)
    if not say.zero("turn"):
        yield Words(", turned ")
        yield say("turn")
        yield Words("°")
    if say("scale").typed != ONE:
        yield Words(", scaled by ")
        yield say("scale")
    if step.mirrored:
        yield Words(", mirrored")
    if step.face == "back":
        yield Words(", on the back")


def _shape(step: ShapeStep, say: Say) -> Iterator[Words]:
    shape = step.shape
    if isinstance(shape, Rectangle):
        yield Words("an opening " if step.does == "cut" else "a rectangle ")
        yield from pair(say, "shape/width", "shape/height", " × ")
        if shape.radius is not None:
            yield Words(", corners rounded ")
            yield say("shape/radius")
    elif isinstance(shape, Disc):
        yield Words("a hole Ø " if step.does == "cut" else "a circle Ø ")
        yield say("shape/diameter")
    elif isinstance(shape, Ellipse):
        yield Words("an ellipse ")
        yield from pair(say, "shape/width", "shape/height", " × ")
    elif isinstance(shape, Annulus):
        yield Words("a ring Ø ")
        yield say("shape/diameter")
        yield Words(" round a hole Ø ")
        yield say("shape/inside")
    elif isinstance(shape, Polygon):
        yield Words("a regular polygon of ")
        yield say("shape/sides")
        yield Words(" sides, ")
        yield say("shape/across")
        yield Words(f" across {shape.measured}")
    elif isinstance(shape, Slot):
        yield Words("a slot ")
        yield from pair(say, "shape/length", "shape/width", " × ")
    elif isinstance(shape, Outline):
        yield Words(f"a free outline of {len(shape.nodes)} corners")
    elif isinstance(shape, Imported):
        yield Words("the outlines of a file")
    elif isinstance(shape, Lettering):
        yield Words(f"“{shape.text}” ")
        yield say("shape/height")
        yield Words(" high")
    elif isinstance(shape, Line):
        yield Words("a line to ")
        yield from pair(say, "shape/to_x", "shape/to_y")
    elif isinstance(shape, OtherPart):
        yield Words(f"the outline of {say.titles.get(shape.part, shape.part)}")


def _place(step: ShapeStep, say: Say) -> Iterator[Words]:
    """Both distances, the one along which copies are spread left out."""
    spread = step.pattern.along if isinstance(step.pattern, Spread) else ""
    middles = {axis: _middle(step, axis, say) for axis in ("x", "y") if axis != spread}
    both = set(middles.values())
    if len(middles) == 2 and len(both) == 1 and (of := both.pop()):
        yield Words(f", centred on {say.titles.get(of, spoken(of))}")
        return
    points = {getattr(step, f"from_{axis}") for axis in middles}
    if len(middles) == 2 and len(points) == 1 and not step.to_x and not step.to_y:
        [of] = points
        if of and not of.startswith("edge:") and say.zero("x") and say.zero("y"):
            yield Words(f", {_by(step)}at {of_words(of, say.titles)}")
            return
    begun = False
    for axis, of in middles.items():
        link, begun = " and " if begun else ", ", True
        if of:
            yield Words(f"{link}centred {'across' if axis == 'x' else 'between the bottom and the top of'} "
                        f"{say.titles.get(of, spoken(of))}")  # fmt: skip
            continue
        yield Words(link)
        yield from _distance(step, axis, say)
    if step.anchor and not all(middles.values()):
        yield Words(f", {_by(step).strip()}")


def _by(step: ShapeStep) -> str:
    return f"by its {spoken(step.anchor)} " if step.anchor else ""


_ACROSS = {"x": {"left", "right"}, "y": {"bottom", "top"}}


def _middle(step: ShapeStep, axis: str, say: Say) -> str:
    """The step between whose two opposite edges a shape is centred, or ""."""
    ends = [getattr(step, f"{end}_{axis}") for end in ("from", "to")]
    if not all(one.startswith("edge:") for one in ends) or not say.zero(axis) or step.anchor not in ("", "centre"):
        return ""
    names = [one.removeprefix("edge:").rpartition(".") for one in ends]
    same = names[0][0] == names[1][0] and {names[0][2], names[1][2]} == _ACROSS[axis]
    return names[0][0] if same else ""


def _distance(step: ShapeStep, axis: str, say: Say) -> Iterator[Words]:
    of, to = getattr(step, f"from_{axis}"), getattr(step, f"to_{axis}")
    if not to:
        yield say(axis)
        yield Words(_from(axis, of, say.titles))
        return
    yield Words(f"halfway between {of_words(of, say.titles)} and {of_words(to, say.titles)}")
    if not say.zero(axis):
        yield Words(" plus ")
        yield say(axis)


def _from(axis: str, of: str, titles: Titles) -> str:
    if not of:
        return " from the left" if axis == "x" else " from the bottom"
    if of.startswith("edge:"):
        return f" from {of_words(of, titles)}"
    return f" to the right of {of_words(of, titles)}" if axis == "x" else f" above {of_words(of, titles)}"
