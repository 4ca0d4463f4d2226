"""A whole job: design + basis + layout settings in; build, layout and cut plan out."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict, dataclass, replace
from functools import cached_property
from typing import Any, cast

from ..basis import Basis, BoardBasis, basis_from_json, basis_to_json
from ..cutting import PLAIN, CutPlan, Profile, cut_lengths, plan_cut, room_to_cut, segments_of
from ..design import Design, Rectangle, ShapeStep, design_from_json, design_to_json
from ..design_rules.board_and_tool import design_limits
from ..documents.plain import choice, entry, flag, mapping, mm, whole
from ..ground.elsewhere import about_to_take
from ..ground.errors import BadDocument, NotchError, PartTooLarge
from ..ground.findings import Finding
from ..ground.limits import MOST_SETS
from ..ground.remembered import Remembered, remembered
from ..making import Build, FlatPart, Outlines, build, no_files
from ..nesting import Area, Layout, LayoutSettings, Left, Piece, lay_out, together
from ..nesting.problem import TURNED_ABOUT, TurnedAbout


@dataclass(frozen=True)
class ChosenLayout:
    """What was chosen of a board's layout; None is what is usual for its machine and tool."""

    margin: float | None = None
    spacing: float | None = None
    quarter_turns: bool = True
    turned_about: TurnedAbout = "left"

    def over(self, usual: LayoutSettings) -> LayoutSettings:
        """Raises OutOfRange at "margin" or "spacing"."""
        return LayoutSettings(
            usual.margin if self.margin is None else self.margin,
            usual.spacing if self.spacing is None else self.spacing,
            self.quarter_turns, self.turned_about,
        )  # fmt: skip


USUAL = ChosenLayout()


@dataclass(frozen=True)
class Job:
    """All that is decided and measured; everything else is computed from it.

    `layouts` are the settings of boards, by id; a board without any has the usual ones. The job makes `sets` of it.
    """

    design: Design
    basis: Basis
    layouts: tuple[tuple[str, ChosenLayout], ...] = ()
    sets: int = 1

    def sheets_of(self, board: str) -> str:
        """The board on whose sheets another one's parts lie: the first that is the same stock on the same machine."""
        own = self.basis.of(board)
        return next(
            one.id for one in self.design.boards if one.id == board or _is_one_stock(self.basis.of(one.id), own)
        )

    def chosen(self, board: str) -> ChosenLayout:
        """Of the sheets on which a board's parts lie."""
        return dict(self.layouts).get(self.sheets_of(board), USUAL)

    def settings(self, board: str) -> LayoutSettings:
        """What counts: as chosen, else as usual."""
        return self.chosen(board).over(usual_settings(self.basis.of(board)))

    @property
    def kerfs(self) -> dict[str, float]:
        """What the beam or tool takes, by board."""
        return {board.id: self.basis.of(board.id).kerf for board in self.design.boards}

    @property
    def all_settings(self) -> dict[str, LayoutSettings]:
        return {board.id: self.settings(board.id) for board in self.design.boards}


def _is_one_stock(one: BoardBasis, other: BoardBasis) -> bool:
    return one.stock == other.stock and one.machine == other.machine


def usual_settings(basis: BoardBasis) -> LayoutSettings:
    """Spacing and margin with which the machine's tool has room: on a router neighbours' cuts leave a web that holds."""
    usual = LayoutSettings()
    if basis.machine.kind == "laser":
        return usual
    return LayoutSettings(
        margin=max(usual.margin, basis.kerf), spacing=max(usual.spacing, 2 * basis.kerf + ROUTER_WEB_MM)
    )


ROUTER_WEB_MM = 2.0
"""What stands between two cuts of a router has to hold the waste, and what it is cut from. Common practice."""


@dataclass(frozen=True)
class Result:
    """What a job is. Its `plan`, for the receiver that `profile` describes, is made when it is asked for: most edits
    are followed by the next one before anybody cuts. Quantities in `build` are those of all sets."""

    job: Job
    build: Build
    layout: Layout
    profile: Profile = PLAIN

    @cached_property
    def plan(self) -> CutPlan:
        job = self.job
        about_to_take(segments_of(self.build) * PLAN_S)
        return plan_cut(job.design.name, self.build, self.layout, job.all_settings, job.kerfs, self.profile)

    @cached_property
    def limits(self) -> tuple[Finding, ...]:
        """What the boards and the tools ask of the design."""
        return design_limits(self.job.design, self.build, dict(self.job.basis.boards))

    @property
    def cut_lengths(self) -> tuple[float, ...]:
        """Of each sheet, in mm: all that is cut through."""
        return cut_lengths(self.build, self.layout, self.job.kerfs)

    def boards_on(self, sheet: int) -> tuple[str, ...]:
        """The boards whose parts lie on a sheet, in the order of the design."""
        there = {self.build.part(one.part).board for one in self.layout.on_sheet(sheet)}
        return tuple(board.id for board in self.job.design.boards if board.id in there)

    def used(self, sheet: int) -> float:
        """How much of a sheet its parts take, in mm²."""
        return sum(self.build.part(one.part).region.area for one in self.layout.on_sheet(sheet))


def compute(job: Job, profile: Profile = PLAIN, outlines: Outlines = no_files) -> Result:
    """Build and lay out. What lies on no sheet, and where the beam has no room to cut, are findings. Raises NotchError at the path of
    what to mend."""
    built = build(job.design, job.basis, outlines)
    if job.sets > 1:
        built = replace(built, parts=tuple([_of_sets(part, job.sets) for part in built.parts]))
    layout = place(job, built)
    boards = dict.fromkeys(job.sheets_of(part.board) for part in built.parts)
    settings = {board: (job.settings(board), usual_settings(job.basis.of(board))) for board in boards}
    found = (*map(_without_place, layout.left), *room_to_cut(built, settings, job.kerfs))
    return Result(job, replace(built, findings=(*built.findings, *found)) if found else built, layout, profile)


def _without_place(left: Left) -> Finding:
    error = left.error
    return Finding(error.code, "stop", error.why, error.fix, part=left.part, amount=left.count, field=error.field)


def refuse_without_place(result: Result) -> None:
    """Raises PartTooLarge or SheetsRunOut, at the path of what to mend, where something lies on no sheet."""
    for one in result.layout.left:
        raise one.error


@remembered(1024)
def _of_sets(part: FlatPart, sets: int) -> FlatPart:
    """The same part for the same one of a set, so that what follows from it is known too."""
    return replace(part, quantity=part.quantity * sets)


def place(job: Job, built: Build) -> Layout:
    """The build's parts on their boards' sheets; boards that are one stock on one machine share them."""
    layouts = []
    sheets_of = {board.id: job.sheets_of(board.id) for board in job.design.boards}
    for board in dict.fromkeys(sheets_of.values()):
        pieces = [Piece(p.id, p.title, p.region, p.quantity) for p in built.parts if sheets_of[p.board] == board]
        if pieces:
            layouts.append((board, _place(job, built, board, pieces)))
    return together(layouts)


def _place(job: Job, built: Build, board: str, pieces: list[Piece]) -> Layout:
    basis = job.basis.of(board)
    width, height = basis.sheet_area
    area = Area(width, height, basis.stock.sheets, tuple(one.box for one in basis.machine.keep_outs))
    settings = job.settings(board)
    # Only boxes count, and names and quantities: where those are the same, everything lies where it did.
    given = (
        tuple([(piece.part, piece.title, piece.region.box, piece.quantity) for piece in pieces]),
        (width, height, area.sheets, area.keep_outs), (settings.margin, settings.spacing, settings.quarter_turns),
    )  # fmt: skip

    def laid() -> Layout:
        about_to_take(sum(piece.quantity for piece in pieces) * _BOX_S)
        return lay_out(pieces, area, settings)

    layout = _LAYOUTS(given, laid, board)
    if not layout.left:
        return layout
    return replace(layout, left=tuple(replace(one, error=_in_job(one, job, built, board)) for one in layout.left))


def _in_job(left: Left, job: Job, built: Build, board: str) -> NotchError:
    """The same at the path in the job of what to mend: a part's longer size as it was typed, or the stock's sheets."""
    field = (
        _size_of(job, built.part(left.part))
        if isinstance(left.error, PartTooLarge)
        else f"basis/{board}/{left.error.field}"
    )
    return type(left.error)(left.error.why, fix=left.error.fix, field=field)


def _size_of(job: Job, part: FlatPart) -> str:
    """The path of the longer size of a part: what it goes back to, where it follows others."""
    longer, steps = 0 if part.size[0] >= part.size[1] else 1, f"parts/{part.id}/steps"
    if part.typed is None:
        return steps
    designed = job.design.part(part.id)
    first = next((one for one in designed.steps if isinstance(one, ShapeStep)), None) if designed else None
    own = (
        f"{steps}/{first.id}/shape/{('width', 'height')[longer]}"
        if first and isinstance(first.shape, Rectangle)
        else steps
    )
    return job.design.input_behind(part.typed[longer]) or own


_LAYOUTS: Remembered[Layout] = Remembered(64, shared="layout")
PLAN_S = 2e-5
"""Of processor time for a line or an arc, roughly."""

_BOX_S = 1e-4
"""Of processor time for a box in each of the engine's orders, roughly."""

VERSION = 2


def settings_from_json(document: object, path: str = "layout") -> ChosenLayout:
    """What was chosen of a board's layout; a margin or a spacing that is empty is as usual. Raises NotchError at the field."""
    settings = mapping(document, path)
    try:
        chosen = ChosenLayout(
            _length(settings.get("margin"), "margin"),
            _length(settings.get("spacing"), "spacing"),
            flag(settings.get("quarter_turns", USUAL.quarter_turns), "quarter_turns"),
            cast(TurnedAbout, choice(settings.get("turned_about", USUAL.turned_about), TURNED_ABOUT, "turned_about")),
        )
        chosen.over(LayoutSettings())
    except NotchError as error:
        error.field = f"{path}/{error.field}"
        raise
    return chosen


def _length(value: object, name: str) -> float | None:
    typed = value.get("text") if isinstance(value, Mapping) else value
    return None if typed is None or (isinstance(typed, str) and not typed.strip()) else mm(value, name)


def job_from_json(document: object) -> Job:
    """A Job from its document of either version. Raises NotchError at the path of the entry that is wrong."""
    top = mapping(document, "job")
    version = top.get("lean_notch_job", 1)
    if version not in (1, VERSION) or isinstance(version, bool):
        raise BadDocument(
            f"The document is not a Lean Notch job of version {VERSION} or older.",
            fix="Open it in the version that wrote it.", field="lean_notch_job",
        )  # fmt: skip
    design = design_from_json(entry(top, "design"))
    boards = tuple(board.id for board in design.boards)
    basis = basis_from_json(entry(top, "basis"), boards)
    layout = mapping(top.get("layout", {}), "layout")
    if version == 1:
        # Version 1 took a setting that is not there as usual for a laser.
        return Job(design, basis, ((boards[0], settings_from_json(layout, f"layout/{boards[0]}")),))
    layouts = tuple((name, settings_from_json(one, f"layout/{name}")) for name, one in layout.items())
    return Job(design, basis, layouts, whole(top.get("sets", 1), "sets", 1, MOST_SETS))


def job_to_json(job: Job) -> dict[str, Any]:
    """The document that `job_from_json` reads."""
    return {
        "lean_notch_job": VERSION,
        "design": design_to_json(job.design),
        "basis": basis_to_json(job.basis),
        "layout": {board: asdict(settings) for board, settings in job.layouts},
        **({"sets": job.sets} if job.sets > 1 else {}),
    }


def with_layout(job: Job, board: str, settings: ChosenLayout) -> Job:
    """`job` with other settings for one board."""
    kept: Mapping[str, ChosenLayout] = {**dict(job.layouts), board: settings}
    return replace(job, layouts=tuple(kept.items()))
