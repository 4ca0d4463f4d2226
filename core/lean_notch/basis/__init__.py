"""What was measured: board, machine, fit. Everything else is computed from a design and this."""

from .basis import (
    Basis,
    BoardBasis,
    basis_from_json,
    basis_to_json,
    board_basis_from_json,
    board_basis_to_json,
    contact_fit,
)
from .fits import COMMON_FITS, FIT_WORDS, FITS, Fit, FitScale
from .machine import (
    CORNERS,
    MACHINE_KINDS,
    USUAL_SPEEDS,
    KeepOut,
    KerfFound,
    Machine,
    Speeds,
    Tool,
    machine_from_json,
    machine_to_json,
)
from .readings import Readings
from .stock import (
    DIRECTIONS,
    LEAST_HOLE_MM,
    LEAST_TEXT_MM,
    STOCK_KINDS,
    Board,
    Limits,
    OffCut,
    SheetSize,
    Stock,
    board_from_json,
    limits_from_json,
    stock_from_json,
    stock_to_json,
)

__all__ = [
    "COMMON_FITS", "CORNERS", "DIRECTIONS", "FITS", "FIT_WORDS", "LEAST_HOLE_MM", "LEAST_TEXT_MM", "MACHINE_KINDS", "STOCK_KINDS", "USUAL_SPEEDS", "Basis", "Board", "BoardBasis", "Fit", "FitScale",
    "KeepOut", "KerfFound", "Limits", "Machine", "OffCut", "Readings", "SheetSize", "Speeds", "Stock", "Tool", "basis_from_json",
    "basis_to_json", "board_basis_from_json", "board_basis_to_json", "board_from_json", "contact_fit", "limits_from_json", "machine_from_json", "machine_to_json", "stock_from_json", "stock_to_json",
]  # fmt: skip
