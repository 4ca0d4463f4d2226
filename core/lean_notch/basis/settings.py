"""What a machine was set to for a board and an operation, on which day, and how it came out.

In: documents; out: checked settings, the one to look at for a board at hand, and hints by formula. Hints are no promise:
they say where to begin on a scrap.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass
from typing import Any, Literal, cast

from ..documents.plain import choice, entry, mapping, mm, text, whole
from ..ground.errors import BadDocument, OutOfRange
from ..ground.operations import OPERATIONS, Operation
from ..lengths.said import say_mm
from .machine import Machine, Tool
from .notebook import same_thickness
from .stock import STOCK_KINDS, Board

CutResult = Literal["clean", "charred", "rough", "not through"]
RESULTS: tuple[CutResult, ...] = ("clean", "charred", "rough", "not through")

Outcome = Literal["cut well", "not through", "burnt", "did not fit"]
OUTCOMES: dict[Outcome, CutResult | None] = {
    "cut well": "clean", "not through": "not through", "burnt": "charred", "did not fit": None,
}  # fmt: skip
"""How a file came out, as asked at the bench, and what that says of the machine's settings: of a fit, nothing."""

INTO_SPOILBOARD_MM = 0.05
"""Common practice."""

RUBS_BELOW_MM = 0.02
BREAKS_ABOVE_SHARE = 0.05
"""A chip thinner than that rubs and burns, one thicker than that share of the tool's diameter breaks it. Common practice."""


@dataclass(frozen=True)
class CutSetting:
    """What was set: a laser's `power` (%), `speed` (mm/s) and `passes`; a router's `spindle` (turns a minute), `feed`
    (mm a minute), `depth` of a pass (mm) and `ramp` (degrees). None for what does not apply."""

    stock: str
    kind: str
    thickness: float
    operation: Operation
    date: str
    result: CutResult
    power: float | None = None
    speed: float | None = None
    passes: int = 1
    tool: str = ""
    spindle: float | None = None
    feed: float | None = None
    depth: float | None = None
    ramp: float | None = None
    by: str = ""
    note: str = ""
    id: str = ""


_LIMITS = {
    "power": (0.1, 100.0, "percent"),
    "speed": (0.01, 5000.0, "mm/s"),
    "spindle": (100.0, 100_000.0, "turns a minute"),
    "feed": (1.0, 100_000.0, "mm a minute"),
    "depth": (0.01, 100.0, "mm"),
    "ramp": (0.0, 90.0, "degrees"),
}


def setting_from_json(document: object) -> CutSetting:
    """A CutSetting from its document. Raises NotchError at the field."""
    given = mapping(document, "setting")
    numbers = {name: _number(given.get(name), name) for name in _LIMITS}
    if numbers["speed"] is None and numbers["feed"] is None:
        raise BadDocument(
            "A speed or a feed is missing.", fix="Enter the speed or the feed that was used.", field="speed"
        )
    return CutSetting(
        stock=text(entry(given, "stock"), "stock"),
        kind=choice(entry(given, "kind"), STOCK_KINDS, "kind"),
        thickness=mm(entry(given, "thickness"), "thickness"),
        operation=cast(Operation, choice(given.get("operation", "cut"), tuple(OPERATIONS), "operation")),
        date=text(entry(given, "date"), "date", 40),
        result=cast(CutResult, choice(given.get("result", "clean"), RESULTS, "result")),
        passes=whole(given.get("passes") or 1, "passes", 1, 200),
        tool=text(given.get("tool", ""), "tool", 60, required=False),
        by=text(given.get("by", ""), "by", 60, required=False),
        note=text(given.get("note", ""), "note", 500, required=False),
        id=text(given.get("id", ""), "id", 40, required=False),
        **numbers,
    )


def setting_to_json(setting: CutSetting) -> dict[str, Any]:
    """The document that `setting_from_json` reads."""
    return asdict(setting)


def say_setting(setting: CutSetting) -> str:
    """The numbers that were written down, in one line.

    >>> say_setting(CutSetting("Ply", "plywood", 3.06, "cut", "2026-11-02", "clean", power=62, speed=12))
    '62 % · 12 mm/s'
    """
    said = [
        setting.power is not None and f"{setting.power:g} %",
        setting.speed is not None and f"{setting.speed:g} mm/s",
        setting.spindle is not None and f"{setting.spindle:g} rpm",
        setting.feed is not None and f"{setting.feed:g} mm/min",
        setting.depth is not None and f"{say_mm(setting.depth)} deep",
        setting.passes > 1 and f"{setting.passes} passes",
        setting.ramp is not None and f"ramp {setting.ramp:g}°",
        setting.tool,
    ]
    return " · ".join(part for part in said if part)


def settings_for(
    settings: Sequence[CutSetting], stock: Board, operation: Operation, tool: str = ""
) -> tuple[CutSetting, ...]:
    """What was set before for such a board, the most telling first: this board, then boards of its kind by how near
    their thickness is; the `tool` in the spindle before others, clean results before others, and the newest first among equals."""
    now = stock.readings.mean
    newest = sorted((s for s in settings if s.operation == operation), key=lambda s: s.date, reverse=True)
    own = [s for s in newest if s.stock == stock.name or s.kind == stock.kind]
    return tuple(
        sorted(
            own,
            key=lambda s: (
                s.stock != stock.name, not same_thickness(s.thickness, now) and round(abs(s.thickness - now), 1),
                s.tool != tool, s.result != "clean",
            ),
        )
    )  # fmt: skip


def not_used(setting: CutSetting, stock: Board, machine: Machine) -> str:
    """Why a setting says nothing of how long this board takes on this machine, in words; "" where it does."""
    if machine.kind == "router" and setting.tool != machine.tool:
        return f"with {setting.tool or 'a tool not written down'}, not with {machine.tool or 'a tool that is known'}"
    if setting.stock != stock.name:
        return f"for {setting.stock}, not for {stock.name}"
    if not same_thickness(setting.thickness, stock.readings.mean):
        return f"for {say_mm(setting.thickness, 2)}, not for {say_mm(stock.readings.mean, 2)}"
    if (setting.feed if machine.kind == "router" else setting.speed) is None:
        return "without a feed" if machine.kind == "router" else "without a speed"
    return setting.result if setting.result != "clean" else ""


Settings = Mapping[Operation, CutSetting]
"""One for each operation that has one."""


def most_telling(log: Sequence[CutSetting], stock: Board, machine: Machine) -> Settings:
    """By operation, the setting to look at for this board on this machine."""
    found = {operation: settings_for(log, stock, operation, machine.tool) for operation in OPERATIONS}
    return {operation: some[0] for operation, some in found.items() if some}


def in_use(told: Settings, stock: Board, machine: Machine) -> Settings:
    """Those that say how long this board takes on this machine."""
    return {operation: one for operation, one in told.items() if not not_used(one, stock, machine)}


def hints(setting: CutSetting, stock: Board, tool: Tool | None = None) -> tuple[str, ...]:
    """What formulas say about using `setting` on `stock`."""
    said = []
    now = stock.readings.thick
    if setting.speed is not None and not same_thickness(setting.thickness, stock.readings.mean):
        share = setting.thickness / stock.readings.mean
        said.append(
            f"This was for {say_mm(setting.thickness, 2)}: the same energy for {say_mm(stock.readings.mean, 2)} is about "
            f"{setting.speed * share:.3g} mm/s at the same power."
        )
    if setting.spindle and setting.feed and tool:
        chip = chip_load(setting.feed, setting.spindle, tool.flutes)
        said.append(f"Chip load {setting.feed:g} / ({setting.spindle:g} × {tool.flutes}) = {say_mm(chip)} a tooth.")
        if chip < RUBS_BELOW_MM:
            said.append(f"Below {say_mm(RUBS_BELOW_MM)} a tooth a tool rubs and burns: feed faster or turn slower.")
        if chip > BREAKS_ABOVE_SHARE * tool.diameter:
            said.append(
                f"Above {say_mm(BREAKS_ABOVE_SHARE * tool.diameter)} a tooth a tool of {say_mm(tool.diameter)} may break."
            )
    if tool:
        depth = setting.depth or tool.diameter
        passes = passes_for(now, depth)
        said.append(
            f"{say_mm(now, 2)} and {say_mm(INTO_SPOILBOARD_MM)} into the spoilboard in passes of {say_mm(depth)}: {passes}."
        )
        if depth > tool.diameter:
            said.append(f"A pass deeper than the tool is wide, {say_mm(tool.diameter)}, strains it.")
        if now + INTO_SPOILBOARD_MM > tool.flute_length:
            said.append(f"The flutes are {say_mm(tool.flute_length)} long: too short for this board.")
    return tuple(said)


def chip_load(feed: float, spindle: float, flutes: int) -> float:
    """How thick a chip each tooth takes, in mm: feed (mm/min) / (turns a minute x teeth).

    >>> chip_load(3600, 18000, 2)
    0.1
    """
    return feed / (spindle * flutes)


def passes_for(thickness: float, depth: float) -> int:
    """How many passes of at most `depth` go through a board and a hair into what lies under it.

    >>> passes_for(12.7, 6.35), passes_for(12.6, 6.35)
    (3, 2)
    """
    return math.ceil((thickness + INTO_SPOILBOARD_MM) / depth - 1e-9)


def _number(value: object, name: str) -> float | None:
    if value in (None, ""):
        return None
    least, most, unit = _LIMITS[name]
    try:
        number = float(str(value).replace(",", "."))
    except ValueError:
        number = math.nan
    if not least <= number <= most:
        raise OutOfRange(
            f"The {name} is {value}.", fix=f"Give {least:g} to {most:g} {unit}, or leave it empty.", field=name
        )
    return number
