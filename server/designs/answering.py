"""What all requests about jobs share: whose they are, and how they are answered."""

from __future__ import annotations

from collections.abc import Sequence

from django.contrib.auth.models import User
from django.db.models import QuerySet
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ground.problems import ConflictProblem, Problem
from lean_notch.ground.errors import NotchError
from pydantic import BaseModel
from tasks.api import show_task
from tasks.models import Task

from . import (
    heavy,
    shown,
)
from .models import Design

Refusals = {404: Problem, 409: ConflictProblem, 422: Problem}


def own_jobs(request: HttpRequest) -> QuerySet[Design]:
    return Design.objects.filter(owner_id=request.user.pk).select_related("head", "variant_of")


def answer_shown(design: Design, status: int = 200, since: int | None = None) -> HttpResponse:
    return HttpResponse(shown.show_design(design, since), content_type="application/json", status=status)


def answer(shown_as: BaseModel, status: int = 200) -> HttpResponse:
    """Written as it is: it was checked when it was made."""
    return HttpResponse(shown_as.model_dump_json(), content_type="application/json", status=status)


def answer_list(shown_as: Sequence[BaseModel]) -> HttpResponse:
    rows = ",".join(one.model_dump_json() for one in shown_as)
    return HttpResponse(f"[{rows}]", content_type="application/json")


def answer_found(found: heavy.Found, status: int = 200) -> HttpResponse:
    """What heavy work gave, or the task that will give it."""
    if isinstance(found, Task):
        return answer(show_task(found), 202)
    return HttpResponse(found, content_type="application/json", status=status)


def user_of(request: HttpRequest) -> User:
    return get_object_or_404(User, pk=request.user.pk)


class Archived(NotchError):
    code = "archived"


def job_called(request: HttpRequest, design_id: int) -> Design:
    return at_work(get_object_or_404(own_jobs(request).defer("head__document", "head__picture"), id=design_id))


def check_own(request: HttpRequest, design_id: int) -> None:
    """For changes, which read the design themselves."""
    at_work(get_object_or_404(Design.objects.only("id", "name", "removed"), id=design_id, owner_id=request.user.pk))


def at_work(design: Design) -> Design:
    """Raises Archived for one that was archived, perhaps in another window."""
    if design.removed is not None:
        raise Archived(f"{design.name} is archived.", fix="Restore it to go on with it: nothing of it is lost.")
    return design
