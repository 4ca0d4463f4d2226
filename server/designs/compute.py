"""The core's pure functions, remembered by content: what was just computed is not computed again.

A job that takes longer than a request may is worked out beside the server; the request is made again when that is done.
"""

from __future__ import annotations

from collections.abc import Callable
from contextlib import suppress
from typing import Any, TypeVar

from lean_notch.ground.elsewhere import Found, TooLongHere, taking, within
from lean_notch.ground.errors import MissingInput
from lean_notch.ground.progress import Tell
from lean_notch.ground.remembered import Remembered
from lean_notch.hand_over.effort import QUICK_SECONDS
from lean_notch.hand_over.packed import files_used
from lean_notch.hand_over.proving import prove_job
from lean_notch.hand_over.reading import outlines_of
from lean_notch.job import Job, Result, compute, job_from_json, job_to_json
from lean_notch.proof import Proof
from results import store
from tasks.actions import RUNNING
from tasks.kinds import Given, Kind, kind_of, register

from . import carried
from .kept_files import read_kept

OUTLINES = outlines_of(read_kept)

_JOBS: Remembered[Job] = Remembered(64)
_RESULTS: Remembered[Result] = Remembered(16)
_PROOFS: Remembered[Proof] = Remembered(16)

Made = TypeVar("Made")


class Beside(Exception):
    """A request that has to wait for a task of that kind, and is to be made again then. `about` is what of the maker's it is for."""

    def __init__(self, kind: Kind, about: str, document: dict[str, Any], data: bytes = b"") -> None:
        super().__init__(kind.title)
        self.kind, self.about, self.document, self.data = kind, about, document, data


def job_of(revision: tuple[object, ...], document: Callable[[], dict[str, Any]]) -> Job:
    """The job of a revision, by its key; its document is asked for only if it has to be read."""
    return _JOBS(revision, lambda: job_from_json(document()))


def keep_job(revision: tuple[object, ...], job: Job) -> Job:
    """For a revision that was just written of it: there is one of each."""
    return _JOBS.keep(revision, job)


def computed(job: Job) -> Result:
    """The result of a job. Raises NotchError at the path to mend, Beside where it takes longer than a request may."""
    return _RESULTS((job,), lambda: _compute(job))


def _compute(job: Job) -> Result:
    return worked_out(job, lambda: compute(job, outlines=OUTLINES))


def worked_out(job: Job, work: Callable[[], Made]) -> Made:
    """What follows from a job, where it is quick; else with all that a child worked out of its parts. Raises Beside until one has."""
    if RUNNING.pool is None:
        return work()
    found = _FOUND.find((job,))
    if found is None:
        try:
            with within(QUICK_SECONDS):
                return work()
        except TooLongHere:
            kind = kind_of(WORK_OUT)
            assert kind, "designs.heavy is among the kinds"
            found = _FOUND.keep((job,), carried.read(_worked_out(kind, document_of(job))))
    with taking(found):
        return work()


WORK_OUT = "work-out"

_FOUND: Remembered[Found] = Remembered(4)
"""What was worked out of the jobs that were asked for last."""


def here_or_beside(
    kind: Kind, document: Callable[[], dict[str, Any]], here: Callable[[], bytes], data: bytes = b"", seconds: float = 0.0
) -> bytes:  # fmt: skip
    """What `here` gives, or the same from a child where it is estimated at, or turns out to take, more than a request may. Raises
    Beside until that is done."""
    if RUNNING.pool is None:
        return here()
    if seconds <= QUICK_SECONDS:
        try:
            with within(QUICK_SECONDS):
                return here()
        except TooLongHere:
            pass
    return _worked_out(kind, document(), data)


def document_of(job: Job) -> dict[str, Any]:
    """All that follows from a job follows from this: its document, and which of the files it uses are not there any more."""
    return {"job": job_to_json(job), "gone": [name for name in files_used(job.design) if not _is_there(name)]}


def _is_there(name: str) -> bool:
    with suppress(MissingInput):
        read_kept(name)
        return True
    return False


def _worked_out(kind: Kind, document: dict[str, Any], data: bytes = b"") -> bytes:
    inputs = store.inputs_of(document, data)
    found = store.find(kind.name, inputs)
    if found is None:
        raise Beside(kind, f"{kind.name} {inputs[:16]}", document, data)
    return found


def again(name: str, title: str, compute: Callable[[Given, Tell], bytes], seconds: float = 60.0) -> Kind:
    """A kind of task whose answer is stored, for the same request made again."""
    return register(Kind(name, title, seconds, compute, stored=True, again=True, patience=PATIENCE_SECONDS))


PATIENCE_SECONDS = 8.0
"""Of what the page asks for by itself."""


def known_proof(job: Job) -> Proof | None:
    return _PROOFS.find((job,))


def proved(job: Job) -> Proof:
    """The proof of the file that would be handed over for a job."""
    return _PROOFS((job,), lambda: prove_job(computed(job)))
