"""What is to be said of letters that are cut through: in, a step, its lengths and what became of its letters; out, a finding."""

from __future__ import annotations

import unicodedata
from collections.abc import Iterator, Mapping, Sequence
from typing import TYPE_CHECKING

from ..ground.findings import Finding
from ..ground.remembered import remembered
from ..lengths.said import say_mm
from ..lettering import FONTS, Lost, bridged, glyph, least_height, lettered
from ..lettering.bridges import Why
from .drawing import bridge_width
from .shapes import Lettering

if TYPE_CHECKING:
    from .shape import ShapeStep

_WORDS: Mapping[Why, str] = {
    "thin": "more than half of “{letters}” is lost to bridges {width} wide",
    "torn": "bridges {width} wide tear “{letters}” into scraps",
    "drops": "the insides of “{letters}” drop out",
}


def letters_lost(
    step: ShapeStep, lost: Sequence[Lost], at: Mapping[str, float], thickness: float, title: str, part: str
) -> Finding | None:  # fmt: skip
    """Letters by name, with what would do: their least height, bridges, or a font that needs none."""
    shape = step.shape
    if not lost or not isinstance(shape, Lettering):
        return None
    width, scale = bridge_width(at, thickness), at["scale"]
    said = [
        words.format(letters=" ".join(some), width=say_mm(width * scale, 2))
        for why, words in _WORDS.items()
        if (some := [one.letter for one in lost if one.why == why])
    ]
    fixes = _fixes(shape, at["shape/height"], width, thickness, scale)
    return Finding(
        "letters-lost", "stop", f"In {title} {'; '.join(said)}.", f"Use {', or '.join(fixes)}.", part, amount=len(lost),
        field=f"parts/{part}/steps/{step.id}/shape/{'height' if width else 'bridge'}",
    )  # fmt: skip


@remembered()
def _fixes(shape: Lettering, height: float, width: float, thickness: float, scale: float) -> tuple[str, ...]:
    return tuple(_that_would_do(shape, height, width, thickness, scale))


def _that_would_do(shape: Lettering, height: float, width: float, thickness: float, scale: float) -> Iterator[str]:
    letters = lettered("".join(dict.fromkeys(shape.text)), shape.font, height).letters
    least = thickness / scale
    if (width > least or width == 0) and not bridged(letters, least).lost:
        yield f"bridges {say_mm(thickness, 2)} wide"
    if width > 0 and (enough := least_height(letters, height, width)) is not None:
        yield f"letters at least {say_mm(enough)} high"
    for font in FONTS.values():
        glyphs = [glyph(font.name, one, height) for one in unicodedata.normalize("NFC", shape.text)]
        if all(one and not any(region.holes for region in one.regions) for one in glyphs):
            yield f"the font {font.title}, which needs no bridges"
            return
    if width == 0:
        yield "bridges, or letters without insides"
