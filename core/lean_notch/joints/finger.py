"""Finger joint: two edges meet at 90 degrees and take turns along the edge.

In: the edge's length, the board's thickness, the clearance; out: one division that both members follow.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..errors import ClearanceTooLarge, FingerTooNarrow, FingerTooWide
from ..units import say_mm

FINGER_PER_THICKNESS = 3.0
"""Fingers about three times as wide as the board is thick look right and hold well. Common practice."""

Interval = tuple[float, float]


def finger_edges(length: float, finger: float) -> tuple[float, ...]:
    """Positions of the cuts along an edge, n + 1 rising values in mm, from 0.0 to `length`.

    n is the odd count nearest to length / finger (the smaller of two), so that both ends carry a finger.
    Raises FingerTooWide if three do not fit.

    >>> finger_edges(90, 20)
    (0.0, 18.0, 36.0, 54.0, 72.0, 90.0)
    """
    if 3 * finger > length * (1 + 1e-12):
        raise FingerTooWide(
            f"An edge of {say_mm(length)} has no room for three fingers of {say_mm(finger)}.",
            fix=f"Use fingers of at most {say_mm(length / 3)}, or an edge of at least {say_mm(3 * finger)}.",
            field="finger",
        )
    count = max(3, 2 * math.ceil(length / finger / 2 - 1 - 1e-9) + 1)
    # length * (i / n), not length * i / n: the last cut is then exactly `length`.
    return tuple(length * (i / count) for i in range(count + 1))


def narrowest_finger(thickness: float, clearance: float) -> float:
    """A finger no wider than its board is thick splits along the grain. Common practice."""
    return thickness + abs(clearance)


def divide_edge(length: float, thickness: float, clearance: float, wanted: float | None = None) -> FingerDivision:
    """The division of an edge of `length` between two members of (at most) `thickness`, all in mm.

    Fingers are about three thicknesses wide unless `wanted` is given, and never narrower than
    `narrowest_finger`. Raises FingerTooWide, FingerTooNarrow or ClearanceTooLarge.

    >>> divide_edge(63, 3, 0).cuts
    (0.0, 9.0, 18.0, 27.0, 36.0, 45.0, 54.0, 63.0)
    """
    least = narrowest_finger(thickness, clearance)
    if wanted is not None and wanted < least:
        raise FingerTooNarrow(
            f"Fingers of {say_mm(wanted)} are narrower than the board is thick, {say_mm(thickness)}.",
            fix=f"Use fingers of at least {say_mm(least)}.",
            field="finger",
        )
    if wanted is None and length < 3 * least:
        raise FingerTooWide(
            f"An edge of {say_mm(length)} has no room for three fingers of {say_mm(least)}, "
            f"as wide as the board is thick.",
            fix=f"Make that edge at least {say_mm(3 * least)} long, or use a thinner board.",
            field="finger",
        )
    if wanted is None:
        wanted = max(least, min(FINGER_PER_THICKNESS * thickness, length / 3))
    cuts = finger_edges(length, wanted)
    if length / (len(cuts) - 1) < least and len(cuts) > 4:
        cuts = tuple(length * (i / (len(cuts) - 3)) for i in range(len(cuts) - 2))
    division = FingerDivision(cuts, clearance)
    if abs(clearance) >= division.finger / 2:
        raise ClearanceTooLarge(
            f"A clearance of {say_mm(clearance)} eats half of a finger of {say_mm(division.finger)}.",
            fix=f"Choose a clearance below {say_mm(division.finger / 2)}.",
            field="clearance",
        )
    return division


@dataclass(frozen=True)
class FingerDivision:
    """An odd count of equal fingers along an edge; the first member has both end ones.

    `cuts` are the positions in mm where the members take turns. Each member draws back from every inner cut by
    a quarter of `clearance`, so that a finger has `clearance` in its socket, half of it on either side.
    """

    cuts: tuple[float, ...]
    clearance: float

    @property
    def count(self) -> int:
        return len(self.cuts) - 1

    @property
    def finger(self) -> float:
        """Width of one finger before clearance."""
        return self.cuts[-1] / self.count

    @property
    def first_keeps(self) -> tuple[Interval, ...]:
        """The first member's fingers, finished size."""
        return self._fingers(0)

    @property
    def second_keeps(self) -> tuple[Interval, ...]:
        return self._fingers(1)

    @property
    def first_gives(self) -> tuple[Interval, ...]:
        """The first member's sockets, finished size."""
        return self._sockets(1)

    @property
    def second_gives(self) -> tuple[Interval, ...]:
        return self._sockets(0)

    def _fingers(self, parity: int) -> tuple[Interval, ...]:
        return self._pieces(parity, self.clearance / 4)

    def _sockets(self, parity: int) -> tuple[Interval, ...]:
        return self._pieces(parity, -self.clearance / 4)

    def _pieces(self, parity: int, inset: float) -> tuple[Interval, ...]:
        last = self.count
        return tuple(
            (
                self.cuts[i] + (inset if i > 0 else 0.0),
                self.cuts[i + 1] - (inset if i + 1 < last else 0.0),
            )
            for i in range(parity, last, 2)
        )
