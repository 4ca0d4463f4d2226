"""A plain engine: bounding boxes set down one after the other where they lie lowest, on a skyline per sheet.

It is quick and always valid. A better one answers the same question.
"""

from __future__ import annotations

from bisect import bisect_right
from collections import Counter
from collections.abc import Callable, Iterator, Sequence
from typing import NamedTuple

from ..geometry import Box, Motion
from ..ground.errors import PartTooLarge, SheetsRunOut
from ..lengths.said import say_mm
from .problem import Area, Layout, LayoutSettings, Left, Piece, Placed, Sheet

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
    """Every copy of every piece on as few sheets as this engine finds, then as low as it finds. What fits no sheet is left over,
    as PartTooLarge with the part's id as its field; what the sheets at hand have no room for as SheetsRunOut."""
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
    boxes: list[_Box] = []
    left: list[Left] = []
    for piece in pieces:
        error = _too_large(piece, usable, area, settings)
        if error:
            left.append(Left(piece.part, piece.quantity, error))
        else:
            boxes += _boxes(piece, settings)
    needed, _, spots = _best_fill(tuple(boxes), usable, settings)
    sheets = needed if area.sheets is None else min(needed, area.sheets)
    left += _run_out([box for box, number, _ in spots if number > sheets], needed, area)
    placed = [
        Placed(box.piece.part, box.copy, number, _placement(box, spot, settings.margin))
        for box, number, spot in spots
        if number <= sheets
    ]
    ordered = sorted(placed, key=lambda p: (p.sheet, p.part, p.copy))
    return Layout(tuple(ordered), tuple(Sheet(number, area) for number in range(1, sheets + 1)), tuple(left))


def _run_out(boxes: Sequence[_Box], needed: int, area: Area) -> Iterator[Left]:
    error = SheetsRunOut(
        f"The parts need {needed} sheets of {say_mm(area.width)} × {say_mm(area.height)}; {area.sheets} are at hand.",
        fix="Add sheets to the stock, use larger ones, or lower the quantities.",
        field="sheets",
    )
    for part, count in Counter(box.piece.part for box in boxes).items():
        yield Left(part, count, error)


def _best_fill(boxes: Sequence[_Box], usable: Area, settings: LayoutSettings) -> _Filled:
    """By the order that needs the fewest sheets, then the least of the last one."""
    best: _Filled | None = None
    for order in _ORDERS:
        filled = _fill(sorted(boxes, key=order), usable, settings, best[0] if best else None)
        if filled and (best is None or filled[:2] < best[:2]):
            best = filled
    assert best, "the first order is always gone through"
    return best


def _boxes(piece: Piece, settings: LayoutSettings) -> list[_Box]:
    left, low, right, high = piece.region.box
    width, height = right - left + settings.spacing, high - low + settings.spacing
    return [_Box(piece, copy, width, height) for copy in range(1, piece.quantity + 1)]


def _too_large(piece: Piece, usable: Area, area: Area, settings: LayoutSettings) -> PartTooLarge | None:
    """Why a piece lies on no sheet; None where it does."""
    left, low, right, high = piece.region.box
    width, height = right - left + settings.spacing, high - low + settings.spacing
    empty = [_Step(0.0, 0.0)]
    if _lowest(empty, _Box(piece, 1, width, height), usable, settings.quarter_turns):
        return None
    ways = ((width, height), (height, width)) if settings.quarter_turns else ((width, height),)
    clear = any(w <= usable.width + _ROUNDING_MM and h <= usable.height + _ROUNDING_MM for w, h in ways)
    return PartTooLarge(
        f"{piece.title} is {say_mm(right - left)} × {say_mm(high - low)}; a sheet on this bed leaves "
        f"{say_mm(max(area.width - 2 * settings.margin, 0))} × {say_mm(max(area.height - 2 * settings.margin, 0))}"
        + (", less what must be kept clear." if clear else "."),
        fix="Make the part smaller, use a larger sheet and bed, or a smaller margin."
        if not clear
        else "Move what the bed must be kept clear of, make the part smaller, or use a larger sheet and bed.",
        field=piece.part,
    )


_Filled = tuple[int, float, list[tuple[_Box, int, _Spot]]]
"""Sheets used, height used on the last one, and where everything lies, on which sheet."""


def _fill(boxes: Sequence[_Box], usable: Area, settings: LayoutSettings, most: int | None) -> _Filled | None:
    """None as soon as it takes more than `most` sheets."""
    skylines: list[list[_Step]] = []
    tops: list[float] = []
    placed = []
    # By size of box, the first sheet that may have room for it: a skyline only rises, so one that had none never will.
    first: dict[tuple[float, float], int] = {}
    for box in boxes:
        size, spot = (box.width, box.height), None
        number = first.get(size, 0)
        while number < len(skylines):
            spot = _lowest(skylines[number], box, usable, settings.quarter_turns)
            if spot:
                break
            number += 1
        first[size] = number
        if spot is None:
            if most is not None and len(skylines) >= most:
                return None
            skylines.append([_Step(0.0, 0.0)])
            tops.append(0.0)
            spot = _lowest(skylines[number], box, usable, settings.quarter_turns)
            assert spot, "a box that fits an empty sheet fits an empty sheet"
        width = box.height if spot.turned else box.width
        skylines[number] = _raised(skylines[number], spot, width)
        tops[number] = max(tops[number], spot.top)
        placed.append((box, number + 1, spot))
    return len(skylines), tops[-1] if tops else 0.0, placed


def _lowest(skyline: list[_Step], box: _Box, usable: Area, turns: bool) -> _Spot | None:
    """The lowest spot, of several the leftmost, lying as it is rather than turned."""
    xs, ys = [step[0] for step in skyline], [step[1] for step in skyline]
    starts = list(enumerate(xs))
    if usable.keep_outs:
        starts += [(bisect_right(xs, right) - 1, right) for _, _, right, _ in usable.keep_outs if right > 0]
        starts.sort(key=lambda start: start[1])
    best: tuple[float, float, float, bool] | None = None
    count = len(xs)
    for turned in (False, True) if turns else (False,):
        width, height = (box.height, box.width) if turned else (box.width, box.height)
        furthest = usable.width + _ROUNDING_MM - width
        highest = usable.height + _ROUNDING_MM
        top = best[0] if best else highest
        for first, x in starts:
            if x > furthest:
                break
            y = ys[first]
            # A skyline only rises from here on: what is too high already is not looked at further.
            if y + height > top:
                continue
            right, after = x + width - _ROUNDING_MM, first + 1
            while after < count and xs[after] < right:
                if ys[after] > y:
                    y = ys[after]
                after += 1
            if usable.keep_outs:
                y = _clear_of(usable.keep_outs, x, x + width, y, height)
            if y + height <= highest:
                spot = (y + height, x, y, turned)
                if best is None or spot < best:
                    best, top = spot, min(top, spot[0])
    return _Spot(*best) if best else None


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
