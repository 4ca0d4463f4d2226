"""Relief where a mate needs it: in, a member's sharp inside corners and the tool; out, what to clear there."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from ..basis import BoardBasis
from ..design import Relief
from ..findings import Finding
from ..geometry import Region
from ..geometry.bones import ROOM, dogbone, t_bone
from ..joints.mate import Change, Mate, SharpCorner
from ..units import say_mm

Bone = Literal["dogbone", "t-bone"]

LEAST_FLANK_SHARE = 1 / 3
"""A joint whose flanks are less than a third there holds badly. Common practice."""


def bone_of(relief: Relief, basis: BoardBasis) -> Bone | None:
    """Which relief a job gets. A beam's own rounding, a few hundredths, gives way by itself; a tool's does not."""
    if relief == "none" or basis.kerf <= 0:
        return None
    if relief == "auto":
        return "dogbone" if basis.machine.kind == "router" else None
    return relief


def bones(change: Change, bone: Bone, tool_radius: float) -> Iterator[Region]:
    """What to clear at a member's sharp corners, so that the other member's square ones go home."""
    for corner in change.sharp:
        if bone == "dogbone":
            yield dogbone(corner.place, corner.along, corner.across, tool_radius)
        elif _into_flank(corner, tool_radius):
            yield t_bone(corner.place, corner.along, corner.across, tool_radius)
        else:
            yield t_bone(corner.place, corner.across, corner.along, tool_radius)


def _into_flank(corner: SharpCorner, tool_radius: float) -> bool:
    """Whether a T-bone goes into the material beside the flank, where the mate's board hides it; not where that would leave
    less than half of it."""
    return corner.beside - 2 * tool_radius * ROOM >= corner.beside / 2


def weak_flanks(mate: Mate, change: Change, bone: Bone, tool_radius: float, title: str) -> Finding | None:
    """What the relief leaves of the flanks that hold a joint, if that is little."""
    worst = min(change.sharp, key=lambda corner: _left(corner, bone, tool_radius), default=None)
    if worst is None:
        return None
    left = _left(worst, bone, tool_radius)
    if left >= LEAST_FLANK_SHARE * worst.flank:
        return None
    what = "nothing" if left <= 0 else say_mm(left, 2)
    return Finding(
        "weak-flank", "look",
        f"A {bone} for a tool of {say_mm(2 * tool_radius)} leaves {what} of each {say_mm(worst.flank, 2)} flank of “{mate.title}” "
        f"on {title}.",
        "Use a finer tool, another relief, or thicker board.",
        change.part, place=worst.place, amount=max(left, 0.0), joint=mate.id, placement=change.placement,
    )  # fmt: skip


def _left(corner: SharpCorner, bone: Bone, tool_radius: float) -> float:
    """How much of a flank, measured from the opening, a bone does not bite out of."""
    radius = tool_radius * ROOM
    if bone == "dogbone":
        return corner.flank - 2**0.5 * radius  # its circle crosses the wall twice its centre's distance away
    return corner.flank - 2 * radius if _into_flank(corner, tool_radius) else corner.flank
