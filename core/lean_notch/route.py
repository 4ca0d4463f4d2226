"""The six stops of a job, each with one live line: what is decided, and what wants a look."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from .basis import fit_name
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


FEW_READINGS = 3
"""Fewer say little about how a board varies. Common practice: five places."""

UNEVEN_SHARE = 0.05


def route(result: Result, proof: Proof | None = None) -> tuple[Stop, ...]:
    """The stops of a job as computed; "Prove" is open until there is a proof."""
    basis, built, layout = result.job.basis, result.build, result.layout
    readings = basis.stock.readings
    count = len(readings.values_mm)
    few = f"only {_many(count, 'reading')}" if count < FEW_READINGS else ""
    uneven = "uneven board" if readings.spread > UNEVEN_SHARE * readings.mean else ""
    pieces = sum(part.quantity for part in built.parts)
    used = math.fsum(built.part(one.part).region.area for one in layout.placed)
    share = used / (layout.sheets * layout.area.width * layout.area.height) if layout.sheets else 0.0
    return (
        _stop("measure", "Measure", f"{say_mm(readings.mean)}, {_many(count, 'reading')}", few or uneven),
        _stop("shape", "Shape", f"{_many(pieces, 'part')}, {_many(len(built.parts), 'kind')}"),
        _stop("join", "Join", f"{_many(len(built.mates), 'joint')}, {fit_name(basis.clearance)}"),
        _stop("lay-out", "Lay out", f"{_many(layout.sheets, 'sheet')}, {share:.0%} used".replace("%", " %")),
        _proof_stop(proof),
        _hand_over_stop(layout.sheets, proof),
    )


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
