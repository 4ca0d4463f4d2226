"""Placing by what is known: in, a computed job, steps of a part and what is wanted of them; out, the edits that do it.

Moving by a distance, measuring from something else without moving, centring between two things, aligning, spreading evenly.
Distances are mm on the part; what is written stays in the unit that stood there.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace
from typing import Literal

from ..design import Imported, OtherPart, Part, ShapeStep, Spread, step_of
from ..edits import Edit
from ..geometry import Box, Motion, Point
from ..ground.errors import BadGeometry, MissingInput, OutOfRange
from ..ground.limits import MOST_PLACED_AT_ONCE
from ..job import Result
from ..lengths.length import Length
from ..lengths.said import rounded
from ..lengths.units import MM_PER_UNIT, Unit
from ..steps.drawing import draw
from ..steps.place import Named, beside, box_of, in_box, nearest, point_of

Axis = Literal["x", "y"]
AXES: tuple[Axis, ...] = ("x", "y")
Side = Literal["left", "centre", "right", "bottom", "middle", "top"]
_ANCHORS: Mapping[Side, tuple[Axis, str]] = {
    "left": ("x", "left"), "centre": ("x", "centre"), "right": ("x", "right"), "bottom": ("y", "bottom"), "middle": ("y", "centre"),
    "top": ("y", "top"),
}  # fmt: skip
DIGITS = 4
_STILL_MM = 1e-9


def moved_by(result: Result, part_id: str, steps: Sequence[str], dx: float, dy: float) -> list[Edit]:
    """Edits that move steps to the right and up. Raises NotchError for a step that has no place of its own.

    A step whose place follows from another that moves along is left as it is.
    """
    part = _part(result, part_id)
    edits: list[Edit] = []
    for step in _shape_steps(part, steps):
        for axis, by in zip(AXES, (dx, dy), strict=True):
            if abs(by) > _STILL_MM and not _goes_along(step, axis, steps):
                edits += _by(result, part, step, axis, by)
    return edits


def _goes_along(step: ShapeStep, axis: Axis, moving: Sequence[str]) -> bool:
    of = getattr(step, f"from_{axis}")
    return bool(of) and step_of(of) in moving


def _by(result: Result, part: Part, step: ShapeStep, axis: Axis, by: float) -> Iterator[Edit]:
    path = f"parts/{part.id}/steps/{step.id}"
    if isinstance(step.pattern, Spread) and step.pattern.along == axis:
        raise BadGeometry(
            f"{step.title or step.id} is spread evenly that way.", fix="Change what it is spread between, or its margin.",
            field=f"{path}/pattern",
        )  # fmt: skip
    typed: Length = getattr(step, axis)
    yield Edit("put", f"{path}/{axis}", plus(typed, by * _sense(result, part, step, axis)))
    end = {"x": "to_x", "y": "to_y"}[axis]
    if step.shape.kind == "line":
        yield Edit("put", f"{path}/shape/{end}", plus(getattr(step.shape, end), by * _as_looked_at(step, axis)))


def plus(typed: Length, by: float) -> dict[str, str]:
    """A plain number becomes another, arithmetic gets a term."""
    try:
        number = float(typed.text)
    except ValueError:
        sign = "-" if by < 0 else "+"
        return {"text": f"{typed.text} {sign} {_text(abs(by), 'mm')} mm", "unit": typed.unit}
    return typed_as(number * MM_PER_UNIT[typed.unit] + by, typed.unit)


def typed_as(mm: float, unit: Unit) -> dict[str, str]:
    return {"text": _text(mm, unit), "unit": unit}


def _text(mm: float, unit: str) -> str:
    text = rounded(mm / MM_PER_UNIT[unit], DIGITS).rstrip("0").rstrip(".")
    return "0" if text in ("", "-0", "-") else text


def _as_looked_at(step: ShapeStep, axis: Axis) -> float:
    """-1 where what is to the right of the front is to the left as the step's face is looked at."""
    return -1.0 if step.face == "back" and axis == "x" else 1.0


def _sense(result: Result, part: Part, step: ShapeStep, axis: Axis) -> float:
    """1 where a distance grows to the right or up, -1 where it is counted inwards from a right or an upper edge."""
    if not getattr(step, f"from_{axis}").startswith("edge:"):
        return _as_looked_at(step, axis)
    i = AXES.index(axis)
    for one in result.build.part(part.id).measured:
        if (one.step, one.path) == (step.id, axis) and abs(one.end[i] - one.start[i]) > _STILL_MM:
            value = getattr(step, axis).mm(names_of(result, part))
            return 1.0 if (one.end[i] - one.start[i]) * value > 0 else -1.0
    name = getattr(step, f"from_{axis}").rpartition(".")[2]
    return -1.0 if name in ("right", "top") else 1.0


def measured_from(result: Result, part_id: str, step_id: str, of: str, axis: Axis | None = None) -> list[Edit]:
    """Edits with which a step stays where it is, its distance counted from `of` ("" is the part's zero).

    From an edge it is counted square to it, the `axis` being the one that it runs across; from a point, along `axis`.
    """
    part = _part(result, part_id)
    [step] = _shape_steps(part, [step_id])
    known = _before(result, part, step)
    path = f"parts/{part.id}/steps/{step.id}"
    box, origin = box_of(_of(known, step)), _origin(result, part, step)
    turned = _of(known, step).turned
    if turned is not None:  # as the back is looked at, which is how its places are typed
        known = {name: one.moved(Motion(turned, mirrored=True)) for name, one in known.items()}
        box, origin = box_of(_of(known, step)), (turned - origin[0], origin[1])
    if of.startswith("edge:"):
        start, normal = _edge(of, known)
        axis = axis or ("x" if abs(normal[0]) > abs(normal[1]) else "y")
        if step.anchor:
            place = in_box(box, step.anchor)
            distance = (place[0] - start[0]) * normal[0] + (place[1] - start[1]) * normal[1]
        else:
            distance = _reach(result, part, step, normal, box, origin) - (start[0] * normal[0] + start[1] * normal[1])
    else:
        axis = axis or "x"
        i = AXES.index(axis)
        at = _point(of, known)[i] if of else 0.0
        place = in_box(box, step.anchor) if step.anchor else origin
        distance = place[i] - at
    unit = getattr(step, axis).unit
    return [
        Edit("put", f"{path}/from_{axis}", of), Edit("put", f"{path}/to_{axis}", ""),
        Edit("put", f"{path}/{axis}", typed_as(distance, unit)),
    ]  # fmt: skip


def centred_between(result: Result, part_id: str, step_id: str, of: str, to: str, axis: Axis) -> list[Edit]:
    """Edits that put the middle of a step halfway between two things."""
    part = _part(result, part_id)
    [step] = _shape_steps(part, [step_id])
    path = f"parts/{part.id}/steps/{step.id}"
    return [
        Edit("put", f"{path}/from_{axis}", of), Edit("put", f"{path}/to_{axis}", to), Edit("put", f"{path}/{axis}", "0"),
    ]  # fmt: skip


def aligned(result: Result, part_id: str, steps: Sequence[str], side: Side) -> list[Edit]:
    """Edits that bring one side, or the middle, of steps in line with that of the first of them."""
    part = _part(result, part_id)
    first, *others = _shape_steps(part, steps)
    if not others:
        raise MissingInput("One step alone is in line.", fix="Select another one as well.", field="steps")
    axis, anchor = _ANCHORS[side]
    i, known = AXES.index(axis), _named(result, part)
    wanted = in_box(_seen(_of(known, first)), anchor)[i]
    edits: list[Edit] = []
    for step in others:
        by = wanted - in_box(_seen(_of(known, step)), anchor)[i]
        if abs(by) > _STILL_MM:
            edits += _by(result, part, step, axis, by)
    return edits


def spread_evenly(result: Result, part_id: str, steps: Sequence[str], axis: Axis) -> list[Edit]:
    """Edits that make the gaps between three or more steps equal; the outer two stay."""
    part = _part(result, part_id)
    some = _shape_steps(part, steps)
    if len(some) < 3:
        raise MissingInput(
            "Fewer than three steps have no gaps to make equal.", fix="Select three or more.", field="steps"
        )
    i, known = AXES.index(axis), _named(result, part)
    boxes = {step.id: _seen(_of(known, step)) for step in some}
    order = sorted(some, key=lambda step: boxes[step.id][i])
    ends = boxes[order[0].id], boxes[order[-1].id]
    room = ends[1][i] - ends[0][i + 2] - sum(boxes[step.id][i + 2] - boxes[step.id][i] for step in order[1:-1])
    gap = room / (len(order) - 1)
    if gap < 0:
        raise OutOfRange(
            "They overlap: no gap is left between them.", fix="Set the outer two further apart.", field="steps"
        )
    edits: list[Edit] = []
    at = ends[0][i + 2]
    for step in order[1:-1]:
        low, high = boxes[step.id][i], boxes[step.id][i + 2]
        by = at + gap - low
        at += gap + high - low
        if abs(by) > _STILL_MM:
            edits += _by(result, part, step, axis, by)
    return edits


def _part(result: Result, part_id: str) -> Part:
    part = result.job.design.part(part_id)
    if part is None:
        raise MissingInput(f"There is no part “{part_id}”.", fix="Name a part that there is.", field="part")
    return part


def _shape_steps(part: Part, steps: Sequence[str]) -> list[ShapeStep]:
    """Those steps, as asked for."""
    if not steps or len(steps) > MOST_PLACED_AT_ONCE:
        raise MissingInput(
            f"{len(steps)} steps are selected.", fix=f"Select 1 to {MOST_PLACED_AT_ONCE}.", field="steps"
        )
    found = []
    for one in steps:
        step = part.step(one)
        if not isinstance(step, ShapeStep):
            raise MissingInput(
                f"“{one}” of {part.title} has no place of its own.", fix="Select a shape.", field="steps"
            )
        found.append(step)
    return found


def _named(result: Result, part: Part) -> dict[str, Named]:
    return {one.step: one for one in result.build.part(part.id).named}


def _of(known: Mapping[str, Named], step: ShapeStep) -> Named:
    found = known.get(step.id)
    if found is None:
        raise MissingInput(
            f"{step.title or step.id} has no place on the finished part.",
            fix="Switch it on, and mend the step that the part got stuck at; after growing or scaling nothing keeps its place.",
            field="steps",
        )  # fmt: skip
    return found


def _seen(named: Named) -> Box:
    """The box round what a step drew, as it is seen from the front: what is on the back has its left on the right."""
    left, low, right, high = box_of(named)
    return (min(left, right), low, max(left, right), high)


def _before(result: Result, part: Part, step: ShapeStep) -> dict[str, Named]:
    """What a step can be measured from: earlier steps, and itself."""
    order = [one.id for one in part.steps]
    last = order.index(step.id)
    return {name: one for name, one in _named(result, part).items() if name not in order or order.index(name) <= last}


def _origin(result: Result, part: Part, step: ShapeStep) -> tuple[float, float]:
    """Where a step's own origin is: what its distances lead to where no anchor is named."""
    at: dict[str, float] = {}
    for one in result.build.part(part.id).measured:
        if one.step == step.id:
            at[one.path] = one.end["xy".index(one.path)]
    box = box_of(_of(_named(result, part), step))
    return (at.get("x", box[0]), at.get("y", box[1]))


def _reach(result: Result, part: Part, step: ShapeStep, normal: Point, box: Box, origin: Point) -> float:
    """How far along `normal` the nearest of a step's first copy lies."""
    if isinstance(step.shape, Imported | OtherPart):
        left, low, right, high = box
        return min(x * normal[0] + y * normal[1] for x in (left, right) for y in (low, high))
    names = names_of(result, part)
    there = {**step.mm(names), "x": origin[0], "y": origin[1]}
    drawn = draw(replace(step, pattern=None), there, names["thickness"], step.title or step.id)
    return nearest(drawn.shapes, normal)[1]


def _edge(of: str, known: Mapping[str, Named]) -> tuple[tuple[float, float], tuple[float, float]]:
    name = of.removeprefix("edge:")
    for one in known.values():
        edge = dict(one.edges).get(name)
        if edge:
            line = beside(edge, one.inward)
            return edge.start, line.normal
    raise MissingInput(
        f"No step before this one has the edge “{name}”.", fix="Choose one of an earlier step.", field="of"
    )


def _point(of: str, known: Mapping[str, Named]) -> tuple[float, float]:
    sort, _, name = of.partition(":")
    for one in known.values():
        found = point_of(one, sort, name)
        if found:
            return found
    raise MissingInput(f"No step before this one has “{of}”.", fix="Choose something of an earlier step.", field="of")


def names_of(result: Result, part: Part) -> dict[str, float]:
    return {**result.build.names, **result.job.basis.names(part.board)}
