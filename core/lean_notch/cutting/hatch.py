"""Areas as parallel lines: in, regions and a spacing; out, level lines from edge to edge, there and back in turn."""

from __future__ import annotations

import math
from collections.abc import Sequence

from ..geometry import Region, Segment, Trace, Vertex

SHORTEST_MM = 0.01

_BESIDE_MM = 3.1e-7  # so that lines do not run through corners, where it is open on which side they pass


def hatched(regions: Sequence[Region], spacing: float) -> list[Trace]:
    """Lines inside `regions`, which share no ground, in rows that run on through all of them, `spacing` mm apart, the first half a
    spacing above the lowest point."""
    if not regions:
        return []
    low, high = min(region.box[1] for region in regions), max(region.box[3] for region in regions)
    segments = [segment for region in regions for ring in region.rings for segment in ring.segments]
    count = math.ceil((high - low) / spacing)
    rows: list[list[float]] = [[] for _ in range(count)]
    first = low + spacing / 2 + _BESIDE_MM
    for segment in segments:
        _, bottom, _, top = segment.box
        for row in range(
            max(0, math.floor((bottom - first) / spacing)), min(count, math.ceil((top - first) / spacing) + 1)
        ):
            rows[row] += _meets(segment, first + row * spacing)
    lines = []
    for row, places in enumerate(rows):
        y = first + row * spacing
        places.sort()
        pairs = [(a, b) for a, b in zip(places[::2], places[1::2], strict=False) if b - a > SHORTEST_MM]
        if row % 2:
            pairs = [(b, a) for a, b in reversed(pairs)]
        lines += [Trace((Vertex(a, y), Vertex(b, y))) for a, b in pairs]
    return lines


def _meets(segment: Segment, y: float) -> Sequence[float]:
    """Where a level line crosses a segment."""
    (x0, y0), (x1, y1) = segment.start, segment.end
    if segment.bulge == 0:
        return [x0 + (y - y0) / (y1 - y0) * (x1 - x0)] if (y0 < y) != (y1 < y) else []
    (cx, cy), radius = segment.centre, segment.radius
    if abs(y - cy) >= radius:
        return []
    half = math.sqrt(radius**2 - (y - cy) ** 2)
    return [x for x in (cx - half, cx + half) if ((x1 - x0) * (y - y0) - (y1 - y0) * (x - x0)) * segment.bulge < 0]
