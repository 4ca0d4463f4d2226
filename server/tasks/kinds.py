"""What heavy work there is. A kind computes in a child process, without a database, and keeps its answer in the server."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cache
from importlib import import_module
from typing import Any

from django.conf import settings
from lean_notch.ground.progress import Tell


@dataclass(frozen=True)
class Given:
    """What a task is computed from: a document, and the bytes of a file where there is one."""

    document: dict[str, Any]
    data: bytes = b""


Write = Callable[[], bytes]


def nothing_to_keep(_: Any, answer: bytes) -> Write:
    return lambda: answer


@dataclass(frozen=True)
class Kind:
    """`compute` runs in a child: its bytes are the answer, NotchError is a refusal. `keep` makes ready in the server what is to be
    written; what it returns writes that, in the short transaction that ends the task, and gives the answer that is told. `seconds`
    are of the processor's own time."""

    name: str
    title: str
    seconds: float
    compute: Callable[[Given, Tell], bytes]
    keep: Callable[[Any, bytes], Write] = nothing_to_keep
    stored: bool = False
    """Whether its answer follows from what it is given and from nothing else: it is kept in the store of results, for whoever asks
    for the same. Others are kept with their task, for who asked."""

    once: bool = False
    """Whether the answer is forgotten as soon as it was fetched."""

    again: bool = False
    """Whether who asked repeats the request once it is done: what came of it is then at hand here."""

    patience: float | None = None
    """After how many seconds in which nobody asked about it it is dropped; None where it was pressed by hand: then never."""


_KINDS: dict[str, Kind] = {}


def register(kind: Kind) -> Kind:
    _KINDS[kind.name] = kind
    return kind


@cache
def _read_all() -> None:
    for module in settings.TASK_KINDS:
        import_module(module)


def kind_of(name: str) -> Kind | None:
    _read_all()
    return _KINDS.get(name)
