"""Parts onto sheets: the problem, an engine for it, and a checker that trusts no engine."""

from .checker import layout_faults
from .engine import lay_out
from .problem import Area, Layout, LayoutSettings, Left, Piece, Placed, Sheet, together

__all__ = [
    "Area",
    "Layout",
    "LayoutSettings",
    "Left",
    "Piece",
    "Placed",
    "Sheet",
    "lay_out",
    "layout_faults",
    "together",
]
