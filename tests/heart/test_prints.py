"""What files are made of a job's, byte for byte: nothing changes that is not meant to."""

from __future__ import annotations

import pytest
from lean_notch.design import design_from_json, design_to_json
from lean_notch.recipes import RECIPES
from prints import kept, kept_designs, prints_of, recipe_jobs

PRINTS = kept()
JOBS = dict(recipe_jobs())
DESIGNS = list(kept_designs())


@pytest.mark.parametrize("name", JOBS)
def test_every_file_of_a_recipes_job_is_as_it_was(name):
    assert prints_of(JOBS[name]) == PRINTS[name]


@pytest.mark.parametrize(("name", "kept"), DESIGNS)
def test_a_recipe_gives_the_same_design_for_ever(name, kept):
    made = RECIPES[name].design(RECIPES[name].title, kept["answers"])
    assert design_to_json(made) == kept["design"]
    assert design_from_json(kept["design"]) == made


def test_every_recipe_has_designs_and_prints_that_are_kept():
    assert {name for name, _ in DESIGNS} == set(RECIPES)
    assert {name.partition(",")[0] for name in JOBS} == set(RECIPES)
