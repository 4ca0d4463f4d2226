"""Where on a part there is room for its name: in, what is left of the part and what is drawn on it; out, two boxes that nothing crosses,
one for a part as it lies and one for a part that lies turned by a quarter, both on the part.

Found on a raster, which is as fine as a drawing needs. Whoever draws a name puts it there where it fits, else beside the part with a
line to it, else writes a number there and the names in a list.
"""

from __future__ import annotations

from typing import TYPE_CHECKING

from ..geometry import Box, Motion, Point, Region, loops
from ..geometry.flatten import flatten
from ..ground.remembered import Same, remembered
from ..steps.being_made import FlatMark
from . import FlatPart

if TYPE_CHECKING:
    import numpy as np

CELLS = 24
"""Along the longer side."""

LETTERS_WIDE = 5.0
"""How much wider than high a name is, roughly."""

_CHORD_MM = 0.3
_OFF_MM = 0.01
"""So much inside of an edge that lies on a line of the raster, a place is on the board."""

Rooms = tuple[Box | None, Box | None]


def name_rooms(part: FlatPart) -> Rooms:
    """In mm on the part; None where there is no room at all."""
    return _rooms(part.region, Same(part.marks))


def room_at(part: FlatPart, angle: float, middle: Point) -> Box | None:
    """In mm on a sheet, of a part that lies there turned by so many degrees, with the middle of its box at `middle`; None also for
    what lies askew."""
    quarters, askew = divmod(angle % 360, 90)
    room = None if askew else name_rooms(part)[int(quarters) % 2]
    if room is None:
        return None
    left, low, right, high = part.box
    x, y = Motion(angle=angle).point(((left + right) / 2, (low + high) / 2))
    return Motion(middle[0] - x, middle[1] - y, angle).box(room)


@remembered(1024)
def _rooms(region: Region, marks: Same[tuple[FlatMark, ...]]) -> Rooms:
    free, box = _free(region, marks.it), region.box
    return _placed(_largest(free), free, box), _placed(_swapped(_largest(free.T)), free, box)


_Cells = tuple[int, int, int, int]
"""First column and row, and how many of each."""


def _placed(cells: _Cells | None, free: np.ndarray, box: Box) -> Box | None:
    if cells is None:
        return None
    left, low, right, top = box
    rows, columns = free.shape
    dx, dy, (x, y, wide, high) = (right - left) / columns, (top - low) / rows, cells
    return (left + x * dx, low + y * dy, left + (x + wide) * dx, low + (y + high) * dy)


def _swapped(cells: _Cells | None) -> _Cells | None:
    return cells and (cells[1], cells[0], cells[3], cells[2])


def _free(region: Region, marks: tuple[FlatMark, ...]) -> np.ndarray:
    """By row and column, whether a cell is board through and through and bears no mark."""
    import numpy as np
    import shapely

    left, low, right, high = region.box
    middle_x, middle_y = (left + right) / 2, (low + high) / 2
    cell = max(right - left, high - low) / CELLS
    columns, rows = max(round((right - left) / cell), 1), max(round((high - low) / cell), 1)
    board = shapely.Polygon(*loops(region, _CHORD_MM))
    shapely.prepare(board)
    xs, ys = (np.linspace(a, b, n + 1) for a, b, n in ((left, right, columns), (low, high, rows)))
    inside = shapely.contains_xy(
        board, *np.meshgrid(xs + _OFF_MM * np.sign(middle_x - xs), ys + _OFF_MM * np.sign(middle_y - ys))
    )
    free: np.ndarray = inside[:-1, :-1] & inside[1:, :-1] & inside[:-1, 1:] & inside[1:, 1:]
    columns_of, rows_of = (
        ((_drawn(region, marks, cell / 2) - (left, low)) / (right - left, high - low) * (columns, rows)).astype(int).T
    )
    free[np.minimum(rows_of, rows - 1), np.minimum(columns_of, columns - 1)] = False
    return free


def _drawn(region: Region, marks: tuple[FlatMark, ...], apart: float) -> np.ndarray:
    """Places along the part's outlines and all that is drawn on it, no further apart than that, of shape (n, 2)."""
    import numpy as np

    marked = (ring for mark in marks for area in mark.regions for ring in area.rings)
    traces = (trace for mark in marks for trace in mark.traces)
    starts: list[Point] = []
    ends: list[Point] = []
    for line in (*region.rings, *marked, *traces):
        points = flatten(line.segments, _CHORD_MM)
        starts += points
        ends += [*points[1:], line.segments[-1].end]
    first, last = np.array(starts), np.array(ends)
    counts = np.ceil(np.hypot(*(last - first).T) / apart).astype(int) + 1
    share = (np.arange(counts.sum()) - np.repeat(np.cumsum(counts) - counts, counts)) / np.repeat(counts, counts)
    places: np.ndarray = np.repeat(first, counts, axis=0) + share[:, None] * np.repeat(last - first, counts, axis=0)
    return places


def _largest(free: np.ndarray) -> _Cells | None:
    """The rectangle of free cells that takes the largest name; of several the largest, then the one nearest the middle."""
    rows, columns = free.shape
    heights = [0] * columns
    best: tuple[float, float, float] | None = None
    found: _Cells | None = None
    for row in range(rows):
        heights = [high + 1 if open_ else 0 for high, open_ in zip(heights, free[row].tolist(), strict=True)]
        stack: list[tuple[int, int]] = []  # where a rectangle begins, and how high it is
        for column, high in enumerate((*heights, 0)):
            begins = column
            while stack and stack[-1][1] >= high:
                begins, tall = stack.pop()
                wide = column - begins
                off = abs(begins + wide / 2 - columns / 2) + abs(row + 1 - tall / 2 - rows / 2)
                score = (min(tall, wide / LETTERS_WIDE), wide * tall, -off)
                if best is None or score > best:
                    best, found = score, (begins, row + 1 - tall, wide, tall)
            if high:
                stack.append((begins, high))
    return found
