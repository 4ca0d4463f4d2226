"""Where panels stand, and who has the corners."""

from itertools import product

import pytest
from conftest import edited
from lean_notch.build import build
from lean_notch.build.stand import stand
from lean_notch.design import AlongAxes, Placement
from lean_notch.edits import Edit
from lean_notch.errors import NotchError
from lean_notch.units import Length

NAMES = {"thickness": 3.0}


def at(u: str, v: str):
    pose = AlongAxes(Length("1"), Length("2"), Length("thickness"), u, v)
    return stand(Placement("one", "part", pose), (30, 20), NAMES)


AXES = [f"{sign}{axis}" for sign in "+-" for axis in "xyz"]


@pytest.mark.parametrize(("u", "v"), [(u, v) for u, v in product(AXES, AXES) if u[1] != v[1]])
def test_right_up_and_towards_the_viewer_are_right_handed(u, v):
    panel = at(u, v)
    assert sorted(abs(x) for x in panel.n) == [0, 0, 1]
    low, high = panel.box
    assert sorted(round(b - a, 9) for a, b in zip(low, high, strict=True)) == [3, 20, 30]
    # The face's own corners lie on the box; the material is behind the face.
    corner, behind = panel.at(0, 0), panel.at(0, 0, 1)
    assert [b - a for a, b in zip(behind, corner, strict=True)] == pytest.approx(panel.n)


@pytest.mark.parametrize(("side", "axis", "zero", "sense"), [("bottom", 0, 1, -1), ("left", 2, 3, 1)])
def test_a_side_runs_along_an_axis(side, axis, zero, sense):
    assert at("-x", "+z").along(side) == (axis, zero, sense)


def test_front_and_back_have_the_lower_corners(job):
    """The corner block is theirs, so left, right and base stop short of it there."""
    built = build(job.design, job.basis)
    t = job.basis.of("main").thickness
    corners = {
        "front": [(0, 0), (built.names["outside_width"], 0)],
        "back": [(0, 0), (built.names["outside_width"], 0)],
    }
    for part, points in corners.items():
        have = {vertex.point for vertex in built.part(part).region.outer.vertices}
        assert set(points) <= have
    left = {vertex.point for vertex in built.part("left").region.outer.vertices}
    assert (0, 0) not in left
    assert any(point == pytest.approx((t, 0)) for point in left)
    base = {vertex.point for vertex in built.part("base").region.outer.vertices}
    assert any(point == pytest.approx((t, t)) for point in base)


def test_mates_meet_at_the_same_place_in_space(job):
    """Each cut of a division, taken through either member, is one point along the shared edge."""
    built = build(job.design, job.basis)
    standing = {one.placement: one for one in built.standings}
    for mate in built.mates:
        axis, _, _ = standing[mate.first.placement].along(mate.first.side)
        for position in mate.division.cuts:
            places = [
                standing[member.placement].at(*member.point(position, 0))[axis] for member in (mate.first, mate.second)
            ]
            assert places[0] == pytest.approx(places[1], abs=1e-9)


def test_a_panel_moved_away_no_longer_meets_its_mates(job):
    moved = edited(job, Edit("put", "placements/front/pose/y", "-20"))
    with pytest.raises(NotchError) as caught:
        build(moved.design, moved.basis)
    assert caught.value.code == "panels-do-not-meet"
    assert "90 degrees" in caught.value.fix


def test_a_pose_may_use_names_and_says_where_it_cannot(job):
    lost = edited(job, Edit("put", "placements/front/pose/y", "nowhere"))
    with pytest.raises(NotchError) as caught:
        build(lost.design, lost.basis)
    assert caught.value.field == "placements/front/pose/y"


def test_a_part_turned_over_has_its_material_on_the_other_side():
    pose = AlongAxes(u="+x", v="+z")
    plain, over = (stand(Placement("one", "part", pose, mirrored), (30, 20), NAMES) for mirrored in (False, True))
    assert plain.box == ((0, 0, 0), (30, 3, 20))
    assert over.box == ((0, -3, 0), (30, 0, 20))
