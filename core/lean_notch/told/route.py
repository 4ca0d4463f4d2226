"""The six stops of a job, each with one live line: what is decided, and what wants a look."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from ..basis import BoardBasis
from ..basis.readings import FEW_READINGS, UNEVEN_SHARE
from ..ground.wording import counted
from ..job import Result
from ..lengths.said import rounded, say_mm
from ..making import fit_wants, joint_fits
from ..proof import Said

State = Literal["ready", "look", "open"]


@dataclass(frozen=True)
class Stop:
    """`key` names the stop; `wants` is said in ochre where something wants a look, "" otherwise."""

    key: str
    title: str
    line: str
    state: State
    wants: str = ""


def route(result: Result, said: Said | None = None) -> tuple[Stop, ...]:
    """The stops of a job as computed; "Prove" is open until it is known what a proof `said`."""
    basis, built, layout = result.job.basis, result.build, result.layout
    boards = [basis.of(board.id) for board in result.job.design.boards]
    joints = joint_fits(built.parts, built.mates, basis)
    pieces = sum(part.quantity for part in built.parts)
    share = sum(result.used(sheet.number) for sheet in layout.sheets) / layout.area if layout.sheets else 0.0
    without = sum(one.count for one in layout.left)
    failed = len(built.failed)
    unclear = sum(finding.code in ("no-edge", "placements-differ", "dangling") for finding in built.findings)
    lost = len(built.lost) + unclear - sum(one.code == "no-edge" for one in built.lost.values())
    verdicts = list(dict.fromkeys(joint.fit.verdict for joint in joints)) or [boards[0].fit]
    return (
        _stop("measure", "Measure", ", ".join(map(_measured, boards)), _first(map(_measure_wants, boards))),
        _shape_stop(pieces, len(built.parts), failed, sum(one.code == "letters-lost" for one in built.findings)),
        _stop("join", "Join", f"{counted(len(built.mates), 'joint')}, {', '.join(verdicts)}" if joints else "no joints",
              f"{counted(lost, 'problem')}" if lost else fit_wants(joints)),
        _stop("lay-out", "Lay out", f"{counted(len(layout.sheets), 'sheet')}, {rounded(100 * share, 0)} % used",
              f"{counted(without, 'piece')} without a place" if without else ""),
        *last_stops(pieces, len(layout.sheets), said),
    )  # fmt: skip


def last_stops(pieces: int, sheets: int, said: Said | None, *, handed: bool = False) -> tuple[Stop, Stop]:
    """Prove and Hand over; the latter is in order once files of just this state were `handed` over."""
    return _proof_stop(said, pieces), _hand_over_stop(sheets, said, handed=handed)


def _shape_stop(pieces: int, kinds: int, failed: int, lost: int) -> Stop:
    if not pieces:
        return Stop("shape", "Shape", f"{counted(kinds, 'part')}, none to cut" if kinds else "no parts yet", "open")
    line = f"{counted(pieces, 'part')}, {counted(kinds, 'kind')}"
    wants = (
        f"{counted(failed, 'step')} failed" if failed else "",
        f"letters lost in {counted(lost, 'text')}" if lost else "",
    )
    return _stop("shape", "Shape", line, _first(wants))


def _measured(basis: BoardBasis) -> str:
    readings = basis.stock.readings
    return f"{say_mm(readings.mean)}, {counted(len(readings.values_mm), 'reading')}"


def _first(wants: Iterable[str]) -> str:
    return next(filter(None, wants), "")


def _measure_wants(basis: BoardBasis) -> str:
    """The one thing to look at first; the Measure stop says all of them."""
    readings = basis.stock.readings
    count = len(readings.values_mm)
    if basis.stock.never_on(basis.machine.kind):
        return f"never on a {basis.machine.kind}"
    if readings.outliers:
        return f"check reading {readings.outliers[0] + 1}"
    if count < FEW_READINGS:
        return f"only {counted(count, 'reading')}"
    if basis.doubts:
        return "kerf not measured" if basis.kerf_typed else "kerf of another board"
    return "uneven board" if readings.spread > UNEVEN_SHARE * readings.mean else ""


def _stop(key: str, title: str, line: str, wants: str = "") -> Stop:
    return Stop(key, title, line, "look" if wants else "ready", wants)


def _proof_stop(said: Said | None, pieces: int) -> Stop:
    if not pieces:
        return Stop("prove", "Prove", "nothing to prove yet", "open")
    if said is None:
        return Stop("prove", "Prove", "proving the plan", "open")
    words = said.sentence[:1].lower() + said.sentence[1:]
    wants = f"{counted(said.things, 'thing')} to look at" if said.things else ""
    if said.verdict == "fits":
        line = words if said.provided else f"{words}, as planned"
        return Stop("prove", "Prove", line, "look" if wants or said.doubted else "ready", wants)
    return _stop("prove", "Prove", words, wants or "kerf in doubt")


def _hand_over_stop(sheets: int, said: Said | None, *, handed: bool) -> Stop:
    if said is None or not sheets:
        return Stop("hand-over", "Hand over", "not yet", "open")
    wants = _NOT_YET.get(said.verdict) or (f"if {said.provided}" if said.provided else "")
    if handed:
        return _stop("hand-over", "Hand over", f"{counted(sheets, 'file')} handed over", wants)
    line = f"{counted(sheets, 'file')} to cut"
    return Stop("hand-over", "Hand over", line, "look" if wants else "open", wants)


_NOT_YET = {"does-not-fit": "not before the proof fits", "as-far-as-seen": "not all of it was looked at"}
