"""Cubic curves, and rings that hold them. Whatever works on such a ring sees arcs within a micrometre of it.

In: control points in mm; out: biarcs (two arcs that share a tangent), exact areas, and the curves themselves for
writers that can keep them.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import NamedTuple

from ..ground.errors import BadGeometry
from .contour import FURTHEST_MM, Box, Contour, Point, Segment, Vertex, lens_area

ARC_MM = 0.001
"""How far the arcs that stand for a curve may leave it."""

_SAMPLES = 10
_BETWEEN_SAMPLES = 0.85  # of the tolerance is used at the samples, the rest is for what lies between
_DEEPEST = 14


class Cubic(NamedTuple):
    """From `start` to `end`, drawn towards `first` and coming from `second`."""

    start: Point
    first: Point
    second: Point
    end: Point

    def at(self, t: float) -> Point:
        u = 1 - t
        a, b, c, d = u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t
        return (
            a * self.start[0] + b * self.first[0] + c * self.second[0] + d * self.end[0],
            a * self.start[1] + b * self.first[1] + c * self.second[1] + d * self.end[1],
        )

    def split(self, t: float = 0.5) -> tuple[Cubic, Cubic]:
        """The two halves before and after `t` (de Casteljau)."""

        def between(p: Point, q: Point) -> Point:
            return (p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1]))

        a, b, c = between(self.start, self.first), between(self.first, self.second), between(self.second, self.end)
        d, e = between(a, b), between(b, c)
        middle = between(d, e)
        return Cubic(self.start, a, d, middle), Cubic(middle, e, c, self.end)

    @property
    def reversed(self) -> Cubic:
        return Cubic(self.end, self.second, self.first, self.start)


CurvePiece = Segment | Cubic


@dataclass(frozen=True)
class Curved:
    """A closed ring of segments and cubics, each starting where the one before ends.

    Raises BadGeometry if it does not close, has no extent, or holds coordinates that are no numbers.
    """

    pieces: tuple[CurvePiece, ...]

    def __post_init__(self) -> None:
        for piece, after in zip(self.pieces, (*self.pieces[1:], *self.pieces[:1]), strict=True):
            points = piece if isinstance(piece, Cubic) else (piece.start, piece.end)
            if not all(abs(value) < FURTHEST_MM for point in points for value in point):
                raise BadGeometry(
                    "A curve leaves the drawing.", fix="Keep outlines within 1 km of the origin; check their numbers."
                )
            if piece.end != after.start:
                raise BadGeometry(
                    f"A curved outline is open at {piece.end[0]:g}, {piece.end[1]:g}.", fix="Join its ends."
                )
        if len(self.corners) < 2:
            raise BadGeometry("A curved outline has no extent.", fix="Leave it out, or give it a size.")

    @cached_property
    def corners(self) -> tuple[Vertex, ...]:
        return arc_vertices(self.pieces, ARC_MM)

    @cached_property
    def segments(self) -> tuple[Segment, ...]:
        return self.as_arcs().segments

    def as_arcs(self, tolerance: float = ARC_MM) -> Contour:
        """The ring as lines and arcs, none further than `tolerance` mm from it."""
        return Contour(self.corners if tolerance == ARC_MM else arc_vertices(self.pieces, tolerance))

    @cached_property
    def area(self) -> float:
        """Signed and exact, after Green."""
        doubled = 0.0
        for piece in self.pieces:
            (x0, y0), (x1, y1) = piece.start, piece.end
            doubled += x0 * y1 - x1 * y0
            if isinstance(piece, Cubic):
                doubled += _cubic_lens(piece)
            elif piece.bulge:
                doubled += 2 * lens_area(math.dist(piece.start, piece.end), piece.bulge)
        return doubled / 2

    @cached_property
    def length(self) -> float:
        return math.fsum(segment.length for segment in self.segments)

    @cached_property
    def box(self) -> Box:
        left, low, right, high = zip(*(segment.box for segment in self.segments), strict=True)
        return (min(left), min(low), max(right), max(high))

    @property
    def reversed(self) -> Curved:
        return Curved(
            tuple(
                piece.reversed if isinstance(piece, Cubic) else Segment(piece.end, piece.start, -piece.bulge)
                for piece in reversed(self.pieces)
            )
        )


def _cubic_lens(c: Cubic) -> float:
    """Twice the area between a cubic and its chord, positive to the right of travel: the integral of x dy - y dx."""
    (x0, y0), (x1, y1), (x2, y2), (x3, y3) = c
    x1, x2, x3, y1, y2, y3 = x1 - x0, x2 - x0, x3 - x0, y1 - y0, y2 - y0, y3 - y0
    return 0.3 * ((x1 * y2 - x2 * y1) + (x1 * y3 - x3 * y1) + 2 * (x2 * y3 - x3 * y2))


def arc_vertices(pieces: Sequence[CurvePiece], tolerance: float) -> tuple[Vertex, ...]:
    """The vertices of a closed ring of lines and arcs within `tolerance` mm of `pieces`."""
    vertices: list[Vertex] = []
    for piece in pieces:
        segments = biarcs(piece, tolerance) if isinstance(piece, Cubic) else (piece,)
        vertices += [Vertex(*segment.start, segment.bulge) for segment in segments if segment.start != segment.end]
    return tuple(vertices)


def biarcs(curve: Cubic, tolerance: float) -> Iterator[Segment]:
    """Lines and arcs that share their tangents, none further than `tolerance` mm from `curve`."""
    if _flat(curve, tolerance / 10):
        if curve.start != curve.end:
            yield Segment(curve.start, curve.end, 0.0)
        return
    yield from _biarcs(curve, tolerance, _DEEPEST)


def _flat(curve: Cubic, tolerance: float) -> bool:
    """Whether a curve is a line that runs from its start to its end."""
    (x0, y0), (x3, y3) = curve.start, curve.end
    dx, dy = x3 - x0, y3 - y0
    span = math.hypot(dx, dy)
    if span == 0:
        return all(math.dist(curve.start, p) <= tolerance for p in (curve.first, curve.second))
    along = [((x - x0) * dx + (y - y0) * dy) / span for x, y in (curve.first, curve.second)]
    across = [abs((x - x0) * dy - (y - y0) * dx) / span for x, y in (curve.first, curve.second)]
    return max(across) <= tolerance and min(along) >= 0 and max(along) <= span


def _biarcs(curve: Cubic, tolerance: float, depth: int) -> Iterator[Segment]:
    pair = _pair(curve)
    if pair and (depth == 0 or _follows(curve, pair, tolerance)):
        yield from pair
    elif depth == 0:
        if curve.start != curve.end:
            yield Segment(curve.start, curve.end, 0.0)
    else:
        for half in curve.split():
            yield from _biarcs(half, tolerance, depth - 1)


def _pair(curve: Cubic) -> tuple[Segment, Segment] | None:
    """Two arcs with the curve's ends and tangents, equally long in their tangents; None where there are none."""
    (x0, y0), (x1, y1) = curve.start, curve.end
    t0, t1 = _direction(curve), _direction(curve.reversed)
    if t0 is None or t1 is None:
        return None
    t1 = (-t1[0], -t1[1])
    vx, vy = x1 - x0, y1 - y0
    square = vx * vx + vy * vy
    if square == 0:
        return None
    along = vx * (t0[0] + t1[0]) + vy * (t0[1] + t1[1])
    bend = 2 * (1 - (t0[0] * t1[0] + t0[1] * t1[1]))
    if bend > 1e-9:
        reach = (-along + math.sqrt(along * along + bend * square)) / bend
    elif along > 0:
        reach = square / (2 * along)
    else:
        return None
    middle = ((x0 + x1 + reach * (t0[0] - t1[0])) / 2, (y0 + y1 + reach * (t0[1] - t1[1])) / 2)
    if middle in (curve.start, curve.end):
        return None
    first = _arc(curve.start, middle, t0)
    back = _arc(curve.end, middle, (-t1[0], -t1[1]))
    return (first, Segment(middle, curve.end, -back.bulge)) if max(abs(first.bulge), abs(back.bulge)) < 1 else None


def _direction(curve: Cubic) -> Point | None:
    """Unit direction in which a curve leaves its start."""
    for point in curve[1:]:
        dx, dy = point[0] - curve.start[0], point[1] - curve.start[1]
        size = math.hypot(dx, dy)
        if size > 1e-12:
            return (dx / size, dy / size)
    return None


def _arc(start: Point, end: Point, tangent: Point) -> Segment:
    dx, dy = end[0] - start[0], end[1] - start[1]
    half = math.atan2(tangent[0] * dy - tangent[1] * dx, tangent[0] * dx + tangent[1] * dy)
    return Segment(start, end, math.tan(half / 2) if abs(half) > 1e-9 else 0.0)


def _follows(curve: Cubic, pair: tuple[Segment, Segment], tolerance: float) -> bool:
    """Whether points along the curve are all within `tolerance` of the arcs, and the arcs go no further round."""
    if max(abs(segment.sweep) for segment in pair) > math.pi / 2:
        return False
    if pair[0].bulge == pair[1].bulge == 0:  # it may turn back between two samples; its control points would tell
        return _flat(curve, tolerance)
    (mx, my), (ex, ey) = pair[0].end, pair[1].end
    sx, sy = pair[0].start
    for index in range(1, _SAMPLES):
        point = curve.at(index / _SAMPLES)
        # The first arc's part of the plane is that nearer to its own middle: tried both, the nearer one counts.
        if min(_off(pair[0], point), _off(pair[1], point)) > tolerance * _BETWEEN_SAMPLES:
            return False
    # The junction lies between the ends, as seen along the chord.
    return (mx - sx) * (ex - sx) + (my - sy) * (ey - sy) > 0


def _off(segment: Segment, point: Point) -> float:
    """How far `point` is from a segment, its ends included."""
    (x0, y0), (x1, y1) = segment.start, segment.end
    dx, dy = x1 - x0, y1 - y0
    cross = dx * (point[1] - y0) - dy * (point[0] - x0)
    if segment.bulge:
        if cross * segment.bulge < 0:
            return abs(math.dist(segment.centre, point) - segment.radius)
        return min(math.dist(segment.start, point), math.dist(segment.end, point))
    span = math.hypot(dx, dy)
    if 0 <= dx * (point[0] - x0) + dy * (point[1] - y0) <= span * span:
        return abs(cross) / span
    return min(math.dist(segment.start, point), math.dist(segment.end, point))
