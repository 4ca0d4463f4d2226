"""How long work will take, told before it is begun: within a factor, and in the right order."""

from __future__ import annotations

import hostile
from conftest import drawn, make_job
from lean_notch.hand_over.effort import QUICK_SECONDS, check_seconds, export_seconds, proof_seconds
from lean_notch.hand_over.files import write_files
from lean_notch.hand_over.proving import prove_job
from lean_notch.hand_over.reading import read_any
from lean_notch.job import compute
from lean_notch.proof.check_file import check_file
from timing import least_seconds


def holes(columns, rows):
    return {
        "id": "holes", "kind": "shape", "does": "cut", "x": "20", "y": "20", "shape": {"kind": "disc", "diameter": "4"},
        "pattern": {"kind": "grid", "columns": columns, "rows": rows, "dx": "7", "dy": "7"},
    }  # fmt: skip


def test_of_two_jobs_the_one_takes_as_much_longer_as_was_told():
    """Ratios of one run: a tray, and one with 600 holes."""
    plain = make_job(width="300", depth="200", height="40")
    few, many = compute(plain), compute(drawn(plain, holes(30, 20), part="base"))
    told = proof_seconds(many) / proof_seconds(few)
    measured = least_seconds(lambda: prove_job(many), runs=1) / least_seconds(lambda: prove_job(few))
    assert told / 5 < measured < 5 * told


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


def test_of_two_drawings_the_larger_takes_as_much_longer_as_was_told():
    small, large = hostile.shattered_circles(30, 200), hostile.shattered_circles(300, 200)
    of_large = least_seconds(lambda: check_file(read_any(large, "x.svg")), runs=1)
    measured = of_large / least_seconds(lambda: check_file(read_any(small, "x.svg")))
    told = check_seconds(large) / check_seconds(small)
    assert told / 5 < measured < 5 * told
