"""Asking for heavy work, and for what came of it. Permission is the caller's: every question names the maker."""

from __future__ import annotations

import hashlib
import json
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import Q
from lean_notch.errors import NotchError

from tasks.kinds import Kind
from tasks.models import OPEN, Task
from tasks.pool import Pool

MOST_OPEN = 4
"""Tasks of one maker that may wait or run."""

MOST_OPEN_IN_ALL = 40


class TooMany(NotchError):
    code = "too-many"


class _Running:
    """The pool of this process, while the server runs. Without one, as in a shell, work is done where it is asked for."""

    pool: Pool | None = None


RUNNING = _Running()


def ask(owner: User, kind: Kind, about: str, document: dict[str, Any], data: bytes = b"") -> Task:
    """The task that computes this: one that is there already, done or not, or a new one. Raises TooMany.

    What another server's run computed is not taken: it may have been an older release.
    A maker who asks for something else about the same thing waits for what was asked before no more.
    """
    key = hashlib.sha256(
        b"\0".join((kind.name.encode(), json.dumps(document, sort_keys=True).encode(), data))
    ).hexdigest()
    with transaction.atomic():
        mine = Task.objects.filter(owner=owner)
        same = mine.filter(kind=kind.name, about=about, key=key)
        ours = Q(state="done", taken_by=RUNNING.pool.name if RUNNING.pool else "")
        task = same.filter(Q(state__in=OPEN) | ours).order_by("-pk").first()
        if task is None:
            waiting = mine.filter(state__in=OPEN)
            for old in waiting.filter(kind=kind.name, about=about):
                cancel(old)
            _check_room(waiting.count())
            task = Task.objects.create(owner=owner, kind=kind.name, about=about, key=key, given=document, data=data)
    want(task)
    return task


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
    return Task.objects.filter(state__in=OPEN, pk__lt=task.pk).count() if task.state == "waiting" else 0
