"""What is wrong with a data folder: in, the folder; out, sentences, the database's own faults first."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

from lean_notch.ground.errors import NotchError

from upkeep.backups import DATABASE, faults_of


def faults(folder: Path) -> Iterator[str]:
    """Damage in the database, kept files without their row or the reverse, rows that nothing leads to, jobs that no
    longer build."""
    if not (folder / DATABASE).exists():
        yield f"There is no database in {folder}."
        return
    damage = list(faults_of(folder / DATABASE))
    yield from (f"Database: {line}." for line in damage)
    if damage:
        return  # what else would be found is not to be trusted
    yield from _files(folder / "files")
    yield from _jobs()


def _files(folder: Path) -> Iterator[str]:
    from designs.models import KeptFile
    from lean_notch.hand_over.packed import content_name

    there = {path.name: path for path in folder.iterdir() if path.is_file()} if folder.exists() else {}
    kept = set(KeptFile.objects.values_list("name", flat=True))
    for name in sorted(kept - there.keys()):
        yield f"File {name[:12]}: it is kept for jobs, but is not in the data folder."
    for name in sorted(there.keys() - kept):
        yield f"File {name[:12]}: it is in the data folder, and no job uses it."
    for name in sorted(kept & there.keys()):
        if content_name(there[name].read_bytes()) != name:
            yield f"File {name[:12]}: its content was changed."


def _jobs() -> Iterator[str]:
    from designs.compute import computed
    from designs.models import Design, Revision

    for design in Design.objects.filter(head=None):
        yield f"Job {design.pk}: it has no revision."
    for pk in Revision.objects.filter(parent=None).exclude(number=1).values_list("pk", flat=True):
        yield f"Revision {pk}: it follows no other, and is not the first."
    for design in Design.objects.exclude(head=None).select_related("head").order_by("pk").iterator():
        assert design.head
        try:
            computed(design.head.job)
        except NotchError as error:
            yield f"Job {design.pk}: it no longer builds. {error.why}"
