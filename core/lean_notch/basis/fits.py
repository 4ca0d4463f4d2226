"""What a clearance feels like: in, a range of clearances in mm; out, the words for it, and whether it is as chosen.

Clearance is how much wider a socket is than what goes into it, in all. The words in rising order of clearance: will not
go, press, snug, slide, free, falls out.
"""

from __future__ import annotations

import itertools
import math
from dataclasses import dataclass
from typing import Any

from ..documents.plain import entry, mapping, mm, sequence
from ..ground.errors import OutOfRange
from ..lengths.said import say_mm

FIT_WORDS = ("will not go", "press", "snug", "slide", "free", "falls out")
FITS = ("press", "snug", "slide", "free")
"""Those that may be chosen."""

WIDEST_CLEARANCE_MM = 5.0
_ROUNDING_MM = 1e-9


@dataclass(frozen=True)
class FitScale:
    """The clearance each fit is made with, and the five limits between the six words, rising, in mm."""

    press: float
    snug: float
    slide: float
    free: float
    limits: tuple[float, float, float, float, float]

    def __post_init__(self) -> None:
        own = (self.press, self.snug, self.slide, self.free)
        if not all(math.isfinite(value) and abs(value) <= WIDEST_CLEARANCE_MM for value in (*own, *self.limits)):
            raise OutOfRange("A fit's clearance is more than 5 mm.", fix="Check the unit.", field="fits")
        if any(a >= b for a, b in itertools.pairwise(own)) or any(a >= b for a, b in itertools.pairwise(self.limits)):
            raise OutOfRange(
                f"Press {say_mm(self.press)}, snug {say_mm(self.snug)}, slide {say_mm(self.slide)} and free "
                f"{say_mm(self.free)} do not rise.",
                fix="Give each fit more room than the one before it.",
                field="fits",
            )

    def word(self, clearance: float, squeeze: float = 0.0) -> str:
        """The word for a clearance, in a board that gives way by `squeeze` mm.

        >>> [COMMON_FITS.word(c) for c in (-0.2, -0.02, 0.02, 0.10, 0.2, 0.3, 1)]
        ['will not go', 'press', 'snug', 'snug', 'slide', 'free', 'falls out']
        """
        felt = min(clearance + squeeze, 0.0) if clearance < 0 else clearance
        lowest, *rest = self.limits
        if felt < lowest - _ROUNDING_MM:
            return FIT_WORDS[0]
        # Between press and snug the limit itself is snug; above, limits belong to the tighter word.
        if felt < rest[0] - _ROUNDING_MM:
            return FIT_WORDS[1]
        return next(
            (word for word, limit in zip(FIT_WORDS[2:5], rest[1:], strict=True) if felt <= limit + _ROUNDING_MM),
            FIT_WORDS[5],
        )


COMMON_FITS = FitScale(-0.02, 0.02, 0.15, 0.3, (-0.10, 0.0, 0.10, 0.25, 0.60))
"""Until a fit comb has said better. Common practice: a thousandth of an inch (0.025 mm) is one step of feel; 0.025 on
quarter-inch ply closes with a light mallet; 0.10 on a 3.95 mm insert is still snug."""


@dataclass(frozen=True)
class Fit:
    """The clearance between `low` and `high` mm, and the word for either; `chosen` is the word it should be.

    `when_low` and `when_high` say what would make it so; `warnings` what the board does not take.
    """

    low: float
    high: float
    tightest: str
    loosest: str
    chosen: str
    when_low: str
    when_high: str
    warnings: tuple[str, ...] = ()

    @property
    def verdict(self) -> str:
        return self.tightest if self.tightest == self.loosest else f"{self.tightest} to {self.loosest}"

    @property
    def loose(self) -> bool:
        return FIT_WORDS.index(self.loosest) > FIT_WORDS.index(self.chosen)

    @property
    def tight(self) -> bool:
        return FIT_WORDS.index(self.tightest) < FIT_WORDS.index(self.chosen)

    @property
    def fails(self) -> bool:
        """Somewhere in its range it falls out or will not go, even if it was chosen so."""
        return self.loosest == FIT_WORDS[-1] or self.tightest == FIT_WORDS[0]

    @property
    def wants(self) -> str:
        """What may go wrong, in words; "" if it is as chosen all over its range."""
        said = []
        if self.tightest == self.loosest and self.fails and not (self.tight or self.loose):
            return "will not go" if self.tightest == FIT_WORDS[0] else "will fall out"
        if self.tight:
            what = "will not go" if self.tightest == FIT_WORDS[0] else "may be tight"
            said.append(f"{what} {self.when_low}".strip())
        if self.loose:
            what = "may fall out" if self.loosest == FIT_WORDS[-1] else "may be loose"
            said.append(f"{what} {self.when_high}".strip())
        return ", ".join(said)


def scale_to_json(scale: FitScale) -> dict[str, Any]:
    """The document that `scale_from_json` reads."""
    return {**{name: getattr(scale, name) for name in FITS}, "limits": list(scale.limits)}


def scale_from_json(document: object) -> FitScale:
    """A FitScale from its document. Raises NotchError at "fits"."""
    given = mapping(document, "fits")
    limits = [mm(value, "fits.limits") for value in sequence(entry(given, "limits", "fits"), "fits.limits", 5)]
    if len(limits) != 5:
        raise OutOfRange(f"{len(limits)} limits are given.", fix="Give five.", field="fits.limits")
    press, snug, slide, free = (mm(entry(given, name, "fits"), f"fits.{name}") for name in FITS)
    a, b, c, d, e = limits
    return FitScale(press, snug, slide, free, (a, b, c, d, e))
