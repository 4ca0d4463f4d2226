"""Another shape for a step: in, a computed job, a step and the kind of shape wanted; out, the edits that draw that one in its place, as
large, about the same middle."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from ..design import Annulus, Disc, Ellipse, Polygon, Rectangle, ShapeStep, Slot
from ..edits import Edit
from ..geometry import Motion
from ..ground.errors import MissingInput
from ..job import Result
from ..lengths.length import Length
from .moving import AXES, names_of, plus

RESHAPED = (Rectangle, Disc, Ellipse, Annulus, Polygon, Slot)
"""Shapes that are given by their sizes alone."""

SIDES = 6


def reshaped(result: Result, part_id: str, step_id: str, kind: str) -> list[Edit]:
    """Raises MissingInput for a step whose shape is not given by sizes, and for a kind that is not."""
    part = result.job.design.part(part_id)
    step = part.step(step_id) if part else None
    path = f"parts/{part_id}/steps/{step_id}"
    kinds = [one.kind for one in RESHAPED]
    if not isinstance(step, ShapeStep) or not isinstance(step.shape, RESHAPED) or kind not in kinds:
        raise MissingInput(
            "That shape is not given by its sizes alone.", fix=f"Only these become one another: {', '.join(kinds)}.",
            field=f"{path}/shape",
        )  # fmt: skip
    if kind == step.shape.kind:
        return []
    wide, high = _sizes(step.shape)
    edits = [Edit("put", f"{path}/shape", _drawn(kind, wide, high))]
    way = isinstance(step.shape, Rectangle) - (kind == Rectangle.kind)
    if way and part and not step.anchor:
        edits += _about_its_middle(step, path, way, names_of(result, part))
    return edits


def _sizes(shape: Any) -> tuple[Length, Length]:
    match shape:
        case Rectangle() | Ellipse():
            return shape.width, shape.height
        case Slot():
            return shape.length, shape.width
        case Polygon():
            return shape.across, shape.across
        case _:
            return shape.diameter, shape.diameter


def _drawn(kind: str, wide: Length, high: Length) -> dict[str, Any]:
    w, h = ({"text": one.text, "unit": one.unit} for one in (wide, high))
    half = {"text": f"({wide.text})/2", "unit": wide.unit}
    fields: dict[str, dict[str, Any]] = {
        "rectangle": {"width": w, "height": h}, "ellipse": {"width": w, "height": h}, "disc": {"diameter": w},
        "ring": {"diameter": w, "inside": half}, "polygon": {"sides": SIDES, "across": w}, "slot": {"length": w, "width": h},
    }  # fmt: skip
    return {"kind": kind, **fields[kind]}


def _about_its_middle(step: ShapeStep, path: str, way: int, names: Mapping[str, float]) -> Iterator[Edit]:
    """A rectangle's own zero is its lower left corner, the others' their middle. Counted from an edge, what is nearest to it stays."""
    wide, high = (one.mm(names) for one in _sizes(step.shape))
    half = way * step.scale.value(names) / 2
    by = Motion(0.0, 0.0, step.turn.value(names), step.mirrored).point((half * wide, half * high))
    for axis, mm in zip(AXES, by, strict=True):
        if not getattr(step, f"from_{axis}").startswith("edge:"):
            yield Edit("put", f"{path}/{axis}", plus(getattr(step, axis), mm))
