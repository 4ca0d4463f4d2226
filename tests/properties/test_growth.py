"""Growth, as a ratio within one run: no clock decides by itself."""

from __future__ import annotations

from conftest import make_job
from large_jobs import forty_parts
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import Job, compute
from timing import least_seconds


def test_the_chain_grows_no_faster_than_its_parts():
    """A ratio within one run: eight trays may take at most twenty times one tray."""

    def seconds(job: Job) -> float:
        return least_seconds(lambda: prove_job(compute(job)))

    assert seconds(forty_parts()) < 20 * seconds(make_job())
