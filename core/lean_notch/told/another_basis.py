"""A job tried on another basis: what changes, what fails, how many sheets, how long, for how much.

In: a computed job and a basis; out: a Trial. Nothing is kept: adopting it is an edit.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from ..basis import Basis
from ..cutting import estimate
from ..ground.errors import NotchError
from ..job import Job, Result, compute, refuse_without_place
from ..lengths.figures import Figure
from ..making import Build, JointFit, Outlines, fit_wants, joint_fits, no_files
from ..nesting import Layout
from .ledger import ledger

SAME_MM = 1e-4
"""Figures nearer than this are the same: a caliper cannot tell them apart."""


@dataclass(frozen=True)
class Change:
    """A row of the ledger, before and after. `subject` is what it belongs to, `about` that in words."""

    subject: str
    about: str
    before: Figure
    after: Figure


@dataclass(frozen=True)
class Trial:
    """What a job would be. With an `error` it cannot be made on that basis, and the rest says nothing.

    `seconds` is the time of all sheets, `area` what the sheets measure in mm², `price` theirs if all boards have one.
    """

    basis: Basis
    error: NotchError | None = None
    changes: tuple[Change, ...] = ()
    joints: tuple[JointFit, ...] = ()
    sheets: int = 0
    used: float = 0.0
    seconds: float = 0.0
    area: float = 0.0
    price: float | None = None

    @property
    def failing(self) -> tuple[str, ...]:
        """The joints that fall out or will not go, by their titles."""
        return tuple(joint.title for joint in self.joints if joint.fit.fails)

    @property
    def wants(self) -> str:
        return fit_wants(self.joints)


def try_basis(now: Result, basis: Basis, outlines: Outlines = no_files) -> Trial:
    """The job of `now` on `basis`. Never raises for what a basis can do to a job: that is in the trial."""
    try:
        after = now if basis == now.job.basis else compute(replace(now.job, basis=basis), now.profile, outlines)
        refuse_without_place(after)
    except NotchError as error:
        return Trial(basis, error)
    layout, job = after.layout, after.job
    return Trial(
        basis,
        changes=changes(now, after),
        joints=joint_fits(after.build.parts, after.build.mates, basis),
        sheets=len(layout.sheets),
        used=sum(after.used(sheet.number) for sheet in layout.sheets) / layout.area if layout.sheets else 0.0,
        seconds=job_seconds(after),
        area=layout.area,
        price=price_of(job, layout),
    )


def job_seconds(result: Result) -> float:
    """How long all sheets take, each on its board's machine."""
    boards = {sheet.number: sheet.board for sheet in result.layout.sheets}
    basis = result.job.basis
    return math.fsum(estimate(plan, basis.of(boards[plan.number])).total for plan in result.plan.sheets)


def price_of(job: Job, layout: Layout) -> float | None:
    """What the sheets cost, None where one has no price."""
    prices = [job.basis.of(sheet.board).stock.price for sheet in layout.sheets]
    known = [price for price in prices if price is not None]
    return math.fsum(known) if len(known) == len(prices) else None


def changes(before: Result, after: Result) -> tuple[Change, ...]:
    """The figures of the basis and the job that differ, and the sizes of the parts that do."""
    old, new = ledger(before), ledger(after)
    boards = after.job.design.boards
    titles = {f"basis:{board.id}": board.title if len(boards) > 1 else "" for board in boards}
    titles |= {"job": ""} | {f"part:{part.id}": part.title for part in after.build.parts}
    found: list[Change] = []
    for subject, about in titles.items():
        part = subject.startswith("part:")
        rows = [figure for figure in new[subject] if not part or figure.key in ("width", "height")]
        found += _changed(subject, about, old.get(subject, ()), rows)
    return tuple(found)


def _changed(subject: str, about: str, old: Sequence[Figure], new: Sequence[Figure]) -> list[Change]:
    known = {figure.key: figure for figure in old}
    return [
        Change(subject, about, known[figure.key], figure)
        for figure in new
        if figure.key in known and _differ(known[figure.key], figure)
    ]


def _differ(before: Figure, after: Figure) -> bool:
    if before.value is None or after.value is None:
        return before.word != after.word
    return abs(before.value - after.value) > SAME_MM


@dataclass(frozen=True)
class Moved:
    """A step whose shape lies elsewhere, by how much, in mm."""

    part: str
    step: str
    dx: float
    dy: float


def moved(before: Build, after: Build) -> Iterator[Moved]:
    """Steps of the parts that both have, by the middle of what they drew."""
    was = {part.id: part for part in before.parts}
    for part in after.parts:
        old = was.get(part.id)
        if old is None or old.named == part.named:
            continue
        centres = {one.step: dict(one.points).get(f"centre:{one.step}") for one in old.named}
        for one in part.named:
            here, there = centres.get(one.step), dict(one.points).get(f"centre:{one.step}")
            if here and there and math.dist(here, there) > NEAR_MM:
                yield Moved(part.id, one.step, there[0] - here[0], there[1] - here[1])


NEAR_MM = 1e-6
