"""A job as a whole: how it is, what an edit changes, what would come of another basis, what was saved before."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal

from ground.problems import Problem
from lean_notch.edits import Edit
from lean_notch.ground.findings import Finding
from lean_notch.lengths.figures import Figure, Source
from lean_notch.lengths.figures import Kind as FigureKind
from lean_notch.lengths.units import Unit
from lean_notch.told.route import Stop
from ninja import Schema
from workshop.schemas import ScaleValues

from .made import AnswerOut, BoardOut, MateOut, Out, PartOut, PlacedOut, SheetOut, StandingOut


class PairReadOut(Schema):
    """The clearance that each fit is made with, in mm, how far it may be off, and what the slots did not show."""

    fits: ScaleValues
    within: float
    notes: list[str]


class Kin(Out):
    """Another design that this one comes from, or that comes from it."""

    id: int
    name: str


class LengthOut(Out):
    """A named length: as typed, what it comes to (None in a job that cannot be computed), and who follows it, by paths: `direct`
    by its name, `by_way` of other names only."""

    name: str
    title: str
    source: Source
    text: str
    unit: Unit
    field: str = ""
    value: float | None = None
    direct: tuple[str, ...] = ()
    by_way: tuple[str, ...] = ()


class DesignOut(Out):
    """A whole job as computed. `moves` and `revision` go back with the next change.

    A job that cannot be computed has a `problem`, its boards, answers and named lengths to mend, and nothing drawn.
    """

    id: int
    name: str
    moves: int
    revision: int
    revisions: int
    saved: datetime
    can_undo: bool
    can_redo: bool
    problem: Problem | None
    recipe: str
    answers: list[AnswerOut]
    lengths: list[LengthOut]
    sets: int
    relief: str
    boards: list[BoardOut]
    parts: list[PartOut]
    standings: list[StandingOut]
    placements: list[dict[str, Any]]
    joints: list[dict[str, Any]]
    mates: list[MateOut]
    placed: list[PlacedOut]
    sheets: list[SheetOut]
    findings: tuple[Finding, ...]
    ledger: dict[str, tuple[Figure, ...]]
    route: tuple[Stop, ...]
    variant_of: Kin | None
    variants: list[Kin]
    handed: datetime | None
    """When files of just this revision were handed over last."""


class ListChange(Out):
    """Entries of a list by their names: those that are new or other, and the order of all where it changed."""

    order: list[str] | None
    changed: dict[str, Any]


class ChangesOut(Out):
    """What whoever holds revision `since` of a job has to change in it: fields, and entries of lists."""

    since: int
    plain: dict[str, Any]
    lists: dict[str, ListChange]


class RevisionOut(Out):
    """A revision of the history. `before` are those that undo leads back through, and the one that is shown."""

    number: int
    sentence: str
    by: str
    saved: datetime
    before: bool
    shown: bool


class ChangeOut(Out):
    """A figure before and after: `key` of `subject` in the ledger; `about` is the part it belongs to, in words."""

    subject: str
    key: str
    about: str
    title: str
    kind: FigureKind
    before: float | None
    after: float | None
    word_before: str
    word_after: str


class TrialOut(Out):
    """A job with another basis for one board. With a `problem` it cannot be made on that one."""

    board: str
    stock: str
    kind: str
    machine: str
    thickness: float
    kerf: float
    slot: float
    fit: str
    doubts: list[str]
    problem: Problem | None
    changes: list[ChangeOut]
    joints: int
    failing: list[str]
    verdict: str
    wants: str
    warnings: list[str]
    sheets: int
    used: float
    seconds: float
    area: float
    price: float | None


class MovedOut(Out):
    """A step whose place would be another: how far it would move, in mm."""

    part: str
    step: str
    title: str
    dx: float
    dy: float


class WouldStandOut(Out):
    """A board that would stand elsewhere: the corners of its face, then those behind them."""

    placement: str
    corners: list[tuple[float, float, float]]


class TriedOut(Out):
    """What edits would do: what each number that they put would be (lengths in mm), by path, the figures that would change, the
    outlines of parts that would, by part, and the boards that would stand elsewhere; `broken` is what would stop that does not now. With a `problem` they cannot be made."""

    values: dict[str, float]
    changes: list[ChangeOut]
    paths: dict[str, str] = {}
    moved: list[MovedOut] = []
    stands: list[WouldStandOut] = []
    broken: list[str] = []
    problem: Problem | None


class PlacingOut(Out):
    """The edits that do it, and what they would do."""

    edits: list[Edit]
    tried: TriedOut


class NewsOut(Out):
    """What the workshop says newer of a `board` of the job, of its machine, or what the notebook found: `what` differs, `said` is that
    in a sentence without its end, `at` when it was measured or found, `was` and `now` are thicknesses or kerfs in mm, `own`: the job
    has readings of its own; the `edits` that follow it, and what of the job would change."""

    board: str
    of: Literal["board", "machine", "notebook"]
    id: int
    what: list[str]
    said: str
    at: datetime | None
    was: float | None
    now: float | None
    own: bool
    edits: list[Edit]
    changes: list[ChangeOut]
    problem: Problem | None


class FollowingOut(Out):
    """All that the workshop says newer of a job, in sentences without their ends, the edits that follow it, and what would change; or
    why the job `stays` as it is."""

    revision: int
    moves: int
    said: list[str]
    edits: list[Edit]
    changes: list[ChangeOut]
    more: int
    stays: Problem | None


class TodayOut(Out):
    """What would be otherwise in a file if it were written today, in sentences; not `known` of files of older releases."""

    known: bool
    differs: list[str]


class KeptFileOut(Out):
    """A file that steps may use by its `name`, with the layers that its closed outlines lie on."""

    name: str
    title: str
    size: int
    layers: list[str]
