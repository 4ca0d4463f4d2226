"""What lies beside the machine, in words: a computed job and what was set before in, the text of a page out."""

from __future__ import annotations

from collections.abc import Sequence

from .basis.settings import CutSetting, say_setting, settings_for
from .cutting import estimate, say_time
from .formats.job_sheet import Table, write_job_sheet
from .geometry import Box
from .geometry.contour import spans
from .job import Result
from .operations import OPERATIONS
from .units import say_mm

SMALL_PART_MM = 20.0


def job_sheet(result: Result, settings: Sequence[CutSetting] = ()) -> str:
    """The page that lies beside the machine: what is cut of what, how often, and how long it takes; and what the machine
    was set to for such a board before, where `settings` know it."""
    basis, stock, machine = result.job.basis, result.job.basis.stock, result.job.basis.machine
    times = [estimate(sheet, machine.usual) for sheet in result.plan.sheets]
    by_part: dict[str, float] = {}
    for one in times:
        for part, seconds in one.by_part.items():
            by_part[part] = by_part.get(part, 0.0) + seconds
    about = [
        f"{stock.name}, sold as {say_mm(stock.nominal)}, measured {say_mm(stock.readings.mean, 2)} "
        f"({say_mm(stock.readings.thin, 2)} to {say_mm(stock.readings.thick, 2)})",
        f"{machine.name}, kerf {say_mm(basis.kerf)}; clearance {say_mm(basis.clearance)}",
        f"{len(result.plan.sheets)} of {say_mm(result.layout.area.width)} x {say_mm(result.layout.area.height)}; "
        f"about {say_time(sum(one.total for one in times))} in all"
        + ("" if machine.speeds else ", at the usual speeds of such a machine"),
    ]
    parts = Table(
        "Parts", ("part", "pieces", "size", "time"),
        [
            (part.title, str(part.quantity), _size(part.region.box), say_time(by_part.get(part.id, 0.0)))
            for part in result.build.parts
        ], frozenset({1, 3}),
    )  # fmt: skip
    work = Table(
        "Work, in this order", ("sheet", "operation", "paths", "length", "time"),
        [
            (
                str(sheet.number), OPERATIONS[operation],
                str(sum(path.operation == operation for path in sheet.paths)),
                say_mm(sum(path.length for path in sheet.paths if path.operation == operation), 0), say_time(seconds),
            )
            for sheet, time in zip(result.plan.sheets, times, strict=True)
            for operation, seconds in sorted(time.by_operation.items(), key=lambda one: result.profile.order.index(one[0]))
        ], frozenset({0, 2, 3, 4}),
    )  # fmt: skip
    was_set = Table(
        "What the machine was set to before", ("operation", "set to", "for", "came out", "on"),
        [
            (OPERATIONS[operation], say_setting(one), f"{one.stock}, {say_mm(one.thickness, 2)}", one.result, one.date[:10])
            for operation in result.profile.order
            if any(path.operation == operation for sheet in result.plan.sheets for path in sheet.paths)
            for one in settings_for(settings, stock, operation)[:1]
        ],
    )  # fmt: skip
    small = [part for part in result.build.parts if max(spans(part.region.box)) < SMALL_PART_MM]
    notes = [f"{part.title} is small: it may fall through the bed." for part in small]
    notes += [finding.why for finding in (*result.build.findings, *result.plan.findings)]
    notes.append("What is left of each sheet goes back on the rack, with its thickness written on it.")
    tables = (parts, work, was_set) if was_set.rows else (parts, work)
    return write_job_sheet(result.job.design.name, about, tables, result.plan.sheets, notes)


def _size(box: Box) -> str:
    width, height = spans(box)
    return f"{say_mm(width, 2)} x {say_mm(height, 2)}"
