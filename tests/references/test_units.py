"""Units against published standards."""

import pytest
from lean_notch.lengths.length import length_mm
from lean_notch.lengths.units import MM_PER_INCH, MM_PER_PT, MM_PER_PX


def test_an_inch_is_25_4_mm():
    """International yard and pound agreement, 1959: exactly."""
    assert MM_PER_INCH == 25.4
    assert length_mm("1 ft") == pytest.approx(304.8, abs=1e-12)


def test_an_inch_is_96_px_and_72_pt():
    """W3C CSS Values and Units 3, absolute lengths."""
    assert pytest.approx(MM_PER_INCH) == 96 * MM_PER_PX
    assert pytest.approx(MM_PER_INCH) == 72 * MM_PER_PT


def test_a_100_mm_square_read_at_the_wrong_resolution():
    """Common practice: 100 mm is 283.46 at 72 per inch; 100 px at 96 per inch are 26.458 mm."""
    assert pytest.approx(283.46, abs=0.005) == 100 / MM_PER_PT
    assert pytest.approx(26.458, abs=0.0005) == 100 * MM_PER_PX


@pytest.mark.parametrize(
    ("typed", "mm"),
    [
        ("1/8 in", 3.175),  # common practice: an eighth is often sold as 3 mm
        ('0.475"', 12.065),  # common practice: "half-inch" ply
        ("0.001 in", 0.0254),  # common practice: one step of feel
        ("5/32 in", 3.96875),
    ],
)
def test_fractions_and_decimals_of_an_inch(typed, mm):
    assert length_mm(typed) == pytest.approx(mm, abs=1e-12)
