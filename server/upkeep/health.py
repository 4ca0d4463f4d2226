"""Whether the server can do its work: for whoever runs it, and for what watches it. Nothing private is in it."""

from __future__ import annotations

import shutil
from importlib.metadata import version
from pathlib import Path

from django.conf import settings
from django.db import DatabaseError, connection
from ninja import Schema
from tasks.actions import RUNNING
from tasks.models import OPEN, Task

from upkeep.backups import faults_of

LEAST_FREE_MB = 100


class _Looked:
    """What was found when the whole database was last gone through, which no request waits for."""

    sound = True

    def look(self, database: Path) -> str:
        """The first fault, "" for none."""
        fault = next(faults_of(database), "")
        self.sound = not fault
        return fault


LOOKED = _Looked()


class Health(Schema):
    """`database`, `disk` and `tasks` are "ok" or what is wrong in a word; `free_mb` is the room on the data folder's disk,
    `running` and `waiting` count heavy tasks."""

    ok: bool
    version: str
    database: str
    disk: str
    free_mb: int | None
    tasks: str
    running: int
    waiting: int


def look() -> Health:
    database, (disk, free), tasks = _database(), _disk(), _tasks()
    running, waiting = _counts() if database == "ok" else (0, 0)
    return Health(
        ok=(database, disk, tasks) == ("ok", "ok", "ok"), version=version("lean-notch"), database=database, disk=disk,
        free_mb=free, tasks=tasks, running=running, waiting=waiting,
    )  # fmt: skip


def _tasks() -> str:
    if RUNNING.pool is None or RUNNING.pool.ready:
        return "ok"
    return "no child is ready" if RUNNING.pool.alive else "not running"


def _counts() -> tuple[int, int]:
    rows = Task.objects.filter(state__in=OPEN).values_list("state", flat=True)
    return rows.filter(state="running").count(), rows.filter(state="waiting").count()


def _database() -> str:
    try:
        with connection.cursor() as cursor:
            cursor.execute("SELECT count(*) FROM designs_design")
    except DatabaseError:
        return "cannot be read"
    return "ok" if LOOKED.sound else "damaged"


def _disk() -> tuple[str, int | None]:
    try:
        free = shutil.disk_usage(settings.DATA_DIR).free // 1_000_000
        probe = settings.DATA_DIR / ".writable"
        probe.write_bytes(b"")
        probe.unlink()
    except OSError:
        return "cannot be written", None
    return ("ok" if free >= LEAST_FREE_MB else "nearly full"), free
