"""Tag: a rounded plate with a hole at its left end and a line of text beside it."""

from __future__ import annotations

from collections.abc import Mapping

from ..design import Design, Disc, Lettering, Part, Rectangle, ShapeStep, Step
from ..ground.errors import BadGeometry
from ..lengths.length import Length
from ..lengths.said import say_mm
from .plates import check_radius, half_way_up, named
from .recipe import Recipe, Setting, Values

LENGTHS = {"width": "width", "height": "height", "radius": "corner radius", "hole": "hole", "margin": "hole from the edge",
           "text_height": "height of capitals"}  # fmt: skip


def _check(names: Mapping[str, float]) -> None:
    check_radius(names)
    if names["margin"] + names["hole"] >= names["width"]:
        raise BadGeometry(
            f"The hole ends {say_mm(names['margin'] + names['hole'])} from the left, off a tag of {say_mm(names['width'])}.",
            fix=f"Give less than {say_mm(names['width'] - names['hole'])}.", field="margin",
        )  # fmt: skip
    if names["hole"] >= names["height"]:
        raise BadGeometry(
            f"A hole of {say_mm(names['hole'])} does not leave anything of a tag {say_mm(names['height'])} high.",
            fix=f"Give less than {say_mm(names['height'])}.", field="hole",
        )  # fmt: skip


def _make(name: str, values: Values) -> Design:
    hole = ShapeStep("hole", Disc(Length("hole")), "cut", x=Length("margin"), from_x="edge:blank.left")
    steps: list[Step] = [
        ShapeStep("blank", Rectangle(Length("width"), Length("height"), Length("radius")), title="plate"),
        half_way_up(hole),
    ]
    text = str(values["text"]).strip()
    if text:
        letters = Lettering(text, Length("text_height"))
        beside = ShapeStep("text", letters, "mark", anchor="centre", from_x="side:hole.right", to_x="edge:blank.right")
        steps.append(half_way_up(beside))
    return Design(name, (Part("tag", "Tag", tuple(steps), loose=1),), dimensions=named(values, LENGTHS))


TAG = Recipe(
    name="tag",
    title="Tag",
    about="A rounded plate with a hole and a line of engraved text.",
    settings=(
        Setting("width", "Width", "length", "80", "left to right"),
        Setting("height", "Height", "length", "30", "bottom to top"),
        Setting("radius", "Corner radius", "length", "8", "at most half the shorter side"),
        Setting("hole", "Hole", "length", "5", "across"),
        Setting("margin", "Hole from the edge", "length", "6", "to the edge of the hole"),
        Setting("text", "Text", "words", "Reedmere", "Leave empty for a plain tag"),
        Setting("text_height", "Height of capitals", "length", "9"),
    ),
    make=_make,
    check=_check,
    sentence="Corners are rounded {radius}. The hole is {hole} across, {margin} from the edge. It says {text}, {text_height} high.",
)
