"""Prints of all files that jobs give: SHA-256 by job, format, split and unit. A change that is meant alters the rows it names.

`make prints` writes `tests/files/prints.json` anew; `git diff` shows what a change has moved. What a new recipe gives is kept besides.
"""

from __future__ import annotations

import json
from collections.abc import Iterator
from hashlib import sha256
from itertools import product
from pathlib import Path
from random import Random
from typing import Any

from lean_notch.basis import Basis, Board, BoardBasis, Machine, Readings
from lean_notch.basis.machine import KerfFound, Tool
from lean_notch.cutting import Profile
from lean_notch.cutting.profile import SPLITS
from lean_notch.design import design_to_json
from lean_notch.formats.file_kinds import FORMATS
from lean_notch.ground.errors import NotchError
from lean_notch.hand_over.files import write_files
from lean_notch.job import Job, compute
from lean_notch.recipes import RECIPES

PRINTS = Path(__file__).parent / "files" / "prints.json"
DESIGNS = Path(__file__).parent / "files" / "recipes"
FIRST_WORDS = 80

Row = dict[str, str] | str
"""SHA-256 by file name; of what cannot be made, its exit status and its first words."""

_POPLAR = Board("Poplar ply", "plywood", 3, Readings((3.02, 3.05, 3.06, 3.07, 3.10)), 600, 400)
_BIRCH = Board("Birch ply", "plywood", 12, Readings((11.82, 11.90, 11.86, 11.93)), 1250, 1250)
_TOOL = Tool("6 mm two-flute", 6.0, flute_length=22, flutes=2)
LASER = BoardBasis(
    _POPLAR, Machine("Shed laser", "laser", 600, 400, 0.14, found=KerfFound("slats", "Poplar ply", 3.06, "2026-03-01", 0.0)), 0.02
)  # fmt: skip
ROUTER = BoardBasis(_BIRCH, Machine("Barn router", "router", 1250, 1250, 6.0, tools=(_TOOL,), tool=_TOOL.name), 0.1)


def recipe_jobs() -> Iterator[tuple[str, Job]]:
    """One of each recipe with its usual answers, on a laser and on a router."""
    for name, recipe in RECIPES.items():
        for machine, board in (("laser", LASER), ("router", ROUTER)):
            try:
                design = recipe.design(recipe.title, {})
            except NotchError:  # pragma: no cover - usual answers are answers
                continue
            yield f"{name}, {machine}", Job(design, Basis(tuple((one.id, board) for one in design.boards)))


def kept_designs() -> Iterator[tuple[str, dict[str, Any]]]:
    """What recipes gave when they were new: by recipe, answers and the document that was made of them."""
    for path in sorted(DESIGNS.glob("*.json")):
        for one in json.loads(path.read_text()):
            yield path.stem, one


def keep_new_designs() -> None:
    """Of recipes that have none: with their usual answers, and with others. What is kept is never written anew."""
    from right_jobs import answers

    DESIGNS.mkdir(exist_ok=True)
    for name, recipe in RECIPES.items():
        file = DESIGNS / f"{name}.json"
        if not file.exists():
            asked = [{}, answers(name, Random(name))]
            made = [{"answers": one, "design": design_to_json(recipe.design(recipe.title, one))} for one in asked]
            file.write_text(json.dumps(made, indent=0, ensure_ascii=False) + "\n")


def prints_of(job: Job) -> dict[str, Row]:
    """A row for each format, split and unit."""
    return {f"{format}, {split}, {unit}": _row(job, format, split, unit) for format, split, unit in _WAYS}


_WAYS = list(product(FORMATS, SPLITS, ("mm", "in")))


def _row(job: Job, file_format: Any, split: Any, unit: Any) -> Row:
    try:
        files = write_files(compute(job, Profile(split=split, unit=unit)), file_format)
    except NotchError as error:
        return f"2: {error.why[:FIRST_WORDS]}"
    except Exception as error:
        return f"3: {type(error).__name__}: {str(error)[:FIRST_WORDS]}"
    return {file.name: sha256(file.data).hexdigest() for file in files}


def kept() -> dict[str, dict[str, Row]]:
    found: dict[str, dict[str, Row]] = json.loads(PRINTS.read_text())
    return found


def keep(prints: dict[str, dict[str, Row]]) -> None:
    PRINTS.write_text(json.dumps(prints, indent=0, ensure_ascii=False, sort_keys=True) + "\n")
