"""What a closed outline can be: lines and arcs, one full circle, or curves."""

from __future__ import annotations

from .contour import Circle, Contour
from .cubic import Curved

Ring = Contour | Circle | Curved
