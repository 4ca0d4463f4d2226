"""Walls between compartments: in, tracks across and along and the pieces of wall that are taken out; out, parts that cross, end
in each other or in the sides, and their joints.

A piece of wall is called after its wall and the track beside which it stands: `c2r1` is column wall 2 along row 1, `r1c3` row wall
1 along column 3. What is left of a wall between two gaps is one part. Where walls cross they are cross-lapped, column walls
slotted from above; where one ends at another it is tabbed into it.
"""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Literal

from ..design import Dimension
from ..ground.errors import BadDocument
from ..joints import CrossLap, Finger, TabAndSlot
from ..lengths.units import Unit
from .box import Assembly
from .tracks import Tracks, track_lengths

Stands = Callable[[int, int], bool]
_PIECE = re.compile(r"c(\d+)r(\d+)|r(\d+)c(\d+)")


@dataclass(frozen=True)
class Plan:
    """Columns and rows, and the pieces that are taken out: (column wall, row) and (row wall, column), counted from 1."""

    columns: Tracks
    rows: Tracks
    no_column: frozenset[tuple[int, int]]
    no_row: frozenset[tuple[int, int]]

    @property
    def column_walls(self) -> int:
        return self.columns.walls

    @property
    def row_walls(self) -> int:
        return self.rows.walls

    @property
    def across(self) -> int:
        """Places from left to right, an empty rest among them."""
        return self.column_walls + 1

    @property
    def along(self) -> int:
        return self.row_walls + 1

    def column(self, wall: int, row: int) -> bool:
        """Whether a piece of a column wall stands."""
        return 1 <= wall <= self.column_walls and 1 <= row <= self.along and (wall, row) not in self.no_column

    def row(self, wall: int, column: int) -> bool:
        return 1 <= wall <= self.row_walls and 1 <= column <= self.across and (wall, column) not in self.no_row


def read_plan(columns: Tracks, rows: Tracks, without: str) -> Plan:
    """Raises BadDocument at "without" for a piece that there is not."""
    no_column, no_row = set(), set()
    for name in without.replace(",", " ").split():
        found = _PIECE.fullmatch(name)
        if not found:
            raise BadDocument(
                f"“{name}” is not a piece of wall.",
                fix="Name pieces as c2r1 or r1c3, with blanks between them.",
                field="without",
            )
        wall, place, other, beside = (int(one) if one else 0 for one in found.groups())
        if wall:
            no_column.add((wall, place))
        else:
            no_row.add((other, beside))
    plan = Plan(columns, rows, frozenset(no_column), frozenset(no_row))
    for kind, walls, places, names in (
        ("c{}r{}", plan.column_walls, plan.along, no_column),
        ("r{}c{}", plan.row_walls, plan.across, no_row),
    ):
        for wall, place in sorted(names):
            if not (1 <= wall <= walls and 1 <= place <= places):
                raise BadDocument(
                    f"There is no piece of wall {kind.format(wall, place)}.",
                    fix=f"Column walls go from c1 to c{plan.column_walls}, row walls from r1 to r{plan.row_walls}." if walls
                    else "There are no walls of that kind.", field="without",
                )  # fmt: skip
    return plan


def lengths(made: Assembly, plan: Plan, unit: tuple[Unit, Unit], wall: str, start: str) -> None:
    """Tracks, and where each wall begins, as named lengths: `wall` is how thick walls are, `start` where the inside begins."""
    for tracks, inside, name, one in (
        (plan.columns, "inside_width", "col", unit[0]),
        (plan.rows, "inside_depth", "row", unit[1]),
    ):
        for track, title, length, typed in track_lengths(tracks, inside, wall, name, one):
            made.dimensions.append(Dimension(track, title, length, chosen=typed, positive=not typed))
        before = start
        what = "column" if name == "col" else "row"
        for i in range(1, tracks.walls + 1):
            made.follows(f"{name}_wall_{i}", f"{what} wall {i} begins at", f"{before} + {name}_{i}")
            before = f"{name}_wall_{i} + {wall}"


End = Literal["side", "tee", "corner", "free"]
"""How a wall ends: at a side of the case; at a wall that goes on to both sides; in a corner with one that ends there too; at none."""


@dataclass(frozen=True)
class _Run:
    """What is left of a wall between two gaps: its pieces `first` to `last`; the walls of the other kind that it crosses, and
    those that end at it; and how it ends itself."""

    wall: int
    first: int
    last: int
    crosses: tuple[int, ...]
    takes: tuple[int, ...]
    low: End
    high: End

    @property
    def looks(self) -> tuple[object, ...]:
        """What its part is like: the same of it, and it is the same part."""
        return (self.first, self.last, self.crosses, self.takes, self.low, self.high)


def _runs(walls: int, places: int, stands: Stands, other: Stands) -> Iterator[_Run]:
    for wall in range(1, walls + 1):
        place = 1
        while place <= places:
            if not stands(wall, place):
                place += 1
                continue
            first = place
            while place < places and stands(wall, place + 1):
                place += 1
            beside = {k: (other(k, wall), other(k, wall + 1)) for k in range(first - 1, place + 1)}
            inner = range(first, place)
            yield _Run(
                wall, first, place, tuple(k for k in inner if all(beside[k])), tuple(k for k in inner if sum(beside[k]) == 1),
                _end(beside[first - 1], side=first == 1), _end(beside[place], side=place == places),
            )  # fmt: skip
            place += 1


def _end(beside: tuple[bool, bool], *, side: bool) -> End:
    return "side" if side else "tee" if all(beside) else "corner" if any(beside) else "free"


@dataclass(frozen=True)
class Walls:
    """How walls stand and what holds them: their height, the floor under them, their board and its thickness, where the inside
    begins, and whether the sides hold them."""

    height: str
    floor: str
    board: str
    thick: str
    start: str
    held: bool


def walls(made: Assembly, plan: Plan, how: Walls) -> None:
    """Adds the walls' parts, where they stand, and their joints."""
    columns = [*_runs(plan.column_walls, plan.along, plan.column, plan.row)]
    rows = [*_runs(plan.row_walls, plan.across, plan.row, plan.column)]
    at_column, at_row = _stand(made, columns, how, "column"), _stand(made, rows, how, "row")
    for runs, others, sides in ((at_column, at_row, ("front", "back")), (at_row, at_column, ("left", "right"))):
        for run, name in runs:
            for end, edge, wall, side in (
                (run.low, "left", run.first - 1, sides[0]),
                (run.high, "right", run.last, sides[1]),
            ):
                if end == "side" and how.held:
                    made.joint(name, edge, side, "face", TabAndSlot())
                elif end == "tee":
                    made.joint(name, edge, _at(others, wall, run.wall), "face", TabAndSlot())
    for run, name in at_column:
        for wall in run.crosses:
            made.joint(name, "face", _at(at_row, wall, run.wall), "face", CrossLap())
        for end, edge, wall in ((run.low, "left", run.first - 1), (run.high, "right", run.last)):
            if end == "corner":
                other, row = next(
                    (one, place) for one, place in at_row if one.wall == wall and run.wall in (one.first - 1, one.last)
                )
                made.joint(name, edge, row, "left" if other.first - 1 == run.wall else "right", Finger())


def _at(runs: list[tuple[_Run, str]], wall: int, place: int) -> str:
    """The run of a wall that goes on to both sides of another kind's wall `place`."""
    return next(name for run, name in runs if run.wall == wall and run.first <= place < run.last)


def _stand(made: Assembly, runs: list[_Run], how: Walls, kind: Literal["column", "row"]) -> list[tuple[_Run, str]]:
    """One part for all runs that are alike."""
    name, other, inside = ("col", "row", "inside_depth") if kind == "column" else ("row", "col", "inside_width")
    alike = list(dict.fromkeys(run.looks for run in runs))
    counts: Counter[int] = Counter()
    found = []
    for run in runs:
        number = alike.index(run.looks)
        low = (
            how.start
            if run.low == "side"
            else f"{other}_wall_{run.first - 1}" + ("" if run.low == "corner" else f" + {how.thick}")
        )
        part = f"{kind}-{_letter(number)}" if len(alike) > 1 else kind
        counts[number] += 1
        if counts[number] == 1:
            high = (
                f"{how.start} + {inside}"
                if run.high == "side"
                else f"{other}_wall_{run.last}" + (f" + {how.thick}" if run.high == "corner" else "")
            )
            whole = run.low == run.high == "side"
            title = f"{kind.capitalize()} wall" + (f" {_letter(number).upper()}" if len(alike) > 1 else "")
            made.panel(part, title, inside if whole else f"{high} - ({low})", how.height, board=how.board)
        place = f"{part}-{counts[number]}"
        at = f"{name}_wall_{run.wall}"
        if kind == "column":
            made.stands(part, (f"{at} + {how.thick}", low, how.floor), "+y", name=place)
        else:
            made.stands(part, (low, at, how.floor), "+x", name=place)
        found.append((run, place))
    return found


def _letter(number: int) -> str:
    """
    >>> _letter(0), _letter(25), _letter(26)
    ('a', 'z', 'aa')
    """
    return (_letter(number // 26 - 1) if number >= 26 else "") + chr(97 + number % 26)
