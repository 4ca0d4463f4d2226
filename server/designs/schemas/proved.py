"""What a proof says, what files hold, and what was handed over."""

from __future__ import annotations

from datetime import datetime

from lean_notch.ground.findings import Finding
from lean_notch.ground.operations import Operation
from lean_notch.hand_over.contents import Outlined
from lean_notch.hand_over.files import FileFormat
from lean_notch.proof import MateProof, PartProof, Said
from lean_notch.proof.check_file import LayerCount
from lean_notch.proof.close_up import CloseUp
from lean_notch.proof.proof import Verdict
from lean_notch.proof.tested import Tested
from lean_notch.told.route import Stop

from .jobs import ChangeOut
from .made import CutPathOut, Out, SheetTimeOut


class VerdictOut(Out):
    """What is remembered of a revision's proof, without computing it again."""

    verdict: Verdict
    provided: str
    sentence: str
    at: datetime


class FileVerdictOut(VerdictOut):
    """What a file's own proof said; `stops` and `unseen` are what stops it and what was not looked at in it, in words."""

    stops: list[str] = []
    unseen: list[str] = []


class ProofFound(Out):
    """What the file read back gives. `finished` are the as-cut shapes by sheet, as SVG path data with y up; `paths`
    are what the beam's centre follows, in the order of the file; `as_cut` are the rings of finished parts in their own frames, outline first;
    `provided` is what the verdict rests on that nobody measured, "" for nothing."""

    fits: bool
    verdict: Verdict
    provided: str
    sentence: str
    not_looked_at: tuple[str, ...]
    findings: tuple[Finding, ...]
    parts: tuple[PartProof, ...]
    mates: tuple[MateProof, ...]
    paths: dict[int, list[CutPathOut]]
    finished: dict[int, list[str]]
    tested: tuple[Tested, ...]
    close_ups: tuple[CloseUp, ...]
    as_cut: dict[str, tuple[tuple[tuple[float, float], ...], ...]]
    times: list[SheetTimeOut]
    times_rest_on: str
    said: Said
    route: tuple[Stop, ...]


class ProofOut(ProofFound):
    """With the state that it is of, and when that was proved first."""

    moves: int
    revision: int
    at: datetime


class DrawnOut(Out):
    layer: str
    closed: bool
    path: str


class CheckOut(Out):
    """A file from anywhere: what is in it, what a cutter would complain about, and its lines to look at (mm, y up)."""

    name: str
    unit: str
    page: tuple[float, float] | None
    box: tuple[float, float, float, float] | None
    sound: bool
    layers: tuple[LayerCount, ...]
    findings: tuple[Finding, ...]
    lines: list[DrawnOut]


class WorkInFile(Out):
    """One layer of a file: `data` is the path data of all its paths with y up, `at` where the first of them starts, `setting` what
    the machine was set to when it came out well, or as it was set last; `setting_not_used` is why the seconds do not follow it."""

    operation: Operation
    layer: str
    colour: str
    paths: int
    openings: int
    length: float
    seconds: float
    data: str
    at: tuple[float, float]
    setting: str
    setting_result: str
    setting_date: str
    setting_not_used: str


class InFileOut(Out):
    name: str
    sheet: int
    width: float
    height: float
    origin: tuple[float, float]
    y_down: bool
    works: list[WorkInFile]
    outlines: tuple[Outlined, ...]
    seconds: float


class PlannedOut(Out):
    """A job as it is planned anew for another machine: what that cuts with (`tool`, "" for a beam), how wide that is, and what
    becomes otherwise."""

    machine: str
    kind: str
    tool: str
    kerf: float
    changes: list[ChangeOut]
    findings: tuple[Finding, ...]


class InFilesOut(Out):
    """Every file that would be written for a receiver, what of the job is `left_out` of them, and what of the profile the format
    does not hold."""

    files: list[InFileOut]
    not_held: tuple[Finding, ...]
    planned: PlannedOut | None
    left_out: tuple[Operation, ...]
    times_rest_on: str


class ExportOut(Out):
    """A file that was handed over: what its own proof said of the bytes with this SHA-256 ("" where an older release wrote it, which
    did not read it back). `older` says that another release wrote it: today's might write another."""

    id: int
    sheet: int
    format: FileFormat
    file_name: str
    bytes: int
    made: datetime
    revision: int
    proof: FileVerdictOut | None
    sha256: str
    older: bool
    receiver: str
    outcome: str


class PaperOut(Out):
    """A page as PDF, its bytes in base 64."""

    name: str
    data: str
