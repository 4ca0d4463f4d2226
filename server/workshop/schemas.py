"""The border of the rack and the machines. Lengths may be numbers in mm or texts in `unit`."""

from __future__ import annotations

from typing import Annotated, Any

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


class MachineIn(Schema):
    """A machine, with its bed and its kerf."""

    name: Annotated[str, Field(max_length=120, examples=["Shed laser"])]
    kind: str = "laser"
    bed_width: LengthIn
    bed_height: LengthIn
    kerf: LengthIn
    unit: Unit = "mm"

    def document(self) -> dict[str, Any]:
        return _in_unit(self.model_dump(exclude={"unit"}), self.unit, ("bed_width", "bed_height", "kerf"))


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
