"""Panel: a plate with round and square openings in rows, lettering and a row of marks, all cut through."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from ..design import Design, Disc, Lettering, Part, Rectangle, ShapeStep, Slot, Spread, Step
from ..ground.errors import BadGeometry
from ..lengths.length import Amount, Length
from ..lengths.said import say_mm
from .plates import check_radius, half_way_up, named
from .recipe import Recipe, Setting, Values

LENGTHS = {
    "width": "width", "height": "height", "radius": "corner radius", "margin": "margin", "opening": "round opening",
    "side": "square opening", "text_height": "height of capitals", "mark": "length of a mark",
}  # fmt: skip


def _check(names: Mapping[str, float]) -> None:
    check_radius(names)
    used = 2 * names["margin"] + max(names["opening"], names["side"], 0.0)
    if used > names["height"]:
        raise BadGeometry(
            f"Openings and margins are {say_mm(used)} high, the panel {say_mm(names['height'])}.",
            fix=f"Give a height of at least {say_mm(used)}, or smaller openings.", field="height",
        )  # fmt: skip


def _row(count: str, start: str = "", end: str = "") -> Spread:
    return Spread(Amount(count), "x", start, end)


def _make(name: str, values: Values) -> Design:
    """Openings stand in one row half-way up: the round ones in the left half, the square ones in the right half."""
    rounds, squares, marks = (str(values[key]) for key in ("rounds", "squares", "marks"))
    left, right = ("edge:blank.left", "middle:blank.bottom"), ("middle:blank.bottom", "edge:blank.right")
    square, mark = Rectangle(Length("side"), Length("side")), Slot(Length("mark"), Length("mark/3"))
    round_row = ShapeStep("round", Disc(Length("opening")), "cut", title="round openings", pattern=_row(rounds, *left))
    square_row = ShapeStep("square", square, "cut", title="square openings", pattern=_row(squares, *right))
    margin = Length("margin")
    mark_row = ShapeStep("marks", mark, "cut", y=margin, from_y="edge:blank.bottom", turn=Amount("90"))
    steps: list[Step] = [
        ShapeStep("blank", Rectangle(Length("width"), Length("height"), Length("radius")), title="plate"),
        *([half_way_up(round_row)] if rounds != "0" else []),
        *([half_way_up(square_row)] if squares != "0" else []),
        *([replace(mark_row, pattern=_row(marks))] if marks != "0" else []),
    ]
    text = str(values["text"]).strip()
    if text:
        letters = ShapeStep("text", Lettering(text, Length("text_height")), "cut", y=margin, from_y="edge:blank.top")
        steps.append(replace(letters, from_x="edge:blank.left", to_x="edge:blank.right", title="lettering"))
    return Design(name, (Part("panel", "Panel", tuple(steps), loose=1),), dimensions=named(values, LENGTHS))


PANEL = Recipe(
    name="panel",
    title="Panel",
    about="A plate with round and square openings, lettering and a row of marks cut through.",
    settings=(
        Setting("width", "Width", "length", "240", "left to right"),
        Setting("height", "Height", "length", "120", "bottom to top"),
        Setting("radius", "Corner radius", "length", "6", "at most half the shorter side"),
        Setting("margin", "Margin", "length", "8", "of lettering and marks, from the edge"),
        Setting("rounds", "Round openings", "count", "3", "0 for none", least=0),
        Setting("opening", "Round opening", "length", "24", "across"),
        Setting("squares", "Square openings", "count", "2", "0 for none", least=0),
        Setting("side", "Square opening", "length", "26", "side"),
        Setting("text", "Lettering", "words", "REEDMERE", "Leave empty for none"),
        Setting("text_height", "Height of capitals", "length", "14"),
        Setting("marks", "Marks", "count", "11", "0 for none", least=0),
        Setting("mark", "Length of a mark", "length", "9"),
    ),
    make=_make,
    check=_check,
    sentence="{rounds} round openings, {opening} across, and {squares} square ones, {side} a side. It says {text}, "
    "{text_height} high; {marks} marks {mark} long stand along the bottom. Corners are rounded {radius}, margins are {margin}.",
)
