"""The kerf notebook: in, its entries, a machine and a board; out, which entries may be used for them, and with what doubt."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from typing import Literal

from ..lengths.said import say_mm
from .fits import FitScale
from .machine import KerfFound, Machine
from .stock import Board

Way = Literal["slats", "plug", "comb"]
WAYS: tuple[Way, ...] = ("slats", "plug", "comb")
WAY_TITLES = {"slats": "row of slats", "plug": "plug and hole", "comb": "fit comb"}

SAME_THICKNESS_SHARE = 0.03
SAME_THICKNESS_MM = 0.1
SAME_KERF_MM = 0.01
"""Twice that is half a step of a usual comb."""


OLD_DAYS = 180
"""A kerf found longer ago is worth measuring again: lenses dull, belts stretch. Common practice."""


def grown_old(found: str, today: date) -> int | None:
    """How many days ago a kerf was found, where that is too long; `found` is its day as an ISO date.

    >>> grown_old("2026-01-02", date(2026, 11, 25)), grown_old("2026-11-02", date(2026, 11, 25))
    (327, None)
    """
    days = (today - date.fromisoformat(found[:10])).days
    return days if days > OLD_DAYS else None


@dataclass(frozen=True)
class Entry:
    """What a test piece told on one day: a kerf (within `within` mm in 95 of 100 cases), or a scale of fits.

    `machine` and `stock` are the workshop's ids; `thickness` is what the board measured then, `tool` what was in the
    spindle; `cut_with` is the kerf that a comb was compensated for. Entries that are no longer `valid` stay, and are offered
    no more.
    """

    id: str
    way: Way
    machine: str
    stock: str
    stock_name: str
    thickness: float
    date: str
    by: str = ""
    kerf: float | None = None
    within: float = 0.0
    fits: FitScale | None = None
    cut_with: float | None = None
    tool: str = ""
    valid: bool = True

    @property
    def found(self) -> KerfFound:
        return KerfFound(self.way, self.stock_name, self.thickness, self.date, self.within, self.stock)


@dataclass(frozen=True)
class Offer:
    """An entry that may be used, with what speaks against it; the first of several without `warnings` is the one."""

    entry: Entry
    warnings: tuple[str, ...]


def offers(entries: Sequence[Entry], machine: Machine, stock: Board) -> tuple[Offer, ...]:
    """Valid entries of this machine, those without a doubt first, the newest first among either."""
    own = [
        entry for entry in entries if entry.valid and entry.machine == machine.id and entry.tool in ("", machine.tool)
    ]
    newest = sorted(own, key=lambda entry: entry.date, reverse=True)
    doubted = {e.id: doubts(e.stock_name, e.thickness, stock, same=e.stock == stock.id) for e in newest}
    kerf = next((entry.kerf for entry in newest if entry.kerf is not None and not doubted[entry.id]), None)
    told = [Offer(entry, doubted[entry.id] + _comb_doubts(entry, kerf)) for entry in newest]
    return tuple(sorted(told, key=lambda offer: bool(offer.warnings)))


def _comb_doubts(entry: Entry, kerf: float | None) -> tuple[str, ...]:
    """A comb that was compensated for another kerf than is known now has all its clearances off by twice the difference."""
    if entry.cut_with is None or kerf is None or abs(kerf - entry.cut_with) <= SAME_KERF_MM:
        return ()
    return (f"cut for a kerf of {say_mm(entry.cut_with)}, which is {say_mm(kerf)} now: cut another comb",)


def same_thickness(one: float, other: float) -> bool:
    """Whether what was found or set at `other` mm may be used at `one`."""
    return abs(one - other) <= max(SAME_THICKNESS_MM, SAME_THICKNESS_SHARE * other)


def sure_of(offered: Sequence[Offer]) -> tuple[Entry | None, Entry | None]:
    """The entries to use unasked: the newest without a doubt that has a kerf, and the newest with fits."""
    sure = [offer.entry for offer in offered if not offer.warnings]
    kerf = next((entry for entry in sure if entry.kerf is not None), None)
    return kerf, next((entry for entry in sure if entry.fits is not None), None)


def doubts(name: str, thickness: float, stock: Board, *, same: bool) -> tuple[str, ...]:
    """What speaks against using on `stock` what was found on the board called `name` of that `thickness`."""
    said = []
    now = stock.readings.mean
    if not same_thickness(now, thickness):
        said.append(
            f"measured on {say_mm(thickness, 2)}; this board measures {say_mm(now, 2)}, and the kerf varies with thickness"
        )
    if not same:
        said.append(f"found on {name}, not on {stock.name}")
    return tuple(said)
