"""One edit of a job: named inputs as typed, in; the changed job, out.

Names are those of the fields in errors: a recipe's settings ("width", "finger"), the basis' numbers ("readings",
"kerf", "clearance", "stock", "machine"), the layout's ("margin", "spacing", "quarter_turns"), and "name".
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict, replace

from .basis import Basis, basis_from_json, basis_to_json
from .design import Design, design_from_json, design_to_json
from .documents import in_unit, mapping, sequence, text
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
    wanted = {"stock", "machine", "readings", *_BASIS_LENGTHS} & rest.keys()
    for name in ("stock", "machine"):
        if name in rest:
            document[name] = mapping(rest.pop(name), name)
    if "readings" in rest:
        readings = [in_unit(value, unit) for value in sequence(rest.pop("readings"), "readings", 100)]
        document["stock"] = {**document["stock"], "readings": readings}
    if "kerf" in rest:
        document["machine"] = {**document["machine"], "kerf": in_unit(rest.pop("kerf"), unit)}
    if "clearance" in rest:
        document["clearance"] = in_unit(rest.pop("clearance"), unit)
    return basis_from_json(document) if wanted else job.basis


def _edit_design(design: Design, rest: dict[str, object], unit: Unit) -> Design:
    name = text(rest.pop("name"), "name", 80) if "name" in rest else design.name
    if not rest:
        return replace(design, name=name)
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
