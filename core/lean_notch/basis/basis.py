"""Board, machine and clearance together: the four numbers that decide whether parts fit; and those of a whole job."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any

from ..documents.plain import entry, mapping, mm
from ..ground.errors import BadDocument, KerfTooWide, MissingInput, NotchError, OutOfRange
from ..ground.limits import MOST_BOARDS
from ..lengths.said import say_mm
from .fits import COMMON_FITS, WIDEST_CLEARANCE_MM, Fit, FitScale, scale_from_json, scale_to_json
from .machine import Machine, machine_from_json, machine_to_json
from .notebook import doubts
from .stock import Board, board_from_json, stock_to_json

WIDEST_BEAM_MM = 0.5
"""A laser's beam is narrower; only in thin card may it be wider than the board is thick. Common practice."""


@dataclass(frozen=True)
class BoardBasis:
    """What was measured, and the clearance chosen: how much wider a socket is than its finger, in all.

    `fits` says what a clearance feels like in this stock from this machine. `into` are the clearances of this board in others of
    the job, by their ids, where a trial pair has told them.
    """

    stock: Board
    machine: Machine
    clearance: float
    fits: FitScale = COMMON_FITS
    into: tuple[tuple[str, float], ...] = ()

    def __post_init__(self) -> None:
        for other, found in self.into:
            if not math.isfinite(found) or abs(found) > WIDEST_CLEARANCE_MM:
                raise OutOfRange(
                    f"The clearance in “{other}” is {say_mm(found)}.",
                    fix="Give a clearance between −5 mm and 5 mm.",
                    field="into",
                )
        if not math.isfinite(self.clearance) or abs(self.clearance) > WIDEST_CLEARANCE_MM:
            raise OutOfRange(
                f"The clearance is {say_mm(self.clearance)}.",
                fix="Give a clearance between −5 mm and 5 mm; snug is about 0.02 mm.",
                field="clearance",
            )
        if self.machine.kind == "laser" and self.kerf > max(self.thickness, WIDEST_BEAM_MM):
            raise KerfTooWide(
                f"A laser's kerf of {say_mm(self.kerf)} is wider than the board is thick, {say_mm(self.thickness)}.",
                fix="Check the decimal point and the unit: a beam takes 0.1 mm to 0.3 mm.",
                field="kerf",
            )

    def into_renamed(self, old: str, to: str) -> BoardBasis:
        """With another name for the board that it goes into; "" for one that is there no more."""
        if old not in dict(self.into):
            return self
        return replace(
            self, into=tuple((to if name == old else name, one) for name, one in self.into if to or name != old)
        )

    @property
    def thickness(self) -> float:
        return self.stock.readings.mean

    @property
    def kerf(self) -> float:
        return self.machine.kerf

    @property
    def kerf_typed(self) -> bool:
        """Whether nobody measured the kerf. No beam at all is no width to be wrong about; a tool's diameter is measured by its
        maker, not by what it cuts."""
        return self.machine.found is None and self.kerf > 0

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
        """Of a finger in its socket, both of this board."""
        return contact_fit(self, self, self.clearance)

    @cached_property
    def slot_fit(self) -> Fit:
        """Of the board itself in a slot, over all its readings."""
        readings, off = self.stock.readings, self.machine.kerf_within
        fit = self.fit_between(
            self.slot - readings.thick - off, self.slot - readings.thin + off,
            "where the board is thickest", "where the board is thinnest",
        )  # fmt: skip
        if len(readings.values_mm) > 1:
            return fit
        return replace(fit, warnings=(*fit.warnings, "One reading: how thick the board is elsewhere is not known."))

    def fit_between(self, low: float, high: float, when_low: str, when_high: str) -> Fit:
        """The fit of a clearance that lies between `low` and `high`, in the words of this board's scale."""
        tightest, loosest = (self.fits.word(value, self.squeeze) for value in (low, high))
        warnings = []
        if self.stock.traits.brittle and tightest in ("press", "will not go"):
            warnings.append(f"{self.stock.name} is brittle: a press fit may crack it. Choose snug or slide, and glue.")
        return Fit(low, high, tightest, loosest, self.fit, when_low, when_high, tuple(warnings))

    @cached_property
    def doubts(self) -> tuple[str, ...]:
        """What speaks against the kerf that is used here."""
        found = self.machine.found
        if found is None:
            return (f"The kerf of {say_mm(self.kerf)} was typed in, not measured.",) if self.kerf_typed else ()
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


def contact_fit(inner: BoardBasis, outer: BoardBasis, clearance: float, *, by_thickness: bool = False) -> Fit:
    """Of something of one board in something of the other that is `clearance` wider, in the words of the inner's scale.

    A kerf that is off by `within` makes one narrower and the other wider by as much. `by_thickness`: the inner board itself
    goes in, so that its readings count, and only the outer's kerf.
    """
    if by_thickness:
        readings, off = inner.stock.readings, outer.machine.kerf_within
        fit = inner.fit_between(
            clearance + readings.mean - readings.thick - off, clearance + readings.mean - readings.thin + off,
            "where the board is thickest", "where the board is thinnest",
        )  # fmt: skip
    else:
        off = inner.machine.kerf_within + outer.machine.kerf_within
        fit = inner.fit_between(
            clearance - off, clearance + off, "if the kerf is narrower", "if the kerf is wider"
        )  # fmt: skip
    # What was chosen for this gap, which may be the other board's.
    fit = replace(fit, chosen=inner.fits.word(clearance))
    if inner is outer or inner == outer:
        return fit
    other = outer.fit_between(fit.low, fit.high, fit.when_low, fit.when_high)
    return replace(fit, warnings=tuple(dict.fromkeys((*fit.warnings, *other.warnings))))


@dataclass(frozen=True)
class Basis:
    """Of a job: for each board that its design needs, by its id there, what was measured and chosen."""

    boards: tuple[tuple[str, BoardBasis], ...]

    def of(self, board: str) -> BoardBasis:
        """Raises MissingInput for a board that the basis does not name."""
        found = next((one for name, one in self.boards if name == board), None)
        if found is None:
            raise MissingInput(
                f"The basis has no board “{board}”.",
                fix=f"Say which board that is; there {'are' if len(self.boards) > 1 else 'is'}: "
                f"{', '.join(name for name, _ in self.boards)}.",
                field=f"basis/{board}",
            )
        return found

    def between(self, inner: str, outer: str) -> float:
        """The clearance of something of one board in something of another: as it was found for the two, else the inner's own."""
        own = self.of(inner)
        return dict(own.into).get(outer, own.clearance) if inner != outer else own.clearance

    def names(self, board: str) -> dict[str, float]:
        """The names that lengths of a part of `board` may use: its own board's, and the others' by their ids."""
        own = self.of(board)
        known = {"thickness": own.thickness, "clearance": own.clearance}
        for name, one in self.boards:
            known |= {f"{name}.thickness": one.thickness, f"{name}.clearance": one.clearance}
        return known

    def with_board(self, board: str, one: BoardBasis) -> Basis:
        """This basis with another for `board`, or with one more."""
        if any(name == board for name, _ in self.boards):
            return Basis(tuple((name, one if name == board else old) for name, old in self.boards))
        return Basis((*self.boards, (board, one)))


VERSION = 2


def basis_from_json(document: object, boards: Sequence[str] = ("main",)) -> Basis:
    """A Basis from its document. Version 1 knows one board: it serves the only one of `boards`.

    Raises NotchError at the field, MissingInput where version 1 is to serve several boards.
    """
    top = mapping(document, "basis")
    if "lean_notch_basis" not in top:
        if len(boards) != 1:
            raise MissingInput(
                f"This basis is of one board; the design needs {len(boards)}: {', '.join(boards)}.",
                fix=f"Name one for each: {' '.join(f'--basis {name}=FILE' for name in boards)}.",
                field="basis",
            )
        return Basis(((boards[0], board_basis_from_json(top)),))
    if top["lean_notch_basis"] != VERSION or isinstance(top["lean_notch_basis"], bool):
        raise BadDocument(
            f"The document is not a basis of version {VERSION} or older.",
            fix="Write it anew.",
            field="lean_notch_basis",
        )
    given = mapping(entry(top, "boards"), "boards")
    if not 1 <= len(given) <= MOST_BOARDS:
        raise BadDocument(f"The basis has {len(given)} boards.", fix=f"Give 1 to {MOST_BOARDS}.", field="boards")
    found = []
    for name, one in given.items():
        try:
            found.append((name, board_basis_from_json(one)))
        except NotchError as error:
            error.field = f"basis/{name}/{error.field}"
            raise
    return Basis(tuple(found))


def basis_to_json(basis: Basis) -> dict[str, Any]:
    """The document that `basis_from_json` reads, all lengths in mm."""
    return {"lean_notch_basis": VERSION, "boards": {name: board_basis_to_json(one) for name, one in basis.boards}}


def board_basis_from_json(document: object) -> BoardBasis:
    """A BoardBasis from its document. Raises NotchError at the field."""
    top = mapping(document, "basis")
    fits = top.get("fits")
    return BoardBasis(
        board_from_json(entry(top, "stock")),
        machine_from_json(entry(top, "machine")),
        mm(entry(top, "clearance"), "clearance"),
        COMMON_FITS if fits is None else scale_from_json(fits),
        tuple((str(name), mm(one, "into")) for name, one in mapping(top.get("into", {}), "into").items()),
    )


def board_basis_to_json(basis: BoardBasis) -> dict[str, Any]:
    """The document that `board_basis_from_json` reads, all lengths in mm."""
    return {
        "stock": stock_to_json(basis.stock),
        "machine": machine_to_json(basis.machine),
        "clearance": basis.clearance,
        "fits": scale_to_json(basis.fits),
        **({"into": dict(basis.into)} if basis.into else {}),
    }
