"""Corners rounded or cut off: in, a contour and which of its corners; out, the contour with arcs or bevels there.

Corners are numbered like the vertices. Works between lines and arcs alike; what is left of them stays what it was.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Sequence
from typing import NamedTuple

from ..ground.errors import RadiusTooLarge
from ..lengths.said import say_mm
from .contour import JOIN_MM, Contour, Point, Segment, Vertex
from .crossings import carriers_meet, turn_to

_SMOOTH = 1e-9


class _Cut(NamedTuple):
    """A corner replaced by a segment from a place on the edge before to one on the edge after it."""

    leave: Point
    arrive: Point
    bulge: float


def rounded(ring: Contour, radius: float, corners: Iterable[int] | None = None) -> Contour:
    """`ring` with an arc of `radius` mm at each of `corners` (all if None). Smooth corners stay as they are.

    Raises RadiusTooLarge, with the largest radius that fits in its fix.

    >>> from .contour import rectangle
    >>> round(rounded(rectangle(0, 0, 60, 25), 10).area, 3)
    1414.159
    """
    return _replaced(ring, radius, corners, _fillet, "radius")


def chamfered(ring: Contour, setback: float, corners: Iterable[int] | None = None) -> Contour:
    """`ring` with each of `corners` (all if None) cut off straight, `setback` mm along both edges from the corner.

    Raises RadiusTooLarge if the edges are too short.
    """
    return _replaced(ring, setback, corners, _bevel, "chamfer")


_Make = Callable[[Segment, Segment, float], "_Cut | None"]


def _replaced(ring: Contour, size: float, corners: Iterable[int] | None, make: _Make, what: str) -> Contour:
    chosen = sorted(set(range(len(ring.vertices)) if corners is None else corners))
    done = _try(ring, size, chosen, make)
    if done:
        return done
    low, high = 0.0, size
    for _ in range(50):
        middle = (low + high) / 2
        low, high = (middle, high) if _try(ring, middle, chosen, make) else (low, middle)
    raise RadiusTooLarge(
        f"A {what} of {say_mm(size)} does not fit the edges of this outline.",
        fix=f"Use at most {say_mm(math.floor(low * 1000 + 1e-6) / 1000)}, or choose fewer corners.",
        field=what,
    )


def _try(ring: Contour, size: float, chosen: Sequence[int], make: _Make) -> Contour | None:
    if size <= 0:
        return ring
    segments = ring.segments
    cuts: dict[int, _Cut] = {}
    for index in chosen:
        before, after = segments[index - 1], segments[index]
        if abs(turn_between(before, after)) < _SMOOTH:
            continue
        cut = make(before, after, size)
        if cut is None:
            return None
        cuts[index] = cut
    vertices: list[Vertex] = []
    for index, segment in enumerate(segments):
        here, there = cuts.get(index), cuts.get((index + 1) % len(segments))
        start, end = here.arrive if here else segment.start, there.leave if there else segment.end
        first, last = _share(segment, start), _share(segment, end)
        if last < first - 1e-9:
            return None
        if here:
            vertices.append(Vertex(*here.leave, here.bulge))
        if math.dist(start, end) > JOIN_MM:
            vertices.append(Vertex(*start, math.tan(segment.sweep * (last - first) / 4)))
    return Contour(tuple(vertices))


def _fillet(before: Segment, after: Segment, radius: float) -> _Cut | None:
    turn = turn_between(before, after)
    side = -math.copysign(radius, turn)  # the centre lies to the left of a left turn
    if any(edge.bulge and edge.radius + math.copysign(side, edge.bulge * side) <= JOIN_MM for edge in (before, after)):
        return None
    centres = list(carriers_meet(shifted(before, side), shifted(after, side)))
    if not centres:
        return None
    centre = min(centres, key=lambda p: math.dist(p, after.start))
    leave, arrive = _foot(before, centre), _foot(after, centre)
    if not (_on(before, leave) and _on(after, arrive)):
        return None
    first = math.atan2(leave[1] - centre[1], leave[0] - centre[0])
    last = math.atan2(arrive[1] - centre[1], arrive[0] - centre[0])
    sweep = math.remainder(last - first, 2 * math.pi)
    if sweep * turn <= 0:
        return None
    return _Cut(leave, arrive, math.tan(sweep / 4))


def _bevel(before: Segment, after: Segment, setback: float) -> _Cut | None:
    if setback > min(before.length, after.length) + JOIN_MM:
        return None
    return _Cut(before.at(max(1 - setback / before.length, 0.0)), after.at(min(setback / after.length, 1.0)), 0.0)


def shifted(segment: Segment, distance: float) -> Segment:
    """`segment` moved to its right by `distance`. An arc moved past its centre turns inside out."""
    (ux, uy), (vx, vy) = tangent(segment, 0), tangent(segment, 1)
    return Segment(
        (segment.start[0] + distance * uy, segment.start[1] - distance * ux),
        (segment.end[0] + distance * vy, segment.end[1] - distance * vx),
        segment.bulge,
    )


def tangent(segment: Segment, share: int) -> Point:
    """Unit direction of travel at the start (0) or the end (1)."""
    (x0, y0), (x1, y1) = segment.start, segment.end
    length = math.hypot(x1 - x0, y1 - y0)
    ux, uy = (x1 - x0) / length, (y1 - y0) / length
    turn = segment.sweep * (share - 0.5)
    return (ux * math.cos(turn) - uy * math.sin(turn), ux * math.sin(turn) + uy * math.cos(turn))


def turn_between(before: Segment, after: Segment) -> float:
    """Signed angle in radians by which travel turns at a corner, -pi to pi; left is positive."""
    (ax, ay), (bx, by) = tangent(before, 1), tangent(after, 0)
    return math.atan2(ax * by - ay * bx, ax * bx + ay * by)


def _foot(segment: Segment, point: Point) -> Point:
    """The place on a segment's line or circle nearest to `point`."""
    if segment.bulge:
        (cx, cy), reach = segment.centre, segment.radius / math.dist(segment.centre, point)
        return (cx + (point[0] - cx) * reach, cy + (point[1] - cy) * reach)
    (x0, y0), (ux, uy) = segment.start, tangent(segment, 0)
    along = (point[0] - x0) * ux + (point[1] - y0) * uy
    return (x0 + along * ux, y0 + along * uy)


def _share(segment: Segment, point: Point) -> float:
    """How far along its carrier a point lies: 0 at the segment's start, 1 at its end."""
    if segment.bulge:
        turn = turn_to(segment, segment.centre, point)
        whole = abs(segment.sweep)
        return (turn if turn < whole / 2 + math.pi else turn - 2 * math.pi) / whole
    ux, uy = tangent(segment, 0)
    return ((point[0] - segment.start[0]) * ux + (point[1] - segment.start[1]) * uy) / segment.length


def _on(segment: Segment, point: Point) -> bool:
    slack = JOIN_MM / segment.length
    return -slack <= _share(segment, point) <= 1 + slack
