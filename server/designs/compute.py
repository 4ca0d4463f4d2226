"""The core's pure functions, remembered by content: what was just computed is not computed again."""

from __future__ import annotations

import json
from functools import lru_cache
from typing import Any

from lean_notch.job import Job, Result, compute, job_from_json, prove_job
from lean_notch.proof import Proof


def read_job(document: dict[str, Any]) -> Job:
    """The job of a revision's document."""
    return _read(json.dumps(document))


@lru_cache(maxsize=64)
def _read(text: str) -> Job:
    return job_from_json(json.loads(text))


@lru_cache(maxsize=16)
def computed(job: Job) -> Result:
    """The result of a job. Raises NotchError at the field to mend."""
    return compute(job)


@lru_cache(maxsize=16)
def proved(job: Job) -> Proof:
    """The proof of the file that would be handed over for a job."""
    return prove_job(computed(job))
