"""Where a piece lies: turned, then moved. Quarter turns are exact."""

from __future__ import annotations

import math
from dataclasses import dataclass

from .contour import Circle, Contour, Point, Ring, Vertex
from .region import Region

_QUARTERS = {0.0: (1.0, 0.0), 90.0: (0.0, 1.0), 180.0: (-1.0, 0.0), 270.0: (0.0, -1.0)}


@dataclass(frozen=True)
class Placement:
    """Turn counter-clockwise by `angle` degrees round the origin, then move by (x, y) mm.

    >>> Placement(10, 0, 90).point((3, 1))
    (9.0, 3.0)
    """

    x: float = 0.0
    y: float = 0.0
    angle: float = 0.0

    @property
    def _turn(self) -> tuple[float, float]:
        angle = self.angle % 360
        return _QUARTERS.get(angle) or (math.cos(math.radians(angle)), math.sin(math.radians(angle)))

    def point(self, point: Point) -> Point:
        cos, sin = self._turn
        return (cos * point[0] - sin * point[1] + self.x, sin * point[0] + cos * point[1] + self.y)

    def ring(self, ring: Ring) -> Ring:
        if isinstance(ring, Circle):
            return Circle(*self.point((ring.x, ring.y)), ring.radius, ring.hole)
        return Contour(tuple(Vertex(*self.point(vertex.point), vertex.bulge) for vertex in ring.vertices))

    def region(self, region: Region) -> Region:
        return Region(self.ring(region.outer), tuple(self.ring(hole) for hole in region.holes))
