"""Where a closed path may start, and how it is led into: in, a part's path and its joints; out, places on straight runs.

The mark that a start leaves belongs where no other part touches, and on waste if a lead-in is asked for.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ..build import Mate, Member
from ..geometry import Circle, Contour, Point, Ring, Segment, Trace, Vertex
from ..geometry.corners import tangent

SHORTEST_RUN_MM = 2.0
MOST_STARTS = 6


@dataclass(frozen=True)
class Start:
    """The middle of a segment of a ring, or the first corner where a ring has no straight run."""

    segment: int
    point: Point


def starts(ring: Ring, joints: Sequence[Member]) -> tuple[Start, ...]:
    """Places where `ring` may start, the best kind only: clear of joints, else on the tips of fingers, else anywhere."""
    if isinstance(ring, Circle):  # a circle is written whole, and starts where its format says
        return (Start(0, ring.corners[0].point),)
    ranked: list[tuple[int, float, int, Segment]] = []
    for index, segment in enumerate(ring.segments):
        if segment.bulge == 0 and segment.length >= SHORTEST_RUN_MM:
            ranked.append((_kind(segment, joints), -segment.length, index, segment))
    if not ranked:
        return (Start(0, ring.corners[0].point),)
    best = min(ranked)[0]
    chosen = sorted(one for one in ranked if one[0] == best)[:MOST_STARTS]
    return tuple(Start(index, segment.at(0.5)) for _, _, index, segment in chosen)


def members_of(mates: Sequence[Mate], part: str) -> tuple[Member, ...]:
    return tuple(member for mate in mates for member in (mate.first, mate.second) if member.part == part)


def _kind(segment: Segment, joints: Sequence[Member]) -> int:
    """0 clear of joints, 1 on the tip of a finger, 2 on a face that touches another part."""
    kind = 0
    for member in joints:
        depths = [_depth(member, point) for point in (segment.start, segment.end)]
        if max(depths) > member.depth * 1.05:
            continue  # it leaves the joint's band
        tip = max(depths) < member.depth / 2 and abs(depths[0] - depths[1]) < 1e-3
        kind = max(kind, 1 if tip else 2)
    return kind


def _depth(member: Member, point: Point) -> float:
    width, height = member.panel
    return {"bottom": point[1], "top": height - point[1], "left": point[0], "right": width - point[0]}[member.side]


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
    from ..geometry.linking import winding
    from ..geometry.segments import segments_of_rings

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
