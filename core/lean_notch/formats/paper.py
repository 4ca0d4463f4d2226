"""What goes on paper, whatever writes it: headings, lines, tables, boxes to tick, and drawings to scale. Texts are as they are to be
read; lengths of drawings are mm, y up."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Literal

from ..geometry import Box, Point, Ring
from ..ground.errors import OutOfRange
from ..lengths.said import say_mm


@dataclass(frozen=True)
class Heading:
    text: str


@dataclass(frozen=True)
class Large:
    """What has to be read from a step away: a line, and a smaller one below it."""

    text: str
    about: str = ""


@dataclass(frozen=True)
class Lines:
    texts: tuple[str, ...]


@dataclass(frozen=True)
class Table:
    """`rows` under `head`; columns named in `numbers` are set to the right. A column of `ticks` holds how many boxes to draw."""

    head: tuple[str, ...]
    rows: Sequence[tuple[str | int, ...]]
    numbers: frozenset[int] = frozenset()
    ticks: int = -1


MOST_BOXES = 12
"""In one cell: beyond, one box and how many it is for."""


@dataclass(frozen=True)
class Checks:
    """Each with a box to tick."""

    texts: tuple[str, ...]


@dataclass(frozen=True)
class Stroke:
    """Outlines drawn alike: a part, a mark, what is to be kept clear of, or a place that wants a look."""

    kind: Literal["part", "mark", "keep-out", "off"]
    rings: tuple[Ring, ...]


@dataclass(frozen=True)
class Label:
    """`room` is where around `at` nothing else is drawn, as far as that is known."""

    text: str
    at: Point
    room: Box | None = None


@dataclass(frozen=True)
class Axes:
    """The machine's zero and the ways in which its axes run."""

    at: Point
    x: Literal[1, -1]
    y: Literal[1, -1]


@dataclass(frozen=True)
class Drawing:
    """A sheet as it lies: drawn at the largest round scale at which it fits, with a bar of `bar_mm` called `bar`."""

    width: float
    height: float
    strokes: tuple[Stroke, ...]
    labels: tuple[Label, ...] = ()
    axes: Axes | None = None
    bar_mm: float = 100.0
    bar: str = "100 mm"
    share: float = 0.42
    """Of a page's height that it may take."""


Block = Heading | Large | Lines | Table | Checks | Drawing


@dataclass(frozen=True)
class Paper:
    """`title` with `about` beside it on the first page, `foot` at the bottom of every page."""

    title: str
    about: str
    blocks: tuple[Block, ...] = field(default_factory=tuple)
    foot: str = ""


@dataclass(frozen=True)
class PageSize:
    """Of the paper itself, in mm."""

    width: float
    height: float

    def __post_init__(self) -> None:
        if not (LEAST_PAGE.width <= self.width <= 2000 and LEAST_PAGE.height <= self.height <= 2000):
            raise OutOfRange(
                f"A page of {say_mm(self.width)} × {say_mm(self.height)} has no room for this.",
                fix=f"Use one of at least {say_mm(LEAST_PAGE.width)} × {say_mm(LEAST_PAGE.height)}, A5 or larger.",
                field="paper",
            )


@dataclass(frozen=True)
class _Least:
    width: float = 140.0
    height: float = 190.0


LEAST_PAGE = _Least()

PAPERS: dict[str, PageSize] = {
    "A3": PageSize(297, 420), "A4": PageSize(210, 297), "A5": PageSize(148, 210), "Letter": PageSize(215.9, 279.4),
}  # fmt: skip
"""ISO 216; ANSI/ASME Y14.1."""

MARGIN_MM = 14.0

SCALES = (1.0, 2.0, 2.5, 4.0, 5.0, 7.5, 10.0, 15.0, 20.0, 25.0, 50.0, 100.0, 200.0)
"""A drawing is one part in so many of the real thing."""


def page_size(text: str) -> PageSize:
    """A page by its name, or as width × height in mm. Raises OutOfRange for one that is too small or is none.

    >>> page_size("A4"), page_size("200 x 250").width
    (PageSize(width=210, height=297), 200.0)
    """
    named = {name.lower(): size for name, size in PAPERS.items()}
    if text.lower() in named:
        return named[text.lower()]
    try:
        width, height = (float(one) for one in text.lower().replace("×", "x").split("x"))
        return PageSize(width, height)
    except ValueError:
        raise OutOfRange(
            f"“{text}” is no paper.", fix=f"Use {', '.join(PAPERS)}, or width × height in mm.", field="paper"
        ) from None


def scale_for(drawing: Drawing, size: PageSize) -> float:
    """The round scale at which a drawing is largest on its share of a page; one part in that many."""
    width, height = size.width - 2 * MARGIN_MM, drawing.share * size.height
    return next(
        (one for one in SCALES if drawing.width <= one * width and drawing.height <= one * height),
        max(drawing.width / width, drawing.height / height),
    )


TEXT_MM = 3.0
"""How high a name is on paper."""

_LETTER, _LINE = 0.58, 1.15
"""How wide a letter and how high a line is, in that."""


def names_on(drawing: Drawing, size: PageSize) -> tuple[list[Label], str]:
    """The labels where there is room for them, as they are drawn; where there is none a number, and what the numbers stand for."""
    high = TEXT_MM * scale_for(drawing, size)
    shown: list[Label] = []
    numbers: dict[str, int] = {}
    for label in drawing.labels:
        room = label.room
        if room is None:
            fits, at = len(label.text) <= _FEW, label.at
        else:
            wide, tall = room[2] - room[0], room[3] - room[1]
            fits = wide >= _LETTER * high * len(label.text) and tall >= _LINE * high
            at = ((room[0] + room[2]) / 2, (room[1] + room[3]) / 2)
        text = label.text if fits else str(numbers.setdefault(label.text, len(numbers) + 1))
        shown.append(Label(text, at))
    return shown, ", ".join(f"{number} {text}" for text, number in numbers.items())


_FEW = 3
"""Letters that may stand anywhere: numbers."""


def say_scale(scale: float) -> str:
    """
    >>> say_scale(2.5), say_scale(1)
    ('1 : 2.5', '1 : 1')
    """
    return f"1 : {scale:g}"
