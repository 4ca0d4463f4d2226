"""Where the fingers along an edge are: one division of the shared edge, from its length, the boards' thicknesses and the clearance."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..ground.errors import ClearanceTooLarge, FingerTooNarrow, FingerTooWide
from ..lengths.said import say_mm
from .mate import (
    Interval,
)

FINGER_PER_THICKNESS = 3.0
"""Fingers about three times as wide as the board is thick look right and hold well. Common practice."""


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
    return _equal(length, max(3, 2 * math.ceil(length / finger / 2 - 1 - 1e-9) + 1))


def narrowest_finger(thickness: float, clearance: float) -> float:
    """A finger no wider than its board is thick splits along the grain. Common practice."""
    return thickness + abs(clearance)


def divide_edge(
    length: float,
    thickness: float,
    clearance: float,
    wanted: float | None = None,
    count: int | None = None,
    margin: float = 0.0,
) -> FingerDivision:
    """The division of an edge of `length` between two members of (at most) `thickness`, all in mm.

    Fingers are about three thicknesses wide unless `wanted` or `count` is given, and never narrower than
    `narrowest_finger`; both ends stay plain for `margin` mm. Raises FingerTooWide, FingerTooNarrow or ClearanceTooLarge.

    >>> divide_edge(63, 3, 0).cuts
    (0.0, 9.0, 18.0, 27.0, 36.0, 45.0, 54.0, 63.0)
    >>> divide_edge(64, 3, 0, count=4, margin=2).cuts
    (0.0, 17.0, 32.0, 47.0, 64)
    """
    least = narrowest_finger(thickness, clearance)
    divided = length - 2 * margin
    if wanted is not None and wanted < least:
        raise FingerTooNarrow(
            f"Fingers of {say_mm(wanted)} are narrower than the board is thick, {say_mm(thickness)}.",
            fix=f"Use fingers of at least {say_mm(least)}.",
            field="finger",
        )
    if margin and (margin < 0 or divided < 3 * least):
        raise FingerTooWide(
            f"Plain ends of {say_mm(margin)} leave no room for three fingers of {say_mm(least)} on an edge of {say_mm(length)}.",
            fix=f"Use plain ends of at most {say_mm(max(0.0, (length - 3 * least) / 2))}.", field="margin",
        )  # fmt: skip
    if count is not None and divided / count < least:
        raise FingerTooNarrow(
            f"{count} fingers on {say_mm(divided)} are {say_mm(divided / count)} wide, narrower than the board is thick.",
            fix=f"Use at most {int(divided / least)}." if divided >= 3 * least else f"Make that edge at least {say_mm(3 * least)} long.",
            field="count",
        )  # fmt: skip
    if wanted is None and divided < 3 * least:
        raise FingerTooWide(
            f"An edge of {say_mm(length)} has no room for three fingers of {say_mm(least)}, "
            f"as wide as the board is thick.",
            fix=f"Make that edge at least {say_mm(3 * least)} long, or use a thinner board.",
            field="finger",
        )
    if count is not None:
        cuts = _equal(divided, count)
    else:
        cuts = _about(divided, least, wanted or max(least, min(FINGER_PER_THICKNESS * thickness, divided / 3)))
    if margin:
        cuts = (0.0, *(margin + cut for cut in cuts[1:-1]), length)
    division = FingerDivision(cuts, clearance, margin)
    if abs(clearance) >= division.finger / 2:
        raise ClearanceTooLarge(
            f"A clearance of {say_mm(clearance)} eats half of a finger of {say_mm(division.finger)}.",
            fix=f"Choose a clearance below {say_mm(division.finger / 2)}.",
            field="clearance",
        )
    return division


def _equal(length: float, count: int) -> tuple[float, ...]:
    # length * (i / n), not length * i / n: the last cut is then exactly `length`.
    return tuple(length * (i / count) for i in range(count + 1))


def _about(length: float, least: float, wanted: float) -> tuple[float, ...]:
    cuts = finger_edges(length, wanted)
    count = len(cuts) - 1
    return _equal(length, count - 2) if length / count < least and count > 3 else cuts


@dataclass(frozen=True)
class FingerDivision:
    """Equal fingers along an edge, those at both ends longer by `margin`; one member has the end ones, both if they are an odd
    count.

    `cuts` are the positions in mm where the members take turns. Each member draws back from every inner cut by
    a quarter of `clearance`, so that a finger has `clearance` in its socket, half of it on either side.
    """

    cuts: tuple[float, ...]
    clearance: float
    margin: float = 0.0

    @property
    def count(self) -> int:
        return len(self.cuts) - 1

    @property
    def finger(self) -> float:
        """Width of one finger before clearance."""
        return (self.cuts[-1] - 2 * self.margin) / self.count

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
