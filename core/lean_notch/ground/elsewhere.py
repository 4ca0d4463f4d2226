"""Work that is too long for whoever waits: put off before it is begun, and what was worked out of it elsewhere taken instead.

Whoever works a job out in another process hands over what it makes of the parts and boards, each under its name; see `Remembered`.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from math import inf
from time import thread_time
from typing import Any, TypeVar

Found = dict[tuple[str, str], Any]
"""By what it is, and of which part or board."""

Made = TypeVar("Made")


class TooLongHere(Exception):
    """What was begun would take longer than `within` allows. It is no refusal: the same can be done elsewhere."""


_UNTIL: ContextVar[float] = ContextVar("_UNTIL", default=inf)
_TAKEN: ContextVar[Mapping[tuple[str, str], Any] | None] = ContextVar("_TAKEN", default=None)
_KEPT: ContextVar[Found | None] = ContextVar("_KEPT", default=None)


@contextmanager
def within(seconds: float) -> Iterator[None]:
    """Raises TooLongHere from what would take more of this thread's processor time."""
    token = _UNTIL.set(min(thread_time() + seconds, _UNTIL.get()))
    try:
        yield
    finally:
        _UNTIL.reset(token)


def about_to_take(seconds: float = 0.0) -> None:
    """To be told before each piece of work, as far as it can be estimated."""
    if thread_time() + seconds > _UNTIL.get():
        raise TooLongHere


@contextmanager
def keeping() -> Iterator[Found]:
    """Gathers what is worked out, to be handed over."""
    found: Found = {}
    token = _KEPT.set(found)
    try:
        yield found
    finally:
        _KEPT.reset(token)


@contextmanager
def taking(found: Found) -> Iterator[None]:
    """What was worked out of the same job elsewhere is not worked out again."""
    token = _TAKEN.set(found)
    try:
        yield
    finally:
        _TAKEN.reset(token)


def taken(what: str, of: str) -> Any:
    """What was handed over; None for nothing."""
    found = _TAKEN.get()
    return found.get((what, of)) if found else None


def kept(what: str, of: str, made: Made) -> Made:
    if (found := _KEPT.get()) is not None:
        found[what, of] = made
    return made
