"""What was measured: board, machine, fit. Everything else is computed from a design and this."""

from .basis import (
    FITS,
    MACHINE_KINDS,
    STOCK_KINDS,
    USUAL_SPEEDS,
    Basis,
    Machine,
    Speeds,
    Stock,
    basis_from_json,
    basis_to_json,
    fit_name,
    machine_from_json,
    machine_to_json,
    stock_from_json,
    stock_to_json,
)
from .readings import Readings

__all__ = [
    "FITS", "MACHINE_KINDS", "STOCK_KINDS", "USUAL_SPEEDS", "Basis", "Machine", "Readings", "Speeds", "Stock", "basis_from_json", "basis_to_json",
    "fit_name", "machine_from_json", "machine_to_json", "stock_from_json", "stock_to_json",
]  # fmt: skip
