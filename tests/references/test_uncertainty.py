"""Uncertainty of a mean: the Guide to the Expression of Uncertainty in Measurement, JCGM 100:2008."""

import math
import random
import statistics

import pytest
import scipy.stats
from hypothesis import given
from hypothesis import strategies as st
from lean_notch.basis.kerf import Uncertain, coverage, kerf_of_plug, kerf_of_slats, mean_of
from lean_notch.ground.errors import NotchError

GUM_TABLE_1 = (
    96.90, 98.18, 98.25, 98.61, 99.03, 99.49, 99.56, 99.74, 99.89, 100.07,
    100.33, 100.42, 100.68, 100.95, 101.11, 101.20, 101.57, 101.84, 102.36, 102.72,
)  # fmt: skip
"""JCGM 100:2008, 4.4.3, twenty readings (from memory; their mean and spread below are the published ones)."""


def test_the_guides_worked_example():
    """4.4.3: mean 100.145, s = 1.489, standard uncertainty of the mean 0.333."""
    assert statistics.stdev(GUM_TABLE_1) == pytest.approx(1.489, abs=5e-4)
    mean = mean_of(GUM_TABLE_1, "it")
    assert mean.value == pytest.approx(100.145, abs=5e-4)
    assert mean.standard == pytest.approx(0.333, abs=5e-4)
    assert mean.freedom == pytest.approx(19, rel=1e-3)


def test_an_even_spread_of_one_digit():
    """4.3.7 and F.2.2.1: a display that resolves 0.01 has a standard uncertainty of 0.29 x 0.01."""
    assert mean_of([3.06, 3.06, 3.06], "the board").standard == pytest.approx(0.29 * 0.01, abs=3e-5)


def test_one_reading_is_not_surer_than_two_that_differ_as_readings_do():
    """4.3.1: what cannot be told from repeated readings is judged from experience."""
    one = kerf_of_slats(100, 10, [98.6])
    assert one.standard == pytest.approx(0.02 / 10, rel=0.02)
    assert one.lone
    assert "Measure it at least twice" in one.notes[0]
    assert kerf_of_slats(100, 10, [98.6, 98.61]).notes == ()
    assert kerf_of_plug([20.14], [19.86, 19.87]).notes
    assert kerf_of_plug([20.14], [19.86]).standard == pytest.approx(0.02 / math.sqrt(2), rel=0.02)


@pytest.mark.parametrize(
    ("freedom", "t"),
    [(1, 12.71), (2, 4.30), (4, 2.78), (9, 2.26), (20, 2.09), (50, 2.01), (100, 1.984), (math.inf, 1.96)],
)
def test_few_readings_are_trusted_less(freedom, t):
    """Table G.2, 95 %."""
    assert coverage(freedom) == pytest.approx(t, abs=0.011)


@given(st.floats(1, 500))
def test_the_coverage_is_students(freedom):
    """Against scipy's t distribution: between the table's rows at most a tenth off, and never too narrow by more than a
    hundredth where a caliper's own part is added to few readings."""
    exact = scipy.stats.t.ppf(0.975, freedom)
    assert coverage(freedom) >= exact * 0.99
    assert coverage(freedom) <= scipy.stats.t.ppf(0.975, math.floor(freedom)) * 1.01


@given(st.lists(st.integers(300, 320).map(lambda n: n / 100), min_size=2, max_size=30))
def test_the_spread_of_a_mean_is_scipys(readings):
    """4.2.3: the standard error of the mean; the caliper's last digit comes on top of it."""
    mean = mean_of(readings, "it")
    assert mean.value == pytest.approx(statistics.fmean(readings))
    assert mean.standard == pytest.approx(math.hypot(scipy.stats.sem(readings), 0.01 / math.sqrt(12)))


def test_ten_slats_share_what_is_missing():
    """Arithmetic: 100 drawn, 98.6 left of ten pieces, so 0.14 a cut; the uncertainty is shared like it."""
    kerf = kerf_of_slats(100, 10, [98.59, 98.60, 98.61])
    assert kerf.value == pytest.approx(0.14)
    assert kerf.standard == pytest.approx(mean_of([98.59, 98.60, 98.61], "x").standard / 10)


def test_a_kerf_of_0126_is_found_by_either_way():
    """Common practice: 0.126 mm was measured on one machine; by slats or by plug and hole it is the same."""
    assert kerf_of_slats(120, 12, [120 - 12 * 0.126] * 3).value == pytest.approx(0.126)
    assert kerf_of_plug([20.126] * 2, [19.874] * 2).value == pytest.approx(0.126)


def practised(seed: int, true: float) -> Uncertain:
    """Five caliper readings of a row of twelve slats by somebody who pushes it together a little differently each time."""
    rng = random.Random(seed)
    row = 120 - 12 * true
    return kerf_of_slats(120, 12, [round(rng.gauss(row, 0.02), 2) for _ in range(5)])


def test_the_stated_uncertainty_covers_the_truth_as_often_as_stated():
    """A thousand seeded tries: the kerf within 0.01 mm nearly always, and within its 95 % in 93 to 98 of 100."""
    rng = random.Random(7)
    tries = [(true, practised(seed, true)) for seed in range(1000) for true in [rng.uniform(0.08, 0.25)]]
    assert sum(abs(kerf.value - true) <= 0.01 for true, kerf in tries) >= 950
    covered = sum(abs(kerf.value - true) <= kerf.expanded for true, kerf in tries)
    assert 930 <= covered <= 985


@given(st.lists(st.integers(300, 320).map(lambda n: n / 100), min_size=2, max_size=20))
def test_more_readings_of_the_same_kind_leave_less_open(readings):
    once, twice = mean_of(readings, "x"), mean_of(readings * 4, "x")
    assert twice.value == pytest.approx(once.value)
    assert twice.standard <= once.standard + 1e-12
    assert twice.expanded <= once.expanded + 1e-12


@pytest.mark.parametrize(
    ("ask", "field", "words"),
    [
        (lambda: kerf_of_slats(100, 10, []), "readings", "five"),
        (lambda: kerf_of_slats(100, 10, [101.0, 101.0]), "slats", "longer"),
        (lambda: kerf_of_slats(100, 10, [30.0, 30.0]), "slats", "more than half"),
        (lambda: kerf_of_slats(100, 10, [9.86]), "readings[0]", "98.6 mm"),
        (lambda: kerf_of_slats(100, 10, [98.6, 9.86]), "readings[1]", "98.6 mm"),
        (lambda: kerf_of_plug([20.1, 20.2], [1.99, 19.9]), "plug[0]", "19.9 mm"),
        (lambda: kerf_of_slats(100, 10, [98.6, 986.0, 98.61]), "readings[1]", "98.6 mm"),
        (lambda: kerf_of_slats(100, 10, [98.6, 9.86, 98.61]), "readings[1]", "98.6 mm"),
        (
            lambda: kerf_of_slats(100, 10, [98.6, 3.88, 98.61]),
            "readings[1]",
            "98.552 mm? The decimal point may have slipped, or the unit",
        ),
        (lambda: kerf_of_slats(100, 10, [98.6, 7.0, 98.61]), "readings[1]", "again"),
        (lambda: kerf_of_slats(100, 1, [99.0]), "pieces", "2 to 200"),
        (lambda: kerf_of_slats(-1, 10, [98.6]), "length", ""),
        (lambda: kerf_of_slats(100, 10, [98.6, -98.6]), "readings[1]", ""),
        (lambda: kerf_of_plug([19.8], [20.1]), "plug", "larger"),
        (lambda: kerf_of_plug([20.1], []), "plug", "five"),
    ],
)
def test_slips_are_named_at_their_place_with_a_mend(ask, field, words):
    with pytest.raises(NotchError) as caught:
        ask()
    assert caught.value.field == field
    assert words in f"{caught.value.why} {caught.value.fix}"
