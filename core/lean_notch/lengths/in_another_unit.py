"""Sentences as whoever reads them writes numbers: in, texts of the core with lengths as "<number> mm"; out, the same texts in
another unit, with fractions of an inch and another decimal mark. What stands in quotes is a name, and stays.
"""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from typing import Literal

from .said import rounded, say_mm
from .units import MM_PER_INCH, Unit

FINEST = (0, 8, 16, 32, 64)
SAME_INCHES = 0.00005
"""A length that is off a fraction by less shows as one: four decimals of an inch cannot tell them apart."""

_WITHIN = re.compile(r"± (\d+(?:\.\d+)?) mm\b")
_SPEED = re.compile(r"(?<![\d.,])(\d+(?:\.\d+)?) mm/(s|min)\b")
_LENGTH = re.compile(r"(?<![\d.,])-?(\d+(?:\.\d+)?) mm\b")
_DECIMAL = re.compile(r"(?<![\d.])(\d+)\.(\d+)(?![\d.])")


@dataclass(frozen=True)
class Reader:
    """`finest` is the smallest part of an inch that is shown as a fraction, 0 for none; `mark` parts the decimals."""

    unit: Unit = "mm"
    finest: int = 0
    mark: Literal[".", ","] = "."

    def says(self, text: str) -> str:
        """
        >>> Reader("in", 64).says("“3 mm ply” is 119.85625 mm, cut by 3.06 mm")
        '“3 mm ply” is 4 23/32 in, cut by 0.1205 in'
        >>> Reader(mark=",").says("3.06 mm, 2 sheets")
        '3,06 mm, 2 sheets'
        """
        pieces = re.split(r"(“[^”]*”)", text)
        return "".join(piece if i % 2 else self._said(piece) for i, piece in enumerate(pieces))

    def length(self, mm: float, digits: int = 3) -> str:
        """An exact length with its unit, of at most that many decimals in mm: for what is computed with, not read from a text.

        >>> Reader("in", 64).length(60.325, 2), Reader().length(60.325, 2), Reader("in", 0, ",").length(60.325, 2)
        ('2 3/8 in', '60.33 mm', '2,375 in')
        """
        if self.unit == "in":
            return f"{inches(mm, self.finest)} in".replace(".", self.mark)
        return say_mm(mm, digits).replace(".", self.mark)

    def _said(self, piece: str) -> str:
        if self.unit == "in":
            piece = _WITHIN.sub(lambda m: f"± {_within(float(m[1]) / MM_PER_INCH)} in", piece)
            piece = _SPEED.sub(lambda m: f"{_figures(float(m[1]) / MM_PER_INCH)} in/{m[2]}", piece)
            piece = _LENGTH.sub(lambda m: f"{inches(float(m[0].removesuffix(' mm')), self.finest)} in", piece)
        return _DECIMAL.sub(rf"\1{self.mark}\2", piece)


SPEED_FIGURES = 3
"""How many figures a speed is worth in another unit."""


def _figures(value: float) -> str:
    """
    >>> _figures(13.7795), _figures(118.1), _figures(0.5)
    ('13.8', '118', '0.5')
    """
    digits = max(SPEED_FIGURES - 1 - math.floor(math.log10(value)), 0) if value > 0 else 0
    text = rounded(value, digits)
    return text.rstrip("0").rstrip(".") if "." in text else text


def _within(value: float) -> str:
    """How far a length may be off in inches: two figures, never finer than the four decimals of the length itself."""
    if value < 1e-6:
        return "0"
    digits = min(1 - min(math.floor(math.log10(value)), 0), 4)
    return rounded(max(float(f"{value:.2g}"), 1e-4), digits)


def inches(mm: float, finest: int) -> str:
    """A length in mm as inches: a fraction where it is one, else four decimals without the zeros behind.

    >>> inches(25.4 * 4.71875, 64), inches(25.4 * 4.71875, 16), inches(25.4 / 2, 8), inches(3.06, 64)
    ('4 23/32', '4.7188', '1/2', '0.1205')
    """
    value = mm / MM_PER_INCH
    if finest:
        parts = round(value * finest)
        if abs(value - parts / finest) < SAME_INCHES:
            return _fraction(parts, finest)
    text = rounded(value, 4).rstrip("0").rstrip(".")
    return "0" if text in ("", "-0") else text


def _fraction(parts: int, finest: int) -> str:
    sign, parts = ("-", -parts) if parts < 0 else ("", parts)
    whole, rest = divmod(parts, finest)
    if not rest:
        return f"{sign}{whole}"
    common = rest & -rest  # the finest parts are a power of two: so is what they have in common
    fraction = f"{rest // common}/{finest // common}"
    return f"{sign}{whole} {fraction}" if whole else f"{sign}{fraction}"
