"""A line of text set out: in, the text, its font and its height in mm; out, outlines or strokes from the origin."""

from __future__ import annotations

import unicodedata
from dataclasses import dataclass
from typing import Literal

from ..geometry import Motion, Region
from ..ground.errors import MissingCharacter, OutOfRange
from ..ground.remembered import by_value
from ..lengths.said import say_mm
from .fonts import FONTS, glyph
from .single_stroke import Stroke, strokes

SINGLE_STROKE = "single stroke"
"""The name by which lettering of single lines is chosen among the fonts."""

Align = Literal["left", "middle", "right"]
LONGEST_TEXT = 200
SMALLEST_MM, LARGEST_MM = 0.5, 2000.0


@dataclass(frozen=True)
class Letter:
    """One character where it stands."""

    character: str
    regions: tuple[Region, ...]


@dataclass(frozen=True)
class Lettered:
    """`letters` of outline fonts or `strokes` of single lines; `width` is the sum of the advances, in mm."""

    letters: tuple[Letter, ...]
    strokes: tuple[Stroke, ...]
    width: float

    @property
    def regions(self) -> tuple[Region, ...]:
        return tuple(region for letter in self.letters for region in letter.regions)


@by_value(256)
def lettered(text: str, font: str, height: float, align: Align = "left") -> Lettered:
    """`text`, its accents joined to their letters (Unicode NFC), on the base line y = 0, capitals `height` mm high, set from, about or up to x = 0.

    Raises MissingCharacter for characters that the font lacks, and OutOfRange for a text or height out of bounds.
    """
    text = unicodedata.normalize("NFC", text)
    if not text.strip():
        raise OutOfRange("The text is empty.", fix="Type at least one character.", field="text")
    if len(text) > LONGEST_TEXT:
        raise OutOfRange(f"The text has {len(text)} characters.", fix=f"Use at most {LONGEST_TEXT}.", field="text")
    if not SMALLEST_MM <= height <= LARGEST_MM:
        raise OutOfRange(
            f"The letters are {say_mm(height)} high.",
            fix=f"Give {say_mm(SMALLEST_MM)} to {say_mm(LARGEST_MM)}.",
            field="height",
        )
    single = font == SINGLE_STROKE
    missing = [c for c in dict.fromkeys(text) if (strokes(c) if single else glyph(font, c, height)) is None]
    if missing:
        title = "The single-stroke lettering" if single else f"The font {FONTS[font].title}"
        raise MissingCharacter(
            f"{title} lacks {' '.join(missing)}.",
            fix="Choose another font, or write it in other letters."
            if single
            else "Choose other characters or another font.",
            field="text",
        )
    pen = 0.0
    lines: list[Stroke] = []
    letters: list[tuple[str, Motion, tuple[Region, ...]]] = []
    for character in text:
        if single:
            drawn, advance = strokes(character) or ((), 0.0)
            advance *= height
            lines += [tuple((x * height + pen, y * height) for x, y in line) for line in drawn]
        else:
            one = glyph(font, character, height)
            assert one, "checked above"
            advance = one.advance
            letters.append((character, Motion(pen), one.regions))
        pen += advance
    shift = Motion({"left": 0.0, "middle": -pen / 2, "right": -pen}[align])
    return Lettered(
        tuple(
            Letter(character, tuple(shift.region(there.region(region)) for region in regions))
            for character, there, regions in letters
        ),
        tuple(tuple(shift.point(point) for point in line) for line in lines),
        pen,
    )
