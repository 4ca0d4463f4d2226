"""Rounded and cut corners, mirrors and arrays, bones: against closed forms."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from lean_notch.geometry import (
    Circle,
    Contour,
    Motion,
    Region,
    Trace,
    Vertex,
    grid,
    mirror,
    rectangle,
    round_about,
)
from lean_notch.geometry.bones import ROOM, capsule, dogbone, t_bone
from lean_notch.geometry.boolean import difference
from lean_notch.geometry.corners import chamfered, rounded
from lean_notch.geometry.offset import offset
from lean_notch.ground.errors import OutOfRange, RadiusTooLarge

SQUARE_CORNER = ((1.0, 0.0), (0.0, 1.0))


def test_a_tag_of_25_takes_a_radius_of_10_and_not_15():
    """Common practice: a corner radius may not exceed half the shorter side."""
    tag = rectangle(0, 0, 60, 25)
    assert rounded(tag, 10).area == pytest.approx(60 * 25 - (4 - math.pi) * 100)
    with pytest.raises(RadiusTooLarge) as caught:
        rounded(tag, 15)
    assert "12.5 mm" in caught.value.fix


def test_a_radius_of_exactly_half_leaves_no_straight_end():
    stadium = rounded(rectangle(0, 0, 60, 25), 12.5)
    assert sum(segment.bulge == 0 for segment in stadium.segments) == 2
    assert stadium.area == pytest.approx(35 * 25 + math.pi * 12.5**2)


def test_only_the_chosen_corners_are_cut():
    plate = chamfered(rectangle(0, 0, 30, 20), 4, [2])
    assert len(plate.vertices) == 5
    assert plate.area == pytest.approx(600 - 8)
    assert rounded(rectangle(0, 0, 30, 20), 3, []) == rectangle(0, 0, 30, 20)


@given(st.floats(20, 160), st.floats(0.5, 3))
def test_a_fillet_takes_its_closed_form_from_any_corner(degrees, radius):
    """Between lines at an angle a, a fillet takes r² (cot(a/2) - (pi - a)/2)."""
    a = math.radians(degrees)
    wedge = Contour((Vertex(0, 0), Vertex(60, 0), Vertex(60 * math.cos(a), 60 * math.sin(a))))
    taken = radius**2 * (1 / math.tan(a / 2) - (math.pi - a) / 2)
    assert rounded(wedge, radius, [0]).area == pytest.approx(wedge.area - taken)


def test_a_corner_between_a_line_and_an_arc_is_rounded_smoothly():
    half = Contour((Vertex(-10, 0), Vertex(10, 0, 1)))
    done = rounded(half, 2)
    assert len(done.segments) == 4
    turns = [s.sweep for s in done.segments if s.bulge]
    assert all(turn > 0 for turn in turns)
    centres = [s.centre for s in done.segments if s.bulge and s.radius == pytest.approx(2)]
    assert [math.hypot(*centre) for centre in centres] == pytest.approx([8, 8])


def test_an_inside_corner_is_filled():
    ell = Contour((Vertex(0, 0), Vertex(20, 0), Vertex(20, 10), Vertex(10, 10), Vertex(10, 20), Vertex(0, 20)))
    assert rounded(ell, 3, [3]).area == pytest.approx(300 + (1 - math.pi / 4) * 9)


def test_a_mirror_keeps_distances_and_turns_arcs_over():
    plate = Region(Contour((Vertex(0, 0), Vertex(10, 0, 0.5), Vertex(10, 10))), (Circle(7, 3, 1),))
    over = mirror((20, 0), 90).region(plate)
    assert over.box == pytest.approx((30 - plate.box[2] + 10, plate.box[1], 40, plate.box[3]))
    assert over.area == pytest.approx(plate.area)
    assert mirror((20, 0), 90).region(over).box == pytest.approx(plate.box)
    assert mirror((0, 0), 45).point((3, 1)) == pytest.approx((1, 3))


def test_arrays_stand_in_columns_and_rows_and_round_a_centre():
    assert [place.point((0, 0)) for place in grid(2, 2, 5, 7)] == [(0, 0), (5, 0), (0, 7), (5, 7)]
    ring = [place.point((10, 0)) for place in round_about((0, 0), 4)]
    assert ring == [pytest.approx(p, abs=1e-12) for p in ((10, 0), (0, 10), (-10, 0), (0, -10))]
    half = [place.point((10, 0)) for place in round_about((0, 0), 3, 180)]
    assert half[-1] == pytest.approx((-10, 0), abs=1e-12)


def test_an_open_line_turns_round_and_over():
    line = Trace((Vertex(0, 0), Vertex(10, 0, 1), Vertex(10, 4)))
    assert line.length == pytest.approx(10 + 2 * math.pi)
    assert line.reversed.reversed == line
    assert line.reversed.box == pytest.approx(line.box)
    assert Motion(mirrored=True).trace(line).box == pytest.approx((-12, 0, 0, 4))


@pytest.mark.parametrize("degrees", [60, 90, 120, 150])
def test_a_dogbone_reaches_its_corner_and_overcuts_as_it_must(degrees):
    """Closed form: the circle through a corner, its centre on the bisector, passes it by r (1 - sin(a/2)) in a wall."""
    a, r = math.radians(degrees), 3.0
    bone = dogbone((0, 0), (1, 0), (math.cos(a), math.sin(a)), r)
    assert isinstance(bone.outer, Circle)
    radius = r * ROOM
    assert math.hypot(bone.outer.x, bone.outer.y) == pytest.approx(radius)
    overcut = radius - bone.outer.y
    assert overcut == pytest.approx(radius * (1 - math.sin(a / 2)))


def test_a_narrow_corner_is_cleared_by_a_capsule():
    a = math.radians(40)
    bone = dogbone((0, 0), (1, 0), (math.cos(a), math.sin(a)), 2)
    assert len(bone.outer.segments) == 4


def test_a_t_bone_overcuts_one_wall_by_the_tool_radius():
    bone = t_bone((0, 0), *SQUARE_CORNER, 3)
    left, low, _, high = bone.box
    assert left == pytest.approx(-3 * ROOM)
    assert low == pytest.approx(0, abs=1e-12)
    assert high == pytest.approx(6 * ROOM)


@pytest.mark.parametrize("bone", [dogbone, t_bone])
def test_a_relieved_corner_takes_a_square_mate_after_the_tools_sweep(bone):
    """What a tool of radius r can reach of the void is its opening; the mate's corner must lie in it."""
    r = 3.0
    plate = Region(rectangle(0, 0, 60, 40))
    slot = Region(rectangle(20, 20, 20, 30))
    relief = [bone((20, 20), *SQUARE_CORNER, r), bone((40, 20), (-1, 0), (0, 1), r)]
    [part] = difference([plate], [slot, *relief])
    [path] = offset(part, r)
    [back] = offset(path, -r)
    over = difference([back], [part])
    in_slot = [region for region in over if region.box[0] < 40 - 1e-6 and region.box[2] > 20 + 1e-6]
    reach = max((min(region.box[2], 40) - max(region.box[0], 20) for region in in_slot), default=0)
    assert reach <= 0.001 or all(region.area < 1e-3 for region in in_slot)


def test_a_straight_corner_wants_no_bone():
    with pytest.raises(OutOfRange):
        dogbone((0, 0), (1, 0), (-1, 0), 3)
    with pytest.raises(OutOfRange):
        t_bone((0, 0), (1, 0), (1, 0), 3)


def test_a_capsule_is_a_stadium_or_a_circle():
    assert capsule((0, 0), (10, 0), 2).area == pytest.approx(40 + 4 * math.pi)
    assert capsule((1, 1), (1, 1), 2).outer == Circle(1, 1, 2)
