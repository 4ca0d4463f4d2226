"""The six stops of a job, each with one live line: what is decided, and what wants a look."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from .basis import Basis
from .basis.readings import FEW_READINGS, UNEVEN_SHARE
from .build.fit import fit_wants, joint_fits
from .job import Result
from .proof import Proof
from .units import say_mm

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
    readings = basis.stock.readings
    count = len(readings.values_mm)
    joints = joint_fits(built, basis)
    pieces = sum(part.quantity for part in built.parts)
    used = math.fsum(built.part(one.part).region.area for one in layout.placed)
    share = used / (layout.sheets * layout.area.width * layout.area.height) if layout.sheets else 0.0
    return (
        _stop("measure", "Measure", f"{say_mm(readings.mean)}, {_many(count, 'reading')}", _measure_wants(basis)),
        _stop("shape", "Shape", f"{_many(pieces, 'part')}, {_many(len(built.parts), 'kind')}"),
        _stop(
            "join",
            "Join",
            f"{_many(len(built.mates), 'joint')}, {basis.finger_fit.verdict if joints else basis.fit}",
            fit_wants(joints),
        ),
        _stop("lay-out", "Lay out", f"{_many(layout.sheets, 'sheet')}, {share:.0%} used".replace("%", " %")),
        _proof_stop(proof),
        _hand_over_stop(layout.sheets, proof),
    )


def _measure_wants(basis: Basis) -> str:
    """The one thing to look at first; the Measure stop says all of them."""
    readings = basis.stock.readings
    count = len(readings.values_mm)
    if readings.outliers:
        return f"reading {readings.outliers[0] + 1} is off"
    if count < FEW_READINGS:
        return f"only {_many(count, 'reading')}"
    if basis.doubts:
        return "kerf of another board"
    return "uneven board" if readings.spread > UNEVEN_SHARE * readings.mean else ""


def _stop(key: str, title: str, line: str, wants: str = "") -> Stop:
    return Stop(key, title, line, "look" if wants else "ready", wants)


def _proof_stop(proof: Proof | None) -> Stop:
    if proof is None:
        return Stop("prove", "Prove", "reading the file back", "open")
    if proof.findings:
        return _stop("prove", "Prove", f"{_many(len(proof.parts), 'part')} measured",
                     f"{_many(len(proof.findings), 'thing')} to look at")  # fmt: skip
    return _stop("prove", "Prove", "fits, as cut from the file")


def _hand_over_stop(sheets: int, proof: Proof | None) -> Stop:
    files = f"{_many(sheets, 'file')} to cut"
    if proof is None:
        return Stop("hand-over", "Hand over", "not yet", "open")
    return _stop("hand-over", "Hand over", files, "" if proof.fits else "not before the proof fits")


def _many(count: int, what: str) -> str:
    """
    >>> _many(1, "sheet"), _many(2, "sheet")
    ('1 sheet', '2 sheets')
    """
    return f"{count} {what}{'' if count == 1 else 's'}"
