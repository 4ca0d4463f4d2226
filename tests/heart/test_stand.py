"""Where panels stand, and who has the corners."""

import math
from itertools import product

import pytest
from conftest import edited
from lean_notch.design import Against, AlongAxes, ByNumbers, Design, Part, Placement
from lean_notch.edits import Edit
from lean_notch.geometry import Region, rectangle
from lean_notch.ground.errors import NotchError
from lean_notch.lengths.length import Length
from lean_notch.making import build
from lean_notch.making.stand import Outlined, stand_all

NAMES = {"main": {"thickness": 3.0}}
CORNERS = ((0.0, 0.0), (30.0, 0.0), (30.0, 20.0), (0.0, 20.0))
PLAIN = Outlined(
    (30, 20), 3.0, {s: (CORNERS[i], CORNERS[(i + 1) % 4]) for i, s in enumerate(("bottom", "right", "top", "left"))},
    Region(rectangle(0, 0, 30, 20)),
)  # fmt: skip


def stood(*placements: Placement):
    """Placements of a part of 30 x 20 x 3, standing."""
    standings, lost = stand_all(Design("one", (Part("part", "Part", ()),), placements), {"part": PLAIN}, NAMES)
    assert lost == ()
    return standings


def at(u: str, v: str, *, mirrored: bool = False):
    pose = AlongAxes(Length("1"), Length("2"), Length("thickness"), u, v)
    return stood(Placement("one", "part", pose, mirrored))["one"]


AXES = [f"{sign}{axis}" for sign in "+-" for axis in "xyz"]


@pytest.mark.parametrize(("u", "v"), [(u, v) for u, v in product(AXES, AXES) if u[1] != v[1]])
def test_right_up_and_towards_the_viewer_are_right_handed(u, v):
    panel = at(u, v)
    assert sorted(abs(x) for x in panel.n) == [0, 0, 1]
    low, high = panel.box
    assert sorted(round(b - a, 9) for a, b in zip(low, high, strict=True)) == [3, 20, 30]
    # The face's own corners lie on the box; the material is behind the face.
    corner, behind = panel.frame.at((0, 0)), panel.frame.at((0, 0), 1)
    assert [b - a for a, b in zip(behind, corner, strict=True)] == pytest.approx(panel.n)


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
    """Each contact of a joint lies in one place, whichever member it is looked at from."""
    built = build(job.design, job.basis)
    for mate in built.mates:
        axis, start = mate.meeting.axis, mate.meeting.start
        for position in (0.0, mate.meeting.length / 3, mate.meeting.length):
            along = sum(a * b for a, b in zip(axis, start, strict=True)) + position
            for change in mate.members:
                place = built.standing[change.placement].frame.at(change.strip.point(position, 0))
                assert sum(a * b for a, b in zip(axis, place, strict=True)) == pytest.approx(along, abs=1e-9)


def test_a_panel_moved_away_no_longer_meets_its_mates_and_says_by_how_much(job):
    moved = edited(job, Edit("put", "placements/front/pose/y", "-20"))
    built = build(moved.design, moved.basis)
    assert built.lost.keys() == {"front-left", "front-right", "front-base"}
    for finding in built.lost.values():
        assert (finding.severity, finding.code) == ("stop", "panels-do-not-meet")
        assert finding.amount == pytest.approx(20)
        assert "20 mm" in finding.why
        assert finding.space


def test_a_pose_may_use_names_and_says_where_it_cannot(job):
    lost = edited(job, Edit("put", "placements/front/pose/y", "nowhere"))
    with pytest.raises(NotchError) as caught:
        build(lost.design, lost.basis)
    assert caught.value.field == "placements/front/pose/y"


def test_a_part_turned_over_has_its_material_on_the_other_side():
    pose = AlongAxes(u="+x", v="+z")
    plain, over = (stood(Placement("one", "part", pose, mirrored))["one"] for mirrored in (False, True))
    assert plain.box == ((0, 0, 0), (30, 3, 20))
    assert over.box == ((0, -3, 0), (30, 0, 20))


def test_turns_by_numbers_are_made_about_the_axes_one_after_the_other():
    """Standing up about x, then a quarter about z: its top is up, and its right runs to the back."""
    turned = stood(Placement("one", "part", ByNumbers(turn_x=90, turn_z=90)))["one"]
    assert turned.u == (0, 1, 0)
    assert turned.v == (0, 0, 1)
    leaning = stood(Placement("one", "part", ByNumbers(turn_x=60)))["one"]
    assert leaning.v == pytest.approx((0, 0.5, math.sqrt(0.75)))
    assert leaning.n == pytest.approx((0, -math.sqrt(0.75), 0.5))


@pytest.mark.parametrize(("angle", "box"), [
    (90, ((27, 0, -20), (30, 30, 0))), (-90, ((30, 0, 0), (33, 30, 20))), (180, ((30, 0, -3), (50, 30, 0))),
])  # fmt: skip
def test_an_edge_against_an_edge_stands_square_behind_or_before_it_or_goes_on_flat(angle, box):
    """The first lies flat, face up, its long edges along y at x = 0 and x = 20 when turned: the right one is joined."""
    flat = Placement("one", "part", ByNumbers(x=Length("30"), turn_z=90))
    pose = Against("bottom", "one", "bottom", angle)
    found = stood(flat, Placement("two", "part", pose))["two"].box
    assert found[0] == pytest.approx(box[0], abs=1e-9)
    assert found[1] == pytest.approx(box[1], abs=1e-9)


def test_along_into_and_below_move_it_from_there():
    flat = Placement("one", "part", ByNumbers())
    plain, moved = (
        stood(flat, Placement("two", "part", pose))["two"].origin
        for pose in (Against("bottom", "one", "left"),
                     Against("bottom", "one", "left", along=Length("4"), into=Length("5"), below=Length("thickness")))
    )  # fmt: skip
    # The left edge runs down, and its part lies to the right.
    assert [b - a for a, b in zip(plain, moved, strict=True)] == pytest.approx([5, -4, -3])


def test_poses_that_wait_for_each_other_are_refused_by_name():
    a, b = (Placement(one, "part", Against("bottom", two, "top")) for one, two in (("a", "b"), ("b", "a")))
    with pytest.raises(NotchError, match="“a” stands against itself, by way of b") as caught:
        stood(a, b)
    assert (caught.value.code, caught.value.field) == ("circular-poses", "placements/a/pose/placement")


def test_a_pose_at_an_edge_that_is_not_there_is_a_finding(job):
    pose = {"kind": "against", "edge": "blank.bottom", "placement": "base", "other_edge": "blank.middle"}
    lost = edited(job, Edit("put", "placements/spare", {"part": "front", "pose": pose}))
    [finding] = [one for one in build(lost.design, lost.basis).findings if one.code == "no-edge"]
    assert finding.field == "placements/spare/pose/other_edge"
    assert "blank.left" in finding.fix
