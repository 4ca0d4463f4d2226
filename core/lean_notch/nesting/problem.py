"""What any engine is asked and must answer. In: pieces, a sheet's area, settings; out: a Layout."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from typing import Literal, get_args

from ..geometry import Box, Motion, Region
from ..ground.errors import NotchError, OutOfRange
from ..lengths.said import say_mm


@dataclass(frozen=True)
class Piece:
    """A part to be placed `quantity` times."""

    part: str
    title: str
    region: Region
    quantity: int = 1


@dataclass(frozen=True)
class Area:
    """The part of each sheet that can be cut in one go, in mm, and how many sheets there are (None: enough).

    No part may lie over one of `keep_outs`, nor nearer to it than the spacing.
    """

    width: float
    height: float
    sheets: int | None = None
    keep_outs: tuple[Box, ...] = ()


TurnedAbout = Literal["left", "bottom"]
TURNED_ABOUT: tuple[TurnedAbout, ...] = get_args(TurnedAbout)


@dataclass(frozen=True)
class LayoutSettings:
    """`margin` from the sheet's edge, `spacing` between finished outlines, both in mm. For work on the back the sheet is turned
    over about its edge `turned_about`."""

    margin: float = 4.0
    spacing: float = 1.5
    quarter_turns: bool = True
    turned_about: TurnedAbout = "left"

    def __post_init__(self) -> None:
        for name, value in (("margin", self.margin), ("spacing", self.spacing)):
            if not math.isfinite(value) or not 0 <= value <= 1000:
                raise OutOfRange(
                    f"The {name} is {say_mm(value)}.",
                    fix="Give 0 mm or more, and at most 1000 mm.",
                    field=name,
                )


@dataclass(frozen=True)
class Placed:
    """Copy number `copy` (from 1) of a part, on sheet number `sheet` (from 1)."""

    part: str
    copy: int
    sheet: int
    motion: Motion


@dataclass(frozen=True)
class Sheet:
    """One sheet that is used, of one board. `number` counts from 1 through all boards of the job."""

    number: int
    area: Area
    board: str = ""


@dataclass(frozen=True)
class Left:
    """Copies of a part that lie on no sheet, and why."""

    part: str
    count: int
    error: NotchError = field(compare=False)


@dataclass(frozen=True)
class Layout:
    """Where every copy lies, sheets of one board after those of another; `left` is what found no place."""

    placed: tuple[Placed, ...]
    sheets: tuple[Sheet, ...]
    left: tuple[Left, ...] = ()

    def on_sheet(self, sheet: int) -> tuple[Placed, ...]:
        return tuple(placed for placed in self.placed if placed.sheet == sheet)

    def sheet(self, number: int) -> Sheet:
        return self.sheets[number - 1]

    def of_board(self, board: str) -> tuple[Sheet, ...]:
        return tuple(sheet for sheet in self.sheets if sheet.board == board)

    @property
    def area(self) -> float:
        """Of all sheets together, in mm²."""
        return math.fsum(sheet.area.width * sheet.area.height for sheet in self.sheets)


def together(layouts: Sequence[tuple[str, Layout]]) -> Layout:
    """The layouts of several boards, named, as one."""
    placed: list[Placed] = []
    sheets: list[Sheet] = []
    left: list[Left] = []
    for board, layout in layouts:
        before = len(sheets)
        placed += [replace(one, sheet=one.sheet + before) for one in layout.placed]
        sheets += [Sheet(one.number + before, one.area, board) for one in layout.sheets]
        left += layout.left
    return Layout(tuple(placed), tuple(sheets), tuple(left))
