"""Path lengths in closed form beside those of the paths themselves."""

from __future__ import annotations

import math

import pytest
from bench.test_bench import toothed
from hypothesis import given
from hypothesis import strategies as st
from large_jobs import forty_parts
from lean_notch.geometry import Circle, Contour, Region, Vertex, rectangle
from lean_notch.geometry.boolean import difference
from lean_notch.geometry.offset import lengths_all, offset_all
from lean_notch.making import build


def made(regions, distance):
    return [sum(ring.length for region in some for ring in region.rings) for some in offset_all(regions, distance)]


@pytest.mark.parametrize("distance", [0.07, -0.07, 0.3])
def test_the_parts_of_a_large_job_are_all_known_without_making_their_paths(distance):
    job = forty_parts()
    regions = [part.region for part in build(job.design, job.basis).parts]
    known = lengths_all(regions, distance)
    assert known == pytest.approx(made(regions, distance), abs=1e-9)


@given(
    st.lists(st.tuples(st.integers(0, 40), st.integers(0, 30), st.integers(1, 12), st.booleans()), max_size=4),
    st.sampled_from([-2.0, -0.5, -0.07, 0.07, 0.5, 2.0]),
)
def test_whatever_is_known_is_right(bites, distance):
    """A plate with rectangles and discs bitten out anywhere, moved by little and by more than its webs."""
    tools = [
        Region(Circle(x, y, size / 2)) if disc else Region(rectangle(x, y, size, size / 2))
        for x, y, size, disc in bites
    ]
    regions = difference([Region(rectangle(0, 0, 44, 33))], tools)
    for region, length in zip(regions, lengths_all(regions, distance), strict=True):
        if length is not None:  # then there is a path, of that length
            assert made([region], distance) == [pytest.approx(length, abs=1e-6)]


def test_a_narrow_slot_and_a_sharp_corner_are_not_guessed():
    slot = Region(rectangle(0, 0, 50, 30), (Circle(25, 15, 0.05, True),))
    assert lengths_all([slot], 0.07) == [None]
    [notched] = difference([Region(rectangle(0, 0, 50, 30))], [Region(rectangle(20, 25, 0.1, 9))])
    assert lengths_all([notched], 0.07) == [None]


def test_a_wedge_is_rounded_at_its_sharp_corner_only():
    """Closed form: a corner of angle a adds 2 d / tan(a / 2), one sharper than 60 degrees an arc of pi - a."""
    wedge = Region(Contour((Vertex(0, 0), Vertex(60, 0), Vertex(0, 20))))
    sharp, blunt = math.atan2(20, 60), math.atan2(60, 20)
    grown = 80 + math.hypot(60, 20) + 2 + 2 / math.tan(blunt / 2) + math.pi - sharp
    assert lengths_all([wedge], 1.0) == [pytest.approx(grown)]
    assert made([wedge], 1.0) == [pytest.approx(grown)]


def test_many_segments_are_asked_by_a_tree_as_few_are_one_by_one(monkeypatch):
    plates = [toothed(1), toothed(2)]
    regions = [difference(source, tools)[0] for source, tools in plates]
    by_tree = lengths_all(regions, 0.07)
    monkeypatch.setattr("lean_notch.geometry.offset._FEW", 10_000)
    assert by_tree == lengths_all(regions, 0.07)
