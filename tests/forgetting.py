"""Computing as if nothing had ever been computed: everything that the program remembers, forgotten or switched off."""

from __future__ import annotations

import sys
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any
from unittest.mock import patch

from lean_notch.remembered import Remembered

OURS = ("lean_notch", "designs", "workshop", "tasks")


def memories() -> Iterator[Any]:
    """Whatever modules keep at hand: memories, cached functions, batched ones."""
    for name, module in list(sys.modules.items()):
        if name.split(".")[0] in OURS:
            for value in list(vars(module).values()):
                if isinstance(value, Remembered) or hasattr(value, "cache_clear"):
                    yield value


def forget() -> None:
    for one in memories():
        if isinstance(one, Remembered):
            one.forget()
        else:
            one.cache_clear()


@contextmanager
def nothing_remembered() -> Iterator[None]:
    """Every cached function is empty, and no memory finds anything, or keeps it."""
    forget()
    with (
        patch.object(Remembered, "find", lambda self, given: None),
        patch.object(Remembered, "keep", lambda self, given, made: made),
    ):
        yield
    forget()
