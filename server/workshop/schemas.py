"""The border of the rack and the machines. Lengths may be numbers in mm or texts in `unit`."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from lean_notch.documents import in_unit
from lean_notch.units import Unit
from ninja import Schema
from pydantic import Field

LengthIn = float | Annotated[str, Field(max_length=200)]


class StockIn(Schema):
    """A board on the rack, as measured."""

    name: Annotated[str, Field(max_length=120, examples=["Poplar ply"])]
    kind: str = "plywood"
    nominal: LengthIn
    readings: Annotated[list[LengthIn], Field(max_length=100, examples=[[3.02, 3.05, 3.06]])]
    sheet_width: LengthIn
    sheet_height: LengthIn
    sheets: int | Annotated[str, Field(max_length=20)] | None = None
    unit: Unit = "mm"

    def document(self) -> dict[str, Any]:
        return _in_unit(self.model_dump(exclude={"unit"}), self.unit, ("nominal", "sheet_width", "sheet_height"))


class SpeedValues(Schema):
    """mm/s; the acceleration mm/s²."""

    cut: float
    score: float
    engrave: float
    pocket: float
    travel: float
    acceleration: float


class MachineIn(Schema):
    """A machine, with its bed and its kerf."""

    name: Annotated[str, Field(max_length=120, examples=["Shed laser"])]
    kind: str = "laser"
    bed_width: LengthIn
    bed_height: LengthIn
    kerf: LengthIn
    speeds: SpeedValues | None = None
    unit: Unit = "mm"

    def document(self) -> dict[str, Any]:
        return _in_unit(self.model_dump(exclude={"unit"}), self.unit, ("bed_width", "bed_height", "kerf"))


Operation = Literal["cut", "score", "engrave", "pocket", "fold", "reference"]


class LayerValues(Schema):
    """Where an operation goes in a file."""

    name: Annotated[str, Field(max_length=40, examples=["CUT"])]
    colour: Annotated[str, Field(max_length=7, examples=["#000000"])]
    include: bool = True


class ProfileValues(Schema):
    """A hand-over profile; all lengths in mm. What is left out is plain."""

    name: Annotated[str, Field(max_length=80, examples=["Outside cutter"])] = "Plain"
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


class ProfileOut(Schema):
    id: int
    document: ProfileValues


class StockValues(Schema):
    """A stock's document with all lengths in mm."""

    name: str
    kind: str
    nominal: float
    readings: list[float]
    sheet_width: float
    sheet_height: float
    sheets: int | None


class MachineValues(Schema):
    """A machine's document with all lengths in mm."""

    name: str
    kind: str
    bed_width: float
    bed_height: float
    kerf: float
    speeds: SpeedValues | None = None


class StockOut(Schema):
    """`thickness` is the mean of the readings."""

    id: int
    document: StockValues
    thickness: float


class MachineOut(Schema):
    id: int
    document: MachineValues


def _in_unit(document: dict[str, Any], unit: Unit, lengths: tuple[str, ...]) -> dict[str, Any]:
    """The texts among `lengths` and the readings, said to be typed in `unit`."""
    changed = {name: in_unit(document[name], unit) for name in lengths}
    if "readings" in document:
        changed["readings"] = [in_unit(value, unit) for value in document["readings"]]
    return {**document, **changed}
