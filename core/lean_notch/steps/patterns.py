"""Copies of a shape, or of all that there is: in columns and rows, round a centre, or spread between two things."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from ..documents.rules import AmountRule, Title
from ..geometry import Motion, grid, round_about
from ..ground.errors import OutOfRange
from ..ground.limits import MOST_COPIES
from ..lengths.length import Amount, Length
from .fields import FULL_TURN, ONE, ZERO, Of, Turn
from .words import Say, Words, of_words, pair


@dataclass(frozen=True)
class Grid:
    """Copies in columns and rows; the first one is where the step says."""

    columns: Annotated[Amount, AmountRule(1, 1000, whole=True), Title("Columns")] = ONE
    rows: Annotated[Amount, AmountRule(1, 1000, whole=True), Title("Rows")] = ONE
    dx: Annotated[Length, Title("Column spacing")] = ZERO
    dy: Annotated[Length, Title("Row spacing")] = ZERO
    kind: ClassVar[str] = "grid"


@dataclass(frozen=True)
class Around:
    """Copies round a centre on the part, over `sweep` degrees."""

    count: Annotated[Amount, AmountRule(1, MOST_COPIES, whole=True), Title("Copies")]
    x: Annotated[Length, Title("Centre, from the left")]
    y: Annotated[Length, Title("Centre, from the bottom")]
    sweep: Annotated[Turn, Title("Sweep")] = FULL_TURN
    kind: ClassVar[str] = "around"


@dataclass(frozen=True)
class Spread:
    """Copies spread evenly between two things, the part's own ends where none is named.

    By `gaps`: the gaps between neighbours are equal, and those at both ends too unless a `margin` is given; by `centres`:
    the distances from centre to centre are, and those to both ends.
    """

    count: Annotated[Amount, AmountRule(1, MOST_COPIES, whole=True), Title("Copies")]
    along: Annotated[Literal["x", "y"], Title("Along")] = "x"
    start: Annotated[Of, Title("Between")] = ""
    end: Annotated[Of, Title("And")] = ""
    by: Annotated[Literal["gaps", "centres"], Title("Equal")] = "gaps"
    margin: Annotated[Length | None, Title("Margin at the ends", "empty: as wide as the gaps")] = None
    kind: ClassVar[str] = "spread"


Pattern = Grid | Around | Spread


def how_many(pattern: Pattern | None, at: Mapping[str, float]) -> int:
    if isinstance(pattern, Grid):
        return int(at["pattern/columns"] * at["pattern/rows"])
    return int(at["pattern/count"]) if pattern else 1


def motions(pattern: Pattern | None, at: Mapping[str, float]) -> list[Motion]:
    """Where the copies are, the first one where it is. `at` has the pattern's numbers by path, what is spread its pitch."""
    if isinstance(pattern, Around):
        centre = (at["pattern/x"], at["pattern/y"])
        return list(round_about(centre, int(at["pattern/count"]), at["pattern/sweep"]))
    if isinstance(pattern, Spread):
        count, pitch = int(at["pattern/count"]), at["pattern/pitch"]
        return list(grid(count, 1, pitch, 0.0) if pattern.along == "x" else grid(1, count, 0.0, pitch))
    if not isinstance(pattern, Grid):
        return [Motion()]
    columns, rows = int(at["pattern/columns"]), int(at["pattern/rows"])
    dx, dy = at["pattern/dx"], at["pattern/dy"]
    for count, apart, name, what in ((columns, dx, "dx", "column"), (rows, dy, "dy", "row")):
        if count > 1 and apart == 0:
            raise OutOfRange(
                f"{count} {what}s lie on one another.", fix=f"Type the {what} spacing.", field=f"pattern/{name}"
            )
    return list(grid(columns, rows, dx, dy))


def pattern_words(pattern: Pattern | None, say: Say) -> Iterator[Words]:
    if isinstance(pattern, Grid):
        for count, apart, what in (("columns", "dx", "columns"), ("rows", "dy", "rows")):
            if say(f"pattern/{count}").typed != ONE:
                yield Words(", in ")
                yield say(f"pattern/{count}")
                yield Words(f" {what} ")
                yield say(f"pattern/{apart}")
                yield Words(" apart")
    elif isinstance(pattern, Around):
        yield Words(", ")
        yield say("pattern/count")
        yield Words(" times round ")
        yield from pair(say, "pattern/x", "pattern/y")
    elif isinstance(pattern, Spread):
        yield Words(", ")
        yield say("pattern/count")
        way = "across" if pattern.along == "x" else "up"
        ends = [of_words(one, say.titles) for one in (pattern.start, pattern.end) if one]
        between = f" between {' and '.join(ends)}" if len(ends) == 2 else f" from {ends[0]}" if ends else f" {way}"
        yield Words(f" times, evenly{between}, equal {pattern.by}")
