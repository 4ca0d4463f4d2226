"""Stock, machine and clearance together: the four numbers that decide whether parts fit."""

from __future__ import annotations

import math
from dataclasses import asdict, dataclass, fields
from typing import Any

from ..documents import choice, entry, mapping, mm, sequence, text, whole
from ..errors import KerfTooWide, OutOfRange
from ..units import positive_mm, say_mm
from .readings import MOST_READINGS, Readings

STOCK_KINDS = (
    "plywood", "MDF", "solid wood", "acrylic", "corrugated board", "card", "cloth", "leather", "aluminium", "composite",
)  # fmt: skip
MACHINE_KINDS = ("laser", "router")
LARGEST_BED_MM = 20_000.0
WIDEST_KERF_MM = 50.0

FITS: dict[str, float] = {"press": -0.02, "snug": 0.02, "slide": 0.15, "free": 0.3}
"""The clearance each fit starts from. Common practice: a thousandth of an inch (0.025 mm) is one step of feel;
0.025 on quarter-inch ply closes with a light mallet; 0.10 on a 3.95 mm insert is still snug."""

_SNUG_UP_TO = 0.10
_SLIDES_UP_TO = 0.25


def fit_name(clearance: float) -> str:
    """The word for a clearance in mm: press, snug, slide or free.

    >>> fit_name(-0.02), fit_name(0.02), fit_name(0.10), fit_name(0.2), fit_name(0.3)
    ('press', 'snug', 'snug', 'slide', 'free')
    """
    if clearance < 0:
        return "press"
    if clearance <= _SNUG_UP_TO:
        return "snug"
    return "slide" if clearance <= _SLIDES_UP_TO else "free"


@dataclass(frozen=True)
class Stock:
    """A board on the rack: what it is sold as, what it measures, and the sheets of it at hand.

    `sheets` is how many sheets there are, or None for as many as the job needs.
    """

    name: str
    kind: str
    nominal: float
    readings: Readings
    sheet_width: float
    sheet_height: float
    sheets: int | None = None

    def __post_init__(self) -> None:
        positive_mm(self.nominal, "stock.nominal", "The thickness it is sold as", 200)
        positive_mm(self.sheet_width, "stock.sheet_width", "The sheet's width", LARGEST_BED_MM)
        positive_mm(self.sheet_height, "stock.sheet_height", "The sheet's height", LARGEST_BED_MM)


@dataclass(frozen=True)
class Speeds:
    """In mm/s, the acceleration in mm/s². `score` is also that of fold lines."""

    cut: float
    score: float
    engrave: float
    pocket: float
    travel: float
    acceleration: float

    def __post_init__(self) -> None:
        for name, value in asdict(self).items():
            if not (math.isfinite(value) and 0 < value <= 1e5):
                raise OutOfRange(
                    f"The machine's {name} is {value:g}.",
                    fix="Give a speed of more than 0, in mm/s (acceleration in mm/s²).",
                    field=f"machine.speeds.{name}",
                )


USUAL_SPEEDS = {
    "laser": Speeds(cut=15, score=80, engrave=300, pocket=100, travel=200, acceleration=2000),
    "router": Speeds(cut=25, score=40, engrave=30, pocket=30, travel=80, acceleration=300),
}
"""Orders of size for small workshop machines, until their own are given. Common practice."""


@dataclass(frozen=True)
class Machine:
    """A laser or router: its bed, and the width of what its beam or tool takes away (the kerf).

    `speeds` are None until they are given; `usual` then stands in for estimates.
    """

    name: str
    kind: str
    bed_width: float
    bed_height: float
    kerf: float
    speeds: Speeds | None = None

    @property
    def usual(self) -> Speeds:
        """Its own speeds, or those of its kind."""
        return self.speeds or USUAL_SPEEDS[self.kind]

    def __post_init__(self) -> None:
        positive_mm(self.bed_width, "machine.bed_width", "The bed's width", LARGEST_BED_MM)
        positive_mm(self.bed_height, "machine.bed_height", "The bed's height", LARGEST_BED_MM)
        if not math.isfinite(self.kerf) or self.kerf < 0:
            raise OutOfRange(
                f"The kerf is {say_mm(self.kerf)}.",
                fix="Give what the beam or tool removes, 0 mm or more: 0.1 to 0.2 mm for a laser in thin ply.",
                field="kerf",
            )
        if self.kerf > WIDEST_KERF_MM:
            raise KerfTooWide(
                f"The kerf is {say_mm(self.kerf)}.",
                fix=f"Give at most {say_mm(WIDEST_KERF_MM)}; check the decimal point and the unit.",
                field="kerf",
            )


@dataclass(frozen=True)
class Basis:
    """What was measured, and the clearance chosen: how much wider a socket is than its finger, in all."""

    stock: Stock
    machine: Machine
    clearance: float

    def __post_init__(self) -> None:
        if not math.isfinite(self.clearance) or abs(self.clearance) > 5:
            raise OutOfRange(
                f"The clearance is {say_mm(self.clearance)}.",
                fix="Give a clearance between -5 mm and 5 mm; snug is about 0.02 mm.",
                field="clearance",
            )

    @property
    def thickness(self) -> float:
        return self.stock.readings.mean

    @property
    def kerf(self) -> float:
        return self.machine.kerf

    @property
    def slot(self) -> float:
        """How wide a slot for this board is, finished."""
        return self.thickness + self.clearance

    @property
    def slot_drawn(self) -> float:
        """How wide the path is that cuts it."""
        return self.slot - self.kerf

    @property
    def sheet_area(self) -> tuple[float, float]:
        """Width and height that can be cut in one go: the sheet, as far as it lies on the bed."""
        return (
            min(self.stock.sheet_width, self.machine.bed_width),
            min(self.stock.sheet_height, self.machine.bed_height),
        )

    @property
    def names(self) -> dict[str, float]:
        """The names a design's lengths may use."""
        return {"thickness": self.thickness, "clearance": self.clearance}


def stock_from_json(document: object) -> Stock:
    """A Stock from its document; lengths may be numbers (mm) or texts ("1/8 in"). Raises NotchError at the field."""
    stock = mapping(document, "stock")
    readings = sequence(entry(stock, "readings", "stock"), "readings", MOST_READINGS)
    sheets = stock.get("sheets")
    return Stock(
        name=text(entry(stock, "name", "stock"), "stock.name"),
        kind=choice(stock.get("kind", "plywood"), STOCK_KINDS, "stock.kind"),
        nominal=mm(entry(stock, "nominal", "stock"), "stock.nominal"),
        readings=Readings(tuple(mm(value, f"readings[{i}]") for i, value in enumerate(readings))),
        sheet_width=mm(entry(stock, "sheet_width", "stock"), "stock.sheet_width"),
        sheet_height=mm(entry(stock, "sheet_height", "stock"), "stock.sheet_height"),
        sheets=None if sheets is None else whole(sheets, "stock.sheets", 1, 1000),
    )


def machine_from_json(document: object) -> Machine:
    """A Machine from its document. Raises NotchError at the field."""
    machine = mapping(document, "machine")
    return Machine(
        name=text(entry(machine, "name", "machine"), "machine.name"),
        kind=choice(machine.get("kind", "laser"), MACHINE_KINDS, "machine.kind"),
        bed_width=mm(entry(machine, "bed_width", "machine"), "machine.bed_width"),
        bed_height=mm(entry(machine, "bed_height", "machine"), "machine.bed_height"),
        kerf=mm(entry(machine, "kerf", "machine"), "kerf"),
        speeds=_speeds(machine.get("speeds")),
    )


def _speeds(document: object) -> Speeds | None:
    if document is None:
        return None
    given = mapping(document, "machine.speeds")
    names = [one.name for one in fields(Speeds)]
    return Speeds(**{name: mm(entry(given, name, "machine.speeds"), f"machine.speeds.{name}") for name in names})


def basis_from_json(document: object) -> Basis:
    """A Basis from its document. Raises NotchError at the field."""
    top = mapping(document, "basis")
    return Basis(
        stock_from_json(entry(top, "stock")),
        machine_from_json(entry(top, "machine")),
        mm(entry(top, "clearance"), "clearance"),
    )


def stock_to_json(stock: Stock) -> dict[str, Any]:
    """The document that `stock_from_json` reads, all lengths in mm."""
    document = asdict(stock)
    document["readings"] = list(stock.readings.values_mm)
    return document


def machine_to_json(machine: Machine) -> dict[str, Any]:
    """The document that `machine_from_json` reads, all lengths in mm."""
    return asdict(machine)


def basis_to_json(basis: Basis) -> dict[str, Any]:
    """The document that `basis_from_json` reads, all lengths in mm."""
    return {
        "stock": stock_to_json(basis.stock),
        "machine": machine_to_json(basis.machine),
        "clearance": basis.clearance,
    }
