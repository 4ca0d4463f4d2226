"""What a job is made of, as the page gets it to draw: parts, joints, sheets, boards. Lengths are mm, y points up."""

from __future__ import annotations

from typing import Any, Literal

from ground.problems import Problem
from lean_notch.design import Uses
from lean_notch.ground.findings import Finding
from lean_notch.ground.operations import Operation
from lean_notch.hand_over.files import FileFormat
from lean_notch.lengths.units import Unit
from lean_notch.making.sizes import SizeOnPart
from lean_notch.nesting.problem import TurnedAbout
from lean_notch.recipes import Setting
from pydantic import BaseModel, ConfigDict
from workshop.schemas import MachineValues, StockValues

Corners = tuple[float, float, float, float]
"""Left, low, right, high."""


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
