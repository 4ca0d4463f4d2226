"""Case: four walls with finger joints, with or without a base, feet, hand holes and a lid; given by its inside or its outside."""

from __future__ import annotations

from collections.abc import Mapping
from typing import cast

from ..design import MAIN, Design, Dimension
from ..ground.errors import OutOfRange
from ..lengths.length import Length
from .box import Assembly, Lid, Shell, shell, sizes
from .open_tray import views_of_box
from .picture import Names, Views
from .plates import is_empty
from .recipe import Recipe, Setting, Values

_LIDS: Mapping[str, Lid] = {"open at the top": "open", "closed all round": "closed", "a lid that lifts off": "lift-off"}


def _make(name: str, values: Values) -> Design:
    made = Assembly()
    feet, holes = not is_empty(values, "feet"), not is_empty(values, "hand_hole")
    how = Shell(values["base"] == "a base", feet, holes, _LIDS[str(values["lid"])])
    if feet and not how.base:
        raise OutOfRange(
            "A case without a base has no feet.", fix="Give it a base, or leave the feet empty.", field="feet"
        )
    for side in ("width", "depth", "height"):
        made.dimensions.append(Dimension(side, side, cast(Length, values[side]), chosen=True))
    if feet:
        made.dimensions.append(Dimension("feet", "height of the feet", cast(Length, values["feet"]), chosen=True))
        made.follows("foot_width", "width of a foot", "max(4*thickness, feet)")
    if holes:
        made.dimensions.append(
            Dimension("hand_hole", "length of a hand hole", cast(Length, values["hand_hole"]), chosen=True)
        )
    if how.lid == "lift-off":
        made.dimensions.append(
            Dimension("lid_gap", "gap round the lid’s lip", cast(Length, values["lid_gap"]), chosen=True)
        )
    sizes(made, inside=values["sizes"] == "inside", floor=how.floor, top=how.top)
    shell(made, how, cast(Length, values["finger"]))
    if holes:
        made.follows(
            "hand_side", "material beside a hand hole", "(outside_depth - hand_hole)/2 - 2*thickness", positive=True
        )
        made.follows(
            "hand_below",
            "material under a hand hole",
            f"wall_height - 3*hand_hole/8 - 4*thickness - ({how.floor})",
            positive=True,
        )
    return made.design(name, (MAIN,))


def _draw(names: Names, words: Mapping[str, str]) -> Views:
    floor = "thickness" if words["base"] == "a base" else ""
    low = (names[floor] if floor else 0.0) + names.get("feet", 0.0)
    return views_of_box(names, words, low)


CASE = Recipe(
    name="case",
    title="Case",
    about="Four walls with finger joints: open, closed or with a lid, with or without a base, feet and hand holes.",
    settings=(
        Setting("width", "Width", "length", "180", "left to right"),
        Setting("depth", "Depth", "length", "120", "front to back"),
        Setting("height", "Height", "length", "80", "bottom to top"),
        Setting("sizes", "Sizes are", "choice", "inside", "Inside: the contents must fit. Outside: the case must fit somewhere.", ("inside", "outside")),
        Setting("lid", "It is", "choice", "a lid that lifts off", "", tuple(_LIDS)),
        Setting("lid_gap", "Gap round the lid’s lip", "length", "0.3", "so that the lid lifts off easily"),
        Setting("base", "It has", "choice", "a base", "", ("a base", "no base")),
        Setting("feet", "Feet", "length", "", "Leave empty for none; at least 3 × thickness", optional=True),
        Setting("hand_hole", "Hand holes", "length", "", "Leave empty for none; about 90 for a hand", optional=True),
        Setting("finger", "Finger width", "length", "", "Leave empty for 3 × thickness", optional=True),
    ),
    make=_make,
    draw=_draw,
    sentence="The sizes are {sizes}. It is {lid}, with a gap of {lid_gap} round its lip. It has {base}, feet {feet} high and hand holes {hand_hole} long. "
    "Fingers {finger} wide hold the corners.",
)  # fmt: skip
