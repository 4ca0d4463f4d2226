"""Joints of every kind: what they take and add by hand, how they are proved, and what they refuse."""

import math

import pytest
from conftest import edited, make_basis, make_job
from joined import FLAT, UPRIGHT, corner, crossed, halved, job, on_wall, panel
from lean_notch.edits import Edit
from lean_notch.ground.errors import NotchError
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute

T, GAP = 3.06, 0.02


def build(one):
    return compute(one).build


def codes(one):
    return {(f.code, f.severity) for f in compute(one).build.findings} - {("fit-spread", "look")}


@pytest.mark.parametrize("angle", [90, 60, 45, 120])
@pytest.mark.parametrize("share", [0.5, 0.3])
def test_crossed_slots_take_the_height_together_whatever_the_angle(angle, share):
    """By hand: a square cut through a board clears t / sin + t |cot| of the other, and the clearance at that slant. Common practice:
    the two depths together are the height at the crossing."""
    result = compute(crossed(angle, {"share": share}))
    turn = math.radians(angle)
    wide = (T + GAP) / math.sin(turn) + T * abs(math.cos(turn) / math.sin(turn))
    first, second = (result.build.part(name).region.area for name in "ab")
    assert 100 * 40 - first == pytest.approx(share * 40 * wide, abs=1e-6)
    assert 80 * 40 - second == pytest.approx((1 - share) * 40 * wide, abs=1e-6)
    proof = prove_job(result)
    assert proof.verdict == "fits"
    assert proof.mates[0].clearance == pytest.approx([GAP / math.sin(turn)] * 2, abs=1e-3)


def test_a_slot_in_an_outline_that_is_no_rectangle_follows_its_height_there():
    """By hand: 10 mm of the top are cut off where they cross, so that 30 are left to share, 15 each."""
    low = {
        "kind": "shape",
        "id": "low",
        "does": "cut",
        "x": 30,
        "y": 30,
        "shape": {"kind": "rectangle", "width": 40, "height": 10},
    }
    result = compute(crossed(first=panel("a", 100, 40, low)))
    rows = {row.key: row.value for row in result.build.mates[0].figures}
    assert rows["height"] == pytest.approx(30)
    assert (rows["first_depth"], rows["second_depth"]) == pytest.approx((15, 15))
    assert prove_job(result).verdict == "fits"


def test_eased_mouths_are_wider_by_two_triangles():
    plain, eased = (build(crossed(how=how)).part("a").region.area for how in ({}, {"ease": "2"}))
    assert plain - eased == pytest.approx(2 * 2 * 2 / 2)


def test_what_cannot_cross_is_said_with_by_how_much():
    for one, said in (
        (crossed(25), "cross at 25.0°"),
        (crossed(x=51), "at its very side"),
        (crossed(x=80), "passes beside"),
    ):
        built = build(one)
        assert said in built.lost["cross"].why
        assert built.lost["cross"].fix
    window = {
        "kind": "shape",
        "id": "window",
        "does": "cut",
        "x": 40,
        "y": 10,
        "shape": {"kind": "rectangle", "width": 20, "height": 20},
    }
    assert "does not come out" in build(crossed(first=panel("a", 100, 40, window))).lost["cross"].why


@pytest.mark.parametrize(("angle", "short"), [(60, True), (120, True), (60, False), (120, False), (45, True)])
def test_fingers_at_a_slant_are_as_long_as_the_other_board_is_wide_there(angle, short):
    """By hand: sockets are t / sin deep, and t cot more where the board leans in; tips end t cot from the edge."""
    result = compute(corner(angle, {"tips": "short" if short else "proud"}))
    cot = 1 / math.tan(math.radians(angle))
    deep = T / math.sin(math.radians(angle)) + max(0, T * cot)
    [mate] = result.build.mates
    assert mate.meeting.first.high == pytest.approx(deep)
    tip = max(0.0, T * cot) if short else min(0.0, T * cot)
    assert result.build.part("a").region.box[1] == pytest.approx(tip)
    [wedge] = mate.findings
    assert wedge.amount == pytest.approx(abs(T * cot))
    assert "2 mm" not in wedge.why
    proof = prove_job(result)
    assert proof.verdict == "fits"
    assert "doubled" not in {one.code for one in proof.findings}


def test_fingers_by_count_and_with_plain_ends():
    """By hand: 100 mm with 10 plain at either end and 8 fingers are fingers of 10."""
    rows = {row.key: row.value for row in build(corner(how={"count": 8, "margin": "10"})).mates[0].figures}
    assert (rows["fingers"], rows["pitch"]) == (8, pytest.approx(10))
    for how in ({"count": 6}, {"ends": "second"}, {"ends": "second", "margin": "8", "count": 5}):
        assert prove_job(compute(corner(how=how))).verdict == "fits"


def test_swapping_the_end_finger_exchanges_the_two():
    """A law: the second has then what the first had."""
    usual, swapped = (build(corner(how=how)).mates[0] for how in ({}, {"ends": "second"}))
    gives = [[one.depth for one in change.notches] for change in (*usual.members, *swapped.members)]
    assert [len(one) for one in gives] == [4, 5, 5, 4] or [len(one) for one in gives] == [5, 6, 6, 5]


def test_a_corner_of_three_is_settled_whoever_has_the_end_finger():
    from joined import made

    result = made("open-tray")
    for joint in ("front-left", "front-base", "left-base"):
        changed = edited(result.job, Edit("put", f"joints/{joint}/how/ends", "second"))
        assert prove_job(compute(changed)).verdict == "fits", joint


@pytest.mark.parametrize(("one", "field", "fix"), [
    (corner(how={"count": 40}), "joints/meet/how/count", "at most 32"),
    (corner(how={"margin": "46"}), "joints/meet/how/margin", "at most 45.38 mm"),
    (on_wall({"kind": "tab-and-slot", "inset": "60"}), "joints/hold/how/inset", "43.17 mm"),
    (on_wall({"kind": "tab-and-slot", "deep": "4"}), "joints/hold/how/deep", "3.06 mm"),
    (on_wall({"kind": "tab-and-slot", "lock": "9"}), "joints/hold/how/lock", "at most"),
    (on_wall({"kind": "pegs", "count": 20}), "joints/hold/how/count", "at most"),
    (on_wall({"kind": "pegs", "pitch": "7"}), "joints/hold/how/pitch", "at least"),
    (on_wall({"kind": "groove", "stop": "70"}), "joints/hold/how/stop", "at most"),
    (crossed(how={"ease": "30"}), "joints/cross/how/ease", "half of the slot"),
])  # fmt: skip
def test_numbers_that_cannot_be_are_refused_at_their_field_with_what_works(one, field, fix):
    with pytest.raises(NotchError) as caught:
        compute(one)
    assert caught.value.field == field
    assert fix in caught.value.fix


def test_tabs_from_the_ends_are_where_they_were_asked():
    """By hand: tabs of 15.3 from 5 mm on; common practice: the margin at either side is (outer − span) / 2."""
    shelf = build(on_wall({"kind": "tab-and-slot", "inset": "5"})).part("shelf").region
    xs = sorted({round(v.x, 3) for v in shelf.outer.vertices if v.y < 0})
    assert xs == pytest.approx([5.005, 20.295, 99.705, 114.995])


def test_a_shelf_that_leans_has_wider_slots_and_says_its_wedge():
    lean = {"kind": "numbers", "x": 140, "y": 0, "z": 40, "turn_z": 180, "turn_x": 20}
    result = compute(on_wall({"kind": "tab-and-slot"}, lean))
    turn = math.radians(70)
    hole = result.build.part("wall").region.holes[0].box
    assert hole[3] - hole[1] == pytest.approx((T + GAP) / math.sin(turn) + T / math.tan(turn), abs=1e-6)
    assert ("wedge", "look") in codes(on_wall({"kind": "tab-and-slot"}, lean))
    assert prove_job(result).verdict == "fits"


@pytest.mark.parametrize(
    "how", [{"kind": "tab-and-slot", "deep": "1"}, {"kind": "groove"}, {"kind": "groove", "deep": "1.2", "stop": "8"}]
)
def test_what_sits_in_a_pocket_is_not_called_measured(how):
    result = compute(on_wall(how))
    marks = result.build.part("wall").marks
    assert {mark.operation for mark in marks} == {"pocket"}
    deep = 1.02 if "deep" not in how else float(how["deep"])
    assert {round(mark.depth, 6) for mark in marks} == {deep}
    assert result.build.part("shelf").region.box[1] == pytest.approx(-deep)
    proof = prove_job(result)
    assert proof.verdict == "as-far-as-seen"
    assert "depth-not-swept" in {one.code for one in proof.findings}


def test_locking_tabs_stand_out_behind_the_wall_and_are_said_not_to_be_measured():
    result = compute(on_wall({"kind": "tab-and-slot", "count": 1, "lock": "0.8"}))
    assert result.build.part("shelf").region.box[1] == pytest.approx(-T - 1.2)
    assert prove_job(result).verdict == "as-far-as-seen"


def test_pegs_have_more_holes_than_they_fill():
    result = compute(on_wall({"kind": "pegs", "count": 2, "more": 2}))
    assert len(result.build.part("wall").region.holes) == 6
    assert prove_job(result).verdict == "fits"


def test_halved_parts_give_away_one_thickness_together_from_opposite_sides():
    built = build(halved())
    [one], [two] = built.part("a").marks, built.part("b").marks
    assert one.depth + two.depth == pytest.approx(T)
    assert (one.back, two.back) == (False, True)
    assert one.regions[0].area == pytest.approx((30 + GAP) * 40)
    assert "off the plane" in build(halved(z=1.0)).lost["lap"].why


@pytest.mark.parametrize(
    ("first", "second", "at", "widths"),
    [((100, 40), (30, 80), (40, -20), [(30, 40)]), ((60, 200), (300, 40), (-120, 80), [(40, 60)])],
)
def test_halves_are_as_wide_as_the_other_board_whichever_way_it_runs(first, second, at, widths):
    """The width of each pocket is that of the board in it, and not how far the crossing reaches along the first's x."""
    how = {"kind": "halving", "share": "0.5"}
    poses = {"a": FLAT, "b": {"kind": "numbers", "x": at[0], "y": at[1]}}
    [mate] = build(
        job([panel("a", *first), panel("b", *second)], poses, [("lap", "a", "face", "b", "face", how)])
    ).mates
    assert [(one.inner_part, one.outer.part, one.width) for one in mate.contacts] == [
        row for into_a, into_b in widths for row in (("b", "a", into_a), ("a", "b", into_b))
    ]
    for contact in mate.contacts:
        (x0, y0), (x1, y1) = contact.outer.lines[0]
        assert math.hypot(x1 - x0, y1 - y0) == pytest.approx(1.5 * (contact.width + GAP))


def test_halves_of_a_board_that_lies_askew_are_measured_square_to_it():
    how = {"kind": "halving", "share": "0.5"}
    poses = {"a": FLAT, "b": {"kind": "numbers", "x": 60, "y": -60, "turn_z": 60}}
    [mate] = build(
        job([panel("a", 200, 50), panel("b", 240, 30)], poses, [("lap", "a", "face", "b", "face", how)])
    ).mates
    assert [contact.width for contact in mate.contacts] == pytest.approx([30, 50])


def test_every_crossing_of_two_halved_parts_has_its_contacts():
    """A frame of 20 wide sides over a strip: it is crossed twice."""
    window = {
        "kind": "shape",
        "id": "w",
        "does": "cut",
        "x": 20,
        "y": 20,
        "shape": {"kind": "rectangle", "width": 80, "height": 60},
    }
    poses = {"a": FLAT, "b": {"kind": "numbers", "x": -30, "y": 35}}
    how = {"kind": "halving", "share": "0.5"}
    [mate] = build(
        job([panel("a", 120, 100, window), panel("b", 180, 30)], poses, [("lap", "a", "face", "b", "face", how)])
    ).mates
    assert [contact.width for contact in mate.contacts] == pytest.approx([30, 20, 30, 20])
    assert [contact.in_pocket for contact in mate.contacts] == [True] * 4


def test_a_lock_in_a_pocket_is_refused():
    with pytest.raises(NotchError, match="in a pocket they would stand in its floor") as refused:
        build(on_wall({"kind": "tab-and-slot", "deep": "1", "lock": "0.3"}))
    assert refused.value.field == "joints/hold/how/lock"


def test_joints_that_run_into_each_other_are_a_stop_with_by_how_much():
    """A shelf's slot right under another one's: the second is 2 mm above the first, whose board is 3.06 thick."""
    poses = {
        "wall": {"kind": "axes", "u": "+x", "v": "+z"},
        "low": {"kind": "numbers", "x": 140, "z": 40, "turn_z": 180},
        "high": {"kind": "numbers", "x": 140, "z": 42, "turn_z": 180},
    }
    how = {"kind": "tab-and-slot"}
    one = job(
        [panel("wall", 160, 90), panel("low", 120, 50), panel("high", 120, 50)], poses,
        [(name, name, "blank.bottom", "wall", "face", how) for name in ("low", "high")],
    )  # fmt: skip
    [found] = [f for f in build(one).findings if f.code == "joints-overlap"]
    assert (found.severity, found.part) == ("stop", "wall")
    assert found.amount == pytest.approx(T + GAP - 2)


@pytest.mark.parametrize(
    "one",
    [corner(), corner(60), crossed(), crossed(60), on_wall({"kind": "groove"}), on_wall({"kind": "pegs"}), halved()],
)
def test_removing_a_joint_restores_the_parts(one):
    """A law."""
    [name] = [joint.id for joint in one.design.joints]
    bare = build(edited(one, Edit("drop", f"joints/{name}")))
    for part in bare.parts:
        assert part.region.area == part.size[0] * part.size[1]
        assert part.marks == ()


def test_a_pair_of_boards_may_have_a_fit_of_its_own():
    wide = edited(crossed(), Edit("put", "basis/main/into", {"other": 0.2}))
    assert wide.basis.between("main", "other") == 0.2
    assert wide.basis.between("main", "main") == GAP
    with pytest.raises(NotchError, match="clearance in"):
        edited(crossed(), Edit("put", "basis/main/into", {"other": 20}))


def test_a_router_clears_the_corners_of_its_slots():
    job_ = crossed(basis=make_basis(kerf=1.2, sheet=(900, 900)))
    relieved = edited(job_, Edit("put", "relief", "dogbone"))
    assert prove_job(compute(relieved)).verdict == "fits"
    assert "corner-blocked" in {one.code for one in prove_job(compute(job_)).findings}


def test_a_part_may_stand_centred_on_an_edge_and_off_its_middle():
    """By hand: 60 centred on 100 begins 20 in; 5 further it begins at 25, counted against the other's edge."""
    against = {
        "kind": "against",
        "edge": "blank.bottom",
        "placement": "a",
        "other_edge": "blank.bottom",
        "centred": True,
    }
    for along, begins in (("0", 20), ("5", 25)):
        built = build(job([panel("a", 100, 40), panel("b", 60, 50)], {"a": FLAT, "b": {**against, "along": along}}, []))
        low, high = built.standing["b"].box
        assert (low[0], high[0]) == pytest.approx((begins, begins + 60))


@pytest.mark.parametrize(("way", "begins"), [("+x", (11, 7, 9)), ("+y", (5, 13, 9))])
def test_an_edge_to_edge_joint_begins_where_both_edges_are(way, begins):
    """The second edge begins 6 along the first, which begins at (5, 7, 9), and is 80 long."""
    lying = {"kind": "axes", "u": way, "v": {"+x": "+y", "+y": "-x"}[way], "x": 5, "y": 7, "z": 9}
    on = {"kind": "against", "edge": "blank.bottom", "placement": "a", "other_edge": "blank.bottom", "along": 6}
    edges = ("a", "blank.bottom", "b", "blank.bottom")
    two = job(
        [panel("a", 100, 40), panel("b", 80, 50)],
        {"a": lying, "b": on},
        [("meet", *edges, {"kind": "finger"})],
    )
    [mate] = compute(two).build.mates
    assert mate.meeting.start == pytest.approx(begins)
    assert mate.meeting.length == pytest.approx(80)


def test_a_joint_at_an_edge_that_is_not_there_is_told_at_the_middle_of_its_other_edge():
    two = job(
        [panel("a", 100, 40), panel("b", 80, 50)],
        {"a": FLAT, "b": UPRIGHT},
        [("meet", "a", "blank.right", "b", "blank.nose", {"kind": "finger"})],
    )
    [said] = compute(two).build.findings
    assert (said.code, said.space) == ("no-edge", pytest.approx((100, 20, 0)))


def test_a_wall_that_is_first_in_most_of_its_joints_has_the_blocks_at_its_corners():
    """The tray's front and back over its sides and its base: boards 3.06 thick, and every corner block is as long."""
    mates = {mate.id: mate.meeting for mate in compute(make_job()).build.mates}
    thickness = 3.06
    for name, own in {
        "front-left": (1, 0), "back-right": (1, 0), "front-base": (1, 1), "back-base": (1, 1), "left-base": (0, 0)
    }.items():  # fmt: skip
        assert mates[name].own == pytest.approx([thickness * one for one in own])
