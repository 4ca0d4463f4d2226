"""The kerf from what a test piece measures: in, caliper readings; out, the kerf with its uncertainty.

Uncertainties after the Guide to the Expression of Uncertainty in Measurement (JCGM 100:2008): the spread of repeated
readings (type A, 4.2), what a caliper cannot show (type B, 4.3.7), both together (5.1), and how far to trust few
readings (annex G).
"""

from __future__ import annotations

import math
import statistics
from collections.abc import Sequence
from dataclasses import dataclass

from ..ground.errors import OutOfRange
from ..ground.limits import MOST_READINGS
from ..lengths.length import positive_mm
from ..lengths.said import say_mm
from .readings import CALIPER_MM, check_slips

HAND_MM = 0.02
"""How much a reading wanders with the hand (standard deviation), where one alone cannot tell. Common practice."""

WIDEST_SHARE = 0.5

_T95 = (
    12.71,
    4.30,
    3.18,
    2.78,
    2.57,
    2.45,
    2.36,
    2.31,
    2.26,
    2.23,
    2.20,
    2.18,
    2.16,
    2.14,
    2.13,
    2.12,
    2.11,
    2.10,
    2.09,
    2.09,
)
"""t for 95 % and 1 to 20 degrees of freedom. JCGM 100:2008, table G.2."""


@dataclass(frozen=True)
class Uncertain:
    """A value in mm with its standard uncertainty, and the degrees of freedom that this rests on (inf: many).

    `lone`: it rests on one reading somewhere, whose spread had to be guessed.
    """

    value: float
    standard: float
    freedom: float
    lone: bool = False

    @property
    def expanded(self) -> float:
        """Half the width within which the true value lies in 95 of 100 cases."""
        return coverage(self.freedom) * self.standard

    @property
    def notes(self) -> tuple[str, ...]:
        """What speaks against relying on it; empty if nothing."""
        if not self.lone:
            return ()
        return (f"One reading shows no spread; {say_mm(HAND_MM)} was assumed for handling. Measure it at least twice.",)


def mean_of(readings: Sequence[float], what: str, field: str = "readings", about: float | None = None) -> Uncertain:
    """The mean of repeated readings in mm, with what their spread and the caliper's last digit leave open.
    They should be `about` that long; without it, about their middle one.

    One reading says nothing of how readings wander; `HAND_MM` stands in for that. Raises OutOfRange for none or too
    many, and ReadingsDisagree for one that is many times too long or too short.
    """
    if not 1 <= len(readings) <= MOST_READINGS:
        raise OutOfRange(
            f"{len(readings)} readings of {what} are given.",
            fix=f"Give one to {MOST_READINGS}; five are good.",
            field=field,
        )
    for index, value in enumerate(readings):
        positive_mm(value, f"{field}[{index}]", f"Reading {index + 1} of {what}", 5000)
    check_slips(readings, what, field, about or statistics.median_low(readings))
    count = len(readings)
    mean = math.fsum(readings) / count
    # A digit's rounding is even over its width a: a / sqrt(12). JCGM 100:2008, 4.3.7 and F.2.2.1.
    caliper = CALIPER_MM / math.sqrt(12)
    if count == 1:
        return Uncertain(mean, math.hypot(HAND_MM, caliper), math.inf, lone=True)
    spread = math.sqrt(math.fsum((value - mean) ** 2 for value in readings) / (count - 1) / count)
    standard = math.hypot(spread, caliper)
    # Welch and Satterthwaite: JCGM 100:2008, G.4.1; the caliper's own part is known for sure.
    freedom = (count - 1) * (standard / spread) ** 4 if spread else math.inf
    return Uncertain(mean, standard, freedom)


def kerf_of_slats(length: float, pieces: int, readings: Sequence[float], field: str = "readings") -> Uncertain:
    """A strip `length` mm long as drawn, cut on its lines into `pieces`; `readings` are the row's length when pushed
    together.

    Each inner cut takes a whole kerf and each end half of one: `pieces` kerfs in all are missing.

    >>> round(kerf_of_slats(100, 10, [98.60, 98.61, 98.59]).value, 4)
    0.14
    """
    positive_mm(length, "length", "The strip's length", 5000)
    if not 2 <= pieces <= 200:
        raise OutOfRange(f"{pieces} slats are given.", fix="Cut 2 to 200; ten are good.", field="pieces")
    row = mean_of(readings, "the row", field, about=length)
    kerf = Uncertain((length - row.value) / pieces, row.standard / pieces, row.freedom, row.lone)
    return _checked(kerf, length / pieces, "slats", "The row is longer than it was drawn.")


def kerf_of_plug(hole: Sequence[float], plug: Sequence[float]) -> Uncertain:
    """A plug cut out of its hole in one go, on the line: the hole is larger by a kerf, the plug smaller by one.

    >>> round(kerf_of_plug([20.14, 20.15], [19.86, 19.85]).value, 4)
    0.145
    """
    about = statistics.median_high([*hole, *plug]) if hole and plug else None
    outer, inner = mean_of(hole, "the hole", "hole", about), mean_of(plug, "the plug", "plug", about)
    standard = math.hypot(outer.standard, inner.standard) / 2
    parts = [(one.standard / 2) ** 4 / one.freedom for one in (outer, inner)]
    freedom = standard**4 / sum(parts) if sum(parts) else math.inf
    kerf = Uncertain((outer.value - inner.value) / 2, standard, freedom, outer.lone or inner.lone)
    return _checked(kerf, inner.value, "plug", "The plug is larger than its hole.")


def coverage(freedom: float) -> float:
    """How many standard uncertainties cover 95 of 100 cases, for that many degrees of freedom."""
    if freedom >= len(_T95) + 1:
        # Between the table's rows t runs nearly straight over 1 / freedom, down to 1.96.
        return 1.96 + (_T95[-1] - 1.96) * len(_T95) / freedom if math.isfinite(freedom) else 1.96
    return _T95[max(math.floor(freedom), 1) - 1]


def _checked(kerf: Uncertain, narrowest: float, field: str, longer: str) -> Uncertain:
    if kerf.value < 0:
        raise OutOfRange(
            f"{longer} That would be a kerf of {say_mm(kerf.value)}.",
            fix="Measure again; check which number is which, and the drawn size.",
            field=field,
        )
    if kerf.value > WIDEST_SHARE * narrowest:
        raise OutOfRange(
            f"A kerf of {say_mm(kerf.value)} would be more than half of a piece of {say_mm(narrowest)}.",
            fix="Check the decimal point, the unit and the number of pieces.",
            field=field,
        )
    return kerf
