"""Designs whose parts can each stand where they stand, and cannot be put there; and what of that is not looked at."""

from __future__ import annotations

import json

import pytest
from conftest import make_basis
from joined import FLAT, UPRIGHT, job, made, on_wall, panel
from lean_notch.cli.main import main
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute, job_to_json
from lean_notch.proof.put_together import levels, put_together

TABS = {"kind": "tab-and-slot", "count": 1}
RECIPES_JOINED = ["open-tray", "case", "divided-case", "divider-set", "rack", "framed-stand", "crossed-figure"]


def pinwheel(*, last=True):
    """Three plates, each tabbed into the next one's face: the last joint closes the ring."""
    poses = {
        "a": {**FLAT, "z": "thickness"},
        "b": {"kind": "axes", "u": "+y", "v": "+z", "x": "100 + thickness", "y": "-10", "z": "-30"},
        "c": {**UPRIGHT, "x": "20", "y": "60", "z": "thickness"},
    }
    joints = [
        ("a-in-b", "a", "blank.right", "b", "face", TABS),
        ("b-in-c", "b", "blank.right", "c", "face", TABS),
        ("c-in-a", "c", "blank.bottom", "a", "face", TABS),
    ]
    parts = [panel("a", 100, 100), panel("b", 70, 90), panel("c", 110, 57)]
    return job(parts, poses, joints if last else joints[:2])


def codes(result):
    return {(one.code, one.severity) for one in put_together(result.build, result.job.basis)}


def test_three_boards_that_hold_each_other_are_refused():
    result = compute(pinwheel())
    assert len(result.build.mates) == 3
    [found] = put_together(result.build, result.job.basis)
    assert (found.code, found.severity) == ("interlocked", "stop")
    assert "A, B and C hold each other" in found.why
    assert prove_job(result).verdict == "does-not-fit"
    assert [one.code for one in levels(result.build, result.job.basis)[0].findings] == ["interlocked"]


def test_without_one_of_their_joints_they_can_be_put_together():
    result = compute(pinwheel(last=False))
    assert "interlocked" not in {code for code, _ in codes(result)}


@pytest.mark.parametrize("name", RECIPES_JOINED)
def test_every_recipe_can_be_put_together(name):
    assert codes(made(name)) == set()


def dumbbell(hole=40.0):
    """A board with a wide end on either side of a closed window, which its middle passes through."""
    waist = [
        {"kind": "shape", "id": f"waist-{side}", "does": "cut", "x": 60, "y": y, "shape": {"kind": "rectangle", "width": 20, "height": 20}}
        for side, y in (("low", 0), ("high", 40))
    ]  # fmt: skip
    window = {
        "kind": "shape", "id": "window", "does": "cut", "x": 30, "y": 20, "shape": {"kind": "rectangle", "width": 6, "height": 24},
    }  # fmt: skip
    parts = [panel("bar", 140, 60, *waist), panel("wall", 66, 64, window)]
    # The wall stands across the waist, square to the bar: its window takes 20 of the bar's 60.
    poses = {
        "bar": {**UPRIGHT, "x": "0", "y": "0", "z": "0"},
        "wall": {"kind": "axes", "u": "+y", "v": "+z", "x": "70", "y": "-32", "z": "-2"},
    }
    return job(parts, poses, [])


def test_a_dumbbell_through_a_closed_window_is_not_looked_at():
    result = compute(dumbbell())
    assert codes(result) == {("order-not-looked-at", "unseen")}
    proof = prove_job(result)
    assert proof.verdict == "as-far-as-seen"
    assert {one.key: one.state for one in proof.tested}["space"] == "look"


def in_a_pocket(depth="thickness/2"):
    """A board that stands in a pocket which was drawn by hand."""
    pocket = {
        "kind": "shape", "id": "bed", "does": "mark", "operation": "pocket", "depth": depth, "x": 20, "y": 20,
        "shape": {"kind": "rectangle", "width": 61, "height": 3.2},
    }  # fmt: skip
    parts = [panel("floor", 100, 60, pocket), panel("wall", 60, 40)]
    poses = {"floor": {**FLAT, "z": "0"}, "wall": {**UPRIGHT, "x": "20.5", "y": "20.07", "z": f"-({depth})"}}
    return job(parts, poses, [])


def test_a_part_in_a_pocket_drawn_by_hand_is_not_looked_at_anywhere(tmp_path, capsys):
    result = compute(in_a_pocket())
    assert codes(result) == {("depth-not-swept", "unseen")}
    assert prove_job(result).verdict == "as-far-as-seen"
    (tmp_path / "job.json").write_text(json.dumps(job_to_json(result.job)))
    assert main(["assemble", str(tmp_path / "job.json")]) == 4
    assert "how deep that is cut is not swept" in capsys.readouterr().err


def test_a_pocket_that_is_not_deep_enough_stops():
    shallow = in_a_pocket()
    poses = {"floor": {**FLAT, "z": "0"}, "wall": {**UPRIGHT, "x": "20.5", "y": "20.07", "z": "-2.5"}}
    document = job_to_json(shallow)
    document["design"]["placements"] = [{"id": name, "part": name, "pose": pose} for name, pose in poses.items()]
    from lean_notch.job import job_from_json

    assert prove_job(compute(job_from_json(document))).verdict == "does-not-fit"


def test_plates_that_nothing_joins_are_said():
    names = [f"p{i}" for i in range(5)]
    apart = job(
        [panel(name, 60, 40) for name in names],
        {name: {**UPRIGHT, "y": str(200 * i)} for i, name in enumerate(names)},
        [],
    )
    result = compute(apart)
    [found] = put_together(result.build, result.job.basis)
    assert (found.code, found.severity) == ("nothing-joins", "unseen")
    assert "P0, P1, P2 and 2 more stand apart" in found.why
    assert prove_job(result).verdict == "as-far-as-seen"


def test_one_limit_for_what_a_pair_may_share_drawn_or_as_cut():
    """A nib beside the slot, where the wall has no hole: what Join calls in the way Prove does too."""
    for deep, stops in ((0.03, False), (0.08, True)):
        nib = {
            "kind": "shape", "id": "nib", "does": "add", "x": 4, "y": -deep, "shape": {"kind": "rectangle", "width": 5, "height": deep + 1},
        }  # fmt: skip
        one = on_wall(TABS, basis=make_basis(sheet=(900, 900)))
        document = job_to_json(one)
        shelf = next(part for part in document["design"]["parts"] if part["id"] == "shelf")
        shelf["steps"].append(nib)
        from lean_notch.job import job_from_json

        result = compute(job_from_json(document))
        at_join = {x.code for x in levels(result.build, result.job.basis)[0].findings if x.severity == "stop"}
        at_prove = {x.code for x in prove_job(result).findings if x.severity == "stop"}
        assert ("doubled" in at_join, "doubled" in at_prove) == (stops, stops), deep
