"""Finger joints: one division, two members."""

import pytest
from lean_notch.ground.errors import ClearanceTooLarge, FingerTooNarrow, FingerTooWide
from lean_notch.joints.finger_division import divide_edge, finger_edges


def test_three_fingers_fit_exactly():
    assert finger_edges(30, 10) == (0, 10, 20, 30)


def test_less_than_three_fingers_are_refused_with_both_ways_out():
    with pytest.raises(FingerTooWide) as caught:
        finger_edges(29.9, 10)
    assert caught.value.fix == "Use fingers of at most 9.967 mm, or an edge of at least 30 mm."


@pytest.mark.parametrize(("length", "finger", "count"), [(100, 10, 9), (100, 9, 11), (100, 33, 3), (100, 1, 99)])
def test_the_count_is_the_nearest_odd_one(length, finger, count):
    assert len(finger_edges(length, finger)) - 1 == count


def test_fingers_are_three_thicknesses_wide_unless_given():
    assert divide_edge(90, 3, 0).finger == pytest.approx(9, abs=1)
    assert divide_edge(90, 3, 0, wanted=6).finger == pytest.approx(6, abs=0.5)


def test_a_short_edge_takes_three_fingers_as_long_as_they_hold():
    assert divide_edge(9, 3, 0).count == 3
    with pytest.raises(FingerTooWide):
        divide_edge(8.9, 3, 0)


def test_a_finger_narrower_than_the_board_is_refused():
    """Common practice: it splits along the grain."""
    with pytest.raises(FingerTooNarrow) as caught:
        divide_edge(90, 3, 0.02, wanted=2)
    assert caught.value.fix == "Use fingers of at least 3.02 mm."


def test_rounding_up_the_count_never_makes_fingers_too_narrow():
    for tenths in range(90, 400):
        assert divide_edge(tenths / 10, 3, 0, wanted=3).finger >= 3


def test_a_clearance_that_eats_the_fingers_is_refused():
    with pytest.raises(ClearanceTooLarge) as caught:
        divide_edge(30, 3, 5, wanted=10)
    assert caught.value.field == "clearance"
    divide_edge(30, 3, 4.99, wanted=10)


def test_clearance_is_split_evenly():
    division = divide_edge(30, 3, 0.2, wanted=10)
    assert [edge for finger in division.first_keeps for edge in finger] == pytest.approx([0, 9.95, 20.05, 30])
    assert division.second_keeps[0] == pytest.approx((10.05, 19.95))
    (socket,) = division.first_gives
    assert socket == pytest.approx((9.95, 20.05))
