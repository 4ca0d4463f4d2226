"""Facts of the trade: common practice, no source."""

import pytest
from lean_notch.basis import COMMON_FITS
from lean_notch.lengths.length import length_mm
from lean_notch.making import build


def test_outside_is_inside_and_two_walls(tray, basis):
    """Common practice: the walls of a case add to what must fit in."""
    built = build(tray(width="150", depth="100", height="60", sizes="inside").design, basis())
    outside = [built.names[f"outside_{side}"] for side in ("width", "depth", "height")]
    assert outside == pytest.approx([156.12, 106.12, 63.06])


def test_a_snug_slot_for_3_95_acrylic_is_4_05():
    assert COMMON_FITS.word(4.05 - 3.95) == "snug"


def test_a_thousandth_of_an_inch_closes_with_a_mallet():
    assert COMMON_FITS.word(length_mm("0.001 in")) == "snug"


def test_a_wall_of_an_eighth_in_a_case_of_1_3_and_4_inches_gives_8_5():
    """Common practice: three compartments, four walls."""
    names = {"wall": length_mm("1/8 in")}
    assert length_mm("1 in + 3 in + 4 in + 4*wall", names=names) == pytest.approx(length_mm("8.5 in"))
