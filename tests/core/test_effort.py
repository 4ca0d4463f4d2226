"""How long work will take, told before it is begun: within a factor, and in the right order."""

from __future__ import annotations

import time

import hostile
import pytest
from conftest import drawn, make_job
from large_jobs import forty_parts
from lean_notch.effort import QUICK_SECONDS, check_seconds, export_seconds, proof_seconds
from lean_notch.files import write_files
from lean_notch.job import compute
from lean_notch.proof.check_file import check_file
from lean_notch.proving import prove_job
from lean_notch.reading import read_any


def holes(columns, rows):
    return {
        "id": "holes", "kind": "shape", "does": "cut", "x": "20", "y": "20", "shape": {"kind": "disc", "diameter": "4"},
        "pattern": {"kind": "grid", "columns": columns, "rows": rows, "dx": "7", "dy": "7"},
    }  # fmt: skip


@pytest.mark.parametrize("job", [
    forty_parts(), drawn(make_job(width="300", depth="200", height="40"), holes(30, 20), part="base"),
], ids=["forty parts", "600 holes"])  # fmt: skip
def test_a_proof_takes_about_what_was_told(job):
    result = compute(job)
    told = proof_seconds(result)
    begin = time.process_time()
    assert prove_job(result).fits
    # A ratio of two figures of one run, with room for a machine that is three times as quick or as slow.
    assert told / 9 < time.process_time() - begin < 9 * told


def test_an_ordinary_job_is_quick_and_a_thousand_holes_are_not():
    assert proof_seconds(compute(make_job())) < QUICK_SECONDS
    job = drawn(make_job(width="500", depth="330", height="30"), holes(40, 25), part="base")
    assert proof_seconds(compute(job)) > QUICK_SECONDS
    assert export_seconds(compute(job), "svg") < QUICK_SECONDS


def test_a_file_that_repeats_things_counts_as_long_however_small_it_is():
    assert check_seconds(hostile.nested_uses(3)) > QUICK_SECONDS
    assert check_seconds(hostile.nested_blocks(3)) > QUICK_SECONDS
    [file] = write_files(compute(make_job()), "svg")
    assert check_seconds(file.data) < QUICK_SECONDS
    begin = time.process_time()
    check_file(read_any(hostile.shattered_circles(200, 200), "x.svg"))
    told = check_seconds(hostile.shattered_circles(200, 200))
    assert told / 9 < time.process_time() - begin < 9 * told
