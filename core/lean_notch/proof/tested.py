"""What a proof tested and how, one row a test: in, what was measured; out, sentences that claim no more than that."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from ..ground.findings import Finding
from ..ground.wording import counted
from ..lengths.said import say_mm
from .assembly import CLASH_MM
from .compare import EDGE_MM
from .proof import MateProof, PartProof

State = Literal["ok", "look", "bad", "none"]


@dataclass(frozen=True)
class Tested:
    """`found` is the result, `how` what was done for it; "none" is the state of what there was nothing of. `codes` are those of
    the findings that it gave."""

    key: str
    title: str
    found: str
    how: str
    state: State
    codes: tuple[str, ...] = ()


@dataclass(frozen=True)
class Counts:
    """How much was read and compared: paths to cut, those that are sound, kinds of marks, placements stood up of all, pairs of
    neighbours, and how many of those were `skipped` since their joint is wrong or not measured."""

    paths: int
    sound: int
    marks: int
    stood: int
    placements: int
    pairs: int
    skipped: int


_PATHS = (
    "open-path",
    "crosses-itself",
    "cut-twice",
    "paths-cross",
    "no-unit",
    "unknown-layer",
    "unknown-piece",
    "out-of-order",
    "colour-astray",
    "depth-astray",
    "unit-astray",
    "origin-astray",
    "square-missing",
    "edge-missing",
    "not-looked-at",
    "sheet-not-given",
)
_PARTS = (
    "off-size",
    "tool-not-in",
    "tool-too-wide",
    "part-missing",
    "part-in-pieces",
    "off-line",
    "thin-web",
    "sheet-not-given",
)
_MARKS = (
    "marks-astray",
    "mark-off-sheet",
    "mark-on-other",
    "mark-twice",
    "mark-beyond",
    "mark-over-opening",
    "back-not-given",
    "back-not-looked-at",
    "operation-not-given",
    "sheet-not-given",
)
_JOINTS = (
    "off-fit",
    "fingers-missing",
    "corner-blocked",
    "joints-not-measured",
    "depth-not-swept",
    "lock-not-measured",
)
_SPACE = (
    "doubled",
    "corner-open",
    "assembly-too-large",
    "placements-not-measured",
    "interlocked",
    "order-not-looked-at",
    "nothing-joins",
)


def tested(
    parts: Sequence[PartProof], mates: Sequence[MateProof], findings: Sequence[Finding], counts: Counts
) -> tuple[Tested, ...]:
    """In the order in which a maker would ask."""
    return (
        _outlines(parts, findings), _inner_corners(parts), *_joints(mates, findings), _space(findings, counts),
        _marks(findings, counts), _paths(findings, counts),
    )  # fmt: skip


def _state(findings: Sequence[Finding], codes: Sequence[str], *, anything: bool, ok: bool = True) -> State:
    severities = {one.severity for one in findings if one.code in codes}
    if not ok or "stop" in severities:
        return "bad"
    if severities:
        return "look"
    return "ok" if anything else "none"


def _outlines(parts: Sequence[PartProof], findings: Sequence[Finding]) -> Tested:
    good = sum(part.ok for part in parts)
    edges = [part.edge for part in parts if part.edge is not None]
    worst = max(edges, default=0.0)
    off = f"within {say_mm(EDGE_MM)}" if worst <= EDGE_MM else f"at most {say_mm(worst)} off"
    return Tested(
        "outlines", "Outlines", f"{good} of {len(parts)} good, {off}" if parts else "nothing to measure",
        "each as-cut part laid over its nominal outline",
        _state(findings, _PARTS, anything=bool(parts), ok=good == len(parts)), _PARTS,
    )  # fmt: skip


def _inner_corners(parts: Sequence[PartProof]) -> Tested:
    known = [part.inside_corner for part in parts if part.inside_corner is not None]
    left = [one for one in known if one]
    return Tested(
        "corners", "Inner corners", f"at most {say_mm(max(left))} left" if left else "nothing left" if known else "not measured",
        "what a round beam or tool cannot reach", "ok" if known else "none",
    )  # fmt: skip


def _joints(mates: Sequence[MateProof], findings: Sequence[Finding]) -> tuple[Tested, ...]:
    good = sum(mate.ok for mate in mates)
    ranges = [mate.clearance for mate in mates if mate.clearance]
    wanted = dict.fromkeys(round(mate.wanted, 6) for mate in mates)
    low_high = _range(min(low for low, _ in ranges), max(high for _, high in ranges)) if ranges else "not measured"
    proud = [mate.proud for mate in mates if mate.proud]
    fit = Tested(
        "joints", "Joints", f"{good} of {len(mates)} fit" if mates else "there are none",
        "every finger, tab and slot measured across as cut",
        _state(findings, _JOINTS, anything=bool(mates), ok=good == len(mates)), _JOINTS,
    )  # fmt: skip
    if not mates:
        return (fit,)
    said = " and ".join(say_mm(one) for one in wanted)
    clearance = Tested("clearance", "Clearance", low_high, f"wanted {said}", fit.state, ("off-fit",))
    if not proud:
        return fit, clearance
    uneven = ("faces-uneven",)
    thin_thick = Tested(
        "thickness", "Thin to thick",
        _range(min(thick for _, _, thick in proud), max(thin for thin, _, _ in proud)),
        "how far fingers and tabs stand out of the board that they go through, where it is thickest and thinnest",
        _state(findings, uneven, anything=True), uneven,
    )  # fmt: skip
    return fit, clearance, thin_thick


def _space(findings: Sequence[Finding], counts: Counts) -> Tested:
    state = _state(findings, _SPACE, anything=counts.stood > 0)
    said = ", none overlap" if state == "ok" else ""
    if counts.skipped:
        state = "bad" if state == "bad" else "look"
        said = f", {counted(counts.skipped, 'pair')} at joints that are wrong or not measured were not compared"
    found = f"{counts.stood} of {counts.placements} stood up{said}" if counts.placements else "nothing stands"
    return Tested(
        "space",
        "Put together",
        found,
        f"the as-cut parts stood where they go, {counted(counts.pairs, 'pair')} of neighbours; sharing up to {say_mm(CLASH_MM)} is touching",
        state,
        _SPACE,
    )


def _marks(findings: Sequence[Finding], counts: Counts) -> Tested:
    state = _state(findings, _MARKS, anything=counts.marks > 0)
    unseen = any(one.severity == "unseen" for one in findings if one.code in _MARKS)
    words = {
        "ok": "all where they should be", "none": "there are none",
        "look": "not all looked at" if unseen else "where they should be, some to look at",
    }  # fmt: skip
    found = words.get(state, "not as they should be")
    return Tested(
        "marks",
        "Marks",
        found,
        "scored, engraved, pocketed and folded lines against the job",
        state,
        _MARKS,
    )


def _paths(findings: Sequence[Finding], counts: Counts) -> Tested:
    return Tested(
        "paths", "Paths", f"{counts.sound} of {counts.paths} sound",
        "closed, single and clear of each other, read back from the file",
        _state(findings, _PATHS, anything=counts.paths > 0, ok=counts.sound == counts.paths), _PATHS,
    )  # fmt: skip


def _range(low: float, high: float) -> str:
    """
    >>> _range(0.02, 0.0200001), _range(-0.04, 0.04)
    ('0.02 mm', '-0.04 mm to 0.04 mm')
    """
    return say_mm(high) if say_mm(low) == say_mm(high) else f"{say_mm(low)} to {say_mm(high)}"
