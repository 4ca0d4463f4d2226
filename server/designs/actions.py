"""One action a change of a design: permission is the caller's, transaction and revision are here.

What takes time is computed before the transaction, which only looks whether anything moved meanwhile: while one maker's
job is computed, nobody else waits for the database.
"""

from __future__ import annotations

import json
from collections.abc import Callable, Mapping, Sequence
from contextlib import suppress
from dataclasses import asdict, dataclass, replace
from datetime import timedelta
from hashlib import sha256
from typing import Any, cast

from accounts.names import shown_name
from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import Q, QuerySet
from django.utils import timezone
from ground.problems import Conflict, Saved
from lean_notch.basis import FITS, Basis, Board
from lean_notch.basis.equip import equipped
from lean_notch.basis.never import refuse_never
from lean_notch.basis.settings import Outcome
from lean_notch.design import MAIN, Imported, ShapeStep
from lean_notch.design import Design as Drawn
from lean_notch.documents.plain import choice, text
from lean_notch.edits import Edit, edit_job, edits_between, independent, refuse_own_failures, sentence
from lean_notch.ground.errors import MissingInput, NotchError
from lean_notch.ground.findings import Finding
from lean_notch.hand_over.files import FileFormat, OutFile, marked
from lean_notch.hand_over.packed import check_file, files_used, pack, unpack
from lean_notch.hand_over.proving import FileProof
from lean_notch.job import Job, Result, job_to_json, refuse_without_place
from lean_notch.job.for_machine import is_on, on_machine, refuse_without_room
from lean_notch.lengths.units import Unit
from lean_notch.recipes import Recipe
from lean_notch.test_pieces.trial_pair import trial_pair
from lean_notch.told.another_basis import Change, changes
from lean_notch.told.recipe_tried import Draft, draft
from workshop.actions import limits_of_kind, stock_in_use
from workshop.models import Machine, Stock

from . import again, verdicts
from .compute import OUTLINES, computed, keep_job
from .kept_files import forget_kept, read_kept, write_kept
from .models import Design, Export, FileUse, KeptFile, Layout, OwnRecipe, Revision
from .pictures import Picture, picture
from .rack import RACK, NothingThere

MOST_TRIES = 3
UNUSED_FOR = timedelta(days=1)
"""How long a file may wait for a step that uses it."""


def start_design(
    owner: User,
    recipe: Recipe | None,
    name: str,
    settings: Mapping[str, object],
    unit: Unit,
    stock: int,
    machine: int,
    fit: str = "",
) -> Design:
    """A new job from a recipe, or an empty one, on a stock and a machine of the workshop. Raises NotchError at the
    field."""
    job = new_job(recipe, name, settings, unit, stock, machine, fit)
    refuse_without_place(computed(job))  # a job that cannot be built, or fits no sheet, is not started
    return _start(owner, job, f"Started from {recipe.title.lower()}" if recipe else "Started empty")


def new_job(
    recipe: Recipe | None,
    name: str,
    settings: Mapping[str, object],
    unit: Unit,
    stock: int,
    machine: int,
    fit: str = "",
) -> Job:
    """What would be started; `fit` is a word of the scale, "" for the usual one. Raises NotchError at the field."""
    known = RACK.machine(machine)
    basis = equipped(RACK.stock(stock), known, RACK.entries(known.id))
    if fit:
        basis = replace(basis, clearance=getattr(basis.fits, choice(fit, FITS, "fit")))
    refuse_never(basis.stock, basis.machine, "machine")
    title = text(name, "name", 80)
    drawn = _asked(recipe, title, settings, unit) if recipe else Drawn(title)
    # Its other boards are chosen at Measure; until then they are this one.
    return Job(drawn, Basis(tuple((board.id, basis) for board in drawn.boards)))


def try_recipe(
    recipe: Recipe, settings: Mapping[str, object], unit: Unit, stock: int, machine: int, fit: str = ""
) -> Draft:
    """What a recipe would make; nothing is kept. Raises NotchError at the field."""
    job = new_job(recipe, "New job", settings, unit, stock, machine, fit)
    result = computed(job)
    refuse_without_place(result)
    return draft(recipe, recipe.typed(settings, unit), result, OUTLINES)


def _asked(recipe: Recipe, name: str, settings: Mapping[str, object], unit: Unit) -> Drawn:
    try:
        return recipe.design(name, settings, unit)
    except NotchError as error:
        error.field = f"answers/{error.field}"
        raise


def _start(owner: User, job: Job, said: str, variant_of: Design | None = None) -> Design:
    shown = picture(job)
    with transaction.atomic():
        design = Design.objects.create(owner=owner, name=job.design.name, variant_of=variant_of)
        _advance(design, job, said, owner, shown)
    return design


@dataclass(frozen=True)
class Swap:
    """What of the workshop's a job's board is to be computed from instead, by numbers: a board, a machine, what a notebook
    entry found."""

    board: str = MAIN.id
    stock: int | None = None
    machine: int | None = None
    entry: int | None = None

    @property
    def edits(self) -> list[Edit]:
        wanted = {"stock": self.stock, "machine": self.machine, "entry": self.entry}
        return [Edit("put", f"basis/{self.board}/{what}", n) for what, n in wanted.items() if n is not None]


def edit_design(
    design_id: int, edits: Sequence[Edit], unit: Unit, seen: int, revision: int | None = None, by: User | None = None
) -> Design:
    """A new revision with `edits`, made on what `seen` and `revision` showed. Raises NotchError at an edit's path.

    What others saved meanwhile is kept, if neither these edits nor those read or write what the other writes; else Conflict.
    Edits that change nothing save nothing.
    """
    for _ in range(MOST_TRIES):
        design = _read(design_id)
        before = head_of(design).job
        after = edit_job(before, edits, unit, RACK)
        _refuse_never_today(before, after)
        _refuse_strange_files(design.owner, before, after)
        if after == before:
            return design  # also where the same edits were saved before, and their answer was lost on its way
        if design.moves != seen:
            _check_independent(design, before, edits, unit, revision)
        refuse_own_failures(edits, _computed(before), computed(after))
        if _save(design, after, sentence(before, edits, after), by):
            return design
    raise Conflict("This job is being changed elsewhere all the time.", fix="Try again in a moment.")


def _computed(job: Job) -> Result | None:
    """None for a job that cannot be computed."""
    try:
        return computed(job)
    except NotchError:
        return None


def _check_independent(design: Design, now: Job, edits: Sequence[Edit], unit: Unit, revision: int | None) -> None:
    """Raises Conflict if the edits, made on an older revision, get in the way of what was saved since."""
    shown = design.revisions.filter(number=revision).first() if revision else None
    fix = "Use theirs, or save yours over it; both stay in the history."
    if shown is None:
        raise Conflict("This job was changed elsewhere since it was shown here.", fix=fix)
    try:
        base = shown.job
        mine = edit_job(base, edits, unit, RACK)
    except NotchError:
        raise Conflict("This job was changed elsewhere since it was shown here.", fix=fix) from None
    theirs = edits_between(base, now)
    if not independent(base, edits, mine, theirs, now):
        since = design.revisions.filter(number__gt=shown.number)
        many = since.count()
        raise Conflict(
            f"This job was saved {many} time{'s' * (many != 1)} elsewhere since it was shown here.",
            fix=fix,
            theirs=_saved(since),
            mine=sentence(base, edits, mine),
        )


def _saved(revisions: QuerySet[Revision], most: int = 5) -> list[Saved]:
    """The newest of them in words, the oldest first."""
    rows = revisions.select_related("by").defer("document").order_by("-number")[:most]
    return [Saved(number=row.number, sentence=row.sentence, by=shown_name(row.by), saved=row.saved) for row in rows][
        ::-1
    ]


def _save(design: Design, job: Job, said: str, by: User | None) -> bool:
    """A new revision behind the one that `design` was read with, if that still is the head. `design` is as saved then."""
    with transaction.atomic():
        newest = Design.objects.filter(pk=design.pk).values_list("head_id", "moves").get()
        if newest != (design.head_id, design.moves):
            return False
        _advance(design, job, said, by)
    return True


def try_edits(
    design: Design, edits: Sequence[Edit], unit: Unit, *, figures: bool = True
) -> tuple[Job, tuple[Change, ...]]:  # fmt: skip
    """What edits would make of the job, and how its figures differ, if those are wanted. Raises NotchError at an edit's path."""
    before = computed(head_of(design).job)
    after = edit_job(before.job, edits, unit, RACK)
    _refuse_strange_files(design.owner, before.job, after)
    result = computed(after)
    refuse_own_failures(edits, before, result)
    return after, changes(before, result) if figures else ()


def save_variant(design: Design, name: str, swap: Swap) -> Design:
    """A design of its own on another basis, that remembers which one it comes from. Raises NotchError."""
    job = edit_job(head_of(design).job, [Edit("put", "name", name), *swap.edits], "mm", RACK)
    computed(job)
    return _start(design.owner, job, f"Started as a variant of {design.name}", design)


def start_trial_pair(design: Design, joint: str, pairs: int, step: float, owner: User) -> Design:
    """A job that cuts a trial pair of one of its joints. Raises NotchError at "pairs", "step" or the joint."""
    job = trial_pair(head_of(design).job, joint, pairs, step)
    computed(job)
    return _start(owner, job, f"Started as a trial pair of {design.name}")


def _free_title(title: str, owner: User) -> str:
    """That, or with the first number from 2 that none of the maker's jobs at work has behind it."""
    taken = set(Design.objects.filter(owner=owner, removed=None, name__startswith=title).values_list("name", flat=True))
    names = (title if number == 1 else f"{title} {number}" for number in range(1, len(taken) + 2))
    return next(name for name in names if name not in taken)


def duplicate(design: Design, owner: User) -> Design:
    """A design of its own, as this one is now. Raises NotchError for one that cannot be computed."""
    title = _free_title(f"{design.name[:68]}, copy", owner)
    job = edit_job(head_of(design).job, [Edit("put", "name", title)], "mm", RACK)
    computed(job)
    return _start(owner, job, f"Started as a copy of {design.name}")


def _is_number(text: str) -> bool:
    return text.isascii() and text.isdigit()


def undo(design_id: int, seen: int) -> Design:
    """Back to the revision before. Raises NothingThere at the first one."""

    def before(design: Design) -> Revision:
        if (parent := head_of(design).parent) is None:
            raise NothingThere("This is the first revision.", fix="There is nothing to undo.")
        return parent

    return _go(design_id, seen, before)


def redo(design_id: int, seen: int) -> Design:
    """Forward to the revision that was last undone from here."""

    def after(design: Design) -> Revision:
        if (following := head_of(design).redo) is None:
            raise NothingThere("This is the newest revision.", fix="There is nothing to redo.")
        return following

    return _go(design_id, seen, after)


def go_to(design_id: int, number: int, seen: int) -> Design:
    """To any revision of the history. What is after it stays, and can be gone back to."""

    def wanted(design: Design) -> Revision:
        if (found := design.revisions.filter(number=number).first()) is None:
            raise NothingThere(f"There is no revision {number}.", fix="Choose one from the history.", field="revision")
        return found

    return _go(design_id, seen, wanted)


def _go(design_id: int, seen: int, to: Callable[[Design], Revision]) -> Design:
    """What has to be waited for is worked out before anything moves."""
    revision = to(_unmoved(design_id, seen))
    with suppress(NotchError):  # one that cannot be computed any more is gone to all the same
        computed(revision.job)
    with transaction.atomic():
        return _move(_unmoved(design_id, seen), revision)


def remove_design(design: Design) -> None:
    """Archives a design; `restore_design` brings it back."""
    design.removed = timezone.now()
    design.save()


def restore_design(design: Design) -> None:
    design.removed = None
    design.save()


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


def refuse_never_today(job: Job) -> None:
    """Raises NeverOnMachine at "machine" where the workshop says today that a board of the job is never cut on its machine: the job's
    own copy may be older."""
    for board in job.design.boards:
        basis = job.basis.of(board.id)
        refuse_never(_as_today(basis.stock), basis.machine, "machine")


def _refuse_never_today(before: Job, after: Job) -> None:
    """The same of boards and machines that an edit brings together."""
    for name, one in after.basis.boards if after.basis is not before.basis else ():
        was = dict(before.basis.boards).get(name)
        if was is None or (was.stock.id, was.machine.id) != (one.stock.id, one.machine.id):
            refuse_never(_as_today(one.stock), one.machine, f"basis/{name}/machine")


def _as_today(stock: Board) -> Board:
    row = Stock.objects.filter(pk=int(stock.id)).first() if _is_number(stock.id) else None
    return stock_in_use(row) if row else replace(stock, limits=stock.limits.over(limits_of_kind(stock.kind)))


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


def keep_file(maker: User, title: str, data: bytes) -> tuple[KeptFile, list[str]]:
    """Keeps a drawing that a step of the maker's may use; with the layers of its outlines. Raises NotchError for one that is too large
    or holds no outline, Beside."""
    check_file(data)
    layers = again.layers_of(title, data)
    return _kept(maker, title, data), layers


def _kept(maker: User, title: str, data: bytes) -> KeptFile:
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


def pack_design(design: Design) -> bytes:
    """The job and its files as one open file."""
    job = head_of(design).job
    return pack(job, {name: read_kept(name) for name in files_used(job.design)})


def unpack_design(owner: User, data: bytes) -> Design:
    """A new job from a packed one. Its numbers of boards and machines are another workshop's, and are forgotten."""
    again.look_into_packed(data)
    job, files = unpack(data)
    for content in files.values():
        check_file(content)
        _kept(owner, again.PACKED_TITLE, content)
    boards = tuple(
        (name, replace(one, stock=replace(one.stock, id=""), machine=replace(one.machine, id="")))
        for name, one in job.basis.boards
    )
    job = replace(job, basis=Basis(boards))
    computed(job)
    return _start(owner, job, "Unpacked from a file")


def head_of(design: Design) -> Revision:
    assert design.head is not None, "a design is created together with its first revision"
    return design.head


def _read(design_id: int) -> Design:
    neighbours = Design.objects.select_related("head__parent", "head__redo", "head__by")
    heavy = [f"head__{one}{what}" for one in ("", "parent__", "redo__") for what in ("document", "picture")]
    return neighbours.defer(*heavy).get(id=design_id)


def _unmoved(design_id: int, seen: int) -> Design:
    design = _read(design_id)
    if design.moves != seen:
        raise Conflict(
            "This job was changed in another window since it was shown here: nothing was undone or redone.",
            fix="What is shown now is the newest. Do it again if you still want to; everything is in the history.",
        )
    return design


def _advance(design: Design, job: Job, said: str, by: User | None, shown: Picture | None = None) -> None:
    """Without a picture, the first page makes one when it is looked at: most revisions are followed by the next one before."""
    parent = design.head
    newest = design.revisions.order_by("-number").values_list("number", flat=True).first() or 0
    document = job_to_json(job)
    revision = Revision.objects.create(
        design=design, number=newest + 1, parent=parent, document=document, by=by, sentence=said[:400], picture=shown
    )
    revision.job = keep_job(revision.key, job)
    _use_files(revision, job)
    if parent:
        parent.redo = revision
        parent.save(update_fields=["redo"])
    _move(design, revision)


def _refuse_strange_files(owner: User, before: Job, after: Job) -> None:
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


def _use_files(revision: Revision, job: Job) -> None:
    names = files_used(job.design)
    known = KeptFile.objects.in_bulk(names)
    if len(known) < len(names):
        missing = next(name for name in names if name not in known)
        raise NothingThere(f"The file {missing[:12]} is not kept here.", fix="Add the file again.", field="shape/file")
    for i, name in enumerate(names):
        check_file(b"", i, sum(known[other].size for other in names[: i + 1]))
        FileUse.objects.create(revision=revision, file=known[name])


def _move(design: Design, revision: Revision) -> Design:
    design.head = revision
    with suppress(NotchError):  # one that cannot be read any more keeps the name that it had
        design.name = revision.job.design.name
    design.moves += 1
    design.save()
    return design
