"""DXF in, paths out, read by a library that our writer does not use."""

from __future__ import annotations

import math
from collections.abc import Iterable
from io import StringIO
from typing import Any

from ..errors import UnreadableFile
from ..geometry import Point, Segment
from .read_file import ReadFile, ReadPath

_MM_PER_INSUNIT = {1: 25.4, 2: 304.8, 4: 1.0, 5: 10.0, 6: 1000.0}
"""DXF Reference, HEADER, $INSUNITS: 1 in, 2 ft, 4 mm, 5 cm, 6 m."""


def read_dxf(data: bytes) -> ReadFile:
    """The outlines of a DXF file. Raises UnreadableFile if it is no DXF or does not say its unit."""
    import ezdxf.filemanagement
    from ezdxf.lldxf.const import DXFError

    try:
        drawing = ezdxf.filemanagement.read(StringIO(data.decode("utf-8", "replace")))
    except (DXFError, ValueError, KeyError, IndexError) as error:
        raise UnreadableFile(f"The file cannot be read as DXF: {error}", fix="Export it again.") from None
    unit = drawing.header.get("$INSUNITS", 0)
    if unit not in _MM_PER_INSUNIT:
        raise UnreadableFile(
            "The DXF does not say in which unit it is drawn.", fix="Export it with $INSUNITS set, 4 for mm."
        )
    scale = _MM_PER_INSUNIT[unit]
    paths, unread = [], set[str]()
    for entity in drawing.modelspace():
        segments, closed = _outline(entity)
        if not segments:
            unread.add(entity.dxftype())
            continue
        scaled = tuple(
            Segment((s.start[0] * scale, s.start[1] * scale), (s.end[0] * scale, s.end[1] * scale), s.bulge)
            for s in segments
        )
        paths.append(ReadPath(entity.dxf.layer.lower(), "", scaled, closed))
    return ReadFile(tuple(paths), unread=tuple(sorted(unread)))


def _outline(entity: Any) -> tuple[list[Segment], bool]:
    kind, dxf = entity.dxftype(), entity.dxf
    if kind == "LWPOLYLINE":
        return _polyline([(x, y, b) for x, y, b in entity.get_points("xyb")], entity.closed)
    if kind == "POLYLINE" and entity.is_2d_polyline:
        corners = [(v.dxf.location.x, v.dxf.location.y, v.dxf.get("bulge", 0.0)) for v in entity.vertices]
        return _polyline(corners, entity.is_closed)
    if kind == "LINE":
        return [Segment((dxf.start.x, dxf.start.y), (dxf.end.x, dxf.end.y), 0.0)], False
    if kind == "CIRCLE":
        return _turn((dxf.center.x, dxf.center.y), dxf.radius, 0.0, 2 * math.pi), True
    if kind == "ARC":
        sweep = math.radians((dxf.end_angle - dxf.start_angle) % 360)
        return _turn((dxf.center.x, dxf.center.y), dxf.radius, math.radians(dxf.start_angle), sweep), False
    return [], False


def _polyline(corners: list[tuple[float, float, float]], closed: bool) -> tuple[list[Segment], bool]:
    ends: Iterable[tuple[float, float, float]] = [*corners[1:], corners[0]] if closed else corners[1:]
    segments = [Segment((x, y), (u, v), bulge) for (x, y, bulge), (u, v, _) in zip(corners, ends, strict=False)]
    return [segment for segment in segments if segment.start != segment.end], closed


def _turn(centre: Point, radius: float, first: float, sweep: float) -> list[Segment]:
    """An arc in four equal pieces."""
    points = [
        (
            centre[0] + radius * math.cos(first + sweep * i / 4),
            centre[1] + radius * math.sin(first + sweep * i / 4),
        )
        for i in range(5)
    ]
    return [Segment(points[i], points[i + 1], math.tan(sweep / 16)) for i in range(4)]
