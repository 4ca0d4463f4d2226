"""The design's document: version 2 as the codec writes it, and version 1, which is read and never written again.

In version 1 a part was a rectangle with round holes, corner cuts and marks, stood in one place and had a quantity; all
parts were of one board. Lengths there are texts, numbers, or {"text", "unit"}.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Any

from ..documents import codec
from ..documents.plain import entry, length, mapping, sequence
from ..ground.errors import BadDocument
from ..ground.limits import MOST_STEPS
from .document import Design

VERSION = 2
TEST_PIECES = ("slats", "plug", "comb")
"""Recipes of version 1 whose parts stood nowhere, though the document said that they did."""


def design_to_json(design: Design) -> dict[str, Any]:
    """The document that `design_from_json` reads."""
    return {"lean_notch_design": VERSION, **codec.write(design)}


def design_from_json(document: object) -> Design:
    """A Design from its document of either version. Raises BadDocument at the path of the entry that is wrong."""
    top = dict(mapping(document, "design"))
    version = top.pop("lean_notch_design", None)
    if version == 1 and not isinstance(version, bool):
        top = from_version_1(top)
    elif version != VERSION or isinstance(version, bool):
        raise BadDocument(
            f"The document is not a Lean Notch design of version {VERSION} or older.",
            fix="Make one with `lean-notch recipe … --out FILE`, or open the file in the version that wrote it.",
            field="lean_notch_design",
        )
    design: Design = codec.read(Design, top)
    return design


def from_version_1(old: Mapping[str, Any]) -> dict[str, Any]:
    """The version 2 document that says the same. What is wrong in it is found when that is read."""
    parts = [mapping(part, f"parts[{i}]") for i, part in enumerate(sequence(entry(old, "parts"), "parts", 500))]
    recipe = old.get("recipe", "")
    stands = recipe not in TEST_PIECES
    new: dict[str, Any] = {
        "name": entry(old, "name"),
        "relief": old.get("relief", "auto"),
        "dimensions": [
            dict(mapping(one, "dimensions")) for one in sequence(old.get("dimensions", ()), "dimensions", 500)
        ],
        "parts": [_part(part, stands) for part in parts],
        "placements": [_placement(part) for part in parts] if stands else [],
        "joints": [_joint(mapping(joint, "joints")) for joint in sequence(old.get("joints", ()), "joints", 2000)],
    }
    for dimension in new["dimensions"]:
        dimension.setdefault("title", dimension.get("name"))
    if recipe:
        settings = mapping(old.get("settings", {}), "settings")
        new["origin"] = {"recipe": recipe, "answers": [_answer(name, value) for name, value in settings.items()]}
    return new


def _part(part: Mapping[str, Any], stands: bool) -> dict[str, Any]:
    panel = mapping(entry(part, "panel", "parts"), "parts.panel")
    blank = {"kind": "rectangle", **{name: entry(panel, name, "parts.panel") for name in ("width", "height")}}
    steps = [{"kind": "shape", "id": "blank", "shape": blank}, *corner_steps(part.get("corners", ()))]
    for i, hole in enumerate(sequence(part.get("holes", ()), "parts.holes", MOST_STEPS), 1):
        given = mapping(hole, "parts.holes")
        disc = {"kind": "disc", "diameter": entry(given, "diameter", "parts.holes")}
        steps.append(
            {"kind": "shape", "id": f"hole-{i}", "does": "cut", "shape": disc, "x": given.get("x"), "y": given.get("y")}
        )
    steps += mark_steps(part.get("marks", ()), {step["id"] for step in steps})
    quantity = part.get("quantity", 1)
    loose = quantity - 1 if stands and isinstance(quantity, int) else quantity
    return {
        "id": entry(part, "id", "parts"), "title": part.get("title", part["id"]), "steps": steps, "loose": loose
    }  # fmt: skip


def _placement(part: Mapping[str, Any]) -> dict[str, Any]:
    pose = mapping(entry(part, "pose", "parts"), "parts.pose")
    x, y, z = sequence(entry(pose, "origin", "parts.pose"), "parts.pose.origin", 3)
    return {
        "id": part["id"], "part": part["id"],
        "pose": {"kind": "axes", "x": x, "y": y, "z": z, "u": entry(pose, "u", "parts.pose"), "v": entry(pose, "v", "parts.pose")},
    }  # fmt: skip


def _joint(joint: Mapping[str, Any]) -> dict[str, Any]:
    def member(end: str) -> dict[str, Any]:
        edge = mapping(entry(joint, end, "joints"), f"joints.{end}")
        return {"placement": entry(edge, "part", "joints"), "edge": f"blank.{entry(edge, 'side', 'joints')}"}

    finger = joint.get("finger")
    how = {"kind": "finger"} if finger in (None, "") else {"kind": "finger", "width": finger}
    return {
        "id": entry(joint, "id", "joints"), "title": joint.get("title", joint["id"]),
        "first": member("first"), "second": member("second"), "how": how,
    }  # fmt: skip


def _answer(name: str, value: object) -> dict[str, Any]:
    if isinstance(value, Mapping):
        return {"name": name, "text": value.get("text", ""), "unit": value.get("unit", "mm")}
    return {"name": name, "text": str(value)}


def corner_steps(corners: object) -> list[dict[str, Any]]:
    """Version 1's corner cuts as steps."""
    steps = []
    for one in sequence(corners, "corners", 4):
        cut = mapping(one, "corners")
        corner = str(entry(cut, "corner", "corners"))
        steps.append(
            {
                "kind": "corner", "id": f"corner-{corner}", "corners": [f"blank.{corner}"],
                "shape": cut.get("shape", "round"), "size": entry(cut, "size", "corners"),
            }
        )  # fmt: skip
    return steps


def mark_steps(marks: object, taken: set[str]) -> list[dict[str, Any]]:
    """Version 1's marks as steps; their ids become names that a path can hold, other than those `taken`."""
    steps: list[dict[str, Any]] = []
    taken = set(taken)
    for mark in sequence(marks, "marks", MOST_STEPS):
        step = _mark_step(mapping(mark, "marks"))
        wanted = re.sub(r"[^A-Za-z0-9_-]+", "-", str(step["id"])).strip("-_")[:36] or "mark"
        step["id"] = next(name for name in (wanted, *(f"{wanted}-{i}" for i in range(2, 1000))) if name not in taken)
        taken.add(step["id"])
        steps.append(step)
    return steps


def _mark_step(mark: Mapping[str, Any]) -> dict[str, Any]:
    lengths = {
        name: value
        for name, value in mapping(mark.get("lengths", {}), "marks.lengths").items()
        if length(value, name).text.strip()
    }
    kind, operation = mark.get("kind"), mark.get("operation", "cut")
    names = {
        "line": ("to_x", "to_y"), "rectangle": ("width", "height", "radius"), "circle": ("diameter",),
        "text": ("height", "bridge"),
    }.get(str(kind), ())  # fmt: skip
    shape: dict[str, Any] = {"kind": {"circle": "disc", "text": "lettering"}.get(str(kind), kind)}
    shape |= {name: lengths[name] for name in names if name in lengths}
    if kind == "text":
        shape |= {"text": mark.get("text", ""), "font": mark.get("font", "sans"), "align": mark.get("align", "left")}
    step = {"kind": "shape", "id": entry(mark, "id", "marks"), "does": "mark", "operation": operation, "shape": shape}
    if operation == "cut":
        del step["operation"]
        step["does"] = "cut"
    step |= {name: lengths[name] for name in ("x", "y", "depth") if name in lengths}
    if kind in ("rectangle", "text") and mark.get("angle"):
        step["turn"] = mark["angle"]
    if mark.get("side", "auto") != "auto":
        step["side"] = mark["side"]
    columns, rows = mark.get("columns", 1), mark.get("rows", 1)
    if (columns, rows) != (1, 1):
        spacing = {name: lengths[name] for name in ("dx", "dy") if name in lengths}
        step["pattern"] = {"kind": "grid", "columns": columns, "rows": rows, **spacing}
    return step
