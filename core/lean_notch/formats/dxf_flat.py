"""Plain DXF files in one pass over their lines: in, text; out, outlines, or None if anything but outlines is there.

A general reader makes an object of each vertex, which takes seconds for a full sheet of R12, and half a second to be loaded. What this reader does not
know, from blocks to splines, it leaves to that one. Group codes after the DXF Reference.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping

from ..geometry import Segment
from .curves import turn_pieces
from .read_file import ReadFile, ReadPath, Room

_KNOWN = {"LINE", "ARC", "CIRCLE", "LWPOLYLINE", "POLYLINE", "VERTEX", "SEQEND"}
_ELSEWHERE = {"6", "60", "62", "67", "210", "220", "230", "420"}
"""Paper space, planes, linetypes and colours of an entity's own, and what is invisible: for the general reader."""


def read_flat(text: str, mm_per_unit: dict[int, float], names: dict[int, str]) -> ReadFile | None:
    """The outlines of a file that holds nothing else; None for any other, and for one that is broken."""
    lines = text.splitlines()
    codes, values = [line.strip() for line in lines[0::2]], lines[1::2]
    try:
        unit = _unit(codes, values)
        colours = _layer_colours(codes, values)
        start = next(i for i, v in enumerate(values) if v.strip() == "ENTITIES" and codes[i] == "2")
        end = next(i for i in range(start, len(values)) if codes[i] == "0" and values[i].strip() == "ENDSEC")
        paths = list(_paths(codes[start + 1 : end], values[start + 1 : end], mm_per_unit.get(unit, 1.0), colours))
    except (StopIteration, ValueError, KeyError, IndexError, ZeroDivisionError, _NotFlat):
        return None
    named = names.get(unit, "")
    return ReadFile(tuple(paths), unit=named, assumed="" if named else "mm")


class _NotFlat(Exception):
    pass


def _unit(codes: list[str], values: list[str]) -> int:
    at = next((i for i, v in enumerate(values) if codes[i] == "9" and v.strip() == "$INSUNITS"), None)
    return 0 if at is None else int(values[at + 1])


def _layer_colours(codes: list[str], values: list[str]) -> dict[str, str]:
    """By layer. Layers that are off (a colour below 0), frozen (flag 1), not plotted or dashed are for the general reader, and so
    are those of a true colour. DXF Reference, LAYER."""
    found: dict[str, str] = {}
    name, of_layer = "", False
    for code, value in zip(codes, values, strict=False):
        if code == "0":
            of_layer = value.strip() == "LAYER"
        elif not of_layer:
            continue
        elif code == "2":
            name = value.strip().lower()
        elif code == "62" and int(value) >= 0:
            found[name] = value.strip()
        elif (
            code == "62" or (code == "70" and int(value) & 1) or (code == "290" and not int(value)) or code == "420"
            or (code == "6" and value.strip().lower() != "continuous")
        ):  # fmt: skip
            raise _NotFlat
    return found


class _Entity:
    """One entity as it is gathered: single numbers by their codes, and the corners of polylines."""

    __slots__ = ("corners", "kind", "layer", "numbers")

    def __init__(self, kind: str) -> None:
        self.kind, self.layer = kind, ""
        self.numbers: dict[str, float] = {}
        self.corners: list[list[float]] = []


def _paths(codes: list[str], values: list[str], scale: float, colours: Mapping[str, str]) -> Iterator[ReadPath]:
    room = Room()
    open_one: _Entity | None = None  # a POLYLINE whose VERTEX entities follow
    entity: _Entity | None = None
    for code, value in zip([*codes, "0"], [*values, "SEQEND"], strict=True):
        if code == "0":
            room.take(1)
            kind = value.strip()
            if kind not in _KNOWN:
                raise _NotFlat
            if entity and entity.kind in ("LINE", "ARC", "CIRCLE", "LWPOLYLINE"):
                yield _path(entity, scale, colours)
            if kind == "SEQEND" and open_one:
                yield _path(open_one, scale, colours)
                open_one = None
            entity = _Entity(kind)
            if kind == "POLYLINE":
                open_one = entity
            elif kind == "VERTEX" and open_one:
                open_one.corners.append([0.0, 0.0, 0.0])
        elif code in _ELSEWHERE:
            raise _NotFlat
        elif entity is None:
            continue
        elif code == "8":
            entity.layer = value.strip().lower()
        elif code in ("10", "20", "42") and entity.kind in ("VERTEX", "LWPOLYLINE"):
            corners = open_one.corners if entity.kind == "VERTEX" and open_one else entity.corners
            if code == "10" and entity.kind == "LWPOLYLINE":
                corners.append([0.0, 0.0, 0.0])
            corners[-1][("10", "20", "42").index(code)] = float(value)
        elif code in ("10", "20", "11", "21", "40", "50", "51", "70") and entity.kind != "VERTEX":
            entity.numbers[code] = float(value)


def _path(entity: _Entity, scale: float, colours: Mapping[str, str]) -> ReadPath:
    n, colour = entity.numbers, colours.get(entity.layer, "7")
    if entity.kind == "LINE":
        ends = ((n["10"] * scale, n["20"] * scale), (n["11"] * scale, n["21"] * scale))
        return ReadPath(entity.layer, "", (Segment(*ends, 0.0),), False, colour=colour)
    if entity.kind in ("CIRCLE", "ARC"):
        whole = entity.kind == "CIRCLE"
        first = 0.0 if whole else math.radians(n["50"])
        sweep = 2 * math.pi if whole else math.radians((n["51"] - n["50"]) % 360)
        pieces = turn_pieces((n["10"] * scale, n["20"] * scale), n["40"] * scale, first, sweep)
        return ReadPath(entity.layer, "", tuple(pieces), whole, colour=colour)
    flags = int(n.get("70", 0))
    if flags & ~(1 | 128) or not entity.corners:  # curves fitted, meshes, in space
        raise _NotFlat
    places = [(x * scale, y * scale) for x, y, _ in entity.corners]
    count = len(places) if flags & 1 else len(places) - 1
    bulges = [bulge for _, _, bulge in entity.corners]
    segments = tuple(Segment(places[i], places[(i + 1) % len(places)], bulges[i]) for i in range(count))
    return ReadPath(entity.layer, "", segments, bool(flags & 1), colour=colour)
