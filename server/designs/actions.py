"""One action a change of a design: permission is the caller's, transaction and revision are here.

What takes time is computed before the transaction, which only looks whether anything moved meanwhile: while one maker's
job is computed, nobody else waits for the database.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass, replace

from accounts.names import shown_name
from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone
from ground.problems import Conflict, Saved
from lean_notch.basis import FITS, Basis
from lean_notch.basis.equip import equipped
from lean_notch.basis.never import refuse_never
from lean_notch.design import MAIN
from lean_notch.design import Design as Drawn
from lean_notch.documents.plain import choice, text
from lean_notch.edits import Edit, edit_job, edits_between, independent, refuse_own_failures, sentence
from lean_notch.ground.errors import NotchError
from lean_notch.job import Job, Result, job_to_json, refuse_without_place
from lean_notch.lengths.units import Unit
from lean_notch.recipes import Recipe
from lean_notch.test_pieces.trial_pair import trial_pair
from lean_notch.told.another_basis import Change, changes
from lean_notch.told.recipe_tried import Draft, draft

from .compute import OUTLINES, computed, keep_job
from .files_of_jobs import refuse_strange_files, use_files
from .models import Design, Revision
from .never_today import refuse_what_stopped_being_so
from .pictures import Picture, picture
from .rack import RACK, NothingThere

MOST_TRIES = 3


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
    return start_kept(owner, job, f"Started from {recipe.title.lower()}" if recipe else "Started empty")


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


def start_kept(owner: User, job: Job, said: str, variant_of: Design | None = None) -> Design:
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
        refuse_what_stopped_being_so(before, after)
        refuse_strange_files(design.owner, before, after)
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
    refuse_strange_files(design.owner, before.job, after)
    result = computed(after)
    refuse_own_failures(edits, before, result)
    return after, changes(before, result) if figures else ()


def save_variant(design: Design, name: str, swap: Swap) -> Design:
    """A design of its own on another basis, that remembers which one it comes from. Raises NotchError."""
    job = edit_job(head_of(design).job, [Edit("put", "name", name), *swap.edits], "mm", RACK)
    computed(job)
    return start_kept(design.owner, job, f"Started as a variant of {design.name}", design)


def start_trial_pair(design: Design, joint: str, pairs: int, step: float, owner: User) -> Design:
    """A job that cuts a trial pair of one of its joints. Raises NotchError at "pairs", "step" or the joint."""
    job = trial_pair(head_of(design).job, joint, pairs, step)
    computed(job)
    return start_kept(owner, job, f"Started as a trial pair of {design.name}")


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
    return start_kept(owner, job, f"Started as a copy of {design.name}")


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
    use_files(revision, job)
    if parent:
        parent.redo = revision
        parent.save(update_fields=["redo"])
    _move(design, revision)


def _move(design: Design, revision: Revision) -> Design:
    design.head = revision
    with suppress(NotchError):  # one that cannot be read any more keeps the name that it had
        design.name = revision.job.design.name
    design.moves += 1
    design.save()
    return design
