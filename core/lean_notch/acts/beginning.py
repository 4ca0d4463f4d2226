"""A new step: in, a computed job, a part and what the step is wanted for; out, the edit that puts it at the end of the part's steps."""

from __future__ import annotations

from ..edits import Edit
from ..ground.errors import MissingInput
from ..job import Result
from ..lengths.length import Length
from ..lengths.units import Unit
from ..steps import ALL, ShapeStep, Step
from ..steps.begun import Begun, Document, Where
from .numbered import numbered

_BESIDE: dict[Unit, float] = {"mm": 10.0, "in": 0.5}
PURPOSES: dict[str, tuple[Begun, str]] = {begun.purpose: (begun, kind.kind) for kind in ALL for begun in kind.begins}


def begun(result: Result, part_id: str, purpose: str, other: str = "", unit: Unit = "mm") -> list[Edit]:
    """`other` is the kept file or the part that it is made of; the first other part if it is left out. Raises MissingInput."""
    part = result.job.design.part(part_id)
    flat = next((one for one in result.build.parts if one.id == part_id), None)
    if part is None or flat is None:
        raise MissingInput("That part is not there any more.", fix="Select another one.", field="part")
    if purpose not in PURPOSES:
        raise MissingInput(f"No step begins as “{purpose}”.", fix=f"Choose one of: {', '.join(PURPOSES)}.", field="of")
    begin, kind = PURPOSES[purpose]
    if begin.of == "part" and not other:
        other = next((one.id for one in result.job.design.parts if one.id != part_id), "")
    if begin.of and not other:
        raise MissingInput(f"There is no {begin.of} to make it of.", fix=f"Add a {begin.of} first.", field="to")
    where = Where(flat.box, tuple(name for name, _ in flat.corners), unit, other)
    document = {"kind": kind, **begin.document(where)}
    name = numbered(f"{purpose}-", (step.id for step in part.steps))
    return [Edit("put", f"parts/{part_id}/steps/{name}", _beside(document, part.steps, where))]


def _beside(document: Document, steps: tuple[Step, ...], where: Where) -> Document:
    """Beside those that start at its place: one on top of another would look like one."""
    if "x" not in document or "y" not in document:
        return document
    taken = {(one.x, one.y) for one in steps if isinstance(one, ShapeStep) and not one.from_x + one.from_y}
    x, y = (Length(document[axis]["text"], where.unit) for axis in ("x", "y"))
    apart = _BESIDE[where.unit]
    for _ in range(len(steps)):
        if (x, y) in taken:
            x = Length(f"{float(x.text) + apart:g}", where.unit)
    return {**document, "x": {"text": x.text, "unit": x.unit}}
