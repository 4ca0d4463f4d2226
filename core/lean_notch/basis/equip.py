"""A basis from the workshop's boards, machines and notebook: what the newest entry without a doubt says is taken."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from .basis import Basis
from .fits import COMMON_FITS, FITS, FitScale
from .machine import Machine
from .notebook import Entry, offers, sure_of
from .stock import Stock

START_CLEARANCE = COMMON_FITS.snug


def with_kerf(machine: Machine, entry: Entry) -> Machine:
    """The machine with the kerf that an entry found, which then is known to come from there."""
    assert entry.kerf is not None, "only entries with a kerf set one"
    return replace(machine, kerf=entry.kerf, found=entry.found)


def equipped(stock: Stock, machine: Machine, entries: Sequence[Entry], before: Basis | None = None) -> Basis:
    """`stock` on `machine`, with the notebook's kerf and fits for just these; what it does not know stays as it is.

    What was chosen in `before` is kept: the sheet of the same board, the tool and kerf of the same machine with the same
    board, a fit by its word, a typed clearance by its number. A kerf of another board is not taken: it has to be asked for.
    """
    same_board = before is not None and bool(stock.id) and stock.id == before.stock.id
    same_machine = before is not None and bool(machine.id) and machine.id == before.machine.id
    if before and same_board:
        stock = _on_sheet_of(stock, before.stock)
    if before and same_machine and any(tool.name == before.machine.tool for tool in machine.tools):
        machine = machine.with_tool(before.machine.tool)
    if before and same_board and same_machine:
        machine = replace(machine, kerf=before.kerf, found=before.machine.found)
        return replace(before, stock=stock, machine=machine)
    kerf, comb = sure_of(offers(entries, machine, stock))
    scale = comb.fits if comb and comb.fits else COMMON_FITS
    return Basis(stock, with_kerf(machine, kerf) if kerf else machine, _clearance(before, scale), scale)


def _on_sheet_of(stock: Stock, before: Stock) -> Stock:
    """`stock` laid out on the size of sheet that `before` was, if it is still at hand."""
    sizes = [(size.width, size.height) for size in stock.sizes]
    chosen = (before.sheet_width, before.sheet_height)
    return stock.cut_from(sizes.index(chosen)) if chosen in sizes else stock


def news_of_stock(mine: Stock, rack: Stock) -> tuple[str, ...]:
    """What the rack says of a board otherwise than a job's copy of it; empty if nothing."""
    said = {
        "thickness": mine.readings != rack.readings,
        "sheets": set(mine.sizes) != set(rack.sizes),
        "off-cuts": mine.offcuts != rack.offcuts,
        **{name: getattr(mine, name) != getattr(rack, name) for name in ("name", "kind", "direction", "price", "note")},
        "what it is sold as": mine.nominal != rack.nominal,
    }
    return tuple(name for name, differs in said.items() if differs)


def news_of_machine(mine: Machine, workshop: Machine) -> tuple[str, ...]:
    """What the workshop says of a machine otherwise than a job's copy of it; empty if nothing. Kerf and tool are a job's own."""
    said = {
        "bed": (mine.bed_width, mine.bed_height) != (workshop.bed_width, workshop.bed_height),
        "what to keep clear of": mine.keep_outs != workshop.keep_outs,
        "axes": (mine.origin, mine.x_axis, mine.y_axis) != (workshop.origin, workshop.x_axis, workshop.y_axis),
        **{name: getattr(mine, name) != getattr(workshop, name) for name in ("name", "kind", "speeds", "tools")},
    }
    return tuple(name for name, differs in said.items() if differs)


def with_fits(basis: Basis, scale: FitScale) -> Basis:
    """`basis` judged by another scale; a fit chosen by its word is kept by its word."""
    return replace(basis, clearance=_clearance(basis, scale), fits=scale)


def _clearance(before: Basis | None, scale: FitScale) -> float:
    if before is None:
        return scale.snug
    named = next((name for name in FITS if getattr(before.fits, name) == before.clearance), None)
    return float(getattr(scale, named)) if named else before.clearance
