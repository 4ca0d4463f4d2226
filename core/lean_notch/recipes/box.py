"""The shell that cases share: four walls, and a base, feet, hand holes and a lid if they are asked for.

The box stands with its lower front left corner at the origin: x to the right, y to the back, z up. Front and back have the end
fingers of every edge they share; left and right come next, base and top last.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Literal

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
    Slot,
    Step,
)
from ..design.document import Axis, BoardNeed
from ..documents.as_typed import Typed
from ..joints import Finger, TabAndSlot
from ..joints.mate import FACE
from ..lengths.length import Length

Lid = Literal["open", "closed", "lift-off"]
ZERO = Length("0")


@dataclass
class Assembly:
    """What a recipe puts together, in the order in which it comes."""

    parts: list[Part] = field(default_factory=list)
    placements: list[Placement] = field(default_factory=list)
    joints: list[Joint] = field(default_factory=list)
    dimensions: list[Dimension] = field(default_factory=list)

    def follows(self, name: str, title: str, text: str, *, positive: bool = False) -> None:
        self.dimensions.append(Dimension(name, title, Length(text), positive=positive))

    def panel(
        self, part_id: str, title: str, width: str, height: str, *more: Step, board: str = "main", loose: int = 0
    ) -> None:
        blank = ShapeStep("blank", Rectangle(Length(width), Length(height)))
        self.parts.append(Part(part_id, title, (blank, *more), board, loose))

    def stands(self, part: str, at: tuple[str, str, str], u: Axis, v: Axis = "+z", name: str = "") -> None:
        x, y, z = (Length(text) for text in at)
        self.placements.append(Placement(name or part, part, AlongAxes(x, y, z, u, v)))

    def joint(self, first: str, edge: str, second: str, other: str, how: Typed) -> None:
        """Between two placements, at a side of their blanks or at their face."""
        titles = {one.id: part.title for one in self.placements for part in self.parts if part.id == one.part}
        edges = [FACE if one == FACE else f"blank.{one}" for one in (edge, other)]
        taken = {joint.id for joint in self.joints}
        plain = f"{first}-{second}"
        self.joints.append(
            Joint(
                next(name for name in (plain, *(f"{plain}-{i}" for i in range(2, 9))) if name not in taken),
                f"{_named(titles[first], first)} meets {_named(titles[second], second).lower()}",
                Member(first, edges[0]), Member(second, edges[1]), how,
            )
        )  # fmt: skip

    def design(self, name: str, boards: tuple[BoardNeed, ...]) -> Design:
        return Design(
            name, tuple(self.parts), tuple(self.placements), tuple(self.joints), tuple(self.dimensions), boards
        )


def _named(title: str, placement: str) -> str:
    """A part's title, with the number of its placement where it stands in several places.

    >>> _named("Column wall", "column-3"), _named("Front", "front")
    ('Column wall 3', 'Front')
    """
    number = placement.rpartition("-")[2]
    return f"{title} {number}" if number.isdigit() else title


def sizes(
    made: Assembly, *, inside: bool, floor: str, top: str, sides: tuple[str, ...] = ("width", "depth", "height")
) -> None:
    """Inside and outside as named lengths, from the one that is chosen: `floor` and `top` are what the box has below and above."""
    outer, inner = ("{0} + {1}", "{0}") if inside else ("{0}", "{0} - ({1})")
    walls = {"width": "2*thickness", "depth": "2*thickness", "height": f"{floor} + {top}"}
    for side in sides:
        made.follows(f"outside_{side}", f"outside {side}", outer.format(side, walls[side]))
        made.follows(f"inside_{side}", f"inside {side}", inner.format(side, walls[side]), positive=True)


@dataclass(frozen=True)
class Shell:
    """How a box is closed: `floor` is the height of the base's upper face, "0" without one."""

    base: bool
    feet: bool
    hand_holes: bool
    lid: Lid

    @property
    def floor(self) -> str:
        return ("feet + thickness" if self.feet else "thickness") if self.base else "0"

    @property
    def top(self) -> str:
        return "0" if self.lid == "open" else "thickness"

    @property
    def walls(self) -> str:
        """How high the walls are."""
        return "outside_height - thickness" if self.lid == "lift-off" else "outside_height"


def shell(made: Assembly, how: Shell, finger: Length) -> None:
    """Walls, and what closes them; inside and outside are known by name."""
    fingers = Finger(finger if finger.text.strip() else None)
    made.follows("wall_height", "height of the walls", how.walls, positive=True)
    w, d, h = "outside_width", "outside_depth", "wall_height"
    arches = {wide: _arch(wide) for wide in (w, d)} if how.feet and how.base else {}
    if arches:
        made.follows("arch", "height of the arches", "feet - 2*thickness", positive=True)
    holes = (_hand_hole(d),) if how.hand_holes else ()
    for part, title, wide in (
        ("front", "Front", w),
        ("back", "Back", w),
        ("left", "Left side", d),
        ("right", "Right side", d),
    ):
        more = holes if wide == d else ()
        made.panel(part, title, wide, h, *((arches[wide],) if arches else ()), *more)
    made.stands("front", ("0", "0", "0"), "+x")
    made.stands("back", (w, d, "0"), "-x")
    made.stands("left", ("0", d, "0"), "-y")
    made.stands("right", (w, "0", "0"), "+y")
    made.joint("front", "left", "left", "right", fingers)
    made.joint("front", "right", "right", "left", fingers)
    made.joint("back", "right", "left", "left", fingers)
    made.joint("back", "left", "right", "right", fingers)
    if how.base and how.feet:
        made.panel("base", "Base", "inside_width", "inside_depth")
        made.stands("base", ("thickness", "thickness", "feet + thickness"), "+x", "+y")
        for side, wall in _ROUND:
            made.joint("base", side, wall, "face", TabAndSlot())
    elif how.base:
        made.panel("base", "Base", w, d)
        made.stands("base", ("0", "0", "thickness"), "+x", "+y")
        for side, wall in _ROUND:
            made.joint(wall, "bottom", "base", side, fingers)
    if how.lid == "closed":
        made.panel("top", "Top", w, d)
        made.stands("top", ("0", "0", h), "+x", "+y")
        for side, wall in _ROUND:
            made.joint(wall, "top", "top", side, fingers)
    elif how.lid == "lift-off":
        made.panel("lid", "Lid", w, d)
        made.stands("lid", ("0", "0", "outside_height"), "+x", "+y")
        # It is glued under the lid, and keeps it from sliding off.
        made.panel("lip", "Lip under the lid", "inside_width - 2*lid_gap", "inside_depth - 2*lid_gap")
        made.stands("lip", ("thickness + lid_gap", "thickness + lid_gap", "wall_height"), "+x", "+y")


_ROUND: tuple[tuple[Side, str], ...] = (("bottom", "front"), ("top", "back"), ("left", "left"), ("right", "right"))


def _arch(wide: str) -> Step:
    """What is cut out between two feet."""
    width = Length(f"{wide} - 2*foot_width")
    return ShapeStep(
        "arch", Rectangle(width, Length("arch")), "cut", x=Length("foot_width"), title="arch between the feet"
    )


def _hand_hole(wide: str) -> Step:
    return ShapeStep(
        "hand", Slot(Length("hand_hole"), Length("hand_hole/4")), "cut", x=Length(f"{wide}/2"),
        y=Length("wall_height - hand_hole/4 - 3*thickness"), title="hand hole",
    )  # fmt: skip
