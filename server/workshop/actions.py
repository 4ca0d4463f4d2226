"""One action a change of the rack, the machines or the notebook. The core decides what is valid."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict, dataclass, replace
from typing import Any

from accounts.names import shown_name
from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone
from lean_notch.basis import (
    STOCK_KINDS,
    Limits,
    limits_from_json,
    machine_from_json,
    machine_to_json,
    stock_from_json,
    stock_to_json,
)
from lean_notch.basis import Stock as CoreStock
from lean_notch.basis.comb import CombRead, read_comb
from lean_notch.basis.equip import equipped
from lean_notch.basis.fits import scale_from_json, scale_to_json
from lean_notch.basis.kerf import Uncertain, kerf_of_plug, kerf_of_slats
from lean_notch.basis.never import ask_made_of
from lean_notch.basis.notebook import Entry, Way
from lean_notch.basis.settings import CutSetting as Setting
from lean_notch.basis.settings import setting_from_json, setting_to_json
from lean_notch.cutting import profile_from_json, profile_to_json
from lean_notch.design import MAIN
from lean_notch.documents.plain import choice, mapping, mm, sequence, text
from lean_notch.job import Job
from lean_notch.lengths.units import Unit
from lean_notch.practice import Practice
from lean_notch.test_pieces import TEST_PIECES, as_given, piece_job, recipe_of

from .models import CutSetting, KindLimits, Machine, Measurement, NotebookEntry, Profile, Stock

Given = Mapping[str, object]


def put_stock(document: Given, stock: Stock | None = None, by: User | None = None) -> Stock:
    """A new stock, or what is given of `stock` changed. Other readings than before are a new measurement.

    Raises NotchError at the field.
    """
    with transaction.atomic():
        known = _newest(stock) if stock else {}
        checked = stock_from_json({**known, **document})
        stock = stock or Stock.objects.create(name=checked.name, document={})
        now = timezone.now()
        if known.get("kind") != checked.kind or known.get("made_of"):
            ask_made_of(checked)
        anew = known.get("readings") != list(checked.readings.values_mm)
        measured = now.isoformat(timespec="seconds") if anew else known["measured"]
        checked = replace(checked, id=str(stock.pk), measured=measured)
        stock.name, stock.document = checked.name, stock_to_json(checked)
        stock.save()
        if anew:
            Measurement.objects.create(stock=stock, readings=stock.document["readings"], taken=now, by=by)
    return stock


def kind_limits() -> dict[str, Limits]:
    """The workshop's own limits, by kind of stock."""
    return {one.kind: limits_from_json(one.document) for one in KindLimits.objects.all()}


def limits_of_kind(kind: str) -> Limits:
    return kind_limits().get(kind, Limits())


def put_kind_limits(kind: str, document: Given) -> None:
    """What is usual for a kind in this workshop, some of it changed. Raises NotchError at "kind" or the limit."""
    choice(kind, STOCK_KINDS, "kind")
    with transaction.atomic():
        known = KindLimits.objects.select_for_update().filter(kind=kind).first()
        checked = limits_from_json({**(known.document if known else {}), **document})
        KindLimits.objects.update_or_create(kind=kind, defaults={"document": asdict(checked)})


def stock_in_use(row: Stock, usual: Mapping[str, Limits] | None = None) -> CoreStock:
    """A board as jobs take it: limits of its own, else those that are usual for its kind in this workshop."""
    stock = stock_from_json(row.document)
    limits = kind_limits() if usual is None else usual
    return replace(stock, limits=stock.limits.over(limits.get(stock.kind, Limits())))


def stocks_in_use() -> dict[str, dict[str, Any]]:
    """The documents of all boards on the rack as jobs take them, by number."""
    usual = kind_limits()
    rows = Stock.objects.filter(removed=None)
    return {
        str(row.pk): stock_to_json(stock_in_use(row, usual)) if row.document["kind"] in usual else row.document
        for row in rows
    }


def put_machine(document: Given, machine: Machine | None = None) -> Machine:
    """A new machine, or what is given of `machine` changed: another tool brings its own kerf, unless one is given with it.

    Raises NotchError at the field.
    """
    with transaction.atomic():
        known = _newest(machine) if machine else {}
        checked = machine_from_json({**known, **document})
        if known and checked.tool != known["tool"] and checked.kerf == known["kerf"]:
            checked = checked.with_tool(checked.tool)
        machine = machine or Machine.objects.create(name=checked.name, document={})
        machine.name, machine.document = checked.name, machine_to_json(replace(checked, id=str(machine.pk)))
        machine.save()
    return machine


def _newest(row: Stock | Machine) -> dict[str, Any]:
    """Its document as it is now, whoever changed it since the row was read."""
    row.refresh_from_db()
    document: dict[str, Any] = row.document
    return document


def archive(thing: Stock | Machine) -> None:
    """Takes a board or machine out of the lists; jobs and the notebook keep theirs."""
    thing.removed = timezone.now()
    thing.save()


def restore(thing: Stock | Machine) -> None:
    thing.removed = None
    thing.save()


def put_profile(document: dict[str, Any], profile: Profile | None = None, machine: Machine | None = None) -> Profile:
    """A new hand-over profile, or `profile` changed. Raises NotchError at the field."""
    checked = profile_from_json(document)
    profile = profile or Profile()
    profile.machine = machine
    profile.name, profile.document = checked.name, profile_to_json(checked)
    profile.save()
    return profile


def put_setting(machine: Machine, document: Given) -> CutSetting:
    """What a machine was set to, written down. Raises NotchError at the field."""
    checked = setting_from_json({"date": timezone.now().date().isoformat(), **document})
    return CutSetting.objects.create(machine=machine, document=setting_to_json(checked))


def setting_of(row: CutSetting) -> Setting:
    """A row of the machine's log as the core knows it."""
    return setting_from_json({**row.document, "id": str(row.pk)})


def settings_of(machine: str) -> list[Setting]:
    """All that a machine was set to, the newest first, by the id in its document."""
    if not _is_number(machine):
        return []
    return [
        setting_of(row) for row in CutSetting.objects.filter(machine_id=int(machine)).order_by("-document__date", "-id")
    ]


@dataclass(frozen=True)
class PieceRead:
    """What a test piece tells, a kerf or a scale of fits, and from which readings in mm."""

    kerf: Uncertain | None = None
    comb: CombRead | None = None
    row: tuple[float, ...] = ()
    hole: tuple[float, ...] = ()
    plug: tuple[float, ...] = ()


def piece_of(way: Way, settings: Given, unit: Unit, stock: Stock, machine: Machine) -> Job:
    """The job of a test piece, its settings typed in `unit`, with the kerf that the notebook has for just this board.

    Raises NotchError at the setting.
    """
    typed = TEST_PIECES[way].typed(settings, unit)
    board, known = stock_in_use(stock), machine_from_json(machine.document)
    return piece_job(way, typed, board, equipped(board, known, entries_of(known.id)).machine)


def read_piece(job: Job, told: Given) -> PieceRead:
    """What `told` of a cut test piece ("row", "hole", "plug" or "answers") says. Raises NotchError at the field."""
    given, way = as_given(job.design), recipe_of(job.design)
    if way == "comb":
        answers = [str(answer) for answer in sequence(told.get("answers", ()), "answers", 40)]
        return PieceRead(comb=read_comb(given.clearances, answers))
    row, hole, plug = (_lengths(told, name) for name in ("row", "hole", "plug"))
    if way == "slats":
        return PieceRead(kerf_of_slats(given.length, given.pieces, row, "row"), row=row)
    return PieceRead(kerf_of_plug(hole, plug), hole=hole, plug=plug)


def keep_entry(job: Job, told: Given, stock: Stock, machine: Machine, by: User | None, note: str = "") -> NotebookEntry:
    """Writes what a test piece told into the notebook, with all it follows from. Raises NotchError at the field."""
    read, basis = read_piece(job, told), job.basis.of(MAIN.id)
    answers = job.design.origin.answers if job.design.origin else ()
    document = {
        "settings": {one.name: {"text": one.text, "unit": one.unit} for one in answers},
        "told": {
            "row": read.row, "hole": read.hole, "plug": read.plug,
            "answers": list(sequence(told.get("answers", ()), "answers", 40)),
        },
        "thickness": basis.thickness,
        "stock_name": basis.stock.name,
        "tool": machine.document["tool"],
        "kerf": read.kerf.value if read.kerf else None,
        "within": read.kerf.expanded if read.kerf else read.comb.within if read.comb else 0.0,
        "fits": scale_to_json(read.comb.scale) if read.comb else None,
        "cut_with": basis.kerf,
    }  # fmt: skip
    return NotebookEntry.objects.create(
        machine=machine, stock=stock, way=recipe_of(job.design), document=document, made=timezone.now(), by=by,
        note=text(note, "note", 500, required=False),
    )  # fmt: skip


def set_valid(entry: NotebookEntry, valid: bool) -> None:
    """An entry that turned out wrong is struck out, not taken away."""
    entry.valid = valid
    entry.save()


def entry_of(row: NotebookEntry) -> Entry:
    """A row of the notebook as the core knows it."""
    document = mapping(row.document, "entry")
    fits = document["fits"]
    return Entry(
        id=str(row.pk), way=row.way, machine=str(row.machine_id), stock=str(row.stock_id),  # type: ignore[arg-type]
        stock_name=document["stock_name"], thickness=document["thickness"], date=row.made.isoformat(timespec="seconds"),
        by=shown_name(row.by), kerf=document["kerf"], within=document["within"],
        fits=scale_from_json(fits) if fits else None, cut_with=document["cut_with"] if fits else None, tool=document["tool"], valid=row.valid,
    )  # fmt: skip


def _is_number(text: str) -> bool:
    return text.isascii() and text.isdigit()


def entries_of(machine: str) -> list[Entry]:
    """All that the notebook holds of a machine, by the id in its document."""
    if not _is_number(machine):
        return []
    return [entry_of(row) for row in NotebookEntry.objects.filter(machine_id=int(machine)).select_related("by")]


def practice_of(job: Job, machine: Machine, seed: int) -> Practice:
    """The practice machine of that seed, a laser or router as `machine`, with a board as the test piece's."""
    known = machine_from_json(machine.document)
    tool = known.in_spindle.diameter if known.in_spindle else known.kerf
    return Practice(seed, job.basis.of(MAIN.id).stock.nominal, tool if known.kind == "router" else None)


def _lengths(told: Given, name: str) -> tuple[float, ...]:
    return tuple(mm(value, f"{name}[{i}]") for i, value in enumerate(sequence(told.get(name, ()), name, 100)))
