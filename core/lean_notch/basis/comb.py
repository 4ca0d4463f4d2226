"""The fit comb: in, the clearance of each pair of key and slot and how it felt; out, a scale of fits.

A trial pair of a joint is read like it: its slots take one tongue in turn. The comb is cut with the kerf compensated: what it tells is how much room a fit wants, apart from the kerf.
"""

from __future__ import annotations

import itertools
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from ..documents.plain import choice
from ..ground.errors import OutOfRange, ReadingsDisagree
from ..lengths.said import say_mm
from .fits import COMMON_FITS, FitScale

FEELS = ("will not go", "needs a mallet", "holds", "slides", "falls apart")
"""What a maker says of a pair, in rising order of clearance."""

_WORD = ("", "press", "snug", "slide", "free")


@dataclass(frozen=True)
class CombRead:
    """`within` is how far a limit may be off either way: half a step. `notes` say what the comb did not show."""

    scale: FitScale
    within: float
    notes: tuple[str, ...]


def comb_clearances(first: float, step: float, pairs: int) -> tuple[float, ...]:
    """The clearance of each pair, rising. Raises OutOfRange for a comb that could tell nothing.

    >>> comb_clearances(-0.05, 0.025, 4)
    (-0.05, -0.025, 0.0, 0.025)
    """
    if not 3 <= pairs <= 40:
        raise OutOfRange(f"{pairs} pairs are given.", fix="Use 3 to 40; ten are good.", field="pairs")
    if not 0.005 <= step <= 0.5:
        raise OutOfRange(
            f"Steps of {say_mm(step)} cannot be felt, or miss what is between them.",
            fix="Use 0.02 mm to 0.05 mm; a thousandth of an inch is one step of feel.",
            field="step",
        )
    if not abs(first) <= 2:
        raise OutOfRange(f"The first pair has {say_mm(first)}.", fix="Start between -2 mm and 2 mm.", field="first")
    return tuple(round(first + i * step, 6) for i in range(pairs))


Tried = Literal["pair", "slot"]
_AGAIN: Mapping[Tried, str] = {
    "pair": "Try both again, each key in the slot of its own number, the same side up.",
    "slot": "Try both again, the same tongue, the same side up.",
}


def read_comb(clearances: Sequence[float], answers: Sequence[str], tried_in: Tried = "pair") -> CombRead:
    """The scale that a comb's answers give; "" for a pair, or a slot, that was not tried.

    A limit lies half-way between the last pair of one feel and the first of the next; a fit is made in the middle of its
    own. Raises ReadingsDisagree at "answers[n]" if a pair with more room felt tighter than one with less, and OutOfRange
    if the comb did not reach a joint that holds.
    """
    tried = [
        (i, clearance, FEELS.index(choice(answer, FEELS, f"answers[{i}]")))
        for i, (clearance, answer) in enumerate(zip(clearances, answers, strict=False))
        if answer
    ]
    if len(answers) > len(clearances):
        raise OutOfRange(
            f"{len(answers)} answers are given for {len(clearances)} {tried_in}s.",
            fix=f"Give one a {tried_in}, in the order of their numbers.", field="answers",
        )  # fmt: skip
    if len(tried) < 3:
        raise OutOfRange(
            f"{len(tried)} {tried_in}s are answered.",
            fix="Try three or more, among them one that holds.",
            field="answers",
        )
    for (i, room, feel), (j, more, after) in itertools.pairwise(tried):
        if after < feel:
            raise ReadingsDisagree(
                f"{tried_in.capitalize()} {j + 1} ({say_mm(more)}) {FEELS[after]}, although {tried_in} {i + 1} ({say_mm(room)}), "
                f"with less room, {FEELS[feel]}.",
                fix=_AGAIN[tried_in],
                field=f"answers[{j}]",
            )
    seen = {feel for _, _, feel in tried}
    step = (tried[-1][1] - tried[0][1]) / (tried[-1][0] - tried[0][0])
    _check_reach(seen, tried[0][1], tried[-1][1], step, tried_in)
    a, b, c, d = (round(limit, 4) for limit in _limits([(room, felt) for _, room, felt in tried], step))
    free = round(d + 2 * step, 4)
    reach = COMMON_FITS.limits[4] - COMMON_FITS.limits[3]
    scale = FitScale(
        press=round((a + b) / 2, 4),
        snug=round((b + c) / 2, 4),
        slide=round((c + d) / 2, 4),
        free=free,
        limits=(a, b, c, d, round(max(d + reach, free + step), 4)),
    )
    notes = tuple(
        f"No {tried_in} {FEELS[feel]}: what is {_WORD[feel]} is an estimate from common practice."
        for feel in (1, 2, 3, 4)
        if feel not in seen
    )
    return CombRead(scale, step / 2, notes)


def _limits(tried: Sequence[tuple[float, int]], step: float) -> list[float]:
    """The four limits between the five feels, rising; those that no pair shows keep to common practice where they can."""
    common = COMMON_FITS.limits
    between: list[tuple[float | None, float | None]] = []
    for feel in range(4):
        tighter = [room for room, felt in tried if felt <= feel]
        looser = [room for room, felt in tried if felt > feel]
        between.append((tighter[-1] if tighter else None, looser[0] if looser else None))
    limits = [0.0] * 4
    for feel, (low, high) in enumerate(between):
        if low is not None and high is not None:  # several limits in one gap share it
            sharing = [i for i in range(4) if between[i] == (low, high)]
            limits[feel] = low + (high - low) * (sharing.index(feel) + 1) / (len(sharing) + 1)
        elif low is not None:
            before = limits[feel - 1] if feel and between[feel - 1][1] is None else low
            limits[feel] = max(common[feel], before + step / 2)
    for feel in (3, 2, 1, 0):
        low, high = between[feel]
        if low is None and high is not None:
            after = limits[feel + 1] if feel < 3 and between[feel + 1][0] is None else high
            limits[feel] = min(common[feel], after - step / 2)
    return limits


def _check_reach(seen: set[int], first: float, last: float, step: float, tried_in: Tried) -> None:
    """Nothing can be told of joints that hold if all pairs are looser, or all tighter."""
    if min(seen) > 2:
        raise OutOfRange(
            f"No {tried_in} holds: even {say_mm(first)} is too loose.",
            fix=f"Cut one that starts at {say_mm(first - 6 * step)}, or check the kerf.",
            field="first",
        )
    if max(seen) < 2:
        raise OutOfRange(
            f"No {tried_in} holds: even {say_mm(last)} is too tight.",
            fix=f"Cut one that starts at {say_mm(last)}, or check the kerf.",
            field="first",
        )
