"""Which wrong states a row of what was tested must not call good: what was not looked at, left out, or skipped."""

from __future__ import annotations

from dataclasses import replace

import pytest
from conftest import drawn, make_job, prove_sheets
from lean_notch.cutting import Profile
from lean_notch.ground.findings import Finding
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute
from lean_notch.proof import MateProof, PartProof
from lean_notch.proof.tested import Counts
from lean_notch.proof.tested import tested as told

GOOD = PartProof("front", 1, 1, 0.0, 0.0, 0.029, True)
MATE = MateProof("front-left", 0.02, (0.02, 0.02), None, True)
COUNTS = Counts(paths=5, sound=5, marks=1, stood=5, placements=5, pairs=8, skipped=0)


def rows(parts=(GOOD,), mates=(MATE,), findings=(), counts=COUNTS):
    return {one.key: one for one in told(parts, mates, findings, counts)}


def unseen(code):
    return Finding(code, "unseen", "Not looked at.", "Look.")


def test_all_is_good_where_all_was_looked_at():
    assert {one.state for one in rows().values()} == {"ok"}


@pytest.mark.parametrize(
    ("code", "not_good"),
    [
        ("sheet-not-given", {"outlines", "marks", "paths"}),
        ("operation-not-given", {"marks"}),
        ("joints-not-measured", {"joints", "clearance"}),
        ("not-looked-at", {"paths"}),
        ("placements-not-measured", {"space"}),
        ("assembly-too-large", {"space"}),
    ],
)
def test_what_was_not_looked_at_is_not_called_good(code, not_good):
    found = rows(findings=(unseen(code),))
    assert {key for key, one in found.items() if one.state != "ok"} == not_good
    assert all(one.state == "look" for key, one in found.items() if key in not_good)


def test_pairs_at_a_wrong_joint_are_not_compared_and_not_said_to_be_clear():
    found = rows(counts=replace(COUNTS, skipped=2))["space"]
    assert found.state == "look"
    assert "none overlap" not in found.found
    assert "2 pairs at joints that are wrong or not measured were not compared" in found.found


def test_corners_of_parts_that_are_missing_are_not_called_empty():
    missing = replace(GOOD, edge=None, corner=None, inside_corner=None, ok=False)
    assert rows(parts=(missing,))["corners"].state == "none"
    assert rows(parts=(missing,))["outlines"].state == "bad"


def test_a_mark_that_the_profile_leaves_out_is_not_where_it_should_be():
    """The wrong file: the job has lettering to engrave, the receiver's profile drops that layer."""
    shape = {"kind": "lettering", "text": "VIALS", "font": "slab", "height": "12"}
    step = {"kind": "shape", "id": "name", "does": "mark", "operation": "engrave", "x": "20", "y": "20", "shape": shape}
    job = drawn(make_job(), step)
    layers = dict(Profile().layers)
    layers["engrave"] = replace(layers["engrave"], include=False)
    proof = prove_job(compute(job, Profile(layers=layers)))
    assert {one.key: one.state for one in proof.tested}["marks"] == "look"


def test_a_mark_over_an_opening_was_looked_at_and_is_neither_good_nor_unseen():
    over = replace(unseen("mark-over-opening"), severity="look")
    assert (rows(findings=(over,))["marks"].state, rows(findings=(over,))["marks"].found) == (
        "look", "where they should be, some to look at",
    )  # fmt: skip
    assert rows(findings=(over, unseen("mark-twice")))["marks"].found == "not all looked at"


def test_a_sheet_without_a_file_is_not_proved_by_the_others():
    result = compute(make_job())
    states = {one.key: one.state for one in prove_sheets(result, {}, "svg").tested}
    assert "ok" not in states.values()
