"""A sheet's cut plan as PDF: 1:1, one optional content group (a layer to switch) per operation, nothing but outlines.

After ISO 32000-1: user space is 1/72 in (8.3.2.3), layers are optional content (8.11). PDF has no arcs;
short cubics stand in for them.
"""

from __future__ import annotations

import hashlib
import io

from ..cutting import PLAIN, CutPath, Profile, SheetPlan
from ..geometry import Curved, Point, Trace
from ..geometry.cubic import Cubic
from ..ground.errors import OutOfRange
from ..ground.operations import OPERATIONS
from ..lengths.said import say_mm
from ..lengths.units import MM_PER_PT
from .curves import as_cubics
from .frame import file_layers
from .svg_path import number

SMALLEST_MM, LARGEST_MM = 3 * MM_PER_PT, 14_400 * MM_PER_PT
"""ISO 32000-1, annex C.2: pages of 3 to 14,400 units."""


def write_pdf(title: str, sheet: SheetPlan, profile: Profile = PLAIN) -> bytes:
    """One sheet on one page of its size. The same plan and profile give the same bytes.

    Raises OutOfRange for a sheet larger than a page can be.
    """
    if not SMALLEST_MM <= min(sheet.width, sheet.height) <= max(sheet.width, sheet.height) <= LARGEST_MM:
        raise OutOfRange(
            f"A PDF page cannot be {say_mm(sheet.width)} × {say_mm(sheet.height)}.",
            fix=f"Use SVG or DXF, or a sheet of {say_mm(SMALLEST_MM)} to {say_mm(LARGEST_MM)}.",
            field="format",
        )
    import pikepdf
    from pikepdf import Array, Dictionary, Name, String

    pdf = pikepdf.new()
    width, height = sheet.width / MM_PER_PT, sheet.height / MM_PER_PT
    page = pdf.add_blank_page(page_size=(width, height))
    groups, names = [], Dictionary()
    lines = [
        f"{number(1 / MM_PER_PT, 12)} 0 0 {number(1 / MM_PER_PT, 12)} 0 0 cm",
        f"{number(profile.stroke_mm)} w 1 j 1 J",
    ]
    for index, layer in enumerate(file_layers(sheet, profile)):
        group = pdf.make_indirect(Dictionary(Type=Name.OCG, Name=String(layer.name)))
        groups.append(group)
        names[f"/L{index}"] = group
        red, green, blue = (number(int(layer.colour[i : i + 2], 16) / 255) for i in (1, 3, 5))
        lines += [
            f"/OC /L{index} BDC",
            f"% {OPERATIONS[layer.operation]}",
            f"{red} {green} {blue} RG {red} {green} {blue} rg",
        ]
        lines += [_drawn(path) for path in layer.paths]
        lines.append("EMC")
    page.Resources = Dictionary(Properties=names)
    page.Contents = pdf.make_stream("\n".join(lines).encode())
    order = Array(groups)
    pdf.Root.OCProperties = Dictionary(OCGs=order, D=Dictionary(Order=order, ON=order))
    pdf.docinfo["/Title"] = String(title)
    out = io.BytesIO()
    pdf.save(out, static_id=True, compress_streams=True, linearize=False)
    # A file's id says which content it has, and no more: no clock, no place.
    return out.getvalue().replace(
        b"31415926535897932384626433832795", hashlib.md5("\n".join(lines).encode()).hexdigest().encode()
    )


def _drawn(path: CutPath) -> str:
    commands = [_outline(shape) for shape in (path.shape, *path.holes)]
    return " ".join(commands) + (" f*" if path.filled else " S")


def _outline(shape: object) -> str:
    pieces = shape.pieces if isinstance(shape, Curved) else shape.segments  # type: ignore[attr-defined]
    commands = [f"{_say(pieces[0].start)} m"]
    for piece in pieces:
        for part in (piece,) if isinstance(piece, Cubic) or piece.bulge == 0 else as_cubics(piece):
            if isinstance(part, Cubic):
                commands.append(f"{_say(part.first)} {_say(part.second)} {_say(part.end)} c")
            else:
                commands.append(f"{_say(part.end)} l")
    return " ".join(commands) + ("" if isinstance(shape, Trace) else " h")


def _say(point: Point) -> str:
    return f"{number(point[0])} {number(point[1])}"
