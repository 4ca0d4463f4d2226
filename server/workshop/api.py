"""The rack, the machines and the kerf notebook over HTTP."""

from __future__ import annotations

from accounts.names import shown_name
from django.contrib.auth.models import User
from django.db.models import QuerySet
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils.http import content_disposition_header
from ground.problems import Problem
from lean_notch.basis import Readings
from lean_notch.documents.plain import mm
from lean_notch.formats.file_kinds import FORMATS
from lean_notch.hand_over.files import write_files
from lean_notch.job import Job, compute
from lean_notch.practice import Truth, practised
from ninja import Router, Status

from . import actions, shown
from . import schemas as s
from .models import Machine, NotebookEntry, Profile, Stock

router = Router()
Refusals = {404: Problem, 422: Problem}


def _user(request: HttpRequest) -> User:
    return get_object_or_404(User, pk=request.user.pk)


def _stock(stock_id: int) -> Stock:
    return get_object_or_404(Stock, id=stock_id, removed=None)


def _machine(machine_id: int) -> Machine:
    return get_object_or_404(Machine, id=machine_id, removed=None)


def _known_stock(stock_id: int) -> Stock:
    """To be read, an archived one too: jobs are still of it."""
    return get_object_or_404(Stock, id=stock_id)


def _known_machine(machine_id: int) -> Machine:
    return get_object_or_404(Machine, id=machine_id)


@router.get("/stocks", response=list[s.StockOut])
def list_stocks(request: HttpRequest) -> list[s.StockOut]:  # noqa: ARG001
    rows = Stock.objects.filter(removed=None).order_by("document__nominal", "name", "id")
    return shown.show_stocks(rows)


@router.get("/stocks/archived", response=list[s.StockOut])
def list_archived_stocks(request: HttpRequest) -> list[s.StockOut]:  # noqa: ARG001
    return shown.show_stocks(Stock.objects.exclude(removed=None).order_by("-removed"))


@router.get("/stocks/{stock_id}/jobs", response={200: s.UsesOut, 404: Problem})
def jobs_of_stock(request: HttpRequest, stock_id: int) -> s.UsesOut:
    """Who would be asked about it, before a board is archived."""
    return shown.show_uses(get_object_or_404(Stock, id=stock_id), _user(request))


@router.post("/stocks", response={201: s.StockOut, **Refusals})
def add_stock(request: HttpRequest, given: s.StockIn) -> Status[s.StockOut]:
    return Status(201, shown.show_stock(actions.put_stock(given.document(), by=_user(request))))


@router.patch("/stocks/{stock_id}", response={200: s.StockOut, **Refusals})
def change_stock(request: HttpRequest, stock_id: int, given: s.StockChange) -> s.StockOut:
    return shown.show_stock(actions.put_stock(given.document(), _stock(stock_id), _user(request)))


@router.delete("/stocks/{stock_id}", response={204: None, 404: Problem})
def remove_stock(request: HttpRequest, stock_id: int) -> Status[None]:  # noqa: ARG001
    actions.archive(_stock(stock_id))
    return Status(204, None)


@router.post("/stocks/{stock_id}/restore", response={200: s.StockOut, 404: Problem})
def restore_stock(request: HttpRequest, stock_id: int) -> s.StockOut:  # noqa: ARG001
    stock = get_object_or_404(Stock, id=stock_id)
    actions.restore(stock)
    return shown.show_stock(stock)


@router.get("/stocks/{stock_id}/measurements", response={200: list[s.MeasurementOut], 404: Problem})
def list_measurements(request: HttpRequest, stock_id: int) -> list[s.MeasurementOut]:  # noqa: ARG001
    rows = get_object_or_404(Stock, id=stock_id).measurements.select_related("by").order_by("-taken", "-id")
    return [shown.show_measurement(row) for row in rows]


@router.patch("/limits/{kind}", response={204: None, 422: Problem})
def change_kind_limits(request: HttpRequest, kind: str, given: s.KindLimitsIn) -> Status[None]:  # noqa: ARG001
    """What is usual for a kind of stock in this workshop."""
    actions.put_kind_limits(kind, given.document())
    return Status(204, None)


@router.post("/readings", response={200: s.ReadingsOut, 422: Problem})
def look_at_readings(request: HttpRequest, given: s.ReadingsIn) -> s.ReadingsOut:  # noqa: ARG001
    """What readings amount to, before they are kept."""
    values = tuple(mm(value, f"readings[{i}]") for i, value in enumerate(given.document()))
    return shown.show_readings(Readings(values))


@router.get("/machines", response=list[s.MachineOut])
def list_machines(request: HttpRequest) -> QuerySet[Machine]:  # noqa: ARG001
    return Machine.objects.filter(removed=None).order_by("name", "id")


@router.get("/machines/archived", response=list[s.MachineOut])
def list_archived_machines(request: HttpRequest) -> QuerySet[Machine]:  # noqa: ARG001
    return Machine.objects.exclude(removed=None).order_by("-removed")


@router.get("/machines/{machine_id}/jobs", response={200: s.UsesOut, 404: Problem})
def jobs_of_machine(request: HttpRequest, machine_id: int) -> s.UsesOut:
    return shown.show_uses(get_object_or_404(Machine, id=machine_id), _user(request))


@router.post("/machines", response={201: s.MachineOut, **Refusals})
def add_machine(request: HttpRequest, given: s.MachineIn) -> Status[Machine]:  # noqa: ARG001
    return Status(201, actions.put_machine(given.document()))


@router.patch("/machines/{machine_id}", response={200: s.MachineOut, **Refusals})
def change_machine(request: HttpRequest, machine_id: int, given: s.MachineChange) -> Machine:  # noqa: ARG001
    return actions.put_machine(given.document(), _machine(machine_id))


@router.delete("/machines/{machine_id}", response={204: None, 404: Problem})
def remove_machine(request: HttpRequest, machine_id: int) -> Status[None]:  # noqa: ARG001
    actions.archive(_machine(machine_id))
    return Status(204, None)


@router.post("/machines/{machine_id}/restore", response={200: s.MachineOut, 404: Problem})
def restore_machine(request: HttpRequest, machine_id: int) -> Machine:  # noqa: ARG001
    machine = get_object_or_404(Machine, id=machine_id)
    actions.restore(machine)
    return machine


@router.get("/machines/{machine_id}/settings", response={200: list[s.CutSettingOut], 404: Problem})
def list_settings(
    request: HttpRequest,  # noqa: ARG001
    machine_id: int,
    stock: int | None = None,
    operation: s.Operation = "cut",
) -> list[s.CutSettingOut]:
    """All that the machine was set to; for a `stock`, what tells something for it, the most telling first, with hints."""
    return shown.show_settings(_known_machine(machine_id), _known_stock(stock) if stock else None, operation)


@router.post("/machines/{machine_id}/settings", response={201: s.CutSettingOut, **Refusals})
def add_setting(request: HttpRequest, machine_id: int, given: s.CutSettingIn) -> Status[s.CutSettingOut]:
    document = {**given.document(), "by": shown_name(_user(request))}
    return Status(201, shown.show_setting(actions.setting_of(actions.put_setting(_machine(machine_id), document))))


@router.delete("/machines/{machine_id}/settings/{setting_id}", response={204: None, 404: Problem})
def remove_setting(request: HttpRequest, machine_id: int, setting_id: int) -> Status[None]:  # noqa: ARG001
    get_object_or_404(_machine(machine_id).settings, id=setting_id).delete()
    return Status(204, None)


def _piece(given: s.PieceIn) -> Job:
    return actions.piece_of(given.way, given.settings, given.unit, _stock(given.stock), _machine(given.machine))


@router.post("/test-pieces", response={200: s.PieceOut, **Refusals})
def show_test_piece(request: HttpRequest, given: s.PieceIn) -> s.PieceOut:  # noqa: ARG001
    """A test piece as it will be cut. Nothing is kept."""
    return shown.show_piece(given.way, _piece(given))


@router.post("/test-pieces/file", response=Refusals)
def read_test_piece(request: HttpRequest, given: s.PieceFileIn) -> HttpResponse:  # noqa: ARG001
    file = write_files(compute(_piece(given)), given.format)[0]
    kind = FORMATS[given.format].content_type
    disposition = content_disposition_header(as_attachment=True, filename=file.name)
    return HttpResponse(file.data, content_type=kind, headers={"Content-Disposition": disposition})


@router.post("/test-pieces/practice", response={200: s.PracticeOut, **Refusals})
def practise(request: HttpRequest, given: s.PracticeIn) -> s.PracticeOut:  # noqa: ARG001
    """Cuts a test piece on the practice machine of that seed."""
    job = _piece(given)
    return shown.show_practice(practised(actions.practice_of(job, _machine(given.machine), given.seed), job))


@router.post("/test-pieces/practice/truth", response={200: s.TruthOut, **Refusals})
def tell_truth(request: HttpRequest, given: s.PracticeIn) -> Truth:  # noqa: ARG001
    """What that practice machine hides, for who has found it out."""
    return actions.practice_of(_piece(given), _machine(given.machine), given.seed).truth


@router.post("/test-pieces/read", response={200: s.PieceReadOut, **Refusals})
def read_piece(request: HttpRequest, given: s.ToldIn) -> s.PieceReadOut:  # noqa: ARG001
    """What a cut test piece tells. Nothing is kept."""
    job = _piece(given)
    return shown.show_read(actions.read_piece(job, given.told()), job)


@router.get("/notebook", response={200: list[s.EntryOut], 404: Problem})
def list_entries(request: HttpRequest, machine: int, stock: int) -> list[s.EntryOut]:  # noqa: ARG001
    """A machine's entries, newest first, as seen from a board."""
    return shown.show_entries(_known_machine(machine), _known_stock(stock))


@router.post("/notebook", response={201: list[s.EntryOut], **Refusals})
def add_entry(request: HttpRequest, given: s.ToldIn) -> Status[list[s.EntryOut]]:
    stock, machine = _stock(given.stock), _machine(given.machine)
    actions.keep_entry(_piece(given), given.told(), stock, machine, _user(request), given.note)
    return Status(201, shown.show_entries(machine, stock))


@router.put("/notebook/{entry_id}", response={204: None, 404: Problem})
def strike_entry(request: HttpRequest, entry_id: int, given: s.ValidIn) -> Status[None]:  # noqa: ARG001
    actions.set_valid(get_object_or_404(NotebookEntry, id=entry_id), given.valid)
    return Status(204, None)


def _for(given: s.ProfileIn) -> Machine | None:
    return _machine(given.machine) if given.machine is not None else None


@router.get("/profiles", response=list[s.ProfileOut])
def list_profiles(request: HttpRequest) -> QuerySet[Profile]:  # noqa: ARG001
    return Profile.objects.order_by("id")


@router.post("/profiles", response={201: s.ProfileOut, 422: Problem})
def add_profile(request: HttpRequest, given: s.ProfileIn) -> Status[Profile]:  # noqa: ARG001
    return Status(201, actions.put_profile(given.model_dump(exclude={"machine"}), machine=_for(given)))


@router.put("/profiles/{profile_id}", response={200: s.ProfileOut, 422: Problem, 404: Problem})
def change_profile(request: HttpRequest, profile_id: int, given: s.ProfileIn) -> Profile:  # noqa: ARG001
    return actions.put_profile(
        given.model_dump(exclude={"machine"}), get_object_or_404(Profile, id=profile_id), _for(given)
    )
