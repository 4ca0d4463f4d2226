"""Areas to be engraved or sunk that lie on each other are one: in, marks of a part; out, marks of which no two areas of one
operation, depth and face share any ground. Raises TooMuchWork where thousands overlap."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import replace

from ..geometry import Region
from ..ground.limits import check_part_work
from ..ground.remembered import by_value
from ..making import FlatMark

_CHORD_MM = 0.01

SHARED_MM2 = 1e-4
"""Areas that share less only touch."""


@by_value(1024)
def as_one(marks: tuple[FlatMark, ...]) -> tuple[FlatMark, ...]:
    """`marks` in their order; what several of them cover is of the first of them. Copies within one mark are joined too."""
    kinds: dict[tuple[object, ...], list[tuple[int, Region]]] = defaultdict(list)
    for number, mark in enumerate(marks):
        if mark.operation in ("engrave", "pocket"):
            kinds[mark.operation, mark.depth, mark.back, mark.side] += [(number, region) for region in mark.regions]
    joined: dict[int, list[Region]] = defaultdict(list)
    changed = set[int]()
    for areas in kinds.values():
        for group in _groups([region for _, region in areas]):
            owners = [areas[at][0] for at in group]
            joined[min(owners)] += _union([areas[at][1] for at in group])
            if len(group) > 1:
                changed.update(owners)
    if not changed:
        return marks
    return tuple(
        replace(mark, regions=tuple(joined[number])) if number in changed else mark for number, mark in enumerate(marks)
    )


def _union(regions: Sequence[Region]) -> list[Region]:
    from ..geometry.boolean import union

    return union(*regions) if len(regions) > 1 else list(regions)


def _groups(regions: Sequence[Region]) -> list[list[int]]:
    """Which of them hang together, each group in order."""
    group = list(range(len(regions)))

    def root(at: int) -> int:
        while group[at] != at:
            at = group[at]
        return at

    for a, b in _sharing(regions):
        first, second = sorted((root(a), root(b)))
        group[second] = first
    found: dict[int, list[int]] = defaultdict(list)
    for at in range(len(regions)):
        found[root(at)].append(at)
    return list(found.values())


def _sharing(regions: Sequence[Region]) -> list[tuple[int, int]]:
    if len(regions) < 2:
        return []
    import numpy as np
    import shapely

    from ..geometry.flatten import loops

    boxes = shapely.box(*np.array([region.box for region in regions]).T)
    first, second = shapely.STRtree(boxes).query(boxes, predicate="intersects")
    ordered = first < second
    first, second = first[ordered], second[ordered]
    check_part_work(0, len(first), "what is engraved or sunk", "pattern")
    near = np.unique([first, second])
    shapes = np.full(len(regions), None, dtype=object)
    shapes[near] = [shapely.Polygon(*loops(regions[at], _CHORD_MM)).buffer(0) for at in near]
    sharing = shapely.area(shapely.intersection(shapes[first], shapes[second])) > SHARED_MM2
    return list(zip(first[sharing].tolist(), second[sharing].tolist(), strict=True))
