"""Pieces joined into outlines: in, the pieces of a result and which way they run; out, regions.

Pieces of one line or circle become one segment, a ring of one circle a circle. A loop that comes by a node twice falls
into two there, so that outlines that touch in a point stay simple.
"""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from .contour import JOIN_MM, Circle, Contour, Vertex
from .noding import Pieces
from .region import Region, turned
from .ring import Ring
from .segments import Flags, Floats, Ints, Segments, previous_in_ring, segments_of_rings
from .winding import winding

SLIVER_MM2 = 1e-4
"""Pieces smaller than a hundredth of a millimetre square are rounding, not parts."""

_STRAIGHT_MM = 1e-7
_SAME_CIRCLE_MM = 4e-6


class Unlinked(Exception):
    """Some piece of a result has nothing to go on to."""


@dataclass(frozen=True)
class Sources:
    """The rings that pieces come from, and of each piece the number of its ring."""

    rings: Sequence[Ring]
    ring_of: Ints


def link(
    pieces: Pieces, parents: Segments, kept: Ints, backwards: Flags, groups: int, sources: Sources | None = None
) -> list[list[Region]]:
    """Regions by group from the pieces `kept`, turned round where `backwards`. Raises Unlinked.

    Rings of `sources` that nothing touched come out as they went in.
    """
    start = np.where(backwards, pieces.last[kept], pieces.first[kept])
    end = np.where(backwards, pieces.first[kept], pieces.last[kept])
    bulge = np.where(backwards, -pieces.bulge[kept], pieces.bulge[kept])
    order, loop = _loops(pieces.nodes, start, end, bulge)
    return _regions(pieces, parents, kept[order], start[order], end[order], bulge[order], loop, groups, sources)


def _loops(nodes: Floats, start: Ints, end: Ints, bulge: Floats) -> tuple[Ints, Ints]:
    """The pieces in the order of their loops, and the number of each one's loop."""
    count = len(start)
    by_start = np.argsort(start, kind="stable")
    low = np.searchsorted(start[by_start], end, "left")
    high = np.searchsorted(start[by_start], end, "right")
    if (count and ((high - low) < 1).any()) or (np.bincount(start) != np.bincount(end, minlength=1)).any():
        raise Unlinked
    following = by_start[np.minimum(low, count - 1)]
    crowded = np.flatnonzero(high - low > 1)
    if crowded.size:
        _choose(nodes, start, end, bulge, crowded, low, high, by_start, following)
    onward, open_at = following.tolist(), [True] * count
    order: list[int] = []
    loop: list[int] = []
    number = 0
    for first in range(count):
        if not open_at[first]:
            continue
        run, here = [], first
        while open_at[here]:
            open_at[here] = False
            run.append(here)
            here = onward[here]
        if here != first:
            raise Unlinked
        for simple in _simple(run, start) if crowded.size else [run]:
            order += simple
            loop += [number] * len(simple)
            number += 1
    return np.array(order, np.int64), np.array(loop, np.int64)


def _choose(
    nodes: Floats, start: Ints, end: Ints, bulge: Floats,
    crowded: Ints, low: Ints, high: Ints, by_start: Ints, following: Ints,
) -> None:  # fmt: skip
    """Where several pieces leave a node, each arrival goes on along the first one clockwise from where it came from:
    what lies between is inside."""
    tangled = np.unique(np.r_[crowded, np.concatenate([by_start[low[k] : high[k]] for k in crowded])])
    part = Segments(nodes[start[tangled]], nodes[end[tangled]], bulge[tangled], np.zeros(len(tangled), np.int64))
    curvature = part.sweep / part.length
    leaving, arriving = part.tangents(0), part.tangents(1)
    at = {piece: index for index, piece in enumerate(tangled.tolist())}
    taken: set[int] = set()
    for k in crowded.tolist():
        i = at[k]
        back_x, back_y, back_bend = -arriving[i, 0], -arriving[i, 1], -curvature[i]
        best, chosen = None, -1
        for out in by_start[low[k] : high[k]].tolist():
            j = at[out]
            cross = back_x * leaving[j, 1] - back_y * leaving[j, 0]
            dot = back_x * leaving[j, 0] + back_y * leaving[j, 1]
            turn = -math.atan2(cross, dot)  # clockwise from the way back
            bend = back_bend - curvature[j]
            if abs(turn) < 1e-9:  # side by side: the one that bends away clockwise comes first, the other last
                turn = 0.0 if bend > 0 else 2 * math.pi
            elif turn < 0:
                turn += 2 * math.pi
            rank = (round(turn, 9), -bend)
            if best is None or rank < best:
                best, chosen = rank, out
        if chosen in taken:
            raise Unlinked
        taken.add(chosen)
        following[k] = chosen


def _simple(run: Sequence[int], start: Ints) -> list[list[int]]:
    """A loop in loops that come by no node twice."""
    found: list[list[int]] = []
    path: list[int] = []
    seen: dict[int, int] = {}
    for piece in run:
        node = int(start[piece])
        if node in seen:
            at = seen[node]
            found.append(path[at:])
            for gone in path[at:]:
                seen.pop(int(start[gone]), None)
            del path[at:]
        seen[node] = len(path)
        path.append(piece)
    return [*found, path]


def _regions(
    pieces: Pieces,
    parents: Segments,
    kept: Ints,
    start: Ints,
    end: Ints,
    bulge: Floats,
    loop: Ints,
    groups: int,
    sources: Sources | None,
) -> list[list[Region]]:
    result: list[list[Region]] = [[] for _ in range(groups)]
    if not len(kept):
        return result
    here = Segments(pieces.nodes[start], pieces.nodes[end], bulge, pieces.group[kept])
    opens = _opens(here, parents, pieces.parent[kept], loop)
    count = int(loop[-1]) + 1
    runs_of_loop = np.bincount(loop[opens], minlength=count)
    rings: dict[int, list[tuple[Ring, float]]] = defaultdict(list)
    first = np.flatnonzero(np.r_[True, loop[1:] != loop[:-1]])
    sizes = np.diff(np.r_[first, len(loop)])
    areas = np.add.reduceat(here.areas, first)
    run_first = np.cumsum(runs_of_loop) - runs_of_loop
    rows, sweeps = _runs(here, loop, opens)
    parent = pieces.parent[kept]
    untouched = _untouched(sources, kept, first, sizes) if sources else {}
    for number in range(count):
        area, at = float(areas[number]), int(first[number])
        if abs(area) < SLIVER_MM2:
            continue
        group = int(here.group[at])
        source = untouched.get(number)
        if source and (isinstance(source, Circle) or runs_of_loop[number] == len(source.corners)):
            rings[group].append((turned(source, 1 if area > 0 else -1), area))
            continue
        if runs_of_loop[number] == 0:
            if not parents.round[parent[at]]:
                continue
            (x, y), radius = parents.centre[parent[at]].tolist(), float(parents.radius[parent[at]])
            rings[group].append((Circle(x, y, radius, hole=area < 0), area))
            continue
        low = int(run_first[number])
        vertices = [
            Vertex(x, y, math.tan(sweep / 4) if sweep else 0.0)
            for (x, y), sweep in zip(
                rows[low : low + runs_of_loop[number]], sweeps[low : low + runs_of_loop[number]], strict=True
            )
        ]
        if len(vertices) >= 2 and sizes[number] >= 2:
            rings[group].append((Contour(tuple(vertices)), area))
    for group, found in rings.items():
        result[group] = nested(found)
    return result


def _untouched(sources: Sources, kept: Ints, first: Ints, sizes: Ints) -> dict[int, Ring]:
    """The loops that are one ring of the sources, whole and alone."""
    ring = sources.ring_of[kept]
    whole = np.bincount(sources.ring_of, minlength=len(sources.rings))
    low, high = np.minimum.reduceat(ring, first), np.maximum.reduceat(ring, first)
    alone = np.flatnonzero((low == high) & (sizes == whole[low]))
    return {int(number): sources.rings[int(low[number])] for number in alone}


def _opens(here: Segments, parents: Segments, parent: Ints, loop: Ints) -> Flags:
    """Whether a piece starts a new segment, rather than going on along the line or circle of the one before it."""
    before = previous_in_ring(loop)
    arc = here.round
    # The parents' circles: those of short pieces would be uncertain.
    centre, radius = parents.centre[parent], np.where(parents.round, parents.radius, 0.0)[parent]
    apart = np.abs(centre - centre[before]).max(axis=1)
    one_circle = (
        (apart <= _SAME_CIRCLE_MM)
        & (np.abs(radius - radius[before]) <= _SAME_CIRCLE_MM)
        & (np.sign(here.bulge) == np.sign(here.bulge[before]))
    )
    a, b, c = here.start[before], here.start, here.end
    (x1, y1), (x2, y2) = (b - a).T, (c - b).T
    long = np.hypot(x1 + x2, y1 + y2)
    one_line = (x1 * x2 + y1 * y2 > 0) & (np.abs(x1 * y2 - y1 * x2) <= _STRAIGHT_MM * long)
    goes_on = np.where(arc & arc[before], one_circle, ~arc & ~arc[before] & one_line)
    return np.asarray(~goes_on & (before != np.arange(len(loop))))


def _runs(here: Segments, loop: Ints, opens: Flags) -> tuple[list[list[float]], list[float]]:
    """Of each run of pieces that make one segment, in loop order: where it starts, and how far it turns in all.

    A run may go on over the end of its loop's pieces to their beginning.
    """
    at = np.flatnonzero(opens)
    if not at.size:
        return [], []
    # Each piece counts for the last opening at or before it in its loop, round the end if there is none.
    owner = np.cumsum(opens) - 1
    first = np.flatnonzero(np.r_[True, loop[1:] != loop[:-1]])[loop]
    last_of_loop = np.flatnonzero(np.r_[loop[1:] != loop[:-1], True])[loop]
    opened = np.cumsum(opens) - np.cumsum(opens)[first] + opens[first]
    owner = np.where(opened > 0, owner, owner[last_of_loop])
    none = np.bincount(loop[at], minlength=int(loop[-1]) + 1)[loop] == 0
    total = np.zeros(len(at))
    np.add.at(total, owner[~none], here.sweep[~none])
    return here.start[at].tolist(), total.tolist()


def nested(rings: Sequence[tuple[Ring, float]]) -> list[Region]:
    """Outer outlines with the holes that lie in them; `rings` come with their signed areas and do not cross."""
    outers = [(ring, area) for ring, area in rings if area > 0]
    holes = [ring for ring, area in rings if area < 0]
    if len(outers) == 1:
        return [Region(outers[0][0], tuple(holes))]
    mine: dict[int, list[Ring]] = defaultdict(list)
    for hole in holes:
        around = [i for i, (ring, _) in enumerate(outers) if _box_in(hole, ring) and lies_within(hole, ring)]
        if around:
            mine[min(around, key=lambda i: outers[i][1])].append(hole)
    return [Region(ring, tuple(mine[i])) for i, (ring, _) in enumerate(outers)]


def _box_in(inner: Ring, outer: Ring) -> bool:
    a, b = outer.box, inner.box
    slack = 2 * JOIN_MM
    return a[0] <= b[0] + slack and a[1] <= b[1] + slack and a[2] >= b[2] - slack and a[3] >= b[3] - slack


def lies_within(inner: Ring, outer: Ring) -> bool:
    """Whether `inner`, which does not cross `outer`, lies inside it: asked of a middle that is not on `outer`."""
    around, _ = segments_of_rings([outer], [0])
    asked, _ = segments_of_rings([inner], [0])
    for point in asked.middle[np.argsort(-asked.span)]:
        if around.nearest(point) > 2 * JOIN_MM:
            return winding(around, point) != 0
    return False
