"""Framed stand: two sides and a base of one board, and inserts of another between them; loose ones lift out."""

from __future__ import annotations

from collections.abc import Mapping

from ..design import MAIN, BoardNeed, CornerStep, Design
from ..joints import CrossLap, TabAndSlot
from ..lengths.length import Length
from .box import Assembly
from .picture import Handle, Names, Shape, SizeLine, View, Views
from .plates import is_empty, named
from .recipe import Recipe, Setting, Values

INSERTS = BoardNeed("inserts", "Insert board")
LENGTHS = {
    "width": "width between the sides",
    "depth": "depth",
    "height": "height",
    "insert": "height of the inserts",
    "radius": "corner radius",
}
_THICK, _SIDES = "inserts.thickness", f"{MAIN.id}.thickness"


def _make(name: str, values: Values) -> Design:
    """Sides stand from front to back; inserts stand between them, spread evenly over the depth. Glued ones have tabs through the
    sides; loose ones reach over them and lift out of slots that are open above."""
    made = Assembly()
    count, loose = int(str(values["inserts"])), values["held"] == "loose"
    made.dimensions += named(values, LENGTHS)
    made.follows("outside_width", "outside width", "width + 2*thickness")
    made.follows("insert_pitch", "from insert to insert", f"depth/{count + 1}")
    made.follows(
        "insert_foot",
        "inserts begin at",
        "height - insert" if loose else "(height - insert + thickness)/2",
        positive=True,
    )
    made.follows(
        "insert_room",
        "room between the base and the inserts",
        f"height - insert - {2 if loose else 3}*thickness",
        positive=True,
    )
    radius = () if is_empty(values, "radius") else (
        CornerStep("top", Length("radius"), ("blank.top-left", "blank.top-right"), title="upper corners"),
    )  # fmt: skip
    made.panel("side", "Side", "depth", "height", *radius)
    made.panel("base", "Base", "width", "depth")
    made.stands("side", ("thickness", "0", "0"), "+y", name="side-1")
    made.stands("side", ("outside_width", "0", "0"), "+y", name="side-2")
    made.stands("base", ("thickness", "0", "2*thickness"), "+x", "+y")
    for edge, side in (("left", "side-1"), ("right", "side-2")):
        made.joint("base", edge, side, "face", TabAndSlot())
    # Inserts are worked out with their own board: the sides' is named.
    over = f"2*{_SIDES}" if loose else "0"
    made.panel("insert", "Insert", f"width + 2*{_SIDES} + 2*{over}" if loose else "width", "insert", board=INSERTS.id)
    for i in range(1, count + 1):
        at = (f"0 - {over}" if loose else _SIDES, f"{i}*insert_pitch - {_THICK}/2", "insert_foot")
        made.stands("insert", at, "+x", name=f"insert-{i}")
        for edge, side in (("left", "side-1"), ("right", "side-2")):
            if loose:
                made.joint(side, "face", f"insert-{i}", "face", CrossLap())
            else:
                made.joint(f"insert-{i}", edge, side, "face", TabAndSlot())
    return made.design(name, (MAIN, INSERTS))


def _draw(names: Names, words: Mapping[str, str]) -> Views:
    """From the side and from the front."""
    thick, t, count = names[_THICK], names["thickness"], int(words["inserts"])
    depth, height, low = names["depth"], names["height"], names["insert_foot"]
    places = [i * names["insert_pitch"] - thick / 2 for i in range(1, count + 1)]
    side = View(
        "From the side",
        (
            Shape("face", (0.0, 0.0, depth, height)), Shape("hidden", (0.0, t, depth, 2 * t)),
            *(Shape("hidden", (y, low, y + thick, low + names["insert"])) for y in places),
        ),
        (
            SizeLine("", depth, (0.0, 0.0), (depth, 0.0), "below", 0, "depth"),
            SizeLine("inserts", names["insert"], (depth, low), (depth, low + names["insert"]), "right", 0, "insert"),
            SizeLine("sides", height, (depth, 0.0), (depth, height), "right", 1, "height"),
        ),
        (Handle("depth", (depth, height / 2), "x"), Handle("height", (depth / 2, height), "y")),
    )  # fmt: skip
    width, outer = names["width"], names["outside_width"]
    front = View(
        "From above",
        (
            Shape("board", (0.0, 0.0, outer, depth)), Shape("clear", (t, 0.0, t + width, depth)),
            *(Shape("wall", (t, y, t + width, y + thick)) for y in places),
        ),
        (
            SizeLine("inside", width, (t, 0.0), (t + width, 0.0), "below", 0, "width"),
            SizeLine("outside", outer, (0.0, 0.0), (outer, 0.0), "below", 1),
        ),
        (Handle("width", (t + width, depth / 2), "x"),),
    )  # fmt: skip
    return side, front


FRAMED_STAND = Recipe(
    name="framed-stand",
    title="Framed stand",
    about="Two sides and a base of one board hold inserts of another: glass-clear dividers, slides, panels.",
    settings=(
        Setting("width", "Width between the sides", "length", "120", "left to right"),
        Setting("depth", "Depth", "length", "90", "front to back"),
        Setting("height", "Height", "length", "62", "of the sides"),
        Setting("insert", "Height of the inserts", "length", "40"),
        Setting("inserts", "Inserts", "count", "3"),
        Setting("held", "The inserts are", "choice", "glued", "Glued: tabs through the sides. Loose: they lift out.", ("glued", "loose")),
        Setting("radius", "Corner radius", "length", "8", "of the sides’ upper corners; empty for none", optional=True),
    ),
    make=_make,
    draw=_draw,
    sentence="{inserts} inserts {insert} tall stand between the sides; they are {held}. The sides’ upper corners are rounded {radius}.",
)  # fmt: skip
