"""Where the lines and circles that two segments lie on meet: in, two segments; out, points. `noding` says it of many."""

from __future__ import annotations

import math
from collections.abc import Iterator

from .contour import JOIN_MM, Point, Segment


def turn_to(segment: Segment, centre: Point, point: Point) -> float:
    """Angle from an arc's start to `point`, in the arc's own direction, 0 to 2 pi."""
    first = math.atan2(segment.start[1] - centre[1], segment.start[0] - centre[0])
    there = math.atan2(point[1] - centre[1], point[0] - centre[0])
    return (there - first) * math.copysign(1, segment.bulge) % (2 * math.pi)


def carriers_meet(a: Segment, b: Segment) -> Iterator[Point]:
    """Where the lines or circles that two segments lie on meet."""
    if a.bulge == 0 and b.bulge == 0:
        return _lines_meet(a, b)
    if a.bulge == 0:
        return _line_meets_circle(a, b.centre, b.radius)
    if b.bulge == 0:
        return _line_meets_circle(b, a.centre, a.radius)
    return circles_meet(a.centre, a.radius, b.centre, b.radius)


def _lines_meet(a: Segment, b: Segment) -> Iterator[Point]:
    (x0, y0), (x1, y1) = a.start, a.end
    (u0, v0), (u1, v1) = b.start, b.end
    dx, dy, du, dv = x1 - x0, y1 - y0, u1 - u0, v1 - v0
    cross = dx * dv - dy * du
    if abs(cross) > 1e-12 * math.hypot(dx, dy) * math.hypot(du, dv):
        t = ((u0 - x0) * dv - (v0 - y0) * du) / cross
        yield (x0 + t * dx, y0 + t * dy)


def _line_meets_circle(line: Segment, centre: Point, radius: float) -> Iterator[Point]:
    (x0, y0), (x1, y1) = line.start, line.end
    length = math.dist(line.start, line.end)
    ux, uy = (x1 - x0) / length, (y1 - y0) / length
    along = (centre[0] - x0) * ux + (centre[1] - y0) * uy
    foot = (x0 + along * ux, y0 + along * uy)
    height = math.dist(foot, centre)
    # A line that misses or cuts by less than JOIN_MM touches in one point.
    if abs(height - radius) <= JOIN_MM:
        yield foot
    elif height < radius:
        half = math.sqrt(radius**2 - height**2)
        yield (foot[0] - half * ux, foot[1] - half * uy)
        yield (foot[0] + half * ux, foot[1] + half * uy)


def circles_meet(c0: Point, r0: float, c1: Point, r1: float) -> Iterator[Point]:
    """Points common to two circles: none, one where they touch, or two."""
    apart = math.dist(c0, c1)
    if apart <= JOIN_MM:
        return
    along = (apart**2 + r0**2 - r1**2) / (2 * apart)
    ux, uy = (c1[0] - c0[0]) / apart, (c1[1] - c0[1]) / apart
    foot = (c0[0] + along * ux, c0[1] + along * uy)
    if min(abs(apart - r0 - r1), abs(apart - abs(r0 - r1))) <= JOIN_MM:
        yield foot
    elif abs(r0 - r1) < apart < r0 + r1:
        half = math.sqrt(max(r0**2 - along**2, 0.0))
        yield (foot[0] - half * uy, foot[1] + half * ux)
        yield (foot[0] + half * uy, foot[1] - half * ux)
