"""Contacts as cut: calipers laid across finished pieces. In: a piece, flat in its own part's frame, and lines; out: widths."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable, Sequence
from threading import Lock
from typing import TYPE_CHECKING

import numpy as np

from ..geometry.inside import inside as within
from ..geometry.segments import Flags, Floats
from ..joints.mate import Caliper, Line, SharpCorner

if TYPE_CHECKING:
    import shapely

_HAIR_MM = 1e-4
"""A hair short of home: a socket's floor is there itself."""

MOST_KNOWN = 20_000
"""Lines that a gauge keeps its readings of."""

Reading = tuple[tuple[float, ...], bool]
"""Where a piece's edge crosses a line, rising, as shares of the way along it; and whether its middle lies in material."""


class Gauge:
    """One finished piece to be measured along many lines: those that are laid together cost little more than one."""

    def __init__(self, piece: shapely.Geometry) -> None:
        import shapely

        self.piece = piece
        # Pieces are kept for all threads. One that is prepared is not safe to share: this copy is asked under the lock only.
        self._prepared = shapely.transform(piece, lambda places: places)
        shapely.prepare(self._prepared)
        self._lock = Lock()
        rings = shapely.get_rings(piece)
        self._places, self._ring = shapely.get_coordinates(rings, return_index=True)
        self._boxes = shapely.bounds(rings)
        self._known: dict[Line, Reading] = {}

    @property
    def size(self) -> int:
        return len(self._places)

    def lay(self, lines: Iterable[Line]) -> None:
        """Reads all lines that have not been read yet."""
        with self._lock:
            self._lay(lines)

    def _lay(self, lines: Iterable[Line]) -> None:
        import shapely

        new = [line for line in dict.fromkeys(lines) if line not in self._known]
        if not new:
            return
        if len(self._known) > MOST_KNOWN:
            self._known.clear()
        ends = np.asarray(new, dtype=float)
        start, way = ends[:, 0], ends[:, 1] - ends[:, 0]
        places, joined = self._beside(ends)
        x, y = places[:, 0][None, :], places[:, 1][None, :]
        side = (x - start[:, :1]) * way[:, 1:] - (y - start[:, 1:]) * way[:, :1]
        # Half open, so that a corner on the line counts once.
        right = side < 0
        line, at = np.nonzero((right[:, :-1] != right[:, 1:]) & joined)
        before, after = side[line, at], side[line, at + 1]
        place = places[at] + (before / (before - after))[:, None] * (places[at + 1] - places[at])
        share = ((place - start[line]) * way[line]).sum(axis=1) / (way[line] ** 2).sum(axis=1)
        within = (share >= 0) & (share <= 1)
        line, share = line[within], share[within]
        order = np.lexsort((share, line))
        crossings = np.split(share[order], np.searchsorted(line[order], np.arange(1, len(new))))
        middles = shapely.contains_xy(self._prepared, *(start + way / 2).T)
        for one, found, inside in zip(new, crossings, middles.tolist(), strict=True):
            self._known[one] = (tuple(found.tolist()), inside)

    def _beside(self, ends: Floats) -> tuple[Floats, Flags]:
        """The corners of those rings that any of some lines may cross, and of each whether the next one is of its ring."""
        low, high = ends.min(axis=1), ends.max(axis=1)
        left, bottom, right, top = self._boxes.T
        near = (low[:, :1] <= right) & (high[:, :1] >= left) & (low[:, 1:] <= top) & (high[:, 1:] >= bottom)
        some = near.any(axis=0)[self._ring]
        ring = self._ring[some]
        return self._places[some], ring[:-1] == ring[1:]

    def read(self, line: Line) -> Reading:
        with self._lock:
            self._lay([line])
            return self._known[line]

    def width(self, line: Line, *, material: bool, from_start: bool = False) -> float | None:
        """How wide what the line's middle lies in is along it; None if that is not what it should be, or has no end there.

        With `from_start` the line begins where that does.
        """
        at, inside = self.read(line)
        if inside != material:
            return None
        below = max((one for one in at if one < 0.5), default=0.0 if from_start else None)
        above = min((one for one in at if one > 0.5), default=None)
        if below is None or above is None:
            return None
        return (above - (0.0 if from_start else below)) * math.dist(*line)

    def material(self, line: Line) -> list[tuple[float, float]]:
        """Stretches of material along a line, in mm from its start."""
        at, inside = self.read(line)
        length = math.dist(*line)
        ends = [0.0, *at, 1.0]
        # It alternates at every crossing; of the middle it is known.
        middle = sum(one < 0.5 for one in at)
        return [
            (low * length, high * length)
            for i, (low, high) in enumerate(itertools.pairwise(ends))
            if (inside == ((i - middle) % 2 == 0)) and high > low
        ]


def inner_width(gauge: Gauge, caliper: Caliper) -> float | None:
    """Of a finger: the wider of its lines counts, since a bone takes a bite out of a flank, never out of all of it."""
    found = [gauge.width(line, material=True) for line in caliper.lines]
    known = [one for one in found if one is not None]
    return max(known) if len(known) == len(found) else None


def outer_width(gauge: Gauge, caliper: Caliper) -> float | None:
    """Of a socket: the narrower of its lines counts."""
    found = [gauge.width(line, material=False) for line in caliper.lines]
    known = [one for one in found if one is not None]
    return min(known) if len(known) == len(found) else None


def how_long(gauge: Gauge, caliper: Caliper, *, void: bool) -> float | None:
    """How far something stands out: along itself, or as deep as the void beside it."""
    return gauge.width(caliper.lines[0], material=not void, from_start=True)


def blocked(gauge: Gauge, corners: Sequence[SharpCorner]) -> tuple[float, SharpCorner | None]:
    """The most that is left over the places where square corners go home, in mm, and where."""
    import shapely

    if not corners:
        return 0.0, None
    places = np.array([(c.home[0] + _HAIR_MM * c.across[0], c.home[1] + _HAIR_MM * c.across[1]) for c in corners])
    inside = np.flatnonzero(within(gauge.piece, places))
    if not len(inside):
        return 0.0, None
    off = shapely.distance(shapely.points(places[inside]), gauge.piece.boundary)
    worst = int(off.argmax())
    return float(off[worst]), corners[int(inside[worst])]
