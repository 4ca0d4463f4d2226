"""Caliper readings of one board: in, a few lengths; out, mean, thinnest, thickest, spread."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..errors import OutOfRange, ReadingsDisagree
from ..units import positive_mm, say_mm

THICKEST_MM = 200.0
MOST_READINGS = 100
LARGEST_SHARE = 0.25
"""Readings further apart than this share of their mean are no one board: a slip of the decimal point or unit."""


@dataclass(frozen=True)
class Readings:
    """At least one caliper reading of a board's thickness, in mm, in the order they were taken.

    Raises OutOfRange for none, too many, or a reading that is no thickness, and ReadingsDisagree if they
    differ by more than a quarter of their mean.

    >>> Readings((3.02, 3.05, 3.06, 3.07, 3.10)).mean
    3.06
    """

    values_mm: tuple[float, ...]

    def __post_init__(self) -> None:
        if not self.values_mm:
            raise OutOfRange(
                "No thickness is measured.",
                fix="Measure the board with calipers, in five places if you can.",
                field="readings",
            )
        if len(self.values_mm) > MOST_READINGS:
            raise OutOfRange(
                f"{len(self.values_mm)} readings are given.",
                fix=f"Keep at most {MOST_READINGS}.",
                field="readings",
            )
        for index, value in enumerate(self.values_mm):
            positive_mm(value, f"readings[{index}]", f"Reading {index + 1}", THICKEST_MM)
        if self.spread > LARGEST_SHARE * self.mean:
            raise ReadingsDisagree(
                f"The readings run from {say_mm(self.thin)} to {say_mm(self.thick)}, "
                f"more than a quarter of their mean {say_mm(self.mean)} apart.",
                fix=f"Look at reading {self._furthest() + 1} again: the decimal point, the unit, a tilted caliper.",
                field=f"readings[{self._furthest()}]",
            )

    def _furthest(self) -> int:
        middle = sorted(self.values_mm)[(len(self.values_mm) - 1) // 2]
        return max(range(len(self.values_mm)), key=lambda i: abs(math.log(self.values_mm[i] / middle)))

    @property
    def mean(self) -> float:
        return round(math.fsum(self.values_mm) / len(self.values_mm), 9)

    @property
    def thin(self) -> float:
        return min(self.values_mm)

    @property
    def thick(self) -> float:
        return max(self.values_mm)

    @property
    def spread(self) -> float:
        """Thickest less thinnest."""
        return self.thick - self.thin
