"""A job on another machine of the workshop: in, the job, that machine and what its notebook knows; out, the job as it would be planned
there. Nothing is written of the job itself.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from ..basis import Basis, BoardBasis, Machine
from ..basis.equip import equipped
from ..basis.never import refuse_never
from ..basis.notebook import Entry
from ..ground.errors import KerfTooWide
from .job import Job, Result, refuse_without_place, usual_settings


def on_machine(job: Job, machine: Machine, entries: Sequence[Entry] = ()) -> Job:
    """Every board with that machine's tool, kerf, bed and room between cuts; fits, sheets and turns stay as they were chosen.
    Raises NeverOnMachine at "machine"."""
    boards = tuple((name, _moved(one, machine, entries)) for name, one in job.basis.boards)
    moved = replace(job, basis=Basis(boards), layouts=())
    layouts = []
    for board in job.design.boards:
        usual, chosen = usual_settings(moved.basis.of(board.id)), job.chosen(board.id)
        same = job.basis.of(board.id).machine.kind == machine.kind
        margin, spacing = (
            max(value, least) if same and value is not None else None
            for value, least in ((chosen.margin, usual.margin), (chosen.spacing, usual.spacing))
        )
        layouts.append((board.id, replace(chosen, margin=margin, spacing=spacing)))
    return replace(moved, layouts=tuple(layouts))


def refuse_without_room(result: Result) -> None:
    """Raises KerfTooWide at "machine" where that machine's tool does not go into a joint, and PartTooLarge or SheetsRunOut where a part
    has no place on its bed: the job may be changed, a file is not made."""
    for one in result.build.findings:
        if one.code == "kerf-too-wide":
            raise KerfTooWide(one.why, fix=one.fix, field="machine")
    refuse_without_place(result)


def _moved(before: BoardBasis, machine: Machine, entries: Sequence[Entry]) -> BoardBasis:
    if before.machine.id and before.machine.id == machine.id:
        return before
    refuse_never(before.stock, machine, "machine")
    moved = equipped(before.stock, machine, entries, before)
    return replace(moved, stock=before.stock, clearance=before.clearance, fits=before.fits, into=before.into)


def is_on(job: Job, machine: str) -> bool:
    """Whether all boards of a job are cut on the machine of that number already."""
    return all(job.basis.of(board.id).machine.id == machine for board in job.design.boards)
