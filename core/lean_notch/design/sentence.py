"""A step as a sentence: the step in; out, words and the numbers among them, each with the path of what was typed.

"Cut a hole Ø 8 mm, 12 mm from the left and 20 mm from the bottom". A number is kept as typed; whoever shows it may show what
it comes to instead.
"""

from __future__ import annotations

from collections.abc import Iterator

from ..ground.wording import capital
from ..lengths.length import Length
from ..steps import Step
from ..steps.words import NO_TITLES, Say, Titles, Words
from .document import Design, Part


def sentence(step: Step, titles: Titles = NO_TITLES, *, first: bool = False) -> tuple[Words, ...]:
    """`step` in words; `titles` are those of other steps and parts by id, `first` says that the part starts from it."""
    found = list(_joined(step.said(Say(step, titles, first))))
    head = found[0]
    return (Words(capital(head.text), head.path, head.typed), *found[1:])


def titles_of(design: Design, part: Part) -> Titles:
    """What a part's steps and the design's parts are called in sentences."""
    return {one.id: one.title for one in design.parts} | {one.id: one.title for one in part.steps if one.title}


def plain(words: tuple[Words, ...]) -> str:
    """The sentence as one text, numbers as typed.

    >>> from ..lengths.length import Length
    >>> from ..steps import Disc, ShapeStep
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
