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

    `socket_depths` are those of the first and of the second member; `blocked` is how far material still reaches over
    the corners of a finger that goes home, in mm.
    """

    gaps: tuple[float, ...]
    socket_depths: tuple[float, float]
    blocked: float

    @property
    def clearances(self) -> tuple[float, ...]:
        """Of each finger that stands between two others: the gaps on both its sides together."""
        return tuple(a + b for a, b in zip(self.gaps, self.gaps[1:], strict=False))


@dataclass(frozen=True)
class MemberAsCut:
    """One member of a mate on one finished piece: its fingers along the division, and how deep its first socket is."""

    fingers: tuple[Interval, ...]
    socket_depth: float
    blocked: float


def measure_member(mate: Mate, member: Member, piece: shapely.Geometry) -> MemberAsCut:
    """`member` as it was cut, on a finished piece that lies flat in its own part's frame."""
    index = 1 if member is mate.first else 2
    return MemberAsCut(
        tuple(_fingers(mate, member, piece)), _socket_depth(mate, member, piece, index), _blocked(mate, member, piece)
    )


def measure_mate(mate: Mate, first: MemberAsCut, second: MemberAsCut) -> Measured | None:
    """The mate of two finished pieces, or None if their fingers do not alternate as they should."""
    fingers = sorted([*((*one, 0) for one in first.fingers), *((*one, 1) for one in second.fingers)])
    if [owner for _, _, owner in fingers] != [i % 2 for i in range(mate.division.count)]:
        return None
    gaps = tuple(after[0] - before[1] for before, after in itertools.pairwise(fingers))
    return Measured(gaps, (first.socket_depth, second.socket_depth), max(first.blocked, second.blocked))


def _fingers(mate: Mate, member: Member, piece: shapely.Geometry) -> list[Interval]:
    """Stretches of material along the fingers, as positions of the division, within the shared edge.

    Measured half-way and near the tips, the wider counts: a bone takes a bite out of a flank, never out of all of it.
    """
    half, tips = (_material(mate, member, piece, share * member.depth) for share in (0.5, 0.05))
    if len(half) != len(tips):
        return half
    return [(min(a[0], b[0]), max(a[1], b[1])) for a, b in zip(half, tips, strict=True)]


def _material(mate: Mate, member: Member, piece: shapely.Geometry, depth: float) -> list[Interval]:
    import shapely

    end = mate.division.cuts[-1]
    a, b = member.point(0.0, depth), member.point(end, depth)
    cut = shapely.intersection(piece, shapely.LineString([a, b]))
    flat = member.side in ("bottom", "top")
    found = []
    for line in shapely.get_parts(cut):
        if line.geom_type == "LineString" and line.length > 0:
            ends = [(xy[0 if flat else 1] - member.start) * member.sense for xy in line.coords]
            found.append((min(ends), max(ends)))
    return sorted(found)


def _blocked(mate: Mate, member: Member, piece: shapely.Geometry) -> float:
    """The most that is left over the inner corners of the other member's fingers in this one's sockets."""
    import shapely

    fingers = mate.division.second_keeps if member is mate.first else mate.division.first_keeps
    end = mate.division.cuts[-1]
    inner = [place for finger in fingers for place in finger if 1e-6 < place < end - 1e-6]
    # A hair short of home: a socket's floor is at the member's depth itself.
    corners = shapely.points([member.point(place, member.depth - 1e-4) for place in inner])
    inside = corners[shapely.contains(piece, corners)]
    return float(shapely.distance(inside, piece.boundary).max()) if inside.size else 0.0


def _socket_depth(mate: Mate, member: Member, piece: shapely.Geometry, index: int) -> float:
    """How deep the member's socket number `index` of the division is, at its middle."""
    import shapely

    cuts = mate.division.cuts
    middle = (cuts[index] + cuts[index + 1]) / 2
    a, b = member.point(middle, -member.depth), member.point(middle, 3 * member.depth)
    cut = shapely.intersection(piece, shapely.LineString([a, b]))
    return float(shapely.distance(shapely.Point(a), cut)) - member.depth
