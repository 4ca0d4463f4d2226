"""Cutting openings out of a plate: what touches nothing else is a hole just as it is drawn, and only the rest needs a boolean.

In: regions and what is cut out of them; out: what is left, as `difference` would leave it.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
import shapely

from .boolean import difference
from .contour import JOIN_MM
from .region import Region
from .segments import segments_of_rings
from .winding import windings


def cut_out(regions: Sequence[Region], cuts: Sequence[Region]) -> list[Region]:
    """What `regions` cover and none of `cuts` does. Outlines of `cuts` must not cross themselves.

    >>> from .contour import Circle, rectangle
    >>> [plate] = cut_out([Region(rectangle(0, 0, 40, 20))], [Region(Circle(10, 10, 2)), Region(Circle(30, 10, 2))])
    >>> len(plate.holes)
    2
    """
    rest, free = apart(regions, cuts)
    return with_holes(difference(regions, rest) if rest else list(regions), free)


def apart(regions: Sequence[Region], cuts: Sequence[Region]) -> tuple[list[Region], list[Region]]:
    """`cuts` that may meet another one or an edge, and those that do not: what is left gets them as holes."""
    free = set(_free(regions, cuts) if len(regions) == 1 and cuts else [])
    return [cut for i, cut in enumerate(cuts) if i not in free], [cut for i, cut in enumerate(cuts) if i in free]


def _free(regions: Sequence[Region], cuts: Sequence[Region]) -> list[int]:
    """The cuts whose boxes meet neither another cut's nor any edge."""
    boxes = np.array([cut.box for cut in cuts]) + np.array([-JOIN_MM, -JOIN_MM, JOIN_MM, JOIN_MM])
    around = shapely.box(*boxes.T)
    first, second = shapely.STRtree(around).query(around)
    crowded = first[first != second]
    edges, _ = segments_of_rings([ring for region in regions for ring in region.rings], [0] * _rings(regions))
    touched, _ = shapely.STRtree(shapely.box(*edges.box.T)).query(around)
    busy = set(crowded.tolist()) | set(touched.tolist())
    return [i for i, cut in enumerate(cuts) if i not in busy and not cut.holes]


def _rings(regions: Sequence[Region]) -> int:
    return sum(1 + len(region.holes) for region in regions)


def with_holes(pieces: Sequence[Region], cuts: Sequence[Region]) -> list[Region]:
    """`pieces` with holes where they go round one of `cuts`; what lies beside all of them changes nothing."""
    if not cuts:
        return list(pieces)
    places = np.array([cut.outer.corners[0].point for cut in cuts])
    found = []
    for piece in pieces:
        around, _ = segments_of_rings(list(piece.rings), [0] * _rings([piece]))
        holes = tuple(cuts[i].outer for i in np.flatnonzero(windings(around, places) > 0).tolist())
        found.append(Region(piece.outer, (*piece.holes, *holes)) if holes else piece)
    return found
