"""Random jobs of all recipes: what is written fits, or the design said before that it would not."""

from __future__ import annotations

import pytest
from right_jobs import count


@pytest.mark.parametrize("first", range(0, 60, 10))
def test_right_jobs_are_stopped_for_no_reason_that_they_did_not_know(first):
    ends = count(range(first, first + 10))
    print(dict(ends))
    assert not ends["told nothing to do"]
    assert ends["fits"] >= 3, "most can be cut, or this tests nothing"
