"""Where parts stand in the assembled object: placements in, a frame in space for each out.

A pose is by numbers, or against the edge of a part that stands already; those are worked out one after the other, as
named lengths are.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

from ..design import Against, AlongAxes, Design, Placement
from ..geometry import Region
from ..geometry.space import Frame, Triple, add, block_box, cross, frame, turned
from ..ground.errors import CircularPoses, NotchError
from ..ground.remembered import remembered
from ..joints.mate import Line, ways


class NoEdge(NotchError):
    """A joint or a pose names an edge that is not there, or not one that can be joined."""

    code = "no-edge"


@dataclass(frozen=True)
class Outlined:
    """What has to be known of a part before it can stand: its size, its straight edges with material to their left, and its
    outline before joints."""

    size: tuple[float, float]
    thickness: float
    edges: Mapping[str, Line]
    region: Region


@dataclass(frozen=True)
class Standing:
    """A part in space, as a block of `width` x `height` x `thickness` behind its face's frame.

    One that is turned over (`mirrored`) has its material on the other side of its face.
    """

    placement: str
    part: str
    frame: Frame
    width: float
    height: float
    thickness: float
    mirrored: bool = False

    @property
    def origin(self) -> Triple:
        return self.frame.origin

    @property
    def u(self) -> Triple:
        return self.frame.u

    @property
    def v(self) -> Triple:
        return self.frame.v

    @property
    def n(self) -> Triple:
        return self.frame.n

    @cached_property
    def box(self) -> tuple[Triple, Triple]:
        """Lowest and highest corner of the box around the block."""
        return block_box(self.frame, (0.0, 0.0, self.width, self.height), self.thickness)

    @property
    def corners(self) -> tuple[Triple, ...]:
        """Of its face, one after the other, then those behind them."""
        w, h = self.width, self.height
        face = ((0.0, 0.0), (w, 0.0), (w, h), (0.0, h))
        return tuple(self.frame.at(corner, depth) for depth in (0.0, self.thickness) for corner in face)


Lengths = Mapping[str, Mapping[str, float]]
"""All names that lengths may use, by board."""


def stand_all(
    design: Design, parts: Mapping[str, Outlined], names: Lengths
) -> tuple[dict[str, Standing], tuple[NotchError, ...]]:
    """Every placement whose part is one of `parts`, in the design's order; and why others do not stand.

    Raises NotchError at a pose's length, and CircularPoses.
    """
    standing: dict[str, Standing] = {}
    lost: dict[str, NotchError] = {}

    def settle(one: Placement, stack: tuple[str, ...]) -> None:
        if one.id in standing or one.id in lost or one.part not in parts:
            return
        if one.id in stack:
            ring = (*stack[stack.index(one.id) :], one.id)
            raise CircularPoses(
                f"“{one.id}” stands against itself{', by way of ' if len(ring) > 2 else ''}{' and '.join(ring[1:-1])}.",
                fix=f"Give one of {', '.join(ring[:-1])} by numbers.", field=f"placements/{one.id}/pose/placement",
            )  # fmt: skip
        other = None
        if isinstance(one.pose, Against):
            other = design.placement(one.pose.placement)
            if other is None:
                return  # it dangles: that is said elsewhere
            settle(other, (*stack, one.id))
            if other.id not in standing:
                return
        own, part = parts[one.part], design.part(one.part)
        assert part, "only placements of known parts are asked about"
        known = names[part.board]
        against = (standing[other.id], parts[other.part]) if other else ()
        try:
            standing[one.id] = _stand(one, own, tuple([known.get(name) for name in one.pose.names]), *against)
        except NoEdge as error:
            lost[one.id] = error

    for one in design.placements:
        settle(one, ())
    ordered = {one.id: standing[one.id] for one in design.placements if one.id in standing}
    return ordered, tuple(lost.values())


@remembered()
def _stand(
    one: Placement, own: Outlined, values: tuple[float | None, ...], standing: Standing | None = None,
    other: Outlined | None = None,
) -> Standing:  # fmt: skip
    """`values` are those of the names that its pose uses; `standing` and `other` are what it stands against."""
    path, pose = f"placements/{one.id}/pose", one.pose
    try:
        at = pose.mm({name: mm for name, mm in zip(pose.names, values, strict=True) if mm is not None})
    except NotchError as error:
        error.field = f"{path}/{error.field}"
        raise
    if standing and other:
        assert isinstance(pose, Against)
        own_edge = _edge(own, pose.edge, f"“{one.id}”", f"{path}/edge")
        its_edge = _edge(other, pose.other_edge, f"“{pose.placement}”", f"{path}/other_edge")
        place = stand_against(pose, own_edge, standing.frame, its_edge, at, turned_over=one.mirrored)
    else:
        place = _by_numbers(one, at)
    return Standing(one.id, one.part, place, *own.size, own.thickness, one.mirrored)


def _edge(part: Outlined, name: str, whose: str, path: str) -> Line:
    if name not in part.edges:
        raise NoEdge(
            f"{whose} has no straight edge {name}.",
            fix=f"Use one of: {', '.join(part.edges) or 'none, it has none'}.",
            field=path,
        )
    return part.edges[name]


def _by_numbers(one: Placement, at: Mapping[str, float]) -> Frame:
    pose = one.pose
    origin = (at["x"], at["y"], at["z"])
    if isinstance(pose, AlongAxes):
        return frame(origin, _vector(pose.u), _vector(pose.v), turned_over=one.mirrored)
    assert not isinstance(pose, Against)
    u, v = (1.0, 0.0, 0.0), (0.0, 1.0, 0.0)
    for axis, degrees in zip(_AXES, (pose.turn_x, pose.turn_y, pose.turn_z), strict=True):
        u, v = turned(u, axis, degrees), turned(v, axis, degrees)
    return frame(origin, u, v, turned_over=one.mirrored)


_AXES: tuple[Triple, ...] = ((1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))


def stand_against(
    pose: Against, own: Line, other: Frame, its: Line, at: Mapping[str, float], *, turned_over: bool = False
) -> Frame:
    """The frame of a part whose edge `own` stands against the edge `its` of one with the frame `other`; `at` are the pose's lengths."""
    along, inward = (other.towards(way) for way in ways(its)[:2])
    centre = (math.dist(*its) - math.dist(*own)) / 2 if pose.centred else 0.0
    end = add(add(other.at(its[0], at["below"]), inward, at["into"]), along, centre + at["along"])
    run: Triple = (-along[0], -along[1], -along[2])
    behind: Triple = (-other.n[0], -other.n[1], -other.n[2])
    # From the other's inward direction, turned about the edge: at 90 degrees straight back from its face.
    axis = cross(inward, behind)
    rise = turned(inward, axis, pose.angle)
    (ex, ey), _, _ = ways(own)
    u = add((ex * run[0], ex * run[1], ex * run[2]), rise, -ey)
    v = add((ey * run[0], ey * run[1], ey * run[2]), rise, ex)
    x, y = own[1]
    origin = add(add(end, u, -x), v, -y)
    return frame(origin, u, v, turned_over=turned_over)


def _vector(axis: str) -> Triple:
    sign = 1.0 if axis[0] == "+" else -1.0
    return tuple(sign if letter == axis[1] else 0.0 for letter in "xyz")  # type: ignore[return-value]
