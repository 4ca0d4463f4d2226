"""Asking for heavy work, and for what came of it. Permission is the caller's: every question names the maker."""

from __future__ import annotations

from typing import Any

from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import Q
from lean_notch.ground.errors import NotchError
from results import store

from tasks.kinds import Kind, kind_of
from tasks.models import OPEN, Task
from tasks.pool import Pool

MOST_OPEN = 4
"""Tasks of one maker that may wait or run."""

MOST_OPEN_IN_ALL = 40

QUICK_SECONDS = 5.0
"""What takes longer goes by the long lane."""


class TooMany(NotchError):
    code = "too-many"


class _Running:
    """The pool of this process, while the server runs. Without one, as in a shell, work is done where it is asked for."""

    pool: Pool | None = None


RUNNING = _Running()


def found(
    owner: User, kind: Kind, about: str, document: dict[str, Any], data: bytes = b"", seconds: float = 0.0
) -> bytes | Task:  # fmt: skip
    """What comes of it where that is known, else the task that will give it. Raises TooMany."""
    known = store.find(kind.name, store.inputs_of(document, data)) if kind.stored else None
    if known is not None:
        return known
    task = ask(owner, kind, about, document, data, seconds)
    answer = answer_of(task) if task.state == "done" else None
    return task if answer is None else answer


def ask(
    owner: User, kind: Kind, about: str, document: dict[str, Any], data: bytes = b"", seconds: float = 0.0
) -> Task:  # fmt: skip
    """The task that computes this, in about so many seconds: one that is there already, done or not, or a new one. Raises TooMany.

    What another server's run computed is not taken: it may have been an older release.
    A maker who asks for something else about the same thing waits for what was asked before no more.
    """
    key = store.inputs_of(document, data)
    with transaction.atomic():
        mine = Task.objects.filter(owner=owner)
        same = mine.filter(kind=kind.name, about=about, key=key)
        ours = Q(state="done", taken_by=RUNNING.pool.name if RUNNING.pool else "")
        task = same.filter(Q(state__in=OPEN) | ours).order_by("-pk").first()
        if task and task.state == "done" and kind.stored and not store.has(kind.name, key):
            task.delete()
            task = None
        if task is None:
            waiting = mine.filter(state__in=OPEN)
            for old in waiting.filter(kind=kind.name, about=about):
                cancel(old)
            _check_room(waiting.count())
            task = Task.objects.create(
                owner=owner, kind=kind.name, about=about, key=key, given=document, data=data,
                lane="quick" if seconds <= QUICK_SECONDS else "long",
            )  # fmt: skip
    want(task)
    return task


def answer_of(task: Task) -> bytes | None:
    """What came of a task that is done; None where it is kept no more."""
    kind = kind_of(task.kind)
    return store.find(task.kind, task.key) if kind and kind.stored else bytes(task.answer)


def _check_room(mine: int) -> None:
    if mine >= MOST_OPEN:
        raise TooMany(
            f"{mine} tasks of yours are running already.", fix="Wait until one of them is done, or cancel one."
        )
    everybody = Task.objects.filter(state__in=OPEN).count()
    if everybody >= MOST_OPEN_IN_ALL:
        raise TooMany(f"{everybody} tasks of others are waiting.", fix="Try again in a minute.")


def want(task: Task) -> None:
    if RUNNING.pool and task.open:
        RUNNING.pool.want(task.pk)
        if task.state == "waiting":
            RUNNING.pool.wake()


def cancel(task: Task) -> None:
    Task.objects.filter(pk=task.pk, state__in=OPEN).update(state="cancelled", data=b"", given={})
    if RUNNING.pool:
        RUNNING.pool.wake()


def ahead_of(task: Task) -> int:
    """How many tasks come before one that waits."""
    if task.state != "waiting":
        return 0
    before = Q(state="running") | Q(pk__lt=task.pk, lane=task.lane)
    if task.lane == "long":
        before |= Q(lane="quick")
    return Task.objects.filter(before, state__in=OPEN).exclude(pk=task.pk).count()
