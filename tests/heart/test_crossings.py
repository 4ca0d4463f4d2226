"""Where lines and arcs meet, against closed forms, at the edges of every case."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from lean_notch.geometry import Segment
from lean_notch.geometry.contour import JOIN_MM
from lean_notch.geometry.crossings import circles_meet, turn_to
from lean_notch.geometry.noding import meetings
from lean_notch.geometry.segments import segments_of


def line(x0, y0, x1, y1):
    return Segment((x0, y0), (x1, y1), 0.0)


def arc(cx, cy, r, first, sweep):
    """An arc by centre, radius, first angle and signed sweep in degrees."""
    a, b = math.radians(first), math.radians(first + sweep)
    ends = [(cx + r * math.cos(t), cy + r * math.sin(t)) for t in (a, b)]
    return Segment(ends[0], ends[1], math.tan(math.radians(sweep) / 4))


def crossings(a, b):
    """Where two segments meet, shared ends included: those are bitwise equal and not asked of `meetings`."""
    _, _, places = meetings(segments_of([[a, b]], [0]), np.array([0]), np.array([1]))
    shared = [p for p in (a.start, a.end) if p in (b.start, b.end)]
    return [*map(tuple, places.tolist()), *shared]


def lies_on(segment, point):
    return bool(segments_of([[segment]], [0]).lies_on(np.array([0]), np.array([point]))[0])


def unique(points):
    found = []
    for point in points:
        if all(math.dist(point, other) > 1e-5 for other in found):
            found.append(point)
    return sorted(found)


def near(points, wanted):
    assert len(points) == len(wanted), points
    for point, other in zip(points, sorted(wanted), strict=True):
        assert point == pytest.approx(other, abs=1e-6)


@pytest.mark.parametrize(
    ("a", "b", "wanted"),
    [
        (line(0, 0, 10, 10), line(0, 10, 10, 0), [(5, 5)]),
        (line(0, 0, 10, 0), line(5, 0, 5, 5), [(5, 0)]),  # an end on the other
        (line(0, 0, 10, 0), line(10, 0, 20, 5), [(10, 0)]),  # end to end
        (line(0, 0, 10, 0), line(0, 1, 10, 1), []),  # side by side
        (line(0, 0, 10, 0), line(4, 0, 20, 0), [(4, 0), (10, 0)]),  # on top of each other for a while
        (line(0, 0, 10, 0), line(2, 0, 6, 0), [(2, 0), (6, 0)]),  # one within the other
        (line(0, 0, 10, 0), line(11, -5, 11, 5), []),  # would meet beyond an end
        (line(-10, 0, 10, 0), arc(0, 0, 5, 0, 180), [(-5, 0), (5, 0)]),
        (line(-10, 3, 10, 3), arc(0, 0, 5, 0, 180), [(-4, 3), (4, 3)]),
        (line(-10, 3, 10, 3), arc(0, 0, 5, 180, 180), []),  # the other half of the circle
        (line(-10, 5, 10, 5), arc(0, 0, 5, 0, 180), [(0, 5)]),  # touches
        (line(0, 3, 10, 3), arc(0, 0, 5, 0, -270), []),  # clockwise past the place where they would meet
        (arc(0, 0, 5, 0, 180), arc(6, 0, 5, 0, 180), [(3, 4)]),
        (arc(0, 0, 5, 0, 90), arc(10, 0, 5, 90, 90), [(5, 0)]),  # touch from outside, end to end
        (arc(0, 0, 5, 0, 120), arc(0, 0, 5, 60, 120), [(5 * math.cos(math.radians(a)), 5 * math.sin(math.radians(a))) for a in (60, 120)]),
        (arc(0, 0, 5, 0, 90), arc(0, 0, 4, 0, 90), []),  # one circle within the other
    ],
)  # fmt: skip
def test_crossings_in_closed_form(a, b, wanted):
    near(unique(crossings(a, b)), wanted)
    near(unique(crossings(b, a)), wanted)


def test_a_clockwise_arc_covers_its_own_side_only():
    down = arc(0, 0, 5, 180, -180)  # over the top, from left to right
    assert lies_on(down, (0, 5))
    assert not lies_on(down, (0, -5))
    assert turn_to(down, (0, 0), (0, 5)) == pytest.approx(math.pi / 2)


@pytest.mark.parametrize(("off", "on"), [(0.5 * JOIN_MM, True), (2 * JOIN_MM, False)])
def test_a_nanometre_is_the_limit(off, on):
    assert lies_on(line(0, 0, 10, 0), (5, off)) is on
    assert lies_on(arc(0, 0, 5, 0, 180), (0, 5 + off)) is on


@pytest.mark.parametrize(
    ("apart", "count"), [(0, 0), (1.9999, 0), (2, 1), (5, 2), (8, 1), (8.00001, 0)]
)  # radii 5 and 3: within, touching inside, crossing, touching outside, apart
def test_two_circles_meet_never_once_or_twice(apart, count):
    assert len(list(circles_meet((0, 0), 5, (apart, 0), 3))) == count


angles = st.floats(-360, 360)


@given(st.floats(-5, 5), st.floats(-5, 5), st.floats(0.5, 9), angles, st.floats(5, 350), angles)
def test_every_crossing_lies_on_both(x, y, r, first, sweep, turn):
    other = arc(x, y, r, first, sweep)
    c, s = math.cos(math.radians(turn)), math.sin(math.radians(turn))
    through = line(-20 * c, -20 * s, 20 * c, 20 * s)
    for px, py in crossings(through, other):
        assert abs(px * s - py * c) < 1e-5
        assert abs(math.dist((px, py), (x, y)) - r) < 1e-5


@given(st.floats(0.1, 50), st.floats(1, 359), angles)
def test_a_segment_knows_its_own_circle(r, sweep, first):
    segment = arc(3, -2, r, first, sweep)
    assert segment.centre == pytest.approx((3, -2), abs=1e-6 * r + 1e-7)
    assert segment.radius == pytest.approx(r, rel=1e-7)
    assert segment.length == pytest.approx(r * math.radians(sweep), rel=1e-6)
    left, low, right, high = segment.box
    for share in (0, 0.2, 0.5, 0.9, 1):
        x, y = segment.at(share)
        assert left - 1e-6 <= x <= right + 1e-6
        assert low - 1e-6 <= y <= high + 1e-6
