"""Union, difference and intersection of regions; arcs stay arcs of the same centre and radius.

In: regions; out: regions, each an outer outline with its holes, counter-clockwise and clockwise.
"""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING

from .arrangement import Arrangement, ring_points
from .region import Region

if TYPE_CHECKING:
    import shapely


def union(*regions: Region) -> list[Region]:
    """All that any of `regions` covers."""
    return _combine(regions, (), "union")


def difference(regions: Sequence[Region], less: Sequence[Region]) -> list[Region]:
    """What `regions` cover and none of `less` does."""
    return _combine(regions, less, "difference")


def intersection(regions: Sequence[Region], others: Sequence[Region]) -> list[Region]:
    """What both `regions` and `others` cover.

    >>> from .contour import rectangle
    >>> [lens] = intersection([Region(rectangle(0, 0, 4, 4))], [Region(rectangle(3, 1, 4, 2))])
    >>> lens.area
    2.0
    """
    return _combine(regions, others, "intersection")


def _combine(first: Sequence[Region], second: Sequence[Region], operation: str) -> list[Region]:
    import shapely

    if not first:
        return []
    arrangement = Arrangement()
    regions = [*first, *second]
    flat = iter(arrangement.flatten([ring.segments for region in regions for ring in region.rings]))
    polygons = [shapely.Polygon(next(flat), [next(flat) for _ in region.holes]) for region in regions]
    result = shapely.union_all(polygons[: len(first)])
    if operation != "union":
        result = getattr(shapely, operation)(result, shapely.union_all(polygons[len(first) :]))
    return recover_regions(arrangement, result)


def recover_regions(arrangement: Arrangement, shape: shapely.Geometry) -> list[Region]:
    """The exact regions that a polygon library's result stands for; slivers are left out."""
    import shapely

    found = []
    for polygon in shapely.get_parts(shape):
        if polygon.geom_type != "Polygon" or polygon.is_empty:
            continue
        if outer := arrangement.recover(ring_points(polygon.exterior)):
            holes = [arrangement.recover(ring_points(interior)) for interior in polygon.interiors]
            found.append(Region(outer, tuple(hole for hole in holes if hole)))
    return found
