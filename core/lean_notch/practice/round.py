"""A whole round on a practice machine: in, the machine and a test piece's job; out, what is measured of it.

A comb wants the kerf first. As a maker would, this cuts a row of slats of the same board, and compensates the comb for what
they tell.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from ..basis.kerf import kerf_of_slats
from ..design import MAIN
from ..hand_over.files import write_files
from ..job import Job, compute
from ..test_pieces import as_given, piece_job, recipe_of
from .practice import Practice, PracticeCut


@dataclass(frozen=True)
class Practised:
    """`kerf` is what slats told first, in mm; None where no comb was cut."""

    cut: PracticeCut
    kerf: float | None = None


def practised(practice: Practice, job: Job) -> Practised:
    """What the practice machine makes of a test piece's own file."""
    if recipe_of(job.design) != "comb":
        return Practised(_cut(practice, job))
    basis = job.basis.of(MAIN.id)
    slats = piece_job("slats", {}, basis.stock, basis.machine)
    given = as_given(slats.design)
    kerf = kerf_of_slats(given.length, given.pieces, _cut(practice, slats).row).value
    compensated = replace(basis, machine=replace(basis.machine, kerf=kerf, found=None))
    return Practised(_cut(practice, replace(job, basis=job.basis.with_board(MAIN.id, compensated))), kerf)


def _cut(practice: Practice, job: Job) -> PracticeCut:
    file = write_files(compute(job), "svg")[0]
    return practice.cut(file.data, file.name)
