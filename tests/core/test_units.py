"""What people type as a length."""

import json
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st
from lean_notch.ground.errors import NotALength, NotchError, OutOfRange
from lean_notch.lengths.length import Length, length_mm, split_lengths
from lean_notch.lengths.said import say_mm

LISTS = Path(__file__).resolve().parents[1] / "files" / "pasted-lists.json"
TYPED = LISTS.with_name("typed-units.json")


@pytest.mark.parametrize(
    ("typed", "mm"),
    [
        ("3.06", 3.06),
        (" 3,06 mm ", 3.06),
        ("0,145", 0.145),
        ("1234,567", 1234.567),
        ("1 1/2 in", 38.1),
        ("6 1/2", 6.5),
        ("2 + 1/2", 2.5),
        ("2 cm", 20),
        ("(1 + 2) * 3", 9),
        ("-4 mm + 10 mm", 6),
        ("10 mm - 2", 8),
        ("2 × 3 mm", 6),
        ("12 ÷ 4", 3),
        ("width/3 + 2 mm", 52),
        ("(width - 2*thickness)/4", 35.97),
        ("width - 1/4 in", 143.65),
        ("3e1", 30),
    ],
)
def test_lengths_are_understood(typed, mm):
    assert length_mm(typed, names={"width": 150, "thickness": 3.06}) == pytest.approx(mm, abs=1e-9)


def test_bare_numbers_count_in_the_fields_unit():
    assert length_mm("0.5", unit="in") == pytest.approx(12.7)
    assert length_mm("width + 1", unit="in", names={"width": 10}) == pytest.approx(35.4)
    assert length_mm("width / 2", unit="in", names={"width": 10}) == pytest.approx(5)
    assert Length("1/8", "in").mm() == pytest.approx(3.175)


@pytest.mark.parametrize(
    "typed",
    ["", "  ", "abc", "3..4", "3 4", "2 mm * 3 mm", "1 / (2 mm)", "5 / 0", "1/0 in", "(3", "3)", "3 mm mm", "--", "width",
     "1,000", "3 furlong", "=3", "__import__", "9" * 300, "(" * 99 + "1" + ")" * 99],
)  # fmt: skip
def test_what_is_no_length_is_refused_with_a_fix(typed):
    with pytest.raises(NotALength) as caught:
        length_mm(typed)
    assert caught.value.fix


@pytest.mark.parametrize("typed", ["1e9", "1e308*1e308", "-1e9", "200 m"])
def test_absurd_lengths_are_out_of_range(typed):
    with pytest.raises(OutOfRange, match="is too long"):
        length_mm(typed)


def test_an_unknown_name_is_answered_with_the_known_ones():
    with pytest.raises(NotALength) as caught:
        length_mm("widht/2", names={"width": 1.0, "depth": 2.0})
    assert caught.value.fix == "Use a number or one of these names: depth, width."


@given(st.text(max_size=60))
def test_any_text_is_a_length_or_a_clear_refusal(text):
    try:
        mm = length_mm(text)
    except NotchError as error:
        mm = 0.0
        said = error.as_json()
    else:
        said = {"why": "-", "fix": "-"}
    assert abs(mm) <= 1e5
    assert said["why"]
    assert said["fix"]


@given(st.floats(0.001, 9e4))
def test_what_is_said_can_be_typed_again(mm):
    assert length_mm(say_mm(mm, 6)) == pytest.approx(mm, abs=1e-6)


@pytest.mark.parametrize("case", json.loads(LISTS.read_text())["lists"], ids=lambda case: repr(case["pasted"]))
def test_lists_are_read_as_people_paste_them(case):
    assert split_lengths(case["pasted"]) == case["lengths"]


def test_what_was_typed_in_one_unit_is_as_long_where_the_page_shows_another():
    """500 seeded texts and some by hand. The page names the unit (the same file is tested there); the core reads both as one length."""
    names = {"width": 130.0, "depth": 80.0, "wall": 3.06, "clearance": 0.02}
    cases = json.loads(TYPED.read_text())
    assert len(cases) > 500
    for case in cases:
        other = "mm" if case["unit"] == "in" else "in"
        was = length_mm(case["typed"], case["unit"], names)
        assert length_mm(case["text"], other, names) == pytest.approx(was, abs=1e-9), case["typed"]


@given(
    st.lists(st.integers(1, 30000).map(lambda n: f"{n / 1000:g}"), min_size=1),
    st.sampled_from(["\n", " ", "; ", "\t", ";"]),
)
def test_a_list_comes_apart_as_it_was_put_together(values, between):
    assert split_lengths(between.join(values)) == values
