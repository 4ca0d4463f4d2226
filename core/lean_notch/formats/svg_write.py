"""A sheet's cut plan as SVG: 1:1, no transforms, true arcs, one group per layer; only engraved areas are ever filled."""

from __future__ import annotations

from xml.sax.saxutils import escape, quoteattr

from ..cutting import PLAIN, CutPath, Profile, SheetPlan
from ..cutting.profile import layer_id
from ..geometry import Circle
from ..ground.operations import OPERATIONS
from ..ground.remembered import characters, remembered
from .frame import Frame, FrameNumbers, file_layers
from .svg_path import number, path_data

_DIGITS = {"mm": 4, "in": 6}
"""0.1 µm, and a fortieth of it."""


def write_svg(title: str, sheet: SheetPlan, profile: Profile = PLAIN) -> str:
    """One sheet. The same plan and profile give the same text.

    SVG's y runs down; the profile's origin is where the coordinates are 0, by way of the viewBox.
    """
    frame = Frame.of(sheet, profile, flipped=True)
    digits = _DIGITS[profile.unit]

    def say(value: float) -> str:
        return number(value, digits)

    width, height = sheet.width * frame.per_mm, sheet.height * frame.per_mm
    left, top = frame.point((0.0, sheet.height))
    lines = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{say(width)}{profile.unit}" height="{say(height)}{profile.unit}" '
        f'viewBox="{say(left)} {say(top)} {say(width)} {say(height)}">',
        f"<title>{escape(title)}</title>",
    ]
    stroke = say(profile.stroke_mm * frame.per_mm)
    for layer in file_layers(sheet, profile):
        lines.append(
            f'<g id={quoteattr(layer_id(layer.name))} fill="none" stroke="{layer.colour}" stroke-width="{stroke}" '
            f'stroke-linejoin="round">'
        )
        lines.append(f"<title>{escape(OPERATIONS[layer.operation])}</title>")
        lines += [_element(path, frame.numbers, layer.colour, digits) for path in layer.paths]
        lines.append("</g>")
    lines.append("</svg>")
    return "\n".join(lines) + "\n"


# Most paths are as they were when the job was last written.
@remembered(8192, characters, 400_000)
def _element(path: CutPath, numbers: FrameNumbers, colour: str, digits: int) -> str:
    frame = Frame(*numbers)
    attributes, shape = f"id={quoteattr(path.id)}", path.shape
    title = f"<title>{escape(path.title)}</title>"
    if isinstance(shape, Circle) and not path.filled:
        (x, y), radius = frame.point((shape.x, shape.y)), shape.radius * frame.per_mm
        return (
            f'<circle {attributes} cx="{number(x, digits)}" cy="{number(y, digits)}" r="{number(radius, digits)}">'
            f"{title}</circle>"
        )
    data = "".join(
        path_data(one, frame.point, flipped=True, per_mm=frame.per_mm, digits=digits) for one in (shape, *path.holes)
    )
    fill = f' fill="{colour}" stroke="none" fill-rule="evenodd"' if path.filled else ""
    return f'<path {attributes} d="{data}"{fill}>{title}</path>'
