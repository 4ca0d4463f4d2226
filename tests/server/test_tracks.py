"""Columns and rows of a case more or less, asked of the server; nothing is kept."""

import pytest
from client import post

CASE = {"columns": "52 1fr 40", "rows": "1fr 30", "without": "c2r1 r1c3"}


@pytest.mark.parametrize(
    ("act", "side", "entry", "wanted"),
    [
        ("add", "columns", 0, {**CASE, "columns": "52 1fr 40 40"}),
        ("add", "rows", 0, {**CASE, "rows": "1fr 30 30"}),
        ("remove", "columns", 0, {**CASE, "columns": "1fr 40", "without": "c1r1 r1c2"}),
        ("remove", "columns", 2, {**CASE, "columns": "52 1fr", "without": ""}),
        ("remove", "rows", 1, {**CASE, "rows": "1fr", "without": "c2r1"}),
    ],
)
def test_one_more_or_less_and_pieces_that_are_out_stay_the_same(wren, act, side, entry, wanted):
    answer = post(wren, "/designs/draft/tracks", {**CASE, "act": act, "side": side, "entry": entry})
    assert (answer.status_code, answer.json()) == (200, wanted)


@pytest.mark.parametrize(
    ("given", "field"),
    [
        ({"columns": "52", "act": "remove", "side": "columns"}, "columns"),
        ({"act": "remove", "side": "rows", "entry": 7}, "rows"),
        ({"columns": "52 (1fr", "act": "add", "side": "columns"}, "columns"),
        ({"columns": " ".join(["9"] * 60), "act": "add", "side": "columns"}, "columns"),
    ],
)
def test_what_cannot_be_is_refused_at_its_side(wren, given, field):
    answer = post(wren, "/designs/draft/tracks", {**CASE, **given})
    assert (answer.status_code, answer.json()["field"]) == (422, field)
