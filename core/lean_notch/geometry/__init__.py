"""Exact flat geometry: closed outlines of lines and true circular arcs. Knows no design."""

from .contour import Box, Circle, Contour, Point, Segment, Vertex, rectangle
from .cubic import Cubic, Curved
from .flatten import flatten
from .region import Region
from .ring import Ring
from .transform import Placement

__all__ = [
    "Box",
    "Circle",
    "Contour",
    "Cubic",
    "Curved",
    "Placement",
    "Point",
    "Region",
    "Ring",
    "Segment",
    "Vertex",
    "flatten",
    "rectangle",
]
