"""Whether the server can do its work: for whoever runs it, and for what watches it. Nothing private is in it."""

from __future__ import annotations

import shutil
from importlib.metadata import version

from django.conf import settings
from django.db import DatabaseError, connection
from ninja import Schema

LEAST_FREE_MB = 100


class Health(Schema):
    """`database` and `disk` are "ok" or what is wrong in a word; `free_mb` is the room on the data folder's disk."""

    ok: bool
    version: str
    database: str
    disk: str
    free_mb: int | None


def look() -> Health:
    database, (disk, free) = _database(), _disk()
    return Health(
        ok=(database, disk) == ("ok", "ok"), version=version("lean-notch"), database=database, disk=disk, free_mb=free
    )


def _database() -> str:
    try:
        with connection.cursor() as cursor:
            cursor.execute("SELECT count(*) FROM designs_design")
    except DatabaseError:
        return "cannot be read"
    return "ok"


def _disk() -> tuple[str, int | None]:
    try:
        free = shutil.disk_usage(settings.DATA_DIR).free // 1_000_000
        probe = settings.DATA_DIR / ".writable"
        probe.write_bytes(b"")
        probe.unlink()
    except OSError:
        return "cannot be written", None
    return ("ok" if free >= LEAST_FREE_MB else "nearly full"), free
