"""Text as outlines and as single strokes, and the bridges that keep the islands of cut letters in place."""

from .bridges import Bridged, bridged
from .fonts import FONTS, Font, glyph
from .single_stroke import strokes
from .text import SINGLE_STROKE, lettered

__all__ = ["FONTS", "SINGLE_STROKE", "Bridged", "Font", "bridged", "glyph", "lettered", "strokes"]
