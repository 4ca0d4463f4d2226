"""Where a part belongs that is stood up: in, a computed job and a part; out, the pose that puts one of its edges against an edge that is
as long, with as many of the others on edges as can be."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import islice
from typing import Any

from ..design import Against
from ..documents import codec
from ..geometry.space import Frame, Triple, block_box
from ..job import Result
from ..joints.mate import Line
from ..making import Standing
from ..making.stand import stand_against

SAME_MM = 0.5
"""Edges that differ by less are as long as each other, and lie on each other: boards that were drawn to go together. Common practice."""

CORNER_MM = 0.5
"""What boards that share a corner may share beyond their thickness."""

MOST_TRIED = 4_000

_HERE = {"along": 0.0, "into": 0.0, "below": 0.0}

Edge3 = tuple[Triple, Triple]
Box3 = tuple[Triple, Triple]


@dataclass(frozen=True)
class _Try:
    pose: Against
    frame: Frame


def against_nearest(result: Result, part_id: str) -> dict[str, Any] | None:
    """The pose in which most of the part's edges lie on edges of what stands; of several, the one that makes the whole grow least, then
    one that faces a part of the same sizes, then one against what was stood up last. None where no edge is as long as one of those,
    or something is always in the way."""
    part = result.build.part(part_id)
    standings = result.build.standings
    if not standings:
        return None
    lines = _lines(result, part_id)
    known = [edge for one in standings for edge in _edges_in_space(result, one)]
    around = _around(one.box for one in standings)
    best: tuple[tuple[int, float, int], Against] | None = None
    for one in islice(_tries(result, lines, standings), MOST_TRIED):
        left, low, right, high = part.box
        box = block_box(one.frame, (left, low, right, high), part.thickness)
        if any(lies_in(box, part.thickness, other) for other in standings):
            continue
        own = [_in_space(one.frame, line) for line in lines.values()]
        lying = sum(any(_same(edge, other) for other in known) for edge in own)
        grown = sum(_extents(_around((around, box)))) - sum(_extents(around))
        facing = sum(_is_alike(box, other.box) for other in standings)
        rank = (lying, -round(grown, 1), facing)
        if best is None or rank > best[0]:
            best = (rank, one.pose)
    return codec.write(best[1]) if best else None


def _tries(result: Result, own: Mapping[str, Line], standings: Sequence[Standing]) -> Iterator[_Try]:
    for other in reversed(standings):
        for its_name, its in _lines(result, other.part).items():
            for name, line in own.items():
                if abs(math.dist(*line) - math.dist(*its)) < SAME_MM:
                    for angle in (90.0, -90.0):
                        pose = Against(name, other.placement, its_name, angle)
                        yield _Try(pose, stand_against(pose, line, other.frame, its, _HERE))


def _lines(result: Result, part_id: str) -> dict[str, Line]:
    return {name: (one.start, one.end) for name, one in result.build.part(part_id).edges if not one.bulge}


def _edges_in_space(result: Result, one: Standing) -> list[Edge3]:
    return [_in_space(one.frame, line) for line in _lines(result, one.part).values()]


def _in_space(frame: Frame, line: Line) -> Edge3:
    return (frame.at(line[0], 0.0), frame.at(line[1], 0.0))


def _same(one: Edge3, other: Edge3) -> bool:
    (a, b), (c, d) = one, other
    return (math.dist(a, c) < SAME_MM and math.dist(b, d) < SAME_MM) or (
        math.dist(a, d) < SAME_MM and math.dist(b, c) < SAME_MM
    )


def _around(boxes: Iterable[Box3]) -> Box3:
    lows, highs = zip(*boxes, strict=True)
    low, high = [min(some) for some in zip(*lows, strict=True)], [max(some) for some in zip(*highs, strict=True)]
    return (low[0], low[1], low[2]), (high[0], high[1], high[2])


def _extents(box: Box3) -> list[float]:
    return [high - low for low, high in zip(*box, strict=True)]


def _is_alike(one: Box3, other: Box3) -> bool:
    return all(abs(a - b) < SAME_MM for a, b in zip(_extents(one), _extents(other), strict=True))


def lies_in(box: Box3, thickness: float, other: Standing) -> bool:
    """Whether a board lies in another, by the boxes round both. Boards that meet in a corner share as much as the thicker one is thick, in two ways: more is in the way."""
    (a, b), (c, d) = box, other.box
    shared = sorted(min(high, top) - max(low, bottom) for low, high, bottom, top in zip(a, b, c, d, strict=True))
    corner = max(thickness, other.thickness) + CORNER_MM
    return shared[0] > 1e-6 and shared[1] > corner
