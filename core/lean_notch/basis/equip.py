"""A basis from the workshop's boards, machines and notebook: what the newest entry without a doubt says is taken."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from .basis import BoardBasis
from .fits import COMMON_FITS, FITS, FitScale
from .machine import Machine
from .notebook import Entry, offers, sure_of
from .stock import Board, Stock

START_CLEARANCE = COMMON_FITS.snug


def with_kerf(machine: Machine, entry: Entry) -> Machine:
    """The machine with the kerf that an entry found, which then is known to come from there."""
    assert entry.kerf is not None, "only entries with a kerf set one"
    return replace(machine, kerf=entry.kerf, found=entry.found)


def equipped(stock: Board, machine: Machine, entries: Sequence[Entry], before: BoardBasis | None = None) -> BoardBasis:
    """`stock` on `machine`, with the notebook's kerf and fits for just these; what it does not know stays as it is.

    What was chosen in `before` is kept: the sheet of the same board, the tool and kerf of the same machine with the same
    board, a fit by its word, a typed clearance by its number. A kerf of another board is not taken: it has to be asked for.
    """
    same_board = before is not None and bool(stock.id) and stock.id == before.stock.id
    same_machine = before is not None and bool(machine.id) and machine.id == before.machine.id
    board = stock.board if isinstance(stock, Stock) else stock
    if before and same_board:
        board = _on_sheet_of(board, before.stock)
    if before and same_machine and any(tool.name == before.machine.tool for tool in machine.tools):
        machine = machine.with_tool(before.machine.tool)
    if before and same_board and same_machine:
        machine = replace(machine, kerf=before.kerf, found=before.machine.found)
        return replace(before, stock=board, machine=machine)
    kerf, comb = sure_of(offers(entries, machine, stock))
    scale = comb.fits if comb and comb.fits else COMMON_FITS
    return BoardBasis(board, with_kerf(machine, kerf) if kerf else machine, _clearance(before, scale), scale)


def _on_sheet_of(stock: Board, before: Board) -> Board:
    """`stock` laid out on the size of sheet that `before` was, if it is still at hand."""
    sizes = [(size.width, size.height) for size in stock.sizes]
    chosen = (before.sheet_width, before.sheet_height)
    return stock.cut_from(sizes.index(chosen)) if chosen in sizes else stock


def with_fits(basis: BoardBasis, scale: FitScale) -> BoardBasis:
    """`basis` judged by another scale; a fit chosen by its word is kept by its word."""
    return replace(basis, clearance=_clearance(basis, scale), fits=scale)


def _clearance(before: BoardBasis | None, scale: FitScale) -> float:
    if before is None:
        return scale.snug
    named = next((name for name in FITS if getattr(before.fits, name) == before.clearance), None)
    return float(getattr(scale, named)) if named else before.clearance
