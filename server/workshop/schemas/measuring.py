"""Test pieces, what was measured on them, the notebook, and a machine to practise on."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from lean_notch.cutting.profile import FileFormat
from lean_notch.documents.plain import in_unit
from lean_notch.lengths.units import Unit
from lean_notch.recipes import SettingKind
from ninja import Schema
from pydantic import Field

from .typed import LengthIn, Operation

Readings = Annotated[list[LengthIn], Field(max_length=100)]


Way = Literal["slats", "plug", "comb"]


class ReadingsIn(Schema):
    """Readings to look at before they are kept."""

    readings: Annotated[list[LengthIn], Field(max_length=100)]
    unit: Unit = "mm"

    def document(self) -> list[object]:
        return [in_unit(value, self.unit) for value in self.readings]


class ReadingsOut(Schema):
    """`deviation` is that of a single reading; `outliers` are indices."""

    values: list[float]
    mean: float
    thin: float
    thick: float
    spread: float
    deviation: float | None
    outliers: list[int]
    warnings: list[str]


class MeasurementOut(Schema):
    id: int
    taken: datetime
    by: str
    readings: ReadingsOut


class PieceIn(Schema):
    """A test piece for a board and a machine; settings are texts in `unit`."""

    way: Way
    stock: int
    machine: int
    settings: dict[str, Annotated[str, Field(max_length=200)]] = {}
    unit: Unit = "mm"


class PieceFileIn(PieceIn):
    format: Literal["svg", "dxf", "dxf-r12", "pdf"] = "svg"


class PracticeIn(PieceIn):
    seed: Annotated[int, Field(ge=0, le=10**9)]


class ToldIn(PieceIn):
    """What a cut test piece told: readings in `unit`, or how each pair felt."""

    row: Readings = []
    hole: Readings = []
    plug: Readings = []
    answers: Annotated[list[Annotated[str, Field(max_length=20)]], Field(max_length=40)] = []
    note: Annotated[str, Field(max_length=500)] = ""

    def told(self) -> dict[str, object]:
        lengths = {name: [in_unit(v, self.unit) for v in getattr(self, name)] for name in ("row", "hole", "plug")}
        return {**lengths, "answers": self.answers}


class PieceSettingOut(Schema):
    name: str
    title: str
    kind: SettingKind
    help: str
    text: str


class LineOut(Schema):
    operation: Operation
    path: str


class PieceOut(Schema):
    """A test piece as it will be cut: its `lines` on a `box` of the sheet, and what to do with it. `clearances` are a
    comb's, by pair; `kerf_note` says which kerf it is compensated for."""

    title: str
    about: str
    instructions: list[str]
    settings: list[PieceSettingOut]
    box: tuple[float, float, float, float]
    lines: list[LineOut]
    area: float
    file_names: dict[FileFormat, str]
    clearances: list[float]
    kerf_note: str
    kerf_known: bool


class ScaleValues(Schema):
    """The clearance each fit is made with, and the five limits between the six words."""

    press: float
    snug: float
    slide: float
    free: float
    limits: list[float]


class PieceReadOut(Schema):
    """A kerf with its uncertainty (95 of 100 cases within `within`), or a scale of fits, and the readings in mm."""

    kerf: float | None = None
    standard: float | None = None
    within: float
    because: str
    row: list[float] = []
    hole: list[float] = []
    plug: list[float] = []
    fits: ScaleValues | None = None
    notes: list[str] = []


class PracticeOut(Schema):
    """`kerf` is what slats told first, where the piece is a comb."""

    kerf: float | None
    way: Way
    thickness: list[float]
    row: list[float]
    hole: list[float]
    plug: list[float]
    answers: list[str]


class TruthOut(Schema):
    """What a practice machine hides: its kerf, and the clearances at which its five feels change, in mm."""

    kerf: float
    limits: list[float]


class EntryOut(Schema):
    """`warnings` speak against using it for the board that was asked about; `offered` is the one to use for it."""

    id: int
    way: Way
    stock_name: str
    thickness: float
    tool: str
    kerf: float | None
    within: float
    fits: ScaleValues | None
    row: list[float]
    hole: list[float]
    plug: list[float]
    answers: list[str]
    made: datetime
    by: str
    note: str
    valid: bool
    warnings: list[str]
    offered: bool


class ValidIn(Schema):
    valid: bool
