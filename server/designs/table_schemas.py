"""The border of what is seen before a job is opened: the table, the shelf, a recipe tried, and what there is to choose from. Lengths are
mm, y points up."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from ground.problems import Problem
from lean_notch.basis.settings import CutResult, Outcome
from lean_notch.design.describe import FieldInfo
from lean_notch.ground.findings import Finding
from lean_notch.ground.operations import Operation
from lean_notch.hand_over.files import FileFormat
from lean_notch.recipes import Setting
from lean_notch.recipes.picture import View
from lean_notch.told.route import Stop
from lean_notch.told.summary import Tone
from workshop.schemas import LimitsValues, SpeedValues

from .schemas.jobs import ChangeOut, Kin
from .schemas.made import Out
from .schemas.proved import VerdictOut


class PanelOut(Out):
    """A board as it stands, `thickness` behind its face: its outlines on the face, to a tenth of a mm, as "x y x y …"."""

    origin: tuple[float, float, float]
    u: tuple[float, float, float]
    v: tuple[float, float, float]
    n: tuple[float, float, float]
    thickness: float
    outline: str
    holes: list[str]


class FlatOut(Out):
    """A flat part: SVG path data with y up, and its box."""

    path: str
    box: tuple[float, float, float, float]


class RecipeOut(Out):
    """`flat` parts or `panels` that stand show what it makes as it comes; `sentence` has the settings that no drawing shows, each as "{name}"."""

    name: str
    title: str
    about: str
    settings: tuple[Setting, ...]
    sentence: str
    panels: list[PanelOut]
    flat: list[FlatOut]
    own: bool


class DraftPart(Out):
    """A part where it lies on its sheet."""

    title: str
    path: str
    x: float
    y: float
    angle: float


class DraftSheet(Out):
    width: float
    height: float
    parts: list[DraftPart]


class DraftOut(Out):
    """What a recipe would make: its drawing, how all of that moves with each mm of a setting (`slopes`), the boards as they would
    stand, the sheets as they would be cut, and what it takes. Lengths are mm, `cut` is the length of all that is cut through."""

    views: tuple[View, ...]
    slopes: dict[str, tuple[View, ...]]
    values: dict[str, float]
    panels: list[PanelOut]
    flat: list[FlatOut]
    findings: list[Finding]
    sheets: list[DraftSheet]
    pieces: int
    used: float
    seconds: float
    cut: float
    thickness: float
    slot: float
    slot_drawn: float
    fit: str
    wants: str
    doubts: list[str]
    own_speeds: bool


class Silhouette(Out):
    path: str
    box: tuple[float, float, float, float]
    quantity: int


class CardBoard(Out):
    name: str
    thickness: float


class StandsOut(Out):
    """How a job stands in one line, the stop to go on at, and the moment that the line tells of."""

    line: str
    tone: Tone
    next: str
    at: datetime | None


class LastFileOut(Out):
    """`proof` is what that file's own proof said; nothing is known of what an older release wrote."""

    format: FileFormat
    receiver: str
    made: datetime
    revision: int
    outcome: str
    proof: VerdictOut | None


class TableNews(Out):
    """What the workshop says newer, in a sentence without its end, or a kerf that has grown old, and the jobs that it means."""

    what: Literal["newer", "kerf"]
    said: str = ""
    board: str = ""
    stock: int | None = None
    machine: str = ""
    machine_id: int | None = None
    days: int | None = None
    at: datetime | None = None
    jobs: list[Kin] = []


class ConcernedOut(Out):
    """A job that the workshop says something newer of; `handed`: files of it were handed over, and stay as they are."""

    id: int
    name: str
    moves: int
    revision: int
    handed: bool
    said: list[str]


class DesignCard(Out):
    """A job on the maker's first page: as it stands (`panels`), or its parts flat where none stands. One that cannot be read or
    computed any more has a `problem`, and the picture of the revision `drawn`; one whose picture is not made yet is not
    `pictured`. `proof` is that of the revision shown; `proved_before` tells whether an older one was proved. `used` is the
    share of its sheets, `seconds` how long they take."""

    id: int
    name: str
    changed: datetime
    revision: int
    boards: list[CardBoard]
    variant_of: str
    news: list[str]
    problem: Problem | None
    proof: VerdictOut | None
    proved_before: bool
    pictured: bool
    panels: list[PanelOut]
    flat: list[Silhouette]
    drawn: int | None
    titles: list[str]
    pieces: int
    sheets: int
    used: float
    seconds: float | None
    stops: tuple[Stop, ...]
    stands: StandsOut | None
    last_file: LastFileOut | None


class JobOnBoard(Out):
    """A job of that board with other readings of it: what would change, or the problem that it would have. Of one that was handed
    over, how the board would sit in the slots of that file: the gap in mm, and in words."""

    id: int
    name: str
    handed: bool
    changes: list[ChangeOut]
    fits: str
    gap: float | None
    problem: Problem | None


class JobsOnBoard(Out):
    jobs: list[JobOnBoard]
    more: int


class JointKindOut(Out):
    """A kind of joint: what it is called, and whether its members are joined at an edge or at their face."""

    title: str
    first: Literal["edge", "face"]
    second: Literal["edge", "face"]


class KindLimitsOut(Out):
    """What is usual for a kind of stock: common practice, what the workshop says otherwise, and what holds then."""

    common: LimitsValues
    own: LimitsValues
    used: LimitsValues


class FormatOut(Out):
    """A format that files are written in."""

    format: FileFormat
    title: str
    about: str


class PurposeOut(Out):
    """What a new step may be wanted for; `of` is what it has to be made of, if it comes from elsewhere."""

    purpose: str
    title: str
    of: Literal["", "file", "part"]


class ChoicesOut(Out):
    """What the page offers to choose from; the core knows what there is. `fields` are the questions of each kind of step,
    shape and pattern: "step/shape", "shape/disc", "pattern/grid"."""

    recipes: list[RecipeOut]
    directions: list[str]
    feels: list[str]
    results: list[str]
    outcomes: dict[Outcome, CutResult | None]
    """How a file came out, and what that says of the machine's settings."""
    stock_kinds: list[str]
    made_of: list[str]
    """What a composite may be made of."""
    limits: dict[str, KindLimitsOut]
    """By kind of stock."""
    machine_kinds: list[str]
    usual_speeds: dict[str, SpeedValues]
    reliefs: list[str]
    operations: dict[Operation, str]
    joints: dict[str, JointKindOut]
    fields: dict[str, tuple[FieldInfo, ...]]
    purposes: list[PurposeOut]
    formats: list[FormatOut]
