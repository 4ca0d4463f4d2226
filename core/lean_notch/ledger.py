"""The figures of a job, each with its source and its derivation in plain arithmetic.

In: a computed job; out: rows by subject ("basis:main", "job", "part:front", "joint:front-left", "sheet:1"). A length is in
mm, and lengths inside a derivation are written "<number> mm", so that an edge can show them in another unit.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from .basis import BoardBasis, Fit, Readings
from .basis.notebook import WAY_TITLES
from .build import FlatPart, Mate, joint_fits
from .job import Result
from .nesting import Sheet
from .units import Length, Unit, say_mm, say_within, true_digits

Source = Literal["measured", "chosen", "computed"]
Kind = Literal["length", "count", "share", "area", "word"]


@dataclass(frozen=True)
class Figure:
    """One row. `value` is in mm, mm², a count, or a share of 1, by `kind`; words have none.

    `field` is the path of the input that changes it, "" for none; `typed` is what was typed there, in `unit`.
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
    rows = {f"basis:{board.id}": _basis(result.job.basis.of(board.id)) for board in result.job.design.boards}
    rows["job"] = _job(result)
    rows |= {f"part:{part.id}": _part(part, result) for part in result.build.parts}
    fits = joint_fits(result.build.parts, result.build.mates, result.job.basis)
    rows |= {
        f"joint:{mate.id}": _mate(mate, fit.fit, result) for mate, fit in zip(result.build.mates, fits, strict=True)
    }
    rows |= {
        f"sheet:{sheet.number}": _sheet(sheet, length, result)
        for sheet, length in zip(result.layout.sheets, result.cut_lengths, strict=True)
    }
    return rows


def _sum(total: float, first: tuple[str, float], sign: str, second: tuple[str, float]) -> str:
    """A sum or a difference in words and figures, with as many digits as it takes to be true.

    >>> _sum(3.815, ("slot", 3.955), "−", ("kerf", 0.14))
    'slot 3.955 mm − kerf 0.14 mm'
    """
    (name, value), (other, change) = first, second
    digits = max(3, true_digits(total, (value, -change if sign == "−" else change)))
    return f"{name} {say_mm(value, digits)} {sign} {other} {say_mm(change, digits)}"


def _basis(basis: BoardBasis) -> tuple[Figure, ...]:
    readings, clearance, kerf = basis.stock.readings, basis.clearance, basis.kerf
    count = len(readings.values_mm)
    return (
        Figure("thickness", "thickness", readings.mean, "measured",
               f"mean of {count} reading{'s' * (count > 1)}, {say_mm(readings.thin)} to {say_mm(readings.thick)}"),
        _spread(readings),
        Figure("kerf", "kerf", kerf, "measured", _kerf_because(basis)),
        Figure("clearance", "clearance", clearance, "chosen", f"{basis.fit} fit, the whole gap of one finger"),
        Figure("slot", "a slot for this board", basis.slot, "computed",
               _sum(basis.slot, ("thickness", readings.mean), "+", ("clearance", clearance))),
        Figure("slot_drawn", "its cut path", basis.slot_drawn, "computed",
               _sum(basis.slot_drawn, ("slot", basis.slot), "−", ("kerf", kerf))),
        Figure("slot_fit", "the board in that slot", None, "computed", _fit_because(basis.slot_fit), kind="word",
               word=basis.slot_fit.verdict),
    )  # fmt: skip


def _spread(readings: Readings) -> Figure:
    if len(readings.values_mm) == 1:
        return Figure("spread", "spread", None, "measured", "one reading tells none", kind="word", word="not known")
    return Figure(
        "spread", "spread", readings.spread, "measured",
        _sum(readings.spread, ("thick", readings.thick), "−", ("thin", readings.thin)),
    )  # fmt: skip


def _kerf_because(basis: BoardBasis) -> str:
    found = basis.machine.found
    if found is None:
        return f"what {basis.machine.name} removes; typed in, uncertainty unknown"
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
            field, typed = design.input_of(dimension.name), dimension.length
            rows.append(
                Figure(dimension.name, dimension.title, value, "chosen", because, field=field, typed=typed.text, unit=typed.unit)
            )  # fmt: skip
        elif because:
            rows.append(Figure(dimension.name, dimension.title, value, "computed", because))
    return tuple(rows)


def _is_number(typed: Length) -> bool:
    return re.search(r"[-+*/()A-Za-z_]", typed.text.strip()) is None


def _in_figures(text: str, names: Mapping[str, float]) -> str:
    """An expression with the value beside each name: "width 150 mm + 2 × thickness 3.06 mm"."""
    text = re.sub(r"\s*\*\s*", " × ", text)
    return re.sub(
        r"[A-Za-z_]\w*(?:\.[A-Za-z_]\w*)?",
        lambda m: f"{m[0].replace('_', ' ')} {say_mm(names[m[0]])}" if m[0] in names else m[0],
        text,
    )


def _part(part: FlatPart, result: Result) -> tuple[Figure, ...]:
    job = result.job
    readings = job.basis.of(part.board).stock.readings
    design = job.design.part(part.id)
    assert design, "a built part is one of the design"
    stands, sets = job.design.quantity(design) - design.loose, job.sets
    many = f"{stands} standing + {design.loose} loose" + (f", × {sets} sets" if sets > 1 else "")
    return (
        Figure("width", "width", part.size[0], "computed", "with its fingers"),
        Figure("height", "height", part.size[1], "computed", "with its fingers"),
        Figure(
            "thickness", "thickness", readings.mean, "measured", f"{say_mm(readings.thin)} to {say_mm(readings.thick)}"
        ),
        Figure("area", "area", part.region.area, "computed", kind="area"),
        Figure("outline", "outline", part.region.length, "computed", "finished edge, all round"),
        Figure("quantity", "quantity", part.quantity, "computed", many, kind="count"),
        Figure("loose", "loose copies", design.loose, "chosen", "cut beside those that stand", kind="count",
               field=f"parts/{part.id}/loose", typed=str(design.loose)),
    )  # fmt: skip


def _mate(mate: Mate, fit: Fit, result: Result) -> tuple[Figure, ...]:
    first, second = result.build.part(mate.first.part), result.build.part(mate.second.part)
    basis, other = result.job.basis.of(first.board), result.job.basis.of(second.board)
    division, readings = mate.division, other.stock.readings
    clearance, edge, finger = division.clearance, mate.division.cuts[-1], mate.division.finger
    made, socket = finger - clearance / 2, finger + clearance / 2
    joint = next(one for one in result.job.design.joints if one.id == mate.id)
    wanted = joint.how.width
    return (
        Figure("fingers", "fingers", division.count, "computed", "an odd count, so that both ends are alike", kind="count"),
        Figure("wanted", "finger width wanted", wanted.mm(result.build.names) if wanted else None, "chosen",
               "the nearest odd count of fingers is taken", kind="length" if wanted else "word", word="by thickness",
               field=f"joints/{mate.id}/how/width", typed=wanted.text if wanted else "", unit=wanted.unit if wanted else "mm"),
        Figure("pitch", "finger pitch", finger, "computed", f"edge {say_mm(edge)} / {division.count} fingers"),
        Figure("clearance", "clearance", clearance, "chosen", f"{basis.fit} fit, half on either side of a finger"),
        Figure("finger", "finger", made, "computed",
               _sum(made, ("pitch", finger), "−", ("half the clearance", clearance / 2))),
        Figure("socket", "socket", socket, "computed", _sum(socket, ("finger", made), "+", ("clearance", clearance))),
        Figure("finger_drawn", "finger, cut path", made + basis.kerf, "computed",
               _sum(made + basis.kerf, ("finger", made), "+", ("kerf", basis.kerf))),
        Figure("socket_drawn", "socket, cut path", socket - other.kerf, "computed",
               _sum(socket - other.kerf, ("socket", socket), "−", ("kerf", other.kerf))),
        Figure("fit", "fit", None, "computed", _fit_because(fit), kind="word", word=fit.verdict),
        Figure("finger_length", "finger length", mate.first.depth, "measured",
               f"thickness of {second.title}, {say_mm(readings.thin)} to {say_mm(readings.thick)}"),
        Figure("first", "corner fingers on", None, "computed", "the corners belong to it", kind="word", word=first.title),
    )  # fmt: skip


def _sheet(sheet: Sheet, cut_length: float, result: Result) -> tuple[Figure, ...]:
    area, settings, kerf = sheet.area, result.job.settings(sheet.board), result.job.kerfs[sheet.board]
    path = f"layout/{sheet.board}"
    return (
        Figure("margin", "margin", settings.margin, "chosen", "from the sheet's edge", field=f"{path}/margin",
               typed=f"{settings.margin:g}"),
        Figure("spacing", "spacing", settings.spacing, "chosen", f"more than the kerf {say_mm(kerf)}",
               field=f"{path}/spacing", typed=f"{settings.spacing:g}"),
        Figure("sheet_width", "width that can be cut", area.width, "measured", "the sheet, as far as the bed takes it"),
        Figure("sheet_height", "height that can be cut", area.height, "measured"),
        Figure("parts", "parts", len(result.layout.on_sheet(sheet.number)), "computed", kind="count"),
        Figure("used", "used", result.used(sheet.number) / (area.width * area.height), "computed",
               "area of the parts / area of the sheet", kind="share"),
        Figure("cut_length", "cut length", cut_length, "computed", "all paths that cut"),
    )  # fmt: skip
