"""Union, difference and intersection of regions; arcs stay arcs of the same centre and radius.

In: regions; out: regions, each an outer outline with its holes, counter-clockwise and clockwise. The outlines are cut
up where they meet; a piece between two meetings belongs to the result if what lies on its left does and what lies
on its right does not. No chord stands in for an arc anywhere.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Literal

import numpy as np

from ..ground.errors import BadGeometry
from ..lengths.said import say_mm
from .contour import JOIN_MM
from .linking import Sources, Unlinked, link
from .noding import Neighbours, Pieces, cut_up, quarters
from .region import Region
from .ring import Ring
from .segments import Flags, Floats, Ints, Segments, segments_of_rings
from .transform import Motion
from .winding import crossed, in_lens, on_left

Operation = Literal["union", "difference", "intersection"]
_INSIDE: dict[Operation, Callable[[Flags, Flags], Flags]] = {
    "union": lambda first, second: first | second,
    "difference": lambda first, second: first & ~second,
    "intersection": lambda first, second: first & second,
}
Operands = tuple[Sequence[Region], Sequence[Region]]


def union(*regions: Region) -> list[Region]:
    """All that any of `regions` covers."""
    return combine([(regions, ())], "union")[0]


def difference(regions: Sequence[Region], less: Sequence[Region]) -> list[Region]:
    """What `regions` cover and none of `less` does."""
    return combine([(regions, less)], "difference")[0]


def intersection(regions: Sequence[Region], others: Sequence[Region]) -> list[Region]:
    """What both `regions` and `others` cover.

    >>> from .contour import rectangle
    >>> [lens] = intersection([Region(rectangle(0, 0, 4, 4))], [Region(rectangle(3, 1, 4, 2))])
    >>> lens.area
    2.0
    """
    return combine([(regions, others)], "intersection")[0]


def combine(pairs: Sequence[Operands], operation: Operation) -> list[list[Region]]:
    """`operation` on each pair of operands by itself, all of them in one pass: 200 parts cost little more than one.

    Raises BadGeometry for outlines that cross themselves.
    """
    results: list[list[Region]] = []
    for at in range(0, len(pairs), MOST_AT_ONCE):
        some = pairs[at : at + MOST_AT_ONCE]
        try:
            results += _combined(some, operation)
        except Unlinked:
            results += [_nudged(pair, operation) for pair in some]
    return results


def _combined(pairs: Sequence[Operands], operation: Operation) -> list[list[Region]]:
    rings = [
        (ring, group, side)
        for group, pair in enumerate(pairs)
        for side, regions in enumerate(pair)
        for region in regions
        for ring in region.rings
    ]
    if not rings:
        return [[] for _ in pairs]
    whole, ring = segments_of_rings([ring for ring, _, _ in rings], [group for _, group, _ in rings])
    side = np.array([side for _, _, side in rings])[ring]
    segments, parent = quarters(whole)
    neighbours = Neighbours(segments)
    pieces = cut_up(segments, neighbours)
    _check_simple(segments, ring[parent], pieces)
    sources = Sources([ring for ring, _, _ in rings], ring[parent][pieces.parent])
    return _result(segments, sources, side[parent], pieces, neighbours, operation, len(pairs), holes_count=True)


def _check_simple(segments: Segments, ring: Ints, pieces: Pieces) -> None:
    """Refuses a ring that crosses or touches itself between its corners."""
    owner, other, place = pieces.meetings
    same = np.flatnonzero(ring[owner] == ring[other])
    owner, place = owner[same], place[same]
    inside = np.flatnonzero(segments.from_ends(owner, place) > 8 * JOIN_MM)
    if inside.size:
        x, y = place[inside[0]]
        raise BadGeometry(
            f"An outline crosses itself at {say_mm(x)}, {say_mm(y)}.",
            fix="Draw it anew, or take it apart where it crosses.",
        )


MOST_AT_ONCE = 32
"""More than this no longer fits the processor's caches, and takes longer for each."""

NUDGES_MM = (0.0, 3e-6, -5e-6)
"""Outlines within a nanometre of touching can leave an end loose; moved by some nanometres they do not."""


def _nudged(pair: Operands, operation: Operation) -> list[Region]:
    first, second = pair
    for nudge in NUDGES_MM:
        moved = [
            tuple(Motion(nudge * (index + 1), -nudge * index).region(region) for index, region in enumerate(regions))
            for regions in (first[1:], second)
        ]
        try:
            return _combined([((*first[:1], *moved[0]), moved[1])], operation)[0]
        except Unlinked:
            continue
    raise tangled()


def tangled() -> BadGeometry:
    return BadGeometry(
        "An outline crosses itself, or two touch so nearly that it is open which lies outside.",
        fix="Draw it without crossings, or move one of them by 0.01 mm.",
    )


def filled(rings: Sequence[Ring]) -> list[Region]:
    """What closed rings cover together, by the non-zero rule, whichever way and however often they run."""
    if not rings:
        return []
    whole, ring = segments_of_rings(rings, [0] * len(rings))
    segments, parent = quarters(whole)
    neighbours = Neighbours(segments)
    pieces = cut_up(segments, neighbours)
    second = np.zeros(len(segments), np.int64)
    try:
        return _result(segments, Sources(rings, ring[parent][pieces.parent]), second, pieces, neighbours, "union", 1)[0]
    except Unlinked:
        raise tangled() from None


def _result(
    segments: Segments,
    sources: Sources,
    second: Ints,
    pieces: Pieces,
    neighbours: Neighbours,
    operation: Operation,
    groups: int,
    *,
    holes_count: bool = False,
) -> list[list[Region]]:
    """`holes_count`: what loops go round backwards is no material; else it is, whichever way they run."""
    place, count = pieces.same, int(pieces.same.max()) + 1
    # How many outlines of each operand run along a place, those that run backwards counted down.
    sense = np.where(pieces.forward, 1, -1)
    step = np.zeros((count, 2), np.int64)
    np.add.at(step, (place, second[pieces.parent]), sense)
    chain = _chains(pieces, sources.ring_of)
    asked = _longest(pieces, chain)
    ahead, ahead_is_right = _windings(segments, second, pieces, place, asked, neighbours)
    along = step[place[asked]] * sense[asked][:, None]
    left = np.where(ahead_is_right[:, None], ahead + along, ahead)[chain]
    right = left - step[place] * sense[:, None]
    inside = _INSIDE[operation]
    material = (left > 0, right > 0) if holes_count else (left != 0, right != 0)
    on_left, on_right = inside(*material[0].T), inside(*material[1].T)
    edge = on_left != on_right
    # One piece stands for all that coincide with it.
    kept = np.flatnonzero(edge)
    _, first = np.unique(place[kept], return_index=True)
    kept = kept[first]
    return link(pieces, segments, kept, ~on_left[kept], groups, sources)


def _chains(pieces: Pieces, loop: Ints) -> Ints:
    """Numbers of the runs of pieces, along one loop each, at whose inner nodes nothing else ends."""
    _, first = np.unique(pieces.same, return_index=True)
    degree = np.bincount(np.r_[pieces.first[first], pieces.last[first]], minlength=len(pieces.nodes))
    goes_on = (loop[1:] == loop[:-1]) & (degree[pieces.last[:-1]] == 2)
    return np.cumsum(np.r_[True, ~goes_on]) - 1


def _longest(pieces: Pieces, chain: Ints) -> Ints:
    """The longest piece of each chain: its middle is the safest place to ask from."""
    order = np.lexsort((pieces.as_segments.span, chain))
    return order[np.r_[chain[order][1:] != chain[order][:-1], True]]


def _windings(
    segments: Segments, second: Ints, pieces: Pieces, place: Ints, asked: Ints, neighbours: Neighbours
) -> tuple[Ints, Flags]:
    """How often the loops of both operands go round a point just ahead of each piece `asked`, along a ray from its
    middle, and whether that is on its right.

    The ray runs along x from steep pieces and along y from flat ones, to the nearer side of everything. What
    coincides with the piece is left out.
    """
    own = pieces.as_segments.take(asked)
    middle, flat = own.middle, np.abs(own.chord[:, 0]) > np.abs(own.chord[:, 1])
    nearer_low = middle - neighbours.low[own.group] < neighbours.high[own.group] - middle
    back = np.where(flat, nearer_low[:, 1], nearer_low[:, 0])
    way = _WAYS[flat.astype(np.int64) + 2 * back]
    query, other = neighbours.touching(_box_of(middle, middle + neighbours.reach * way), own.group)
    # Turned so that its ray runs along x.
    turn = way[query]
    start, end, point = (
        np.stack([p[:, 0] * turn[:, 0] + p[:, 1] * turn[:, 1], p[:, 1] * turn[:, 0] - p[:, 0] * turn[:, 1]], axis=1)
        for p in (segments.start[other], segments.end[other], middle[query])
    )
    count = len(segments)
    coinciding = np.unique(place * count + pieces.parent)
    key = place[asked][query] * count + other
    at = np.minimum(np.searchsorted(coinciding, key), len(coinciding) - 1)
    left = on_left(start, end, point)
    counted = crossed(start, end, point, left)
    arc = np.flatnonzero(segments.round[other])
    counted[arc] += in_lens(segments, other[arc], middle[query[arc]], left[arc])
    counted[coinciding[at] == key] = 0
    winding = np.zeros((len(asked), 2), np.int64)
    np.add.at(winding, (query, second[other]), counted)
    rising = own.chord[:, 1] * way[:, 0] - own.chord[:, 0] * way[:, 1] > 0
    return winding, rising


_WAYS = np.array([(1.0, 0.0), (0.0, 1.0), (-1.0, 0.0), (0.0, -1.0)])


def _box_of(a: Floats, b: Floats) -> Floats:
    return np.hstack([np.minimum(a, b), np.maximum(a, b)])
