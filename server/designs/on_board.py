"""Jobs of one's own that are cut from a board of the rack, and what other readings of it would do to them."""

from __future__ import annotations

from dataclasses import replace
from time import process_time

from django.contrib.auth.models import User
from ground.problems import Problem
from lean_notch.basis import BoardBasis, Readings
from lean_notch.ground.elsewhere import TooLongHere, within
from lean_notch.ground.errors import NotchError
from lean_notch.hand_over.effort import QUICK_SECONDS
from lean_notch.told.another_basis import Trial, try_basis

from . import table_schemas as out
from .actions import head_of
from .bases import bases_of, is_of
from .compute import OUTLINES, Beside, computed
from .models import Design, Export
from .shown_changes import show_change

MOST_JOBS = 12
MOST_SECONDS = QUICK_SECONDS
"""Jobs beyond either are counted, not computed: readings come one after the other."""
MOST_CHANGES = 3


def show_jobs_on_board(user: User, stock: int, readings: Readings) -> out.JobsOnBoard:
    """The jobs at work whose board that is, those that were handed over first: a file does not follow a board by itself."""
    mine = Design.objects.filter(owner=user, removed=None).order_by("-changed")
    # A document is large, and of few jobs needed.
    designs = list(mine.select_related("head").defer("head__document", "head__picture"))
    bases = bases_of(designs)
    of_it = [one for one in designs if is_of(bases.get(head_of(one).pk), "stock", stock)]
    handed = set(
        Export.objects.filter(layout__revision__in=[one.head_id for one in of_it]).values_list(
            "layout__revision_id", flat=True
        )
    )
    of_it.sort(key=lambda one: one.head_id not in handed)
    started, jobs, looked = process_time(), list[out.JobOnBoard](), 0
    for design in of_it[:MOST_JOBS]:
        if jobs and process_time() - started > MOST_SECONDS:
            break
        try:
            with within(QUICK_SECONDS):
                shown = _shown(design, stock, readings, handed=design.head_id in handed)
        except (Beside, TooLongHere):
            continue  # it takes longer than one reading may wait for
        looked += 1
        jobs += [shown] if shown else []
    return out.JobsOnBoard(jobs=jobs, more=len(of_it) - looked)


def _shown(design: Design, stock: int, readings: Readings, *, handed: bool) -> out.JobOnBoard | None:
    try:
        now = computed(head_of(design).job)
    except NotchError as error:
        problem = Problem(**error.as_json())
        return out.JobOnBoard(
            id=design.pk, name=design.name, handed=handed, changes=[], fits="", gap=None, problem=problem
        )
    mine = [board.id for board in now.job.design.boards if now.job.basis.of(board.id).stock.id == str(stock)]
    if not mine:
        return None
    basis = now.job.basis
    for board in mine:
        before = basis.of(board)
        basis = basis.with_board(board, replace(before, stock=replace(before.stock, readings=readings)))
    trial: Trial = try_basis(now, basis, OUTLINES)
    told = [one for one in trial.changes if not one.subject.startswith("basis:")]
    cut = _as_cut(now.job.basis.of(mine[0]), readings) if handed else None
    return out.JobOnBoard(
        id=design.pk, name=design.name, handed=handed, changes=[show_change(one) for one in told[:MOST_CHANGES]],
        fits=cut.slot_fit.verdict if cut else "", gap=cut.clearance if cut else None,
        problem=Problem(**trial.error.as_json()) if trial.error else None,
    )  # fmt: skip


def _as_cut(before: BoardBasis, readings: Readings) -> BoardBasis:
    """The board in the slots of a file that was written for what it measured before."""
    return replace(
        before, stock=replace(before.stock, readings=readings), clearance=round(before.slot - readings.mean, 6)
    )
