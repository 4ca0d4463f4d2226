"""The account of a workshop's first maker."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from lean_notch.documents.plain import text
from lean_notch.ground.errors import NotchError


class NotFirst(NotchError):
    code = "not-first"


class WeakPassword(NotchError):
    code = "weak-password"


def add_first(name: str, password: str) -> User:
    """Raises NotchError for a name or password that will not do, or where somebody has an account already."""
    title = text(name, "name", 80)
    if User.objects.exists():
        raise NotFirst(
            "This workshop has accounts already.", fix="Sign in with one of them, or name another folder in LEAN_NOTCH_DATA."
        )  # fmt: skip
    user = User(username=title)
    try:
        validate_password(password, user)
    except ValidationError as error:
        raise WeakPassword(" ".join(error.messages), fix="Choose a longer one.", field="password") from None
    user.set_password(password)
    user.save()
    return user
