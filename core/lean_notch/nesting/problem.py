"""What any engine is asked and must answer. In: pieces, a sheet's area, settings; out: a Layout."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..errors import OutOfRange
from ..geometry import Box, Placement, Region
from ..units import say_mm


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


@dataclass(frozen=True)
class LayoutSettings:
    """`margin` from the sheet's edge, `spacing` between finished outlines, both in mm."""

    margin: float = 4.0
    spacing: float = 1.5
    quarter_turns: bool = True

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
    placement: Placement


@dataclass(frozen=True)
class Layout:
    placed: tuple[Placed, ...]
    area: Area
    sheets: int

    def on_sheet(self, sheet: int) -> tuple[Placed, ...]:
        return tuple(placed for placed in self.placed if placed.sheet == sheet)
