"""Sentences in another unit: on paper as on the page, which is held to the same file (web/src/units.test.ts)."""

import json
from fractions import Fraction
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st
from lean_notch.lengths.in_another_unit import SAME_INCHES, Reader, inches
from lean_notch.lengths.length import length_mm
from lean_notch.lengths.units import MM_PER_INCH

CASES = json.loads((Path(__file__).resolve().parents[1] / "files" / "sentences.json").read_text())["sentences"]


@pytest.mark.parametrize("case", CASES, ids=lambda case: case["said"][:40])
def test_a_sentence_is_said_as_its_reader_writes(case):
    assert Reader(case["unit"], case["finest"], case["mark"]).says(case["text"]) == case["said"]


@given(st.integers(0, 64 * 400))
def test_a_fraction_says_just_the_inches_that_it_is_of(parts):
    """By Python's own fractions."""
    text = inches(parts / 64 * MM_PER_INCH, 64)
    assert sum(Fraction(piece) for piece in text.split()) == Fraction(parts, 64)


@given(st.floats(0.001, 10_000), st.sampled_from([0, 8, 16, 32, 64]))
def test_what_is_said_can_be_typed_and_is_the_same_length_to_four_decimals(mm, finest):
    typed = length_mm(f"{inches(mm, finest)} in", "mm")
    assert abs(typed - mm) / MM_PER_INCH <= SAME_INCHES * 1.0001
