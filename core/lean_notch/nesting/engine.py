"""A plain engine: bounding boxes set down one after the other where they lie lowest, on a skyline per sheet.

It is quick and always valid. A better one answers the same question.
"""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Callable, Sequence
from itertools import islice
from typing import NamedTuple

from ..errors import PartTooLarge, SheetsRunOut
from ..geometry import Box, Motion
from ..units import say_mm
from .problem import Area, Layout, LayoutSettings, Piece, Placed, Sheet

_ROUNDING_MM = 1e-9


class _Box(NamedTuple):
    piece: Piece
    copy: int
    width: float
    height: float


class _Step(NamedTuple):
    """The skyline is `y` high from `x` to the next step."""

    x: float
    y: float


class _Spot(NamedTuple):
    top: float
    x: float
    y: float
    turned: bool


_ORDERS: tuple[Callable[[_Box], float], ...] = (
    lambda box: -max(box.width, box.height),
    lambda box: -box.width * box.height,
    lambda box: -box.height,
    lambda box: -box.width,
)


def lay_out(pieces: Sequence[Piece], area: Area, settings: LayoutSettings) -> Layout:
    """Every copy of every piece on as few sheets as this engine finds, then as low as it finds.

    Raises PartTooLarge, with the part's id as its field, if one piece does not fit a sheet, and SheetsRunOut if
    there are too few sheets.
    """
    # Each box carries one spacing at its right and upper edge, and so may the usable area.
    usable = Area(
        area.width - 2 * settings.margin + settings.spacing,
        area.height - 2 * settings.margin + settings.spacing,
        area.sheets,
        tuple(
            (left - settings.margin, low - settings.margin,
             right - settings.margin + settings.spacing, high - settings.margin + settings.spacing)
            for left, low, right, high in area.keep_outs
        ),
    )  # fmt: skip
    boxes = [box for piece in pieces for box in _boxes(piece, usable, area, settings)]
    attempts = [_fill(sorted(boxes, key=order), usable, settings) for order in _ORDERS]
    sheets, _, placed = min(attempts, key=lambda attempt: attempt[:2])
    if area.sheets is not None and sheets > area.sheets:
        raise SheetsRunOut(
            f"The parts need {sheets} sheets of {say_mm(area.width)} x {say_mm(area.height)}; {area.sheets} are at hand.",
            fix="Add sheets to the stock, use larger ones, or lower the quantities.",
            field="sheets",
        )
    ordered = sorted(placed, key=lambda p: (p.sheet, p.part, p.copy))
    return Layout(tuple(ordered), tuple(Sheet(number, area) for number in range(1, sheets + 1)))


def _boxes(piece: Piece, usable: Area, area: Area, settings: LayoutSettings) -> list[_Box]:
    left, low, right, high = piece.region.box
    width, height = right - left + settings.spacing, high - low + settings.spacing
    ways = ((width, height), (height, width)) if settings.quarter_turns else ((width, height),)
    empty = [_Step(0.0, 0.0)]
    if _lowest(empty, _Box(piece, 1, width, height), usable, settings.quarter_turns) is None:
        clear = any(w <= usable.width + _ROUNDING_MM and h <= usable.height + _ROUNDING_MM for w, h in ways)
        raise PartTooLarge(
            f"{piece.title} is {say_mm(right - left)} x {say_mm(high - low)}; a sheet on this bed leaves "
            f"{say_mm(max(area.width - 2 * settings.margin, 0))} x {say_mm(max(area.height - 2 * settings.margin, 0))}"
            + (", less what must be kept clear." if clear else "."),
            fix="Make the part smaller, use a larger sheet and bed, or a smaller margin."
            if not clear
            else "Move what the bed must be kept clear of, make the part smaller, or use a larger sheet and bed.",
            field=piece.part,
        )
    return [_Box(piece, copy, width, height) for copy in range(1, piece.quantity + 1)]


def _fill(boxes: Sequence[_Box], usable: Area, settings: LayoutSettings) -> tuple[int, float, list[Placed]]:
    """Sheets used, height used on the last one, and where everything lies."""
    skylines: list[list[_Step]] = []
    tops: list[float] = []
    placed = []
    for box in boxes:
        spots = (_lowest(skyline, box, usable, settings.quarter_turns) for skyline in skylines)
        number, spot = next(((n, spot) for n, spot in enumerate(spots) if spot), (len(skylines), None))
        if spot is None:
            skylines.append([_Step(0.0, 0.0)])
            tops.append(0.0)
            spot = _lowest(skylines[number], box, usable, settings.quarter_turns)
            assert spot, "a box that fits an empty sheet fits an empty sheet"
        width = box.height if spot.turned else box.width
        skylines[number] = _raised(skylines[number], spot, width)
        tops[number] = max(tops[number], spot.top)
        placed.append(Placed(box.piece.part, box.copy, number + 1, _placement(box, spot, settings.margin)))
    return len(skylines), tops[-1] if tops else 0.0, placed


def _lowest(skyline: list[_Step], box: _Box, usable: Area, turns: bool) -> _Spot | None:
    best: _Spot | None = None
    starts = [(step.x, first) for first, step in enumerate(skyline)]
    for _, _, right, _ in usable.keep_outs:
        if right > 0:
            starts.append((right, bisect_right(skyline, right, key=lambda step: step.x) - 1))
    if usable.keep_outs:
        starts.sort()
    for turned in (False, True) if turns else (False,):
        width, height = (box.height, box.width) if turned else (box.width, box.height)
        highest = usable.height + _ROUNDING_MM
        for x, first in starts:
            right = x + width
            if right > usable.width + _ROUNDING_MM:
                break
            y = skyline[first].y
            # A skyline only rises from here on: what is too high already is not looked at further.
            if y + height > (best.top if best else highest):
                continue
            for after in islice(skyline, first + 1, None):
                if after.x >= right - _ROUNDING_MM:
                    break
                y = max(y, after.y)
            if usable.keep_outs:
                y = _clear_of(usable.keep_outs, x, right, y, height)
            if y + height <= highest:
                spot = _Spot(y + height, x, y, turned)
                best = spot if best is None else min(best, spot)
    return best


def _clear_of(keep_outs: Sequence[Box], left: float, right: float, y: float, height: float) -> float:
    """The lowest place from `y` on where a box between `left` and `right` touches none of `keep_outs`."""
    for a, b, c, d in sorted(keep_outs, key=lambda box: box[3]):
        if a < right - _ROUNDING_MM and c > left + _ROUNDING_MM and b < y + height - _ROUNDING_MM and d > y:
            y = d
    return y


def _raised(skyline: list[_Step], spot: _Spot, width: float) -> list[_Step]:
    right = spot.x + width
    before = [step for step in skyline if step.x < spot.x]
    covered = [step for step in skyline if spot.x <= step.x < right - _ROUNDING_MM]
    after = [step for step in skyline if step.x >= right - _ROUNDING_MM]
    under = (covered or before)[-1].y
    beyond = [] if after and after[0].x <= right + _ROUNDING_MM else [_Step(right, under)]
    return [*before, _Step(spot.x, spot.top), *beyond, *after]


def _placement(box: _Box, spot: _Spot, margin: float) -> Motion:
    left, low, _, high = box.piece.region.box
    if spot.turned:  # a quarter turn counter-clockwise takes (x, y) to (-y, x)
        return Motion(spot.x + margin + high, spot.y + margin - left, 90.0)
    return Motion(spot.x + margin - left, spot.y + margin - low, 0.0)
