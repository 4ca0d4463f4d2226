"""The border of the rack and the machines. Lengths may be numbers in mm or texts in `unit`."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from lean_notch.documents.plain import in_unit
from lean_notch.hand_over.files import FileFormat
from lean_notch.lengths.units import Unit
from ninja import Schema
from pydantic import Field

from .measuring import ReadingsOut
from .typed import LengthIn, NumberIn, Operation, typed_in_unit


class SizeIn(Schema):
    """Sheets of one size at hand; no count: as many as a job needs."""

    width: LengthIn
    height: LengthIn
    count: int | Annotated[str, Field(max_length=20)] | None = None


class OffCutIn(Schema):
    """What is left of a sheet, by its corners."""

    name: Annotated[str, Field(max_length=120)]
    outline: Annotated[list[tuple[LengthIn, LengthIn]], Field(max_length=500)]
    note: Annotated[str, Field(max_length=1000)] = ""


class RuleIn(Schema):
    """Whether a board is `never` cut on a kind of machine, or may be whatever is usual for its kind; and why."""

    never: bool
    reason: Annotated[str, Field(max_length=200, examples=["Smells of chlorine in the flame"])]


class LimitsIn(Schema):
    """The least that is cut of a board: the web between two cuts, a hole, capitals; and on which machines never. Empty for what is
    usual for its kind. `density` is in kg/m³."""

    web: LengthIn | None = None
    hole: LengthIn | None = None
    text: LengthIn | None = None
    density: float | Annotated[str, Field(max_length=20)] | None = None
    laser: RuleIn | None = None
    router: RuleIn | None = None


class KindLimitsIn(LimitsIn):
    """Those that are given are changed."""

    unit: Unit = "mm"

    def document(self) -> dict[str, Any]:
        given = self.model_dump(exclude_unset=True, exclude={"unit"})
        return typed_in_unit(given, self.unit, ("web", "hole", "text"))


class StockIn(Schema):
    """A board on the rack, as measured."""

    name: Annotated[str, Field(max_length=120, examples=["Poplar ply"])]
    kind: str = "plywood"
    nominal: LengthIn
    readings: Annotated[list[LengthIn], Field(max_length=100, examples=[[3.02, 3.05, 3.06]])]
    sheet_width: LengthIn
    sheet_height: LengthIn
    sheets: int | Annotated[str, Field(max_length=20)] | None = None
    other_sheets: Annotated[list[SizeIn], Field(max_length=50)] = []
    offcuts: Annotated[list[OffCutIn], Field(max_length=200)] = []
    direction: str = "none"
    price: float | Annotated[str, Field(max_length=20)] | None = None
    note: Annotated[str, Field(max_length=1000)] = ""
    limits: LimitsIn = Field(default_factory=lambda: LimitsIn())
    made_of: Annotated[str, Field(max_length=60)] = ""
    unit: Unit = "mm"

    def document(self) -> dict[str, Any]:
        """What is given, as the core reads it; fields that are left out stay out."""
        given, unit = self.model_dump(exclude_unset=True, exclude={"unit"}), self.unit
        document = typed_in_unit(given, unit, ("nominal", "sheet_width", "sheet_height"))
        if "readings" in given:
            document["readings"] = [in_unit(value, unit) for value in given["readings"]]
        if "other_sheets" in given:
            document["other_sheets"] = [
                typed_in_unit(size, unit, ("width", "height")) for size in given["other_sheets"]
            ]
        if "limits" in given:
            document["limits"] = typed_in_unit(given["limits"], unit, ("web", "hole", "text"))
        if "offcuts" in given:
            document["offcuts"] = [
                {**cut, "outline": [[in_unit(x, unit), in_unit(y, unit)] for x, y in cut["outline"]]}
                for cut in given["offcuts"]
            ]
        return document


class StockChange(StockIn):
    """Some of a board's fields; the others stay as somebody else may just have left them."""

    name: Annotated[str, Field(max_length=120)] = ""
    nominal: LengthIn = 0
    readings: Annotated[list[LengthIn], Field(max_length=100)] = []
    sheet_width: LengthIn = 0
    sheet_height: LengthIn = 0


class SpeedValues(Schema):
    """mm/s; the acceleration mm/s²."""

    cut: float
    score: float
    engrave: float
    pocket: float
    travel: float
    acceleration: float


class ToolIn(Schema):
    """A router's cutter."""

    name: Annotated[str, Field(max_length=60, examples=["6 mm two-flute"])]
    diameter: LengthIn
    flute_length: LengthIn
    flutes: int | Annotated[str, Field(max_length=4)] = 2


class KeepOutIn(Schema):
    """A place on the bed that nothing may be cut at, from the bed's lower left corner."""

    name: Annotated[str, Field(max_length=60, examples=["Front clamp"])]
    x: LengthIn
    y: LengthIn
    width: LengthIn
    height: LengthIn


Corner = Literal["lower left", "lower right", "upper right", "upper left"]


class MachineIn(Schema):
    """A machine, with its bed and its kerf."""

    name: Annotated[str, Field(max_length=120, examples=["Shed laser"])]
    kind: str = "laser"
    bed_width: LengthIn
    bed_height: LengthIn
    kerf: LengthIn
    speeds: SpeedValues | None = None
    origin: Corner = "lower left"
    x_axis: Literal["right", "left"] = "right"
    y_axis: Literal["up", "down"] = "up"
    tools: Annotated[list[ToolIn], Field(max_length=100)] = []
    tool: Annotated[str, Field(max_length=60)] = ""
    keep_outs: Annotated[list[KeepOutIn], Field(max_length=100)] = []
    unit: Unit = "mm"

    def document(self) -> dict[str, Any]:
        """What is given, as the core reads it; fields that are left out stay out."""
        given, unit = self.model_dump(exclude_unset=True, exclude={"unit"}), self.unit
        document = typed_in_unit(given, unit, ("bed_width", "bed_height", "kerf"))
        for name, lengths in (("tools", ("diameter", "flute_length")), ("keep_outs", ("x", "y", "width", "height"))):
            if name in given:
                document[name] = [typed_in_unit(one, unit, lengths) for one in given[name]]
        return document


class MachineChange(MachineIn):
    """Some of a machine's fields; the others stay as somebody else may just have left them."""

    name: Annotated[str, Field(max_length=120)] = ""
    bed_width: LengthIn = 0
    bed_height: LengthIn = 0
    kerf: LengthIn = 0


class LayerValues(Schema):
    """Where an operation goes in a file."""

    name: Annotated[str, Field(max_length=40, examples=["CUT"])]
    colour: Annotated[str, Field(max_length=7, examples=["#000000"])]
    include: bool = True


class ProfileValues(Schema):
    """A hand-over profile; all lengths in mm. What is left out is plain."""

    name: Annotated[str, Field(max_length=80, examples=["Outside cutter"])] = "Plain"
    format: FileFormat = "svg"
    layers: dict[Operation, LayerValues] = {}
    order: Annotated[list[Operation], Field(max_length=6)] = []
    split: Literal["sheet", "part", "operation"] = "sheet"
    unit: Unit = "mm"
    origin: Literal["plain", "lower left", "upper left", "lower right", "upper right", "centre"] = "plain"
    y_down: bool = False
    stroke_mm: LengthIn = 0.1
    reference_square: bool = False
    labels: bool = False
    engrave: Literal["outline", "filled", "hatch"] = "outline"
    hatch_mm: LengthIn = 0.2
    lead_in_mm: LengthIn = 0.0


class ProfileIn(ProfileValues):
    """`machine` is the workshop's own machine that the files are for, none for a receiver outside."""

    machine: int | None = None


class ProfileOut(Schema):
    id: int
    machine: int | None = Field(alias="machine_id")
    document: ProfileValues


class SizeValues(Schema):
    width: float
    height: float
    count: int | None


class OffCutValues(Schema):
    name: str
    outline: list[tuple[float, float]]
    note: str


class RuleValues(Schema):
    never: bool
    reason: str


class LimitsValues(Schema):
    web: float | None = None
    hole: float | None = None
    text: float | None = None
    density: float | None = None
    laser: RuleValues | None = None
    router: RuleValues | None = None


class StockValues(Schema):
    """A stock's document with all lengths in mm."""

    name: str
    kind: str
    nominal: float
    readings: list[float]
    sheet_width: float
    sheet_height: float
    sheets: int | None
    other_sheets: list[SizeValues] = []
    offcuts: list[OffCutValues] = []
    direction: str = "none"
    price: float | None = None
    note: str = ""
    id: str = ""
    measured: str = ""
    limits: LimitsValues = LimitsValues()
    made_of: str = ""


class ToolValues(Schema):
    name: str
    diameter: float
    flute_length: float
    flutes: int


class KeepOutValues(Schema):
    name: str
    x: float
    y: float
    width: float
    height: float


class FoundValues(Schema):
    """Where a kerf comes from."""

    way: str
    stock: str
    thickness: float
    date: str
    within: float
    stock_id: str = ""


class MachineValues(Schema):
    """A machine's document with all lengths in mm."""

    name: str
    kind: str
    bed_width: float
    bed_height: float
    kerf: float
    speeds: SpeedValues | None = None
    found: FoundValues | None = None
    origin: Corner = "lower left"
    x_axis: Literal["right", "left"] = "right"
    y_axis: Literal["up", "down"] = "up"
    tools: list[ToolValues] = []
    tool: str = ""
    keep_outs: list[KeepOutValues] = []
    id: str = ""


class StockOut(Schema):
    """`readings` says what its document's readings amount to, `usual` what holds for its kind here where it has no limits of its
    own."""

    id: int
    document: StockValues
    usual: LimitsValues
    thickness: float
    readings: ReadingsOut
    measurements: int


class MachineOut(Schema):
    id: int
    document: MachineValues


class CutSettingIn(Schema):
    """What a machine was set to; numbers that do not apply stay empty."""

    stock: Annotated[str, Field(max_length=120)]
    kind: str
    thickness: LengthIn
    operation: Operation = "cut"
    result: str = "clean"
    date: Annotated[str, Field(max_length=40)] | None = None
    power: NumberIn = None
    speed: NumberIn = None
    passes: NumberIn = None
    tool: Annotated[str, Field(max_length=60)] = ""
    spindle: NumberIn = None
    feed: NumberIn = None
    depth: NumberIn = None
    ramp: NumberIn = None
    note: Annotated[str, Field(max_length=500)] = ""
    unit: Unit = "mm"

    def document(self) -> dict[str, Any]:
        given = {name: value for name, value in self.model_dump(exclude={"unit"}).items() if value is not None}
        return typed_in_unit(given, self.unit, ("thickness",))


class CutSettingOut(Schema):
    """`said` is all its numbers in one line; `hints` are by formula, for the board that was asked about."""

    id: int
    said: str
    stock: str
    kind: str
    thickness: float
    operation: Operation
    date: str
    result: str
    power: float | None
    speed: float | None
    passes: int
    tool: str
    spindle: float | None
    feed: float | None
    depth: float | None
    ramp: float | None
    by: str
    note: str
    hints: list[str] = []


class UsesOut(Schema):
    """Jobs that are of a board or a machine: one's own by name, and how many of other makers."""

    own: list[str]
    others: int
