"""The solid of a flat part: in, its outline and what is sunk into its faces; out, what is left of the board, level by level.

Depths count from the front face in mm. Every region is as seen from the front.
"""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from dataclasses import dataclass

from ..geometry import Region
from ..steps.being_made import FlatMark
from .flat import FlatPart


@dataclass(frozen=True)
class Block:
    """All of an area between two depths."""

    region: Region
    low: float
    high: float


@dataclass(frozen=True)
class Face:
    """A face that is parallel to the board's, at a depth."""

    region: Region
    depth: float


def blocks(part: FlatPart, thickness: float) -> tuple[Block, ...]:
    """The largest blocks of the solid: together they are all of it, and whatever box lies in it lies in one of them."""
    fronts, backs = _levels(part, thickness)
    pairs = [(low, high) for low in fronts for high in backs if high > low]
    return tuple(block for low, high in pairs for block in _between(part, low, high, thickness))


def slices(part: FlatPart, thickness: float) -> tuple[Block, ...]:
    """The solid cut into blocks that lie on each other and share nothing."""
    return tuple(itertools.chain.from_iterable(_sliced(part, thickness)))


def faces(part: FlatPart, thickness: float) -> tuple[Face, ...]:
    """Every face of the solid that is parallel to the board's: its own two, and the floors of what is sunk."""
    from ..geometry.boolean import difference

    found: list[Face] = []
    layers = [(), *_sliced(part, thickness), ()]
    for above, below in itertools.pairwise(layers):
        depth = below[0].low if below else above[0].high if above else 0.0
        for one, other in ((above, below), (below, above)):
            mine, theirs = [block.region for block in one], [block.region for block in other]
            found += [Face(region, depth) for region in (difference(mine, theirs) if mine and theirs else mine)]
    return tuple(found)


def is_sunk(part: FlatPart) -> bool:
    return any(_pockets(part))


def _sliced(part: FlatPart, thickness: float) -> Sequence[tuple[Block, ...]]:
    fronts, backs = _levels(part, thickness)
    depths = sorted({*fronts, *backs})
    layers = (_between(part, low, high, thickness) for low, high in itertools.pairwise(depths))
    return [layer for layer in layers if layer]


def _levels(part: FlatPart, thickness: float) -> tuple[list[float], list[float]]:
    """Where something may begin, from the front, and where it may end."""
    fronts = {0.0, *(mark.depth for mark in _pockets(part) if not mark.back and mark.depth < thickness)}
    backs = {thickness, *(thickness - mark.depth for mark in _pockets(part) if mark.back and mark.depth < thickness)}
    return sorted(fronts), sorted(backs)


def _between(part: FlatPart, low: float, high: float, thickness: float) -> tuple[Block, ...]:
    """What is there at every depth from `low` to `high`."""
    sunk = [
        region
        for mark in _pockets(part)
        if (thickness - mark.depth < high if mark.back else mark.depth > low)
        for region in mark.regions
    ]
    if not sunk:
        return (Block(part.region, low, high),)
    from ..geometry.boolean import difference

    return tuple(Block(region, low, high) for region in difference([part.region], sunk))


def _pockets(part: FlatPart) -> list[FlatMark]:
    return [mark for mark in part.marks if mark.operation == "pocket" and mark.regions and mark.depth > 0]
