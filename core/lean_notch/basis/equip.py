"""A basis from the workshop's boards, machines and notebook: what the newest entry without a doubt says is taken."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from .basis import Basis
from .fits import COMMON_FITS, FITS, FitScale
from .machine import Machine
from .notebook import Entry, offers
from .stock import Stock

START_CLEARANCE = COMMON_FITS.snug


def with_kerf(machine: Machine, entry: Entry) -> Machine:
    """The machine with the kerf that an entry found, which then is known to come from there."""
    assert entry.kerf is not None, "only entries with a kerf set one"
    return replace(machine, kerf=entry.kerf, found=entry.found)


def equipped(stock: Stock, machine: Machine, entries: Sequence[Entry], before: Basis | None = None) -> Basis:
    """`stock` on `machine`, with the notebook's kerf and fits for just these; what it does not know stays as it is.

    A fit chosen by its word in `before` is kept by its word, a typed clearance by its number. A kerf of another board is
    not taken: it has to be asked for.
    """
    sure = [offer.entry for offer in offers(entries, machine, stock) if not offer.warnings]
    kerf = next((entry for entry in sure if entry.kerf is not None), None)
    scale = next((entry.fits for entry in sure if entry.fits is not None), COMMON_FITS)
    return Basis(stock, with_kerf(machine, kerf) if kerf else machine, _clearance(before, scale), scale)


def with_fits(basis: Basis, scale: FitScale) -> Basis:
    """`basis` judged by another scale; a fit chosen by its word is kept by its word."""
    return replace(basis, clearance=_clearance(basis, scale), fits=scale)


def _clearance(before: Basis | None, scale: FitScale) -> float:
    if before is None:
        return scale.snug
    named = next((name for name in FITS if getattr(before.fits, name) == before.clearance), None)
    return float(getattr(scale, named)) if named else before.clearance
