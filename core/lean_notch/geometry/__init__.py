"""Exact flat geometry: closed outlines of lines and true circular arcs. Knows no design."""

from .contour import Box, Circle, Contour, Point, Segment, Trace, Vertex, rectangle
from .cubic import Cubic, Curved
from .flatten import flatten, loops
from .region import Region
from .ring import Ring
from .transform import Motion, grid, mirror, round_about, scaled_region, scaled_trace

__all__ = [
    "Box",
    "Circle",
    "Contour",
    "Cubic",
    "Curved",
    "Motion",
    "Point",
    "Region",
    "Ring",
    "Segment",
    "Trace",
    "Vertex",
    "flatten",
    "grid",
    "loops",
    "mirror",
    "rectangle",
    "round_about",
    "scaled_region",
    "scaled_trace",
]
