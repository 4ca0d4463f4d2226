"""Designs over HTTP. A maker sees only their own: every route starts from `own_jobs`."""

from __future__ import annotations

from django.db.models import QuerySet
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ground.problems import Problem
from lean_notch.basis import Readings
from lean_notch.documents.plain import in_unit, mm
from lean_notch.recipes.track_edits import track_added, track_removed
from ninja import Router, Status

from . import (
    actions,
    own_recipes,
    placing,
    shown,
    shown_changes,
    start,
    table,
    today,
    together,
    tries,
)
from . import schemas as s
from . import table_schemas as t
from .answering import (
    Refusals,
    answer,
    answer_list,
    answer_shown,
    check_own,
    job_called,
    own_jobs,
    user_of,
)
from .models import Design
from .on_board import show_jobs_on_board
from .own_recipes import recipe_called

router = Router()


def _on_table(request: HttpRequest) -> QuerySet[Design]:
    return own_jobs(request).defer("head__document").filter(removed=None).order_by("-changed")


@router.get("/choices", response=t.ChoicesOut)
def read_choices(request: HttpRequest) -> t.ChoicesOut:  # noqa: ARG001
    return start.show_choices()


@router.get("/designs", response=list[t.DesignCard])
def list_designs(request: HttpRequest) -> HttpResponse:
    """Those at work; the archived ones are at /designs/archived."""
    return answer_list(table.show_cards(list(_on_table(request))))


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
    archived = own_jobs(request).defer("head__document").exclude(removed=None).order_by("-removed")
    return answer_list(table.show_cards(list(archived)))


@router.post("/designs", response={201: s.DesignOut, **Refusals})
def start_design(request: HttpRequest, given: s.StartIn) -> HttpResponse:
    owner = user_of(request)
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
    return answer_shown(design, 201)


@router.post("/designs/draft", response={200: t.DraftOut, 404: Problem, 422: Problem})
def try_recipe(request: HttpRequest, given: s.DraftIn) -> HttpResponse:  # noqa: ARG001
    """What a recipe would make of these settings; nothing is kept."""
    made = actions.try_recipe(
        recipe_called(given.recipe), given.settings, given.unit, given.stock, given.machine, given.fit
    )
    return answer(start.show_draft(made))


@router.post("/designs/draft/tracks", response={200: dict[str, str], 422: Problem})
def change_tracks(request: HttpRequest, given: s.TracksIn) -> dict[str, str]:  # noqa: ARG001
    """Columns, rows and the pieces of wall that are taken out, with one column or row more or less; nothing is kept."""
    answers = given.dict(include={"columns", "rows", "without"})
    return track_added(answers, given.side) if given.act == "add" else track_removed(answers, given.side, given.entry)


@router.post("/designs/{design_id}/recipe", response={201: t.RecipeOut, **Refusals})
def save_recipe(request: HttpRequest, design_id: int, given: s.RecipeIn) -> Status[t.RecipeOut]:
    """The job as it stands, kept as a recipe of the workshop's own."""
    recipe = own_recipes.save_recipe(job_called(request, design_id), given.title, given.open)
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
    return answer(show_jobs_on_board(user_of(request), stock_id, readings))


@router.get("/designs/{design_id}", response={200: s.DesignOut, 404: Problem})
def read_design(request: HttpRequest, design_id: int) -> HttpResponse:
    return answer_shown(job_called(request, design_id))


@router.post("/designs/{design_id}/edits", response={200: s.DesignOut | s.ChangesOut, **Refusals})
def edit_design(request: HttpRequest, design_id: int, given: s.EditsIn) -> HttpResponse:
    check_own(request, design_id)
    edits = [one.edit() for one in given.edits]
    design = actions.edit_design(design_id, edits, given.unit, given.seen, given.revision, user_of(request))
    return answer_shown(design, since=given.since)


def _swap(given: s.SwapIn) -> actions.Swap:
    return actions.Swap(given.board, given.stock, given.machine, given.entry)


@router.post("/designs/{design_id}/tries", response={200: list[s.TrialOut], **Refusals})
def try_design(request: HttpRequest, design_id: int, given: s.TriesIn) -> HttpResponse:
    """The job as it is, then on each of the other bases. Nothing is kept."""
    return answer_list(tries.show_tries(job_called(request, design_id), [_swap(one) for one in given.swaps]))


@router.post("/designs/{design_id}/tried", response={200: s.TriedOut, **Refusals})
def try_edits(request: HttpRequest, design_id: int, given: s.TriedIn) -> HttpResponse:
    """What edits would do to the job; nothing is kept."""
    design, edits = job_called(request, design_id), [one.edit() for one in given.edits]
    return answer(shown_changes.show_tried(design, edits, given.unit))


@router.post("/designs/{design_id}/placing", response={200: s.PlacingOut, **Refusals})
def place_steps(request: HttpRequest, design_id: int, given: s.PlacingIn) -> HttpResponse:
    """Steps moved, measured from something else, aligned or spread: the edits for it, and what they would do; nothing is kept."""
    design = job_called(request, design_id)
    edits = placing.placing_edits(design, given)
    tried = shown_changes.show_tried(design, edits, given.unit, figures=False)  # asked at every frame of a drag
    return answer(s.PlacingOut(edits=edits, tried=tried))


@router.get("/designs/{design_id}/history", response={200: list[s.RevisionOut], 404: Problem})
def read_history(request: HttpRequest, design_id: int) -> list[s.RevisionOut]:
    return shown.show_history(job_called(request, design_id))


@router.post("/designs/{design_id}/go", response={200: s.DesignOut | s.ChangesOut, **Refusals})
def go_to(request: HttpRequest, design_id: int, given: s.GoIn) -> HttpResponse:
    """To a revision of the history; what came after it stays there."""
    check_own(request, design_id)
    return answer_shown(actions.go_to(design_id, given.revision, given.seen), since=given.since)


@router.get("/designs/{design_id}/news", response={200: list[s.NewsOut], 404: Problem})
def read_news(request: HttpRequest, design_id: int) -> HttpResponse:
    """What the workshop says newer of the job's board and machine, and what would change."""
    return answer_list(tries.show_news(job_called(request, design_id)))


@router.post("/designs/{design_id}/trial-pair", response={201: s.DesignOut, **Refusals})
def start_trial_pair(request: HttpRequest, design_id: int, given: s.TrialPairIn) -> HttpResponse:
    """A job of its own: a few centimetres of both members, with clearances in steps."""
    design = job_called(request, design_id)
    return answer_shown(actions.start_trial_pair(design, given.joint, given.pairs, given.step, user_of(request)), 201)


@router.post("/designs/{design_id}/trial-pair/read", response={200: s.PairReadOut, **Refusals})
def read_trial_pair(request: HttpRequest, design_id: int, given: s.PairToldIn) -> HttpResponse:
    """What a trial pair tells. Nothing is kept: the clearance of the fit that is wanted is an edit."""
    return answer(together.show_pair(actions.head_of(job_called(request, design_id)).job, given.joint, given.answers))


@router.get("/designs/{design_id}/together", response={200: s.TogetherOut, 404: Problem, 422: Problem})
def read_together(request: HttpRequest, design_id: int) -> HttpResponse:
    """Pairs of parts that could be joined, and what stands in each other's way."""
    found = together.together(actions.head_of(job_called(request, design_id)).job)
    return HttpResponse(found, content_type="application/json")


@router.post("/designs/{design_id}/variants", response={201: s.DesignOut, **Refusals})
def save_variant(request: HttpRequest, design_id: int, given: s.VariantIn) -> HttpResponse:
    design = actions.save_variant(job_called(request, design_id), given.name, _swap(given))
    return answer_shown(design, 201)


@router.get("/designs/{design_id}/following", response={200: s.FollowingOut, 404: Problem})
def read_following(request: HttpRequest, design_id: int) -> HttpResponse:
    """What following the workshop would make of the job."""
    return answer(shown_changes.show_following(job_called(request, design_id)))


@router.post("/designs/{design_id}/follow", response={200: s.DesignOut | s.ChangesOut, **Refusals})
def follow(request: HttpRequest, design_id: int, given: s.FollowIn) -> HttpResponse:
    """The job on what the workshop says now; refused where it would not build or not fit any more."""
    design = today.follow(job_called(request, design_id), given.seen, given.revision, user_of(request))
    return answer_shown(design, since=given.revision)


@router.post("/designs/{design_id}/undo", response={200: s.DesignOut | s.ChangesOut, **Refusals})
def undo(request: HttpRequest, design_id: int, given: s.MoveIn) -> HttpResponse:
    check_own(request, design_id)
    return answer_shown(actions.undo(design_id, given.seen), since=given.since)


@router.post("/designs/{design_id}/redo", response={200: s.DesignOut | s.ChangesOut, **Refusals})
def redo(request: HttpRequest, design_id: int, given: s.MoveIn) -> HttpResponse:
    check_own(request, design_id)
    return answer_shown(actions.redo(design_id, given.seen), since=given.since)


@router.post("/designs/{design_id}/duplicate", response={201: s.DesignOut, **Refusals})
def duplicate_design(request: HttpRequest, design_id: int) -> HttpResponse:
    """A job of its own, as this one is now."""
    return answer_shown(actions.duplicate(job_called(request, design_id), user_of(request)), 201)


@router.delete("/designs/{design_id}", response={204: None, 404: Problem})
def remove_design(request: HttpRequest, design_id: int) -> Status[None]:
    actions.remove_design(job_called(request, design_id))
    return Status(204, None)


@router.post("/designs/{design_id}/restore", response={200: t.DesignCard, 404: Problem})
def restore_design(request: HttpRequest, design_id: int) -> t.DesignCard:
    design = get_object_or_404(own_jobs(request), id=design_id)
    actions.restore_design(design)
    return table.show_cards([design])[0]
