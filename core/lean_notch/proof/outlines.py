"""Closed outlines as a file has them: in, paths to cut; out, those that can be cut, and what is wrong with the others."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from typing import TYPE_CHECKING

from ..formats.read_file import ReadPath
from ..geometry import Point
from ..lengths.said import say_mm
from .as_cut import outline_of, without_lead
from .compare import EDGE_MM

if TYPE_CHECKING:
    import shapely

SAME_MM = 0.01
"""Two outlines this near to each other all round are one, cut twice: it scorches, and takes twice the time."""

THIN_WEB_MM = 1.0
"""Between cuts nearer than this the web burns or breaks. Common practice; thicker stock wants more."""


def sound_outlines(cut: Sequence[ReadPath], bad: Callable[..., None]) -> tuple[list[ReadPath], list[ReadPath]]:
    """The outlines that can be cut as they are, and the leads to them. `bad` is told of the others: a code, why, what to do,
    the place, and by how much."""
    split = [without_lead(path) for path in cut]
    outlines = [outline_of(path) for path, _ in split]
    twice = _there_before(outlines)
    sound: list[ReadPath] = []
    leads: list[ReadPath] = []
    kept: list[shapely.Polygon] = []
    for index, ((path, lead), outline) in enumerate(zip(split, outlines, strict=True)):
        place, name = path.segments[-1].end, path.name or "without a name"
        gap = math.dist(path.segments[0].start, place)
        if not path.closed:
            bad("open-path", f"The outline {name} is open by {say_mm(gap)}.", "Join its ends", place, gap)
        elif outline.is_empty or not outline.is_valid:
            bad("crosses-itself", f"The outline {name} crosses itself.", "Draw it anew", place)
        elif index in twice:
            bad(
                "cut-twice", f"The outline {name} is doubled: cutting a line twice scorches it.",
                "Delete one of them", place,
            )  # fmt: skip
        else:
            sound.append(path)
            kept.append(outline)
            leads += [lead] if lead else []
    dropped = set()
    for first, second, spot in _crossing(kept):
        dropped.add(second)
        bad(
            "paths-cross",
            f"The outlines {sound[first].name or 'without a name'} and {sound[second].name or 'without a name'} cross.",
            "Move one of them, or make one outline of both", spot,
        )  # fmt: skip
    return [path for i, path in enumerate(sound) if i not in dropped], leads


def _there_before(outlines: Sequence[shapely.Polygon]) -> set[int]:
    """Which outlines run, all round, within `SAME_MM` of one before them."""
    import shapely

    closed = [index for index, outline in enumerate(outlines) if not outline.is_empty]
    if not closed:
        return set()
    plain = [outlines[index].normalize() for index in closed]
    corners = shapely.points(shapely.bounds(plain)[:, :2])
    near = shapely.STRtree(corners).query(corners, predicate="dwithin", distance=2 * SAME_MM)
    return {
        closed[later] for later, first in near.T.tolist()
        if first < later and plain[later].equals_exact(plain[first], SAME_MM)
    }  # fmt: skip


def _crossing(outlines: Sequence[shapely.Polygon]) -> Iterator[tuple[int, int, Point]]:
    """Pairs of outlines that cross or run along each other, the larger first, and a place where they do."""
    import shapely

    rings = [outline.exterior for outline in outlines]
    if len(rings) < 2:
        return
    a, b = shapely.STRtree(rings).query(rings, predicate="intersects")
    for first, second in zip(a.tolist(), b.tolist(), strict=True):
        larger = (outlines[first].area, -first) > (outlines[second].area, -second)
        if first != second and larger:
            spot = shapely.intersection(rings[first], rings[second]).representative_point()
            yield first, second, (spot.x, spot.y)


def thinnest_web(piece: shapely.Geometry) -> tuple[float, Point] | None:
    """The least distance between two edges of a piece, hole and hole or hole and outline, where it is too little."""
    import shapely

    rings = list(shapely.get_rings(piece))
    if len(rings) < 2:
        return None
    a, b = shapely.STRtree(rings).query(rings, predicate="dwithin", distance=THIN_WEB_MM)
    ahead = a < b
    a, b = a[ahead], b[ahead]
    if not len(a):
        return None
    apart = shapely.distance([rings[i] for i in a], [rings[i] for i in b])
    at = int(apart.argmin())
    if apart[at] >= THIN_WEB_MM - EDGE_MM:
        return None
    spot = shapely.get_coordinates(shapely.shortest_line(rings[int(a[at])], rings[int(b[at])]))[0]
    return float(apart[at]), (float(spot[0]), float(spot[1]))
