"""The rack, the machines and the notebook as the page shows them. What anything means is the core's to say."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import asdict
from typing import Literal, cast

from accounts.names import shown_name
from django.contrib.auth.models import User
from lean_notch.basis import Limits, Readings, machine_from_json, stock_from_json
from lean_notch.basis.fits import scale_to_json
from lean_notch.basis.notebook import Way, offers, sure_of
from lean_notch.basis.settings import CutSetting, hints, say_setting, setting_to_json, settings_for
from lean_notch.design import MAIN
from lean_notch.formats.svg_path import path_data
from lean_notch.ground.operations import Operation
from lean_notch.hand_over.files import file_names
from lean_notch.job import Job, compute, refuse_without_place
from lean_notch.lengths.said import say_mm
from lean_notch.practice import Practised
from lean_notch.test_pieces import INSTRUCTIONS, TEST_PIECES, as_given, kerf_note

from . import schemas as out
from .actions import PieceRead, entry_of, kind_limits, settings_of
from .models import Machine, Measurement, NotebookEntry, Stock


def show_readings(readings: Readings) -> out.ReadingsOut:
    return out.ReadingsOut(
        values=list(readings.values_mm), mean=readings.mean, thin=readings.thin, thick=readings.thick,
        spread=readings.spread, deviation=readings.deviation, outliers=list(readings.outliers),
        warnings=list(readings.warnings),
    )  # fmt: skip


def show_stocks(stocks: Iterable[Stock]) -> list[out.StockOut]:
    limits = kind_limits()
    return [_stock(stock, limits) for stock in stocks]


def show_stock(stock: Stock) -> out.StockOut:
    return _stock(stock, kind_limits())


def _stock(stock: Stock, limits: Mapping[str, Limits]) -> out.StockOut:
    board = stock_from_json(stock.document)
    readings, usual = board.readings, limits.get(board.kind, Limits()).of(board.traits)
    return out.StockOut(
        id=stock.pk, document=out.StockValues(**stock.document), usual=out.LimitsValues(**asdict(usual)), thickness=readings.mean,
        readings=show_readings(readings), measurements=stock.measurements.count(),
    )  # fmt: skip


def show_measurement(row: Measurement) -> out.MeasurementOut:
    return out.MeasurementOut(
        id=row.pk, taken=row.taken, by=shown_name(row.by),
        readings=show_readings(Readings(tuple(row.readings))),
    )  # fmt: skip


def show_settings(machine: Machine, stock: Stock | None, operation: Operation) -> list[out.CutSettingOut]:
    """All settings of a machine, or those that tell something for a board, with hints."""
    known = settings_of(str(machine.pk))
    if stock is None:
        return [show_setting(setting) for setting in known]
    board = stock_from_json(stock.document)
    tools = {tool.name: tool for tool in machine_from_json(machine.document).tools}
    return [
        show_setting(setting, hints(setting, board, tools.get(setting.tool)))
        for setting in settings_for(known, board, operation)
    ]


def show_setting(setting: CutSetting, said: Sequence[str] = ()) -> out.CutSettingOut:
    return out.CutSettingOut(
        **{**setting_to_json(setting), "id": int(setting.id), "hints": list(said), "said": say_setting(setting)}
    )


def show_piece(way: Way, job: Job) -> out.PieceOut:
    result = compute(job)
    refuse_without_place(result)
    recipe, answers = TEST_PIECES[way], job.design.origin.answers if job.design.origin else ()
    values = {one.name: one.text for one in answers}
    sheet = result.plan.sheets[0]
    boxes = [path.shape.box for path in sheet.paths]
    return out.PieceOut(
        title=recipe.title,
        about=recipe.about,
        instructions=list(INSTRUCTIONS[way]),
        settings=[
            out.PieceSettingOut(
                name=setting.name, title=setting.title, kind=setting.kind, help=setting.help,
                text=values[setting.name],
            )
            for setting in recipe.settings
        ],
        box=(min(b[0] for b in boxes), min(b[1] for b in boxes), max(b[2] for b in boxes), max(b[3] for b in boxes)),
        lines=[
            out.LineOut(operation=path.operation, path="".join(path_data(s) for s in (path.shape, *path.holes)))
            for path in sheet.paths
        ],
        area=sum(part.region.area * part.quantity for part in result.build.parts),
        file_names=file_names(job, sheet.number, MAIN.id),
        clearances=list(as_given(job.design).clearances),
        kerf_note=kerf_note(job),
        kerf_known=job.basis.of(MAIN.id).machine.found is not None,
    )  # fmt: skip


def show_read(read: PieceRead, job: Job) -> out.PieceReadOut:
    if read.kerf:
        kerf, given = read.kerf, as_given(job.design)
        because = (
            f"({say_mm(given.length)} - row {say_mm(given.length - given.pieces * kerf.value)}) / {given.pieces} slats"
            if given.pieces
            else "half of what the hole is wider than the plug"
        )
        return out.PieceReadOut(
            kerf=kerf.value, standard=kerf.standard, within=kerf.expanded, because=because, notes=list(kerf.notes),
            row=list(read.row), hole=list(read.hole), plug=list(read.plug),
        )  # fmt: skip
    assert read.comb, "a test piece tells a kerf or a scale"
    return out.PieceReadOut(
        within=read.comb.within, because="half a step of the comb",
        fits=out.ScaleValues(**scale_to_json(read.comb.scale)), notes=list(read.comb.notes),
    )  # fmt: skip


def show_entries(machine: Machine, stock: Stock) -> list[out.EntryOut]:
    """The notebook of a machine, newest first, with what speaks for or against each entry for that board."""
    rows = NotebookEntry.objects.filter(machine=machine).select_related("by").order_by("-made", "-id")
    known = {str(row.pk): entry_of(row) for row in rows}
    offered = offers(list(known.values()), machine_from_json(machine.document), stock_from_json(stock.document))
    warnings = {offer.entry.id: offer.warnings for offer in offered}
    chosen = {entry.id for entry in sure_of(offered) if entry}
    return [
        out.EntryOut(
            id=row.pk, way=cast(Way, row.way), made=row.made, by=known[str(row.pk)].by, note=row.note, valid=row.valid,
            warnings=list(warnings.get(str(row.pk), ())), offered=str(row.pk) in chosen,
            **{name: row.document[name] for name in ("stock_name", "thickness", "tool", "kerf", "within", "fits")},
            **row.document["told"],
        )
        for row in rows
    ]  # fmt: skip


def show_uses(thing: Stock | Machine, user: User) -> out.UsesOut:
    """The jobs at work that are of a board or machine, one's own by their names."""
    from designs.bases import bases_of, is_of  # the workshop knows no designs, but for this question
    from designs.models import Design

    designs = list(Design.objects.filter(removed=None))
    bases = bases_of(designs)
    what: Literal["stock", "machine"] = "stock" if isinstance(thing, Stock) else "machine"
    jobs = [one for one in designs if one.head_id and is_of(bases.get(one.head_id), what, thing.pk)]
    own = [design.name for design in jobs if design.owner_id == user.pk]
    return out.UsesOut(own=own, others=len(jobs) - len(own))


def show_practice(practised: Practised) -> out.PracticeOut:
    return out.PracticeOut(**asdict(practised.cut), kerf=practised.kerf)
