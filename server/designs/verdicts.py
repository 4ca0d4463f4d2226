"""What a revision's proof said, kept with the revision, so that a list, a job sheet and a download can tell it without proving
again. Another release of the core may find otherwise: what an older one said is not told."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import asdict, fields
from datetime import datetime
from typing import Any

from django.db import DatabaseError
from django.utils import timezone
from lean_notch.proof import Said
from results import release

from .models import Revision

Verdict = dict[str, Any]
"""The core's Said, with the moment (`at`) and the `release`."""


def keep(revision: Revision, said: Said) -> None:
    """The first proof of a revision by this release dates it; on a disk that cannot be written it is not kept."""
    if known(revision) is not None:
        return
    revision.proof = dated(said)
    with suppress(DatabaseError):
        revision.save(update_fields=["proof"])


def dated(said: Said) -> Verdict:
    """As of now, and of this release."""
    at = timezone.now().isoformat(timespec="milliseconds").replace("+00:00", "Z")
    return {**asdict(said), "at": at, "release": release.core()}


def known(revision: Revision) -> Verdict | None:
    found: Verdict | None = revision.proof
    return found if found and found["release"] == release.core() else None


def said_of(verdict: Verdict | None) -> Said | None:
    return Said(**{one.name: verdict[one.name] for one in fields(Said)}) if verdict else None


def said(verdict: Verdict | None) -> str:
    """For paper.

    >>> said(None)
    'Not proved.'
    """
    if verdict is None:
        return "Not proved."
    at = datetime.fromisoformat(verdict["at"]).astimezone(timezone.get_current_timezone())
    return f"{verdict['sentence']}: the plan was proved {at:%Y-%m-%d %H:%M}; each file is read back when it is saved."
