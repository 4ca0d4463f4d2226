"""The fonts that ship with the app: in, a font's name and a character; out, its outlines and its width.

Outlines are the font's own curves at their final size, filled by the non-zero rule.
"""

from __future__ import annotations

from dataclasses import dataclass
from importlib.resources import files
from typing import Any

from ..geometry import Cubic, Curved, Point, Region, Ring, Segment
from ..ground.remembered import by_value


@dataclass(frozen=True)
class Font:
    """`files` are looked through in turn: the common letters come first, the rarer ones after."""

    name: str
    title: str
    files: tuple[str, ...]


FONTS: dict[str, Font] = {
    font.name: font
    for font in (
        Font("sans", "Sans", ("ibm-plex-sans-latin-600-normal.woff2", "ibm-plex-sans-latin-ext-600-normal.woff2")),
        Font("slab", "Slab", ("zilla-slab-latin-700-normal.woff2", "zilla-slab-latin-ext-700-normal.woff2")),
        Font(
            "stencil",
            "Stencil",
            ("saira-stencil-one-latin-400-normal.woff2", "saira-stencil-one-latin-ext-400-normal.woff2"),
        ),
    )
}


@dataclass(frozen=True)
class Glyph:
    """One character: `regions` stand on the base line from x = 0, `advance` is where the next one starts, in mm."""

    regions: tuple[Region, ...]
    advance: float


@by_value(16)
def _opened(file: str) -> Any:
    from fontTools.ttLib import TTFont

    return TTFont(files(__package__).joinpath("fonts", file).open("rb"), lazy=True)


@by_value(4096)
def glyph(font: str, character: str, height: float) -> Glyph | None:
    """A character whose capitals are `height` mm high, or None if the font lacks it: a missing glyph's box is never
    drawn."""
    from ..geometry.boolean import filled

    for file in FONTS[font].files:
        opened = _opened(file)
        name = opened.getBestCmap().get(ord(character))
        if name is None:
            continue
        scale = height / opened["OS/2"].sCapHeight
        glyphs = opened.getGlyphSet()
        pen = _Outlines(scale)
        glyphs[name].draw(_as_cubics(pen, glyphs))
        return Glyph(tuple(filled(pen.rings)), glyphs[name].width * scale)
    return None


def _as_cubics(pen: _Outlines, glyphs: Any) -> Any:
    """A fontTools pen that hands lines and cubics on to `pen`, components taken apart."""
    from fontTools.pens.basePen import BasePen

    class Drawing(BasePen):  # type: ignore[misc]
        def _moveTo(self, point: Point) -> None:  # noqa: N802
            pen.move(point)

        def _lineTo(self, point: Point) -> None:  # noqa: N802
            pen.line(point)

        def _curveToOne(self, first: Point, second: Point, end: Point) -> None:  # noqa: N802
            pen.curve(first, second, end)

        def _closePath(self) -> None:  # noqa: N802
            pen.close()

    return Drawing(glyphs)


class _Outlines:
    def __init__(self, scale: float) -> None:
        self.scale = scale
        self.rings: list[Ring] = []
        self._pieces: list[Segment | Cubic] = []
        self._here: Point = (0.0, 0.0)

    def _scaled(self, point: Point) -> Point:
        return (point[0] * self.scale, point[1] * self.scale)

    def move(self, point: Point) -> None:
        self._pieces, self._here = [], self._scaled(point)

    def line(self, point: Point) -> None:
        end = self._scaled(point)
        if end != self._here:
            self._pieces.append(Segment(self._here, end, 0.0))
            self._here = end

    def curve(self, first: Point, second: Point, end: Point) -> None:
        curve = Cubic(self._here, self._scaled(first), self._scaled(second), self._scaled(end))
        self._pieces.append(curve)
        self._here = curve.end

    def close(self) -> None:
        if self._pieces:
            if self._pieces[0].start != self._here:
                self._pieces.append(Segment(self._here, self._pieces[0].start, 0.0))
            self.rings.append(Curved(tuple(self._pieces)))
