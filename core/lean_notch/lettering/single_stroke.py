"""Single-stroke lettering: in, a text and its height; out, open lines for a scoring beam or an engraving tool.

The shapes are A. V. Hershey's (1967), by way of a font library.
"""

from __future__ import annotations

from typing import Any

from ..geometry import Point
from ..ground.remembered import by_value

Stroke = tuple[Point, ...]
_FACE = "futural"


@by_value(1)
def _face() -> tuple[Any, float, float]:
    """The glyphs, the height of their capitals, and where their base line lies (y down)."""
    from HersheyFonts import HersheyFonts

    fonts = HersheyFonts()
    fonts.load_default_font(_FACE)
    options = fonts.render_options
    return fonts.all_glyphs, options["base_line"] - options["cap_line"], options["base_line"]


def strokes(character: str) -> tuple[tuple[Stroke, ...], float] | None:
    """A character's strokes and its advance, capitals 1 high; None if the face lacks it."""
    glyphs, capital, base = _face()
    glyph = glyphs.get(character)
    if glyph is None:
        return None
    left = glyph.left_offset
    lines = tuple(
        tuple(((x - left) / capital, (base - y) / capital) for x, y in stroke)
        for stroke in glyph.strokes
        if len(stroke) > 1
    )
    return lines, glyph.char_width / capital
