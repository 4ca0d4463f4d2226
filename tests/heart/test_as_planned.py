"""What was measured of the plan is used for a file only where the file's paths are the plan's, within 0.0001 mm."""

from __future__ import annotations

from dataclasses import replace

import pytest
from conftest import drawn, make_job
from lean_notch.cutting import PLAIN
from lean_notch.formats.file_kinds import FORMATS
from lean_notch.geometry import Segment
from lean_notch.hand_over.as_planned import SAME_MM, as_planned
from lean_notch.hand_over.files import write_files
from lean_notch.hand_over.proving import prove_files, prove_job
from lean_notch.job import compute
from timing import least_seconds

EYE = {"kind": "shape", "id": "eye", "shape": {"kind": "disc", "diameter": 9}, "does": "cut", "x": 40, "y": 30}
SLOT = {
    "kind": "shape",
    "id": "slot",
    "shape": {"kind": "slot", "length": 30, "width": 8},
    "does": "cut",
    "x": 90,
    "y": 30,
}
RESULT = compute(drawn(make_job(), EYE, SLOT))
PLAN = RESULT.plan.sheets[0]


def shifted(file, by, only=None):
    return replace(file, paths=tuple(
        replace(path, segments=tuple(Segment((a + by, b), (c + by, d), bulge) for (a, b), (c, d), bulge in path.segments))
        if only is None or i == only else path
        for i, path in enumerate(file.paths)
    ))  # fmt: skip


@pytest.mark.parametrize("file_format", ["svg", "dxf", "dxf-r12"])
def test_a_right_files_paths_are_the_plans_own(file_format):
    file = FORMATS[file_format].read(write_files(RESULT, file_format)[0].data)
    there = as_planned(file, PLAN, PLAIN)
    assert [path.segments for path in there.paths] == [tuple(path.shape.segments) for path in PLAN.paths]


@pytest.mark.parametrize(("by", "same"), [(0.4 * SAME_MM, True), (1.6 * SAME_MM, False)])
def test_a_path_that_is_off_by_more_stays_as_it_was_read(by, same):
    file = shifted(FORMATS["dxf"].read(write_files(RESULT, "dxf")[0].data), by)
    there = as_planned(file, PLAN, PLAIN)
    assert all((a.segments is b.segments) != same for a, b in zip(there.paths, file.paths, strict=True))


def test_a_file_with_another_number_of_paths_is_not_taken_for_the_plan():
    file = FORMATS["svg"].read(write_files(RESULT, "svg")[0].data)
    fewer = replace(file, paths=file.paths[1:])
    assert as_planned(fewer, PLAN, PLAIN) is fewer


def test_an_arc_that_bulges_otherwise_between_the_same_ends_is_not_the_plans():
    file = FORMATS["dxf"].read(write_files(RESULT, "dxf")[0].data)
    number = next(
        i for i, path in enumerate(file.paths) if any(s.bulge for s in path.segments) and len(path.segments) < 20
    )
    path = file.paths[number]
    flat = replace(path, segments=tuple(Segment(s.start, s.end, s.bulge * 0.9) for s in path.segments))
    spoiled = replace(file, paths=(*file.paths[:number], flat, *file.paths[number + 1 :]))
    assert as_planned(spoiled, PLAN, PLAIN).paths[number] is flat


def test_a_files_proof_takes_less_than_its_plans():
    """A ratio measured in one run: the plan from nothing, then its DXF."""
    from ground.memory import forget
    from large_jobs import forty_parts

    job = forty_parts()
    result = compute(job)
    files = write_files(result, "dxf")

    def plan_from_nothing():
        forget()
        prove_job(compute(job))

    plan = least_seconds(plan_from_nothing, runs=1)
    assert least_seconds(lambda: prove_files(result, files, "dxf"), runs=1) < 0.8 * plan
