"""Contours, booleans and offsets with true arcs."""

import math

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st
from lean_notch.geometry import Circle, Contour, Motion, Region, Vertex, flatten, rectangle
from lean_notch.geometry.boolean import difference, intersection, union
from lean_notch.geometry.offset import offset
from lean_notch.ground.errors import BadGeometry

CHORD = 2e-6


def polygon(region: Region) -> shapely.Polygon:
    """The same region for a general-purpose geometry library."""
    outer, *holes = (flatten(ring.segments, CHORD) for ring in region.rings)
    return shapely.Polygon(outer, holes)


def stadium(length: float, radius: float) -> Region:
    return Region(
        Contour((Vertex(0, -radius), Vertex(length, -radius, 1), Vertex(length, radius), Vertex(0, radius, 1)))
    )


def test_area_and_length_in_closed_form():
    slot = stadium(20, 3).outer
    assert slot.area == pytest.approx(20 * 6 + math.pi * 9)
    assert slot.length == pytest.approx(40 + 6 * math.pi)
    assert slot.box == pytest.approx((-3, -3, 23, 3))
    assert slot.reversed.area == pytest.approx(-slot.area)


def test_a_bulge_is_the_tangent_of_a_quarter_of_the_angle():
    """DXF Reference, LWPOLYLINE group 42: a half circle has bulge 1, positive is counter-clockwise."""
    half = Contour((Vertex(0, 0, 1), Vertex(2, 0)))
    assert half.area == pytest.approx(math.pi / 2)
    assert half.box == pytest.approx((0, -1, 2, 0))


def test_regions_turn_their_rings_the_right_way():
    ring = Region(rectangle(0, 0, 10, 10).reversed, (Circle(5, 5, 2),))
    assert ring.outer.area == 100
    assert ring.holes[0].area == pytest.approx(-4 * math.pi)
    assert ring.area == pytest.approx(100 - 4 * math.pi)


@pytest.mark.parametrize(
    "vertices", [(), ((0, 0),), ((0, 0), (0, 0), (1, 1)), ((0, 0), (math.nan, 1), (2, 2)), ((0, 0), (1e9, 0), (0, 1))]
)
def test_broken_contours_are_refused(vertices):
    with pytest.raises(BadGeometry):
        Contour(tuple(Vertex(*map(float, v)) for v in vertices))


def test_quarter_turns_are_exact():
    turned = Motion(0, 0, 90).region(Region(rectangle(0, 0, 3.3, 1.1)))
    assert turned.box == (-1.1, 0, 0, 3.3)


def test_a_bite_keeps_its_arc():
    [bitten] = difference([Region(rectangle(0, 0, 40, 20))], [Region(Circle(40, 10, 5))])
    arcs = [s for s in bitten.outer.segments if s.bulge]
    assert len(bitten.outer.segments) == 6
    assert len(arcs) == 1
    assert arcs[0].centre == pytest.approx((40, 10), abs=1e-6)
    assert arcs[0].radius == pytest.approx(5, abs=1e-6)
    assert bitten.area == pytest.approx(800 - math.pi * 12.5)


def test_a_hole_stays_one_circle():
    [plate] = difference([Region(rectangle(0, 0, 40, 20))], [Region(Circle(20, 10, 5))])
    [hole] = plate.holes
    assert isinstance(hole, Circle)
    assert (hole.x, hole.y, hole.radius, hole.hole) == pytest.approx((20, 10, 5, True), abs=1e-9)
    assert len(plate.outer.vertices) == 4


def test_a_union_along_a_shared_edge_leaves_no_trace_of_it():
    [joined] = union(Region(rectangle(0, 0, 10, 10)), Region(rectangle(10, 0, 10, 10)))
    assert len(joined.outer.vertices) == 4


def test_touching_circles_stay_two():
    assert len(union(Region(Circle(0, 0, 5)), Region(Circle(10.1, 0, 5)))) == 2


numbers = st.integers(-2000, 2000).map(lambda n: n / 100)  # GEOS, the reference, is off by 0.008 mm² at 1e-313
shapes = st.one_of(
    st.builds(lambda x, y, w, h: Region(rectangle(x, y, w, h)), numbers, numbers, st.floats(1, 30), st.floats(1, 30)),
    st.builds(lambda x, y, r: Region(Circle(x, y, r)), numbers, numbers, st.floats(1, 15)),
    st.builds(
        lambda x, y, a, n, r: Motion(x, y, a).region(stadium(n, r)),
        numbers, numbers, st.sampled_from([0.0, 30.0, 90.0, 47.3]), st.floats(2, 20), st.floats(1, 6),
    ),
    st.builds(
        lambda x, y: Motion(x, y).region(Region(rectangle(0, 0, 30, 20), (Circle(8, 8, 3), rectangle(15, 5, 8, 8)))),
        numbers, numbers,
    ),
)  # fmt: skip


@settings(max_examples=150)
@given(shapes, shapes)
def test_booleans_agree_with_a_general_purpose_library(a, b):
    """GEOS on finely flattened outlines is the outside check: area within 1e-4 mm² + 2e-6."""
    pa, pb = polygon(a), polygon(b)
    for mine, theirs in (
        (union(a, b), pa.union(pb)),
        (difference([a], [b]), pa.difference(pb)),
        (intersection([a], [b]), pa.intersection(pb)),
    ):
        assert sum(region.area for region in mine) == pytest.approx(theirs.area, rel=2e-6, abs=2e-4)
        for shape in map(polygon, mine):
            # A hole may touch its outline in one point; flattened, the two then overlap by rounding.
            assert shapely.make_valid(shape).area == pytest.approx(shape.area, rel=1e-9, abs=1e-6)


@settings(max_examples=100)
@given(shapes, shapes)
def test_arcs_of_a_result_lie_on_circles_of_its_sources(a, b):
    sources = {
        (*segment.centre, segment.radius)
        for region in (a, b)
        for ring in region.rings
        for segment in ring.segments
        if segment.bulge
    }
    for region in union(a, b) + difference([a], [b]):
        for ring in region.rings:
            for segment in ring.segments:
                if segment.bulge:
                    found = (*segment.centre, segment.radius)
                    assert min(math.dist(found, source) for source in sources) < 1e-3  # a micrometre


def test_an_offset_circle_is_a_circle():
    assert offset(Region(Circle(1, 2, 5)), 0.07) == [Region(Circle(1, 2, 5.07))]
    assert offset(Region(Circle(1, 2, 5)), -6) == []


def test_square_corners_stay_square_and_nodes_stay_few():
    [grown] = offset(Region(rectangle(0, 0, 10, 10)), 0.07)
    assert grown.outer.box == pytest.approx((-0.07, -0.07, 10.07, 10.07))
    assert len(grown.outer.vertices) == 4


def test_a_dumbbell_falls_apart():
    [neck] = union(Region(rectangle(0, 0, 10, 10)), Region(rectangle(10, 4.5, 10, 1)), Region(rectangle(20, 0, 10, 10)))
    assert len(offset(neck, -0.6)) == 2


def test_a_narrow_slot_closes():
    [slotted] = difference([Region(rectangle(0, 0, 30, 20))], [Region(rectangle(14, 10, 2, 10))])
    [closed] = offset(slotted, 1.1)
    assert closed.area == pytest.approx(polygon(slotted).buffer(1.1, quad_segs=64).area, rel=2e-3)


@settings(max_examples=120)
@given(shapes, st.one_of(st.sampled_from([0.07, -0.07]), st.floats(-4, 4)))
def test_an_offset_keeps_its_distance(source, distance):
    """Closed form: every point of the moved outline is `distance` from the source, or further at a square corner."""
    edge = polygon(source).boundary
    for region in offset(source, distance):
        places = [s.at(share) for ring in region.rings for s in ring.segments for share in (0.0, 0.25, 0.5, 0.75)]
        off = shapely.distance(shapely.points(places), edge)
        assert off.min() >= abs(distance) - 5e-3
        assert off.max() <= abs(distance) * 1.42 + 5e-3


@settings(max_examples=60)
@given(shapes, st.floats(0.05, 2))
def test_growing_and_shrinking_agrees_with_sweeping_a_disc(source, distance):
    """GEOS: grown is the source and the swept edge, shrunk the source less it, but for the corners that stay square:
    each of at most eight differs from a round one by (1 - pi / 4) d². Closed form."""
    edge = polygon(source).boundary.buffer(distance, quad_segs=32)
    grown = sum(region.area for region in offset(source, distance))
    corners = 8 * (1 - math.pi / 4) * distance**2
    swept = polygon(source).union(edge).area
    assert swept - 2e-3 * swept <= grown <= swept + corners + 2e-3 * swept
    left = polygon(source).difference(edge).area
    shrunk = sum(region.area for region in offset(source, -distance))
    assert left - corners - 2e-3 * left - 2e-2 <= shrunk <= left + 2e-3 * left + 2e-2
