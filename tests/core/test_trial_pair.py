"""A trial pair of a joint: what is cut, and where its answer goes."""

from dataclasses import replace

import pytest
from conftest import edited, make_board
from joined import corner, crossed
from lean_notch.basis import Basis
from lean_notch.edits import Edit
from lean_notch.ground.errors import NotchError
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import Job, compute
from lean_notch.making import build
from lean_notch.recipes import RECIPES
from lean_notch.test_pieces.trial_pair import clearances, fit_field, read_pair, trial_pair


def slots(job):
    part = next(one for one in compute(job).build.parts if one.id == "slots")
    return [mark.regions[0].box[2] - mark.regions[0].box[0] for mark in part.openings]


def two_boards():
    design = RECIPES["framed-stand"].design("stand", {})
    clear = replace(make_board((3.90, 3.92, 3.95), kerf=0.18), clearance=0.06)
    return Job(design, Basis((("main", make_board()), ("inserts", clear))))


@pytest.mark.parametrize(
    ("one", "joint", "across"), [(crossed(), "cross", 3.06), (two_boards(), "insert-1-side-1", 11.77 / 3)]
)
def test_slots_are_as_wide_as_the_board_and_each_clearance(one, joint, across):
    gaps = clearances(one, joint)
    assert slots(trial_pair(one, joint)) == pytest.approx([across + gap for gap in gaps])
    assert prove_job(compute(trial_pair(one, joint))).verdict == "fits"


def test_of_fingers_the_tongues_are_as_wide_as_a_finger():
    one = corner()
    wide = compute(one).build.mates[0].contacts[0].width
    pair = trial_pair(one, "meet", pairs=4, step=0.05)
    assert slots(pair) == pytest.approx([wide + 0.02 + (i - 1.5) * 0.05 for i in range(4)])
    assert compute(pair).build.part("tongue").region.box[2] == pytest.approx(wide)


def test_its_answer_sets_the_fit_of_just_that_pair_of_boards():
    """By hand: a slot in poplar for acrylic of 3.9233 with 0.09 is 4.0133 wide, and its cut path 0.14 less."""
    job = two_boards()
    mates = {mate.id: mate for mate in compute(job).build.mates}
    path = fit_field(mates["insert-1-side-1"], compute(job).build)
    assert path == "basis/inserts/into/main"
    assert fit_field(mates["base-side-1"], compute(job).build) == "basis/main/clearance"
    after = edited(job, Edit("put", path, 0.09))
    assert after.basis.between("inserts", "main") == 0.09
    assert after.basis.of("inserts").clearance == 0.06
    hole = min(compute(after).build.part("side").region.holes, key=lambda one: abs(one.box[2] - one.box[0] - 4.0133))
    assert hole.box[2] - hole.box[0] == pytest.approx(11.77 / 3 + 0.09)


@pytest.mark.parametrize(("joint", "pairs", "step", "field"), [
    ("cross", 1, 0.03, "pairs"), ("cross", 200, 0.03, "pairs"), ("cross", 7, 0.0, "step"), ("cross", 7, 9.0, "step"), ("none", 7, 0.03, "joints/none"),
])  # fmt: skip
def test_a_pair_that_would_tell_nothing_is_refused(joint, pairs, step, field):
    with pytest.raises(NotchError) as caught:
        trial_pair(crossed(), joint, pairs, step)
    assert caught.value.field == field


def test_slots_are_read_like_a_comb_and_give_a_clearance_for_each_fit():
    """By hand: slots of -0.06 to 0.15 in steps of 0.03; 2 and 3 hold, 4 and 5 slide: it holds from -0.045 to 0.015."""
    one = crossed()
    feels = ["needs a mallet", "holds", "holds", "slides", "slides", "falls apart"]
    read = read_pair(one, "cross", feels)
    assert read.scale.snug == pytest.approx(-0.015)
    assert read.scale.slide == pytest.approx((0.015 + 0.075) / 2)
    assert read.within == pytest.approx(0.015)
    held = edited(one, Edit("put", "basis/main/clearance", read.scale.snug))
    assert build(held.design, held.basis).mates[0].contacts[0].clearance == pytest.approx(-0.015)


@pytest.mark.parametrize(("feels", "field", "why"), [
    (["holds", "slides"], "answers", "2 slots are answered"),
    (["holds", "slides", "holds"], "answers[2]", "Slot 3 (0 mm) holds, although slot 2"),
    (["slides"] * 3, "first", "No slot holds"),
    (["holds"] * 9, "answers", "9 answers are given for 8 slots"),
    (["firm", "holds", "slides"], "answers[0]", ""),
])  # fmt: skip
def test_answers_that_tell_nothing_are_refused(feels, field, why):
    with pytest.raises(NotchError) as caught:
        read_pair(crossed(), "cross", feels)
    assert caught.value.field == field
    assert why in caught.value.why
