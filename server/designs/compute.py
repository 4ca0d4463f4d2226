"""The core's pure functions, remembered by content: what was just computed is not computed again."""

from __future__ import annotations

import json
from functools import lru_cache
from typing import Any

from lean_notch.job import Result, compute, job_from_json, prove_job
from lean_notch.proof import Proof


def computed(document: dict[str, Any]) -> Result:
    """The result of a job document. Raises NotchError at the field to mend."""
    return _computed(json.dumps(document, sort_keys=True))


def proved(document: dict[str, Any]) -> Proof:
    """The proof of the file that would be handed over for a job document."""
    return _proved(json.dumps(document, sort_keys=True))


@lru_cache(maxsize=128)
def _computed(text: str) -> Result:
    return compute(job_from_json(json.loads(text)))


@lru_cache(maxsize=32)
def _proved(text: str) -> Proof:
    return prove_job(_computed(text))
