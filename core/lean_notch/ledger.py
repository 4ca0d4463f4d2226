"""The figures of a job, each with its source and its derivation in plain arithmetic.

In: a computed job; out: rows by subject ("basis", "job", "part:front", "joint:front-left", "sheet:1"). A length is in
mm, and lengths inside a derivation are written "<number> mm", so that an edge can show them in another unit.
"""

from __future__ import annotations

import math
import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from .basis import Basis, Fit, Readings
from .basis.notebook import WAY_TITLES
from .build import FlatPart, Mate
from .job import Result
from .units import Length, Unit, say_mm, say_within

Source = Literal["measured", "chosen", "computed"]
Kind = Literal["length", "count", "share", "area", "word"]


@dataclass(frozen=True)
class Figure:
    """One row. `value` is in mm, mm², a count, or a share of 1, by `kind`; words have none.

    `field` names the input that changes it, for chosen figures; `typed` is what was typed there, in `unit`.
    """

    key: str
    title: str
    value: float | None
    source: Source
    because: str = ""
    kind: Kind = "length"
    word: str = ""
    field: str = ""
    typed: str = ""
    unit: Unit = "mm"


def ledger(result: Result) -> dict[str, tuple[Figure, ...]]:
    """All rows of a job by subject."""
    rows = {"basis": _basis(result), "job": _job(result)}
    rows |= {f"part:{part.id}": _part(part, result) for part in result.build.parts}
    rows |= {f"joint:{mate.id}": _mate(mate, result) for mate in result.build.mates}
    rows |= {f"sheet:{number}": _sheet(number, length, result) for number, length in enumerate(result.cut_lengths, 1)}
    return rows


def _basis(result: Result) -> tuple[Figure, ...]:
    basis = result.job.basis
    readings, clearance, kerf = basis.stock.readings, basis.clearance, basis.kerf
    count = len(readings.values_mm)
    return (
        Figure("thickness", "thickness", readings.mean, "measured",
               f"mean of {count} reading{'s' * (count > 1)}, {say_mm(readings.thin)} to {say_mm(readings.thick)}"),
        _spread(readings),
        Figure("kerf", "kerf", kerf, "measured", _kerf_because(basis)),
        Figure("clearance", "clearance", clearance, "chosen", f"{basis.fit} fit, the whole gap of one finger"),
        Figure("slot", "a slot for this board", basis.slot, "computed",
               f"thickness {say_mm(readings.mean)} + clearance {say_mm(clearance)}"),
        Figure("slot_drawn", "its path drawn at", basis.slot_drawn, "computed",
               f"slot {say_mm(basis.slot)} - kerf {say_mm(kerf)}"),
        Figure("slot_fit", "the board in that slot", None, "computed", _fit_because(basis.slot_fit), kind="word",
               word=basis.slot_fit.verdict),
    )  # fmt: skip


def _spread(readings: Readings) -> Figure:
    if len(readings.values_mm) == 1:
        return Figure("spread", "spread", None, "measured", "one reading tells none", kind="word", word="not known")
    return Figure(
        "spread", "spread", readings.spread, "measured", f"{say_mm(readings.thick)} - {say_mm(readings.thin)}"
    )


def _kerf_because(basis: Basis) -> str:
    found = basis.machine.found
    if found is None:
        return f"what {basis.machine.name} removes, typed: how sure is not known"
    return f"{say_within(found.within)}, {WAY_TITLES[found.way]} on {found.stock}, {found.date[:10]}"


def _fit_because(fit: Fit) -> str:
    return f"clearance {say_mm(fit.low)} to {say_mm(fit.high)}" + (f": {fit.wants}" if fit.wants else "")


def _job(result: Result) -> tuple[Figure, ...]:
    design, names = result.job.design, result.build.names
    rows = []
    for dimension in design.dimensions:
        value = names[dimension.name]
        plain = dimension.length.text.strip() in names or _is_number(dimension.length)
        because = "" if plain else _in_figures(dimension.length.text, names)
        if dimension.chosen:
            typed = dimension.length
            rows.append(
                Figure(
                    dimension.name,
                    dimension.title,
                    value,
                    "chosen",
                    because,
                    field=dimension.name,
                    typed=typed.text,
                    unit=typed.unit,
                )
            )
        elif because:
            rows.append(Figure(dimension.name, dimension.title, value, "computed", because))
    return tuple(rows)


def _is_number(typed: Length) -> bool:
    return re.search(r"[-+*/()A-Za-z_]", typed.text.strip()) is None


def _in_figures(text: str, names: Mapping[str, float]) -> str:
    """An expression with the value beside each name: "width 150 mm + 2 × thickness 3.06 mm"."""
    text = re.sub(r"\s*\*\s*", " × ", text)
    return re.sub(
        r"[A-Za-z_]\w*",
        lambda m: f"{m[0].replace('_', ' ')} {say_mm(names[m[0]])}" if m[0] in names else m[0],
        text,
    )


def _part(part: FlatPart, result: Result) -> tuple[Figure, ...]:
    standing, readings = part.standing, result.job.basis.stock.readings
    return (
        Figure("width", "width", standing.width, "computed", "with its fingers"),
        Figure("height", "height", standing.height, "computed", "with its fingers"),
        Figure(
            "thickness",
            "thickness",
            readings.mean,
            "measured",
            f"{say_mm(readings.thin)} to {say_mm(readings.thick)}",
        ),
        Figure("area", "area", part.region.area, "computed", kind="area"),
        Figure("outline", "outline", part.region.length, "computed", "finished edge, all round"),
        Figure("quantity", "quantity", part.quantity, "chosen", kind="count"),
    )


def _mate(mate: Mate, result: Result) -> tuple[Figure, ...]:
    division, basis = mate.division, result.job.basis
    kerf, clearance, readings = basis.kerf, division.clearance, basis.stock.readings
    edge, finger = division.cuts[-1], division.finger
    made, socket = finger - clearance / 2, finger + clearance / 2
    titles = {part.id: part.title for part in result.build.parts}
    return (
        Figure("fingers", "fingers", division.count, "computed", "an odd count, so that both ends are alike", kind="count"),
        Figure("pitch", "share of each finger", finger, "computed", f"edge {say_mm(edge)} / {division.count} fingers"),
        Figure("clearance", "clearance", clearance, "chosen", f"{basis.fit} fit, half on either side of a finger"),
        Figure("finger", "finger", made, "computed", f"share {say_mm(finger)} - half the clearance {say_mm(clearance / 2)}"),
        Figure("socket", "socket", socket, "computed", f"finger {say_mm(made)} + clearance {say_mm(clearance)}"),
        Figure("finger_drawn", "finger, drawn", made + kerf, "computed", f"finger {say_mm(made)} + kerf {say_mm(kerf)}"),
        Figure("socket_drawn", "socket, drawn", socket - kerf, "computed", f"socket {say_mm(socket)} - kerf {say_mm(kerf)}"),
        Figure("fit", "fit", None, "computed", _fit_because(basis.finger_fit), kind="word", word=basis.finger_fit.verdict),
        Figure("finger_length", "finger length", mate.first.depth, "measured",
               f"thickness of {titles[mate.second.part]}, {say_mm(readings.thin)} to {say_mm(readings.thick)}"),
        Figure("first", "end fingers on", None, "chosen", "the corners belong to it", kind="word",
               word=titles[mate.first.part]),
    )  # fmt: skip


def _sheet(number: int, cut_length: float, result: Result) -> tuple[Figure, ...]:
    layout, settings = result.layout, result.job.settings
    placed = layout.on_sheet(number)
    used = math.fsum(result.build.part(one.part).region.area for one in placed)
    return (
        Figure("margin", "margin", settings.margin, "chosen", "from the sheet's edge", field="margin",
               typed=f"{settings.margin:g}"),
        Figure("spacing", "spacing", settings.spacing, "chosen", f"at least the kerf {say_mm(result.job.basis.kerf)}",
               field="spacing", typed=f"{settings.spacing:g}"),
        Figure("sheet_width", "width that can be cut", layout.area.width, "measured", "the sheet, as far as the bed takes it"),
        Figure("sheet_height", "height that can be cut", layout.area.height, "measured"),
        Figure("parts", "parts", len(placed), "computed", kind="count"),
        Figure("used", "used", used / (layout.area.width * layout.area.height), "computed",
               "area of the parts / area of the sheet", kind="share"),
        Figure("cut_length", "cut length", cut_length, "computed", "all paths that cut"),
    )  # fmt: skip
