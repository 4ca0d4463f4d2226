"""The order of the work: in, paths, where each may start and what must be done before what; out, a sequence with little travel.

The nearest path that may be done comes next; then stretches of the way are turned round (2-opt) and moved elsewhere (Or-opt)
for as long as that makes it shorter, and starts are chosen anew, the best for that order. How often is counted, not timed: the
same paths give the same order.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ..geometry import Box, Point
from ..geometry.segments import Floats, Ints

MOST_ROUNDS = 8
MOST_WORK = 2e7
"""Pairs of paths that are looked at: about half a second."""

LONGEST_MOVED = 3
_LEAST_MM = 1e-9


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


NOTHING_AFTER = -1


def innermost_first(boxes: Sequence[Box]) -> Ints:
    """For each of some closed paths the one around it that has to wait for it, or NOTHING_AFTER: judged by their boxes.

    What is cut out of a part comes before its outline, and a part that lies in a hole before that hole.
    """
    import shapely

    found = np.full(len(boxes), NOTHING_AFTER, np.int64)
    if len(boxes) < 2:
        return found
    sides = np.array(boxes)
    shapes = shapely.box(*sides.T)
    area = shapely.area(shapes)
    inner, outer = shapely.STRtree(shapes).query(shapes, predicate="within")
    larger = area[outer] > area[inner]
    inner, outer = inner[larger], outer[larger]
    # Of several around it the smallest waits; the others wait for that one.
    order = np.lexsort((-area[outer], inner))
    found[inner[order]] = outer[order]
    return found


def shortest(stretches: Sequence[Stretch], start: Point, after: Ints | None = None) -> list[Step]:
    """Every stretch once, each before the one that `after` names for it, in an order that keeps the travel short."""
    if not stretches:
        return []
    after = np.full(len(stretches), NOTHING_AFTER, np.int64) if after is None else after
    way = _Way(stretches, start, after)
    way.nearest_first()
    way.improve(min(MOST_ROUNDS, int(MOST_WORK / (4 * len(stretches) ** 2))))
    return [Step(int(index), int(entry)) for index, entry in zip(way.order, way.entry[way.order], strict=True)]


def travel(stretches: Sequence[Stretch], steps: Sequence[Step], start: Point) -> float:
    """How far the machine goes without working, in mm."""
    here, total = start, 0.0
    for step in steps:
        total += math.dist(here, stretches[step.index].entries[step.entry])
        here = leave_at(stretches, step)
    return total


def leave_at(stretches: Sequence[Stretch], step: Step) -> Point:
    """Where the machine is when a step is done."""
    stretch = stretches[step.index]
    return stretch.entries[1 - step.entry] if stretch.open else stretch.entries[step.entry]


class _Way:
    """An order and the entries, as arrays. `entry` is by stretch; the places are by position, home before the first."""

    def __init__(self, stretches: Sequence[Stretch], start: Point, after: Ints) -> None:
        self.stretches, self.after = stretches, after
        self.counts = np.array([len(one.entries) for one in stretches])
        self.first = np.cumsum(self.counts) - self.counts
        self.points = np.array([point for one in stretches for point in one.entries])
        self.open = np.array([one.open for one in stretches])
        self.home = np.array(start)
        self.order = np.arange(len(stretches))
        self.entry = np.zeros(len(stretches), np.int64)
        # Those beside which the way has changed since they were last found to stand well.
        self.restless = np.ones(len(stretches), bool)

    def _enter(self, index: Ints) -> Floats:
        return np.asarray(self.points[self.first[index] + self.entry[index]])

    def _leave(self, index: Ints) -> Floats:
        out = np.where(self.open[index], 1 - self.entry[index], self.entry[index])
        return np.asarray(self.points[self.first[index] + out])

    @property
    def travel(self) -> float:
        leave = np.vstack([self.home, self._leave(self.order[:-1])])
        return float(_apart(leave, self._enter(self.order)).sum())

    def improve(self, most_rounds: int) -> None:
        for _ in range(most_rounds if len(self.order) > 2 else 0):
            before = self.travel
            self.turn_round()
            self.move_elsewhere()
            self.choose_entries()
            if self.travel > before - _LEAST_MM:
                break

    def nearest_first(self) -> None:
        """Of what may be done, what is nearest."""
        owner = np.repeat(np.arange(len(self.counts)), self.counts)
        waits_for = np.bincount(self.after[self.after >= 0], minlength=len(self.counts))
        barred = np.where(waits_for[owner] > 0, np.inf, 0.0)
        here = self.home
        for position in range(len(self.counts)):
            at = int((np.hypot(self.points[:, 0] - here[0], self.points[:, 1] - here[1]) + barred).argmin())
            index = int(owner[at])
            self.order[position], self.entry[index] = index, at - self.first[index]
            barred[self.first[index] : self.first[index] + self.counts[index]] = np.inf
            later = self.after[index]
            if later >= 0:
                waits_for[later] -= 1
                if not waits_for[later]:
                    barred[self.first[later] : self.first[later] + self.counts[later]] = 0.0
            here = self._leave(np.array([index]))[0]

    def _positions(self) -> tuple[Ints, Ints]:
        """By position: where what waits for it stands (the end, if nothing does), and the last that it waits for (-1)."""
        count = len(self.order)
        place = np.empty(count + 1, np.int64)
        place[self.order], place[NOTHING_AFTER] = np.arange(count), count
        waiting = place[self.after[self.order]]
        last = np.full(count + 1, -1, np.int64)
        np.maximum.at(last, waiting, np.arange(count))
        return waiting, last[:count]

    def turn_round(self) -> None:
        """Stretches of the way turned round wherever that makes it shorter and nothing comes before what it waits for."""
        enter, leave = self._places()
        waiting, _ = self._positions()
        count = len(self.order)
        for i in range(count - 1):
            # Turning i..j replaces the ways into i and out of j; nothing in it may wait for anything in it.
            end = int(min(waiting[i:].min(), count))
            if end - i < 2:
                continue
            out = slice(i + 2, end + 1)  # leaving positions i + 1 .. end - 1, home counted
            onward = enter[i + 3 : end + 2]
            new_in = _apart(leave[i], leave[out])
            gain = _apart(leave[i], enter[i + 1]) - new_in
            inside = len(onward)  # the last one has no way out
            gain[:inside] += _apart(leave[out][:inside], onward) - _apart(enter[i + 1], onward)
            best = int(gain.argmax())
            if gain[best] <= _LEAST_MM:
                continue
            j = i + 1 + best
            turned = self.order[i : j + 1][::-1].copy()
            self.order[i : j + 1] = turned
            self.entry[turned] = np.where(self.open[turned], 1 - self.entry[turned], self.entry[turned])
            self._stir(i - 1, i, j, j + 1)
            enter, leave = self._places()
            waiting, _ = self._positions()

    def _places(self) -> tuple[Floats, Floats]:
        return np.vstack([self.home, self._enter(self.order)]), np.vstack([self.home, self._leave(self.order)])

    def move_elsewhere(self) -> None:
        """One to three paths moved together to where they make less of a detour."""
        count = len(self.order)
        enter, leave = self._places()
        waiting, last = self._positions()
        steps = _apart(leave[:-1], enter[1:])
        a = 0
        while a < count:
            moved = False
            if not self.restless[self.order[a]]:
                a += 1
                continue
            for length in range(1, min(LONGEST_MOVED, count - a) + 1):
                b = a + length - 1
                block = waiting[a : b + 1]
                high = int(block[block > b].min(initial=count))
                low = self._last_before(a, b, last)
                # Home counts as position -1: a way leads into each position, none out of the last.
                begins, ends = enter[a + 1], leave[b + 1]
                saved = steps[a]
                if b + 1 < count:
                    saved += steps[b + 1] - _far(leave[a], enter[b + 2])
                if saved <= _LEAST_MM:
                    continue
                spots = np.concatenate([np.arange(low, a - 1), np.arange(b + 1, high)])
                if not len(spots):
                    continue
                onward = spots + 1 < count
                cost = _apart(leave[spots + 1], begins)
                inner = spots[onward]
                cost[onward] += _apart(ends, enter[inner + 2]) - steps[inner + 1]
                best = int(cost.argmin())
                if saved - cost[best] <= _LEAST_MM:
                    continue
                self._move(a, b, int(spots[best]))
                self._stir(a - 1, a, b, b + 1, int(spots[best]), int(spots[best]) + 1)
                enter, leave = self._places()
                waiting, last = self._positions()
                steps = _apart(leave[:-1], enter[1:])
                moved = True
                break
            if not moved:
                self.restless[self.order[a]] = False
                a += 1

    def _last_before(self, a: int, b: int, last: Ints) -> int:
        """The last position before `a` that anything at a..b waits for; -1 for none."""
        low = -1
        for position in range(a, b + 1):
            if last[position] < a:
                low = max(low, int(last[position]))
            else:  # what it waits for last stands at a..b too, and hides the others
                waits_for = np.flatnonzero(self.after[self.order[:a]] == self.order[position])
                low = max(low, int(waits_for.max(initial=-1)))
        return low

    def _stir(self, *positions: int) -> None:
        some = [position for position in positions if 0 <= position < len(self.order)]
        self.restless[self.order[some]] = True

    def _move(self, a: int, b: int, spot: int) -> None:
        """The paths at positions a..b to behind position `spot`."""
        block = self.order[a : b + 1].copy()
        rest = np.delete(self.order, np.s_[a : b + 1])
        at = spot + 1 if spot < a else spot - (b - a)
        self.order = np.concatenate([rest[:at], block, rest[at:]])

    def choose_entries(self) -> None:
        """For this order the entries with the least travel of all: the best way to each entry, from the one before."""
        cost, came = np.zeros(1), []
        leaves = self.home[None]
        for index in self.order:
            enters = self.points[self.first[index] : self.first[index] + self.counts[index]]
            ways = np.hypot(enters[:, 0][:, None] - leaves[:, 0], enters[:, 1][:, None] - leaves[:, 1]) + cost
            best = ways.argmin(axis=1)
            came.append(best)
            cost = ways[np.arange(len(enters)), best]
            leaves = enters[::-1] if self.open[index] else enters
        chosen = int(cost.argmin())
        for index, best in zip(self.order[::-1], came[::-1], strict=True):
            self.restless[index] |= self.entry[index] != chosen
            self.entry[index] = chosen
            chosen = int(best[chosen])


def _apart(a: Floats, b: Floats) -> Floats:
    away = a - b
    return np.asarray(np.hypot(away[..., 0], away[..., 1]))


def _far(a: Floats, b: Floats) -> float:
    return math.hypot(a[0] - b[0], a[1] - b[1])
