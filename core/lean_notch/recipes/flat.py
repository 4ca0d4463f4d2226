"""The drawing of a recipe that makes flat parts: in, the parts as built and which lengths are settings; out, views with sizes.

A size shows where a step's length is a setting and nothing else; those of what the part starts from can be dragged.
"""

from __future__ import annotations

import math
from collections.abc import Collection, Iterator, Mapping

from ..design import Design, Part
from ..geometry import Circle, Contour, Cubic, Point, Region, Ring, Segment, Trace
from ..making import Build, FlatPart
from ..making.sizes import SizeOnPart, sizes_of
from ..steps.place import box_of
from .picture import Handle, Shape, SizeLine, View, Views

MOST_VIEWS = 3
_NEAR_MM = 1e-6
_CHORDS = 12
"""Of every arc, however large: drawings of one recipe in other sizes have the same points."""


def flat_views(design: Design, built: Build, settings: Collection[str], names: Mapping[str, float]) -> Views:
    """Of the parts that show a setting, or of the first ones; `names` are all lengths in mm."""
    views = [_view(part, made, settings, names) for part in design.parts if (made := _made(built, part))]
    shown = [view for view in views if view.sizes] or views
    return tuple(shown[:MOST_VIEWS])


def _made(built: Build, part: Part) -> FlatPart | None:
    return next((one for one in built.parts if one.id == part.id), None)


def _view(part: Part, made: FlatPart, settings: Collection[str], names: Mapping[str, float]) -> View:
    left, low, right, high = made.box
    sizes: list[SizeLine] = []
    handles: list[Handle] = []
    seen: set[str] = set()
    first = next((step for step in part.steps if step.on), None)
    for step in part.steps:
        for one in sizes_of(step, made, names):
            setting = one.text.strip()
            if setting in settings and setting not in seen:
                seen.add(setting)
                whole = _spans(one, made)
                sizes.append(_line(one, setting, whole))
                handles += _handle(one, setting, step.id, made) if step is first else ()
    shapes = [Shape("board", (left, low, right, high), _outline(made.region.outer))]
    shapes += [Shape("clear", hole.box, _outline(hole)) for hole in made.region.holes]
    for mark in made.marks:
        kind = "pocket" if mark.operation == "pocket" else "mark"
        shapes += [Shape(kind, one.box, _points(one)) for one in mark.shapes]  # type: ignore[arg-type]
    return View(made.title, tuple(shapes), tuple(sizes), tuple(handles))


def _spans(one: SizeOnPart, made: FlatPart) -> bool:
    """Whether a size is that of the whole part: then its line stands beside all of it."""
    left, low, right, high = made.box
    ends = {"below": (left, right, 0), "right": (low, high, 1)}.get(one.side)
    if ends is None:
        return False
    return abs(one.start[ends[2]] - ends[0]) < _NEAR_MM and abs(one.end[ends[2]] - ends[1]) < _NEAR_MM


def _line(one: SizeOnPart, setting: str, whole: bool) -> SizeLine:
    side = one.side if whole else "along"
    return SizeLine("" if whole else one.says, one.value, one.start, one.end, side, 0, setting)


def _handle(one: SizeOnPart, setting: str, step: str, made: FlatPart) -> Iterator[Handle]:
    """In the middle of the side of a step that moves: the right or the upper one."""
    left, low, right, high = next(box_of(named) for named in made.named if named.step == step)
    if one.side == "below":
        yield Handle(setting, (right, (low + high) / 2), "x")
    elif one.side == "right":
        yield Handle(setting, ((left + right) / 2, high), "y")


def _points(shape: Region | Trace) -> tuple[float, ...]:
    if isinstance(shape, Region):
        return _outline(shape.outer)
    return _flat([shape.vertices[0].point, *(point for one in shape.segments for point in _along(one))])


def _outline(ring: Ring) -> tuple[float, ...]:
    if isinstance(ring, Circle):
        turns = [2 * math.pi * i / (4 * _CHORDS) for i in range(4 * _CHORDS)]
        return _flat([(ring.x + ring.radius * math.cos(t), ring.y + ring.radius * math.sin(t)) for t in turns])
    if isinstance(ring, Contour):
        return _flat([point for one in ring.segments for point in _along(one)])
    return _flat([point for one in ring.pieces for point in _piece(one)])


def _along(segment: Segment) -> list[Point]:
    """Its end, and for an arc places on the way there."""
    if segment.bulge == 0:
        return [segment.end]
    return [segment.at((i + 1) / _CHORDS) for i in range(_CHORDS)]


def _piece(piece: Segment | Cubic) -> list[Point]:
    return [piece.at(share) for share in (0.25, 0.5, 0.75, 1.0)] if isinstance(piece, Cubic) else _along(piece)


def _flat(points: list[Point]) -> tuple[float, ...]:
    return tuple(float(one) for point in points for one in point)
