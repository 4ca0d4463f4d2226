"""The border of designs: what the page may ask, and what it gets to draw. Lengths out are mm, y points up."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from ground.problems import Problem
from lean_notch.acts.moving import Side
from lean_notch.basis.settings import Outcome
from lean_notch.design import Uses
from lean_notch.edits.edit import LONGEST_PATH
from lean_notch.edits.edit import Edit as CoreEdit
from lean_notch.ground.findings import Finding
from lean_notch.ground.limits import MOST_EDITS
from lean_notch.ground.operations import Operation
from lean_notch.hand_over.contents import Outlined
from lean_notch.hand_over.files import FileFormat
from lean_notch.lengths.figures import Figure, Source
from lean_notch.lengths.figures import Kind as FigureKind
from lean_notch.lengths.in_another_unit import Reader
from lean_notch.lengths.units import Unit
from lean_notch.making.sizes import SizeOnPart
from lean_notch.nesting.problem import TurnedAbout
from lean_notch.proof import MateProof, PartProof, Said
from lean_notch.proof.check_file import LayerCount
from lean_notch.proof.close_up import CloseUp
from lean_notch.proof.proof import Verdict
from lean_notch.proof.tested import Tested
from lean_notch.recipes import Setting
from lean_notch.test_pieces.trial_pair import PAIRS, STEP_MM
from lean_notch.told.route import Stop
from ninja import Schema
from pydantic import BaseModel, ConfigDict, Field
from workshop.schemas import MachineValues, ProfileValues, ScaleValues, StockValues

Corners = tuple[float, float, float, float]
"""Left, low, right, high."""

Text = Annotated[str, Field(max_length=200)]
Number = Annotated[int, Field(strict=True, ge=0, le=2**53)]
"""A stock's or a machine's."""


class StartIn(Schema):
    """Starts a job: from a recipe, whose `settings` are texts as typed, in `unit`; or empty, for no recipe."""

    recipe: Text = ""
    name: Annotated[str, Field(max_length=80)]
    settings: Annotated[dict[str, Text], Field(max_length=50, examples=[{"width": "150", "sizes": "inside"}])] = {}
    stock: Number
    machine: Number
    fit: Text = ""
    unit: Unit = "mm"


class DraftIn(Schema):
    """A recipe tried: nothing is kept."""

    recipe: Text
    settings: Annotated[dict[str, Text], Field(max_length=50)] = {}
    stock: Number
    machine: Number
    fit: Text = ""
    unit: Unit = "mm"


class TracksIn(Schema):
    """A column or row of a divided case more at the end, or number `entry`, from 0, less."""

    columns: Text
    rows: Text
    without: Text = ""
    act: Literal["add", "remove"]
    side: Literal["columns", "rows"]
    entry: Annotated[int, Field(ge=0, le=1000)] = 0


class EditIn(Schema):
    """One act: a verb, a path, and for `put` and `switch` a value; see docs/edits.md."""

    verb: Literal["put", "drop", "move", "rename", "switch"]
    path: Annotated[str, Field(max_length=LONGEST_PATH, examples=["parts/front/steps/hole-1/x"])]
    value: Any = None
    after: Annotated[str, Field(max_length=100)] | None = None
    to: Annotated[str, Field(max_length=100)] = ""

    def edit(self) -> CoreEdit:
        return CoreEdit(self.verb, self.path, self.value, self.after, self.to)


class EditsIn(Schema):
    """Edits made one after the other, saved as one revision; texts count in `unit`.

    `seen` and `revision` are the job's `moves` and `revision` as last shown: what others saved since is kept, or refused
    with status 409 where it gets in the way.
    """

    edits: Annotated[list[EditIn], Field(max_length=MOST_EDITS, min_length=1)]
    unit: Unit = "mm"
    seen: int
    revision: int | None = None
    since: int | None = None
    """The revision that the sender holds: only what is other since then needs to come back."""


class TriedIn(Schema):
    """Edits to be tried; texts count in `unit`. Nothing is kept."""

    edits: Annotated[list[EditIn], Field(max_length=MOST_EDITS, min_length=1)]
    unit: Unit = "mm"


class SwapIn(Schema):
    """What of the workshop's to compute a board from instead: numbers of a board, a machine, an entry of the notebook."""

    board: Text = "main"
    stock: Number | None = None
    machine: Number | None = None
    entry: Number | None = None


class TriesIn(Schema):
    swaps: Annotated[list[SwapIn], Field(max_length=12)]


class VariantIn(SwapIn):
    name: Text


class TrialPairIn(Schema):
    """A trial pair of a joint: that many slots, their clearances `step` mm apart."""

    joint: Text
    pairs: Annotated[int, Field(ge=0, le=1000)] = PAIRS
    step: float = STEP_MM


class PairToldIn(Schema):
    """How the tongue felt in each slot of a joint's trial pair, tightest first; "" where it was not tried."""

    joint: Text
    answers: Annotated[list[Annotated[str, Field(max_length=20)]], Field(max_length=40)]


class PairReadOut(Schema):
    """The clearance that each fit is made with, in mm, how far it may be off, and what the slots did not show."""

    fits: ScaleValues
    within: float
    notes: list[str]


class PlacingIn(Schema):
    """What is wanted of the places of steps: moved by `dx` and `dy` mm, measured from `of`, centred between `of` and `to`, one
    `side` in line with the first one's, or equal gaps along `axis`; of a free outline's `node`: moved, one more added behind it, or
    the edge behind it bent; another kind of shape, `to`; to stand one more of the part up; or to remove the joint `of` and let the placement `to` cover the
    other. Nothing is kept."""

    act: Literal[
        "move", "from", "between", "align", "spread", "node-move", "node-add", "node-bend", "stand", "cover", "shape"
    ]
    part: Text = ""
    steps: Annotated[list[Text], Field(max_length=200)] = []
    dx: Annotated[float, Field(ge=-1e5, le=1e5)] = 0.0
    dy: Annotated[float, Field(ge=-1e5, le=1e5)] = 0.0
    of: Text = ""
    to: Text = ""
    axis: Literal["x", "y"] | None = None
    side: Side = "left"
    node: Text = ""
    unit: Unit = "mm"


class RecipeIn(Schema):
    """A job to be kept as a recipe, with the names of the lengths that a new job may set."""

    title: Annotated[str, Field(max_length=80)]
    open: Annotated[list[Text], Field(max_length=50)]


class MoveIn(Schema):
    """Undo or redo, from what `seen` showed; `since` is the revision that the sender holds."""

    seen: int
    since: int | None = None


class GoIn(MoveIn):
    """To a revision of the history."""

    revision: int


class ExportIn(Schema):
    """`profile` says how the files are written; its lengths are in mm. For another `machine` of the workshop than the job's own it is
    planned anew."""

    format: FileFormat = "svg"
    profile: ProfileValues = ProfileValues()
    machine: Number | None = None


class Out(BaseModel):
    """What goes out is read off the core's own values, checked once, and written by pydantic: ninja's own Schema takes five
    times as long. What the core has as it should go out (figures, findings, stops) goes out as it is."""

    model_config = ConfigDict(from_attributes=True)


class AnswerOut(Out):
    """A recipe's question, and how it was answered in this job."""

    setting: Setting
    typed: str
    unit: Unit


class WordsOut(Out):
    """A stretch of a step's sentence: words, or the number at `path` of the step, as `typed` in `unit` and what it comes to."""

    text: str
    path: str = ""
    typed: str = ""
    unit: Unit | None = None
    value: float | None = None


class NodeOut(Out):
    """A node of a free outline where it lies on the part, and the middle of the edge behind it."""

    id: str
    at: tuple[float, float]
    middle: tuple[float, float]


class StepOut(Out):
    """A step of a part; `follows` names what it depends on. `document` is what an edit sends back, changed or not; `path` is the mark that it makes, SVG path
    data with y up, "" for what is part of the part's own path. `notes` are to be said under it. `problem` is there if the part got stuck at it."""

    id: str
    title: str
    on: bool
    document: dict[str, Any]
    operation: Operation
    path: str
    opening: bool
    back: bool
    box: tuple[float, float, float, float] | None
    """Of its first copy, on the part."""
    sizes: tuple[SizeOnPart, ...]
    nodes: list[NodeOut]
    sentence: list[WordsOut]
    follows: Uses
    notes: list[str]
    problem: Problem | None


class PointOnPart(Out):
    name: str
    says: str
    step: str
    at: tuple[float, float]


class EdgeOnPart(Out):
    name: str
    says: str
    step: str
    ends: tuple[float, float, float, float]


class SliceOut(Out):
    """All that lies between two depths behind the front face, in rings: an outline and its holes. A face has one depth twice."""

    low: float
    high: float
    rings: list[list[tuple[float, float]]]


class SunkOut(Out):
    """The solid of a part with something sunk into it: slices that lie on each other, and the faces parallel to the board's."""

    slices: list[SliceOut]
    faces: list[SliceOut]


class PartOut(Out):
    """A flat part: `path` is SVG path data with y up, `box` left, low, right, high; `outline` is its outer outline as points, `holes` those in it,
    `sunk` path data of what joints take out of its face, `solid` what the board is then.
    `corners` and `edges` are the names of those that steps and joints may point at; `sides` are the ends of each edge. `points`
    and `lines` are what places can be measured from, as "corner:blank.top-left" and "edge:blank.top", each with the step that
    made it."""

    id: str
    title: str
    board: str
    quantity: int
    loose: int
    path: str
    outline: list[tuple[float, float]]
    holes: list[list[tuple[float, float]]]
    sunk: str
    solid: SunkOut | None
    box: tuple[float, float, float, float]
    rooms: tuple[Corners | None, Corners | None]
    """Where its name has room: as it lies, and turned by a quarter."""
    thickness: float
    steps: list[StepOut]
    corners: list[str]
    edges: list[str]
    sides: dict[str, tuple[float, float, float, float]]
    points: list[PointOnPart]
    lines: list[EdgeOnPart]


class StandingOut(Out):
    """Where a part stands: its origin, its right `u`, its top `v`, and `n` away from its material."""

    placement: str
    part: str
    origin: tuple[float, float, float]
    u: tuple[float, float, float]
    v: tuple[float, float, float]
    n: tuple[float, float, float]
    mirrored: bool


class MemberOut(Out):
    """Who is joined."""

    placement: str
    part: str


class FitRangeOut(Out):
    """The clearance over all that is not known for sure, in words, and what to look at ("" if it is as chosen)."""

    low: float
    high: float
    verdict: str
    wants: str
    loose: bool
    tight: bool
    fails: bool
    warnings: list[str]


class ContactOut(Out):
    """Things that go into others of one size: `count` of them, `clearance` narrower than what they go into, `depth` deep
    through the board of the part `through`. With `by_thickness` it is the board of the part `inner_part` that goes in."""

    count: int
    inner_part: str
    outer_part: str
    by_thickness: bool
    width: float
    clearance: float
    depth: float
    through: str


class GapOut(Out):
    """The gap of a joint's tightest contact where what goes in is thinnest, at its mean and where it is thickest; `measured` where
    a board goes in by its thickness, else it is the same at any thickness."""

    thin: float
    mean: float
    thick: float
    measured: bool


class MateOut(Out):
    """A joint as built; `fit_field` is the path of the clearance between its two boards, `trial` are those of a
    trial pair’s slots: who meets, what its contacts are called, and where it runs in space. `proud` is how far what goes
    through a board stands out of it where that board is thinnest, at its mean, and where it is thickest."""

    id: str
    title: str
    kind: str
    about: str
    inner: str
    outer: str
    first: MemberOut
    second: MemberOut
    start: tuple[float, float, float]
    end: tuple[float, float, float]
    contacts: list[ContactOut]
    fit: FitRangeOut
    proud: tuple[float, float, float]
    angle: float
    gap: GapOut | None
    fit_field: str
    trial: tuple[float, ...]


class EditOut(Out):
    """An edit that can be sent as it is: its value says its unit."""

    path: str
    value: Any


class ProposalOut(Out):
    """Two members that meet, or miss each other by `off` mm: the `kinds` of joint that can be made there, and the edit that closes
    the gap with what it `says`."""

    first: dict[str, str]
    second: dict[str, str]
    title: str
    sentence: str
    kinds: list[str]
    length: float
    angle: float
    place: tuple[float, float, float]
    off: float
    says: str
    closes: EditOut | None


class LevelOut(Out):
    """What stands in each other's way where boards are as thick as `level` says: of how many pairs of neighbours."""

    level: Literal["mean", "thin", "thick"]
    pairs: int
    findings: tuple[Finding, ...]


class TogetherOut(Out):
    """`stands`: where each placement stands, in words."""

    stands: dict[str, list[str]]
    proposals: list[ProposalOut]
    levels: list[LevelOut]


class PlacedOut(Out):
    part: str
    copy_number: int
    sheet: int
    x: float
    y: float
    angle: float


class CutPathOut(Out):
    part: str
    copy_number: int
    operation: Operation
    inner: bool
    path: str


class WorkOut(Out):
    """One operation on a sheet: how many paths, how long they are in mm, and how many seconds they take."""

    operation: Operation
    title: str
    paths: int
    length: float
    seconds: float


class SheetTimeOut(Out):
    """How long a sheet takes, by operation and by part id, and the travel in mm as laid out and as ordered."""

    number: int
    seconds: float
    work: list[WorkOut]
    by_part: dict[str, float]
    travel_seconds: float
    travel: float
    travel_unordered: float


class KeepOutOut(Out):
    name: str
    box: tuple[float, float, float, float]


class SheetOut(Out):
    """`file_names` are the names that this sheet's files get, by format."""

    number: int
    board: str
    file_names: dict[FileFormat, str]
    width: float
    height: float
    keep_outs: list[KeepOutOut]


class FitOut(Out):
    name: str
    clearance: float


class BasisOut(Out):
    """`fits` are the clearances to choose from in this stock from this machine; `doubts` speak against its kerf,
    `warnings` come from its readings."""

    stock: StockValues
    machine: MachineValues
    clearance: float
    fit: str
    thickness: float
    thin: float
    thick: float
    slot: float
    slot_drawn: float
    fits: list[FitOut]
    finger_fit: FitRangeOut
    slot_fit: FitRangeOut
    doubts: list[str]
    warnings: list[str]
    outliers: list[int]


class BoardOut(Out):
    """A board of the job: what it is called, what was measured and chosen for it, and how it is laid out."""

    id: str
    title: str
    basis: BasisOut
    margin: float
    spacing: float
    quarter_turns: bool
    turned_about: TurnedAbout
    """The edge that a sheet is turned over about, for work on its back."""


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

    edits: list[dict[str, Any]]
    tried: TriedOut


class OnBoardIn(Schema):
    """Readings as typed, in `unit`."""

    readings: Annotated[list[Text], Field(max_length=100, min_length=1)]
    unit: Unit = "mm"


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
    edits: list[dict[str, Any]]
    changes: list[ChangeOut]
    problem: Problem | None


class FollowingOut(Out):
    """All that the workshop says newer of a job, in sentences without their ends, the edits that follow it, and what would change; or
    why the job `stays` as it is."""

    revision: int
    moves: int
    said: list[str]
    edits: list[dict[str, Any]]
    changes: list[ChangeOut]
    more: int
    stays: Problem | None


class FollowIn(Schema):
    """On what `seen` and `revision` showed."""

    seen: int
    revision: int | None = None


class ReaderIn(Schema):
    """How whoever reads a page writes numbers: `fractions` is the smallest part of an inch that is shown as one, 0 for none."""

    unit: Unit = "mm"
    fractions: Literal["0", "8", "16", "32", "64"] = "0"
    mark: Literal[".", ","] = "."
    form: Literal["html", "pdf"] = "html"
    paper: Annotated[str, Field(max_length=40, examples=["A4", "200x250"])] = "A4"
    """A name, or width x height in mm."""

    @property
    def reader(self) -> Reader:
        return Reader(self.unit, int(self.fractions), self.mark)


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


class OutcomeIn(Schema):
    outcome: Outcome


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


class TodayOut(Out):
    """What would be otherwise in a file if it were written today, in sentences; not `known` of files of older releases."""

    known: bool
    differs: list[str]


class PaperOut(Out):
    """A page as PDF, its bytes in base 64."""

    name: str
    data: str


class KeptFileOut(Out):
    """A file that steps may use by its `name`, with the layers that its closed outlines lie on."""

    name: str
    title: str
    size: int
    layers: list[str]
