"""How long things take; `make bench`. Never a pass or fail by the clock."""

from __future__ import annotations

import pytest
from conftest import make_job
from large_jobs import forty_parts
from lean_notch.build import build
from lean_notch.edits import edit_job
from lean_notch.geometry import Circle, Region, rectangle
from lean_notch.geometry.boolean import difference
from lean_notch.geometry.offset import offset
from lean_notch.job import compute, prove_job, write_files
from lean_notch.ledger import ledger


def test_a_trays_whole_chain(benchmark):
    """Build, lay out, cut plan, write, read back, prove. Asked for: under 150 ms."""
    job = make_job()
    assert benchmark(lambda: prove_job(compute(job))).fits


@pytest.mark.parametrize("field", ["readings", "kerf", "width_0"])
def test_an_edit_of_a_forty_part_job(benchmark, field):
    """What the server computes for one edit. Asked for: under 100 ms (p95) with the page around it."""
    job = forty_parts()
    assert len(build(job.design, job.basis).parts) == 40
    values = iter(range(10_000))

    def edit():
        step = next(values) / 1000
        change = {"readings": [f"{3.02 + step}", "3.08"], "kerf": f"{0.1 + step / 10}", "width_0": f"{90 + step}"}[
            field
        ]
        return ledger(compute(edit_job(job, {field: change})))

    assert benchmark(edit)


def test_the_proof_of_a_forty_part_job(benchmark):
    result = compute(forty_parts())
    assert benchmark(lambda: prove_job(result)).fits


@pytest.mark.parametrize("file_format", ["svg", "dxf", "dxf-r12"])
def test_writing_a_forty_part_job(benchmark, file_format):
    result = compute(forty_parts())
    assert benchmark(lambda: write_files(result, file_format))


def plate(slots: int) -> tuple[Region, list[Region]]:
    bites = [Region(rectangle(5 + 7 * i, 150, 3, 40)) for i in range(slots)]
    bites += [Region(Circle(8 + 7 * i, 40, 2)) for i in range(slots)]
    return Region(rectangle(0, 0, 10 + 7 * slots, 200)), bites


@pytest.mark.parametrize("slots", [10, 40])
def test_a_boolean_of_a_plate(benchmark, slots):
    source, bites = plate(slots)
    [cut] = benchmark(lambda: difference([source], bites))
    assert len(cut.holes) == 2 * slots


def test_the_offset_of_a_plate(benchmark):
    source, bites = plate(40)
    [cut] = difference([source], bites)
    assert len(benchmark(lambda: offset(cut, 0.07))) == 1
