"""Cutting and joining the regions of a part while it is made: in, regions and what is taken or added; out, what is left, bounded
in work."""

from __future__ import annotations

from collections.abc import Sequence

from ..geometry import Circle, Region
from ..ground.limits import check_part_work
from ..ground.remembered import by_value
from .being_made import Making

MOST_SINGLE = 60
"""More copies than this are counted before they are made; fewer are counted with the rest, at the end."""


def check_cuts(cuts: Sequence[Region], title: str) -> None:
    """Raises TooMuchWork for more, or more that overlap, than can be cut out in reasonable time."""
    if len(cuts) < 60:
        return
    segments = sum(count(region) for region in cuts)
    check_part_work(segments, 0, title, "pattern")
    import numpy as np
    import shapely

    boxes = shapely.box(*np.array([region.box for region in cuts]).T)
    pairs = shapely.STRtree(boxes).query(boxes)
    check_part_work(segments, (pairs.shape[1] - len(cuts)) // 2, title, "pattern")


@by_value(16_384)
def count(region: Region) -> int:
    return sum(1 if isinstance(ring, Circle) else len(ring.segments) for ring in region.rings)


def carve(making: Making) -> None:
    """Takes away what is still to be cut."""
    if making.cuts:
        check_cuts(making.cuts, "this part")
        making.regions = combined(making.regions, making.cuts, "difference")
        making.cuts = []


def combined(regions: Sequence[Region], others: Sequence[Region], how: str) -> list[Region]:
    return list(_boolean(tuple(regions), tuple(others), how))


@by_value(512)
def _boolean(regions: tuple[Region, ...], others: tuple[Region, ...], how: str) -> tuple[Region, ...]:
    from ..geometry.boolean import combine
    from ..geometry.cut_out import cut_out

    if how == "difference":
        return tuple(cut_out(regions, others))
    pair = ((*regions, *others), ()) if how == "union" else (regions, others)
    return tuple(combine([pair], how)[0])  # type: ignore[arg-type]


def as_one(regions: list[Region]) -> list[Region]:
    """The first shapes of a part, joined where they overlap."""
    return regions if len(regions) == 1 else combined(regions, (), "union")


def box_of_all(regions: Sequence[Region]) -> tuple[float, float, float, float]:
    lefts, lows, rights, highs = zip(*(region.box for region in regions), strict=True)
    return (min(lefts), min(lows), max(rights), max(highs))
