"""A free outline changed by hand: in, a computed job, a node and what is wanted of it; out, the edits that do it.

Ways and places are mm on the part as it is seen; what is written is in the outline's own frame, before it is turned and scaled.
"""

from __future__ import annotations

import math

from ..design import Outline, Part, ShapeStep
from ..edits import Edit
from ..geometry import Motion, Point
from ..ground.errors import MissingInput, OutOfRange
from ..ground.limits import MOST_NODES
from ..job import Result
from ..steps import Node
from .moving import plus, typed_as
from .numbered import numbered

STRAIGHT = 1e-3
"""A bulge of less is a straight edge: 0.05 mm off over 100."""

MOST_BULGE = 5.0


def node_moved(result: Result, part_id: str, step_id: str, node_id: str, dx: float, dy: float) -> list[Edit]:
    """Edits that move a node to the right and up on the part. Raises NotchError where there is no such node."""
    part, step, nodes, at = _found(result, part_id, step_id, node_id)
    own = _own_way(result, part, step, (dx, dy))
    return [
        Edit("put", f"{_path(part, step)}/{node_id}/{axis}", plus(getattr(nodes[at], axis), by))
        for axis, by in zip(("x", "y"), own, strict=True)
        if by
    ]


def node_added(result: Result, part_id: str, step_id: str, after: str) -> list[Edit]:
    """The edit that puts a node in the middle of the edge behind `after`, which stays as it is: a bent one is bent in two halves."""
    part, step, nodes, at = _found(result, part_id, step_id, after)
    if len(nodes) >= MOST_NODES:
        raise OutOfRange(
            f"The outline has {len(nodes)} nodes.", fix=f"At most {MOST_NODES} are drawn.", field=_path(part, step)
        )
    start, end = (_mm(result, part, one) for one in (nodes[at], nodes[(at + 1) % len(nodes)]))
    bulge = nodes[at].bulge
    x, y = ((a + b) / 2 for a, b in zip(start, end, strict=True))
    # The middle of an arc lies a bulge's share of half the chord to the right of the way there.
    x, y = x + bulge * (end[1] - start[1]) / 2, y - bulge * (end[0] - start[0]) / 2
    unit = nodes[at].x.unit
    half = math.tan(math.atan(bulge) / 2)
    path, name = _path(part, step), numbered("n", (one.id for one in nodes))
    edits = [Edit("put", f"{path}/{after}/bulge", half)] if bulge else []
    value = {"x": typed_as(x, unit), "y": typed_as(y, unit), **({"bulge": half} if bulge else {})}
    return [*edits, Edit("put", f"{path}/{name}", value, after=after)]


def edge_bent(result: Result, part_id: str, step_id: str, node_id: str, dx: float, dy: float) -> list[Edit]:
    """The edit that bends the edge behind a node, its middle moved that way on the part; next to straight is straight."""
    part, step, nodes, at = _found(result, part_id, step_id, node_id)
    start, end = (_mm(result, part, one) for one in (nodes[at], nodes[(at + 1) % len(nodes)]))
    chord = math.dist(start, end)
    if chord < STRAIGHT:
        raise OutOfRange(
            "These two nodes are in one place.", fix="Move one of them first.", field=f"{_path(part, step)}/{node_id}"
        )
    ox, oy = _own_way(result, part, step, (dx, dy))
    across = (ox * (end[1] - start[1]) - oy * (end[0] - start[0])) / chord
    bulge = nodes[at].bulge + 2 * across / chord
    bulge = 0.0 if abs(bulge) < STRAIGHT else max(-MOST_BULGE, min(MOST_BULGE, bulge))
    return [Edit("put", f"{_path(part, step)}/{node_id}/bulge", round(bulge, 6))]


def _found(result: Result, part_id: str, step_id: str, node_id: str) -> tuple[Part, ShapeStep, tuple[Node, ...], int]:
    part = result.job.design.part(part_id)
    step = part.step(step_id) if part else None
    if part is None or not isinstance(step, ShapeStep) or not isinstance(step.shape, Outline):
        raise MissingInput("That is no free outline any more.", fix="Select one.", field="steps")
    nodes = step.shape.nodes
    at = next((i for i, one in enumerate(nodes) if one.id == node_id), None)
    if at is None:
        raise MissingInput(f"The outline has no node “{node_id}” any more.", fix="Choose another one.", field="node")
    return part, step, nodes, at


def _path(part: Part, step: ShapeStep) -> str:
    return f"parts/{part.id}/steps/{step.id}/shape/nodes"


def _mm(result: Result, part: Part, node: Node) -> Point:
    names = {**result.build.names, **result.job.basis.names(part.board)}
    return (node.x.mm(names), node.y.mm(names))


def _own_way(result: Result, part: Part, step: ShapeStep, way: Point) -> Point:
    """A way on the part in the outline's own frame."""
    at = step.mm({**result.build.names, **result.job.basis.names(part.board)})
    seen = (-way[0], way[1]) if step.face == "back" else way
    x, y = Motion(angle=at["turn"], mirrored=step.mirrored).back(seen)
    return (x / at["scale"], y / at["scale"])
