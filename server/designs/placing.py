"""What the page asks of places, as the core's edits."""

from __future__ import annotations

from lean_notch.acts.beginning import begun
from lean_notch.acts.covering import covered
from lean_notch.acts.moving import aligned, centred_between, measured_from, moved_by, spread_evenly
from lean_notch.acts.nodes import edge_bent, node_added, node_moved
from lean_notch.acts.reshaping import reshaped
from lean_notch.acts.standing_up import stood_up
from lean_notch.edits import Edit
from lean_notch.ground.errors import MissingInput

from .actions import head_of
from .compute import computed
from .models import Design
from .schemas.asked import PlacingIn


def placing_edits(design: Design, given: PlacingIn) -> list[Edit]:
    """Raises NotchError where it cannot be done."""
    result, part, steps = computed(head_of(design).job), given.part, given.steps
    if given.act == "cover":
        return covered(result, given.of, given.to)
    if given.act == "begin":
        return begun(result, part, given.of, given.to, given.unit)
    if given.act == "stand":
        return stood_up(result, part)
    if not steps:
        raise MissingInput("No step is named.", fix="Select one.", field="steps")
    if given.act == "move":
        return moved_by(result, part, steps, given.dx, given.dy)
    if given.act == "from":
        return [one for step in steps for one in measured_from(result, part, step, given.of, given.axis)]
    if given.act == "between":
        return [
            one for step in steps for one in centred_between(result, part, step, given.of, given.to, given.axis or "x")
        ]
    if given.act == "align":
        return aligned(result, part, steps, given.side)
    if given.act == "shape":
        return reshaped(result, part, steps[0], given.to)
    if given.act == "node-move":
        return node_moved(result, part, steps[0], given.node, given.dx, given.dy)
    if given.act == "node-add":
        return node_added(result, part, steps[0], given.node)
    if given.act == "node-bend":
        return edge_bent(result, part, steps[0], given.node, given.dx, given.dy)
    return spread_evenly(result, part, steps, given.axis or "x")
