"""One row of a ledger: a figure, where it comes from, and its derivation in plain arithmetic."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from .said import say_mm, true_digits
from .units import Unit

Source = Literal["measured", "chosen", "computed"]
Kind = Literal["length", "count", "share", "area", "mass", "word"]


@dataclass(frozen=True)
class Figure:
    """One row. `value` is in mm, mm², g, a count, or a share of 1, by `kind`; words have none.

    `field` is the path of the input that changes it, "" for none; `typed` is what was typed there, in `unit`.
    Lengths inside a derivation are written "<number> mm".
    """

    key: str
    title: str
    value: float | None
    source: Source
    because: str = ""
    kind: Kind = "length"
    word: str = ""
    field: str = ""
    typed: str = ""
    unit: Unit = "mm"


def in_words(total: float, first: tuple[str, float], sign: str, second: tuple[str, float]) -> str:
    """A sum or a difference in words and figures, with as many digits as it takes to be true.

    >>> in_words(3.815, ("slot", 3.955), "−", ("kerf", 0.14))
    'slot 3.955 mm − kerf 0.14 mm'
    """
    (name, value), (other, change) = first, second
    digits = max(3, true_digits(total, (value, -change if sign == "−" else change)))
    return f"{name} {say_mm(value, digits)} {sign} {other} {say_mm(change, digits)}"
