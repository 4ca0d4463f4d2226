"""A step as a sentence: the step in; out, words and the numbers among them, each with the path of what was typed.

"Cut a hole Ø 8 mm, 12 mm from the left and 20 mm from the bottom". A number is kept as typed; whoever shows it may show what
it comes to instead.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from ..ground.wording import capital
from ..lengths.length import Amount, Length
from .document import Design, Part
from .steps import (
    Annulus,
    Around,
    BendStep,
    CornerStep,
    Disc,
    Ellipse,
    Grid,
    GrowStep,
    Imported,
    Lettering,
    Line,
    MirrorStep,
    OtherPart,
    Outline,
    Pattern,
    Polygon,
    Rectangle,
    RepeatStep,
    ShapeStep,
    Slot,
    Spread,
    Step,
    TurnStep,
)


@dataclass(frozen=True)
class Words:
    """A stretch of a sentence: `text`, or the number at `path` of the step as it was typed."""

    text: str
    path: str = ""
    typed: Length | Amount | None = None


Titles = Mapping[str, str]
NO_TITLES: Titles = {}


def sentence(step: Step, titles: Titles = NO_TITLES, *, first: bool = False) -> tuple[Words, ...]:
    """`step` in words; `titles` are those of other steps and parts by id, `first` says that the part starts from it."""
    found = list(_joined(_step(step, titles, first)))
    head = found[0]
    return (Words(capital(head.text), head.path, head.typed), *found[1:])


def titles_of(design: Design, part: Part) -> Titles:
    """What a part's steps and the design's parts are called in sentences."""
    return {one.id: one.title for one in design.parts} | {one.id: one.title for one in part.steps if one.title}


def plain(words: tuple[Words, ...]) -> str:
    """The sentence as one text, numbers as typed.

    >>> from ..lengths.length import Length
    >>> plain(sentence(ShapeStep("hole", Disc(Length("8")), "cut", x=Length("12"), y=Length("width/2"))))
    'Cut a hole Ø 8 mm, 12 mm from the left and width/2 from the bottom'
    """
    return "".join(_typed(one) for one in words)


def _typed(one: Words) -> str:
    if one.typed is None:
        return one.text
    bare = one.typed.text.replace(".", "").replace(",", "").replace("/", "").replace(" ", "").lstrip("-").isdigit()
    return f"{one.typed.text} {one.typed.unit}" if bare and isinstance(one.typed, Length) else one.typed.text


def _joined(pieces: Iterator[Words]) -> Iterator[Words]:
    """Neighbouring words as one."""
    text = ""
    for one in pieces:
        if one.typed is None:
            text += one.text
            continue
        if text:
            yield Words(text)
            text = ""
        yield one
    if text:
        yield Words(text)


class _Numbers:
    """The numbers of a step, by their paths."""

    def __init__(self, step: Step) -> None:
        self._typed = dict(step.lengths)

    def __call__(self, path: str) -> Words:
        return Words("", path, self._typed[path])

    def zero(self, path: str) -> bool:
        return self._typed[path].text.strip() in ("0", "")


def _step(step: Step, titles: Titles, first: bool) -> Iterator[Words]:
    number = _Numbers(step)
    if isinstance(step, ShapeStep):
        yield from _shape_step(step, number, titles, first)
    elif isinstance(step, CornerStep):
        yield Words(f"{'Round' if step.shape == 'round' else 'Bevel'} {_corners(step, titles)} ")
        yield number("size")
    elif isinstance(step, MirrorStep):
        yield Words("Mirror all of it at a line through ")
        yield from _pair(number, "x", "y")
        yield Words(" at ")
        yield number("angle")
        yield Words("°" if step.keep else "°, and keep only the other half")
    elif isinstance(step, RepeatStep):
        yield Words("Repeat all of it")
        yield from _pattern(step.pattern, number, titles)
    elif isinstance(step, GrowStep):
        yield Words("Grow the outline by ")
        yield number("by")
    elif isinstance(step, TurnStep):
        yield from _turn(number)
    elif isinstance(step, BendStep):
        yield Words("Bend by ")
        yield number("angle")
        yield Words("° along a line from ")
        yield from _pair(number, "x", "y")
        yield Words(" to ")
        yield from _pair(number, "to_x", "to_y")


def _pair(number: _Numbers, x: str, y: str) -> Iterator[Words]:
    yield number(x)
    yield Words(", ")
    yield number(y)


def _corners(step: CornerStep, titles: Titles) -> str:
    if step.which != "named":
        return {"all": "all corners", "outer": "all outer corners", "inner": "all inner corners"}[step.which]
    if len(step.corners) == 1:
        return f"the {of_words(f'corner:{step.corners[0]}', titles).removeprefix('the ')}"
    return f"{len(step.corners)} corners"


def _turn(number: _Numbers) -> Iterator[Words]:
    yield Words("Turn all of it ")
    yield number("turn")
    yield Words("° about ")
    yield from _pair(number, "x", "y")
    if number("scale").typed != Amount("1"):
        yield Words(", scale it by ")
        yield number("scale")
    if not (number.zero("dx") and number.zero("dy")):
        yield Words(", and move it ")
        yield number("dx")
        yield Words(" to the right and ")
        yield number("dy")
        yield Words(" up")


_MARKS = {
    "score": "score", "engrave": "engrave", "pocket": "sink", "fold": "fold along", "reference": "draw for reference", "cut": "cut",
}  # fmt: skip


def _shape_step(step: ShapeStep, number: _Numbers, titles: Titles, first: bool) -> Iterator[Words]:
    verb = {"add": "start from" if first else "add", "cut": "cut", "keep": "keep what lies inside"}.get(step.does)
    yield Words(f"{verb or _MARKS[step.operation]} ")
    yield from _shape(step, number, titles)
    if step.does == "mark" and step.operation == "pocket":
        yield Words(" as a pocket ")
        if step.depth is not None:
            yield number("depth")
            yield Words(" deep")
        else:
            yield Words("without a depth")
    yield from _pattern(step.pattern, number, titles)
    if not (first and number.zero("x") and number.zero("y") and not step.from_x and not step.from_y):
        yield from _place(step, number, titles)
    if not number.zero("turn"):
        yield Words(", turned ")
        yield number("turn")
        yield Words("°")
    if number("scale").typed != Amount("1"):
        yield Words(", scaled by ")
        yield number("scale")
    if step.mirrored:
        yield Words(", mirrored")
    if step.face == "back":
        yield Words(", on the back")


def _shape(step: ShapeStep, number: _Numbers, titles: Titles) -> Iterator[Words]:
    shape = step.shape
    if isinstance(shape, Rectangle):
        yield Words("an opening " if step.does == "cut" else "a rectangle ")
        yield number("shape/width")
        yield Words(" × ")
        yield number("shape/height")
        if shape.radius is not None:
            yield Words(", corners rounded ")
            yield number("shape/radius")
    elif isinstance(shape, Disc):
        yield Words("a hole Ø " if step.does == "cut" else "a circle Ø ")
        yield number("shape/diameter")
    elif isinstance(shape, Ellipse):
        yield Words("an ellipse ")
        yield number("shape/width")
        yield Words(" × ")
        yield number("shape/height")
    elif isinstance(shape, Annulus):
        yield Words("a ring Ø ")
        yield number("shape/diameter")
        yield Words(" round a hole Ø ")
        yield number("shape/inside")
    elif isinstance(shape, Polygon):
        yield Words("a regular polygon of ")
        yield number("shape/sides")
        yield Words(" sides, ")
        yield number("shape/across")
        yield Words(f" across {shape.measured}")
    elif isinstance(shape, Slot):
        yield Words("a slot ")
        yield number("shape/length")
        yield Words(" × ")
        yield number("shape/width")
    elif isinstance(shape, Outline):
        yield Words(f"a free outline of {len(shape.nodes)} corners")
    elif isinstance(shape, Imported):
        yield Words("the outlines of a file")
    elif isinstance(shape, Lettering):
        yield Words(f"“{shape.text}” ")
        yield number("shape/height")
        yield Words(" high")
    elif isinstance(shape, Line):
        yield Words("a line to ")
        yield from _pair(number, "shape/to_x", "shape/to_y")
    elif isinstance(shape, OtherPart):
        yield Words(f"the outline of {titles.get(shape.part, shape.part)}")


def _pattern(pattern: Pattern | None, number: _Numbers, titles: Titles) -> Iterator[Words]:
    if isinstance(pattern, Grid):
        one = Amount("1")
        for count, apart, what in (("columns", "dx", "columns"), ("rows", "dy", "rows")):
            if number(f"pattern/{count}").typed != one:
                yield Words(", in ")
                yield number(f"pattern/{count}")
                yield Words(f" {what} ")
                yield number(f"pattern/{apart}")
                yield Words(" apart")
    elif isinstance(pattern, Around):
        yield Words(", ")
        yield number("pattern/count")
        yield Words(" times round ")
        yield from _pair(number, "pattern/x", "pattern/y")
    elif isinstance(pattern, Spread):
        yield Words(", ")
        yield number("pattern/count")
        way = "across" if pattern.along == "x" else "up"
        ends = [of_words(one, titles) for one in (pattern.start, pattern.end) if one]
        between = f" between {' and '.join(ends)}" if len(ends) == 2 else f" from {ends[0]}" if ends else f" {way}"
        yield Words(f" times, evenly{between}, equal {pattern.by}")


def _place(step: ShapeStep, number: _Numbers, titles: Titles) -> Iterator[Words]:
    """Both distances, the one along which copies are spread left out."""
    spread = step.pattern.along if isinstance(step.pattern, Spread) else ""
    middles = {axis: _middle(step, axis, number) for axis in ("x", "y") if axis != spread}
    both = set(middles.values())
    if len(middles) == 2 and len(both) == 1 and (of := both.pop()):
        yield Words(f", centred on {titles.get(of, _spoken(of))}")
        return
    points = {getattr(step, f"from_{axis}") for axis in middles}
    if len(middles) == 2 and len(points) == 1 and not step.to_x and not step.to_y:
        [of] = points
        if of and not of.startswith("edge:") and number.zero("x") and number.zero("y"):
            yield Words(f", {_by(step)}at {of_words(of, titles)}")
            return
    begun = False
    for axis, of in middles.items():
        link, begun = " and " if begun else ", ", True
        if of:
            yield Words(f"{link}centred {'across' if axis == 'x' else 'between the bottom and the top of'} "
                        f"{titles.get(of, _spoken(of))}")  # fmt: skip
            continue
        yield Words(link)
        yield from _distance(step, axis, number, titles)
    if step.anchor and not all(middles.values()):
        yield Words(f", {_by(step).strip()}")


def _by(step: ShapeStep) -> str:
    return f"by its {_spoken(step.anchor)} " if step.anchor else ""


_ACROSS = {"x": {"left", "right"}, "y": {"bottom", "top"}}


def _middle(step: ShapeStep, axis: str, number: _Numbers) -> str:
    """The step between whose two opposite edges a shape is centred, or ""."""
    ends = [getattr(step, f"{end}_{axis}") for end in ("from", "to")]
    if not all(one.startswith("edge:") for one in ends) or not number.zero(axis) or step.anchor not in ("", "centre"):
        return ""
    names = [one.removeprefix("edge:").rpartition(".") for one in ends]
    same = names[0][0] == names[1][0] and {names[0][2], names[1][2]} == _ACROSS[axis]
    return names[0][0] if same else ""


def _distance(step: ShapeStep, axis: str, number: _Numbers, titles: Titles) -> Iterator[Words]:
    of, to = getattr(step, f"from_{axis}"), getattr(step, f"to_{axis}")
    if not to:
        yield number(axis)
        yield Words(_from(axis, of, titles))
        return
    yield Words(f"halfway between {of_words(of, titles)} and {of_words(to, titles)}")
    if not number.zero(axis):
        yield Words(" plus ")
        yield number(axis)


def _from(axis: str, of: str, titles: Titles) -> str:
    if not of:
        return " from the left" if axis == "x" else " from the bottom"
    if of.startswith("edge:"):
        return f" from {of_words(of, titles)}"
    return f" to the right of {of_words(of, titles)}" if axis == "x" else f" above {of_words(of, titles)}"


def _spoken(name: str) -> str:
    return name.replace("-", " ").replace("_", " ").replace(".", " ")


def of_words(of: str, titles: Titles = NO_TITLES) -> str:
    """What a place is measured from, in words; `titles` are those of steps.

    >>> of_words("edge:blank.right"), of_words("centre:hole-1"), of_words("corner:blank.top-left", {"blank": "plate"})
    ('the right edge of blank', 'the centre of hole 1', 'the top left corner of plate')
    >>> of_words("middle:blank.top"), of_words("side:lamp.left"), of_words("")
    ('the middle of the top edge of blank', 'the left side of lamp', "the part's zero")
    """
    if not of:
        return "the part's zero"
    sort, _, name = of.partition(":")
    step, _, inner = (name, "", "") if sort == "centre" else name.rpartition(".")
    called = titles.get(step, _spoken(step))
    if sort == "centre":
        return f"the centre of {called}"
    what = {"edge": "edge", "corner": "corner", "middle": "edge", "side": "side"}.get(sort, sort)
    found = f"the {_spoken(inner)} {what} of {called}"
    return f"the middle of {found}" if sort == "middle" else found
