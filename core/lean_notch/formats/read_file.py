"""What a reader finds in a file: closed or open paths per layer, in mm with y up, whatever the format was."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ..geometry import Point, Segment
from ..ground.errors import UnreadableFile
from ..ground.limits import MOST_ELEMENTS, MOST_LINES

MEETS_MM = 0.001
"""Ends this near to each other meet: a path whose own ends meet is closed, whatever its flag says."""


def check_elements(count: int) -> None:
    """Raises UnreadableFile. Copies are counted before any is made."""
    if count > MOST_ELEMENTS:
        raise UnreadableFile(
            f"The drawing has {count:,} elements, copies counted; {MOST_ELEMENTS:,} are read.",
            fix="Split it into several files.", field="",
        )  # fmt: skip


class Room:
    """Counts a file's lines and arcs while they are read."""

    def __init__(self) -> None:
        self.taken = 0

    def take(self, count: int) -> None:
        """Raises UnreadableFile once there are too many."""
        self.taken += count
        if self.taken > MOST_LINES:
            raise UnreadableFile(
                f"The drawing has more lines and curves than are read at once: {MOST_LINES:,} lines, or as much in curves.",
                fix="Split it into several files.",
            )


@dataclass(frozen=True)
class ReadPath:
    """`layer` is the DXF layer or the SVG group's id, lower case; `name` the element's id, if it has one.

    `stroke_mm` is 0 where no line is drawn, and None where the format says no width. `curved` tells that curves were
    read as arcs within a micrometre. `colour` is that of the line, or of the fill where no line is drawn: "#rrggbb", DXF's own
    number ("7"), or "" where it is neither.
    """

    layer: str
    name: str
    segments: tuple[Segment, ...]
    closed: bool
    stroke_mm: float | None = None
    filled: bool = False
    curved: bool = False
    colour: str = ""

    @property
    def goes_round(self) -> bool:
        """Whether it is closed: by its flag, or since its ends meet."""
        there = self.segments
        return self.closed or (len(there) > 1 and math.dist(there[0].start, there[-1].end) <= MEETS_MM)


@dataclass(frozen=True)
class ReadText:
    """Text left as text."""

    layer: str
    text: str
    place: Point


@dataclass(frozen=True)
class ReadFile:
    """`width` and `height` are the page's in mm where the format has a page, else None.

    `unit` is the one the file names ("mm", "in", "px", …), or "" if it names none and was taken as `assumed`.
    `unread` lists what was found and is no outline (images, …), each kind once; `points` are places without extent;
    `hidden` are layers that are switched off or frozen and hold something: what lies on them was not read. `unheeded` is what the
    reader does not do as the format has it ("a clip path"): another program may draw the file otherwise. `corner` is the page's
    lower left in the file's own numbers, in mm and y down, where the format says both: its zero lies that far from there.
    """

    paths: tuple[ReadPath, ...]
    width: float | None = None
    height: float | None = None
    unread: tuple[str, ...] = ()
    unit: str = "mm"
    assumed: str = ""
    texts: tuple[ReadText, ...] = ()
    points: tuple[Point, ...] = ()
    hidden: tuple[str, ...] = ()
    unheeded: tuple[str, ...] = ()
    corner: Point | None = None
