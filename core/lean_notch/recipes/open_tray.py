"""Open tray: a base and four sides, finger joints on every edge, given by its inside or its outside.

The box stands with its lower front left corner at the origin: x to the right, y to the back, z up. Front and back
have the end fingers of every edge they share, and so all four lower corners; left and right come next, the base last.
"""

from __future__ import annotations

from typing import cast

from ..design import Design, Dimension, EdgeRef, FingerJoint, Panel, Part, Pose, Side
from ..units import Length
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
    parts = (
        Part("front", "Front", Panel(w, h), Pose((zero, zero, zero), "+x", "+z")),
        Part("back", "Back", Panel(w, h), Pose((w, d, zero), "-x", "+z")),
        Part("left", "Left side", Panel(d, h), Pose((zero, d, zero), "-y", "+z")),
        Part("right", "Right side", Panel(d, h), Pose((w, zero, zero), "+y", "+z")),
        Part("base", "Base", Panel(w, d), Pose((zero, zero, thick), "+x", "+y")),
    )
    wanted = finger if finger.text.strip() else None
    titles = {part.id: part.title for part in parts}

    def joint(first: str, first_side: Side, second: str, second_side: Side) -> FingerJoint:
        return FingerJoint(
            id=f"{first}-{second}",
            title=f"{titles[first]} meets {titles[second].lower()}",
            first=EdgeRef(first, first_side),
            second=EdgeRef(second, second_side),
            finger=wanted,
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
    return Design(name, tuple(dimensions), parts, joints, OPEN_TRAY.name, tuple(values.items()))


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
            "what must fit in, or what it must fit into",
            ("inside", "outside"),
        ),
        Setting(
            "finger",
            "Finger width",
            "length",
            "",
            "empty: three times the thickness of the board",
            optional=True,
        ),
    ),
    make=_make,
)
