"""A sheet's cut plan as DXF, R12 or R2000: closed polylines with bulges and circles, a layer per operation.

Group codes after the DXF Reference. Everything a reader of that release needs is there, and nothing else.
"""

from __future__ import annotations

import colorsys
import math
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Literal

from ..cutting import PLAIN, Profile, SheetPlan
from ..cutting.profile import dxf_layer
from ..geometry import Box, Circle, Ring, Segment, Trace, Vertex
from ..geometry.contour import join_boxes
from .frame import FileLayer, Frame, file_layers

Release = Literal["R12", "R2000"]
_ACADVER: dict[Release, str] = {"R12": "AC1009", "R2000": "AC1015"}

INSUNITS = {"mm": 4, "in": 1}
"""DXF Reference, HEADER: 4 is millimetres, 1 is inches."""

_HUES = {1: 0.0, 2: 1 / 6, 3: 1 / 3, 4: 1 / 2, 5: 2 / 3, 6: 5 / 6}
_INK, _GREY = 7, 8
"""The numbers that every reader knows; neither release can say a colour otherwise."""

Pair = tuple[int, str | int | float]


def write_dxf(sheet: SheetPlan, release: Release, profile: Profile = PLAIN) -> str:
    """One sheet. The same plan and profile give the same text; coordinates are written in full.

    Areas that the profile wants filled are outlines here: neither release fills without a hatch pattern.
    """
    pairs, frame = _Pairs(release), Frame.of(sheet, profile)
    layers = file_layers(sheet, profile)
    body = list(_entities(layers, frame, pairs))
    head = [*_tables(pairs, layers), *(_blocks(pairs) if release == "R2000" else ())]
    tail = list(_objects()) if release == "R2000" else []
    header = _header(sheet, frame, profile, release, pairs)
    content = [*header, *head, *_section("ENTITIES", body), *tail, (0, "EOF")]
    return "".join(f"{code:>3}\n{_value(value)}\n" for code, value in content)


def colour_numbers(colours: Iterable[str]) -> dict[str, int]:
    """A number for each "#rrggbb": the nearest hue that no other has yet, ink or grey for what has none.

    >>> colour_numbers(["#000000", "#0072B2", "#009E73", "#808080"])
    {'#000000': 7, '#0072B2': 4, '#009E73': 3, '#808080': 8}
    """
    numbers: dict[str, int] = {}
    for colour in colours:
        hue, light, strength = colorsys.rgb_to_hls(*(int(colour[i : i + 2], 16) / 255 for i in (1, 3, 5)))
        if strength < 0.2 or light < 0.1:
            numbers[colour] = _GREY if 0.3 < light < 0.8 else _INK
            continue
        free = [n for n in _HUES if n not in numbers.values()] or list(_HUES)
        numbers[colour] = min(free, key=lambda n: min(abs(hue - _HUES[n]), 1 - abs(hue - _HUES[n])))
    return numbers


@dataclass
class _Pairs:
    """Hands out handles, and leaves out what R12 does not know."""

    release: Release
    next_handle: int = 0x100

    def owned(self, owner: str, *subclasses: str) -> list[Pair]:
        if self.release == "R12":
            return []
        handle = f"{self.next_handle:X}"
        self.next_handle += 1
        return [(5, handle), (330, owner), *((100, subclass) for subclass in subclasses)]

    def sub(self, subclass: str) -> list[Pair]:
        return [] if self.release == "R12" else [(100, subclass)]


_MODEL, _PAPER = "20", "21"  # handles of the two block records
_DICTIONARY, _GROUPS = "C", "D"
_TABLE_HANDLES = {
    "VPORT": "8", "LTYPE": "5", "LAYER": "2", "STYLE": "3", "VIEW": "6", "UCS": "7",
    "APPID": "9", "DIMSTYLE": "A", "BLOCK_RECORD": "1",
}  # fmt: skip


def _value(value: str | int | float) -> str:
    return repr(value + 0.0) if isinstance(value, float) else str(value)


def _section(name: str, pairs: list[Pair]) -> list[Pair]:
    return [(0, "SECTION"), (2, name), *pairs, (0, "ENDSEC")]


def _header(sheet: SheetPlan, frame: Frame, profile: Profile, release: Release, pairs: _Pairs) -> list[Pair]:
    left, low, right, high = _extents(sheet)
    corners = [frame.point((left, low)), frame.point((right, high))]
    (left, right), (low, high) = (sorted(values) for values in zip(*corners, strict=True))
    variables: list[Pair] = [
        (9, "$ACADVER"), (1, _ACADVER[release]),
        (9, "$INSUNITS"), (70, INSUNITS[profile.unit]),
        (9, "$MEASUREMENT"), (70, int(profile.unit == "mm")),
        (9, "$EXTMIN"), (10, left), (20, low), (30, 0.0),
        (9, "$EXTMAX"), (10, right), (20, high), (30, 0.0),
    ]  # fmt: skip
    if release == "R2000":
        variables += [(9, "$HANDSEED"), (5, f"{pairs.next_handle:X}")]
    return _section("HEADER", variables)


def _extents(sheet: SheetPlan) -> Box:
    if not sheet.paths:
        return (0.0, 0.0, sheet.width, sheet.height)
    return join_boxes(path.shape.box for path in sheet.paths)


def _tables(pairs: _Pairs, named: list[FileLayer]) -> list[Pair]:
    r12 = pairs.release == "R12"
    linetypes = [_linetype(pairs, "CONTINUOUS" if r12 else "Continuous", "Solid line")]
    if not r12:
        linetypes = [_linetype(pairs, "ByBlock", ""), _linetype(pairs, "ByLayer", ""), *linetypes]
    numbers = colour_numbers(one.colour for one in named)
    layers = [_layer(pairs, "0", _INK), *(_layer(pairs, dxf_layer(one.name), numbers[one.colour]) for one in named)]
    tables = [*_table(pairs, "LTYPE", linetypes), *_table(pairs, "LAYER", layers)]
    if r12:
        return _section("TABLES", tables)
    style: list[Pair] = [
        (0, "STYLE"), *pairs.owned("3", "AcDbSymbolTableRecord", "AcDbTextStyleTableRecord"),
        (2, "Standard"), (70, 0), (40, 0.0), (41, 1.0), (50, 0.0), (71, 0), (42, 2.5), (3, "txt"), (4, ""),
    ]  # fmt: skip
    appid: list[Pair] = [
        (0, "APPID"), *pairs.owned("9", "AcDbSymbolTableRecord", "AcDbRegAppTableRecord"), (2, "ACAD"), (70, 0),
    ]  # fmt: skip
    dimstyle: list[Pair] = [
        (0, "DIMSTYLE"), (105, "27"), (330, "A"), (100, "AcDbSymbolTableRecord"), (100, "AcDbDimStyleTableRecord"),
        (2, "Standard"), (70, 0),
    ]  # fmt: skip
    records: list[list[Pair]] = [
        [(0, "BLOCK_RECORD"), (5, handle), (330, "1"), (100, "AcDbSymbolTableRecord"),
         (100, "AcDbBlockTableRecord"), (2, name), (340, "0")]
        for handle, name in ((_MODEL, "*Model_Space"), (_PAPER, "*Paper_Space"))
    ]  # fmt: skip
    for name, entries in (
        ("VPORT", [_viewport(pairs)]), ("STYLE", [style]), ("VIEW", []), ("UCS", []), ("APPID", [appid]),
        ("DIMSTYLE", [dimstyle]), ("BLOCK_RECORD", records),
    ):  # fmt: skip
        tables += _table(pairs, name, entries)
    return _section("TABLES", tables)


def _table(pairs: _Pairs, name: str, entries: list[list[Pair]]) -> list[Pair]:
    known: list[Pair] = []
    if pairs.release == "R2000":
        known = [(5, _TABLE_HANDLES[name]), (330, "0"), (100, "AcDbSymbolTable")]
    count: list[Pair] = [(70, len(entries))]
    if name == "DIMSTYLE":
        count.append((100, "AcDbDimStyleTable"))
    return [
        (0, "TABLE"),
        (2, name),
        *known,
        *count,
        *(pair for entry in entries for pair in entry),
        (0, "ENDTAB"),
    ]


def _linetype(pairs: _Pairs, name: str, about: str) -> list[Pair]:
    known = pairs.owned("5", "AcDbSymbolTableRecord", "AcDbLinetypeTableRecord")
    return [(0, "LTYPE"), *known, (2, name), (70, 0), (3, about), (72, 65), (73, 0), (40, 0.0)]


def _layer(pairs: _Pairs, name: str, colour: int) -> list[Pair]:
    known = pairs.owned("2", "AcDbSymbolTableRecord", "AcDbLayerTableRecord")
    linetype = "CONTINUOUS" if pairs.release == "R12" else "Continuous"
    return [(0, "LAYER"), *known, (2, name), (70, 0), (62, colour), (6, linetype)]


def _viewport(pairs: _Pairs) -> list[Pair]:
    return [
        (0, "VPORT"), *pairs.owned("8", "AcDbSymbolTableRecord", "AcDbViewportTableRecord"), (2, "*Active"), (70, 0),
        (10, 0.0), (20, 0.0), (11, 1.0), (21, 1.0), (12, 0.0), (22, 0.0), (40, 500.0), (41, 1.5),
    ]  # fmt: skip


def _blocks(pairs: _Pairs) -> list[Pair]:
    blocks: list[Pair] = []
    for record, name in ((_MODEL, "*Model_Space"), (_PAPER, "*Paper_Space")):
        blocks += [
            (0, "BLOCK"), *pairs.owned(record, "AcDbEntity"), (8, "0"), (100, "AcDbBlockBegin"), (2, name), (70, 0),
            (10, 0.0), (20, 0.0), (30, 0.0), (3, name), (1, ""),
            (0, "ENDBLK"), *pairs.owned(record, "AcDbEntity"), (8, "0"), (100, "AcDbBlockEnd"),
        ]  # fmt: skip
    return _section("BLOCKS", blocks)


def _objects() -> list[Pair]:
    return _section(
        "OBJECTS",
        [
            (0, "DICTIONARY"), (5, _DICTIONARY), (330, "0"), (100, "AcDbDictionary"), (281, 1),
            (3, "ACAD_GROUP"), (350, _GROUPS),
            (0, "DICTIONARY"), (5, _GROUPS), (330, _DICTIONARY), (100, "AcDbDictionary"), (281, 1),
        ],
    )  # fmt: skip


def _entities(layers: list[FileLayer], frame: Frame, pairs: _Pairs) -> Iterator[Pair]:
    for layer in layers:
        for path in layer.paths:
            for shape in (path.shape, *path.holes):
                yield from _entity(shape, dxf_layer(layer.name), frame, pairs)


def _entity(shape: Ring | Trace, layer: str, frame: Frame, pairs: _Pairs) -> list[Pair]:
    on_layer: list[Pair] = [*pairs.owned(_MODEL, "AcDbEntity"), (8, layer)]
    if isinstance(shape, Circle):
        x, y = frame.point((shape.x, shape.y))
        centre: list[Pair] = [(10, x), (20, y), (30, 0.0), (40, shape.radius * frame.per_mm)]
        return [(0, "CIRCLE"), *on_layer, *pairs.sub("AcDbCircle"), *centre]
    closed = not isinstance(shape, Trace)
    corners = shape.vertices if isinstance(shape, Trace) else shape.corners
    sense = -1.0 if frame.flipped else 1.0
    vertices = [Vertex(*frame.point((x, y)), sense * b) for x, y, b in _half_turns_at_most(corners, closed)]
    if pairs.release == "R2000":
        points = [pair for v in vertices for pair in _place(v)]
        head: list[Pair] = [(0, "LWPOLYLINE"), *on_layer, (100, "AcDbPolyline"), (90, len(vertices)), (70, int(closed))]
        return [*head, *points]
    return [
        (0, "POLYLINE"), (8, layer), (66, 1), (10, 0.0), (20, 0.0), (30, 0.0), (70, int(closed)),
        *(pair for v in vertices for pair in ((0, "VERTEX"), (8, layer), *_place(v))),
        (0, "SEQEND"), (8, layer),
    ]  # fmt: skip


def _place(vertex: Vertex) -> list[Pair]:
    bulge: list[Pair] = [(42, vertex.bulge)] if vertex.bulge else []
    return [(10, vertex.x), (20, vertex.y), *bulge]


def _half_turns_at_most(vertices: tuple[Vertex, ...], closed: bool) -> Iterator[Vertex]:
    """Arcs of more than half a turn in two halves: |bulge| <= 1 is what every reader gets right."""
    if not closed:
        vertices = (*vertices[:-1], Vertex(*vertices[-1].point))
    for vertex, after in zip(vertices, (*vertices[1:], vertices[0]), strict=True):
        if abs(vertex.bulge) <= 1:
            yield vertex
            continue
        segment = Segment(vertex.point, after.point, vertex.bulge)
        half = math.tan(segment.sweep / 8)
        yield Vertex(vertex.x, vertex.y, half)
        yield Vertex(*segment.at(0.5), half)
