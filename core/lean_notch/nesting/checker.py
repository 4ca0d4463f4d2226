"""Is a layout right? Asked of the outlines themselves with a general geometry library, whatever engine made it."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from typing import TYPE_CHECKING

from ..geometry import Region, loops
from ..units import say_mm
from .problem import Layout, LayoutSettings, Piece

if TYPE_CHECKING:
    import shapely

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
        inside = shapely.box(m, m, sheet.area.width - m, sheet.area.height - m)
        placed = layout.on_sheet(sheet.number)
        shapes = [_polygon(one.motion.region(regions[one.part])) for one in placed]
        faults += [
            f"{p.part} {p.copy} leaves the sheet" for p, s in zip(placed, shapes, strict=True) if not inside.covers(s)
        ]
        clear = shapely.union_all([shapely.box(*box) for box in sheet.area.keep_outs])
        faults += [
            f"{p.part} {p.copy} lies over what must be kept clear"
            for p, s in zip(placed, shapes, strict=True)
            if not clear.is_empty and s.distance(clear) < settings.spacing - TOLERANCE_MM
        ]
        for i, shape in enumerate(shapes):
            for j in range(i):
                gap = shape.distance(shapes[j])
                if gap < settings.spacing - TOLERANCE_MM or shape.intersection(shapes[j]).area > TOLERANCE_MM:
                    faults.append(f"{placed[i].part} and {placed[j].part} are {say_mm(gap)} apart")
    return faults


def _polygon(region: Region) -> shapely.Polygon:
    import shapely

    return shapely.Polygon(*loops(region, TOLERANCE_MM))
