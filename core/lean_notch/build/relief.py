"""Relief where a mate needs it: in, a member's sharp inside corners and the tool; out, what to clear there."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import replace
from typing import Literal

from ..basis import BoardBasis
from ..design import Relief
from ..figures import Figure
from ..findings import Finding
from ..geometry import Region
from ..geometry.bones import ROOM, dogbone, t_bone
from ..joints.mate import Change, Mate, SharpCorner
from ..remembered import Remembered
from ..units import say_mm
from .flat import FlatPart

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


LEAST_BEARING = 1.0
"""A joint bears on at least as many of its board's thicknesses, all its flanks together. Common practice."""

_ON_MM = 1e-6


def borne(mate: Mate, parts: Mapping[str, FlatPart], bone: Callable[[FlatPart], Bone | None], radius: float) -> Mate:
    """The mate with what its flanks leave to bear on, where a tool relieves their corners; and refused where that is too little."""
    sides = [
        (change, parts[change.part])
        for change in mate.members
        if change.sharp and change.part in parts and bone(parts[change.part])
    ]
    if not sides or not mate.contacts:
        return mate
    return _BORNE((mate, radius, *(part for _, part in sides)), lambda: _borne(mate, sides, radius))


_BORNE: Remembered[Mate] = Remembered()


def _borne(mate: Mate, sides: Sequence[tuple[Change, FlatPart]], radius: float) -> Mate:
    found = [(bearing(change, part), change, part) for change, part in sides]
    left, change, part = min(found, key=lambda one: one[0])
    figure = Figure(
        "bearing",
        "left to bear on",
        left,
        "computed",
        f"flanks of {part.title} beside the reliefs of a tool of {say_mm(2 * radius)}",
    )
    least = LEAST_BEARING * part.thickness
    said: tuple[Finding, ...] = ()
    if left < least:
        # Each relief takes the same share of its radius off a flank: what is left falls in proportion.
        whole = math.fsum(corner.flank for corner in change.sharp)
        would = 2 * radius * max(whole - least, 0.0) / max(whole - left, 1e-9)
        fix = (
            f"Use a tool of at most {say_mm(math.floor(10 * would) / 10)}, or wider {mate.inner}s."
            if would >= 0.5
            else f"Use wider {mate.inner}s."
        )
        said = (
            Finding(
                "no-bearing", "stop",
                f"The reliefs for a tool of {say_mm(2 * radius)} leave “{mate.title}” {say_mm(left, 2)} to bear on, less than {part.title} "
                f"is thick, {say_mm(part.thickness, 2)}.",
                fix, change.part, place=change.sharp[0].place, amount=left, joint=mate.id, placement=change.placement,
                field=f"joints/{mate.id}/how",
            ),
        )  # fmt: skip
    return replace(mate, figures=(*mate.figures, figure), findings=(*mate.findings, *said))


def bearing(change: Change, part: FlatPart) -> float:
    """How long the straight stretches of a part's finished outline are that lie on the flanks of a joint, in mm."""
    edges = [edge for ring in part.region.rings for edge in ring.segments if not edge.bulge]
    if not edges:
        return 0.0
    import numpy as np

    start, end = (np.array([getattr(edge, name) for edge in edges]) for name in ("start", "end"))
    on = np.zeros(len(edges))
    for corner in change.sharp:
        (x, y), (ux, uy) = corner.place, corner.across
        off = [np.abs((p[:, 0] - x) * uy - (p[:, 1] - y) * ux) for p in (start, end)]
        along = [(p[:, 0] - x) * ux + (p[:, 1] - y) * uy for p in (start, end)]
        low, high = np.minimum(*along), np.maximum(*along)
        there = np.minimum(high, corner.flank) - np.maximum(low, 0.0)
        on = np.maximum(on, np.where(np.maximum(*off) < _ON_MM, np.maximum(there, 0.0), 0.0))
    return float(on.sum())


def _left(corner: SharpCorner, bone: Bone, tool_radius: float) -> float:
    """How much of a flank, measured from the opening, a bone does not bite out of."""
    radius = tool_radius * ROOM
    if bone == "dogbone":
        return corner.flank - 2**0.5 * radius  # its circle crosses the wall twice its centre's distance away
    return corner.flank - 2 * radius if _into_flank(corner, tool_radius) else corner.flank
