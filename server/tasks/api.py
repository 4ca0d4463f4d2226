"""Heavy work over HTTP: how far it is, ending it, its answer. A maker sees only their own."""

from __future__ import annotations

from typing import Literal, cast

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ground.problems import Conflict, Problem
from ninja import Router, Schema, Status

from . import actions
from .kinds import kind_of
from .models import OPEN, Task

router = Router()

State = Literal["waiting", "running", "done", "failed", "cancelled"]


class SoFarOut(Schema):
    """Of a proof: how many of the sheets were looked at, and what stops there or may be meant, in words; the first few of `found`."""

    done: int
    of: int
    found: int
    first: list[str]


class TaskOut(Schema):
    """Whoever goes on asking for it keeps it going. `progress` is 0 to 1; `ahead` tells how many tasks come first; `so_far` is what can
    be said before it has ended. With `again` its answer is that of the same request, made once more when it is done."""

    id: int
    kind: str
    title: str
    state: State
    progress: float
    stage: str
    so_far: SoFarOut | None
    ahead: int
    again: bool
    problem: Problem | None


def show_task(task: Task) -> TaskOut:
    kind = kind_of(task.kind)
    return TaskOut(
        id=task.pk, kind=task.kind, title=kind.title if kind else task.kind, again=kind is not None and kind.again, state=cast(State, task.state), progress=task.progress,
        stage=task.stage, so_far=SoFarOut(**task.so_far) if task.so_far else None, ahead=actions.ahead_of(task), problem=Problem(**task.problem) if task.problem else None,
    )  # fmt: skip


def _one(request: HttpRequest, task_id: int) -> Task:
    return get_object_or_404(Task.objects.defer("answer", "data", "given"), pk=task_id, owner_id=request.user.pk)


@router.get("/tasks", response=list[TaskOut])
def list_tasks(request: HttpRequest) -> list[TaskOut]:
    """Those that wait or run."""
    mine = Task.objects.filter(owner_id=request.user.pk, state__in=OPEN)
    return [show_task(task) for task in mine.defer("answer", "data", "given").order_by("pk")]


@router.get("/tasks/{task_id}", response={200: TaskOut, 404: Problem})
def read_task(request: HttpRequest, task_id: int) -> TaskOut:
    task = _one(request, task_id)
    actions.want(task)
    return show_task(task)


@router.delete("/tasks/{task_id}", response={204: None, 404: Problem})
def cancel_task(request: HttpRequest, task_id: int) -> Status[None]:
    actions.cancel(_one(request, task_id))
    return Status(204, None)


@router.get("/tasks/{task_id}/answer", response={404: Problem, 409: Problem, 422: Problem})
def read_answer(request: HttpRequest, task_id: int) -> HttpResponse:
    """What came of it, as the request that asked for it would have answered."""
    task = _one(request, task_id)
    if task.state != "done":
        raise Conflict(
            "There is no answer: it is not done yet." if task.open else "There is no answer: it was ended.",
            fix="Wait for it, or ask for it again.",
        )  # fmt: skip
    answer = actions.answer_of(task)
    if answer is None:
        raise Conflict("There is no answer any more.", fix="Ask for it again.")
    kind = kind_of(task.kind)
    if kind and kind.once:
        task.delete()
    return HttpResponse(answer, content_type="application/json")
