"""Designs over HTTP. A maker sees only their own: every route starts from `_own`."""

from __future__ import annotations

from collections.abc import Sequence

from accounts.names import shown_name
from django.contrib.auth.models import User
from django.db.models import QuerySet
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils.http import content_disposition_header
from ground.problems import ConflictProblem, Problem
from lean_notch.basis import Readings
from lean_notch.documents.plain import in_unit, mm
from lean_notch.edits import edits_to_json
from lean_notch.ground.errors import NotchError
from lean_notch.ground.limits import MOST_DRAWING_BYTES, MOST_PACKED_BYTES
from lean_notch.hand_over.files import slug
from lean_notch.recipes.track_edits import track_added, track_removed
from ninja import File, Query, Router, Status, UploadedFile
from pydantic import BaseModel
from tasks.api import TaskOut, show_task
from tasks.models import Task

from . import actions, heavy, own_recipes, placing, shown, start, table, today, together, tries
from . import schemas as s
from . import table_schemas as t
from .models import Design, Export
from .on_board import show_jobs_on_board
from .own_recipes import recipe_called

router = Router()
Refusals = {404: Problem, 409: ConflictProblem, 422: Problem}


def _own(request: HttpRequest) -> QuerySet[Design]:
    return Design.objects.filter(owner_id=request.user.pk).select_related("head", "variant_of")


def _on_table(request: HttpRequest) -> QuerySet[Design]:
    return _own(request).defer("head__document").filter(removed=None).order_by("-changed")


def _shown(design: Design, status: int = 200, since: int | None = None) -> HttpResponse:
    return HttpResponse(shown.show_design(design, since), content_type="application/json", status=status)


def _answer(shown_as: BaseModel, status: int = 200) -> HttpResponse:
    """Written as it is: it was checked when it was made."""
    return HttpResponse(shown_as.model_dump_json(), content_type="application/json", status=status)


def _answers(shown_as: Sequence[BaseModel]) -> HttpResponse:
    rows = ",".join(one.model_dump_json() for one in shown_as)
    return HttpResponse(f"[{rows}]", content_type="application/json")


def _found(found: heavy.Found, status: int = 200) -> HttpResponse:
    """What heavy work gave, or the task that will give it."""
    if isinstance(found, Task):
        return _answer(show_task(found), 202)
    return HttpResponse(found, content_type="application/json", status=status)


def _user(request: HttpRequest) -> User:
    return get_object_or_404(User, pk=request.user.pk)


class Archived(NotchError):
    code = "archived"


def _one(request: HttpRequest, design_id: int) -> Design:
    return _at_work(get_object_or_404(_own(request).defer("head__document", "head__picture"), id=design_id))


def _check_own(request: HttpRequest, design_id: int) -> None:
    """For changes, which read the design themselves."""
    _at_work(get_object_or_404(Design.objects.only("id", "name", "removed"), id=design_id, owner_id=request.user.pk))


def _at_work(design: Design) -> Design:
    """Raises Archived for one that was archived, perhaps in another window."""
    if design.removed is not None:
        raise Archived(f"{design.name} is archived.", fix="Restore it to go on with it: nothing of it is lost.")
    return design


@router.get("/choices", response=t.ChoicesOut)
def read_choices(request: HttpRequest) -> t.ChoicesOut:  # noqa: ARG001
    return start.show_choices()


@router.get("/designs", response=list[t.DesignCard])
def list_designs(request: HttpRequest) -> HttpResponse:
    """Those at work; the archived ones are at /designs/archived."""
    return _answers(table.show_cards(list(_on_table(request))))


@router.get("/designs/news", response=list[t.TableNews])
def list_news(request: HttpRequest) -> list[t.TableNews]:
    """What the workshop found out since jobs were computed: boards measured again, kerfs grown old."""
    return table.show_news(list(_on_table(request)))


@router.get("/designs/concerned", response=list[t.ConcernedOut])
def list_concerned(request: HttpRequest) -> list[t.ConcernedOut]:
    """The jobs that the workshop says something newer of."""
    return table.show_concerned(list(_on_table(request)))


@router.get("/designs/archived", response=list[t.DesignCard])
def list_archived(request: HttpRequest) -> HttpResponse:
    archived = _own(request).defer("head__document").exclude(removed=None).order_by("-removed")
    return _answers(table.show_cards(list(archived)))


@router.post("/designs", response={201: s.DesignOut, **Refusals})
def start_design(request: HttpRequest, given: s.StartIn) -> HttpResponse:
    owner = _user(request)
    design = actions.start_design(
        owner,
        recipe_called(given.recipe) if given.recipe else None,
        given.name,
        given.settings,
        given.unit,
        given.stock,
        given.machine,
        given.fit,
    )
    return _shown(design, 201)


@router.post("/designs/draft", response={200: t.DraftOut, 404: Problem, 422: Problem})
def try_recipe(request: HttpRequest, given: s.DraftIn) -> HttpResponse:  # noqa: ARG001
    """What a recipe would make of these settings; nothing is kept."""
    made = actions.try_recipe(
        recipe_called(given.recipe), given.settings, given.unit, given.stock, given.machine, given.fit
    )
    return _answer(start.show_draft(made))


@router.post("/designs/draft/tracks", response={200: dict[str, str], 422: Problem})
def change_tracks(request: HttpRequest, given: s.TracksIn) -> dict[str, str]:  # noqa: ARG001
    """Columns, rows and the pieces of wall that are taken out, with one column or row more or less; nothing is kept."""
    answers = given.dict(include={"columns", "rows", "without"})
    return track_added(answers, given.side) if given.act == "add" else track_removed(answers, given.side, given.entry)


@router.post("/designs/{design_id}/recipe", response={201: t.RecipeOut, **Refusals})
def save_recipe(request: HttpRequest, design_id: int, given: s.RecipeIn) -> Status[t.RecipeOut]:
    """The job as it stands, kept as a recipe of the workshop's own."""
    recipe = own_recipes.save_recipe(_one(request, design_id), given.title, given.open)
    return Status(201, start.show_recipe(recipe, start.looks(recipe)))


@router.delete("/recipes/{name}", response={204: None, 404: Problem})
def remove_recipe(request: HttpRequest, name: str) -> Status[None]:  # noqa: ARG001
    """A recipe of the workshop's own; jobs that were started from it stay as they are."""
    own_recipes.remove_recipe(name)
    return Status(204, None)


@router.post("/designs/on-board/{stock_id}", response={200: t.JobsOnBoard, 404: Problem, 422: Problem})
def jobs_on_board(request: HttpRequest, stock_id: int, given: s.OnBoardIn) -> HttpResponse:
    """What other readings of a board would do to one's own jobs of it; nothing is kept."""
    readings = Readings(tuple(mm(in_unit(one, given.unit), f"readings[{i}]") for i, one in enumerate(given.readings)))
    return _answer(show_jobs_on_board(_user(request), stock_id, readings))


@router.post("/designs/packed", response={201: s.DesignOut, **Refusals})
def unpack_design(request: HttpRequest, file: File[UploadedFile]) -> HttpResponse:
    """A new job from a packed one."""
    return _shown(actions.unpack_design(_user(request), file.read(MOST_PACKED_BYTES + 1)), 201)


@router.post("/files", response={201: s.KeptFileOut, 422: Problem})
def keep_file(request: HttpRequest, file: File[UploadedFile]) -> Status[s.KeptFileOut]:
    """Keeps a drawing, so that a step may use its outlines."""
    data, title = file.read(MOST_DRAWING_BYTES + 1), file.name or "drawing"
    kept, layers = actions.keep_file(_user(request), title, data)
    return Status(201, shown.show_kept(kept, title, layers))


@router.get("/designs/{design_id}", response={200: s.DesignOut, 404: Problem})
def read_design(request: HttpRequest, design_id: int) -> HttpResponse:
    return _shown(_one(request, design_id))


@router.post("/designs/{design_id}/edits", response={200: s.DesignOut | s.ChangesOut, **Refusals})
def edit_design(request: HttpRequest, design_id: int, given: s.EditsIn) -> HttpResponse:
    _check_own(request, design_id)
    edits = [one.edit() for one in given.edits]
    design = actions.edit_design(design_id, edits, given.unit, given.seen, given.revision, _user(request))
    return _shown(design, since=given.since)


def _swap(given: s.SwapIn) -> actions.Swap:
    return actions.Swap(given.board, given.stock, given.machine, given.entry)


@router.post("/designs/{design_id}/tries", response={200: list[s.TrialOut], **Refusals})
def try_design(request: HttpRequest, design_id: int, given: s.TriesIn) -> HttpResponse:
    """The job as it is, then on each of the other bases. Nothing is kept."""
    return _answers(tries.show_tries(_one(request, design_id), [_swap(one) for one in given.swaps]))


@router.post("/designs/{design_id}/tried", response={200: s.TriedOut, **Refusals})
def try_edits(request: HttpRequest, design_id: int, given: s.TriedIn) -> HttpResponse:
    """What edits would do to the job; nothing is kept."""
    design, edits = _one(request, design_id), [one.edit() for one in given.edits]
    return _answer(shown.show_tried(design, edits, given.unit))


@router.post("/designs/{design_id}/placing", response={200: s.PlacingOut, **Refusals})
def place_steps(request: HttpRequest, design_id: int, given: s.PlacingIn) -> HttpResponse:
    """Steps moved, measured from something else, aligned or spread: the edits for it, and what they would do; nothing is kept."""
    design = _one(request, design_id)
    edits = placing.placing_edits(design, given)
    tried = shown.show_tried(design, edits, given.unit, figures=False)  # asked at every frame of a drag
    return _answer(s.PlacingOut(edits=edits_to_json(edits), tried=tried))


@router.get("/designs/{design_id}/history", response={200: list[s.RevisionOut], 404: Problem})
def read_history(request: HttpRequest, design_id: int) -> list[s.RevisionOut]:
    return shown.show_history(_one(request, design_id))


@router.post("/designs/{design_id}/go", response={200: s.DesignOut | s.ChangesOut, **Refusals})
def go_to(request: HttpRequest, design_id: int, given: s.GoIn) -> HttpResponse:
    """To a revision of the history; what came after it stays there."""
    _check_own(request, design_id)
    return _shown(actions.go_to(design_id, given.revision, given.seen), since=given.since)


@router.get("/designs/{design_id}/packed", response={404: Problem, 422: Problem})
def pack_design(request: HttpRequest, design_id: int) -> HttpResponse:
    """The job and the files it uses, as one open file."""
    design = _one(request, design_id)
    disposition = content_disposition_header(as_attachment=True, filename=f"{slug(design.name)}.lean-notch.zip")
    return HttpResponse(
        actions.pack_design(design), content_type="application/zip", headers={"Content-Disposition": disposition}
    )


@router.get("/designs/{design_id}/news", response={200: list[s.NewsOut], 404: Problem})
def read_news(request: HttpRequest, design_id: int) -> HttpResponse:
    """What the workshop says newer of the job's board and machine, and what would change."""
    return _answers(tries.show_news(_one(request, design_id)))


@router.post("/designs/{design_id}/trial-pair", response={201: s.DesignOut, **Refusals})
def start_trial_pair(request: HttpRequest, design_id: int, given: s.TrialPairIn) -> HttpResponse:
    """A job of its own: a few centimetres of both members, with clearances in steps."""
    design = _one(request, design_id)
    return _shown(actions.start_trial_pair(design, given.joint, given.pairs, given.step, _user(request)), 201)


@router.post("/designs/{design_id}/trial-pair/read", response={200: s.PairReadOut, **Refusals})
def read_trial_pair(request: HttpRequest, design_id: int, given: s.PairToldIn) -> HttpResponse:
    """What a trial pair tells. Nothing is kept: the clearance of the fit that is wanted is an edit."""
    return _answer(together.show_pair(actions.head_of(_one(request, design_id)).job, given.joint, given.answers))


@router.get("/designs/{design_id}/together", response={200: s.TogetherOut, 404: Problem, 422: Problem})
def read_together(request: HttpRequest, design_id: int) -> HttpResponse:
    """Pairs of parts that could be joined, and what stands in each other's way."""
    found = together.together(actions.head_of(_one(request, design_id)).job)
    return HttpResponse(found, content_type="application/json")


@router.post("/designs/{design_id}/variants", response={201: s.DesignOut, **Refusals})
def save_variant(request: HttpRequest, design_id: int, given: s.VariantIn) -> HttpResponse:
    design = actions.save_variant(_one(request, design_id), given.name, _swap(given))
    return _shown(design, 201)


@router.get("/designs/{design_id}/following", response={200: s.FollowingOut, 404: Problem})
def read_following(request: HttpRequest, design_id: int) -> HttpResponse:
    """What following the workshop would make of the job."""
    return _answer(shown.show_following(_one(request, design_id)))


@router.post("/designs/{design_id}/follow", response={200: s.DesignOut | s.ChangesOut, **Refusals})
def follow(request: HttpRequest, design_id: int, given: s.FollowIn) -> HttpResponse:
    """The job on what the workshop says now; refused where it would not build or not fit any more."""
    design = today.follow(_one(request, design_id), given.seen, given.revision, _user(request))
    return _shown(design, since=given.revision)


@router.post("/designs/{design_id}/undo", response={200: s.DesignOut | s.ChangesOut, **Refusals})
def undo(request: HttpRequest, design_id: int, given: s.MoveIn) -> HttpResponse:
    _check_own(request, design_id)
    return _shown(actions.undo(design_id, given.seen), since=given.since)


@router.post("/designs/{design_id}/redo", response={200: s.DesignOut | s.ChangesOut, **Refusals})
def redo(request: HttpRequest, design_id: int, given: s.MoveIn) -> HttpResponse:
    _check_own(request, design_id)
    return _shown(actions.redo(design_id, given.seen), since=given.since)


@router.post("/designs/{design_id}/duplicate", response={201: s.DesignOut, **Refusals})
def duplicate_design(request: HttpRequest, design_id: int) -> HttpResponse:
    """A job of its own, as this one is now."""
    return _shown(actions.duplicate(_one(request, design_id), _user(request)), 201)


@router.delete("/designs/{design_id}", response={204: None, 404: Problem})
def remove_design(request: HttpRequest, design_id: int) -> Status[None]:
    actions.remove_design(_one(request, design_id))
    return Status(204, None)


@router.post("/designs/{design_id}/restore", response={200: t.DesignCard, 404: Problem})
def restore_design(request: HttpRequest, design_id: int) -> t.DesignCard:
    design = get_object_or_404(_own(request), id=design_id)
    actions.restore_design(design)
    return table.show_cards([design])[0]


@router.get("/designs/{design_id}/proof", response={200: s.ProofOut, 202: TaskOut, **Refusals})
def read_proof(request: HttpRequest, design_id: int) -> HttpResponse:
    return _found(heavy.proof(_one(request, design_id), _user(request)))


@router.get("/designs/{design_id}/exports", response={200: list[s.ExportOut], 404: Problem})
def list_exports(request: HttpRequest, design_id: int) -> HttpResponse:
    made = Export.objects.filter(layout__revision__design=_one(request, design_id)).order_by("-id")
    made = made.select_related("layout__revision").defer("layout__revision__document", "layout__document")[:20]
    return _answers([shown.show_export(export) for export in made])


@router.post("/designs/{design_id}/exports", response={201: list[s.ExportOut], 202: TaskOut, **Refusals})
def export_design(request: HttpRequest, design_id: int, given: s.ExportIn) -> HttpResponse:
    design = _one(request, design_id)
    return _found(heavy.export(design, given.format, given.profile.model_dump(), _user(request), given.machine), 201)


@router.post("/designs/{design_id}/in-files", response={200: s.InFilesOut, 202: TaskOut, **Refusals})
def look_into_files(request: HttpRequest, design_id: int, given: s.ExportIn) -> HttpResponse:
    """What would be written for a receiver; nothing is kept."""
    design = _one(request, design_id)
    return _found(heavy.in_files(design, given.format, given.profile.model_dump(), _user(request), given.machine))


@router.patch("/exports/{export_id}", response={200: s.ExportOut, 404: Problem, 422: Problem})
def tell_outcome(request: HttpRequest, export_id: int, given: s.OutcomeIn) -> s.ExportOut:
    """How a file came out."""
    export = get_object_or_404(Export, id=export_id, layout__revision__design__owner_id=request.user.pk)
    return shown.show_export(actions.tell_outcome(export, given.outcome))


@router.get("/exports/{export_id}/today", response={200: s.TodayOut, 404: Problem, 422: Problem})
def compare_with_today(request: HttpRequest, export_id: int) -> s.TodayOut:
    """What would be otherwise in a file if it were written today."""
    export = get_object_or_404(Export, id=export_id, layout__revision__design__owner_id=request.user.pk)
    differs = actions.today(export)
    return s.TodayOut(known=differs is not None, differs=list(differs or ()))


@router.get("/exports/{export_id}/file", response={404: Problem, 422: Problem})
def read_file(request: HttpRequest, export_id: int) -> HttpResponse:
    export = get_object_or_404(Export, id=export_id, layout__revision__design__owner_id=request.user.pk)
    kind = {"svg": "image/svg+xml", "pdf": "application/pdf"}.get(export.format, "application/dxf")
    disposition = content_disposition_header(as_attachment=True, filename=export.file_name)
    return HttpResponse(actions.content_of(export), content_type=kind, headers={"Content-Disposition": disposition})


@router.get("/designs/{design_id}/job-sheet", response={404: Problem, 422: Problem})
def read_job_sheet(request: HttpRequest, design_id: int, given: Query[s.ReaderIn]) -> HttpResponse:
    """As a page to print, its lengths in the reader's unit."""
    design = _one(request, design_id)
    sheet = heavy.job_sheet(design, shown_name(_user(request)), given)
    if given.form == "html":
        return HttpResponse(sheet, content_type="text/html; charset=utf-8")
    disposition = content_disposition_header(as_attachment=False, filename=f"{slug(design.name)}_job-sheet.pdf")
    return HttpResponse(sheet, content_type="application/pdf", headers={"Content-Disposition": disposition})


@router.get("/designs/{design_id}/proof-paper", response={200: s.PaperOut, 202: TaskOut, 404: Problem, 422: Problem})
def read_proof_paper(request: HttpRequest, design_id: int, given: Query[s.ReaderIn]) -> HttpResponse:
    """The proof on one page, as PDF."""
    user = _user(request)
    return _found(heavy.proof_paper(_one(request, design_id), user, shown_name(user), given))


@router.post("/check", response={200: s.CheckOut, 202: TaskOut, 422: Problem})
def check_drawing(request: HttpRequest, file: File[UploadedFile]) -> HttpResponse:
    """Looks for what a cutter would complain about in any SVG or DXF. Nothing is kept once it is answered."""
    return _found(heavy.check(file.name or "drawing", file.read(MOST_DRAWING_BYTES + 1), _user(request)))
