"""Open tray: a base and four sides, finger joints on every edge, given by its inside or its outside.

The box stands with its lower front left corner at the origin: x to the right, y to the back, z up. Front and back
have the end fingers of every edge they share, and so all four lower corners; left and right come next, the base last.
"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal, cast

from ..design import (
    AlongAxes,
    Design,
    Dimension,
    Joint,
    Member,
    Part,
    Placement,
    Rectangle,
    ShapeStep,
    Side,
)
from ..design.document import Axis
from ..geometry import Point
from ..joints import Finger
from ..lengths.length import Length
from .picture import Handle, Names, Shape, SizeLine, View, Views
from .recipe import Recipe, Setting, Values


def _make(name: str, values: Values) -> Design:
    width, depth, height, finger = (cast(Length, values[key]) for key in ("width", "depth", "height", "finger"))
    inside = values["sizes"] == "inside"
    outer, inner = ("{0} + {1}", "{0}") if inside else ("{0}", "{0} - {1}")
    dimensions = [
        Dimension("width", "width", width, chosen=True),
        Dimension("depth", "depth", depth, chosen=True),
        Dimension("height", "height", height, chosen=True),
    ]
    for side, walls in (("width", "2*thickness"), ("depth", "2*thickness"), ("height", "thickness")):
        dimensions.append(Dimension(f"outside_{side}", f"outside {side}", Length(outer.format(side, walls))))
        dimensions.append(Dimension(f"inside_{side}", f"inside {side}", Length(inner.format(side, walls))))
    w, d, h, zero, thick = (
        Length(text) for text in ("outside_width", "outside_depth", "outside_height", "0", "thickness")
    )

    def panel(part_id: str, title: str, width: Length, height: Length) -> Part:
        return Part(part_id, title, (ShapeStep("blank", Rectangle(width, height)),))

    def stands(part: str, x: Length, y: Length, z: Length, u: Axis, v: Axis) -> Placement:
        return Placement(part, part, AlongAxes(x, y, z, u, v))

    parts = (
        panel("front", "Front", w, h),
        panel("back", "Back", w, h),
        panel("left", "Left side", d, h),
        panel("right", "Right side", d, h),
        panel("base", "Base", w, d),
    )
    placements = (
        stands("front", zero, zero, zero, "+x", "+z"),
        stands("back", w, d, zero, "-x", "+z"),
        stands("left", zero, d, zero, "-y", "+z"),
        stands("right", w, zero, zero, "+y", "+z"),
        stands("base", zero, zero, thick, "+x", "+y"),
    )
    how = Finger(finger if finger.text.strip() else None)
    titles = {part.id: part.title for part in parts}

    def joint(first: str, first_side: Side, second: str, second_side: Side) -> Joint:
        return Joint(
            id=f"{first}-{second}",
            title=f"{titles[first]} meets {titles[second].lower()}",
            first=Member(first, f"blank.{first_side}"),
            second=Member(second, f"blank.{second_side}"),
            how=how,
        )

    joints = (
        joint("front", "left", "left", "right"),
        joint("front", "right", "right", "left"),
        joint("back", "right", "left", "left"),
        joint("back", "left", "right", "right"),
        joint("front", "bottom", "base", "bottom"),
        joint("back", "bottom", "base", "top"),
        joint("left", "bottom", "base", "left"),
        joint("right", "bottom", "base", "right"),
    )
    return Design(name, parts, placements, joints, tuple(dimensions))


def _draw(names: Names, settings: Mapping[str, str]) -> Views:
    return views_of_box(names, settings, names["thickness"])


def views_of_box(names: Names, settings: Mapping[str, str], floor: float) -> Views:
    """From above and from the front, the outer lower left corner at the origin; the inside begins at `floor`."""
    t, chosen = names["thickness"], settings["sizes"]
    width, depth, height = (names[f"outside_{side}"] for side in ("width", "depth", "height"))

    def line(setting: str, says: str, start: Point, end: Point, side: Literal["below", "right"]) -> SizeLine:
        value = names[f"{says}_{setting}"]
        return SizeLine(says, value, start, end, side, int(says == "outside"), setting if says == chosen else "")

    above = View(
        "From above",
        (
            Shape("board", (0.0, 0.0, width, depth)),
            Shape("clear", (t, t, width - t, depth - t)),
        ),
        (
            line("width", "inside", (t, 0.0), (width - t, 0.0), "below"),
            line("width", "outside", (0.0, 0.0), (width, 0.0), "below"),
            line("depth", "inside", (width, t), (width, depth - t), "right"),
            line("depth", "outside", (width, 0.0), (width, depth), "right"),
        ),
        (Handle("width", (width - t / 2, depth / 2), "x"), Handle("depth", (width / 2, depth - t / 2), "y")),
    )
    front = View(
        "From the front",
        (
            Shape("face", (0.0, 0.0, width, height)),
            Shape("hidden", (t, floor, width - t, floor + names["inside_height"])),
        ),
        (
            line("height", "inside", (width, floor), (width, floor + names["inside_height"]), "right"),
            line("height", "outside", (width, 0.0), (width, height), "right"),
        ),
        (Handle("height", (width / 2, height), "y"),),
    )
    return above, front


OPEN_TRAY = Recipe(
    name="open-tray",
    title="Open tray",
    about="A base and four sides with finger joints, open at the top.",
    settings=(
        Setting("width", "Width", "length", "150", "left to right"),
        Setting("depth", "Depth", "length", "100", "front to back"),
        Setting("height", "Height", "length", "60", "bottom to top"),
        Setting(
            "sizes",
            "Sizes are",
            "choice",
            "inside",
            "Inside: the contents must fit. Outside: the box must fit somewhere.",
            ("inside", "outside"),
        ),
        Setting(
            "finger",
            "Finger width",
            "length",
            "",
            "Leave empty for 3 × thickness",
            optional=True,
        ),
    ),
    make=_make,
    draw=_draw,
    sentence="The sizes are {sizes}. Fingers {finger} wide hold the corners.",
)
