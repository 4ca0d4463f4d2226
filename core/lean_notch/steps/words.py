"""What sentences of steps are made of: words, and the numbers among them, each with the path of what was typed."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from ..documents.as_typed import Typed
from ..lengths.length import Amount, Length


@dataclass(frozen=True)
class Words:
    """A stretch of a sentence: `text`, or the number at `path` of the step as it was typed."""

    text: str
    path: str = ""
    typed: Length | Amount | None = None


Titles = Mapping[str, str]
"""What other steps and parts are called, by id."""

NO_TITLES: Titles = {}


class Say:
    """What a sentence is made with: the numbers of a step by their paths, what other steps and parts are called, and whether the
    part starts from it."""

    def __init__(self, step: Typed, titles: Titles, first: bool) -> None:
        self._typed = dict(step.lengths)
        self.titles, self.first = titles, first

    def __call__(self, path: str) -> Words:
        return Words("", path, self._typed[path])

    def zero(self, path: str) -> bool:
        return self._typed[path].text.strip() in ("0", "")


def pair(say: Say, x: str, y: str, between: str = ", ") -> Iterator[Words]:
    yield say(x)
    yield Words(between)
    yield say(y)


def spoken(name: str) -> str:
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
    called = titles.get(step, spoken(step))
    if sort == "centre":
        return f"the centre of {called}"
    what = {"edge": "edge", "corner": "corner", "middle": "edge", "side": "side"}.get(sort, sort)
    found = f"the {spoken(inner)} {what} of {called}"
    return f"the middle of {found}" if sort == "middle" else found
