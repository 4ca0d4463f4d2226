"""Many random shapes and operations, seeded: `make soak`, or SHAPES=100000 make soak. Not part of `make test`.

Every result must be valid, its area right to a millionth, and the same after it was written and read back.
"""

from __future__ import annotations

import math
import os
import random

import pytest
import shapely
from faults import right_job
from lean_notch.cutting import CutPath, SheetPlan
from lean_notch.formats.dxf_read import read_dxf
from lean_notch.formats.dxf_write import write_dxf
from lean_notch.formats.svg_read import read_svg
from lean_notch.formats.svg_write import write_svg
from lean_notch.geometry import Curved, Region
from lean_notch.geometry.boolean import difference, intersection, union
from lean_notch.geometry.offset import offset
from lean_notch.geometry.segments import segments_of_rings
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute
from shapes import polygon, random_region

SHAPES = int(os.environ.get("SHAPES", "10000"))
SEEDS = range(8)
ROUND_TRIP_MM = 0.001


def area(regions: list[Region]) -> float:
    """Of curves, that of the arcs which stand for them: those are what operations work on."""
    rings = [ring for region in regions for ring in region.rings]
    return math.fsum((ring.as_arcs() if isinstance(ring, Curved) else ring).area for ring in rings)


def check_valid(regions: list[Region]) -> None:
    """Outers counter-clockwise, holes clockwise, nothing that a general-purpose library calls invalid, no micro-segment.

    A hole may touch its outline in one point; flattened, the two then overlap by rounding.
    """
    for region in regions:
        assert region.outer.area > 0
        assert all(hole.area < 0 for hole in region.holes)
        assert min(segment.length for ring in region.rings for segment in ring.segments) > 1e-6
        flat = polygon(region)
        assert flat.is_valid or shapely.make_valid(flat).area == pytest.approx(flat.area, abs=1e-3)


def check_round_trip(regions: list[Region]) -> None:
    """Written and read back: every outline is where it was, to a micrometre, in SVG and in DXF."""
    rings = [ring for region in regions for ring in region.rings]
    sheet = SheetPlan(1, 100, 100, tuple(CutPath(f"p{i}", "p", "cut", ring) for i, ring in enumerate(rings)))
    for back in (read_svg(write_svg("soak", sheet).encode()), read_dxf(write_dxf(sheet, "R2000").encode())):
        assert len(back.paths) == len(rings)
        for ring, path in zip(rings, back.paths, strict=True):
            assert path.closed
            around, _ = segments_of_rings([ring], [0])
            places = [point for segment in path.segments for point in (segment.start, segment.at(0.5))]
            assert max(around.nearest(place) for place in places) <= ROUND_TRIP_MM


@pytest.mark.parametrize("seed", SEEDS)
def test_booleans(seed):
    """|A or B| = |A| + |B| - |A and B|, |A less B| = |A| - |A and B|: to a millionth."""
    rng = random.Random(seed)
    for step in range(SHAPES // len(SEEDS) // 3):
        a, b = random_region(rng), random_region(rng)
        both, either, less = intersection([a], [b]), union(a, b), difference([a], [b])
        first, second = area([a]), area([b])
        slack = 1e-6 * (first + second) + 4e-4  # slivers are dropped
        assert area(either) == pytest.approx(first + second - area(both), abs=slack), (seed, step)
        assert area(less) == pytest.approx(first - area(both), abs=slack), (seed, step)
        for result in (both, either, less):
            check_valid(result)
            if step % 10 == 0:
                check_round_trip(result)


@pytest.mark.parametrize("seed", SEEDS)
def test_results_of_results(seed):
    """What came out goes in again: bites and joins on top of each other, all along edges and arcs they share."""
    rng = random.Random(1000 + seed)
    for step in range(SHAPES // len(SEEDS) // 30):
        whole = [random_region(rng)]
        for _ in range(6):
            tool = random_region(rng)
            whole = union(*whole, tool) if rng.random() < 0.5 else difference(whole, [tool])
            check_valid(whole)
        again = difference(whole, whole[:1])
        assert area(again) == pytest.approx(area(whole[1:]), abs=1e-3), (seed, step)
        assert area(intersection(whole, whole)) == pytest.approx(area(whole), rel=1e-6, abs=1e-3), (seed, step)


@pytest.mark.parametrize("seed", SEEDS)
def test_offsets(seed):
    """Every point of a moved outline is as far from the source as it was moved, or further at a mitre."""
    rng = random.Random(2000 + seed)
    for step in range(SHAPES // len(SEEDS) // 3):
        region, distance = random_region(rng), rng.choice([0.07, 0.5, 1.7, 3.0]) * rng.choice([1, -1])
        results = offset(region, distance)
        check_valid(results)
        source, _ = segments_of_rings(list(region.rings), [0] * (1 + len(region.holes)))
        for result in results:
            for ring in result.rings:
                for segment in ring.segments:
                    assert source.nearest(segment.at(0.5)) >= abs(distance) - 2e-6, (seed, step)
        # Between a general-purpose library's round joins and its mitres: some corners get the one, some the other.
        flat = polygon(region, 1e-3)
        low, high = sorted(flat.buffer(distance, quad_segs=64, join_style=join).area for join in ("round", "mitre"))
        slack = 2e-3 * flat.length + 1e-3
        assert low - slack <= area(results) <= high + slack, (seed, step)


@pytest.mark.parametrize("part", range(4))
def test_no_right_job_is_stopped(part):
    """500 jobs of the generator that the corpus of faults is made from, in every format."""
    for seed in range(part * 125, (part + 1) * 125):
        proof = prove_job(compute(right_job(seed)), ("svg", "dxf", "dxf-r12")[seed % 3])
        assert proof.verdict == "fits", (seed, [one.why for one in proof.findings])
