"""What a maker is called where others see it: the name they chose, else the one they sign in with."""

from __future__ import annotations

from django.contrib.auth.models import User
from lean_notch.documents.plain import text

LONGEST = 40


def shown_name(user: User | None) -> str:
    """
    >>> shown_name(None)
    ''
    """
    return (user.first_name or user.get_username()) if user else ""


def choose_name(user: User, name: str) -> None:
    """Raises NotchError at "shown" for a name that is empty or too long."""
    user.first_name = text(name, "shown", LONGEST)
    user.save(update_fields=["first_name"])
