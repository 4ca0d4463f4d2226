"""Where a closed path may start, and how it is led into: in, a part's path and its joints; out, places on straight runs.

The mark that a start leaves belongs where no other part touches, and on waste if a lead-in is asked for.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import TYPE_CHECKING

from ..geometry import Circle, Contour, Point, Region, Ring, Segment, Trace, Vertex, loops
from ..geometry.corners import tangent
from ..joints.mate import Strip
from ..making import Mate

if TYPE_CHECKING:
    import shapely

SHORTEST_RUN_MM = 2.0
MOST_STARTS = 6
LONGEST_RUNS = 24


@dataclass(frozen=True)
class Start:
    """The middle of a segment of a ring, or the first corner where a ring has no straight run."""

    segment: int
    point: Point


def starts(ring: Ring, joints: Sequence[Strip]) -> tuple[Start, ...]:
    """Places where `ring` may start, the best kind only: clear of joints, else on the tips of fingers, else anywhere."""
    if isinstance(ring, Circle):  # a circle is written whole, and starts where its format says
        return (Start(0, ring.corners[0].point),)
    runs = [(-s.length, i, s) for i, s in enumerate(ring.segments) if s.bulge == 0 and s.length >= SHORTEST_RUN_MM]
    if not runs:
        return (Start(0, ring.corners[0].point),)
    ranked = [(_kind(segment, joints), index, segment) for _, index, segment in sorted(runs)[:LONGEST_RUNS]]
    best = min(kind for kind, _, _ in ranked)
    chosen = [(index, segment) for kind, index, segment in ranked if kind == best][:MOST_STARTS]
    return tuple(Start(index, segment.at(0.5)) for index, segment in chosen)


def strips_of(mates: Sequence[Mate], part: str) -> tuple[Strip, ...]:
    """Where on a part joints run along edges, each once, however many placements of it are joined there."""
    strips = [change.strip for mate in mates for change in mate.members if change.part == part and change.notches]
    return tuple(dict.fromkeys(strip for strip in strips if strip))


def _kind(segment: Segment, strips: Sequence[Strip]) -> int:
    """0 clear of joints, 1 on the tip of a finger or a tab, 2 on a face that touches another part."""
    kind, (start, end, _) = 0, segment
    for strip in strips:
        (_, first), (_, last) = strip.flat(start), strip.flat(end)
        deep = strip.high - strip.low
        if max(first, last) <= strip.high + 0.05 * deep:  # else it leaves the joint's strip
            tip = abs(max(first, last) - strip.tip) < deep / 2 and abs(first - last) < 1e-3
            kind = max(kind, 1 if tip else 2)
    return kind


def starting_at(ring: Ring, start: Start) -> Ring:
    """`ring` beginning at `start`: the same line, with one vertex more."""
    if isinstance(ring, Circle) or ring.corners[0].point == start.point:
        return ring
    corners = ring.corners
    i = start.segment
    return Contour((Vertex(*start.point), *corners[i + 1 :], *corners[: i + 1]))


_SHORTER = (1.0, 0.7, 0.5, 0.35)
"""Shares of the wanted length that a lead-in may have where the waste is narrow."""


class Waste:
    """What is not part on a sheet: in, the finished parts as they lie, the kerf and the sheet; out, whether a beam may run
    along a line there."""

    def __init__(self, parts: Sequence[Region], kerf: float, width: float, height: float) -> None:
        self.parts, self.kerf = parts, kerf
        self.width, self.height = width, height

    @cached_property
    def _tree(self) -> shapely.STRtree:
        import shapely

        return shapely.STRtree([shapely.Polygon(*loops(region, _CHORD_MM)) for region in self.parts])

    def clear(self, start: Point, end: Point) -> bool:
        """Whether the beam takes nothing of a part on its way."""
        import shapely

        beside = self.kerf / 2
        if not (beside <= start[0] <= self.width - beside and beside <= start[1] <= self.height - beside):
            return False
        line = shapely.LineString([start, end])
        return not len(self._tree.query(line, predicate="dwithin", distance=self.kerf / 2 - 2 * _CHORD_MM))


_CHORD_MM = 0.0005


def led_in(ring: Ring, length: float, waste: Waste) -> Trace | None:
    """`ring` as an open line that comes in slantwise from the waste at its right and ends where it met the ring.

    None if there is no room in the waste for a good part of `length`.
    """
    corners = ring.corners
    first = ring.segments[0]
    (ux, uy), start = tangent(first, 0), first.start
    for share in _SHORTER:
        step = share * length / math.sqrt(2)
        place = (start[0] - step * ux + step * uy, start[1] - step * uy - step * ux)
        if waste.clear(place, start):
            return Trace((Vertex(*place), *corners, Vertex(*start)))
    return None
