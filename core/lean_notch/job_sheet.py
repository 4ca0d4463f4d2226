"""What lies beside the machine, in words: a computed job and what was set before in, the text of a page out."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from .basis.settings import CutSetting, say_setting, settings_for
from .cutting import Estimate, estimate, say_time
from .design import BoardNeed
from .formats.job_sheet import Table, write_job_sheet
from .geometry import Box
from .geometry.contour import spans
from .job import Job, Result
from .operations import OPERATIONS
from .reader import Reader
from .units import say_mm

SMALL_PART_MM = 20.0

Settings = Mapping[str, Sequence[CutSetting]]


def job_sheet(
    result: Result,
    settings: Settings = {},  # noqa: B006 - read only
    proof: str = "",
    reader: Reader = Reader(),  # noqa: B008 - never changed
) -> str:
    """The page that lies beside the machine: what is cut of what, how often, and how long it takes; and what each board's
    machine was set to for such a board before, where `settings` (by board) know it. `proof` is what is known of its proof,
    in words; lengths are written for `reader`."""
    job, plan = result.job, result.plan
    boards = {sheet.number: sheet.board for sheet in result.layout.sheets}
    times = {one.number: estimate(one, job.basis.of(boards[one.number]).machine.usual) for one in plan.sheets}
    by_part: dict[str, float] = {}
    for one in times.values():
        for part, seconds in one.by_part.items():
            by_part[part] = by_part.get(part, 0.0) + seconds
    several = len(job.design.boards) > 1
    about = [line for board in job.design.boards for line in _about(result, board, times)]
    about += [_in_all(result, times), *([proof] if proof else [])]
    parts = Table(
        "Parts", ("part", *(("board",) if several else ()), "pieces", "size", "time"),
        [
            (part.title, *((_title(job, part.board),) if several else ()), str(part.quantity), _size(part.region.box),
             say_time(by_part.get(part.id, 0.0)))
            for part in result.build.parts
        ], frozenset({1, 3} if not several else {2, 4}),
    )  # fmt: skip
    work = Table(
        "Work, in this order", ("sheet", "operation", "paths", "length", "time"),
        [
            (
                f"{sheet.number} {_title(job, boards[sheet.number])}" if several else str(sheet.number), OPERATIONS[operation],
                str(sum(path.operation == operation for path in sheet.paths)),
                say_mm(sum(path.length for path in sheet.paths if path.operation == operation), 0), say_time(seconds),
            )
            for sheet in plan.sheets
            for operation, seconds in sorted(
                times[sheet.number].by_operation.items(), key=lambda one: result.profile.order.index(one[0])
            )
        ], frozenset({2, 3, 4} if several else {0, 2, 3, 4}),
    )  # fmt: skip
    was_set = Table(
        "Previous settings",
        ("operation", "set to", "for", "came out", "on"),
        [row for board in job.design.boards for row in _was_set(result, board.id, settings.get(board.id, ()))],
    )
    small = [part for part in result.build.parts if max(spans(part.region.box)) < SMALL_PART_MM]
    notes = [f"{part.title} is small: it may fall through the bed." for part in small]
    notes += [finding.why for finding in (*result.build.findings, *plan.findings)]
    notes.append("Put what is left of each sheet back on the rack, with its thickness written on it.")
    tables = (parts, work, was_set) if was_set.rows else (parts, work)
    return write_job_sheet(
        job.design.name, [reader.says(line) for line in about], [_said(table, reader) for table in tables], plan.sheets,
        [reader.says(note) for note in notes],
    )  # fmt: skip


def _said(table: Table, reader: Reader) -> Table:
    return table._replace(rows=[tuple(map(reader.says, row)) for row in table.rows])


def _title(job: Job, board: str) -> str:
    return next(one.title for one in job.design.boards if one.id == board)


def _about(result: Result, board: BoardNeed, times: Mapping[int, Estimate]) -> list[str]:
    """The board, the machine, and how many sheets it takes."""
    basis, sheets = result.job.basis.of(board.id), result.layout.of_board(board.id)
    stock, machine = basis.stock, basis.machine
    lead = f"{board.title}: " if len(result.job.design.boards) > 1 else ""
    return [
        f"{lead}{stock.name}, nominal {say_mm(stock.nominal)}, measured {say_mm(stock.readings.mean, 2)} "
        f"({say_mm(stock.readings.thin, 2)} to {say_mm(stock.readings.thick, 2)})",
        f"{lead}{machine.name}, kerf {say_mm(basis.kerf)}; clearance {say_mm(basis.clearance)}",
        *(
            [
                f"{lead}{len(sheets)} sheet{'s' * (len(sheets) != 1)}, {say_mm(sheets[0].area.width)} × {say_mm(sheets[0].area.height)}; "
                f"about {say_time(sum(times[one.number].total for one in sheets))}"
                + ("" if machine.speeds else ", at default speeds for such a machine")
            ]
            if sheets
            else []
        ),
    ]


def _in_all(result: Result, times: Mapping[int, Estimate]) -> str:
    sets = f", {result.job.sets} sets" if result.job.sets > 1 else ""
    count = len(times)
    return f"{count} sheet{'s' * (count != 1)}{sets}; about {say_time(sum(one.total for one in times.values()))} in all"


def _was_set(result: Result, board: str, settings: Sequence[CutSetting]) -> list[tuple[str, ...]]:
    used = {
        path.operation for sheet in result.plan.sheets for path in sheet.paths
        if result.layout.sheet(sheet.number).board == board
    }  # fmt: skip
    return [
        (OPERATIONS[operation], say_setting(one), f"{one.stock}, {say_mm(one.thickness, 2)}", one.result, one.date[:10])
        for operation in result.profile.order
        if operation in used
        for one in settings_for(settings, result.job.basis.of(board).stock, operation)[:1]
    ]


def _size(box: Box) -> str:
    width, height = spans(box)
    return f"{say_mm(width, 2)} × {say_mm(height, 2)}"
