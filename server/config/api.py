"""The typed API. Errors of the core are turned into responses here and nowhere else."""

from __future__ import annotations

from accounts.api import TooManyTries
from accounts.api import router as accounts
from designs.api import router as designs
from designs.api_files import router as files
from designs.compute import Beside
from django.contrib.auth.models import User
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ground.problems import Conflict, Problem
from lean_notch.ground.errors import NotchError
from ninja import NinjaAPI, Status
from ninja.errors import AuthenticationError, ValidationError
from ninja.security import django_auth
from tasks.actions import TooMany, ask
from tasks.api import router as tasks
from tasks.api import show_task
from upkeep import health
from workshop.api import router as workshop

from config.waiting import waiting_page

api = NinjaAPI(title="Lean Notch", version="1", auth=django_auth, docs_url=None)
api.add_router("", accounts, tags=["accounts"])
api.add_router("", workshop, tags=["workshop"])
api.add_router("", files, tags=["designs"])
api.add_router("", designs, tags=["designs"])
api.add_router("", tasks, tags=["tasks"])


@api.get("/health", response={200: health.Health, 503: health.Health}, auth=None, tags=["health"])
def read_health(request: HttpRequest) -> Status[health.Health]:  # noqa: ARG001
    """Answers 503 where the server cannot do its work."""
    found = health.look()
    return Status(200 if found.ok else 503, found)


def _respond(request: HttpRequest, problem: Problem, status: int) -> HttpResponse:
    return api.create_response(request, problem.model_dump(), status=status)


@api.exception_handler(Beside)
def waits(request: HttpRequest, error: Beside) -> HttpResponse:
    """The task that works out what the request needs: it is made again once that is done."""
    given = (get_object_or_404(User, pk=request.user.pk), error.kind, error.about, error.document, error.data)
    try:
        task = ask(*given)
    except TooMany as many:
        return refused(request, many)
    shown = show_task(task)
    if request.method == "GET" and request.headers.get("Accept", "").startswith("text/html"):
        return HttpResponse(waiting_page(shown.title, task.stage, task.progress), status=202)
    return api.create_response(request, shown, status=202)


@api.exception_handler(NotchError)
def refused(request: HttpRequest, error: NotchError) -> HttpResponse:
    if isinstance(error, Conflict):
        return _respond(request, error.problem, 409)
    return _respond(request, Problem(**error.as_json()), 429 if isinstance(error, TooMany | TooManyTries) else 422)


@api.exception_handler(ValidationError)
def malformed(request: HttpRequest, error: ValidationError) -> HttpResponse:
    first = error.errors[0]
    field = ".".join(str(step) for step in first["loc"][2:])
    problem = Problem(
        code="malformed", why=f"{field or 'The request'}: {first['msg']}.", fix="Correct it.", field=field
    )
    return _respond(request, problem, 422)


@api.exception_handler(AuthenticationError)
def signed_out(request: HttpRequest, error: AuthenticationError) -> HttpResponse:  # noqa: ARG001
    return _respond(request, Problem(code="signed-out", why="You are not signed in.", fix="Sign in.", field=""), 401)


@api.exception_handler(Http404)
def missing(request: HttpRequest, error: Http404) -> HttpResponse:  # noqa: ARG001
    problem = Problem(
        code="not-found", why="This does not exist or is not yours.", fix="Go back to your jobs.", field=""
    )
    return _respond(request, problem, 404)
