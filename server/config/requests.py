"""Every request under /api: numbered, logged, and refused with a problem whatever refused it.

Nothing private is logged: who is a number, where is the route without its values, and a traceback has no texts of makers.
"""

from __future__ import annotations

import json
import logging
import secrets
import time
from collections.abc import Callable

from django.core.exceptions import RequestDataTooBig, SuspiciousOperation
from django.http import HttpRequest, HttpResponse, RawPostDataException
from django.http.multipartparser import MultiPartParserError
from django.http.response import HttpResponseBase
from ground.failures import refused, told
from ground.memory import keep_within
from ground.problems import Problem

SLOW_SECONDS = 1.0
HEALTH = "/api/health"
"""It says by itself what is wrong."""

log = logging.getLogger("lean_notch.requests")

Handler = Callable[[HttpRequest], HttpResponseBase]


class Requests:
    """Django's middleware, around all that may refuse."""

    def __init__(self, get_response: Handler) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponseBase:
        if not request.path.startswith("/api/"):
            return self.get_response(request)
        request.META["lean_notch.request"] = secrets.token_hex(4)
        started = time.monotonic()
        response = self.get_response(request)
        code = ""
        if response.status_code >= 400 and request.path != HEALTH:
            response, code = _as_problem(response)
        seconds = time.monotonic() - started
        response["X-Request"] = _number(request)
        response.setdefault("Cache-Control", "no-store")
        about = {**_about(request), "status": response.status_code, "code": code, "ms": round(1000 * seconds)}
        slow = seconds > SLOW_SECONDS
        keep_within()
        log.log(logging.WARNING if slow else logging.INFO, "slow" if slow else "answered", extra={"told": about})
        return response

    def process_exception(self, request: HttpRequest, error: Exception) -> HttpResponse | None:
        if not request.path.startswith("/api/"):
            return None
        if isinstance(error, MultiPartParserError):
            return _response(*refused(400))
        if isinstance(error, RawPostDataException):  # a form where JSON is wanted
            return _response(*refused(415))
        if isinstance(error, SuspiciousOperation):
            return _response(*refused(413 if isinstance(error, RequestDataTooBig) else 400))
        status, problem = told(error, _number(request))
        log.error("failed", exc_info=error, extra={"told": {**_about(request), "code": problem.code}})
        return _response(status, problem)


def _number(request: HttpRequest) -> str:
    return str(request.META.get("lean_notch.request", ""))


def _about(request: HttpRequest) -> dict[str, object]:
    match = request.resolver_match
    # The user as far as somebody asked for it already: logging asks no database.
    user = getattr(request, "_cached_user", None)
    return {
        "request": _number(request), "user": getattr(user, "pk", None), "method": request.method,
        "route": match.route if match else "",
    }  # fmt: skip


def _as_problem(response: HttpResponseBase) -> tuple[HttpResponseBase, str]:
    """An answer that refuses, as a problem; and its code."""
    if isinstance(response, HttpResponse) and response.get("Content-Type", "").startswith("application/json"):
        said = json.loads(response.content or b"null")
        if isinstance(said, dict) and {"code", "why", "fix"} <= said.keys():
            return response, str(said["code"])
    status, problem = refused(response.status_code)
    plain = _response(status, problem)
    if response.has_header("Allow"):
        plain["Allow"] = response["Allow"]
    return plain, problem.code


def _response(status: int, problem: Problem) -> HttpResponse:
    response = HttpResponse(json.dumps(problem.model_dump()), content_type="application/json", status=status)
    response._has_been_logged = True  # type: ignore[attr-defined]  # here, once
    return response
