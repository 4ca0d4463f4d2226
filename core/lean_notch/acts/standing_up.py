"""Standing a part up by hand: in, a computed job and a part; out, the edits with which one more of it stands where nothing is yet."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import replace
from typing import Any

from ..design import Against, AlongAxes, Placement, Pose
from ..documents import codec
from ..edits import Edit
from ..geometry.space import Triple, add, block_box
from ..ground.errors import MissingInput
from ..job import Result
from ..making import Standing
from .moving import plus, typed_as
from .numbered import numbered
from .standing_against import against_nearest

BESIDE_MM = 20.0
"""What a part that is stood up leaves to those that stand already: near enough to see, and nothing touches."""

MOST_TRIES = 200

SQUARE = 0.7
"""Share of a way that has to go square to the face."""


def stood_up(result: Result, part_id: str) -> list[Edit]:
    """One more placement of a part: the first of a job at the room's zero, others with an edge against an edge that is as long, where
    there is one and nothing is in the way, else beside what stands; another copy beside the last one, turned alike. A loose copy is
    taken for it, if there is one: what is cut stays as many."""
    design = result.job.design
    part = design.part(part_id)
    if part is None:
        raise MissingInput(f"There is no part “{part_id}” any more.", fix="Select another one.", field="part")
    standing = result.build.standings
    own = [one for one in design.placements if one.part == part.id]
    pose = _one_more(result, own[-1]) if own else against_nearest(result, part.id) or _beside(standing)
    name = numbered(f"{part.id}-", (one.id for one in design.placements))
    value: dict[str, Any] = {"part": part.id, "pose": pose}
    if own and own[-1].mirrored:
        value["mirrored"] = True
    loose = [Edit("put", f"parts/{part.id}/loose", part.loose - 1)] if part.loose else []
    return [Edit("put", f"placements/{name}", value), *loose]


def _beside(standing: Iterable[Standing]) -> dict[str, Any]:
    boxes = [one.box for one in standing]
    if not boxes:
        return {"kind": AlongAxes.kind}
    right = max(high[0] for _, high in boxes) + BESIDE_MM
    low = [min(low[i] for low, _ in boxes) for i in (1, 2)]
    x, y, z = (typed_as(value, "mm") for value in (right, *low))
    return {"kind": AlongAxes.kind, "x": x, "y": y, "z": z}


def _one_more(result: Result, last: Placement) -> dict[str, Any]:
    """The pose of the last one, moved square to its face until it is clear of all that stands."""
    stood = {one.placement: one for one in result.build.standings}
    pose: dict[str, Any] = codec.write(last.pose)
    own = stood.get(last.id)
    if own is None:
        return pose
    ways = list(_ways(result, last.pose, own))
    beside = own.thickness + BESIDE_MM
    for count in range(1, MOST_TRIES):
        for name, way in ways:
            if _is_clear(own, way, count * beside, stood.values()):
                return {**pose, **_moved(last.pose, name, way, count * beside)}
    return pose


def _ways(result: Result, pose: Pose, own: Standing) -> Iterator[tuple[str, Triple]]:
    """Ways to move it square to its face, and the number of its pose that does; none for a pose by numbers."""
    if not isinstance(pose, Against):
        yield "", own.n
        return
    other = next(one for one in result.build.standings if one.placement == pose.placement)
    edge = dict(result.build.part(other.part).edges).get(pose.other_edge)
    if edge:
        (x0, y0), (x1, y1) = edge.start, edge.end
        yield "into", other.frame.towards(((y0 - y1) / edge.length, (x1 - x0) / edge.length))
    x, y, z = other.n
    yield "below", (-x, -y, -z)


def _is_clear(own: Standing, way: Triple, by: float, others: Iterable[Standing]) -> bool:
    """Whether it is clear of the others, moved along its own normal: along its face it would stay in one plane."""
    if abs(sum(a * b for a, b in zip(way, own.n, strict=True))) < SQUARE:
        return False
    there = replace(own.frame, origin=add(own.origin, way, by))
    low, high = block_box(there, (0.0, 0.0, own.width, own.height), own.thickness)
    return not any(all(a < d and c < b for a, b, c, d in zip(low, high, *one.box, strict=True)) for one in others)


def _moved(pose: Pose, name: str, way: Triple, by: float) -> dict[str, Any]:
    if name:
        return {name: plus(getattr(pose, name), by)}
    ways = zip(("x", "y", "z"), way, strict=True)
    return {axis: plus(getattr(pose, axis), share * by) for axis, share in ways if abs(share) > 1e-9}
