"""The as-cut sweep: paths in, finished pieces out.

A beam of the kerf's width runs along every path; what it does not touch, and what does not drop out, is the part.
It is done with a general geometry library on finely flattened paths, and shares nothing with the kerf offset.
"""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

from ..formats.read_file import MEETS_MM, ReadPath
from ..geometry import Segment, flatten
from ..ground.remembered import Same, remembered

if TYPE_CHECKING:
    import shapely

CHORD_MM = 0.0005
"""How far a flattened arc may leave its true line: a tenth of the finest tolerance that is checked."""


def round_steps(radius: float) -> int:
    """How many chords a quarter of a beam's or a tool's round takes, so that none leaves it by more than `CHORD_MM`: of a polygon
    around a circle a chord over the angle a is off by r (1 - cos(a / 2)).

    >>> round_steps(0.07), round_steps(3.0)
    (16, 44)
    """
    half = math.acos(max(1 - CHORD_MM / radius, 0.0)) if radius > CHORD_MM else math.pi
    return max(16, math.ceil(math.pi / 4 / half))


@dataclass(frozen=True)
class AsCut:
    """One finished piece: its shape after the sweep, and the outline the beam's centre followed."""

    finished: shapely.Polygon
    path: shapely.Polygon


def as_cut(paths: Sequence[ReadPath], kerf: float, leads: Sequence[ReadPath] = ()) -> list[AsCut]:
    """The pieces that closed cut `paths` leave, each path and each lead to one cut by a beam `kerf` mm wide.

    An outline inside another is a hole of it, one inside a hole a piece again (even-odd). A piece that the beam
    takes whole has an empty shape; one that falls apart is a MultiPolygon. Paths that are open or cross themselves
    leave nothing that could be called a piece, and are passed over.
    """
    import shapely

    rings = [ring for path in paths if (ring := outline_of(path)).is_valid and not ring.is_empty]
    rings.sort(key=lambda ring: -ring.area)
    around = rings_around(rings)
    holes: dict[int, list[shapely.Polygon]] = defaultdict(list)
    for index, outer in enumerate(around):
        if len(outer) % 2:
            holes[outer[-1]].append(rings[index])
    pieces = []
    for index, ring in enumerate(rings):
        if len(around[index]) % 2:
            continue
        bores = [hole.exterior for hole in holes[index]]
        path = shapely.polygons(ring.exterior, bores) if bores else ring
        path = shapely.normalize(path)  # wherever it starts
        pieces.append(_swept(shapely.to_wkb(path), kerf))
    return [replace(piece, finished=_less_leads(piece.finished, leads, kerf)) for piece in pieces] if leads else pieces


def _coordinates(shape: shapely.Geometry) -> int:
    import shapely

    return int(shapely.get_num_coordinates(shape))


# After an edit most outlines of a file are as they were, to the last digit.
@remembered(4096, lambda piece: _coordinates(piece.finished), 600_000)
def _swept(outline: bytes, kerf: float) -> AsCut:
    """`outline` is a polygon as well-known binary."""
    import shapely

    path = shapely.from_wkb(outline)
    # Sweep and subtract: eroding a finely flattened outline in one step can go wrong in GEOS.
    swept = path.boundary.buffer(kerf / 2, quad_segs=round_steps(kerf / 2)) if kerf else shapely.Polygon()
    return AsCut(path.difference(swept), path)


def _less_leads(finished: shapely.Geometry, leads: Sequence[ReadPath], kerf: float) -> shapely.Geometry:
    """A piece without what the beam takes on its way to any outline: it does not know whose waste it runs through."""
    import shapely

    for lead in leads:
        points = [*flatten(lead.segments, CHORD_MM), lead.segments[-1].end]
        line = shapely.LineString(points)
        # Where it reaches its own outline that one's sweep has been already.
        if kerf and shapely.dwithin(finished, line, kerf / 2 - CHORD_MM):
            finished = finished.difference(line.buffer(kerf / 2, quad_segs=round_steps(kerf / 2)))
    return finished


def without_lead(path: ReadPath) -> tuple[ReadPath, ReadPath | None]:
    """A path that is led in from the side and ends where it met its own way, as its closed outline and its lead; else the
    path as it is."""
    if path.closed or not path.segments:
        return path, None
    if path.goes_round:
        return replace(path, closed=True), None
    end = path.segments[-1].end
    for index, segment in enumerate(path.segments[1:], 1):
        if math.dist(segment.start, end) <= MEETS_MM:
            outline = replace(path, segments=path.segments[index:], closed=True)
            return outline, replace(path, segments=path.segments[:index])
    return path, None


def outline_of(path: ReadPath) -> shapely.Polygon:
    """What a closed path goes round; empty for an open one or one without area. It may cross itself: ask `is_valid`."""
    return _outline(Same(path.segments), path.closed)


@remembered(4096, _coordinates, 600_000)
def _outline(segments: Same[tuple[Segment, ...]], closed: bool) -> shapely.Polygon:
    import numpy as np
    import shapely

    points = flatten(segments.it, CHORD_MM) if closed else []
    return shapely.polygons(np.asarray(points)) if len(points) >= 3 else shapely.Polygon()


def rings_around(rings: Sequence[shapely.Polygon]) -> list[list[int]]:
    """For each of some rings, largest first, the ones around it from the outside in."""
    import shapely

    around: list[list[int]] = [[] for _ in rings]
    if not rings:
        return around
    boxes = shapely.bounds(rings)
    places = [ring.representative_point() for ring in rings]
    for inner, outer in sorted(zip(*shapely.STRtree(rings).query(places, predicate="within").tolist(), strict=True)):
        a, b = boxes[outer], boxes[inner]
        if outer < inner and (a[:2] <= b[:2]).all() and (a[2:] >= b[2:]).all():
            around[inner].append(outer)
    return around
