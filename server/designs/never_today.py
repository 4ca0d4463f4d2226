"""What the workshop says today is never cut on a machine: a job's own copy of it may be older."""

from __future__ import annotations

from dataclasses import replace

from lean_notch.basis import Board
from lean_notch.basis.never import refuse_never
from lean_notch.job import Job
from workshop.actions import limits_of_kind, stock_in_use
from workshop.models import Stock


def refuse_never_today(job: Job) -> None:
    """Raises NeverOnMachine at "machine" where the workshop says today that a board of the job is never cut on its machine: the job's
    own copy may be older."""
    for board in job.design.boards:
        basis = job.basis.of(board.id)
        refuse_never(_as_today(basis.stock), basis.machine, "machine")


def refuse_what_stopped_being_so(before: Job, after: Job) -> None:
    """The same of boards and machines that an edit brings together."""
    for name, one in after.basis.boards if after.basis is not before.basis else ():
        was = dict(before.basis.boards).get(name)
        if was is None or (was.stock.id, was.machine.id) != (one.stock.id, one.machine.id):
            refuse_never(_as_today(one.stock), one.machine, f"basis/{name}/machine")


def _as_today(stock: Board) -> Board:
    row = Stock.objects.filter(pk=int(stock.id)).first() if _is_number(stock.id) else None
    return stock_in_use(row) if row else replace(stock, limits=stock.limits.over(limits_of_kind(stock.kind)))


def _is_number(text: str) -> bool:
    return text.isascii() and text.isdigit()
