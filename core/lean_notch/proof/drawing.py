"""A file's lines as arrays, for all checks of them: in, what a reader found; out, segments, their paths, neighbours."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from ..formats.read_file import ReadPath
from ..geometry import Box, Point
from ..geometry.contour import FURTHEST_MM
from ..geometry.noding import Neighbours, alike, quarters
from ..geometry.segments import segments_of
from ..ground.findings import Finding, Severity
from .as_cut import without_lead

SAME_MM = 1e-6
"""Lines and arcs this near are one, drawn again."""

JOINS_MM = 0.01
"""Ends this near are meant to be one."""


class Drawing:
    """The lines of a file as arrays; `path` is the number of each segment's path. Those without length are apart, and so
    are those further away than any drawing. `once` has each line once, `again` are the numbers of those in `fine` that are
    there already."""

    def __init__(self, paths: Sequence[ReadPath]) -> None:
        self.paths = paths = [without_lead(path)[0] for path in paths]
        every = segments_of([path.segments for path in paths], [0] * len(paths))
        path = np.repeat(np.arange(len(paths)), [len(one.segments) for one in paths]).astype(np.int64)
        within = (np.abs(np.hstack([every.start, every.end])) < FURTHEST_MM).all(axis=1)
        self.far = [int(number) for number in np.unique(path[~within])]
        every, path = every.take(within), path[within]
        some = every.span > 1e-9
        self.segments, self.path = every.take(some), path[some]
        self.fine, parent = quarters(self.segments)
        self.fine_path = self.path[parent]
        # What is drawn many times in one place is compared once.
        first = alike(self.fine, SAME_MM)
        self.again = np.flatnonzero(first != np.arange(len(first)))
        once = np.flatnonzero(first == np.arange(len(first)))
        self.once, self.once_path = self.fine.take(once), self.fine_path[once]
        self.around = Neighbours(self.once)
        numbers = {layer: n for n, layer in enumerate({one.layer for one in paths})}
        self.layers = np.array([numbers[one.layer] for one in paths], np.int64)
        self.closed = np.array([one.closed for one in paths], bool)
        self.without = [(int(path[i]), tuple(every.start[i].tolist())) for i in np.flatnonzero(~some)]
        self.box: Box | None = None
        if len(self.segments):
            low, high = self.segments.box[:, :2].min(axis=0), self.segments.box[:, 2:].max(axis=0)
            self.box = (float(low[0]), float(low[1]), float(high[0]), float(high[1]))

    def name(self, path: int) -> str:
        one = self.paths[path]
        where = f" on “{one.layer}”" if one.layer else ""
        return f"“{one.name}”" if one.name else f"number {path + 1}{where}"


def finding(code: str, severity: Severity, why: str, fix: str, place: Point | None, amount: float = 0.0) -> Finding:
    return Finding(code, severity, why, fix, place=place, amount=amount)
