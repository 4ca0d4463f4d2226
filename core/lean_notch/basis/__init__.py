"""What was measured: board, machine, fit. Everything else is computed from a design and this."""

from .basis import FITS, Basis, Machine, Stock, basis_from_json, basis_to_json, fit_name
from .readings import Readings

__all__ = ["FITS", "Basis", "Machine", "Readings", "Stock", "basis_from_json", "basis_to_json", "fit_name"]
