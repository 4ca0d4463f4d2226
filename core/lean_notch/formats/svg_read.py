"""SVG in, paths out. Shares nothing with the writer; arcs after the SVG specification's own appendix.

Reads what a clean cut file holds: groups, paths of lines and circular arcs, circles, rectangles, polygons. Whatever
else stands in a file is named as unread rather than guessed at.
"""

from __future__ import annotations

import math
import re
from collections.abc import Iterator

from ..errors import UnreadableFile
from ..geometry import Point, Segment
from ..units import MM_PER_PT, MM_PER_PX, MM_PER_UNIT
from .read_file import ReadFile, ReadPath

_PER_UNIT = {**MM_PER_UNIT, "px": MM_PER_PX, "": MM_PER_PX, "pt": MM_PER_PT, "pc": 12 * MM_PER_PT}
"""Millimetres per unit. W3C CSS Values and Units 3, absolute lengths; a bare number is a px."""

_SILENT = {"title", "desc", "metadata", "defs"}
_MOST_BYTES = 50_000_000


def read_svg(data: bytes) -> ReadFile:
    """The outlines of an SVG file. Raises UnreadableFile if it is no SVG, has no size, or draws with transforms."""
    from lxml import etree

    if len(data) > _MOST_BYTES:
        raise UnreadableFile(f"The file has {len(data)} bytes.", fix="Split it; 50 MB is the most that is read.")
    parser = etree.XMLParser(resolve_entities=False, no_network=True, load_dtd=False)
    try:
        root = etree.fromstring(data, parser)
    except etree.XMLSyntaxError as error:
        raise UnreadableFile(f"The file is no valid XML: {error.msg}.", fix="Export it again.") from None
    if _tag(root) != "svg":
        raise UnreadableFile("The file is no SVG.", fix="Choose a file whose first element is <svg>.")
    box = [_number(value) for value in re.split(r"[\s,]+", root.get("viewBox", "").strip()) if value]
    if len(box) != 4 or box[2] <= 0 or box[3] <= 0:
        raise UnreadableFile("The SVG has no viewBox.", fix="Export it with a viewBox and a size in mm.")
    width, height = _size(root.get("width", "")), _size(root.get("height", ""))
    scale = width / box[2]
    if abs(height / box[3] - scale) > 1e-6 * scale:
        raise UnreadableFile("The SVG is stretched in one direction.", fix="Export it 1:1.")
    reader = _Reader(scale, box[0], box[1] + box[3])
    paths = tuple(reader.walk(root, ""))
    return ReadFile(paths, width, height, tuple(sorted(reader.unread)))


def _tag(element: object) -> str:
    tag = getattr(element, "tag", "")
    return tag.rpartition("}")[2] if isinstance(tag, str) else ""


def _size(text: str) -> float:
    match = re.fullmatch(r"\s*([\d.]+(?:e[-+]?\d+)?)\s*([a-z]*)\s*", text)
    if not match or match[2] not in _PER_UNIT:
        raise UnreadableFile(f"The SVG's size is “{text}”.", fix="Export it with width and height in mm.")
    return float(match[1]) * _PER_UNIT[match[2]]


def _number(text: str) -> float:
    try:
        return float(text)
    except ValueError:
        raise UnreadableFile(f"“{text[:20]}” is no number.", fix="Export the file again.") from None


class _Reader:
    def __init__(self, scale: float, left: float, bottom: float) -> None:
        self.scale, self.left, self.bottom = scale, left, bottom
        self.unread: set[str] = set()

    def walk(self, element: object, layer: str) -> Iterator[ReadPath]:
        for child in element:  # type: ignore[attr-defined]
            tag = _tag(child)
            if not tag or tag in _SILENT:
                continue
            if child.get("transform"):
                raise UnreadableFile(
                    f"<{tag}> has a transform.",
                    fix="Export the file without transforms, sizes written as they are.",
                )
            if tag == "g":
                yield from self.walk(child, layer or child.get("id", ""))
            elif tag == "path":
                yield from self._path(child.get("d", ""), layer, child.get("id", ""))
            elif tag == "circle":
                yield self._circle(child, layer)
            else:
                self.unread.add(f"<{tag}>")

    def _out(self, point: Point) -> Point:
        return ((point[0] - self.left) * self.scale, (self.bottom - point[1]) * self.scale)

    def _circle(self, element: object, layer: str) -> ReadPath:
        get = element.get  # type: ignore[attr-defined]
        x, y, r = (_number(get(key, "0")) for key in ("cx", "cy", "r"))
        if r <= 0:
            raise UnreadableFile(f"A circle has the radius {r:g}.", fix="Delete it, or give it a size.")
        points = [self._out(p) for p in ((x + r, y), (x, y - r), (x - r, y), (x, y + r))]
        bulge = math.tan(math.pi / 8)
        arcs = tuple(Segment(points[i], points[(i + 1) % 4], bulge) for i in range(4))
        return ReadPath(layer.lower(), get("id", ""), arcs, closed=True)

    def _path(self, d: str, layer: str, name: str) -> Iterator[ReadPath]:
        for segments, closed in _subpaths(d):
            moved = tuple(Segment(self._out(s.start), self._out(s.end), -s.bulge) for s in segments)
            yield ReadPath(layer.lower(), name, moved, closed)


_COMMAND = re.compile(r"([MmLlHhVvAaZz])|([-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?)|[\s,]+|(.)")
_ARGUMENTS = {"M": 2, "L": 2, "H": 1, "V": 1, "A": 7, "Z": 0}


def _commands(d: str) -> Iterator[tuple[str, list[float]]]:
    command, numbers = "", list[float]()
    for letter, number, other in _COMMAND.findall(d):
        if other:
            raise UnreadableFile(f"A path holds “{other}”.", fix="Export outlines as lines and circular arcs only.")
        if letter:
            if numbers:
                raise UnreadableFile(f"A path's {command} lacks numbers.", fix="Export the file again.")
            command = letter
            if command in "Zz":
                yield "Z", []
        elif number:
            numbers.append(float(number))
            if not command or command in "Zz":
                raise UnreadableFile("A path has numbers without a command.", fix="Export the file again.")
            if len(numbers) == _ARGUMENTS[command.upper()]:
                yield command, numbers
                numbers = []
                command = {"M": "L", "m": "l"}.get(command, command)
    if numbers:
        raise UnreadableFile(f"A path's {command} lacks numbers.", fix="Export the file again.")


def _subpaths(d: str) -> Iterator[tuple[list[Segment], bool]]:
    here = start = (0.0, 0.0)
    segments: list[Segment] = []
    for command, numbers in _commands(d):
        kind = command.upper()
        if kind == "Z":
            if here != start:
                segments.append(Segment(here, start, 0.0))
            if segments:
                yield segments, True
            segments, here = [], start
            continue
        base = here if command.islower() else (0.0, 0.0)
        x = numbers[-2] + base[0] if kind in "MLA" else numbers[0] + base[0] if kind == "H" else here[0]
        y = numbers[-1] + base[1] if kind in "MLA" else numbers[0] + base[1] if kind == "V" else here[1]
        if kind == "M":
            if segments:
                yield segments, False
            segments, start = [], (x, y)
        elif (x, y) != here:
            bulge = _arc_bulge(here, (x, y), *numbers[:5]) if kind == "A" else 0.0
            segments.append(Segment(here, (x, y), bulge))
        here = (x, y)
    if segments:
        yield segments, False


def _arc_bulge(start: Point, end: Point, rx: float, ry: float, _turn: float, large: float, sweep: float) -> float:
    """tan(sweep angle / 4) of an SVG arc. W3C SVG 2, appendix B.2.4 and B.2.5 (radii that are too small grow)."""
    if abs(rx - ry) > 1e-9 * max(abs(rx), abs(ry), 1e-9):
        raise UnreadableFile("A path holds an elliptical arc.", fix="Export outlines as lines and circular arcs only.")
    half = math.dist(start, end) / 2
    radius = max(abs(rx), half)
    if radius == 0:
        return 0.0
    angle = 2 * math.asin(min(half / radius, 1.0))
    angle = 2 * math.pi - angle if large else angle
    return math.tan(angle / 4) * (1 if sweep else -1)
