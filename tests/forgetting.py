"""Computing as if nothing had ever been computed: everything that the program remembers, forgotten or switched off."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from unittest.mock import patch

from ground.memory import forget
from lean_notch.ground.remembered import Remembered


@contextmanager
def nothing_remembered() -> Iterator[None]:
    """Every cached function is empty, and no memory finds anything, or keeps it."""
    forget()
    with (
        patch.object(Remembered, "find", lambda self, given, of="": None),
        patch.object(Remembered, "keep", lambda self, given, made, of="": made),
    ):
        yield
    forget()
