"""Where a piece lies: mirrored if asked, turned, then moved. Quarter turns are exact."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from .contour import Box, Circle, Contour, Point, Segment, Trace, Vertex
from .cubic import Cubic, Curved
from .region import Region
from .ring import Ring

_QUARTERS = {0.0: (1.0, 0.0), 90.0: (0.0, 1.0), 180.0: (-1.0, 0.0), 270.0: (0.0, -1.0)}


MotionNumbers = tuple[float, float, float, bool]
"""What a motion is, as plain numbers: equal ones are the same motion."""


@dataclass(frozen=True)
class Motion:
    """Mirror at the y axis if `mirrored`, turn counter-clockwise by `angle` degrees round the origin, then move by
    (x, y) mm.

    >>> Motion(10, 0, 90).point((3, 1))
    (9.0, 3.0)
    >>> Motion(mirrored=True).point((3, 1))
    (-3.0, 1.0)
    """

    x: float = 0.0
    y: float = 0.0
    angle: float = 0.0
    mirrored: bool = False

    @property
    def numbers(self) -> MotionNumbers:
        return (self.x, self.y, self.angle, self.mirrored)

    @property
    def _turn(self) -> tuple[float, float]:
        angle = self.angle % 360
        return _QUARTERS.get(angle) or (math.cos(math.radians(angle)), math.sin(math.radians(angle)))

    def point(self, point: Point) -> Point:
        cos, sin = self._turn
        x = -point[0] if self.mirrored else point[0]
        return (cos * x - sin * point[1] + self.x, sin * x + cos * point[1] + self.y)

    def back(self, point: Point) -> Point:
        """Where a point that lies there now came from."""
        cos, sin = self._turn
        dx, dy = point[0] - self.x, point[1] - self.y
        x, y = cos * dx + sin * dy, cos * dy - sin * dx
        return (-x if self.mirrored else x, y)

    def segment(self, segment: Segment) -> Segment:
        bulge = -segment.bulge if self.mirrored else segment.bulge
        return Segment(self.point(segment.start), self.point(segment.end), bulge)

    def ring(self, ring: Ring) -> Ring:
        """A mirrored ring runs the other way round."""
        if isinstance(ring, Circle):
            return Circle(*self.point((ring.x, ring.y)), ring.radius, ring.hole != self.mirrored)
        if isinstance(ring, Curved):
            return Curved(
                tuple(
                    Cubic(*map(self.point, piece)) if isinstance(piece, Cubic) else self.segment(piece)
                    for piece in ring.pieces
                )
            )
        flip = -1.0 if self.mirrored else 1.0
        return Contour(tuple(Vertex(*self.point(vertex.point), flip * vertex.bulge) for vertex in ring.vertices))

    def trace(self, trace: Trace) -> Trace:
        flip = -1.0 if self.mirrored else 1.0
        return Trace(tuple(Vertex(*self.point(vertex.point), flip * vertex.bulge) for vertex in trace.vertices))

    def box(self, box: Box) -> Box:
        """Where a box comes to lie; of a motion that turns by other than quarters, only its two corners.

        >>> Motion(10, 0, 90).box((0, 0, 4, 2))
        (8.0, 0.0, 10.0, 4.0)
        """
        (a, b), (c, d) = self.point(box[:2]), self.point(box[2:])
        return (min(a, c), min(b, d), max(a, c), max(b, d))

    def region(self, region: Region) -> Region:
        return Region(self.ring(region.outer), tuple(self.ring(hole) for hole in region.holes))


def mirror(through: Point, angle: float) -> Motion:
    """A mirror whose axis goes through a point at `angle` degrees from the x axis.

    >>> mirror((10, 0), 90).point((12, 5))
    (8.0, 5.0)
    """
    turned = Motion(angle=2 * angle - 180, mirrored=True)
    x, y = turned.point(through)
    return Motion(through[0] - x, through[1] - y, turned.angle, mirrored=True)


def grid(columns: int, rows: int, dx: float, dy: float) -> Iterator[Motion]:
    """The places of an array in columns and rows, `dx` and `dy` mm apart, the first one where it is."""
    for row in range(rows):
        for column in range(columns):
            yield Motion(column * dx, row * dy)


def round_about(centre: Point, count: int, sweep: float = 360.0) -> Iterator[Motion]:
    """The places of `count` copies round a centre. A full turn is shared evenly; a lesser `sweep` has one at each end."""
    steps = count if abs(sweep) == 360 else max(count - 1, 1)
    for index in range(count):
        turned = Motion(angle=sweep * index / steps)
        x, y = turned.point(centre)
        yield Motion(centre[0] - x, centre[1] - y, turned.angle)


def scaled(ring: Ring, factor: float) -> Ring:
    """`ring` larger by `factor`, about the origin."""
    if isinstance(ring, Circle):
        return Circle(ring.x * factor, ring.y * factor, ring.radius * factor, ring.hole)
    if isinstance(ring, Curved):
        return Curved(
            tuple(
                Cubic(*((x * factor, y * factor) for x, y in piece))
                if isinstance(piece, Cubic)
                else Segment(_times(piece.start, factor), _times(piece.end, factor), piece.bulge)
                for piece in ring.pieces
            )
        )
    return Contour(tuple(Vertex(v.x * factor, v.y * factor, v.bulge) for v in ring.vertices))


def scaled_region(region: Region, factor: float) -> Region:
    """
    >>> from .contour import rectangle
    >>> scaled_region(Region(rectangle(1, 1, 2, 3)), 2).box
    (2.0, 2.0, 6.0, 8.0)
    """
    return Region(scaled(region.outer, factor), tuple(scaled(hole, factor) for hole in region.holes))


def scaled_trace(trace: Trace, factor: float) -> Trace:
    return Trace(tuple(Vertex(v.x * factor, v.y * factor, v.bulge) for v in trace.vertices))


def _times(point: Point, factor: float) -> Point:
    return (point[0] * factor, point[1] * factor)
