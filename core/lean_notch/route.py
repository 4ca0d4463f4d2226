"""The six stops of a job, each with one live line: what is decided, and what wants a look."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from .basis import BoardBasis
from .basis.readings import FEW_READINGS, UNEVEN_SHARE
from .build import fit_wants, joint_fits
from .job import Result
from .proof import Proof
from .units import rounded, say_mm

State = Literal["ready", "look", "open"]


@dataclass(frozen=True)
class Stop:
    """`key` names the stop; `wants` is said in ochre where something wants a look, "" otherwise."""

    key: str
    title: str
    line: str
    state: State
    wants: str = ""


def route(result: Result, proof: Proof | None = None) -> tuple[Stop, ...]:
    """The stops of a job as computed; "Prove" is open until there is a proof."""
    basis, built, layout = result.job.basis, result.build, result.layout
    boards = [basis.of(board.id) for board in result.job.design.boards]
    joints = joint_fits(built.parts, built.mates, basis)
    pieces = sum(part.quantity for part in built.parts)
    share = sum(result.used(sheet.number) for sheet in layout.sheets) / layout.area if layout.sheets else 0.0
    failed = len(built.failed)
    unclear = sum(finding.code in ("no-edge", "placements-differ", "dangling") for finding in built.findings)
    lost = len(built.lost) + unclear - sum(one.code == "no-edge" for one in built.lost.values())
    verdicts = list(dict.fromkeys(joint.fit.verdict for joint in joints)) or [boards[0].fit]
    return (
        _stop("measure", "Measure", ", ".join(map(_measured, boards)), _first(map(_measure_wants, boards))),
        _shape_stop(pieces, len(built.parts), failed),
        _stop("join", "Join", f"{_many(len(built.mates), 'joint')}, {', '.join(verdicts)}" if joints else "no joints",
              f"{_many(lost, 'problem')}" if lost else fit_wants(joints)),
        _stop("lay-out", "Lay out", f"{_many(len(layout.sheets), 'sheet')}, {rounded(100 * share, 0)} % used"),
        _proof_stop(proof, pieces),
        _hand_over_stop(len(layout.sheets), proof),
    )  # fmt: skip


def _shape_stop(pieces: int, kinds: int, failed: int) -> Stop:
    if not pieces:
        return Stop("shape", "Shape", f"{_many(kinds, 'part')}, none to cut" if kinds else "no parts yet", "open")
    line = f"{_many(pieces, 'part')}, {_many(kinds, 'kind')}"
    return _stop("shape", "Shape", line, f"{_many(failed, 'step')} failed" if failed else "")


def _measured(basis: BoardBasis) -> str:
    readings = basis.stock.readings
    return f"{say_mm(readings.mean)}, {_many(len(readings.values_mm), 'reading')}"


def _first(wants: Iterable[str]) -> str:
    return next(filter(None, wants), "")


def _measure_wants(basis: BoardBasis) -> str:
    """The one thing to look at first; the Measure stop says all of them."""
    readings = basis.stock.readings
    count = len(readings.values_mm)
    if readings.outliers:
        return f"check reading {readings.outliers[0] + 1}"
    if count < FEW_READINGS:
        return f"only {_many(count, 'reading')}"
    if basis.doubts:
        return "kerf not measured" if basis.kerf_typed else "kerf of another board"
    return "uneven board" if readings.spread > UNEVEN_SHARE * readings.mean else ""


def _stop(key: str, title: str, line: str, wants: str = "") -> Stop:
    return Stop(key, title, line, "look" if wants else "ready", wants)


def _proof_stop(proof: Proof | None, pieces: int) -> Stop:
    if not pieces:
        return Stop("prove", "Prove", "nothing to prove yet", "open")
    if proof is None:
        return Stop("prove", "Prove", "reading the file back", "open")
    said = proof.sentence[:1].lower() + proof.sentence[1:]
    if proof.verdict == "fits":
        others = sum(finding.code != "kerf-doubt" for finding in proof.findings)
        wants = f"{_many(others, 'thing')} to look at" if others else ""
        line = f"{said}, as cut from the file" if not proof.provided else said
        return Stop("prove", "Prove", line, "look" if proof.findings else "ready", wants)
    return _stop("prove", "Prove", said, f"{_many(len(proof.findings), 'thing')} to look at")


def _hand_over_stop(sheets: int, proof: Proof | None) -> Stop:
    if proof is None or not sheets:
        return Stop("hand-over", "Hand over", "not yet", "open")
    wants = _NOT_YET.get(proof.verdict) or (f"if {proof.provided}" if proof.provided else "")
    return _stop("hand-over", "Hand over", f"{_many(sheets, 'file')} to cut", wants)


_NOT_YET = {"does-not-fit": "not before the proof fits", "as-far-as-seen": "not all of it was looked at"}


def _many(count: int, what: str) -> str:
    """
    >>> _many(1, "sheet"), _many(2, "sheet")
    ('1 sheet', '2 sheets')
    """
    return f"{count} {what}{'' if count == 1 else 's'}"
