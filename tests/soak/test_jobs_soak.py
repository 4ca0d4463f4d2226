"""300 random jobs written and proved, `make soak-jobs` (JOBS=n for more): none is stopped by its file for a reason that the design
did not know before. Not part of `make test`, which does the first 60."""

from __future__ import annotations

import os

import pytest
from right_jobs import ended

JOBS = int(os.environ.get("JOBS", "300"))


@pytest.mark.parametrize("seed", range(JOBS))
def test_a_right_job_is_stopped_for_no_reason_that_it_did_not_know(seed):
    assert ended(seed) != "told nothing to do"
