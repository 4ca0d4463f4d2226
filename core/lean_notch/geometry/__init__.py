"""Exact flat geometry: closed outlines of lines and true circular arcs. Knows no design."""

from .contour import Box, Circle, Contour, Point, Ring, Segment, Vertex, rectangle
from .flatten import flatten
from .region import Region
from .transform import Placement

__all__ = [
    "Box",
    "Circle",
    "Contour",
    "Placement",
    "Point",
    "Region",
    "Ring",
    "Segment",
    "Vertex",
    "flatten",
    "rectangle",
]
