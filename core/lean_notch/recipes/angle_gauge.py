"""Angle gauge: bars that leave one hub at chosen angles and are one piece with it, with a pocket for a rule along the first."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import replace

from ..design import CornerStep, Design, Disc, Part, Rectangle, ShapeStep, Step
from ..ground.errors import BadGeometry, NotchError
from ..lengths.length import Amount, Length
from ..lengths.said import say_mm
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
    steps.append(_at_hub(ShapeStep("hub", Disc(Length(f"{HUB}*height")))))
    if not is_empty(values, "radius"):
        steps.append(CornerStep("soft", Length("radius"), which="inner", title="inner corners"))
    if not is_empty(values, "hole"):
        steps.append(_at_hub(ShapeStep("hole", Disc(Length("hole")), "cut")))
    rule = Rectangle(Length("rule_length"), Length("rule_width"))
    pocket = ShapeStep("rule", rule, "mark", "pocket", depth=Length("depth"), title="pocket for the rule")
    steps.append(half_way_up(replace(pocket, anchor="right", from_x="middle:blank.right")))
    design = Design(name, (Part("gauge", "Angle gauge", tuple(steps), loose=1),), dimensions=named(values, LENGTHS))
    if not is_empty(values, "radius"):
        _check_angles(design, values)
    return design


HUB = 1.5
"""The hub is that many bars wide."""


def _check_angles(design: Design, values: Values) -> None:
    """Raises BadGeometry where the rounding between two bars finds no room.

    With half a bar b, a hub of radius R and a rounding r, bars at an angle t meet each other where sin(t / 2) < b / R, and need
    (b + r) / tan(t / 2) of their length for it; else each meets the hub, and between both roundings something of it is left where
    sin(t / 2) >= (b + r) / (R + r).
    """
    try:
        names = design.evaluate({})
        second, third = (Amount(str(values[f"{name}_angle"])).value(names) for name in ("second", "third"))
    except NotchError:  # it follows the board: then it is said where it is built
        return
    half, radius, length = names["height"] / 2, names["radius"], names["width"]
    hub = HUB * half
    hidden, clear = (2 * math.degrees(math.asin(one)) for one in (half / hub, (half + radius) / (hub + radius)))
    least = 2 * math.degrees(math.atan((half + radius) / length))
    low, high = sorted((second, third))
    last = "third_angle" if third >= second else "second_angle"
    first = "second_angle" if last == "third_angle" else "third_angle"
    for gap, field, start, way in ((low, first, 0.0, 1), (high - low, last, low, 1), (360 - high, last, 360.0, -1)):
        if least <= gap <= hidden or gap >= clear:
            continue
        below, above = math.floor(hidden), math.ceil(clear)
        works = math.ceil(least) if gap < least else below if gap - below < above - gap else above
        raise BadGeometry(
            f"Bars {gap:g}° apart leave no room for a rounding of {say_mm(radius)} between them.",
            fix=f"Use {start + way * works:g}°, or a smaller rounding.", field=field, mend=f"{start + way * works:g}",
        )  # fmt: skip


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
