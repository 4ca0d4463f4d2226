"""A panel with none of what it is asked for."""

import pytest
from lean_notch.ground.errors import NotchError
from lean_notch.recipes import RECIPES


@pytest.mark.parametrize("none", ["rounds", "squares", "marks"])
def test_a_panel_may_have_none_of_what_it_is_asked_for(none):
    """The dead end: a panel with openings and no marks could not be started."""
    [panel] = RECIPES["panel"].design("Panel", {none: "0", "text": ""}).parts
    assert {step.id for step in panel.steps} == {"blank", "round", "square", "marks"} - {
        {"rounds": "round", "squares": "square", "marks": "marks"}[none]
    }
    with pytest.raises(NotchError) as error:
        RECIPES["panel"].design("Panel", {none: "-1"})
    assert error.value.field == none
