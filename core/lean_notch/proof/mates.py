"""A mate as cut: both members' fingers measured across the finished pieces, as with a caliper.

In: two finished pieces, each flat in its own panel's frame; out: the clearance of every finger, and how far the
boards' faces stand proud for the thinnest, mean and thickest reading.
"""

from __future__ import annotations

import itertools
from dataclasses import dataclass
from typing import TYPE_CHECKING

from ..build import Mate, Member
from ..joints.finger import Interval

if TYPE_CHECKING:
    import shapely


@dataclass(frozen=True)
class Measured:
    """`gaps` has one entry per inner cut: the room between one member's finger and the other's, in mm.

    `socket_depths` are those of the first and of the second member.
    """

    gaps: tuple[float, ...]
    socket_depths: tuple[float, float]

    @property
    def clearances(self) -> tuple[float, ...]:
        """Of each finger that stands between two others: the gaps on both its sides together."""
        return tuple(a + b for a, b in zip(self.gaps, self.gaps[1:], strict=False))


def measure_mate(mate: Mate, first: shapely.Geometry, second: shapely.Geometry) -> Measured | None:
    """The mate across two finished pieces, or None if their fingers do not alternate as they should."""
    fingers = [(*interval, 0) for interval in _fingers(mate, mate.first, first)]
    fingers += [(*interval, 1) for interval in _fingers(mate, mate.second, second)]
    fingers.sort()
    owners = [owner for _, _, owner in fingers]
    if owners != [i % 2 for i in range(mate.division.count)]:
        return None
    gaps = tuple(after[0] - before[1] for before, after in itertools.pairwise(fingers))
    depths = (_socket_depth(mate, mate.first, first, 1), _socket_depth(mate, mate.second, second, 2))
    return Measured(gaps, depths)


def _fingers(mate: Mate, member: Member, piece: shapely.Geometry) -> list[Interval]:
    """Stretches of material half-way along the fingers, as positions of the division, within the shared edge."""
    import shapely

    end = mate.division.cuts[-1]
    a, b = member.point(0.0, member.depth / 2), member.point(end, member.depth / 2)
    cut = shapely.intersection(piece, shapely.LineString([a, b]))
    flat = member.side in ("bottom", "top")
    found = []
    for line in shapely.get_parts(cut):
        if line.geom_type == "LineString" and line.length > 0:
            ends = [(xy[0 if flat else 1] - member.start) * member.sense for xy in line.coords]
            found.append((min(ends), max(ends)))
    return sorted(found)


def _socket_depth(mate: Mate, member: Member, piece: shapely.Geometry, index: int) -> float:
    """How deep the member's socket number `index` of the division is, at its middle."""
    import shapely

    cuts = mate.division.cuts
    middle = (cuts[index] + cuts[index + 1]) / 2
    a, b = member.point(middle, -member.depth), member.point(middle, 3 * member.depth)
    cut = shapely.intersection(piece, shapely.LineString([a, b]))
    return float(shapely.distance(shapely.Point(a), cut)) - member.depth
