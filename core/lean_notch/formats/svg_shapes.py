"""The basic shapes and paths of an SVG file, as lines, arcs and curves. W3C SVG 2, 9 and 10."""

from __future__ import annotations

import math
import re
from collections.abc import Iterator, Sequence
from itertools import pairwise
from typing import Any

from ..geometry import Cubic, Point, Segment
from ..ground.errors import UnreadableFile
from ..ground.remembered import remembered
from .curves import ellipse_pieces, from_quadratic
from .svg_numbers import length_in, number_in

_Pieces = Iterator[tuple[Sequence[Segment | Cubic], bool]]


_QUARTER = math.tan(math.pi / 8)


def _circle(element: Any) -> _Pieces:
    r = length_in(element.get("r"))
    return _ellipse_at(length_in(element.get("cx")), length_in(element.get("cy")), r, r)


def _ellipse(element: Any) -> _Pieces:
    return _ellipse_at(*(length_in(element.get(name)) for name in ("cx", "cy", "rx", "ry")))


def _ellipse_at(x: float, y: float, rx: float, ry: float) -> _Pieces:
    if rx <= 0 or ry <= 0:
        return
    # From 3 o'clock in the direction of growing angles, as W3C SVG 2, 10.3 has it.
    points = [(x + rx, y), (x, y + ry), (x - rx, y), (x, y - ry)]
    pieces: list[Segment | Cubic] = []
    for i, start in enumerate(points):
        pieces += ellipse_pieces(start, points[(i + 1) % 4], rx, ry, 0.0, False, True)
    yield pieces, True


def _rect(element: Any) -> _Pieces:
    x, y, w, h = (length_in(element.get(name)) for name in ("x", "y", "width", "height"))
    if w <= 0 or h <= 0:
        return
    rx, ry = length_in(element.get("rx"), -1.0), length_in(element.get("ry"), -1.0)
    rx, ry = (ry if rx < 0 else rx), (rx if ry < 0 else ry)
    rx, ry = min(max(rx, 0.0), w / 2), min(max(ry, 0.0), h / 2)
    corners: list[Point] = [
        (x + rx, y), (x + w - rx, y), (x + w, y + ry), (x + w, y + h - ry),
        (x + w - rx, y + h), (x + rx, y + h), (x, y + h - ry), (x, y + ry),
    ]  # fmt: skip
    pieces: list[Segment | Cubic] = []
    for i, start in enumerate(corners):
        end = corners[(i + 1) % 8]
        if start != end:
            pieces += ellipse_pieces(start, end, rx, ry, 0.0, False, True) if i % 2 else [Segment(start, end, 0.0)]
    yield pieces, True


def _line(element: Any) -> _Pieces:
    a, b = ((length_in(element.get(f"x{i}")), length_in(element.get(f"y{i}"))) for i in (1, 2))
    yield [Segment(a, b, 0.0)], False


def _points(element: Any) -> list[Point]:
    numbers = [number_in(value) for value in re.split(r"[\s,]+", element.get("points", "").strip()) if value]
    return list(zip(numbers[::2], numbers[1::2], strict=False))


def _polyline(element: Any) -> _Pieces:
    points = _points(element)
    yield [Segment(a, b, 0.0) for a, b in pairwise(points)], False


def _polygon(element: Any) -> _Pieces:
    points = _points(element)
    yield [Segment(a, b, 0.0) for a, b in zip(points, [*points[1:], *points[:1]], strict=True)], True


def _path_element(element: Any) -> _Pieces:
    return iter(_subpaths_of(element.get("d", "")))


SHAPES = {
    "path": _path_element,
    "circle": _circle,
    "ellipse": _ellipse,
    "rect": _rect,
    "line": _line,
    "polyline": _polyline,
    "polygon": _polygon,
}


# What was read of a path's text holds for the same text: a job's file is read back after every edit.
@remembered(2048, lambda read: sum(len(pieces) for pieces, _ in read), 100_000)
def _subpaths_of(text: str) -> tuple[tuple[tuple[Segment | Cubic, ...], bool], ...]:
    return tuple((tuple(pieces), closed) for pieces, closed in _subpaths(text))


_LETTER = re.compile(r"([A-DF-Za-df-z])")  # e belongs to numbers


_NUMBER = re.compile(r"\s*,?\s*([-+]?(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?)")


_ARGUMENTS = {"M": 2, "L": 2, "H": 1, "V": 1, "C": 6, "S": 4, "Q": 4, "T": 2, "A": 7, "Z": 0}


_NEXT = {"M": "L", "m": "l"}


def _commands(d: str) -> Iterator[tuple[str, list[float]]]:
    before, *rest = _LETTER.split(d)
    if before.strip():
        raise UnreadableFile("A path has numbers without a command.", fix="Export the file again.")
    for command, arguments in zip(rest[::2], rest[1::2], strict=True):
        count = _ARGUMENTS.get(command.upper())
        if count is None:
            raise UnreadableFile(f"A path holds “{command}”.", fix="Export the file again.")
        try:
            numbers = list(map(float, arguments.replace(",", " ").split()))
        except ValueError:
            numbers = _squeezed(arguments, arcs=count == 7)
        if count == 7 and (len(numbers) % 7 or any(flag not in (0, 1) for at in (3, 4) for flag in numbers[at::7])):
            numbers = _squeezed(arguments, arcs=True)
        if count == 0 and not numbers:
            yield "Z", []
        elif not numbers or not count or len(numbers) % count:
            raise UnreadableFile(f"A path's {command} lacks numbers or has too many.", fix="Export the file again.")
        elif not all(map(math.isfinite, numbers)):
            raise UnreadableFile("A path's number is too large.", fix="Export the file again.")
        else:
            for at in range(0, len(numbers), count):
                yield (command if at == 0 else _NEXT.get(command, command)), numbers[at : at + count]


def _squeezed(text: str, *, arcs: bool) -> list[float]:
    """Numbers with nothing between them but a sign or a point; an arc's two flags need not even that.

    W3C SVG 2, 9.3.9.
    """
    numbers: list[float] = []
    at, text = 0, text.rstrip()
    while at < len(text):
        flag = re.compile(r"\s*,?\s*([01])").match(text, at) if arcs and len(numbers) % 7 in (3, 4) else None
        match = flag or _NUMBER.match(text, at)
        if not match:
            raise UnreadableFile(f"A path holds “{text[at : at + 10]}”.", fix="Export the file again.")
        numbers.append(float(match[1]))
        at = match.end()
    return numbers


def _subpaths(d: str) -> _Pieces:
    here = start = (0.0, 0.0)
    pieces: list[Segment | Cubic] = []
    before: tuple[str, Point] = ("", here)  # the last command and its last control point
    for command, v in _commands(d):
        kind = command.upper()
        if kind == "Z":
            if here != start:
                pieces.append(Segment(here, start, 0.0))
            if pieces:
                yield pieces, True
            pieces, here, before = [], start, ("Z", start)
            continue
        ox, oy = here if command.islower() else (0.0, 0.0)
        if kind == "M":
            if pieces:
                yield pieces, False
            pieces, here = [], (v[0] + ox, v[1] + oy)
            start, before = here, ("M", here)
            continue
        if kind in "HV":
            end = (v[0] + ox, here[1]) if kind == "H" else (here[0], v[0] + oy)
        else:
            end = (v[-2] + ox, v[-1] + oy)
        control = end
        if kind in "LHV":
            pieces.append(Segment(here, end, 0.0))
        elif kind == "A":
            pieces += ellipse_pieces(here, end, v[0], v[1], v[2], bool(v[3]), bool(v[4]))
        elif kind in "CS":
            first = (v[0] + ox, v[1] + oy) if kind == "C" else _reflected(here, before, "CS")
            control = (v[-4] + ox, v[-3] + oy)
            pieces.append(Cubic(here, first, control, end))
        else:
            control = (v[0] + ox, v[1] + oy) if kind == "Q" else _reflected(here, before, "QT")
            pieces.append(from_quadratic(here, control, end))
        here, before = end, (kind, control)
    if pieces:
        yield pieces, False


def _reflected(here: Point, before: tuple[str, Point], kinds: str) -> Point:
    kind, control = before
    return (2 * here[0] - control[0], 2 * here[1] - control[1]) if kind and kind in kinds else here
