"""Readings: what is odd about them, and what was likely meant."""

import statistics

import numpy as np
import pytest
import scipy.stats
from hypothesis import assume, given
from hypothesis import strategies as st
from lean_notch.basis import Readings, stock_from_json
from lean_notch.basis.readings import CALIPER_MM, ODD_SCORE, check_slips, mend_of
from lean_notch.ground.errors import ReadingsDisagree

BOARD = {"name": "Ply", "sheet_width": 600, "sheet_height": 400}
caliper = st.lists(st.integers(280, 330).map(lambda n: n / 100), min_size=4, max_size=30)


@given(caliper)
def test_outliers_are_those_of_the_modified_z_score(values):
    """Against scipy's median absolute deviation; Iglewicz and Hoaglin's 0.6745 and 3.5 (1993, from memory)."""
    spread = max(scipy.stats.median_abs_deviation(values), CALIPER_MM)
    scores = 0.6745 * np.abs(np.array(values) - np.median(values)) / spread
    assume(not np.any(np.abs(scores - ODD_SCORE) < 1e-9))  # a score just at the limit may fall either way by rounding
    assert Readings(tuple(values)).outliers == tuple(np.flatnonzero(scores > ODD_SCORE))


@pytest.mark.filterwarnings("ignore:Precision loss")  # scipy's own, for readings that are all alike
@given(caliper)
def test_the_deviation_is_that_of_a_sample(values):
    readings = Readings(tuple(values))
    assert readings.deviation == pytest.approx(scipy.stats.tstd(values), abs=1e-9)
    assert readings.mean == pytest.approx(scipy.stats.tmean(values))
    assert readings.spread == pytest.approx(np.ptp(values))


def test_one_reading_has_no_deviation_and_three_no_outlier():
    assert Readings((3.0,)).deviation is None
    assert Readings((3.0, 3.0, 3.3)).outliers == ()


def test_readings_that_agree_to_the_last_digit_make_no_outlier_of_the_next_digit():
    assert Readings((3.05, 3.05, 3.05, 3.05, 3.06)).outliers == ()
    assert Readings((3.05, 3.05, 3.05, 3.05, 3.15)).outliers == (4,)


@pytest.mark.parametrize(
    ("values", "words"),
    [
        ((3.05, 3.06, 3.06, 3.05, 3.07), []),
        ((3.05,), ["Only 1 reading:"]),
        ((3.05, 3.06), ["Only 2 readings:"]),
        ((3.05, 3.06, 3.06, 3.05, 3.31), ["Reading 5 (3.31 mm)", "uneven"]),
        ((2.9, 3.0, 3.1, 3.15), ["uneven: 0.25 mm"]),
    ],
)
def test_warnings_say_what_to_look_at(values, words):
    warnings = Readings(values).warnings
    assert len(warnings) == len(words)
    assert all(word in warning for word, warning in zip(words, warnings, strict=True))


@pytest.mark.parametrize(
    ("values", "index", "mend"),
    [
        ((3.05, 3.06, 30.7), 2, "3.07 mm"),  # the decimal point slipped one way
        ((3.05, 0.306, 3.07), 1, "3.06 mm"),  # and the other
        ((3.05, 0.12, 3.07), 1, "3.048 mm"),  # inches among millimetres
        ((0.475, 12.1, 0.476), 1, "0.476 mm"),  # millimetres among inches, typed without a unit
        ((3.05, 3.06, 4.6), 2, ""),  # nothing makes that like the others
    ],
)
def test_a_slip_is_named_with_what_was_likely_meant(values, index, mend):
    with pytest.raises(ReadingsDisagree) as caught:
        Readings(values)
    error = caught.value
    assert (error.field, error.mend) == (f"readings[{index}]", mend)
    assert mend in error.fix
    assert error.as_json()["mend"] == mend


@given(st.lists(st.floats(2.9, 3.1), min_size=3, max_size=9), st.data(), st.sampled_from([10, 0.1, 25.4, 1 / 25.4]))
def test_any_slip_of_ten_or_of_the_unit_is_mended_back(values, data, slip):
    index = data.draw(st.integers(0, len(values) - 1))
    slipped = [value * slip if i == index else value for i, value in enumerate(values)]
    with pytest.raises(ReadingsDisagree) as caught:
        check_slips(slipped, "the board", "readings", 3.0)
    assert caught.value.field == f"readings[{index}]"
    assert float(caught.value.mend.split()[0]) == pytest.approx(values[index], abs=6e-4)


def test_a_mend_that_is_taken_is_good():
    values = [3.05, 3.06, 30.7]
    values[2] = float(mend_of(values[2], 3.05).split()[0])
    assert Readings(tuple(values)).mean == pytest.approx(statistics.fmean([3.05, 3.06, 3.07]))


@pytest.mark.parametrize(
    ("nominal", "readings", "index", "mend"),
    [
        (3, [30.6], 0, "3.06 mm"), (3, [0.1205], 0, "3.061 mm"), (3, [3.05, 0.305], 1, "3.05 mm"), (3, [0.305, 3.05], 0, "3.05 mm"),
        ("1/8 in", [3.1, 3.2, "0.12 mm"], 2, "3.048 mm"), (3, [40.0], 0, ""),
    ],
)  # fmt: skip
def test_what_the_board_is_sold_as_tells_which_reading_slipped(nominal, readings, index, mend):
    with pytest.raises(ReadingsDisagree) as caught:
        stock_from_json(BOARD | {"nominal": nominal, "readings": readings})
    assert (caught.value.field, caught.value.mend) == (f"readings[{index}]", mend)


def test_a_label_that_lies_is_no_slip():
    """Common practice: "6 mm" ply of 5.6, half an inch of 0.475 in, "4 mm" acrylic of 3.90."""
    for nominal, reading in ((6, 5.6), ("1/2 in", "0.475 in"), (4, 3.9), (3, 3.2), (0.3, 0.42)):
        stock_from_json(BOARD | {"nominal": nominal, "readings": [reading]})
