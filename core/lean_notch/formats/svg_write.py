"""A sheet's cut plan as SVG: millimetres, 1:1, no transforms, no fills, true arcs, one group per operation."""

from __future__ import annotations

from xml.sax.saxutils import escape, quoteattr

from ..cutting import OPERATIONS, CutPath, Operation, SheetPlan
from ..geometry import Circle
from .svg_path import number, path_data

STROKES: dict[Operation, tuple[str, str]] = {"cut": ("#000000", ""), "reference": ("#808080", "1 2")}
"""Colour and dashes of each operation's group."""

STROKE_WIDTH_MM = 0.1
"""Visible in every viewer; a hairline is not. Common practice."""


def write_svg(title: str, sheet: SheetPlan) -> str:
    """One sheet. The same plan gives the same text. Numbers have at most four decimals (0.1 µm)."""
    lines = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{number(sheet.width)}mm" height="{number(sheet.height)}mm" '
        f'viewBox="0 0 {number(sheet.width)} {number(sheet.height)}">',
        f"<title>{escape(title)}</title>",
    ]
    for operation, name in OPERATIONS.items():
        paths = [path for path in sheet.paths if path.operation == operation]
        if not paths:
            continue
        colour, dashes = STROKES[operation]
        dash = f' stroke-dasharray="{dashes}"' if dashes else ""
        lines.append(f'<g id="{operation}" fill="none" stroke="{colour}" stroke-width="{STROKE_WIDTH_MM}"{dash}>')
        lines.append(f"<title>{escape(name)}</title>")
        lines += [_element(path, sheet.height) for path in paths]
        lines.append("</g>")
    lines.append("</svg>")
    return "\n".join(lines) + "\n"


def _element(path: CutPath, height: float) -> str:
    attributes, ring = f"id={quoteattr(path.id)}", path.ring
    if isinstance(ring, Circle):
        shape = f'circle {attributes} cx="{number(ring.x)}" cy="{number(height - ring.y)}" r="{number(ring.radius)}"'
        return f"<{shape}><title>{escape(path.title)}</title></circle>"
    data = path_data(ring, height)
    return f'<path {attributes} d="{data}"><title>{escape(path.title)}</title></path>'
