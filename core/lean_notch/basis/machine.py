"""The machines of a workshop: bed, what the beam or tool takes away, speeds, tools, and what the sheet must stay clear of."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import asdict, dataclass, fields, replace
from typing import Any, Literal, TypeVar, cast

from ..documents.plain import choice, entry, mapping, mm, sequence, text, whole
from ..geometry import Box
from ..ground.errors import BadDocument, KerfTooWide, OutOfRange
from ..ground.limits import MOST_KEEP_OUTS, MOST_TOOLS
from ..lengths.length import positive_mm
from ..lengths.said import say_mm
from .stock import LARGEST_SHEET_MM

T = TypeVar("T")

MACHINE_KINDS = ("laser", "router")
WIDEST_KERF_MM = 50.0

Corner = Literal["lower left", "lower right", "upper right", "upper left"]
CORNERS: tuple[Corner, ...] = ("lower left", "lower right", "upper right", "upper left")
XAxis = Literal["right", "left"]
YAxis = Literal["up", "down"]


@dataclass(frozen=True)
class Speeds:
    """In mm/s, the acceleration in mm/s². `score` is also that of fold lines."""

    cut: float
    score: float
    engrave: float
    pocket: float
    travel: float
    acceleration: float

    def __post_init__(self) -> None:
        for name, value in asdict(self).items():
            if not (math.isfinite(value) and 0 < value <= 1e5):
                raise OutOfRange(
                    f"The machine's {name} is {value:g}.",
                    fix="Give a speed of more than 0, in mm/s (acceleration in mm/s²).",
                    field=f"machine.speeds.{name}",
                )


USUAL_SPEEDS = {
    "laser": Speeds(cut=15, score=80, engrave=300, pocket=100, travel=200, acceleration=2000),
    "router": Speeds(cut=25, score=40, engrave=30, pocket=30, travel=80, acceleration=300),
}
"""Orders of size for small workshop machines, until their own are given. Common practice."""


@dataclass(frozen=True)
class Tool:
    """A router's cutter; it cuts as deep as its flutes are long."""

    name: str
    diameter: float
    flute_length: float
    flutes: int = 2


@dataclass(frozen=True)
class KeepOut:
    """A place on the bed that nothing may be cut at: a clamp, a worn spot. Measured from the bed's lower left corner."""

    name: str
    x: float
    y: float
    width: float
    height: float

    @property
    def box(self) -> Box:
        return (self.x, self.y, self.x + self.width, self.y + self.height)


@dataclass(frozen=True)
class KerfFound:
    """Where a kerf comes from: the test piece, its board and that board's thickness, the day, and how far the true kerf
    may be off in 95 of 100 cases (`within`). `stock_id` is the rack's number of the board, "" for one that lies on none."""

    way: str
    stock: str
    thickness: float
    date: str
    within: float
    stock_id: str = ""


@dataclass(frozen=True)
class Machine:
    """A laser or router: its bed, and the width of what its beam or tool takes away (the kerf).

    `speeds` are None until they are given; `usual` then stands in for estimates. Coordinates count from the corner
    `origin` of the bed, x to the `x_axis` and y `y_axis`, as the operator sees it. `tool` names the one of `tools` that
    is in the spindle. `found` says where the kerf comes from, None for one that was typed. `id` is the workshop's own
    number, "" for a machine it does not know.
    """

    name: str
    kind: str
    bed_width: float
    bed_height: float
    kerf: float
    speeds: Speeds | None = None
    found: KerfFound | None = None
    origin: Corner = "lower left"
    x_axis: XAxis = "right"
    y_axis: YAxis = "up"
    tools: tuple[Tool, ...] = ()
    tool: str = ""
    keep_outs: tuple[KeepOut, ...] = ()
    id: str = ""

    @property
    def usual(self) -> Speeds:
        """Its own speeds, or those of its kind."""
        return self.speeds or USUAL_SPEEDS[self.kind]

    @property
    def in_spindle(self) -> Tool | None:
        return next((tool for tool in self.tools if tool.name == self.tool), None)

    @property
    def kerf_within(self) -> float:
        """How far the true kerf may be from `kerf` either way, in 95 of 100 cases; 0 if nobody found out."""
        return self.found.within if self.found else 0.0

    def __post_init__(self) -> None:
        positive_mm(self.bed_width, "machine.bed_width", "The bed's width", LARGEST_SHEET_MM)
        positive_mm(self.bed_height, "machine.bed_height", "The bed's height", LARGEST_SHEET_MM)
        if not math.isfinite(self.kerf) or self.kerf < 0:
            raise OutOfRange(
                f"The kerf is {say_mm(self.kerf)}.",
                fix="Give what the beam or tool removes, 0 mm or more: 0.1 to 0.2 mm for a laser in thin ply.",
                field="kerf",
            )
        if self.kerf > WIDEST_KERF_MM:
            raise KerfTooWide(
                f"The kerf is {say_mm(self.kerf)}.",
                fix=f"Give at most {say_mm(WIDEST_KERF_MM)}; check the decimal point and the unit.",
                field="kerf",
            )
        for i, one in enumerate(self.keep_outs):
            left, low, right, high = one.box
            if right <= 0 or high <= 0 or left >= self.bed_width or low >= self.bed_height:
                raise OutOfRange(
                    f"The {one.name} lies beside the bed of {say_mm(self.bed_width)} x {say_mm(self.bed_height)}.",
                    fix="Measure its place from the bed's lower left corner; check the unit.",
                    field=f"machine.keep_outs[{i}]",
                )
        if self.tool and self.in_spindle is None:
            raise BadDocument(
                f"{self.name} has no tool “{self.tool}”.",
                fix=f"Choose one of: {', '.join(tool.name for tool in self.tools) or 'none yet, add one'}.",
                field="tool",
            )

    def with_tool(self, name: str) -> Machine:
        """This machine with another tool in its spindle, whose diameter then is the kerf; "" for none of them."""
        changed = replace(self, tool=name)
        tool = changed.in_spindle
        return replace(changed, kerf=tool.diameter, found=None) if tool else changed


def machine_from_json(document: object) -> Machine:
    """A Machine from its document. Raises NotchError at the field."""
    machine = mapping(document, "machine")
    tools = _list(machine, "tools", MOST_TOOLS, _tool)
    if len({tool.name for tool in tools}) < len(tools):
        raise BadDocument("Two tools share a name.", fix="Name each its own way.", field="machine.tools")
    return Machine(
        name=text(entry(machine, "name", "machine"), "machine.name"),
        kind=choice(machine.get("kind", "laser"), MACHINE_KINDS, "machine.kind"),
        bed_width=mm(entry(machine, "bed_width", "machine"), "machine.bed_width"),
        bed_height=mm(entry(machine, "bed_height", "machine"), "machine.bed_height"),
        kerf=mm(entry(machine, "kerf", "machine"), "kerf"),
        speeds=_speeds(machine.get("speeds")),
        found=_found(machine.get("found")),
        origin=cast(Corner, choice(machine.get("origin", "lower left"), CORNERS, "machine.origin")),
        x_axis=cast(XAxis, choice(machine.get("x_axis", "right"), ("right", "left"), "machine.x_axis")),
        y_axis=cast(YAxis, choice(machine.get("y_axis", "up"), ("up", "down"), "machine.y_axis")),
        tools=tools,
        tool=text(machine.get("tool", ""), "tool", required=False),
        keep_outs=_list(machine, "keep_outs", MOST_KEEP_OUTS, _keep_out),
        id=text(machine.get("id", ""), "machine.id", 40, required=False),
    )


def machine_to_json(machine: Machine) -> dict[str, Any]:
    """The document that `machine_from_json` reads, all lengths in mm."""
    return asdict(machine)


def _list(machine: Any, name: str, most: int, read: Callable[[object, str], T]) -> tuple[T, ...]:
    given = sequence(machine.get(name, ()), f"machine.{name}", most)
    return tuple(read(one, f"machine.{name}[{i}]") for i, one in enumerate(given))


def _speeds(document: object) -> Speeds | None:
    if document is None:
        return None
    given = mapping(document, "machine.speeds")
    names = [one.name for one in fields(Speeds)]
    return Speeds(**{name: mm(entry(given, name, "machine.speeds"), f"machine.speeds.{name}") for name in names})


def _found(document: object) -> KerfFound | None:
    if document is None:
        return None
    given = mapping(document, "machine.found")
    way = choice(entry(given, "way", "machine.found"), ("slats", "plug"), "machine.found")
    stock, date = (text(entry(given, name, "machine.found"), "machine.found") for name in ("stock", "date"))
    thickness, within = (mm(entry(given, name, "machine.found"), "machine.found") for name in ("thickness", "within"))
    if not 0 <= within <= WIDEST_KERF_MM:
        raise OutOfRange(
            f"An uncertainty of {say_mm(within)} is too large to be useful.",
            fix="Give 0 or more.",
            field="machine.found",
        )
    number = text(given.get("stock_id", ""), "machine.found", 40, required=False)
    return KerfFound(way, stock, thickness, date, within, number)


def _tool(value: object, field: str) -> Tool:
    given = mapping(value, field)
    diameter, flute = (mm(entry(given, name, field), field) for name in ("diameter", "flute_length"))
    return Tool(
        text(entry(given, "name", field), field, 60),
        positive_mm(diameter, field, "The tool's diameter", WIDEST_KERF_MM),
        positive_mm(flute, field, "The flute length", 500),
        whole(given.get("flutes", 2), field, 1, 20),
    )


def _keep_out(value: object, field: str) -> KeepOut:
    given = mapping(value, field)
    x, y, width, height = (mm(entry(given, name, field), field) for name in ("x", "y", "width", "height"))
    if not all(abs(place) <= LARGEST_SHEET_MM for place in (x, y)):
        raise OutOfRange("The place lies beyond 20 m.", fix="Check the unit.", field=field)
    positive_mm(width, field, "Its width", LARGEST_SHEET_MM)
    positive_mm(height, field, "Its height", LARGEST_SHEET_MM)
    return KeepOut(text(entry(given, "name", field), field, 60), x, y, width, height)
