"""One action a change of a design: permission is the caller's, transaction and revision are here."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass, replace
from typing import TypeVar

from config.problems import Conflict
from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone
from lean_notch.basis import Basis, machine_from_json, stock_from_json
from lean_notch.basis.equip import equipped, news_of_machine, news_of_stock, with_fits, with_kerf
from lean_notch.cutting import profile_from_json
from lean_notch.documents import text
from lean_notch.edits import edit_job
from lean_notch.errors import NotchError
from lean_notch.job import FileFormat, Job, compute, job_to_json, write_files
from lean_notch.recipes import RECIPES
from lean_notch.trial import Trial, try_basis
from lean_notch.units import Unit
from workshop.actions import entries_of, entry_of
from workshop.models import Machine, NotebookEntry, Stock

from .compute import computed, remember
from .models import Design, Export, Layout, Revision

Row = TypeVar("Row", Stock, Machine)


class NothingThere(NotchError):
    code = "nothing-there"


def start_design(
    owner: User,
    recipe: str,
    name: str,
    settings: Mapping[str, object],
    unit: Unit,
    stock: Stock,
    machine: Machine,
) -> Design:
    """A new design from a recipe, on a stock and a machine of the workshop. Raises NotchError at the field."""
    if recipe not in RECIPES:
        raise NothingThere(f"There is no recipe “{recipe}”.", fix=f"Use one of: {', '.join(RECIPES)}.", field="recipe")
    basis = equipped(stock_from_json(stock.document), machine_from_json(machine.document), entries_of(str(machine.pk)))
    job = Job(RECIPES[recipe].design(text(name, "name", 80), settings, unit), basis)
    computed(job)  # a design that cannot be built is not started
    with transaction.atomic():
        design = Design.objects.create(owner=owner, name=job.design.name)
        _advance(design, job)
    return design


@dataclass(frozen=True)
class Swap:
    """What of the workshop's a job is to be computed from instead: a board, a machine, what a notebook entry found."""

    stock: Stock | None = None
    machine: Machine | None = None
    entry: NotebookEntry | None = None

    def basis(self, before: Basis) -> Basis:
        basis = before
        if self.stock or self.machine:
            stock = stock_from_json(self.stock.document) if self.stock else before.stock
            machine = machine_from_json(self.machine.document) if self.machine else before.machine
            basis = equipped(stock, machine, entries_of(machine.id), before)
        if self.entry:
            found = entry_of(self.entry)
            if found.kerf is not None:
                basis = replace(basis, machine=with_kerf(basis.machine, found))
            if found.fits is not None:
                basis = with_fits(basis, found.fits)
        return basis


def edit_design(design_id: int, changes: Mapping[str, object], unit: Unit, seen: int, swap: Swap = Swap()) -> Design:
    """A new revision with `swap` and `changes`, if nobody moved the design since `seen`. Raises Conflict or NotchError.

    An edit that changes nothing saves nothing.
    """
    with transaction.atomic():
        design = _unmoved(design_id, seen)
        before = head_of(design).job
        after = edit_job(replace(before, basis=swap.basis(before.basis)), changes, unit)
        if after != before:
            computed(after)
            _advance(design, after)
    return design


def try_swaps(design: Design, swaps: Sequence[Swap]) -> list[Trial]:
    """The job on each of the other bases; a swap of nothing leaves it as it is. Nothing is kept."""
    now = computed(head_of(design).job)
    return [try_basis(now, swap.basis(now.job.basis)) for swap in swaps]


def save_variant(design: Design, name: str, swap: Swap) -> Design:
    """A design of its own on another basis, that remembers which one it comes from. Raises NotchError."""
    before = head_of(design).job
    job = edit_job(replace(before, basis=swap.basis(before.basis)), {"name": name})
    computed(job)
    with transaction.atomic():
        variant = Design.objects.create(owner=design.owner, name=job.design.name, variant_of=design)
        _advance(variant, job)
    return variant


@dataclass(frozen=True)
class News:
    """What the workshop says of a job's board or machine otherwise than the job's own copy: `row` is its newest state."""

    row: Stock | Machine
    what: tuple[str, ...]

    @property
    def swap(self) -> Swap:
        return Swap(stock=self.row) if isinstance(self.row, Stock) else Swap(machine=self.row)


def news_of(design: Design) -> list[News]:
    """Of the board, then of the machine; without what is the same, put away or not the workshop's."""
    basis = head_of(design).job.basis
    found = []
    if (stock := _still_there(Stock, basis.stock.id)) and (
        what := news_of_stock(basis.stock, stock_from_json(stock.document))
    ):
        found.append(News(stock, what))
    if (machine := _still_there(Machine, basis.machine.id)) and (
        what := news_of_machine(basis.machine, machine_from_json(machine.document))
    ):
        found.append(News(machine, what))
    return found


def _still_there(model: type[Row], number: str) -> Row | None:
    return model.objects.filter(id=int(number), removed=None).first() if number.isdigit() else None


def undo(design_id: int, seen: int) -> Design:
    """Back to the revision before. Raises NothingThere at the first one."""
    with transaction.atomic():
        design = _unmoved(design_id, seen)
        head = head_of(design)
        if head.parent is None:
            raise NothingThere("This is the first revision.", fix="There is nothing to undo.")
        return _move(design, head.parent)


def redo(design_id: int, seen: int) -> Design:
    """Forward to the revision that was last undone from here."""
    with transaction.atomic():
        design = _unmoved(design_id, seen)
        following = head_of(design).redo
        if following is None:
            raise NothingThere("This is the newest revision.", fix="There is nothing to redo.")
        return _move(design, following)


def remove_design(design: Design) -> None:
    """Takes a design off the maker's list; `restore_design` brings it back."""
    design.removed = timezone.now()
    design.save()


def restore_design(design: Design) -> None:
    design.removed = None
    design.save()


def export_design(design: Design, file_format: FileFormat, profile: Mapping[str, object]) -> list[Export]:
    """Writes the head revision's files as `profile` wants them, and keeps them with the layout they come from."""
    head = head_of(design)
    result = compute(head.job, profile_from_json(profile))
    with transaction.atomic():
        layout, _ = Layout.objects.get_or_create(revision=head, defaults={"document": asdict(result.layout)})
        return [
            Export.objects.create(
                layout=layout, sheet=file.sheet, format=file_format, file_name=file.name, data=file.data
            )
            for file in write_files(result, file_format)
        ]


def head_of(design: Design) -> Revision:
    assert design.head is not None, "a design is created together with its first revision"
    return design.head


def _unmoved(design_id: int, seen: int) -> Design:
    neighbours = Design.objects.select_related("head__parent", "head__redo")
    design = neighbours.defer("head__parent__document", "head__redo__document").get(id=design_id)
    if design.moves != seen:
        raise Conflict(
            "This job was changed in another window since it was shown here.",
            fix="Take the other window's state, or save yours over it; theirs stays in the history.",
        )
    return design


def _advance(design: Design, job: Job) -> None:
    parent = design.head
    number = design.revisions.count() + 1
    document = job_to_json(job)
    revision = Revision.objects.create(design=design, number=number, parent=parent, document=document)
    remember(document, job)
    revision.job = job
    if parent:
        parent.redo = revision
        parent.save(update_fields=["redo"])
    _move(design, revision)


def _move(design: Design, revision: Revision) -> Design:
    design.head = revision
    design.name = revision.document["design"]["name"]
    design.moves += 1
    design.save()
    return design
