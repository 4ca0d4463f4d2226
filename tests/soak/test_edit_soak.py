"""Random edits of all verbs in long rows: memory against none, the inverse law, merges, undo and redo. `make soak-edits EDITS=5000`."""

from __future__ import annotations

import os
import random
from contextlib import suppress

import pytest
from forgetting import nothing_remembered
from lean_notch.edits import edit_job, edits_between, independent
from lean_notch.ground.errors import NotchError
from lean_notch.recipes import RECIPES
from random_edits import job_of, random_edit, read_again, told, tried

EDITS = int(os.environ.get("EDITS", "5000"))
EACH = max(EDITS // len(RECIPES), 1)
ROW = 25
"""After so many edits a job is begun anew: later ones mostly stand in a heap."""


@pytest.mark.parametrize("recipe", RECIPES)
def test_edits_in_a_row(recipe):
    rng = random.Random(f"soak {recipe} {os.environ.get('SEED', '')}")
    made = refused = merged = 0
    while made < EACH:
        start = job = job_of(recipe)
        history = [job]
        for _ in range(ROW):
            edit = random_edit(job, rng)
            after = tried(job, edit)
            if after is None:
                refused += 1
                continue
            made += 1
            assert edit_job(after, edits_between(after, job)) == job, edit
            assert edit_job(job, edits_between(job, after)) == after, edit
            other = random_edit(job, rng)
            theirs = tried(job, other)
            if theirs is not None and independent(job, [edit], after, [other], theirs):
                both = edit_job(after, [other])
                assert both == edit_job(theirs, [edit]), (edit, other)
                merged += 1
            job = after
            history.append(job)
            gone_on = told(job, proved=made % 10 == 0)
            if made % 5 == 0:
                with nothing_remembered():
                    assert told(read_again(job), proved=made % 10 == 0) == gone_on, edit
        assert edit_job(job, edits_between(job, start)) == start
        for back in (*reversed(history), *history):  # undone to the first, and done again
            told(back)
        with nothing_remembered():
            assert told(read_again(history[len(history) // 2])) == told(history[len(history) // 2])
    print(f"{recipe}: {made} edits, {refused} refused, {merged} merged")


def test_no_error_of_another_sort_is_raised():
    """Every refusal of an edit is said; nothing else comes out."""
    rng = random.Random("sorts")
    for recipe in RECIPES:
        job = job_of(recipe)
        for _ in range(min(EACH, 200)):
            with suppress(NotchError):
                job = edit_job(job, [random_edit(job, rng)])
