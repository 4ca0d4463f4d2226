"""The figures of a job, each with its source and its derivation in plain arithmetic.

In: a computed job; out: rows by subject ("basis:main", "job", "part:front", "joint:front-left", "sheet:1"). A length is in
mm, and lengths inside a derivation are written "<number> mm", so that an edge can show them in another unit.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping

from ..basis import Basis, BoardBasis, Fit, Readings
from ..basis.notebook import WAY_TITLES
from ..design import Dimension
from ..ground.remembered import remembered
from ..job import Result
from ..lengths.figures import Figure, in_words
from ..lengths.length import Length
from ..lengths.said import say_mm, say_within
from ..making import Contact, FlatPart, Mate, joint_fits
from ..nesting import Sheet


def ledger(result: Result) -> dict[str, tuple[Figure, ...]]:
    """All rows of a job by subject."""
    job, built = result.job, result.build
    rows = {
        f"basis:{board.id}": _basis(one, board.id) for board in job.design.boards if (one := job.basis.of(board.id))
    }
    rows["job"] = _job(result)
    for part in built.parts:
        designed = job.design.part(part.id)
        assert designed, "a built part is one of the design"
        stands = job.design.quantity(designed) - designed.loose
        rows[f"part:{part.id}"] = _part(part, job.basis.of(part.board), stands, designed.loose, job.sets)
    fits = joint_fits(built.parts, built.mates, job.basis)
    for mate, fit in zip(built.mates, fits, strict=True):
        parts = [built.part(name) for name in dict.fromkeys(_parts_of(mate))]
        rows[f"joint:{mate.id}"] = _mate(mate, fit.fit, job.basis, *parts)
    rows |= {
        f"sheet:{sheet.number}": _sheet(sheet, length, result)
        for sheet, length in zip(result.layout.sheets, result.cut_lengths, strict=True)
    }
    return rows


def _parts_of(mate: Mate) -> Iterator[str]:
    yield from (change.part for change in mate.members)
    yield from (one.through for one in mate.contacts[:1])


@remembered()
def _basis(basis: BoardBasis, board: str) -> tuple[Figure, ...]:
    readings, clearance, kerf = basis.stock.readings, basis.clearance, basis.kerf
    count = len(readings.values_mm)
    return (
        Figure("thickness", "thickness", readings.mean, "measured",
               f"mean of {count} reading{'s' * (count > 1)}, {say_mm(readings.thin)} to {say_mm(readings.thick)}"),
        _spread(readings),
        Figure("kerf", "kerf", kerf, "measured", _kerf_because(basis)),
        Figure("clearance", "clearance", clearance, "chosen", f"{basis.fit} fit, the whole gap of one finger",
               field=f"basis/{board}/clearance", typed=f"{clearance:.6g}"),
        Figure("slot", "a slot for this board", basis.slot, "computed",
               in_words(basis.slot, ("thickness", readings.mean), "+", ("clearance", clearance))),
        Figure("slot_drawn", "its cut path", basis.slot_drawn, "computed",
               in_words(basis.slot_drawn, ("slot", basis.slot), "−", ("kerf", kerf))),
        Figure("slot_fit", "the board in that slot", None, "computed", _fit_because(basis.slot_fit), kind="word",
               word=basis.slot_fit.verdict),
    )  # fmt: skip


def _spread(readings: Readings) -> Figure:
    if len(readings.values_mm) == 1:
        return Figure("spread", "spread", None, "measured", "one reading shows none", kind="word", word="not known")
    return Figure(
        "spread", "spread", readings.spread, "measured",
        in_words(readings.spread, ("thick", readings.thick), "−", ("thin", readings.thin)),
    )  # fmt: skip


def _kerf_because(basis: BoardBasis) -> str:
    found = basis.machine.found
    if found is None:
        return f"typed in for {basis.machine.name}; uncertainty unknown"
    return f"{say_within(found.within)}, {WAY_TITLES[found.way]} on {found.stock}, {found.date[:10]}"


def _fit_because(fit: Fit) -> str:
    return f"clearance {say_mm(fit.low)} to {say_mm(fit.high)}" + (f": {fit.wants}" if fit.wants else "")


def _job(result: Result) -> tuple[Figure, ...]:
    design, names = result.job.design, result.build.names
    rows: list[Figure] = []
    for dimension in design.dimensions:
        values = tuple([names.get(name) for name in dimension.names])
        rows += _dimension(dimension, names[dimension.name], values, design.input_of(dimension.name))
    return tuple(rows)


@remembered()
def _dimension(dimension: Dimension, value: float, values: tuple[float | None, ...], field: str) -> tuple[Figure, ...]:
    """`values` are those of the names that it uses."""
    names = {name: mm for name, mm in zip(dimension.names, values, strict=True) if mm is not None}
    typed = dimension.length
    plain = typed.text.strip() in names or _is_number(typed)
    because = "" if plain else _in_figures(typed.text, names)
    if dimension.chosen:
        return (
            Figure(dimension.name, dimension.title, value, "chosen", because, field=field, typed=typed.text, unit=typed.unit),
        )  # fmt: skip
    return (Figure(dimension.name, dimension.title, value, "computed", because),) if because else ()


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


@remembered(shared="rows")
def _part(part: FlatPart, basis: BoardBasis, stands: int, loose: int, sets: int) -> tuple[Figure, ...]:
    readings, density = basis.stock.readings, basis.stock.density
    grams = part.region.area * readings.mean * density * 1e-6
    left, bottom, right, top = part.box
    many = f"{stands} standing + {loose} loose" + (f", × {sets} sets" if sets > 1 else "")
    return (
        Figure("width", "width", right - left, "computed", "fingers included"),
        Figure("height", "height", top - bottom, "computed", "fingers included"),
        Figure(
            "thickness", "thickness", readings.mean, "measured", f"{say_mm(readings.thin)} to {say_mm(readings.thick)}"
        ),
        Figure("area", "area", part.region.area, "computed", kind="area"),
        Figure("outline", "cut length", part.region.length, "computed", "along all its finished edges"),
        Figure("weight", "weight", grams, "computed", f"area × thickness × {density:g} kg/m³", kind="mass"),
        Figure("quantity", "quantity", part.quantity, "computed", many, kind="count"),
        Figure("loose", "loose copies", loose, "chosen", "cut beside those that stand", kind="count",
               field=f"parts/{part.id}/loose", typed=str(loose)),
    )  # fmt: skip


@remembered()
def _mate(mate: Mate, fit: Fit, basis: Basis, *parts: FlatPart) -> tuple[Figure, ...]:
    """What the kind of joint says of itself, then each different contact of the first member, else of the second. `parts` are all that
    it joins or goes through."""
    by_id = {part.id: part for part in parts}
    first = by_id[mate.first.part]
    own = [one for one in mate.contacts if one.inner_part == first.id] or list(mate.contacts)
    different = {(one.inner is None, round(one.width, 6), round(one.clearance, 6)): one for one in own}
    rows = [*mate.figures]
    if mate.contacts:
        rows.append(
            Figure(
                "contacts",
                "contacts",
                len(mate.contacts),
                "computed",
                "places where one part goes into the other",
                kind="count",
            )
        )
    for number, contact in enumerate(different.values()):
        rows += _contact(mate, contact, by_id, basis, f"_{number + 1}" if number else "")
    rows.append(Figure("fit", "fit", None, "computed", _fit_because(fit), kind="word", word=fit.verdict))
    stands = next((one for one in own if one.stands), None)
    if stands:
        through = by_id[stands.through]
        readings = basis.of(through.board).stock.readings
        rows.append(
            Figure("finger_length", f"{mate.inner} length", stands.depth, "measured",
                   f"thickness of {through.title}, {say_mm(readings.thin)} to {say_mm(readings.thick)}")
        )  # fmt: skip
    rows.append(
        Figure(
            "first",
            "first member",
            None,
            "computed",
            "its answers count, and its corners",
            kind="word",
            word=first.title,
        )
    )
    return tuple(rows)


def _contact(mate: Mate, contact: Contact, parts: Mapping[str, FlatPart], basis: Basis, suffix: str) -> list[Figure]:
    """How wide both sides are, and how wide their paths."""
    inner, outer = (basis.of(parts[part].board) for part in (contact.inner_part, contact.outer.part))
    made, socket, gap = contact.width, contact.outer_width, contact.clearance
    name, into = (mate.inner, mate.outer) if contact.inner else ("board", f"{mate.outer}, across")
    rows = [
        Figure(f"clearance{suffix}", "clearance", gap, "computed", f"{inner.fit} fit, half on either side of a {mate.inner}"),
        Figure(f"finger{suffix}", name, made, "computed" if contact.inner else "measured",
               "at finished size" if contact.inner else f"thickness of {parts[contact.inner_part].title}"),
        Figure(f"socket{suffix}", into, socket, "computed", in_words(socket, (name, made), "+", ("clearance", gap))),
    ]  # fmt: skip
    if contact.inner:
        drawn = made + inner.kerf
        rows.append(
            Figure(f"finger_drawn{suffix}", f"{name}, cut path", drawn, "computed", in_words(drawn, (name, made), "+", ("kerf", inner.kerf)))
        )  # fmt: skip
    drawn = socket - outer.kerf
    rows.append(
        Figure(f"socket_drawn{suffix}", f"{into}, cut path", drawn, "computed",
               in_words(drawn, (mate.outer, socket), "−", ("kerf", outer.kerf)))
    )  # fmt: skip
    return rows


def _chosen(name: str, value: float, chosen: float | None, because: str, path: str) -> Figure:
    """A length of a layout that can be chosen; it is not shown as chosen where it is only usual."""
    if chosen is None:
        return Figure(
            name, name, value, "computed", f"as usual for its machine and tool, {because}", field=f"{path}/{name}"
        )
    return Figure(name, name, value, "chosen", because, field=f"{path}/{name}", typed=f"{chosen:g}")


def _sheet(sheet: Sheet, cut_length: float, result: Result) -> tuple[Figure, ...]:
    area, settings, kerf = sheet.area, result.job.settings(sheet.board), result.job.kerfs[sheet.board]
    path, chosen = f"layout/{sheet.board}", result.job.chosen(sheet.board)
    web = f"leaves a web of {say_mm(max(settings.spacing - 2 * kerf, 0))} between cuts {say_mm(kerf)} wide"
    return (
        _chosen("margin", settings.margin, chosen.margin, "from the sheet's edge", path),
        _chosen("spacing", settings.spacing, chosen.spacing, web, path),
        Figure("sheet_width", "width that can be cut", area.width, "measured", "the sheet, as far as the bed reaches"),
        Figure("sheet_height", "height that can be cut", area.height, "measured"),
        Figure("parts", "parts", len(result.layout.on_sheet(sheet.number)), "computed", kind="count"),
        Figure("used", "used", result.used(sheet.number) / (area.width * area.height), "computed",
               "area of the parts / area of the sheet", kind="share"),
        Figure("cut_length", "cut length", cut_length, "computed", "all paths that cut"),
    )  # fmt: skip
