"""What files are made of a job's, byte for byte: nothing changes that is not meant to."""

from __future__ import annotations

import pytest
from prints import kept, prints_of, recipe_jobs

PRINTS = kept()
JOBS = dict(recipe_jobs())


@pytest.mark.parametrize("name", JOBS)
def test_every_file_of_a_recipes_job_is_as_it_was(name):
    assert prints_of(JOBS[name]) == PRINTS[name]
