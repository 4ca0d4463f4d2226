"""Relief where a mate needs it: in, a socket of a finger joint and the tool; out, what to clear at its inside corners."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from ..basis import BoardBasis
from ..design import Relief
from ..geometry import Point, Region
from ..geometry.bones import ROOM, dogbone, t_bone
from .mates import Mate, Member

_TOUCH_MM = 1e-6
Bone = Literal["dogbone", "t-bone"]


def bone_of(relief: Relief, basis: BoardBasis) -> Bone | None:
    """Which relief a job gets. A beam's own rounding, a few hundredths, gives way by itself; a tool's does not."""
    if relief == "none" or basis.kerf <= 0:
        return None
    if relief == "auto":
        return "dogbone" if basis.machine.kind == "router" else None
    return relief


def bones(mate: Mate, member: Member, bone: Bone, tool_radius: float) -> Iterator[Region]:
    """What to clear from the sockets of `member` for the fingers of the other one."""
    for start, end, depth in mate.notches(member):
        for place, inward, neighbour in ((start, 1.0, start), (end, -1.0, member.length - end)):
            if place <= _TOUCH_MM or place >= member.length - _TOUCH_MM:
                continue  # the socket is open at this end
            corner = _on(member, place, depth)
            along, across = _towards(member, corner, place + inward, depth), _towards(member, corner, place, depth - 1)
            if bone == "dogbone":
                yield dogbone(corner, along, across, tool_radius)
                continue
            # Into the finger beside it, where the mate's board hides it, unless that would leave less than half of it.
            finger = min(neighbour, mate.division.finger)
            weak = finger - 2 * tool_radius * ROOM < finger / 2
            yield t_bone(corner, across, along, tool_radius) if weak else t_bone(corner, along, across, tool_radius)


def _on(member: Member, along_side: float, depth: float) -> Point:
    return member.point((along_side - member.start) * member.sense, depth)


def _towards(member: Member, corner: Point, along_side: float, depth: float) -> Point:
    x, y = _on(member, along_side, depth)
    return (x - corner[0], y - corner[1])
