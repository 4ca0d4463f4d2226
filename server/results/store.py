"""The store of answers that took long: each under its rule, this release and the hash of its inputs; in the database, and its bytes
in files beside it. Whatever is lost of it is only made again.

It holds so much and no more: what nobody asked for in a month goes, then what was asked for longest ago. No backup takes it along:
what was handed over is kept with the job.
"""

from __future__ import annotations

import json
import logging
import os
import tempfile
import time
from collections.abc import Iterator
from contextlib import suppress
from datetime import date, timedelta
from hashlib import sha256
from pathlib import Path
from typing import Any

from django.conf import settings
from django.db import DatabaseError, transaction
from django.db.models import QuerySet, Sum

from . import release
from .models import Result

MOST_BYTES = 400_000_000
MOST_DAYS = 30
YOUNG_SECONDS = 3600.0
"""A file's row is written after it."""

log = logging.getLogger("lean_notch.results")


def inputs_of(document: dict[str, Any], data: bytes = b"") -> str:
    """The hash of a document, and of a file where there is one: of all that an answer follows from.

    >>> inputs_of({"a": 1, "b": 2}) == inputs_of({"b": 2, "a": 1}), inputs_of({"a": 1}) == inputs_of({"a": 2})
    (True, False)
    """
    return sha256(json.dumps(document, sort_keys=True).encode() + b"\0" + data).hexdigest()


def find(rule: str, inputs: str) -> bytes | None:
    """What this release gave for these inputs. One whose file is gone or was changed is named in the log, and is none."""
    row = _rows(rule, inputs).first()
    if row is None:
        return None
    try:
        answer = _place(row.sha256).read_bytes()
    except OSError as error:
        _lost(row, "is gone" if isinstance(error, FileNotFoundError) else "cannot be read")
        return None
    if sha256(answer).hexdigest() != row.sha256:
        _lost(row, "was changed")
        return None
    if row.asked != date.today():
        row.asked = date.today()
        with suppress(DatabaseError):
            row.save(update_fields=["asked"])
    return answer


def has(rule: str, inputs: str) -> bool:
    """Whether it is kept, as far as the database knows."""
    return _rows(rule, inputs).exists()


def _rows(rule: str, inputs: str) -> QuerySet[Result]:
    return Result.objects.filter(rule=rule, inputs=inputs, release=release.whole())


def keep(rule: str, inputs: str, answer: bytes) -> None:
    """There is one answer of the same: the first one stays; where there is no room, what was asked for longest ago goes. Raises OSError or DatabaseError where nothing can be written."""
    if has(rule, inputs):
        return
    name = sha256(answer).hexdigest()
    _write(_place(name), answer)
    with transaction.atomic():
        row, _ = Result.objects.get_or_create(
            rule=rule, inputs=inputs, release=release.whole(), defaults={"sha256": name, "size": len(answer)}
        )
    _removed(list(_too_much(but=row.pk)), "more than are kept")


def keep_if_possible(rule: str, inputs: str, answer: bytes) -> None:
    """On a disk that is full or cannot be written it is made again the next time."""
    with suppress(OSError, DatabaseError):
        keep(rule, inputs, answer)


def tidy() -> None:
    """Removes what another release made, what lost its file, what is old or too much, and files that nothing names."""
    others = Result.objects.exclude(release=release.whole())
    _removed(list(others.values_list("pk", flat=True)), "made by another release")
    there = {path.name for path in _files()}
    gone = [pk for pk, name in Result.objects.values_list("pk", "sha256") if name not in there]
    _removed(gone, "without their file")
    since = date.today() - timedelta(days=MOST_DAYS)
    _removed(list(Result.objects.filter(asked__lt=since).values_list("pk", flat=True)), "not asked for in a month")
    _removed(list(_too_much()), "more than are kept")
    known = set(Result.objects.values_list("sha256", flat=True))
    for path in _files():
        if path.name not in known and time.time() - path.stat().st_mtime > YOUNG_SECONDS:
            path.unlink(missing_ok=True)


def _too_much(but: int = 0) -> Iterator[int]:
    over = (Result.objects.aggregate(size=Sum("size"))["size"] or 0) - MOST_BYTES
    for pk, size in Result.objects.exclude(pk=but).order_by("asked", "pk").values_list("pk", "size"):
        if over <= 0:
            return
        over -= size
        yield pk


def _removed(keys: list[int], why: str) -> None:
    """With their files, where no other result is the same."""
    if keys:
        gone = Result.objects.filter(pk__in=keys)
        names = set(gone.values_list("sha256", flat=True))
        gone.delete()
        for name in names - set(Result.objects.filter(sha256__in=names).values_list("sha256", flat=True)):
            _place(name).unlink(missing_ok=True)
        log.info("results were removed", extra={"told": {"count": len(keys), "because": why}})


def _lost(row: Result, what: str) -> None:
    log.warning("a result is made again", extra={"told": {"rule": row.rule, "because": f"its file {what}"}})
    with suppress(OSError):
        _place(row.sha256).unlink(missing_ok=True)
    with suppress(DatabaseError):
        row.delete()


def _folder() -> Path:
    return Path(settings.DATA_DIR) / "results"


def _place(name: str) -> Path:
    return _folder() / name


def _files() -> list[Path]:
    return [path for path in _folder().iterdir() if path.is_file()] if _folder().exists() else []


def _write(place: Path, answer: bytes) -> None:
    """Whole or not at all."""
    if place.exists():
        return
    place.parent.mkdir(exist_ok=True)
    handle, name = tempfile.mkstemp(dir=place.parent, prefix=".")
    try:
        with os.fdopen(handle, "wb") as file:
            file.write(answer)
        Path(name).replace(place)
    except BaseException:
        Path(name).unlink(missing_ok=True)
        raise
