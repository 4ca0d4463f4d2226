"""Many segments at once: pieces, meetings, and agreement with what is said of one segment."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from lean_notch.geometry import Circle, Contour, Region, Segment, Vertex, rectangle
from lean_notch.geometry.boolean import combine, difference, filled, union
from lean_notch.geometry.linking import lies_within
from lean_notch.geometry.noding import Neighbours, cut_up, merged, quarters
from lean_notch.geometry.offset import offset
from lean_notch.geometry.segments import segments_of, segments_of_rings
from lean_notch.ground.errors import BadGeometry

places = st.tuples(st.integers(-50, 50), st.integers(-50, 50)).map(lambda p: (p[0] / 10, p[1] / 10))
segments = st.builds(Segment, places, places, st.sampled_from([0.0, 0.3, -0.7, 1.0, 2.5])).filter(
    lambda s: s.start != s.end
)


@given(st.lists(segments, min_size=1, max_size=8))
def test_arrays_say_what_single_segments_say(some):
    many = segments_of([some], [0])
    for index, one in enumerate(some):
        assert many.box[index] == pytest.approx(one.box, abs=1e-9)
        assert many.length[index] == pytest.approx(one.length)
        assert many.middle[index] == pytest.approx(one.at(0.5), abs=1e-9)
        if one.bulge:
            assert many.centre[index] == pytest.approx(one.centre)
        assert many.param(np.array([index]), np.array([one.at(0.75)]))[0] == pytest.approx(
            0.75 * (abs(one.sweep) if one.bulge else one.length), abs=1e-9
        )


@given(segments, places)
def test_the_distance_to_a_segment_is_that_to_its_nearest_point(one, place):
    """Outside check: the least distance to a thousand points along it."""
    sampled = min(math.dist(one.at(i / 1000), place) for i in range(1001))
    exact = segments_of([[one]], [0]).nearest(place)
    assert exact <= sampled + 1e-12
    assert exact == pytest.approx(sampled, abs=one.length / 1000)


@given(st.lists(segments, min_size=2, max_size=6))
def test_pieces_add_up_and_meet_in_nodes_only(some):
    fine, parent = quarters(segments_of([some], [0]))
    pieces = cut_up(fine)
    whole = math.fsum(one.length for one in some)
    assert float(pieces.as_segments.length.sum()) == pytest.approx(whole, abs=1e-4)
    assert set(parent[pieces.parent]) == set(range(len(some)))
    again = cut_up(pieces.as_segments)
    assert len(again.first) == len(pieces.first), "what is cut up has no more meetings"


def test_quarters_leave_lines_and_split_arcs_evenly():
    circle, _ = segments_of_rings([Circle(0, 0, 5)], [0])
    assert len(quarters(circle)[0]) == 4
    most = segments_of([[Segment((1, 0), (0, -1), math.tan(math.radians(270) / 4)), Segment((0, 0), (9, 0), 0.0)]], [0])
    fine, parent = quarters(most)
    assert parent.tolist() == [0, 0, 0, 1]
    assert np.degrees(fine.sweep[:3]) == pytest.approx([90, 90, 90])


def test_near_points_are_one_and_groups_stay_apart():
    points = np.array([(0, 0), (9e-7, 0), (0, 0), (0.5, 0.5), (1e-3, 0)])
    assert merged(points, np.array([0, 0, 1, 0, 0])).tolist() == [0, 0, 2, 3, 4]


def test_points_on_both_sides_of_a_grid_line_are_one():
    for shift in np.linspace(0, 8e-6, 17):
        points = np.array([(shift, shift), (shift + 7e-7, shift - 7e-7)])
        assert merged(points, np.zeros(2, int)).tolist() == [0, 0]


def test_groups_do_not_see_each_other():
    two = segments_of([[Segment((0, 0), (9, 9), 0.0)], [Segment((0, 9), (9, 0), 0.0)]], [0, 1])
    first, _ = Neighbours(two).pairs()
    assert not len(first)


def test_a_job_of_many_is_each_by_itself():
    plates = [([Region(rectangle(0, 0, 20 + i, 10))], [Region(Circle(5, 0, 2 + i / 10))]) for i in range(5)]
    together = combine(plates, "difference")
    assert together == [difference(*plate) for plate in plates]


def test_crossed_bars_have_the_fewest_corners():
    [cross] = union(Region(rectangle(0, 4, 10, 2)), Region(rectangle(4, 0, 2, 10)))
    assert len(cross.outer.vertices) == 12
    assert cross.area == pytest.approx(36)


def test_corner_to_corner_squares_stay_two():
    assert len(union(Region(rectangle(0, 0, 5, 5)), Region(rectangle(5, 5, 5, 5)))) == 2


def test_a_bite_up_to_the_edge_leaves_a_hole_that_touches_it_once():
    [plate] = difference([Region(rectangle(0, 0, 20, 20))], [Region(Circle(10, 5, 5))])
    assert plate.area == pytest.approx(400 - 25 * math.pi)
    assert len(plate.holes) == 1


def test_arcs_of_one_circle_become_one_arc_again():
    halves = [
        Region(Contour((Vertex(0, -5, 1), Vertex(0, 5)))),
        Region(Contour((Vertex(0, 5, 1), Vertex(0, -5)))),
    ]
    [whole] = union(*halves)
    assert isinstance(whole.outer, Circle)
    assert (whole.outer.x, whole.outer.y, whole.outer.radius) == pytest.approx((0, 0, 5), abs=1e-9)


def test_an_island_in_a_hole_is_a_piece_of_its_own():
    frame = Region(rectangle(0, 0, 40, 40), (rectangle(5, 5, 30, 30),))
    island = Region(rectangle(15, 15, 10, 10), (Circle(20, 20, 2),))
    pieces = union(frame, island)
    assert sorted(len(piece.holes) for piece in pieces) == [1, 1]
    assert sum(piece.area for piece in pieces) == pytest.approx(frame.area + island.area)


def test_the_non_zero_rule_fills_whatever_is_gone_round():
    """W3C SVG 2, 13.4.2: two squares that run the same way and overlap are filled, one that runs back is a hole."""
    same = filled([rectangle(0, 0, 10, 10), rectangle(3, 3, 4, 4)])
    assert [region.area for region in same] == [pytest.approx(100)]
    [holed] = filled([rectangle(0, 0, 10, 10), rectangle(3, 3, 4, 4).reversed])
    assert holed.area == pytest.approx(84)
    assert filled([]) == []


def test_whether_a_ring_lies_within_another():
    ring = rectangle(0, 0, 10, 10)
    assert lies_within(Circle(5, 5, 2), ring)
    assert not lies_within(Circle(15, 5, 2), ring)
    assert lies_within(Circle(5, 5, 5), ring), "touching it in four points"


@pytest.mark.parametrize("far", [0.0, 1e4, 9e5])
def test_far_from_the_origin_is_as_good(far):
    [bitten] = difference([Region(rectangle(far, far, 40, 20))], [Region(Circle(far + 40, far + 10, 5))])
    assert bitten.area == pytest.approx(800 - math.pi * 12.5, abs=1e-5)


def test_an_outline_that_crosses_itself_is_refused_with_the_place_and_soon():
    bow = Region(Contour((Vertex(0, 0), Vertex(10, 10), Vertex(10, 0), Vertex(0, 12))))
    with pytest.raises(BadGeometry, match=r"crosses itself at 5\.455 mm, 5\.455 mm"):
        union(bow, Region(rectangle(20, 20, 5, 5)))
    with pytest.raises(BadGeometry, match="crosses itself"):
        offset(bow, 0.5)
    points = [((i * 7919) % 1000 / 10, (i * 104729) % 997 / 10) for i in range(1000)]
    tangle = Region(Contour(tuple(Vertex(*point) for point in points)))
    with pytest.raises(BadGeometry):
        difference([tangle], [bow])


@pytest.mark.parametrize("distance", [-3, -5, -40])
def test_an_offset_that_swallows_the_part_leaves_nothing(distance):
    assert offset(Region(rectangle(0, 0, 30, 6)), distance) == []
    assert offset(Region(Circle(0, 0, 3)), distance) == []
