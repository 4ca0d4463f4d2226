"""Text as outlines and as single strokes, and the bridges that keep the islands of cut letters in place."""

from .bridges import Bridged, Lost, bridged, least_height
from .fonts import FONTS, Font, glyph
from .single_stroke import strokes
from .text import SINGLE_STROKE, Letter, lettered

__all__ = [
    "FONTS",
    "SINGLE_STROKE",
    "Bridged",
    "Font",
    "Letter",
    "Lost",
    "bridged",
    "glyph",
    "least_height",
    "lettered",
    "strokes",
]
