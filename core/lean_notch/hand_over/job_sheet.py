"""What lies beside the machine: a computed job, what is known of its files and of the machine's settings in; a paper out."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from itertools import chain

from ..basis import BoardBasis
from ..basis.notebook import WAY_TITLES
from ..basis.settings import CutSetting, Settings, in_use, most_telling, not_used, say_setting, settings_for
from ..cutting import Estimate, SheetPlan, estimate, rests_on, say_time
from ..cutting.registering import turned_over
from ..design import BoardNeed
from ..formats.paper import Block, Checks, Heading, Label, Large, Lines, Paper, Table
from ..geometry import Box
from ..geometry.contour import spans
from ..ground.operations import OPERATIONS
from ..ground.wording import counted
from ..job import Job, Result
from ..lengths.in_another_unit import Reader
from ..lengths.said import say_within
from ..making.name_room import room_at
from .sheet_drawing import back_drawing, sheet_drawing

SMALL_PART_MM = 20.0

Log = Mapping[str, Sequence[CutSetting]]


@dataclass(frozen=True)
class Written:
    """What a page says of where it comes from: the maker, the revision, the day (an ISO date), what is known of the proof in
    words, and the files by sheet (0: of single parts), each with what its own proof said, as far as they are known."""

    maker: str = ""
    revision: int = 0
    date: str = ""
    proof: str = ""
    files: Mapping[int, Sequence[str]] = field(default_factory=dict)

    @property
    def foot(self) -> str:
        said = (f"revision {self.revision}" if self.revision else "", self.maker, self.date)
        return " · ".join(filter(None, said))


def job_sheet(
    result: Result,
    settings: Log = {},  # noqa: B006 - read only
    written: Written = Written(),
    reader: Reader = Reader(),  # noqa: B008 - never changed
) -> Paper:
    """The page that lies beside the machine: the sheets as they lie, what is cut of what, how often, how long it takes, and what
    each board's machine was set to for such a board when it came out well, where `settings` (by board) know it."""
    plan = result.plan
    used = {
        board: in_use(most_telling(settings.get(board, ()), one.stock, one.machine), one.stock, one.machine)
        for board, one in result.job.basis.boards
    }
    boards = {sheet.number: sheet.board for sheet in result.layout.sheets}
    times = {
        one.number: estimate(one, result.job.basis.of(board := boards[one.number]), used[board]) for one in plan.sheets
    }
    blocks: list[Block] = list(
        chain.from_iterable(_board(result, board, times, used[board.id], reader) for board in result.job.design.boards)
    )
    blocks.append(Lines(tuple(filter(None, (_in_all(result, times), written.proof)))))
    blocks += [
        Lines((f"On no sheet: {result.build.part(one.part).title} ×{one.count}. {one.error.why}",))
        for one in result.layout.left
    ]
    for sheet in plan.sheets:
        blocks += _sheet(result, sheet, written, reader)
    if of_parts := written.files.get(0, ()):
        blocks.append(Lines((f"Files of single parts: {', '.join(of_parts)}",)))
    blocks += [Heading("Parts"), _parts(result, times, reader)]
    blocks += [Heading("Work, in this order"), _work(result, times, reader)]
    blocks += _was_set(result, settings, reader)
    blocks += [Heading("Checklist"), Checks(tuple(_checks(result, reader)))]
    count = len(plan.sheets)
    about = f"job sheet, {counted(count, 'sheet')}"
    return Paper(
        result.job.design.name, about, tuple(said_by(reader, block) for block in blocks), reader.says(written.foot)
    )


def said_by(reader: Reader, block: Block) -> Block:
    """As whoever reads it writes numbers."""
    match block:
        case Lines() | Checks():
            return replace(block, texts=tuple(map(reader.says, block.texts)))
        case Large():
            return Large(reader.says(block.text), reader.says(block.about))
        case Table():
            rows = [tuple(reader.says(one) if isinstance(one, str) else one for one in row) for row in block.rows]
            return replace(block, rows=rows)
        case _:
            return block


def _board(
    result: Result, board: BoardNeed, times: Mapping[int, Estimate], used: Settings, reader: Reader
) -> Iterator[Block]:
    """The board and its thickness large; what it measures, the machine, its kerf and how sure that is."""
    basis, sheets = result.job.basis.of(board.id), result.layout.of_board(board.id)
    stock, machine = basis.stock, basis.machine
    lead = f"{board.title}: " if len(result.job.design.boards) > 1 else ""
    readings = stock.readings
    yield Large(
        f"{lead}{stock.name} {reader.length(readings.mean, 2)}",
        f"nominal {reader.length(stock.nominal)}, {counted(len(readings.values_mm), 'reading')}, "
        f"{reader.length(readings.thin, 2)} to {reader.length(readings.thick, 2)}",
    )
    tool = f", {machine.tool}" if machine.tool else ""
    lines = [
        f"{machine.name}{tool}, kerf {reader.length(basis.kerf)}{_how_sure(basis)}; clearance {reader.length(basis.clearance)}, {basis.fit}"
    ]
    if sheets:
        area = sheets[0].area
        seconds = say_time(sum(times[one.number].total for one in sheets))
        count = counted(len(sheets), "sheet")
        lines.append(
            f"{count}, {reader.length(area.width)} × {reader.length(area.height)}; about {seconds} {rests_on([(basis, used)])}"
        )
    shared = result.job.sheets_of(board.id)
    if shared != board.id:
        lines.append(f"Its parts lie on the sheets of {_title(result.job, shared)}: it is the same stock.")
    yield Lines(tuple(lines))


def _how_sure(basis: BoardBasis) -> str:
    found = basis.machine.found
    if found is None:
        return " (typed in, not measured)"
    return f" {say_within(found.within)} ({WAY_TITLES[found.way]} on {found.stock}, {found.date[:10]})"


def _in_all(result: Result, times: Mapping[int, Estimate]) -> str:
    sets = f", {result.job.sets} sets" if result.job.sets > 1 else ""
    count = len(times)
    return f"{counted(count, 'sheet')}{sets}; about {say_time(sum(one.total for one in times.values()))} in all"


def _sheet(result: Result, sheet: SheetPlan, written: Written, reader: Reader) -> Iterator[Block]:
    several = len(result.job.design.boards) > 1
    of = f" {sheet.number} of {len(result.plan.sheets)}" if len(result.plan.sheets) > 1 else ""
    yield Heading(f"Sheet{of}{f', {_boards_on(result, sheet.number)}' if several else ''}")
    files = written.files.get(sheet.number, ())
    yield Lines((f"File: {', '.join(files)}" if files else "No file of this revision was handed over yet.",))
    labels = _labels(result, sheet.number)
    if sheet.back:
        over = turned_over(sheet.width, sheet.height, sheet.turned_about)
        yield Lines((f"First its back, turned over about its {sheet.turned_about} edge:",))
        turned = tuple(replace(one, at=over.point(one.at), room=one.room and over.box(one.room)) for one in labels)
        yield replace(back_drawing(result, sheet.number, reader), labels=turned)
        yield Lines(("Then its front:",))
    yield replace(sheet_drawing(result, sheet.number, reader), labels=labels)


def _labels(result: Result, number: int) -> tuple[Label, ...]:
    titles = {part.id: part for part in result.build.parts}
    labels = []
    for placed in result.layout.on_sheet(number):
        part = titles[placed.part]
        left, low, right, high = part.box
        at = placed.motion.point(((left + right) / 2, (low + high) / 2))
        name = f"{part.title} {placed.copy}" if part.quantity > 1 else part.title
        labels.append(Label(name, at, room_at(part, placed.motion.angle, at)))
    return tuple(labels)


def _parts(result: Result, times: Mapping[int, Estimate], reader: Reader) -> Table:
    several = len(result.job.design.boards) > 1
    by_part: dict[str, float] = {}
    for one in times.values():
        for part, seconds in one.by_part.items():
            by_part[part] = by_part.get(part, 0.0) + seconds
    head = ("done", "pieces", "part", *(("board",) if several else ()), "size", "time")
    rows = [
        (part.quantity, str(part.quantity), part.title, *((_title(result.job, part.board),) if several else ()),
         _size(part.region.box, reader), say_time(by_part.get(part.id, 0.0)))
        for part in result.build.parts
    ]  # fmt: skip
    return Table(head, rows, frozenset({1, len(head) - 1}), ticks=0)


def _work(result: Result, times: Mapping[int, Estimate], reader: Reader) -> Table:
    several = len(result.job.design.boards) > 1
    rows = [
        (
            f"{sheet.number} {_boards_on(result, sheet.number)}" if several else str(sheet.number), OPERATIONS[operation],
            str(sum(path.operation == operation for path in sheet.work)),
            reader.length(sum(path.length for path in sheet.work if path.operation == operation), 0), say_time(seconds),
        )
        for sheet in result.plan.sheets
        for operation, seconds in sorted(
            times[sheet.number].by_operation.items(), key=lambda one: result.profile.order.index(one[0])
        )
    ]  # fmt: skip
    return Table(
        ("sheet", "operation", "paths", "length", "time"), rows, frozenset({2, 3, 4} if several else {0, 2, 3, 4})
    )


def _was_set(result: Result, settings: Log, reader: Reader) -> Iterator[Block]:
    """For each operation what came out well before; where nothing did, that; and what did not come out well since."""
    good: list[tuple[str, ...]] = []
    bad: list[tuple[str, ...]] = []
    missing: list[str] = []
    for board in result.job.design.boards:
        used = {
            path.operation for sheet in result.plan.sheets for path in sheet.work
            if result.layout.sheet(sheet.number).board == board.id
        }  # fmt: skip
        basis = result.job.basis.of(board.id)
        stock = basis.stock
        for operation in result.profile.order:
            if operation not in used or operation == "reference":
                continue
            known = settings_for(settings.get(board.id, ()), stock, operation, basis.machine.tool)
            clean = next((one for one in known if one.result == "clean"), None)
            if clean:
                good.append((*_setting(clean, reader), not_used(clean, stock, basis.machine) or "as it is"))
            else:
                missing.append(f"{operation} {stock.name}")
            since = [one for one in known if one.result != "clean" and (clean is None or one.date > clean.date)]
            bad += [_setting(one, reader) for one in since[:1]]
    head = ("operation", "set to", "for", "came out", "on")
    yield Heading("Settings that came out well")
    if good:
        yield Table((*head, "this job"), good)
    if missing:
        yield Lines((f"None is known to {', '.join(missing)}: try on a scrap first.",))
    if bad:
        yield Heading("Settings that did not")
        yield Table(head, bad)


def _setting(one: CutSetting, reader: Reader) -> tuple[str, ...]:
    return (
        OPERATIONS[one.operation],
        say_setting(one),
        f"{one.stock}, {reader.length(one.thickness, 2)}",
        one.result,
        one.date[:10],
    )


def _checks(result: Result, reader: Reader) -> Iterator[str]:
    """What to look at before it starts, and after."""
    for board in result.job.design.boards:
        basis = result.job.basis.of(board.id)
        readings = basis.stock.readings
        yield f"The board measures {reader.length(readings.thin, 2)} to {reader.length(readings.thick, 2)}: {basis.stock.name}"
        yield f"It lies flat, at the machine's {basis.machine.origin} corner, with nothing below it"
        if basis.machine.kind == "laser":
            yield "The lens is clean, the air assist and the exhaust are on"
        else:
            yield f"{basis.machine.tool or 'The tool'} is tight, the board is held down, the clamps are outside the paths"
    for sheet in result.plan.sheets:
        if sheet.back:
            yield (
                f"Sheet {sheet.number} first lies face down, turned over about its {sheet.turned_about} edge, and the file whose name "
                "says back is run while it is whole; then it is turned face up, to the same corner, and cut"
            )
    for part in result.build.parts:
        if max(spans(part.region.box)) < SMALL_PART_MM:
            yield f"{part.title} is small: it may fall through the bed"
    for finding in (*result.build.findings, *result.plan.findings):
        yield finding.why
    yield "What is left of each sheet is back on the rack, with its thickness written on it"


def _boards_on(result: Result, sheet: int) -> str:
    return " and ".join(_title(result.job, board) for board in result.boards_on(sheet))


def _title(job: Job, board: str) -> str:
    return next(one.title for one in job.design.boards if one.id == board)


def _size(box: Box, reader: Reader) -> str:
    width, height = spans(box)
    return f"{reader.length(width, 2)} × {reader.length(height, 2)}"
