"""Caliper readings: in, a few lengths; out, mean, thinnest, thickest, spread, and what is odd about them."""

from __future__ import annotations

import math
import statistics
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

from ..ground.errors import OutOfRange, ReadingsDisagree
from ..ground.limits import MOST_READINGS
from ..lengths.length import positive_mm
from ..lengths.said import say_mm
from ..lengths.units import MM_PER_INCH

THICKEST_MM = 200.0
LARGEST_SHARE = 0.25
"""Readings further apart than this share of their mean are no one board: a slip of the decimal point or unit."""

LARGEST_SLIP = 5.0
"""A reading that many times off is no reading of that thing, however crooked the caliper."""

FEW_READINGS = 3
"""Fewer say little about how a board varies. Common practice: five places."""

UNEVEN_SHARE = 0.05
CALIPER_MM = 0.01
"""The last digit of a caliper: what it shows may be half of it off either way."""

ODD_SCORE = 3.5
"""Modified z-scores beyond this count as outliers. Iglewicz and Hoaglin, 1993 (from memory)."""


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
            middle = statistics.median_low(self.values_mm)
            odd = furthest(self.values_mm, middle)
            mend = mend_of(self.values_mm[odd], middle)
            raise ReadingsDisagree(
                f"The readings run from {say_mm(self.thin)} to {say_mm(self.thick)}, "
                f"more than a quarter of their mean {say_mm(self.mean)} apart.",
                fix=f"Look at reading {odd + 1} again: the decimal point, the unit, a tilted caliper."
                + (f" Is it {mend}?" if mend else ""),
                field=f"readings[{odd}]",
                mend=mend,
            )

    @cached_property
    def mean(self) -> float:
        return round(math.fsum(self.values_mm) / len(self.values_mm), 9)

    @cached_property
    def thin(self) -> float:
        return min(self.values_mm)

    @cached_property
    def thick(self) -> float:
        return max(self.values_mm)

    @property
    def spread(self) -> float:
        """Thickest less thinnest."""
        return self.thick - self.thin

    @property
    def deviation(self) -> float | None:
        """Of a single reading from the mean (sample standard deviation), or None for one reading."""
        return statistics.stdev(self.values_mm) if len(self.values_mm) > 1 else None

    @property
    def outliers(self) -> tuple[int, ...]:
        """The readings that stand far off the others, by their index; none among fewer than four.

        >>> Readings((3.05, 3.06, 3.06, 3.07, 3.31)).outliers
        (4,)
        """
        if len(self.values_mm) < 4:
            return ()
        middle = statistics.median(self.values_mm)
        away = [abs(value - middle) for value in self.values_mm]
        # A caliper's own steps are no news, however well all the others agree.
        usual = max(statistics.median(away), CALIPER_MM)
        return tuple(i for i, distance in enumerate(away) if 0.6745 * distance / usual > ODD_SCORE)

    @property
    def warnings(self) -> tuple[str, ...]:
        """What a look at these readings says, worst first; empty if nothing."""
        said = []
        count = len(self.values_mm)
        for index in self.outliers:
            others = [value for i, value in enumerate(self.values_mm) if i != index]
            said.append(
                f"Reading {index + 1} ({say_mm(self.values_mm[index])}) is far from the others, and in the mean: "
                f"{say_mm(math.fsum(others) / len(others))} without it. Measure that spot again, or leave it out."
            )
        if count < FEW_READINGS:
            said.append(f"Only {count} reading{'s' * (count > 1)}: measure in five places, the edges too.")
        if self.spread > UNEVEN_SHARE * self.mean:
            said.append(
                f"The board is uneven: {say_mm(self.spread)} from thin to thick. Cut mating parts from the same area of the board."
            )
        return tuple(said)


def furthest(values: Sequence[float], middle: float) -> int:
    """The index of the value whose share of the middle one is furthest from 1; all must be above 0."""
    return max(range(len(values)), key=lambda i: abs(math.log(values[i] / middle)))


def check_slips(readings: Sequence[float], what: str, field: str, middle: float) -> None:
    """Raises ReadingsDisagree at a reading many times longer or shorter than `middle`, with the mend: a slip of the decimal
    point or unit. All must be above 0."""
    for index, value in enumerate(readings):
        if 1 / LARGEST_SLIP < value / middle < LARGEST_SLIP:
            continue
        mend = mend_of(value, middle)
        raise ReadingsDisagree(
            f"Reading {index + 1} of {what} is {say_mm(value)}; it should be about {say_mm(middle)}.",
            fix=f"Is it {mend}? The decimal point may have slipped, or the unit." if mend else "Measure it again.",
            field=f"{field}[{index}]",
            mend=mend,
        )


def mend_of(value: float, middle: float) -> str:
    """What was likely meant by a value among others about `middle`, as a length to type, or "" if nothing makes it like
    them: a decimal point that slipped, or inches among millimetres and the other way round.

    >>> mend_of(30.6, 3.05), mend_of(0.1205, 3.05), mend_of(4.6, 3.05)
    ('3.06 mm', '3.061 mm', '')
    """
    for mended in (value / 10, value * 10, value * MM_PER_INCH, value / MM_PER_INCH):
        if 0.8 < mended / middle < 1.25:
            return say_mm(mended)
    return ""
