"""Every letter of every outline font at 5 to 60 mm in four boards, `make soak-letters`. Not part of `make test`, which does 300 words."""

from __future__ import annotations

import pytest
from lean_notch.lettering import FONTS
from letter_checks import BOARDS, HEIGHTS, LETTERS, check_text


@pytest.mark.parametrize("width", BOARDS)
@pytest.mark.parametrize("height", HEIGHTS)
@pytest.mark.parametrize("font", FONTS)
def test_each_letter_is_cut_whole_but_for_its_bridges_or_named(font, height, width):
    for letter in LETTERS:
        if letter == "@" and width > height / 2:
            continue  # what its own curl leaves is narrower than a bridge: that is looked at as a web
        check_text(letter, font, height, width)
