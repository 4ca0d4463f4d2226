"""Tab and slot: what it makes, what it refuses, and that it is proved as any joint is."""

from dataclasses import replace

import pytest
from conftest import edited, make_basis, make_board, make_job
from lean_notch.basis import Basis
from lean_notch.design import design_from_json
from lean_notch.edits import Edit
from lean_notch.ground.errors import NotchError
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import Job, compute, job_from_json, job_to_json
from lean_notch.joints.tabs import spread_tabs
from lean_notch.told.ledger import ledger


def panel(name, width, height, board="main"):
    steps = [{"kind": "shape", "id": "blank", "shape": {"kind": "rectangle", "width": width, "height": height}}]
    return {"id": name, "title": name.capitalize(), "steps": steps, "board": board}


def stand(shelf_pose=None, how=None, basis=None, shelf_board="main"):
    """A shelf that stands out from the middle of a wall: the wall stands up with its face to the front."""
    boards = [{"id": "main", "title": "Board"}]
    boards += [{"id": shelf_board, "title": "Shelf board"}] if shelf_board != "main" else []
    document = {
        "lean_notch_design": 2, "name": "Field-guide stand", "boards": boards,
        "parts": [panel("wall", 160, 90), panel("shelf", 120, 50, shelf_board)],
        "placements": [
            {"id": "wall", "part": "wall", "pose": {"kind": "axes", "u": "+x", "v": "+z"}},
            {"id": "shelf", "part": "shelf", "pose": shelf_pose or {"kind": "numbers", "x": 140, "y": 0, "z": 40, "turn_z": 180}},
        ],
        "joints": [{
            "id": "hold", "title": "Shelf in wall", "first": {"placement": "shelf", "edge": "blank.bottom"},
            "second": {"placement": "wall", "edge": "face"}, "how": how or {"kind": "tab-and-slot"},
        }],
    }  # fmt: skip
    return Job(design_from_json(document), basis or make_basis())


def test_tabs_stand_through_slots_and_are_proved():
    """By hand: 120 mm of 3.06 board have two tabs of 15.3; a tab is as long as the wall is thick."""
    result = compute(stand())
    # A board of 3.02 to 3.10 has -0.02 to 0.06 in a slot for 3.08.
    assert [(one.code, one.severity) for one in result.build.findings] == [("fit-spread", "look")]
    shelf, wall = result.build.part("shelf").region, result.build.part("wall").region
    assert shelf.box == pytest.approx((0, -3.06, 120, 50))
    assert shelf.area == pytest.approx(120 * 50 + 2 * (15.3 - 0.01) * 3.06)
    assert len(wall.holes) == 2
    assert wall.area == pytest.approx(160 * 90 - 2 * (15.3 + 0.01) * 3.08)
    proof = prove_job(result)
    assert (proof.verdict, len(proof.findings)) == ("fits", 1)
    [mate] = proof.mates
    assert mate.clearance == pytest.approx((0.02, 0.02), abs=1e-3)
    assert mate.proud == pytest.approx((0.04, 0, -0.04), abs=1e-3)


def test_it_is_read_written_and_edited_like_any_joint():
    job = stand(how={"kind": "tab-and-slot", "count": 3, "width": "12"})
    assert job_from_json(job_to_json(job)) == job
    assert len(compute(job).build.part("wall").region.holes) == 3
    fewer = edited(job, Edit("put", "joints/hold/how/count", 1))
    assert len(compute(fewer).build.part("wall").region.holes) == 1
    rows = {row.key: row for row in ledger(compute(job))["joint:hold"]}
    assert (rows["tabs"].value, rows["tabs"].field) == (3, "joints/hold/how/count")
    assert rows["socket"].title == "slot"


def test_without_it_the_parts_are_as_they_were():
    """A law: removing a joint gives the plain parts back."""
    bare = compute(edited(stand(), Edit("drop", "joints/hold"))).build
    assert bare.part("shelf").region.area == 120 * 50
    assert bare.part("wall").region.area == 160 * 90


def test_the_boards_own_spread_counts_where_it_goes_in_by_its_thickness():
    """By hand: a slot for 3.06 with 0.02 is 3.08 wide; boards of 2.90 to 3.22 have -0.14 to 0.18 in it: they will not go."""
    uneven = make_basis(readings=(2.90, 3.06, 3.22))
    [finding] = [one for one in compute(stand(basis=uneven)).build.findings if one.code == "fit-spread"]
    assert finding.severity == "stop"
    assert "where the board is thickest" in finding.why


def test_two_boards_each_count_for_what_they_do():
    """The wall's thickness makes the tabs long, the shelf's makes the slots wide."""
    thick = replace(make_board((5.9, 5.95, 6.0)), clearance=0.1)
    basis = Basis((("main", make_board()), ("deep", thick)))
    built = compute(stand(basis=basis, shelf_board="deep")).build
    assert built.part("shelf").region.box[1] == pytest.approx(-3.06)
    hole = built.part("wall").region.holes[0].box
    assert hole[3] - hole[1] == pytest.approx(5.95 + 0.1)


@pytest.mark.parametrize(("pose", "said", "amount"), [
    ({"kind": "numbers", "x": 140, "y": -2, "z": 40, "turn_z": 180}, "2 mm short of the face of Wall", 2),
    ({"kind": "numbers", "x": 140, "y": 0.5, "z": 40, "turn_z": 180}, "0.5 mm inside the face of Wall", 0.5),
    ({"kind": "numbers", "x": 140, "y": 0, "z": 40, "turn_x": 65, "turn_z": 180}, "stands at 25.0° on the face", 5),
    ({"kind": "numbers", "x": 200, "y": 0, "z": 40, "turn_z": 180}, "leaves the face of Wall", 17.66),
])  # fmt: skip
def test_an_edge_that_does_not_stand_on_the_face_is_said_with_its_amount(pose, said, amount):
    built = compute(stand(pose)).build
    finding = built.lost["hold"]
    assert said in finding.why
    assert finding.amount == pytest.approx(amount, abs=0.02)
    assert finding.space
    assert prove_job(compute(stand(pose))).verdict == "does-not-fit"


@pytest.mark.parametrize(("given", "field"), [
    ({"width": 1.0}, "width"), ({"count": 9}, "count"), ({"width": 119.0}, "width"), ({"length": 5.0}, "size"),
])  # fmt: skip
def test_tabs_that_cannot_be_are_refused_with_what_can(given, field):
    with pytest.raises(NotchError) as caught:
        spread_tabs(**{"length": 120.0, "thickness": 3.06, "through": 3.06, "clearance": 0.02, **given})
    assert caught.value.field == field
    assert "mm" in caught.value.fix or "tab" in caught.value.fix


def test_an_edge_on_an_edge_is_no_place_for_slots():
    job = make_job()
    how = {"kind": "tab-and-slot"}
    changed = edited(job, Edit("put", "joints/front-left/how", how))
    assert "no place" not in str(compute(changed).build.lost["front-left"].why)
    assert compute(changed).build.lost["front-left"].severity == "stop"
