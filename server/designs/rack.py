"""The workshop as the core's edits ask for it: boards, machines and notebook entries by their numbers."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TypeVar

from lean_notch.basis import Machine, Stock, machine_from_json
from lean_notch.basis.notebook import Entry
from lean_notch.ground.errors import NotchError
from workshop import models
from workshop.actions import entries_of, entry_of, stock_in_use

Row = TypeVar("Row", models.Stock, models.Machine, models.NotebookEntry)


class NothingThere(NotchError):
    code = "nothing-there"


class Rack:
    """Reads the database when it is asked."""

    def stock(self, number: int) -> Stock:
        return stock_in_use(_row(models.Stock, number, "board"))

    def machine(self, number: int) -> Machine:
        return machine_from_json(_row(models.Machine, number, "machine").document)

    def entry(self, number: int) -> Entry:
        return entry_of(_row(models.NotebookEntry, number, "notebook entry"))

    def entries(self, machine: str) -> Sequence[Entry]:
        return entries_of(machine)


def _row(model: type[Row], number: int, what: str) -> Row:
    row = model.objects.filter(pk=number).first()
    if row is None:
        raise NothingThere(f"The workshop has no {what} number {number}.", fix=f"Choose a {what} from the list.")
    return row


RACK = Rack()
