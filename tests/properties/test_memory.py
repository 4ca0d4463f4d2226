"""What is gone on with after an edit is what a computation from nothing gives, with every memory off: on jobs of every recipe."""

from __future__ import annotations

import random
import sys

import pytest
from conftest import make_basis
from forgetting import nothing_remembered
from lean_notch.edits import Edit, edit_job
from lean_notch.ground.remembered import MEMORIES
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute
from lean_notch.recipes import RECIPES
from random_edits import job_of, random_edit, read_again, told, tried

EDITS = 14
ONCE = {"_register", "release", "_usual"}
"""Done once by a process, and of no job."""


@pytest.mark.parametrize(
    "recipe",
    [
        one if one in ("open-tray", "divided-case", "panel") else pytest.param(one, marks=pytest.mark.rare)
        for one in RECIPES
    ],
)
def test_after_any_edits_what_is_gone_on_with_is_what_is_made_anew(recipe):
    rng = random.Random(f"memory {recipe}")
    job = job_of(recipe)
    for number in range(EDITS):
        job = tried(job, random_edit(job, rng)) or job
        proved = number == EDITS - 1
        gone_on = told(job, proved=proved)
        with nothing_remembered():
            assert told(read_again(job), proved=proved) == gone_on, number


def test_everything_that_is_remembered_is_found_by_the_test():
    """Looking away from a memory would let its key be wrong. Of functions that keep answers by themselves, none is left out."""
    known = {one.name for one in MEMORIES}
    for name, module in list(sys.modules.items()):
        if name.split(".")[0] in ("lean_notch", "designs", "workshop"):
            kept = {value.__qualname__ for value in vars(module).values() if hasattr(value, "cache_info")}
            assert kept - ONCE <= known, name
    assert len(MEMORIES) >= 70


def test_a_part_that_moves_to_another_board_of_the_same_measurements_takes_that_boards_clearance():
    """The wrong state: the joint kept 0.3 of clearance from the board that its part was of, and the proof agreed."""
    one = make_basis(sheet=(1200, 1200)).of("main")
    job = job_of("framed-stand")
    part = next(p for p in job.design.parts if p.board != "main")
    other = edit_job(job, [Edit("put", f"basis/{part.board}/into/main", "0.3")])
    wide = compute(other).build
    assert {round(c.clearance, 3) for m in wide.mates for c in m.contacts if c.inner_part == part.id} == {0.3}
    moved = edit_job(
        other, [Edit("put", f"parts/{p.id}/board", "main") for p in job.design.parts if p.board == part.board]
    )
    built = compute(moved)
    assert {round(c.clearance, 3) for m in built.build.mates for c in m.contacts if c.inner_part == part.id} == {
        one.clearance
    }
    assert prove_job(built).verdict == "fits"


def test_a_board_that_is_renamed_or_removed_is_so_inside_the_others_too():
    job = edit_job(
        job_of("open-tray"), [Edit("put", "boards/lid", {"title": "Lid"}), Edit("put", "basis/main/into/lid", "0.1")]
    )
    renamed = edit_job(job, [Edit("rename", "boards/lid", to="cover")])
    assert renamed.basis.of("main").into == (("cover", 0.1),)
    assert edit_job(renamed, [Edit("drop", "boards/cover")]).basis.of("main").into == ()
