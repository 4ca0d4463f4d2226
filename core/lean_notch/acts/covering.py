"""A corner without its joint: in, a computed job, a joint and which of its two parts is to cover the other; out, the edits that take the
joint away and make the other part shorter by the board it then stands behind.
"""

from __future__ import annotations

from typing import Any

from ..design import Part, Rectangle, ShapeStep
from ..edits import Edit
from ..ground.errors import MissingInput
from ..job import Result
from ..joints import FACE
from ..lengths.length import Length

SQUARE_DEG = 0.1


def covered(result: Result, joint_id: str, by: str) -> list[Edit]:
    """`by` is the placement that covers. Raises MissingInput where the other one is no plain rectangle at that edge, or stands more
    than once, so that it would be shorter in other places too."""
    design = result.job.design
    joint = next((one for one in design.joints if one.id == joint_id), None)
    if joint is None or by not in (joint.first.placement, joint.second.placement):
        raise MissingInput("That joint is not there any more.", fix="Select another one.", field="joint")
    covering, other = (joint.first, joint.second) if joint.first.placement == by else (joint.second, joint.first)
    mate = next((one for one in result.build.mates if one.id == joint_id), None)
    if mate is None or FACE in (covering.edge, other.edge) or abs(mate.meeting.angle - 90) > SQUARE_DEG:
        raise MissingInput(
            "Only where two edges meet at 90° does one board end behind the other.",
            fix="Remove the joint alone, and make one of the parts shorter by hand.", field="joint",
        )  # fmt: skip
    cover, shorter = (_part(result, one.placement) for one in (covering, other))
    return [Edit("drop", f"joints/{joint_id}"), *_shortened(result, shorter, other.edge, cover)]


def _part(result: Result, placement: str) -> Part:
    design = result.job.design
    one = design.placement(placement)
    part = design.part(one.part) if one else None
    if part is None:
        raise MissingInput(
            f"“{placement}” does not stand.", fix="Stand it up, or remove the joint alone.", field="joint"
        )
    return part


def _shortened(result: Result, part: Part, edge: str, cover: Part) -> list[Edit]:
    step_id, _, side = edge.rpartition(".")
    step = part.step(step_id)
    if not isinstance(step, ShapeStep) or not isinstance(step.shape, Rectangle) or not _is_plain(step):
        raise MissingInput(
            f"{part.title} does not end in a plain rectangle there.", fix="Remove the joint, and make one of the parts shorter by hand.",
            field="joint",
        )  # fmt: skip
    if len(result.job.design.placements_of(part.id)) > 1:
        raise MissingInput(
            f"{part.title} stands more than once: it would be shorter everywhere.",
            fix="Let the other part cover it, or make this one a part of its own first.", field="joint",
        )  # fmt: skip
    name = "thickness" if cover.board == part.board else f"{cover.board}.thickness"
    path = f"parts/{part.id}/steps/{step.id}"
    size, place = ("width", "x") if side in ("left", "right") else ("height", "y")
    edits = [Edit("put", f"{path}/shape/{size}", _with(getattr(step.shape, size), "-", name))]
    if side in ("left", "bottom"):  # the part's zero stays where it is, and all that is measured from it
        edits.append(Edit("put", f"{path}/{place}", _with(getattr(step, place), "+", name)))
    return edits


def _is_plain(step: ShapeStep) -> bool:
    """Whether its left and bottom are where its x and y say, as it was drawn."""
    moved = (step.anchor, step.from_x, step.from_y, step.mirrored, step.pattern)
    return not any(moved) and (step.turn.text, step.scale.text) == ("0", "1")


def _with(typed: Length, sign: str, name: str) -> dict[str, Any]:
    return {"text": f"{typed.text} {sign} {name}", "unit": typed.unit}
