"""Closed outlines: a `Contour` of straight and circular segments, or one full `Circle`.

In: vertices (x, y, bulge) in mm; out: area, length, bounds, segments. A bulge is tan(sweep / 4) of the segment
that leaves the vertex; 0 is a line, positive turns counter-clockwise (DXF Reference, LWPOLYLINE group 42).
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise
from typing import NamedTuple

from ..ground.errors import BadGeometry

Point = tuple[float, float]
Box = tuple[float, float, float, float]

JOIN_MM = 1e-6
"""Points nearer than a nanometre are one point: far below any machine, far above rounding within 1 km."""

FURTHEST_MM = 1e6
"""Beyond this, doubles no longer hold the 1e-6 mm that outlines are joined by."""


class Vertex(NamedTuple):
    x: float
    y: float
    bulge: float = 0.0

    @property
    def point(self) -> Point:
        return (self.x, self.y)


class Segment(NamedTuple):
    """From `start` to `end`, turning by 4 atan(`bulge`)."""

    start: Point
    end: Point
    bulge: float

    @property
    def sweep(self) -> float:
        """Signed angle in radians; 0 for a line."""
        return 4 * math.atan(self.bulge)

    @property
    def centre(self) -> Point:
        """Centre of an arc. Undefined for a line."""
        (x0, y0), (x1, y1) = self.start, self.end
        s = (1 / self.bulge - self.bulge) / 4
        return ((x0 + x1) / 2 - s * (y1 - y0), (y0 + y1) / 2 + s * (x1 - x0))

    @property
    def radius(self) -> float:
        chord = math.dist(self.start, self.end)
        return chord * (1 + self.bulge**2) / (4 * abs(self.bulge))

    @property
    def length(self) -> float:
        return math.dist(self.start, self.end) if self.bulge == 0 else self.radius * abs(self.sweep)

    @property
    def box(self) -> Box:
        (x0, y0), (x1, y1) = self.start, self.end
        left, right = (x0, x1) if x0 <= x1 else (x1, x0)
        low, high = (y0, y1) if y0 <= y1 else (y1, y0)
        if self.bulge:
            (cx, cy), r = self.centre, self.radius
            first = math.atan2(y0 - cy, x0 - cx)
            for quarter in range(4):
                turn = (quarter * math.pi / 2 - first) * math.copysign(1, self.bulge) % (2 * math.pi)
                if turn < abs(self.sweep):
                    x, y = cx + r * (1, 0, -1, 0)[quarter], cy + r * (0, 1, 0, -1)[quarter]
                    left, right, low, high = min(left, x), max(right, x), min(low, y), max(high, y)
        return (left, low, right, high)

    def at(self, share: float) -> Point:
        """The point at `share` of the way along."""
        (x0, y0), (x1, y1) = self.start, self.end
        if self.bulge == 0:
            return (x0 + share * (x1 - x0), y0 + share * (y1 - y0))
        (cx, cy), turn = self.centre, share * self.sweep
        dx, dy = x0 - cx, y0 - cy
        return (
            cx + dx * math.cos(turn) - dy * math.sin(turn),
            cy + dx * math.sin(turn) + dy * math.cos(turn),
        )


def lens_area(chord: float, bulge: float) -> float:
    """Between an arc and its chord in mm², with the bulge's sign."""
    sweep = 4 * math.atan(bulge)
    return (chord * (1 + bulge * bulge) / (4 * bulge)) ** 2 * (sweep - math.sin(sweep)) / 2


@dataclass(frozen=True)
class Contour:
    """A closed outline through `vertices`; the last segment returns to the first vertex.

    Raises BadGeometry for fewer than two vertices, coordinates that are no numbers, or equal neighbours.

    >>> square = rectangle(0, 0, 10, 10)
    >>> square.area, square.length, square.box
    (100.0, 40.0, (0.0, 0.0, 10.0, 10.0))
    """

    vertices: tuple[Vertex, ...]

    def __post_init__(self) -> None:
        if len(self.vertices) < 2:
            raise BadGeometry(
                f"An outline has {len(self.vertices)} corners.",
                fix="Give at least three, or two joined by arcs.",
            )
        before_x, before_y, _ = self.vertices[-1]
        for x, y, bulge in self.vertices:
            if not (-FURTHEST_MM < x < FURTHEST_MM and -FURTHEST_MM < y < FURTHEST_MM and math.isfinite(bulge)):
                raise BadGeometry(
                    f"A corner lies at {x:g}, {y:g}.",
                    fix="Keep outlines within 1 km of the origin; check the numbers they come from.",
                )
            if x == before_x and y == before_y:
                raise BadGeometry(
                    f"Two neighbouring corners lie on one point, {x:g}, {y:g}.", fix="Leave one of them out."
                )
            before_x, before_y = x, y

    @property
    def corners(self) -> tuple[Vertex, ...]:
        """The same as `vertices`; every kind of ring has corners."""
        return self.vertices

    @cached_property
    def segments(self) -> tuple[Segment, ...]:
        return segments_between(self.vertices)

    @cached_property
    def area(self) -> float:
        """Signed: positive when the outline runs counter-clockwise."""
        doubled, (x, y, _) = 0.0, self.vertices[0]
        for (x0, y0, bulge), (x1, y1, _) in zip(self.vertices, (*self.vertices[1:], self.vertices[0]), strict=True):
            # Measured from a corner, so that a small outline far away keeps its digits.
            doubled += (x0 - x) * (y1 - y) - (x1 - x) * (y0 - y)
            if bulge:
                doubled += lens_area(math.hypot(x1 - x0, y1 - y0), bulge) * 2
        return doubled / 2

    @cached_property
    def length(self) -> float:
        return _way(self.vertices) + _way((self.vertices[-1], self.vertices[0]))

    @cached_property
    def box(self) -> Box:
        xs, ys, bulges = zip(*self.vertices, strict=True)
        corners = (min(xs), min(ys), max(xs), max(ys))
        return join_boxes((corners, *(s.box for s in self.segments if s.bulge))) if any(bulges) else corners

    @cached_property
    def reversed(self) -> Contour:
        count = len(self.vertices)
        return Contour(
            tuple(
                Vertex(*self.vertices[i].point, -self.vertices[(i - 1) % count].bulge) for i in range(count - 1, -1, -1)
            )
        )


@dataclass(frozen=True)
class Trace:
    """An open line through `vertices`, with arcs where they have bulges; the last bulge means nothing.

    Raises BadGeometry for fewer than two vertices or coordinates that are no numbers.
    """

    vertices: tuple[Vertex, ...]

    def __post_init__(self) -> None:
        if len(self.vertices) < 2 or not all(
            abs(v.x) < FURTHEST_MM and abs(v.y) < FURTHEST_MM and math.isfinite(v.bulge) for v in self.vertices
        ):
            raise BadGeometry("A line has no two ends.", fix="Give it a start and an end within 1 km of the origin.")

    @cached_property
    def segments(self) -> tuple[Segment, ...]:
        return tuple(
            Segment(a.point, b.point, a.bulge)
            for a, b in zip(self.vertices, self.vertices[1:], strict=False)
            if a.point != b.point
        )

    @cached_property
    def length(self) -> float:
        return _way(self.vertices)

    @cached_property
    def box(self) -> Box:
        return join_boxes(segment.box for segment in self.segments)

    @property
    def reversed(self) -> Trace:
        bulges = [0.0, *(-v.bulge for v in self.vertices[:-1])][::-1]
        return Trace(tuple(Vertex(*v.point, b) for v, b in zip(self.vertices[::-1], bulges, strict=True)))


@dataclass(frozen=True)
class Circle:
    """A full circle, counter-clockwise unless `hole`, which turns it the other way."""

    x: float
    y: float
    radius: float
    hole: bool = False

    def __post_init__(self) -> None:
        if not (math.isfinite(self.x) and math.isfinite(self.y) and 0 < self.radius < FURTHEST_MM):
            raise BadGeometry(f"A circle has the radius {self.radius:g}.", fix="Give a radius of more than 0 mm.")

    @property
    def area(self) -> float:
        return math.copysign(math.pi * self.radius**2, -1 if self.hole else 1)

    @property
    def length(self) -> float:
        return 2 * math.pi * self.radius

    @property
    def box(self) -> Box:
        return (self.x - self.radius, self.y - self.radius, self.x + self.radius, self.y + self.radius)

    @property
    def reversed(self) -> Circle:
        return Circle(self.x, self.y, self.radius, not self.hole)

    @property
    def corners(self) -> tuple[Vertex, ...]:
        """As four quarters, for whoever works on segments."""
        x, y, r, quarter = self.x, self.y, self.radius, _QUARTER
        if self.hole:
            return (
                Vertex(x, y - r, -quarter),
                Vertex(x - r, y, -quarter),
                Vertex(x, y + r, -quarter),
                Vertex(x + r, y, -quarter),
            )
        return (
            Vertex(x + r, y, quarter),
            Vertex(x, y + r, quarter),
            Vertex(x - r, y, quarter),
            Vertex(x, y - r, quarter),
        )

    @cached_property
    def segments(self) -> tuple[Segment, ...]:
        return segments_between(self.corners)


_QUARTER = math.tan(math.pi / 8)


def _way(vertices: Sequence[Vertex]) -> float:
    """The length from the first vertex to the last."""
    total = 0.0
    for (x0, y0, bulge), (x1, y1, _) in pairwise(vertices):
        chord = math.hypot(x1 - x0, y1 - y0)
        total += chord * (1 + bulge * bulge) / bulge * math.atan(bulge) if bulge else chord
    return total


def segments_between(corners: Sequence[Vertex]) -> tuple[Segment, ...]:
    """Of the closed ring through `corners`."""
    following = (*corners[1:], corners[0])
    return tuple(
        Segment((x, y), (after.x, after.y), bulge) for (x, y, bulge), after in zip(corners, following, strict=True)
    )


def rectangle(x: float, y: float, width: float, height: float) -> Contour:
    """Counter-clockwise from its lower left corner."""
    right, top = x + width, y + height
    return Contour(tuple(Vertex(float(a), float(b)) for a, b in ((x, y), (right, y), (right, top), (x, top))))


def spans(box: Box) -> tuple[float, float]:
    """Width and height of a box."""
    left, low, right, high = box
    return (right - left, high - low)


def join_boxes(boxes: Iterable[Box]) -> Box:
    left, low, right, high = zip(*boxes, strict=True)
    return (min(left), min(low), max(right), max(high))
