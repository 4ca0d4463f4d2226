"""A flat piece: one outer outline and its holes."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

from .contour import Box
from .ring import Ring


@dataclass(frozen=True)
class Region:
    """Outer outline counter-clockwise, holes clockwise; both are turned round on the way in if they are not.

    >>> from .contour import Circle, rectangle
    >>> plate = Region(rectangle(0, 0, 40, 20), (Circle(10, 10, 2),))
    >>> round(plate.area, 3), plate.holes[0].area < 0
    (787.434, True)
    """

    outer: Ring
    holes: tuple[Ring, ...] = ()

    def __post_init__(self) -> None:
        object.__setattr__(self, "outer", turned(self.outer, 1))
        object.__setattr__(self, "holes", tuple(turned(hole, -1) for hole in self.holes))

    @property
    def rings(self) -> Iterator[Ring]:
        yield self.outer
        yield from self.holes

    @property
    def area(self) -> float:
        return math.fsum(ring.area for ring in self.rings)

    @property
    def length(self) -> float:
        """Of all outlines together."""
        return math.fsum(ring.length for ring in self.rings)

    @property
    def box(self) -> Box:
        return self.outer.box


def turned(ring: Ring, sign: int) -> Ring:
    """`ring`, running counter-clockwise for sign 1 and clockwise for sign -1."""
    return ring if ring.area * sign > 0 else ring.reversed
