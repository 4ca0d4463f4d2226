"""What an edit would break: joints that are lost, and what was drawn by hand to fit."""

import pytest
from conftest import edited
from joined import UPRIGHT, halved, job, made, on_wall, panel
from lean_notch.edits import Edit
from lean_notch.job import compute
from lean_notch.told.what_breaks import broken

T = 3.06


def after(before, *edits):
    return broken(compute(before), compute(edited(before, *(Edit("put", path, value) for path, value in edits))))


def test_what_a_number_breaks_is_told_before_it_is_kept():
    """A wall that becomes 100 wide no longer holds the second tab of a shelf 120 long."""
    [lost] = after(on_wall({"kind": "tab-and-slot"}), ("parts/wall/steps/blank/shape/width", "100"))
    assert (lost.joint, lost.severity) == ("hold", "stop")
    assert "leaves the face of Wall by" in lost.why
    rack = made("rack").job
    assert after(rack, ("name", "Another")) == ()


def by_hand():
    """A side 100 wide with two holes 5 from its edges, for the tabs of a shelf that is 90 over them; nobody made a joint."""

    def rectangle(name, does, x, y, width, height):
        shape = {"kind": "rectangle", "width": width, "height": height}
        return {
            "kind": "shape",
            "id": name,
            "does": does,
            "x": x,
            "y": y,
            "shape": shape,
            "title": name.replace("-", " "),
        }

    holes = [
        rectangle(name, "cut", x, 36.92, 10.05, 3.1) for name, x in (("left-hole", "5"), ("right-hole", "100 - 15.05"))
    ]
    tabs = [rectangle("first", "add", 0, -T, 10, T), rectangle("last", "add", "wide - 10", -T, 10, T)]
    return job(
        [panel("side", 100, 90, *holes), panel("shelf", "wide", 50, *tabs)],
        {"side": UPRIGHT, "shelf": {"kind": "numbers", "x": "50 + wide / 2", "y": 0, "z": 40, "turn_z": 180}}, [],
        dimensions=[{"name": "wide", "title": "Wide", "length": "90"}],
    )  # fmt: skip


def test_holes_drawn_by_hand_are_told_to_follow_by_how_much():
    """Common practice: the margin at either side is (outer - span) / 2; the shelf becomes 86 over its tabs: (100 - 86) / 2 = 7."""
    found = after(by_hand(), ("dimensions/wide/length", "86"))
    assert [one.severity for one in found] == ["stop", "stop"]
    left, right = sorted(found, key=lambda one: one.field)
    assert left.why == "Shelf went through “left hole” of Side and is 2 mm to the right now."
    assert left.fix == "Move the hole by 2 mm to the right, to 7 mm."
    assert right.fix == "Move the hole by 2 mm to the left, to 100 - 15.05 - 2 mm."
    mended = [
        ("dimensions/wide/length", "86"),
        ("parts/side/steps/left-hole/x", "7"),
        ("parts/side/steps/right-hole/x", "100 - 17.05"),
    ]
    assert after(by_hand(), *mended) == ()


def test_a_hole_that_is_too_short_now_is_told_by_how_much():
    [found] = after(by_hand(), ("parts/shelf/steps/first/shape/width", "12"))
    assert found.why == "Shelf went through “right hole” of Side and is 1 mm to the left and 2 mm longer now."
    assert found.fix.endswith("and make it 2 mm longer.")


def test_what_stands_in_the_way_now_is_told_once_and_not_where_a_joint_says_it():
    """A shelf pushed 1 mm into its side; one that was in the way already; halves keep to their joint."""
    [deep] = after(by_hand(), ("placements/shelf/pose/y", "1"))
    assert "stand in each other by" in deep.why
    assert deep.amount == pytest.approx(1, abs=0.05)
    there = edited(by_hand(), Edit("put", "placements/shelf/pose/y", "1"))
    assert after(there, ("placements/shelf/pose/x", "95.01")) == ()
    lower = after(by_hand(), ("placements/shelf/pose/z", "30"))
    assert {one.fix for one in lower} == {"Move the hole by 10 mm down, to 26.92 mm."}
    assert after(halved(), ("joints/lap/how/share", "0.6")) == ()
    assert after(by_hand(), ("parts/side/steps/blank/shape/height", "80"), ("name", "Other")) == ()


def test_a_hole_that_is_moved_or_made_narrower_itself_is_told_too():
    [moved] = after(by_hand(), ("parts/side/steps/left-hole/x", "6"))
    assert moved.fix == "Move the hole by 1 mm to the left, to 5 mm."
    [narrow] = after(by_hand(), ("parts/side/steps/left-hole/shape/width", "8"))
    assert "stand in each other by" in narrow.why


def test_a_part_with_a_pocket_is_followed_as_well():
    """What is sunk into the side makes two blocks of it; the holes go through both."""
    pocket = {
        "kind": "shape",
        "id": "sunk",
        "does": "mark",
        "operation": "pocket",
        "depth": 1,
        "x": 40,
        "y": 10,
        "shape": {"kind": "disc", "diameter": 9},
    }
    one = edited(by_hand(), Edit("put", "parts/side/steps/sunk", pocket))
    assert {found.fix for found in after(one, ("dimensions/wide/length", "86"))} == {
        "Move the hole by 2 mm to the right, to 7 mm.", "Move the hole by 2 mm to the left, to 100 - 15.05 - 2 mm.",
    }  # fmt: skip
