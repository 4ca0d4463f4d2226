"""Files that jobs use: kept for whoever brought them, and for as long as a revision uses them."""

from __future__ import annotations

import json
from datetime import timedelta

from django.contrib.auth.models import User
from django.db.models import Q
from django.utils import timezone
from lean_notch.design import Imported, ShapeStep
from lean_notch.ground.errors import MissingInput
from lean_notch.hand_over.packed import check_file, files_used
from lean_notch.job import Job

from . import again
from .kept_files import forget_kept, write_kept
from .models import FileUse, KeptFile, OwnRecipe, Revision
from .rack import NothingThere

UNUSED_FOR = timedelta(days=1)
"""How long a file may wait for a step that uses it."""


def keep_file(maker: User, title: str, data: bytes) -> tuple[KeptFile, list[str]]:
    """Keeps a drawing that a step of the maker's may use; with the layers of its outlines. Raises NotchError for one that is too large
    or holds no outline, Beside."""
    check_file(data)
    layers = again.layers_of(title, data)
    return keep_for(maker, title, data), layers


def keep_for(maker: User, title: str, data: bytes) -> KeptFile:
    # Brought again, it waits for a step anew.
    kept, _ = KeptFile.objects.update_or_create(
        name=write_kept(data),
        defaults={"added": timezone.now()},
        create_defaults={"title": title[:200], "size": len(data)},
    )
    kept.makers.add(maker)
    forget_unused()
    return kept


def forget_unused() -> int:
    """Removes kept files that no revision uses and none was made for lately; how many."""
    unused = KeptFile.objects.filter(uses=None, added__lt=timezone.now() - UNUSED_FOR)
    names = list(unused.values_list("name", flat=True))
    for name in names:
        forget_kept(name)
    unused.filter(name__in=names).delete()
    return len(names)


def refuse_strange_files(owner: User, before: Job, after: Job) -> None:
    """Raises MissingInput at the step's file for one that edits name and that this maker neither brought nor uses."""
    named = (
        set(files_used(after.design)) - set(files_used(before.design)) if after.design is not before.design else set()
    )
    if not named:
        return
    own = KeptFile.objects.filter(Q(makers=owner) | Q(uses__revision__design__owner=owner), name__in=named)
    strange = named - set(own.values_list("name", flat=True))
    shared = (
        json.dumps(list(OwnRecipe.objects.filter(removed=None).values_list("document", flat=True))) if strange else ""
    )
    for part in after.design.parts:
        for step in part.steps:
            name = step.shape.file if isinstance(step, ShapeStep) and isinstance(step.shape, Imported) else ""
            if name in strange and name not in shared:
                raise MissingInput(
                    f"The file {name[:12]} is not kept here any more.", fix="Add the file again.",
                    field=f"parts/{part.id}/steps/{step.id}/shape/file",
                )  # fmt: skip


def use_files(revision: Revision, job: Job) -> None:
    names = files_used(job.design)
    known = KeptFile.objects.in_bulk(names)
    if len(known) < len(names):
        missing = next(name for name in names if name not in known)
        raise NothingThere(f"The file {missing[:12]} is not kept here.", fix="Add the file again.", field="shape/file")
    for i, name in enumerate(names):
        check_file(b"", i, sum(known[other].size for other in names[: i + 1]))
        FileUse.objects.create(revision=revision, file=known[name])
