"""A sheet of a computed job for paper: its outline, the parts as they lie, what to keep clear of, and the machine's zero."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from itertools import islice

from ..cutting import CutPath
from ..cutting.registering import turned_over
from ..formats.paper import Axes, Drawing, Stroke
from ..geometry import Ring, Trace, rectangle
from ..job import Result
from ..lengths.in_another_unit import Reader
from ..lengths.units import MM_PER_INCH

MOST_MARKS = 400
"""Marks beyond this are left out of the drawing: a page shows no more."""


def back_drawing(result: Result, number: int, reader: Reader = Reader()) -> Drawing:  # noqa: B008 - never changed
    """The sheet as it lies once it is turned over, with what is done on that face."""
    plan = next(one for one in result.plan.sheets if one.number == number)
    front = sheet_drawing(result, number, reader)
    over = turned_over(plan.width, plan.height, plan.turned_about)
    parts = [
        Stroke("part", tuple(over.ring(ring) for ring in one.rings)) for one in front.strokes if one.kind == "part"
    ]
    others = [one for one in front.strokes if one.kind == "keep-out"]
    marks = _marks(plan.back)
    return replace(front, strokes=(*parts, *([Stroke("mark", marks)] if marks else []), *others))


def sheet_drawing(result: Result, number: int, reader: Reader = Reader()) -> Drawing:  # noqa: B008 - never changed
    sheet = result.layout.sheet(number)
    machine = result.job.basis.of(sheet.board).machine
    plan = next(one for one in result.plan.sheets if one.number == number)
    parts = [
        Stroke("part", tuple(one.motion.region(result.build.part(one.part).region).rings))
        for one in result.layout.on_sheet(number)
    ]
    marks = _marks(plan.paths)
    kept = tuple(rectangle(*one.box) for one in machine.keep_outs)
    width, height = sheet.area.width, sheet.area.height
    low, left = "lower" in machine.origin, "left" in machine.origin
    axes = Axes(
        (0.0 if left else width, 0.0 if low else height),
        1 if machine.x_axis == "right" else -1, 1 if machine.y_axis == "up" else -1,
    )  # fmt: skip
    strokes = (*parts, *([Stroke("mark", marks)] if marks else []), *([Stroke("keep-out", kept)] if kept else []))
    if reader.unit == "in":
        inches = 4 if width > 10 * MM_PER_INCH else 1
        return Drawing(width, height, strokes, (), axes, inches * MM_PER_INCH, f"{inches} in")
    bar = next((one for one in (100.0, 50.0, 20.0) if one < width), 10.0)
    return Drawing(width, height, strokes, (), axes, bar, f"{bar:g} mm")


def _marks(paths: Iterable[CutPath]) -> tuple[Ring, ...]:
    closed = (
        one.shape for one in paths if one.operation not in ("cut", "reference") and not isinstance(one.shape, Trace)
    )
    return tuple(islice(closed, MOST_MARKS))
