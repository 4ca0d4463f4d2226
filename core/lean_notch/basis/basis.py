"""Stock, machine and clearance together: the four numbers that decide whether parts fit."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any

from ..documents import entry, mapping, mm
from ..errors import KerfTooWide, OutOfRange
from ..units import say_mm
from .fits import COMMON_FITS, WIDEST_CLEARANCE_MM, Fit, FitScale, scale_from_json, scale_to_json
from .machine import Machine, machine_from_json, machine_to_json
from .notebook import doubts
from .stock import Stock, stock_from_json, stock_to_json

WIDEST_BEAM_MM = 0.5
"""A laser's beam is narrower; only in thin card may it be wider than the board is thick. Common practice."""


@dataclass(frozen=True)
class Basis:
    """What was measured, and the clearance chosen: how much wider a socket is than its finger, in all.

    `fits` says what a clearance feels like in this stock from this machine.
    """

    stock: Stock
    machine: Machine
    clearance: float
    fits: FitScale = COMMON_FITS

    def __post_init__(self) -> None:
        if not math.isfinite(self.clearance) or abs(self.clearance) > WIDEST_CLEARANCE_MM:
            raise OutOfRange(
                f"The clearance is {say_mm(self.clearance)}.",
                fix="Give a clearance between -5 mm and 5 mm; snug is about 0.02 mm.",
                field="clearance",
            )
        if self.machine.kind == "laser" and self.kerf > max(self.thickness, WIDEST_BEAM_MM):
            raise KerfTooWide(
                f"A laser's kerf of {say_mm(self.kerf)} is wider than the board is thick, {say_mm(self.thickness)}.",
                fix="Check the decimal point and the unit: a beam takes 0.1 mm to 0.3 mm.",
                field="kerf",
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

    @cached_property
    def fit(self) -> str:
        """The word for the chosen clearance."""
        return self.fits.word(self.clearance)

    @property
    def squeeze(self) -> float:
        """By how much the board gives way, in mm."""
        return self.stock.traits.squeeze * self.thickness

    @cached_property
    def finger_fit(self) -> Fit:
        """Of a finger in its socket, both cut by this machine: a kerf that is `within` off makes one narrower and the
        other wider by as much."""
        off = 2 * self.machine.kerf_within
        return self._fit(self.clearance - off, self.clearance + off, "if the kerf is narrower", "if the kerf is wider")

    @cached_property
    def slot_fit(self) -> Fit:
        """Of the board itself in a slot, over all its readings."""
        readings, off = self.stock.readings, self.machine.kerf_within
        fit = self._fit(
            self.slot - readings.thick - off, self.slot - readings.thin + off,
            "where the board is thickest", "where the board is thinnest",
        )  # fmt: skip
        if len(readings.values_mm) > 1:
            return fit
        return replace(fit, warnings=(*fit.warnings, "One reading: how thick the board is elsewhere is not known."))

    def _fit(self, low: float, high: float, when_low: str, when_high: str) -> Fit:
        tightest, loosest = (self.fits.word(value, self.squeeze) for value in (low, high))
        warnings = []
        if self.stock.traits.brittle and tightest in ("press", "will not go"):
            warnings.append(f"{self.stock.name} is brittle: a press fit may crack it. Choose snug or slide, and glue.")
        return Fit(low, high, tightest, loosest, self.fit, when_low, when_high, tuple(warnings))

    @cached_property
    def doubts(self) -> tuple[str, ...]:
        """What speaks against the kerf that is used here; empty for one that was typed."""
        found = self.machine.found
        if found is None:
            return ()
        # By its number, where it has one: a board may have been renamed since.
        known = found.stock_id and self.stock.id
        same = found.stock_id == self.stock.id if known else found.stock == self.stock.name
        return tuple(f"The kerf was {doubt}." for doubt in doubts(found.stock, found.thickness, self.stock, same=same))

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


def basis_from_json(document: object) -> Basis:
    """A Basis from its document. Raises NotchError at the field."""
    top = mapping(document, "basis")
    fits = top.get("fits")
    return Basis(
        stock_from_json(entry(top, "stock")),
        machine_from_json(entry(top, "machine")),
        mm(entry(top, "clearance"), "clearance"),
        COMMON_FITS if fits is None else scale_from_json(fits),
    )


def basis_to_json(basis: Basis) -> dict[str, Any]:
    """The document that `basis_from_json` reads, all lengths in mm."""
    return {
        "stock": stock_to_json(basis.stock),
        "machine": machine_to_json(basis.machine),
        "clearance": basis.clearance,
        "fits": scale_to_json(basis.fits),
    }
