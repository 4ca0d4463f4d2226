"""The core's pure functions, remembered by content: what was just computed is not computed again."""

from __future__ import annotations

import json
from functools import lru_cache
from threading import Lock
from typing import Any

from lean_notch.job import Job, Result, compute, job_from_json
from lean_notch.proof import Proof
from lean_notch.proving import prove_job
from lean_notch.reading import outlines_of

from .kept_files import read_kept

MOST_READ = 64
_read: dict[str, Job] = {}
_lock = Lock()
OUTLINES = outlines_of(read_kept)


def read_job(document: dict[str, Any]) -> Job:
    """The job of a revision's document."""
    job = _read.get(json.dumps(document))
    if job is None:
        job = job_from_json(document)
        remember(document, job)
    return job


def remember(document: dict[str, Any], job: Job) -> None:
    """Keeps a job that was just written as `document`, so that it need not be read again."""
    with _lock:
        _read[json.dumps(document)] = job
        while len(_read) > MOST_READ:
            del _read[next(iter(_read))]


@lru_cache(maxsize=16)
def computed(job: Job) -> Result:
    """The result of a job. Raises NotchError at the path to mend."""
    return compute(job, outlines=OUTLINES)


_proofs: dict[Job, Proof] = {}
MOST_PROOFS = 16


def known_proof(job: Job) -> Proof | None:
    return _proofs.get(job)


def proved(job: Job) -> Proof:
    """The proof of the file that would be handed over for a job."""
    found = known_proof(job) or prove_job(computed(job))
    with _lock:
        _proofs[job] = found
        while len(_proofs) > MOST_PROOFS:
            del _proofs[next(iter(_proofs))]
    return found
