"""Lengths as the core writes them: one rule of rounding, sums that add up."""

from __future__ import annotations

import math
from collections.abc import Sequence


def say_mm(mm: float, digits: int = 3) -> str:
    """A length as the core writes it in sentences: at most three decimals and always "mm".

    >>> say_mm(3.06), say_mm(150), say_mm(-0.0001)
    ('3.06 mm', '150 mm', '0 mm')
    """
    text = rounded(mm, digits)
    text = text.rstrip("0").rstrip(".") if "." in text else text
    return f"{'0' if text in ('-0', '') else text} mm"


NOISE_MM = 1e-9
"""Sums of decimals are off by less than this in binary: 3.955 - 0.14 is 3.8149999999999995."""


def rounded(value: float, digits: int) -> str:
    """`value` to that many decimals, halves away from zero, as people round: the one rule for all figures that are shown.

    >>> rounded(3.955 - 0.14, 2), rounded(2.675, 2), rounded(-0.5, 0)
    ('3.82', '2.68', '-1')
    """
    return f"{value + (NOISE_MM if value > -NOISE_MM else -NOISE_MM):.{digits}f}"


def true_digits(total: float, terms: Sequence[float], least: int = 2, most: int = 6) -> int:
    """The fewest decimals at which `terms`, each rounded, add up to the rounded `total`: a sum that is shown must add up.

    >>> true_digits(3.815, (3.955, -0.14)), true_digits(0.01, (0.005, 0.005))
    (2, 3)
    """
    for digits in range(least, most):
        unit = 10**digits
        if sum(_units(term, unit) for term in terms) == _units(total, unit):
            return digits
    return most


def _units(value: float, unit: int) -> int:
    """`value` in whole units of 1 / `unit`, as `rounded` rounds."""
    whole = int((abs(value) + NOISE_MM) * unit + 0.5)
    return whole if value >= 0 else -whole


def say_within(mm: float) -> str:
    """How far a length may be off, with the two digits that such a number is worth (JCGM 100:2008, 7.2.6).

    >>> say_within(0.00091), say_within(0.0124), say_within(0.6)
    ('± 0.00091 mm', '± 0.012 mm', '± 0.6 mm')
    """
    digits = max(1 - math.floor(math.log10(mm)), 0) if mm > 0 else 0
    return f"± {say_mm(mm, digits)}"
