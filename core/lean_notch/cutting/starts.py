"""Where a closed path may start, and how it is led into: in, a part's path and its joints; out, places on straight runs.

The mark that a start leaves belongs where no other part touches, and on waste if a lead-in is asked for.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

from ..build import Mate, Member
from ..geometry import Circle, Contour, Point, Ring, Segment, Trace, Vertex
from ..geometry.corners import tangent

SHORTEST_RUN_MM = 2.0
MOST_STARTS = 6
LONGEST_RUNS = 24


@dataclass(frozen=True)
class Start:
    """The middle of a segment of a ring, or the first corner where a ring has no straight run."""

    segment: int
    point: Point


def starts(ring: Ring, joints: Sequence[Member]) -> tuple[Start, ...]:
    """Places where `ring` may start, the best kind only: clear of joints, else on the tips of fingers, else anywhere."""
    if isinstance(ring, Circle):  # a circle is written whole, and starts where its format says
        return (Start(0, ring.corners[0].point),)
    runs = [(-s.length, i, s) for i, s in enumerate(ring.segments) if s.bulge == 0 and s.length >= SHORTEST_RUN_MM]
    if not runs:
        return (Start(0, ring.corners[0].point),)
    bands = [_band(member) for member in joints]
    ranked = [(_kind(segment, bands), index, segment) for _, index, segment in sorted(runs)[:LONGEST_RUNS]]
    best = min(kind for kind, _, _ in ranked)
    chosen = [(index, segment) for kind, index, segment in ranked if kind == best][:MOST_STARTS]
    return tuple(Start(index, segment.at(0.5)) for index, segment in chosen)


def members_of(mates: Sequence[Mate], part: str) -> tuple[Member, ...]:
    """The sides of a part that joints are at, each once, however many placements of it are joined there."""
    own = [member for mate in mates for member in (mate.first, mate.second) if member.part == part]
    return tuple({(member.side, member.start, member.depth): member for member in own}.values())


class _Band(NamedTuple):
    """A joint's strip along its side of the panel: depth = `edge` + `sense` x the coordinate of `axis`."""

    axis: int
    edge: float
    sense: float
    depth: float


def _band(member: Member) -> _Band:
    width, height = member.panel
    axis, edge, sense = {
        "bottom": (1, 0.0, 1.0), "top": (1, height, -1.0), "left": (0, 0.0, 1.0), "right": (0, width, -1.0),
    }[member.side]  # fmt: skip
    return _Band(axis, edge, sense, member.depth)


def _kind(segment: Segment, bands: Sequence[_Band]) -> int:
    """0 clear of joints, 1 on the tip of a finger, 2 on a face that touches another part."""
    kind, (start, end, _) = 0, segment
    for axis, edge, sense, depth in bands:
        first, last = edge + sense * start[axis], edge + sense * end[axis]
        if max(first, last) <= depth * 1.05:  # else it leaves the joint's band
            tip = max(first, last) < depth / 2 and abs(first - last) < 1e-3
            kind = max(kind, 1 if tip else 2)
    return kind


def starting_at(ring: Ring, start: Start) -> Ring:
    """`ring` beginning at `start`: the same line, with one vertex more."""
    if isinstance(ring, Circle) or ring.corners[0].point == start.point:
        return ring
    corners = ring.corners
    i = start.segment
    return Contour((Vertex(*start.point), *corners[i + 1 :], *corners[: i + 1]))


def led_in(ring: Ring, length: float) -> Trace | None:
    """`ring` as an open line that comes in slantwise from the waste at its right and ends where it met the ring.

    None if the waste is too narrow for half of `length`.
    """
    from ..geometry.segments import segments_of_rings
    from ..geometry.winding import winding

    corners = ring.corners
    first = ring.segments[0]
    (ux, uy), start = tangent(first, 0), first.start
    around, _ = segments_of_rings([ring], [0])
    for reach in (length, length * 0.7, length * 0.5):
        step = reach / math.sqrt(2)
        place = (start[0] - step * ux + step * uy, start[1] - step * uy - step * ux)
        in_waste = (winding(around, place) == 0) == (ring.area > 0)
        if in_waste and around.nearest(place) >= reach / 2:
            return Trace((Vertex(*place), *corners, Vertex(*start)))
    return None
