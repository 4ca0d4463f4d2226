"""Curves as arcs: how near, how many, and how large."""

import math
from itertools import pairwise

import pytest
import shapely
from hypothesis import example, given, settings
from hypothesis import strategies as st
from lean_notch.geometry import Circle, Cubic, Curved, Region, Segment, flatten, rectangle
from lean_notch.geometry.boolean import difference
from lean_notch.geometry.cubic import biarcs
from lean_notch.ground.errors import BadGeometry

points = st.tuples(st.integers(0, 5000), st.integers(0, 5000)).map(lambda p: (p[0] / 100, p[1] / 100))
KAPPA = 4 / 3 * math.tan(math.pi / 8)
QUARTER = Cubic((10, 0), (10, 10 * KAPPA), (10 * KAPPA, 10), (0, 10))


def curve_line(curve: Cubic, steps: int = 4000) -> shapely.LineString:
    return shapely.LineString([curve.at(i / steps) for i in range(steps + 1)])


def rounded_square() -> Curved:
    corners = [Cubic(*((x + 5, y + 5) for x, y in QUARTER))]
    for _ in range(3):
        corners.append(Cubic(*((-y, x) for x, y in corners[-1])))
    pieces: list[Segment | Cubic] = []
    for i, corner in enumerate(corners):
        pieces.append(corner)
        pieces.append(Segment(corner.end, corners[(i + 1) % 4].start, 0.0))
    return Curved(tuple(piece for piece in pieces if piece.start != piece.end))


@settings(max_examples=60)
@example((12.57, 0.0), (0.0, 0.0), (0.0, 0.0), (14.69, 0.0))
@given(points, points, points, points)
def test_arcs_stay_within_five_thousandths_of_any_curve(a, b, c, d):
    """Outside check: GEOS distances between fine chords of both."""
    curve = Cubic(a, b, c, d)
    arcs = list(biarcs(curve, 0.001))
    if not arcs:
        assert a == d
        return
    line = shapely.LineString([*flatten(arcs, 1e-4), arcs[-1].end])
    there = shapely.distance(shapely.points([curve.at(i / 300) for i in range(301)]), line).max()
    back = shapely.distance(shapely.points(shapely.get_coordinates(line)), curve_line(curve)).max()
    assert max(there, back) <= 0.005


@pytest.mark.parametrize(("tolerance", "most"), [(0.01, 4), (0.001, 8), (0.0001, 16)])
def test_a_finer_tolerance_takes_more_arcs(tolerance, most):
    arcs = list(biarcs(QUARTER, tolerance))
    assert len(arcs) <= most
    off = [abs(math.hypot(*QUARTER.at(i / 50)) - 10) for i in range(51)]
    assert max(abs(math.hypot(*arc.at(0.5)) - 10) for arc in arcs) <= max(off) + tolerance


def test_arcs_share_their_tangents():
    arcs = list(biarcs(Cubic((0, 0), (20, 30), (40, -30), (60, 10)), 0.001))
    for one, other in pairwise(arcs):
        out = math.atan2(one.end[1] - one.start[1], one.end[0] - one.start[0]) + one.sweep / 2
        onward = math.atan2(other.end[1] - other.start[1], other.end[0] - other.start[0]) - other.sweep / 2
        assert abs(math.remainder(out - onward, 2 * math.pi)) < 1e-6


def test_a_straight_curve_is_one_line():
    assert [s.bulge for s in biarcs(Cubic((0, 0), (3, 0), (6, 0), (9, 0)), 0.001)] == [0.0]
    assert list(biarcs(Cubic((1, 1), (1, 1), (1, 1), (1, 1)), 0.001)) == []


def test_a_curve_that_doubles_back_is_followed():
    arcs = list(biarcs(Cubic((0, 0), (40, 0), (-20, 0), (10, 0)), 0.001))
    assert max(point[0] for arc in arcs for point in (arc.start, arc.end)) > 14


def test_area_and_length_of_a_curved_ring():
    """A circle's quarters as cubics are 0.027 % too far out at most: area and length of a circle within that."""
    ring = rounded_square()
    sampled = shapely.Polygon([p for piece in ring.pieces for p in _sample(piece)])
    assert ring.area == pytest.approx(sampled.area, rel=1e-6)
    assert ring.length == pytest.approx(sampled.length, rel=1e-4)
    assert ring.reversed.area == pytest.approx(-ring.area)
    assert ring.as_arcs(0.01).area == pytest.approx(ring.area, rel=1e-3)
    assert len(ring.as_arcs(0.01).vertices) <= len(ring.as_arcs().vertices)


def _sample(piece):
    if isinstance(piece, Segment):
        return [piece.start]
    return [piece.at(i / 2000) for i in range(2000)]


def test_the_lens_of_a_cubic_is_greens_integral():
    """Outside check: the trapezium rule on twenty thousand chords."""
    curve = Cubic((0, 0), (1, 3), (4, 2.5), (5, -1))
    ring = Curved((curve, Segment((5, -1), (0, 0), 0.0)))
    chords = [curve.at(i / 20000) for i in range(20001)]
    assert ring.area == pytest.approx((shapely.LinearRing(chords).is_ccw * 1 and 0) or _shoelace(chords), rel=1e-6)


def _shoelace(chords):
    return sum(a[0] * b[1] - b[0] * a[1] for a, b in zip(chords, [*chords[1:], chords[0]], strict=True)) / 2


def test_a_curved_ring_goes_through_booleans_as_arcs():
    blob = Region(rounded_square())
    [rest] = difference([Region(rectangle(-20, -20, 40, 40))], [blob])
    assert rest.area == pytest.approx(1600 - blob.area, abs=0.02)
    assert all(not isinstance(hole, Circle) for hole in rest.holes)


def test_broken_curves_are_refused():
    with pytest.raises(BadGeometry, match="open"):
        Curved((QUARTER,))
    with pytest.raises(BadGeometry, match="leaves"):
        Curved((Cubic((0, 0), (1e9, 0), (0, 1), (0, 0)),))
    with pytest.raises(BadGeometry, match="no extent"):
        Curved((Cubic((1, 1), (1, 1), (1, 1), (1, 1)),))


def test_a_curve_that_is_a_straight_line_is_one_line():
    """Its control points lie on the way, at a third and at two thirds."""
    straight = Cubic((1.0, 2.0), (3.0, 14 / 3), (5.0, 22 / 3), (7.0, 10.0))
    assert list(biarcs(straight, 0.01)) == [Segment((1.0, 2.0), (7.0, 10.0), 0.0)]
    back = Cubic((1.0, 2.0), (-1.0, -2 / 3), (5.0, 22 / 3), (7.0, 10.0))
    assert len(list(biarcs(back, 0.01))) > 1  # it goes back behind its start first
