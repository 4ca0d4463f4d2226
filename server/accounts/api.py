"""Who is signed in. Routes only translate; Django's own users and sessions do the work."""

from __future__ import annotations

from django.conf import settings
from django.contrib.auth import authenticate, login, logout, user_logged_in
from django.http import HttpRequest
from django.middleware.csrf import get_token
from ground.problems import Problem
from lean_notch.ground.errors import NotchError
from ninja import Router, Schema
from ninja.errors import HttpError
from ninja.utils import check_csrf

from accounts.demo_maker import DEMO_NAME, DEMO_PASSWORD

from .names import choose_name, shown_name

router = Router()

# Nobody asks when somebody was here last; to keep it, signing in would have to write.
user_logged_in.disconnect(dispatch_uid="update_last_login")


class DemoMaker(Schema):
    name: str
    password: str


class SessionOut(Schema):
    """`name` is what one signs in with, `shown` what others see. `token` goes back in the header X-CSRFToken with every change.
    `demo` offers the demo's own maker."""

    name: str | None
    shown: str
    token: str
    demo: DemoMaker | None


class SignIn(Schema):
    name: str
    password: str


class NameIn(Schema):
    shown: str


class WrongPassword(NotchError):
    code = "wrong-password"


class TooManyTries(NotchError):
    code = "too-many-tries"


def _session(request: HttpRequest) -> SessionOut:
    user = request.user if request.user.is_authenticated else None
    name = user.get_username() if user else None
    demo = DemoMaker(name=DEMO_NAME, password=DEMO_PASSWORD) if settings.DEMO else None
    return SessionOut(name=name, shown=shown_name(user), token=get_token(request), demo=demo)


@router.get("/session", response=SessionOut, auth=None)
def read_session(request: HttpRequest) -> SessionOut:
    return _session(request)


@router.post("/session", response={200: SessionOut, 403: Problem, 422: Problem, 429: Problem}, auth=None)
def sign_in(request: HttpRequest, given: SignIn) -> SessionOut:
    """Asks for the token too: another site's page could else sign somebody in, to have them work under its name."""
    if check_csrf(request):
        raise HttpError(403, "")
    name, password = (one.encode("utf-8", "replace").decode() for one in (given.name.strip(), given.password))
    user = authenticate(request, username=name, password=password)
    if getattr(request, "axes_locked_out", False):
        raise TooManyTries(
            f"{settings.AXES_FAILURE_LIMIT} passwords for that name were wrong.",
            fix="Try again in five minutes.",
            field="password",
        )
    if user is None:
        raise WrongPassword("Name and password do not match.", fix="Type both again.", field="password")
    # Else whoever signs in a second time keeps the key, and with it who had copied it.
    request.session.flush()
    login(request, user)
    return _session(request)


@router.patch("/session", response={200: SessionOut, 422: Problem})
def change_name(request: HttpRequest, given: NameIn) -> SessionOut:
    """What others see as the maker's name; signing in stays as it is."""
    user = request.user
    assert user.is_authenticated, "the API asks for it"
    choose_name(user, given.shown)
    return _session(request)


@router.delete("/session", response=SessionOut)
def sign_out(request: HttpRequest) -> SessionOut:
    logout(request)
    return _session(request)
