"""Relief where a mate needs it: in, a member's sharp inside corners and the tool; out, what to clear there."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import replace
from typing import Literal, cast

from ..basis import BoardBasis
from ..design import Relief
from ..geometry import Point, Region
from ..geometry.bones import ROOM, dogbone, t_bone
from ..ground.findings import Finding
from ..ground.remembered import remembered
from ..joints.mate import Change, Mate, SharpCorner
from ..lengths.figures import Figure
from ..lengths.said import say_mm
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

LEAST_END_SHARE = 0.1
"""Of the end of a slot, which keeps a tab from going sideways. Common practice."""

_ON_MM = 1e-6


def borne(mate: Mate, parts: Mapping[str, FlatPart], bone: Callable[[FlatPart], Bone | None], radius: float) -> Mate:
    """The mate with what its flanks leave to bear on, where a tool relieves their corners; and refused where that is too little."""
    sides = [
        (change, parts[change.part], one)
        for change in mate.members
        if change.sharp and change.part in parts and (one := bone(parts[change.part]))
    ]
    if not sides or not mate.contacts:
        return mate
    return _borne(mate, radius, *(one for side in sides for one in side))


_Side = tuple[Change, FlatPart, Bone]


@remembered()
def _borne(mate: Mate, radius: float, *given: Change | FlatPart | Bone) -> Mate:
    sides = cast("list[_Side]", list(zip(given[::3], given[1::3], given[2::3], strict=True)))
    found = [(bearing(change, part), change, part) for change, part, _ in sides]
    left, change, part = min(found, key=lambda one: one[0])
    figure = Figure(
        "bearing",
        "left to bear on",
        left,
        "computed",
        f"flanks of {part.title} beside the reliefs of a tool of {say_mm(2 * radius)}",
    )
    said = _weak_flanks(mate, change, part, left, radius) or _weak_ends(mate, sides, radius)
    return replace(mate, figures=(*mate.figures, figure), findings=(*mate.findings, *said))


def _weak_flanks(mate: Mate, change: Change, part: FlatPart, left: float, radius: float) -> tuple[Finding, ...]:
    least = LEAST_BEARING * part.thickness
    if left >= least:
        gone = next((c for c in change.sharp if on_walls([(c.place, c.across, c.flank)], part) <= 0), None)
        if gone is None:
            return ()
        why = f"at a flank of {part.title} that is cut away by what stands beside it"
        return (_no_bearing(mate, change, radius, 0.0, why, 0.0, f"more room between the {mate.outer}s"),)
    # Each relief takes the same share of its radius off a flank: what is left falls in proportion.
    whole = math.fsum(corner.flank for corner in change.sharp)
    would = 2 * radius * max(whole - least, 0.0) / max(whole - left, 1e-9)
    why = f"less than {part.title} is thick, {say_mm(part.thickness, 2)}"
    return (_no_bearing(mate, change, radius, left, why, would, f"wider {mate.inner}s"),)


_BITES: Mapping[Bone, float] = {"dogbone": math.sqrt(2) * ROOM, "t-bone": 2 * ROOM}
"""Of the two reliefs at the end of a slot, how much of it they take together, in tool diameters."""


def _weak_ends(mate: Mate, sides: Sequence[_Side], radius: float) -> tuple[Finding, ...]:
    ends = [
        (on_walls([(corner.place, corner.along, corner.floor)], part), corner.floor, change, bone)
        for change, part, bone in sides
        for corner in change.sharp
        if corner.floor
    ]
    if not ends:
        return ()
    left, floor, change, bone = min(ends, key=lambda one: one[0] / one[1])
    if left >= LEAST_END_SHARE * floor:
        return ()
    would = (1 - LEAST_END_SHARE) * floor / _BITES[bone]
    why = f"at each end of a {mate.outer}, {say_mm(floor, 2)} wide"
    return (_no_bearing(mate, change, radius, left, why, would, "thicker board"),)


def _no_bearing(
    mate: Mate, change: Change, radius: float, left: float, why: str, would: float, or_else: str
) -> Finding:
    """`would` is the diameter of the tool that leaves enough."""
    finer = f"Use a tool of at most {say_mm(math.floor(10 * would) / 10)}, or {or_else}."
    return Finding(
        "no-bearing", "stop",
        f"The reliefs for a tool of {say_mm(2 * radius)} leave “{mate.title}” {say_mm(left, 2)} to bear on, {why}.",
        finer if would >= 0.5 else f"Use {or_else}.",
        change.part, place=change.sharp[0].place, amount=left, joint=mate.id, placement=change.placement,
        field=f"joints/{mate.id}/how",
    )  # fmt: skip


def bearing(change: Change, part: FlatPart) -> float:
    """How long the straight stretches of a part's finished outline are that lie on the flanks of a joint, in mm."""
    return on_walls([(corner.place, corner.across, corner.flank) for corner in change.sharp], part)


def on_walls(walls: Sequence[tuple[Point, Point, float]], part: FlatPart) -> float:
    """Of the part's finished outline, how much lies straight on `walls`: from a place, along a unit direction, so many mm."""
    edges = [edge for ring in part.region.rings for edge in ring.segments if not edge.bulge]
    if not edges:
        return 0.0
    import numpy as np

    start, end = (np.array([getattr(edge, name) for edge in edges]) for name in ("start", "end"))
    on = np.zeros(len(edges))
    for (x, y), (ux, uy), length in walls:
        off = [np.abs((p[:, 0] - x) * uy - (p[:, 1] - y) * ux) for p in (start, end)]
        along = [(p[:, 0] - x) * ux + (p[:, 1] - y) * uy for p in (start, end)]
        low, high = np.minimum(*along), np.maximum(*along)
        there = np.minimum(high, length) - np.maximum(low, 0.0)
        on = np.maximum(on, np.where(np.maximum(*off) < _ON_MM, np.maximum(there, 0.0), 0.0))
    return float(on.sum())


def _left(corner: SharpCorner, bone: Bone, tool_radius: float) -> float:
    """How much of a flank, measured from the opening, a bone does not bite out of."""
    radius = tool_radius * ROOM
    if bone == "dogbone":
        return corner.flank - 2**0.5 * radius  # its circle crosses the wall twice its centre's distance away
    return corner.flank - 2 * radius if _into_flank(corner, tool_radius) else corner.flank
