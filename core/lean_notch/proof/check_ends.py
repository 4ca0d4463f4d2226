"""Checks of where lines end: pieces of one outline, gaps, loose ends, pieces without length."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterator, Sequence

import numpy as np

from ..cutting import PLAIN
from ..formats.read_file import ReadPath
from ..geometry.noding import merged
from ..geometry.segments import Floats, Ints
from ..ground.findings import Finding
from ..lengths.said import say_mm
from .drawing import JOINS_MM, Drawing, finding

GAP_MM = 2.0
GAP_SHARE = 0.03
"""Ends further apart than this, or than this share of the line between them, are no gap but the ends of an open line."""


def no_length(drawing: Drawing) -> Iterator[Finding]:
    for path, place in drawing.without:
        yield finding(
            "zero-length", "look", f"Path {drawing.name(path)} has a piece without length.",
            "Delete it; some machines stop and burn there.", place,
        )  # fmt: skip


def open_ends(drawing: Drawing) -> Iterator[Finding]:
    """Open paths, told apart: pieces that make a closed outline together, small gaps, and lines that just end."""
    open_paths = [number for number, path in enumerate(drawing.paths) if not path.closed and not _is_one_point(path)]
    if not open_paths:
        return
    ends = [(n, drawing.paths[n].segments[at], at) for n in open_paths for at in (0, -1)]
    places = np.array([segment.start if at == 0 else segment.end for _, segment, at in ends])
    # merged() works at a nanometre: ends are scaled so that it joins what is meant to be joined.
    node = merged(places * (1e-6 / JOINS_MM), np.zeros(len(ends), np.int64))
    meet = np.bincount(node, minlength=len(ends))
    group = _groups(len(drawing.paths), node, [number for number, _, _ in ends])
    by_group: dict[int, list[int]] = defaultdict(list)
    for i, (number, _, _) in enumerate(ends):
        by_group[group[number]].append(i)
    loose: dict[str, list[int]] = defaultdict(list)
    for members in by_group.values():
        numbers = {ends[i][0] for i in members}
        layer = drawing.paths[ends[members[0]][0]].layer
        free = [i for i in members if meet[node[i]] == 1]
        place = (float(places[members[0]][0]), float(places[members[0]][1]))
        if not free and len(numbers) > 1:
            yield finding(
                "in-pieces", "look", f"An outline is drawn in {len(numbers)} pieces.",
                "Join them into one closed path, so that it is cut in one go.", place, len(numbers),
            )  # fmt: skip
        elif len(free) == 2 and (gap := _gap(drawing, numbers, places[free[0]], places[free[1]])) is not None:
            yield finding(
                "open-path", "stop", f"Path {drawing.name(ends[free[0]][0])} is open by {say_mm(gap)}.",
                "Join its ends; the machine cuts no closed outline there.",
                (float(places[free[0]][0]), float(places[free[0]][1])), gap,
            )  # fmt: skip
        elif PLAIN.operation_of(layer) not in _LINES:
            loose[layer] += free
    for layer, some in loose.items():
        first = ends[some[0]][0]
        count = len({ends[i][0] for i in some})
        others = f", and {count - 1} more on the layer “{layer}”" if count > 1 else ""
        place = (float(places[some[0]][0]), float(places[some[0]][1]))
        yield finding(
            "loose-end", "look", f"Path {drawing.name(first)} has a loose end{others}.",
            "Leave it if it is scored or folded; a through-cut needs a closed outline.", place, count,
        )  # fmt: skip


_LINES = ("score", "engrave", "fold", "reference")
"""What a layer that is called after one of these holds may end anywhere."""


def _gap(drawing: Drawing, numbers: set[int], a: Floats, b: Floats) -> float | None:
    """How far the two ends of a line or chain are apart, if that is little enough to be a slip."""
    gap = math.dist(a, b)
    length = math.fsum(segment.length for n in numbers for segment in drawing.paths[n].segments)
    return gap if gap <= min(GAP_MM, GAP_SHARE * length) else None


def _is_one_point(path: ReadPath) -> bool:
    return all(segment.start == segment.end for segment in path.segments)


def _groups(count: int, node: Ints, owners: Sequence[int]) -> list[int]:
    """The number of each path's group: paths whose ends meet are of one. `owners` are the paths of the ends."""
    parent = list(range(count))

    def root(i: int) -> int:
        while parent[i] != i:
            parent[i] = parent[parent[i]]
            i = parent[i]
        return i

    at_node: dict[int, int] = {}
    for number, place in zip(owners, node.tolist(), strict=True):
        parent[root(number)] = root(at_node.setdefault(place, number))
    return [root(i) for i in range(count)]
