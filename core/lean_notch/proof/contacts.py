"""Contacts as cut: calipers laid across finished pieces. In: a piece, flat in its own part's frame, and lines; out: widths."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING

import numpy as np

from ..geometry.segments import Floats
from ..joints.mate import Caliper, Line, SharpCorner

if TYPE_CHECKING:
    import shapely


class Gauge:
    """One finished piece to be measured many times."""

    def __init__(self, piece: shapely.Geometry) -> None:
        import shapely

        self.piece = piece
        shapely.prepare(piece)
        coordinates, ring = shapely.get_coordinates(shapely.get_rings(piece), return_index=True)
        same = ring[:-1] == ring[1:]
        self.start, self.end = coordinates[:-1][same], coordinates[1:][same]
        self.left = np.minimum(self.start, self.end)
        self.right = np.maximum(self.start, self.end)

    def crossings(self, line: Line) -> Floats:
        """Where the piece's edge crosses a line, rising, as shares of the way along it."""
        a, b = np.asarray(line[0]), np.asarray(line[1])
        low, high = np.minimum(a, b), np.maximum(a, b)
        near = np.flatnonzero(((self.left <= high) & (self.right >= low)).all(axis=1))
        start, way = self.start[near] - a, self.end[near] - self.start[near]
        along = b - a
        across = start[:, 0] * along[1] - start[:, 1] * along[0]
        rise = way[:, 1] * along[0] - way[:, 0] * along[1]
        # Half open, so that a corner on the line counts once.
        end = across - rise
        meets = (across < 0) != (end < 0)
        share = across[meets] / rise[meets]
        place = start[meets] + share[:, None] * way[meets]
        at = (place @ along) / (along @ along)
        return np.sort(at[(at >= 0) & (at <= 1)])

    def width(self, line: Line, *, material: bool, from_start: bool = False) -> float | None:
        """How wide what the line's middle lies in is along it; None if that is not what it should be, or has no end there.

        With `from_start` the line begins where the void does.
        """
        import shapely

        middle = ((line[0][0] + line[1][0]) / 2, (line[0][1] + line[1][1]) / 2)
        if bool(shapely.contains_xy(self.piece, *middle)) != material:
            return None
        at = self.crossings(line)
        below, above = at[at < 0.5], at[at > 0.5]
        if not len(above) or not (len(below) or from_start):
            return None
        start = 0.0 if from_start else float(below[-1])
        return (float(above[0]) - start) * float(np.hypot(*(np.subtract(line[1], line[0]))))

    def material(self, line: Line) -> list[tuple[float, float]]:
        """Stretches of material along a line, in mm from its start."""
        import shapely

        length = float(np.hypot(*np.subtract(line[1], line[0])))
        at = np.concatenate([[0.0], self.crossings(line), [1.0]])
        middles = (at[:-1] + at[1:]) / 2
        a, b = np.asarray(line[0]), np.asarray(line[1])
        inside = shapely.contains_xy(self.piece, *(a + middles[:, None] * (b - a)).T)
        return [
            (float(low) * length, float(high) * length)
            for low, high, there in zip(at[:-1], at[1:], inside, strict=True)
            if there and high > low
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
    line = caliper.lines[0]
    return gauge.width(line, material=not void, from_start=True)


def blocked(gauge: Gauge, corners: Sequence[SharpCorner]) -> tuple[float, SharpCorner | None]:
    """The most that is left over the places where square corners go home, in mm, and where."""
    import shapely

    if not corners:
        return 0.0, None
    # A hair short of home: a socket's floor is there itself.
    places = np.array([
        (c.home[0] + _HAIR_MM * c.across[0], c.home[1] + _HAIR_MM * c.across[1]) for c in corners
    ])  # fmt: skip
    inside = np.flatnonzero(shapely.contains_xy(gauge.piece, *places.T))
    if not len(inside):
        return 0.0, None
    off = shapely.distance(shapely.points(places[inside]), gauge.piece.boundary)
    worst = int(off.argmax())
    return float(off[worst]), corners[int(inside[worst])]


_HAIR_MM = 1e-4
