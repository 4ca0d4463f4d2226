"""Angle gauge: bars that leave one hub at chosen angles and are one piece with it, with a pocket for a rule along the first."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from ..design import CornerStep, Design, Disc, Part, Rectangle, ShapeStep, Step
from ..errors import BadGeometry
from ..units import Amount, Length, say_mm
from .plates import half_way_up, is_empty, named
from .recipe import Recipe, Setting, Values

LENGTHS = {
    "width": "length of a bar", "height": "width of a bar", "radius": "rounding between bars", "hole": "hole at the hub",
    "rule_width": "width of the rule", "rule_length": "length of the rule's pocket", "depth": "depth of the pocket",
}  # fmt: skip


def _check(names: Mapping[str, float]) -> None:
    if names["rule_width"] >= names["height"]:
        raise BadGeometry(
            f"A rule {say_mm(names['rule_width'])} wide leaves nothing beside it of a bar {say_mm(names['height'])} wide.",
            fix=f"Give less than {say_mm(names['height'])}.", field="rule_width",
        )  # fmt: skip
    most = names["width"] - names["height"]
    if names["rule_length"] > most:
        raise BadGeometry(
            f"A pocket of {say_mm(names['rule_length'])} runs off a bar of {say_mm(names['width'])}, the hub counted.",
            fix=f"Give at most {say_mm(most)}.", field="rule_length",
        )  # fmt: skip
    if names.get("hole", 0.0) >= names["height"]:
        raise BadGeometry(
            f"A hole of {say_mm(names['hole'])} is as wide as a bar.", fix=f"Give less than {say_mm(names['height'])}.",
            field="hole",
        )  # fmt: skip


def _at_hub(step: ShapeStep) -> ShapeStep:
    """The middle of the first bar's left end is the hub's centre."""
    return replace(step, from_x="middle:blank.left", from_y="middle:blank.left")


def _make(name: str, values: Values) -> Design:
    bar = Rectangle(Length("width"), Length("height"))
    steps: list[Step] = [ShapeStep("blank", bar, title="first bar")]
    for step, title in (("second", "second bar"), ("third", "third bar")):
        angle = Amount(str(values[f"{step}_angle"]))
        steps.append(_at_hub(ShapeStep(step, bar, turn=angle, anchor="left", title=title)))
    steps.append(_at_hub(ShapeStep("hub", Disc(Length("1.5*height")))))
    if not is_empty(values, "radius"):
        steps.append(CornerStep("soft", Length("radius"), which="inner", title="inner corners"))
    if not is_empty(values, "hole"):
        steps.append(_at_hub(ShapeStep("hole", Disc(Length("hole")), "cut")))
    rule = Rectangle(Length("rule_length"), Length("rule_width"))
    pocket = ShapeStep("rule", rule, "mark", "pocket", depth=Length("depth"), title="pocket for the rule")
    steps.append(half_way_up(replace(pocket, anchor="right", from_x="middle:blank.right")))
    return Design(name, (Part("gauge", "Angle gauge", tuple(steps), loose=1),), dimensions=named(values, LENGTHS))


ANGLE_GAUGE = Recipe(
    name="angle-gauge",
    title="Angle gauge",
    about="Bars at chosen angles, one piece, with a pocket of partial depth for a rule.",
    settings=(
        Setting("width", "Length of a bar", "length", "120", "from the hub to its end"),
        Setting("height", "Width of a bar", "length", "22"),
        Setting("second_angle", "Second bar at", "angle", "60", "degrees from the first"),
        Setting("third_angle", "Third bar at", "angle", "135", "degrees from the first"),
        Setting("radius", "Rounding between bars", "length", "3", "of the inner corners", optional=True),
        Setting("hole", "Hole at the hub", "length", "5", "across", optional=True),
        Setting("rule_width", "Width of the rule", "length", "13"),
        Setting("rule_length", "Length of its pocket", "length", "90"),
        Setting("depth", "Depth of its pocket", "length", "1", "less than the board is thick"),
    ),
    make=_make,
    check=_check,
    sentence="The second bar stands at {second_angle} degrees, the third at {third_angle}; corners between them are rounded "
    "{radius}. The hub has a hole of {hole}. The pocket takes a rule {rule_width} wide, {rule_length} long and {depth} deep.",
)
