"""Files that leave a job: for which machine, kept with what their proof said, and what came of them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict
from hashlib import sha256
from typing import Any, cast

from django.db import transaction
from django.utils import timezone
from lean_notch.basis.settings import Outcome
from lean_notch.ground.errors import NotchError
from lean_notch.ground.findings import Finding
from lean_notch.hand_over.files import FileFormat, OutFile, marked
from lean_notch.hand_over.proving import FileProof
from lean_notch.job import Job
from lean_notch.job.for_machine import is_on, on_machine, refuse_without_room
from workshop.models import Machine

from . import again, verdicts
from .compute import computed
from .models import Export, Layout, Revision
from .rack import RACK, NothingThere


def job_for(job: Job, machine: int | None) -> Job:
    """The job as it is planned on a machine of the workshop, or as it is. Raises NothingThere for a machine that is not there."""
    if machine is None or is_on(job, str(machine)):
        return job
    if not Machine.objects.filter(pk=machine, removed=None).exists():
        raise NothingThere(
            "That machine is not in the workshop any more.",
            fix="Choose another receiver, or restore the machine.",
            field="machine",
        )
    known = RACK.machine(machine)
    moved = on_machine(job, known, RACK.entries(known.id))
    refuse_without_room(computed(moved))
    return moved


def keep_exports(
    revision: Revision, file_format: FileFormat, files: Sequence[OutFile], proofs: Sequence[FileProof], profile: dict[str, Any],
    machine: int | None = None,
) -> list[Export]:  # fmt: skip
    """Keeps files that were written of a revision by a profile, for its own machine or another one, with the layout that they come
    from and what the proof of each said: a file's proof is the one that read these very bytes under its name."""
    placed = computed(revision.job).layout
    read = {(proof.name, proof.sha256): proof for proof in proofs}
    of_each = [(file, read[file.name, sha256(file.data).hexdigest()]) for file in files]
    with transaction.atomic():
        layout, _ = Layout.objects.get_or_create(revision=revision, defaults={"document": asdict(placed)})
        return [
            Export.objects.create(
                layout=layout,
                sheet=file.sheet,
                format=file_format,
                data=file.data,
                sha256=proof.sha256,
                holds={"part": file.part, "operation": file.operation, "back": file.back, "machine": machine},
                profile=profile,
                proof={**verdicts.dated(proof.said), "found": _told(proof.findings)},
                receiver=str(profile["name"])[:80],
                file_name=marked(file.name, proof.said.verdict),
            )
            for file, proof in of_each
        ]


MOST_TOLD = 12


def _told(findings: Sequence[Finding]) -> list[list[str]]:
    """What stops a file and what was not looked at in it, in words."""
    return [[one.severity, one.why] for one in findings if one.severity != "look"][:MOST_TOLD]


class ChangedFile(NotchError):
    code = "changed-file"


def content_of(export: Export) -> bytes:
    """The bytes that were handed over. Raises ChangedFile if they are no longer those that its proof read."""
    data = bytes(export.data)
    if export.sha256 and sha256(data).hexdigest() != export.sha256:
        raise ChangedFile(
            f"{export.file_name} is not what was handed over any more: its SHA-256 is another one.",
            fix="Save it again from the job, or restore a backup.",
        )
    return data


def today(export: Export) -> tuple[str, ...] | None:
    """What would be otherwise if a file were written today; None where it is not known by which profile it was written."""
    if export.profile is None or export.holds is None:
        return None
    job = job_for(export.layout.revision.job, export.holds.get("machine"))
    held = [export.sheet, export.holds["part"], export.holds["operation"], export.holds["back"]]
    return tuple(again.would_differ(job, export.profile, cast(FileFormat, export.format), held, content_of(export)))


def tell_outcome(export: Export, outcome: Outcome) -> Export:
    """Keeps how a file came out."""
    export.outcome, export.told = outcome, timezone.now()
    export.save(update_fields=["outcome", "told"])
    return export
