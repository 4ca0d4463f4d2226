"""One edit of a job: named inputs as typed, in; the changed job, out.

Names are those of the fields in errors: a recipe's settings ("width", "finger"), the basis' numbers ("readings",
"kerf", "clearance", "stock", "machine", "tool" and "sheet", the number of the size of sheet to cut from), the layout's ("margin", "spacing", "quarter_turns"), "name", "relief", and
"parts": what is drawn on each part and how its corners are cut, by part id.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict, replace
from typing import cast

from .basis import Basis, basis_from_json, basis_to_json
from .design import (
    CORNERS,
    RELIEFS,
    Design,
    Part,
    Relief,
    corners_from_json,
    design_from_json,
    design_to_json,
    marks_from_json,
)
from .design.marks import MOST_MARKS
from .documents import choice, in_unit, mapping, sequence, text, whole
from .errors import BadDocument
from .job import Job, settings_from_json
from .recipes import RECIPES
from .units import Unit

_BASIS_LENGTHS = ("kerf", "clearance")
_LAYOUT = ("margin", "spacing", "quarter_turns")


def edit_job(job: Job, changes: Mapping[str, object], unit: Unit = "mm") -> Job:
    """`job` with `changes`; bare numbers count in `unit`. Raises NotchError at the field, and changes nothing then.

    "readings" is a list of lengths; "stock" and "machine" are their documents, as in a basis' document.
    """
    rest = dict(changes)
    basis = _edit_basis(job, rest, unit)
    layout = {name: rest.pop(name) for name in _LAYOUT if name in rest}
    settings = job.settings
    if layout:
        settings = settings_from_json(
            {**asdict(settings), **{name: in_unit(value, unit) for name, value in layout.items()}}
        )
    return Job(_edit_design(job.design, rest, unit), basis, settings)


def _edit_basis(job: Job, rest: dict[str, object], unit: Unit) -> Basis:
    document = basis_to_json(job.basis)
    wanted = {"stock", "machine", "readings", "tool", "sheet", *_BASIS_LENGTHS} & rest.keys()
    for name in ("stock", "machine"):
        if name in rest:
            document[name] = mapping(rest.pop(name), name)
    if "readings" in rest:
        readings = [in_unit(value, unit) for value in sequence(rest.pop("readings"), "readings", 100)]
        document["stock"] = {**document["stock"], "readings": readings, "measured": ""}
    if "kerf" in rest:
        document["machine"] = {**document["machine"], "kerf": in_unit(rest.pop("kerf"), unit), "found": None}
    if "clearance" in rest:
        document["clearance"] = in_unit(rest.pop("clearance"), unit)
    tool, sheet = rest.pop("tool", None), rest.pop("sheet", None)
    if not wanted:
        return job.basis
    basis = basis_from_json(document)
    if tool is not None:
        basis = replace(basis, machine=basis.machine.with_tool(text(tool, "tool", required=False)))
    if sheet is not None:
        basis = replace(basis, stock=basis.stock.cut_from(whole(sheet, "sheet", 0, 1000)))
    return basis


def _edit_design(design: Design, rest: dict[str, object], unit: Unit) -> Design:
    name = text(rest.pop("name"), "name", 80) if "name" in rest else design.name
    relief = cast(Relief, choice(rest.pop("relief", design.relief), RELIEFS, "relief"))
    features = mapping(rest.pop("parts", {}), "parts")
    changed = _edit_sizes(design, name, rest, unit) if rest else design
    kept = {part.id: part for part in design.parts}
    parts = tuple(_with_features(part, kept.get(part.id), features.get(part.id), unit) for part in changed.parts)
    for part_id in features:
        if part_id not in kept:
            raise BadDocument(
                f"This job has no part “{part_id}”.", fix=f"Use: {', '.join(kept)}.", field=f"parts.{part_id}"
            )
    return replace(changed, name=name, relief=relief, parts=parts)


def _with_features(part: Part, before: Part | None, given: object, unit: Unit) -> Part:
    """`part` with what was drawn on it before, and what is `given` in place of that."""
    if before:
        part = replace(part, marks=before.marks, corners=before.corners, holes=part.holes or before.holes)
    if given is None:
        return part
    document = mapping(given, f"parts.{part.id}")
    if "marks" in document:
        marks = [_in_unit(one, unit) for one in sequence(document["marks"], f"{part.id}.marks", MOST_MARKS)]
        part = replace(part, marks=marks_from_json(marks, part.id))
    if "corners" in document:
        cuts = [
            {
                **mapping(one, f"{part.id}.corners"),
                "size": in_unit(mapping(one, f"{part.id}.corners").get("size"), unit),
            }
            for one in sequence(document["corners"], f"{part.id}.corners", len(CORNERS))
        ]
        part = replace(part, corners=corners_from_json(cuts, part.id))
    return part


def _in_unit(mark: object, unit: Unit) -> object:
    """A mark's document with its lengths said to be typed in `unit`, those that name their own unit as they are."""
    document = mapping(mark, "marks")
    lengths = mapping(document.get("lengths", {}), "lengths")
    return {**document, "lengths": {name: in_unit(value, unit) for name, value in lengths.items()}}


def _edit_sizes(design: Design, name: str, rest: dict[str, object], unit: Unit) -> Design:
    recipe = RECIPES.get(design.recipe)
    if recipe:
        kept = design_to_json(design)["settings"]
        return recipe.design(name, {**kept, **recipe.typed(rest, unit)})
    document = design_to_json(design)
    chosen = {row["name"]: row for row in document["dimensions"] if row["chosen"]}
    for key, value in rest.items():
        if key not in chosen:
            raise BadDocument(f"This job has no input “{key}”.", fix=f"Use: {', '.join(chosen)}.", field=key)
        chosen[key]["length"] = in_unit(value, unit)
    return design_from_json({**document, "name": name})
