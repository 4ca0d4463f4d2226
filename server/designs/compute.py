"""The core's pure functions, remembered by content: what was just computed is not computed again."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from lean_notch.job import Job, Result, compute, job_from_json
from lean_notch.proof import Proof
from lean_notch.proving import prove_job
from lean_notch.reading import outlines_of
from lean_notch.remembered import Remembered

from .kept_files import read_kept

OUTLINES = outlines_of(read_kept)

_JOBS: Remembered[Job] = Remembered(64)
_RESULTS: Remembered[Result] = Remembered(16)
_PROOFS: Remembered[Proof] = Remembered(16)


def job_of(revision: tuple[object, ...], document: Callable[[], dict[str, Any]]) -> Job:
    """The job of a revision, by its key; its document is asked for only if it has to be read."""
    return _JOBS(revision, lambda: job_from_json(document()))


def keep_job(revision: tuple[object, ...], job: Job) -> Job:
    """For a revision that was just written of it: there is one of each."""
    return _JOBS.keep(revision, job)


def computed(job: Job) -> Result:
    """The result of a job. Raises NotchError at the path to mend."""
    return _RESULTS((job,), lambda: compute(job, outlines=OUTLINES))


def known_proof(job: Job) -> Proof | None:
    return _PROOFS.find((job,))


def proved(job: Job) -> Proof:
    """The proof of the file that would be handed over for a job."""
    return _PROOFS((job,), lambda: prove_job(computed(job)))
