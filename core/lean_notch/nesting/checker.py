"""Is a layout right? Asked of the outlines themselves, whatever engine made it."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence

from ..geometry import Region, loops, rectangle
from ..geometry.gaps import gaps
from ..geometry.noding import Neighbours, quarters
from ..geometry.segments import segments_of_rings
from ..lengths.said import say_mm
from .problem import Layout, LayoutSettings, Piece

TOLERANCE_MM = 1e-6


def layout_faults(layout: Layout, pieces: Sequence[Piece], settings: LayoutSettings) -> list[str]:
    """What is wrong, in words; empty if every copy is there once, inside its margin, spaced from the others and clear of
    what must be kept clear."""
    import shapely

    faults = []
    wanted = Counter({piece.part: piece.quantity for piece in pieces})
    if Counter(placed.part for placed in layout.placed) != wanted:
        faults.append("not every part is there as often as wanted")
    regions = {piece.part: piece.region for piece in pieces}
    m = settings.margin - TOLERANCE_MM
    for sheet in layout.sheets:
        placed = layout.on_sheet(sheet.number)
        there = [one.motion.region(regions[one.part]) for one in placed]
        for one, region in zip(placed, there, strict=True):
            left, low, right, high = region.box
            if left < m or low < m or right > sheet.area.width - m or high > sheet.area.height - m:
                faults.append(f"{one.part} {one.copy} leaves the sheet")
        kept_clear = [Region(rectangle(a, b, c - a, d - b)) for a, b, c, d in sheet.area.keep_outs]
        everything = [*there, *kept_clear]
        apart = _apart(everything, settings.spacing)
        shapes = [shapely.Polygon(*loops(region, COARSE_MM)) for region in everything]
        first, second = shapely.STRtree(shapes).query(shapes, predicate="intersects") if shapes else ((), ())
        for i, j in zip(first, second, strict=True):
            if i < j and shapely.area(shapely.intersection(shapes[i], shapes[j])) > TOLERANCE_MM:
                apart[int(i), int(j)] = 0.0
        for (i, j), gap in sorted(apart.items()):
            if i >= len(placed) or gap >= settings.spacing - TOLERANCE_MM:
                continue
            if j >= len(placed):
                faults.append(f"{placed[i].part} {placed[i].copy} lies over what must be kept clear")
            else:
                faults.append(f"{placed[i].part} and {placed[j].part} are {say_mm(gap)} apart")
    return faults


COARSE_MM = 0.01
"""Chords for asking whether shapes lie in each other; how near they come is asked of the lines and arcs themselves."""


def _apart(regions: Sequence[Region], spacing: float) -> dict[tuple[int, int], float]:
    """How near those pairs of regions come whose outlines come nearer than `spacing`."""
    import numpy as np

    rings = [(ring, number) for number, region in enumerate(regions) for ring in region.rings]
    s, ring = segments_of_rings([one for one, _ in rings], [0] * len(rings))
    s, parent = quarters(s)
    owner = np.array([number for _, number in rings], np.int64)[ring][parent]
    found: dict[tuple[int, int], float] = {}
    if not len(s):
        return found
    i, j = Neighbours(s).touching(s.box, s.group, slack=spacing)
    ahead = owner[i] < owner[j]
    i, j = i[ahead], j[ahead]
    gap, _ = gaps(s, i, j)
    for a, b, near in zip(owner[i].tolist(), owner[j].tolist(), gap.tolist(), strict=True):
        if near < found.get((a, b), spacing):
            found[a, b] = near
    return found
