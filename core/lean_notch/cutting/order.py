"""The order of the work: in, paths and where each may start; out, a sequence with little travel between them.

The nearest path comes next, then crossings of the way are untangled (2-opt) and starts chosen again.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..geometry import Point

MOST_ROUNDS = 12


@dataclass(frozen=True)
class Stretch:
    """One thing to do: closed paths may be entered and left at any one of `entries`, open ones run between two ends."""

    entries: tuple[Point, ...]
    open: bool = False


@dataclass(frozen=True)
class Step:
    """Stretch number `index`, entered at entry number `entry`; an open one is left at its other end."""

    index: int
    entry: int


def shortest(stretches: Sequence[Stretch], start: Point) -> list[Step]:
    """Every stretch once, in an order that keeps the travel between them short."""
    steps = _nearest_first(stretches, start)
    if len(steps) < 3:
        return steps
    for _ in range(3):
        untangled = _untangled(stretches, steps, start)
        steps = _best_entries(stretches, untangled, start)
        if untangled == steps:
            break
    return steps


def travel(stretches: Sequence[Stretch], steps: Sequence[Step], start: Point) -> float:
    """How far the machine goes without working, in mm."""
    here, total = start, 0.0
    for step in steps:
        total += math.dist(here, _enter(stretches, step))
        here = leave_at(stretches, step)
    return total


def _enter(stretches: Sequence[Stretch], step: Step) -> Point:
    return stretches[step.index].entries[step.entry]


def leave_at(stretches: Sequence[Stretch], step: Step) -> Point:
    """Where the machine is when a step is done."""
    stretch = stretches[step.index]
    return stretch.entries[1 - step.entry] if stretch.open else stretch.entries[step.entry]


def _nearest_first(stretches: Sequence[Stretch], start: Point) -> list[Step]:
    import numpy as np

    if not stretches:
        return []
    owner = np.repeat(np.arange(len(stretches)), [len(s.entries) for s in stretches])
    first = np.searchsorted(owner, np.arange(len(stretches)))
    points = np.array([point for s in stretches for point in s.entries])
    waiting = np.zeros(len(points))
    here, steps = start, []
    for _ in stretches:
        at = int((np.hypot(points[:, 0] - here[0], points[:, 1] - here[1]) + waiting).argmin())
        step = Step(int(owner[at]), at - int(first[owner[at]]))
        waiting[owner == step.index] = np.inf
        steps.append(step)
        here = leave_at(stretches, step)
    return steps


def _untangled(stretches: Sequence[Stretch], steps: list[Step], start: Point) -> list[Step]:
    """Stretches of the way turned round wherever that makes it shorter."""
    import numpy as np

    order = list(steps)
    count = len(order)
    # The way is start, then (enter, leave) of each; turned stretches swap the two.
    enter = np.array([start, *(_enter(stretches, step) for step in order)])
    leave = np.array([start, *(leave_at(stretches, step) for step in order)])
    for _ in range(MOST_ROUNDS):
        better = False
        for i in range(1, count):
            # Turning i..j replaces the ways into i and out of j.
            onward = np.vstack([enter[i + 2 :], [[np.nan, np.nan]]])
            into = np.hypot(*(leave[i - 1] - enter[i]))
            out = np.hypot(*(leave[i + 1 :] - onward).T)
            new_into = np.hypot(*(leave[i - 1] - leave[i + 1 :]).T)
            new_out = np.hypot(*(enter[i] - onward).T)
            gain = into - new_into + np.nan_to_num(out) - np.nan_to_num(new_out)
            j = int(gain.argmax())
            if gain[j] <= 1e-9:
                continue
            better = True
            low, high = i, i + 1 + j
            order[low - 1 : high] = [_turned(stretches, step) for step in reversed(order[low - 1 : high])]
            enter[low : high + 1], leave[low : high + 1] = (
                leave[low : high + 1][::-1].copy(),
                enter[low : high + 1][::-1].copy(),
            )
        if not better:
            break
    return order


def _turned(stretches: Sequence[Stretch], step: Step) -> Step:
    return replace(step, entry=1 - step.entry) if stretches[step.index].open else step


def _best_entries(stretches: Sequence[Stretch], steps: list[Step], start: Point) -> list[Step]:
    """The same order, each closed stretch entered where it costs least between its neighbours."""
    chosen: list[Step] = []
    here = start
    for position, step in enumerate(steps):
        stretch = stretches[step.index]
        if not stretch.open and len(stretch.entries) > 1:
            onward = _enter(stretches, steps[position + 1]) if position + 1 < len(steps) else None
            costs = [
                math.dist(here, point) + (math.dist(point, onward) if onward else 0.0) for point in stretch.entries
            ]
            step = Step(step.index, costs.index(min(costs)))
        chosen.append(step)
        here = leave_at(stretches, step)
    return chosen
