"""What the workshop says newer than jobs were computed from, and jobs that follow it, each by an edit of its own."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass, field
from typing import Literal

from django.contrib.auth.models import User
from lean_notch.basis import basis_to_json, board_basis_from_json
from lean_notch.basis.news import (
    newer_entries,
    news_of_machine,
    news_of_stock,
    say_entry,
    say_machine,
    say_stock,
    say_taken_back,
    taken_back,
    thicknesses,
)
from lean_notch.basis.notebook import Entry
from lean_notch.edits import Edit, edit_job
from lean_notch.ground.errors import NotchError
from lean_notch.job import Job, Result
from lean_notch.told.another_basis import Change, changes
from lean_notch.told.what_breaks import broken
from workshop.actions import entries_of, stocks_in_use
from workshop.models import Machine

from .actions import edit_design, head_of
from .again import planned_stops
from .bases import Document, bases_of, named_boards_of
from .compute import computed
from .models import Design, Export
from .rack import RACK

Of = Literal["board", "machine", "notebook"]
TAKEN_BACK = "kerf taken back"


@dataclass(frozen=True)
class News:
    """What the workshop says newer of a job's `board`, or of the machine that cuts it: `id` is the number of the board, machine or
    notebook entry, `what` differs, `said` is that in a sentence without its end, `at` when it was measured or found, as far as that is
    known. `was` and `now` are thicknesses or kerfs in mm. `own`: the job has readings of its own, and is not behind."""

    board: str
    of: Of
    id: int
    what: tuple[str, ...]
    said: str
    at: str = ""
    was: float | None = None
    now: float | None = None
    own: bool = False

    @property
    def edits(self) -> list[Edit]:
        """That follow it. A kerf that was taken back, and that nothing stands in for, becomes one that nobody measured."""
        if self.what == (TAKEN_BACK,):
            return [Edit("put", f"basis/{self.board}/kerf", self.was)]
        name = {"board": "stock", "machine": "machine", "notebook": "entry"}[self.of]
        return [Edit("put", f"basis/{self.board}/{name}", self.id)]


@dataclass
class Workshop:
    """The workshop as it is at this moment, read once for many jobs; what is archived is not in it."""

    stocks: Mapping[str, Document] = field(default_factory=stocks_in_use)
    machines: Mapping[str, Document] = field(
        default_factory=lambda: {str(row.pk): row.document for row in Machine.objects.filter(removed=None)}
    )
    _entries: dict[str, list[Entry]] = field(default_factory=dict)

    def entries(self, machine: str) -> list[Entry]:
        if machine not in self._entries:
            self._entries[machine] = entries_of(machine)
        return self._entries[machine]

    def newer(self, basis: Document | None) -> list[News]:
        """All by which a job of that basis document is behind."""
        return [one for one in self.news(basis) if not one.own]

    def news(self, basis: Document | None) -> list[News]:
        """Of a job's basis document: of each board, then its machine, then the notebook. A document that cannot be read has none."""
        found: list[News] = []
        with suppress(NotchError, KeyError, TypeError, AttributeError):
            for name, one in named_boards_of(basis):
                found += self._of_board(name, one)
        return found

    def _of_board(self, board: str, one: Document) -> list[News]:
        found = []
        stock, machine = one["stock"], one["machine"]
        rack, known = self.stocks.get(stock.get("id", "")), self.machines.get(machine.get("id", ""))
        if rack and (what := news_of_stock(stock, rack)):
            was, now = thicknesses(stock, rack)
            measured = ("thickness" in what and rack.get("measured")) or ""
            own = "thickness" in what and not stock.get("measured")
            found.append(
                News(board, "board", int(rack["id"]), what, say_stock(stock, rack, what), measured, was, now, own)
            )
        if known and (what := news_of_machine(machine, known)):
            found.append(News(board, "machine", int(known["id"]), what, say_machine(known, what)))
        if known and (entries := self.entries(known["id"])):
            basis = board_basis_from_json(one)
            newer, struck = newer_entries(basis, entries), taken_back(basis, entries)
            if struck and not any(entry.kerf is not None for entry in newer):
                said = say_taken_back(basis)
                found.append(News(board, "notebook", int(struck.id), (TAKEN_BACK,), said, was=basis.kerf))
            found += [_found(board, entry, say_entry(basis, entry), basis.kerf) for entry in newer]
        return found


def _found(board: str, entry: Entry, said: str, was: float) -> News:
    if entry.kerf is None:
        return News(board, "notebook", int(entry.id), ("fits",), said, entry.date)
    return News(board, "notebook", int(entry.id), ("kerf",), said, entry.date, was, entry.kerf)


def news_of(job: Job) -> list[News]:
    """What the workshop says otherwise than one job."""
    return Workshop().news(basis_to_json(job.basis))


def newer_of(job: Job) -> list[News]:
    return Workshop().newer(basis_to_json(job.basis))


def follow_edits(news: Sequence[News]) -> list[Edit]:
    """Boards and machines first: another board may bring what the notebook knows of it with it."""
    return [edit for one in sorted(news, key=lambda one: one.of == "notebook") for edit in one.edits]


class Stays(NotchError):
    code = "stays"


@dataclass(frozen=True)
class Followed:
    """What following would make of a job: the figures that change, or why it stays as it is."""

    news: list[News]
    changes: tuple[Change, ...] = ()
    stays: NotchError | None = None


def would_follow(design: Design) -> Followed:
    job = head_of(design).job
    news = newer_of(job)
    try:
        before = computed(job)
        after = _followed(before, news)
    except NotchError as error:
        return Followed(news, stays=error)
    return Followed(news, changes(before, after))


def _followed(before: Result, news: Sequence[News]) -> Result:
    """Raises NotchError where the job would not build, or not fit any more."""
    after = computed(edit_job(before.job, follow_edits(news), "mm", RACK))
    known = {(one.code, one.part) for one in planned_stops(before)}
    stops = [*broken(before, after), *(one for one in planned_stops(after) if (one.code, one.part) not in known)]
    if stops:
        first = stops[0]
        raise Stays(
            first.why, fix=f"{first.fix} It stays as it is until it is followed in the job itself.", field=first.field
        )
    return after


def follow(design: Design, seen: int, revision: int | None, by: User | None) -> Design:
    """The job on what the workshop says now, as a revision of its own, merged with what others saved since `seen`. Raises NotchError
    where it stays as it is."""
    before = computed(head_of(design).job)
    news = newer_of(before.job)
    if not news:
        return design
    _followed(before, news)
    return edit_design(design.pk, follow_edits(news), "mm", seen, revision, by)


@dataclass(frozen=True)
class Concerned:
    """A job on the table of which the workshop says something newer; `handed`: files of it were handed over."""

    design: Design
    news: list[News]
    handed: bool


def concerned(designs: Sequence[Design]) -> list[Concerned]:
    """Told from the documents, without computing: those that were not handed over first."""
    workshop, bases = Workshop(), bases_of(designs)
    found = [(one, news) for one in designs if (news := workshop.newer(bases.get(head_of(one).pk)))]
    handed = set(
        Export.objects.filter(layout__revision__design__in=[one for one, _ in found]).values_list(
            "layout__revision__design_id", flat=True
        )
    )
    told = [Concerned(one, news, one.pk in handed) for one, news in found]
    return sorted(told, key=lambda one: one.handed)
