"""What is in a job's files: in, a computed job and a format; out, each file as its receiver will see it, one kind of work after the
other, with how long it takes."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace

from ..basis import BoardBasis
from ..basis.settings import Settings
from ..cutting import CutPath, SheetPlan, estimate
from ..formats.file_kinds import FORMATS
from ..formats.frame import Frame, file_layers
from ..geometry import Box, Point
from ..ground.operations import Operation
from ..job import Result
from ..making.name_room import room_at
from .files import FileFormat, Planned, planned_files, refuse_never_cut


@dataclass(frozen=True)
class Work:
    """One layer of a file: its paths in their order, of which `openings` are cut inside a part, how long they are in mm, and how
    many seconds they take without the way between them."""

    operation: Operation
    layer: str
    colour: str
    paths: tuple[CutPath, ...]
    openings: int
    length: float
    seconds: float


@dataclass(frozen=True)
class Outlined:
    """A part's outline in a file: which copy, its box, where in it a name has room, and the how-manieth of all outlines it is."""

    part: str
    title: str
    copy: int
    box: Box
    room: Box | None
    turn: int


@dataclass(frozen=True)
class InFile:
    """A file as it will be written, `width` x `height` mm with y up. `origin` is where its coordinates are 0; `seconds` are of
    all of it."""

    name: str
    sheet: int
    width: float
    height: float
    origin: Point
    y_down: bool
    works: tuple[Work, ...]
    outlines: tuple[Outlined, ...]
    seconds: float


def in_files(
    result: Result,
    file_format: FileFormat,
    settings: Mapping[str, Settings] = {},
) -> tuple[InFile, ...]:
    """Of every file that `write_files` would write, in the same order. Times follow the `settings` of each board.
    Raises NeverOnMachine at "machine"."""
    refuse_never_cut(result.job)
    return tuple(
        _in_file(result, one, file_format, settings.get(one.board, {})) for one in planned_files(result, file_format)
    )


def left_out(result: Result) -> tuple[Operation, ...]:
    """What the design asks for and the receiver's profile leaves out of the files: then they are not all that was proved."""
    profile = result.profile
    parts = [part for part in result.build.parts if part.quantity]
    asked: set[Operation] = {"cut"} if parts else set()
    asked |= {mark.operation for part in parts for mark in part.marks}
    return tuple(
        one for one in profile.order if one in asked and one != "reference" and not profile.layers[one].include
    )


def _in_file(result: Result, planned: Planned, file_format: FileFormat, settings: Settings) -> InFile:
    plan, profile = planned.plan, result.profile
    basis = result.job.basis.of(planned.board)
    down = FORMATS[file_format].runs_down(profile)
    frame = Frame.of(plan, profile, flipped=down)
    works = tuple(
        Work(
            layer.operation, layer.name, layer.colour, layer.paths, sum(path.inner for path in layer.paths),
            math.fsum(path.length for path in layer.paths), _seconds(planned, layer.paths, basis, settings),
        )
        for layer in file_layers(plan, profile)
    )  # fmt: skip
    cut = [path for work in works if work.operation == "cut" for path in work.paths if not path.inner and path.part]
    outlines = tuple(
        Outlined(path.part, path.part_title, path.copy, path.shape.box, _room(result, planned, path), turn)
        for turn, path in enumerate(cut, 1)
    )
    kept = [path for work in works for path in work.paths]
    seconds = estimate(_with(planned, kept), basis, settings).total
    return InFile(
        planned.name, planned.sheet, plan.width, plan.height, (frame.left, frame.low), down, works, outlines, seconds
    )


def _seconds(planned: Planned, paths: tuple[CutPath, ...], basis: BoardBasis, settings: Settings) -> float:
    return math.fsum(estimate(_with(planned, list(paths)), basis, settings).by_operation.values())


def _with(planned: Planned, paths: list[CutPath]) -> SheetPlan:
    return replace(planned.plan, paths=tuple(paths), back=())


def _room(result: Result, planned: Planned, path: CutPath) -> Box | None:
    left, low, right, high = path.shape.box
    lies = result.layout.on_sheet(planned.sheet) if planned.sheet and not planned.part else ()
    angle = next((one.motion.angle for one in lies if (one.part, one.copy) == (path.part, path.copy)), 0.0)
    return room_at(result.build.part(path.part), angle, ((left + right) / 2, (low + high) / 2))
