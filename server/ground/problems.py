"""How an error looks to whoever calls the API."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime

from lean_notch.ground.errors import NotchError
from ninja import Schema


class Problem(Schema):
    """The same that the core and the command line give."""

    code: str
    why: str
    fix: str
    field: str
    mend: str = ""


class Saved(Schema):
    """What was saved meanwhile: a revision in words, and whose it is."""

    number: int
    sentence: str
    by: str
    saved: datetime


class ConflictProblem(Problem):
    """`theirs` is what was saved since, the oldest first; `mine` is what would have been, in words."""

    theirs: list[Saved] = []
    mine: str = ""


class Conflict(NotchError):
    """Somebody else, or another window, was quicker."""

    code = "changed-elsewhere"

    def __init__(self, why: str, fix: str, theirs: Sequence[Saved] = (), mine: str = "") -> None:
        super().__init__(why, fix=fix)
        self.theirs, self.mine = list(theirs), mine

    @property
    def problem(self) -> ConflictProblem:
        return ConflictProblem(**self.as_json(), theirs=self.theirs, mine=self.mine)
