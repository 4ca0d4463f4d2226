"""Parts that stand in several places: quantities, mirrored ones, and joints that want a part different."""

import pytest
from conftest import edited, make_basis, make_job
from joined import made
from lean_notch.edits import Edit
from lean_notch.geometry import Region, rectangle
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute
from lean_notch.making.part import Asked
from lean_notch.making.wanted import _same


def put(path, value):
    return Edit("put", path, value)


@pytest.fixture
def shared():
    """A tray whose front and back are one part: the back's joints name its placement, as before."""
    return edited(make_job(), put("placements/back/part", "front"), Edit("drop", "parts/back"))


def test_quantity_is_what_stands_and_the_loose_ones(shared):
    built = compute(edited(shared, put("parts/front/loose", 3))).build
    assert built.part("front").quantity == 2 + 3
    assert len(built.standings) == 5


def test_placements_that_ask_for_the_same_make_one_part(shared):
    """Front and back of a tray are alike, joints included."""
    result = compute(shared)
    assert [finding.code for finding in result.build.findings] == []
    assert len(result.build.mates) == 8
    assert result.build.part("front").region == compute(make_job()).build.part("front").region
    proof = prove_job(result)
    assert (proof.fits, len(proof.parts)) == (True, 5)


def test_placements_that_differ_are_named_and_one_can_become_a_part_of_its_own(shared):
    other = edited(shared, put("joints/back-base/how/width", "20"))
    built = compute(other).build
    [finding] = [one for one in built.findings if one.code == "placements-differ"]
    assert (finding.severity, finding.field, finding.part) == ("stop", "placements/back", "front")
    assert "Front, copy 1 and of copy 2" in finding.why
    assert not prove_job(compute(other)).fits
    steps = [
        {
            "kind": "shape",
            "id": "blank",
            "shape": {"kind": "rectangle", "width": "outside_width", "height": "outside_height"},
        }
    ]
    own = edited(other, put("parts/rear", {"title": "Rear", "steps": steps}), put("placements/back/part", "rear"))
    assert prove_job(compute(own)).fits


def test_one_that_stands_free_differs_from_one_that_is_joined(shared):
    free = edited(shared, put("placements/spare", {"part": "base", "pose": {"kind": "axes", "z": "200"}}))
    assert [one.field for one in compute(free).build.findings] == ["placements/spare"]


def test_what_names_what_is_gone_is_refused_as_an_edit_and_a_finding_otherwise(shared):
    from lean_notch.design import design_from_json, design_to_json
    from lean_notch.ground.errors import NotchError
    from lean_notch.job import Job

    with pytest.raises(NotchError, match="no part “lid”"):
        edited(shared, put("placements/back/part", "lid"))
    document = design_to_json(shared.design)
    document["joints"][0]["first"]["placement"] = "nobody"
    document["placements"][0]["part"] = "lid"
    document["parts"][1]["board"] = "lost"
    findings = compute(Job(design_from_json(document), shared.basis)).build.findings
    assert {one.field for one in findings if one.severity == "stop"} >= {
        "joints/front-left/first/placement", "placements/front/part", "parts/left/board",
    }  # fmt: skip
    assert all(one.fix for one in findings)


def test_what_stands_against_another_follows_its_names_and_keeps_it_from_being_removed():
    from lean_notch.ground.errors import NotchError

    pose = {"kind": "against", "edge": "blank.bottom", "placement": "base", "other_edge": "blank.right"}
    job = edited(make_job(), put("placements/spare", {"part": "left", "pose": pose}))
    renamed = edited(
        job, Edit("rename", "placements/base", to="floor"), Edit("rename", "parts/base/steps/blank", to="sheet"),
        Edit("rename", "parts/left/steps/blank", to="side"),
    )  # fmt: skip
    found = renamed.design.placement("spare").pose
    assert (found.placement, found.other_edge, found.edge) == ("floor", "sheet.right", "side.bottom")
    assert compute(renamed).build.standing["spare"].origin == compute(job).build.standing["spare"].origin
    with pytest.raises(NotchError, match="is used by spare"):
        edited(job, Edit("drop", "placements/base"))


def test_removing_a_part_takes_its_places_and_their_joints_along(job):
    less = edited(job, Edit("drop", "parts/left"))
    assert {one.id for one in less.design.placements} == {"front", "back", "right", "base"}
    assert len(less.design.joints) == 5
    assert compute(less).build.findings == ()


def test_a_hair_of_rounding_between_two_placements_is_no_difference():
    """Found by chance: a slot ended at 45.297495499 at one side and at 45.297495501 at the other, which round to two numbers."""
    given = {"width": "77", "depth": "140.61", "height": "104.44", "insert": "34.82", "inserts": "3", "radius": ""}
    mean, spread = 4.057998199991708, 0.03131496768630195
    basis = make_basis(readings=(mean - spread, mean, mean + spread), kerf=0.2, clearance=0.0, sheet=(900, 900))
    assert "placements-differ" not in {one.code for one in made("framed-stand", given, basis).build.findings}


@pytest.mark.parametrize(("off", "same"), [(1e-9, True), (1e-4, False)])
def test_what_is_wanted_is_compared_by_a_hair(off, same):
    one, other = (
        Asked(cuts=(Region(rectangle(x, 0.0, 5.0, 3.0)), Region(rectangle(x, 4.0, 5.0, 3.0))))
        for x in (10.0, 10.0 + off)
    )
    assert _same(one, other) is same
    assert not _same(one, Asked(cuts=one.cuts[:1]))
