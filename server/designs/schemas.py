"""The border of designs: what the page may ask, and what it gets to draw. Lengths out are mm, y points up."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from config.problems import Problem
from lean_notch.ledger import Figure
from lean_notch.units import Unit
from ninja import Schema
from pydantic import BaseModel, ConfigDict, Field, field_validator
from workshop.schemas import MachineValues, Operation, ProfileValues, SpeedValues, StockValues

Text = Annotated[str, Field(max_length=200)]
Number = Annotated[int, Field(strict=True, ge=0, le=2**53)]
"""A stock's or a machine's."""

MOST_BYTES = 50_000_000
"""Of an uploaded drawing."""

FileFormat = Literal["svg", "dxf", "dxf-r12", "pdf"]


class LengthValue(Schema):
    """A typed length and the unit it was typed in."""

    text: Text
    unit: Unit = "mm"


class StartIn(Schema):
    """Starts a design from a recipe; `settings` are texts as typed, in `unit`."""

    recipe: Text = "open-tray"
    name: Annotated[str, Field(max_length=80)]
    settings: Annotated[dict[str, Text], Field(max_length=50, examples=[{"width": "150", "sizes": "inside"}])] = {}
    stock: int
    machine: int
    unit: Unit = "mm"


class MarkIn(Schema):
    """Something drawn on a part. `lengths` are by name, as typed; what a kind asks for is in the choices."""

    id: Annotated[str, Field(max_length=40)]
    kind: Literal["line", "rectangle", "circle", "text"]
    operation: Operation
    lengths: Annotated[dict[Text, Text | LengthValue], Field(max_length=12)]
    text: Text = ""
    font: Text = "sans"
    align: Literal["left", "middle", "right"] = "left"
    angle: float = 0.0
    side: Literal["auto", "outside", "inside", "on"] = "auto"
    columns: int = 1
    rows: int = 1


class CornerIn(Schema):
    """A corner of a panel, rounded or cut off."""

    corner: Literal["bottom-left", "bottom-right", "top-right", "top-left"]
    shape: Literal["round", "chamfer"] = "round"
    size: Text | LengthValue


class FeaturesIn(Schema):
    """What is drawn on a part in place of what was; what is left out stays."""

    marks: Annotated[list[MarkIn], Field(max_length=500)] | None = None
    corners: Annotated[list[CornerIn], Field(max_length=4)] | None = None


class EditIn(Schema):
    """Changes by field name, as typed in `unit`. `stock`, `machine` and `entry` (of the notebook) take a number of the
    workshop's, `parts` is what is drawn on parts by their ids.

    `seen` is the design's `moves` as last shown: an edit of something older is refused with status 409.
    """

    changes: Annotated[
        dict[str, Text | bool | Number | Annotated[list[Text], Field(max_length=100)]],
        Field(max_length=50, examples=[{"width": "width/3 + 2 mm", "readings": ["3.02", "3.05"]}]),
    ] = {}
    parts: Annotated[dict[str, FeaturesIn], Field(max_length=500)] = {}
    unit: Unit = "mm"
    seen: int

    @field_validator("changes")
    @classmethod
    def _known_numbers(cls, changes: dict[str, object]) -> dict[str, object]:
        for name in SwapIn.model_fields:
            if type(changes.get(name, 0)) is not int:
                raise ValueError(f"{name} is no number of the workshop's")
        return changes


class SwapIn(Schema):
    """What of the workshop's to compute from instead: numbers of a board, a machine, an entry of the notebook."""

    stock: Number | None = None
    machine: Number | None = None
    entry: Number | None = None


class TriesIn(Schema):
    swaps: Annotated[list[SwapIn], Field(max_length=12)]


class VariantIn(SwapIn):
    name: Text


class MoveIn(Schema):
    """Undo or redo, from what `seen` showed."""

    seen: int


class ExportIn(Schema):
    """`profile` says how the files are written; its lengths are in mm."""

    format: FileFormat = "svg"
    profile: ProfileValues = ProfileValues()


class Out(BaseModel):
    """What goes out is read off the core's own values, checked once, and written by pydantic: ninja's own Schema takes five
    times as long. The ledger's thousand rows, for forty parts, are the core's own values as they are."""

    model_config = ConfigDict(from_attributes=True)


class SettingOut(Out):
    """A recipe's question. `typed` and `unit` are how it was answered in this design."""

    name: str
    title: str
    kind: Literal["length", "choice"]
    default: str
    help: str
    choices: list[str]
    optional: bool
    typed: str = ""
    unit: Unit = "mm"


class RecipeOut(Out):
    name: str
    title: str
    about: str
    settings: list[SettingOut]


class MarkOut(Out):
    """A mark on a part as drawn, SVG path data with y up; cut marks are part of the part's own path, and empty here.

    `document` is what an edit sends back, changed or not.
    """

    id: str
    operation: Operation
    path: str
    document: MarkIn


class PartOut(Out):
    """A flat part: `path` is SVG path data with y up, `box` left, low, right, high.

    `outline` is its outer outline as points, to draw it standing as `origin`, `u`, `v` and `n` say.
    """

    id: str
    title: str
    quantity: int
    path: str
    outline: list[tuple[float, float]]
    box: tuple[float, float, float, float]
    origin: tuple[float, float, float]
    u: tuple[float, float, float]
    v: tuple[float, float, float]
    n: tuple[float, float, float]
    thickness: float
    marks: list[MarkOut]
    corners: list[CornerIn]


class MemberOut(Out):
    """Where on its part a joint lies, as a stretch of the panel's edge."""

    part: str
    start: tuple[float, float]
    end: tuple[float, float]


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


class MateOut(Out):
    """`proud` is how far its faces stand out where the board is thickest, and where it is thinnest."""

    id: str
    title: str
    first: MemberOut
    second: MemberOut
    fingers: int
    finger: float
    clearance: float
    depth: float
    fit: FitRangeOut
    proud: tuple[float, float]


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
    file_names: dict[FileFormat, str]
    width: float
    height: float
    keep_outs: list[KeepOutOut]


class StopOut(Out):
    key: str
    title: str
    line: str
    state: Literal["ready", "look", "open"]
    wants: str


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


class Kin(Out):
    """Another design that this one comes from, or that comes from it."""

    id: int
    name: str


class DesignOut(Out):
    """A whole design as computed. `moves` goes back as `seen` with the next change."""

    id: int
    name: str
    moves: int
    revision: int
    revisions: int
    saved: datetime
    can_undo: bool
    can_redo: bool
    recipe: str
    settings: list[SettingOut]
    quarter_turns: bool
    relief: str
    basis: BasisOut
    parts: list[PartOut]
    mates: list[MateOut]
    placed: list[PlacedOut]
    sheets: list[SheetOut]
    ledger: dict[str, tuple[Figure, ...]]
    route: list[StopOut]
    variant_of: Kin | None
    variants: list[Kin]


class ChangeOut(Out):
    """A figure before and after; `about` is the part it belongs to."""

    about: str
    title: str
    kind: Literal["length", "count", "share", "area", "word"]
    before: float | None
    after: float | None
    word_before: str
    word_after: str


class TrialOut(Out):
    """A job on another basis. With a `problem` it cannot be made on that one."""

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


class NewsOut(Out):
    """What the workshop says of the job's board or machine otherwise than the job's own copy: `what` differs, and what of
    the job would change. The other fields are the board's."""

    of: Literal["board", "machine"]
    id: int
    what: list[str]
    measured: str = ""
    was_measured: str = ""
    thickness: float | None = None
    changes: list[ChangeOut]
    problem: Problem | None


class DesignCard(Out):
    """A job on the maker's first page: its parts' silhouettes and what it is made of."""

    id: int
    name: str
    changed: datetime
    revision: int
    stock: str
    thickness: float
    variant_of: str
    news: list[str]
    silhouettes: list[Silhouette]


class FindingOut(Out):
    code: str
    severity: Literal["stop", "look"]
    why: str
    fix: str
    part: str
    sheet: int
    place: tuple[float, float] | None
    amount: float


class PartProofOut(Out):
    part: str
    copy_number: int
    sheet: int
    edge: float | None
    corner: float | None
    inside_corner: float | None
    ok: bool


class MateProofOut(Out):
    mate: str
    wanted: float
    clearance: tuple[float, float] | None
    proud: tuple[float, float, float] | None
    ok: bool


class ProofOut(Out):
    """What the file read back gives. `finished` are the as-cut shapes by sheet, as SVG path data with y up; `paths`
    are what the beam's centre follows."""

    moves: int
    fits: bool
    findings: list[FindingOut]
    parts: list[PartProofOut]
    mates: list[MateProofOut]
    paths: dict[int, list[CutPathOut]]
    finished: dict[int, list[str]]
    times: list[SheetTimeOut]
    own_speeds: bool
    route: list[StopOut]


class LayerCountOut(Out):
    layer: str
    paths: int
    closed: int
    nodes: int
    length: float


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
    layers: list[LayerCountOut]
    findings: list[FindingOut]
    lines: list[DrawnOut]


class ExportOut(Out):
    id: int
    sheet: int
    format: FileFormat
    file_name: str
    bytes: int
    made: datetime


class Silhouette(Out):
    path: str
    box: tuple[float, float, float, float]
    quantity: int


class ChoicesOut(Out):
    """What the page offers to choose from; the core knows what there is."""

    recipes: list[RecipeOut]
    directions: list[str]
    feels: list[str]
    results: list[str]
    stock_kinds: list[str]
    machine_kinds: list[str]
    usual_speeds: dict[str, SpeedValues]
    fonts: list[str]
    reliefs: list[str]
    operations: dict[Operation, str]
    mark_lengths: dict[str, list[str]]


DesignCard.model_rebuild()
