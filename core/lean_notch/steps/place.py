"""Where a step's shape lies: in, what the place is measured from, by name, and the shape; out, where its origin is, with the
lines along which the two distances were measured. Places are on the part, in mm."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

from ..geometry import Box, Motion, Point, Region, Segment, Trace
from ..geometry.contour import join_boxes
from ..ground.errors import BadGeometry, OutOfRange
from ..lengths.said import say_mm
from .patterns import Spread

if TYPE_CHECKING:
    from .shape import ShapeStep

SIDES = ("left", "right", "bottom", "top")
_PARALLEL = 1e-6
_SQUARE = 1e-9


@dataclass(frozen=True)
class Named:
    """What a step drew, by name, for later ones to be measured from. Distances from an edge count to its left, `inward` 1, or
    to its right, -1: towards the material, and into what is marked. `turned` is there for a step on the back: the sum of the
    left and right ends that the part had, between which its places are mirrored."""

    step: str
    inward: int
    edges: tuple[tuple[str, Segment], ...]
    corners: tuple[tuple[str, Point], ...]
    points: tuple[tuple[str, Point], ...]
    turned: float | None = None

    def moved(self, motion: Motion, prefix: str = "") -> Named:
        """As a mirror or a turn leaves it; with `prefix` it is another one, called after that step."""
        turns = -1 if motion.mirrored else 1
        return Named(
            f"{prefix}{self.step}", self.inward * turns,
            tuple((f"{prefix}{name}", motion.segment(edge)) for name, edge in self.edges),
            tuple((f"{prefix}{name}", motion.point(point)) for name, point in self.corners),
            tuple((_prefixed(name, prefix), motion.point(point)) for name, point in self.points),
        )  # fmt: skip


def _prefixed(name: str, prefix: str) -> str:
    sort, _, rest = name.partition(":")
    return f"{sort}:{prefix}{rest}"


def named(
    step: ShapeStep, edges: Sequence[tuple[str, Segment]], corners: Sequence[tuple[str, Point]], box: Box | None
) -> Named:
    """What `step` drew first, `box` round it: `edges` and `corners` by their names within the step."""
    return Named(
        step.id, -1 if step.does == "cut" else 1,
        tuple((f"{step.id}.{name}", edge) for name, edge in edges),
        tuple((f"{step.id}.{name}", corner) for name, corner in corners),
        tuple(_of_box(step.id, box)) if box else (),
    )  # fmt: skip


def _of_box(step: str, box: Box) -> Iterator[tuple[str, Point]]:
    yield f"centre:{step}", in_box(box, "centre")
    for side in SIDES:
        yield f"side:{step}.{side}", in_box(box, side)


def box_of(named: Named) -> Box:
    """The box round what a step drew first, as it was drawn."""
    points = dict(named.points)
    left, right, low, high = (points[f"side:{named.step}.{side}"] for side in ("left", "right", "bottom", "top"))
    return (left[0], low[1], right[0], high[1])


def in_box(box: Box, name: str) -> Point:
    """One of nine places of a box: "top-left", "left", "centre".

    >>> in_box((0, 0, 40, 20), "top"), in_box((0, 0, 40, 20), "bottom-right")
    ((20.0, 20), (40, 0))
    """
    left, low, right, high = box
    x = left if "left" in name else right if "right" in name else (left + right) / 2
    y = low if "bottom" in name else high if "top" in name else (low + high) / 2
    return (x, y)


IN_BOX = ("centre", *SIDES, "bottom-left", "bottom-right", "top-left", "top-right")


@dataclass(frozen=True)
class Measured:
    """A distance of a step's place: `path` is what was typed, from `start` on what it is measured from to `end` on the shape."""

    step: str
    path: str
    start: Point
    end: Point


@dataclass(frozen=True)
class _Line:
    """What a distance counts from: a point or an edge on the part, the unit direction that counts up, and how far along that it
    stands."""

    normal: Point
    base: float
    at: Point
    edge: bool = False


@dataclass(frozen=True)
class Placed:
    """Where a step's own origin is; `pitch` from copy to copy of what is spread evenly."""

    x: float
    y: float
    pitch: float | None
    measured: tuple[Measured, ...]


_AXES: Mapping[str, Point] = {"x": (1.0, 0.0), "y": (0.0, 1.0)}


def place(
    step: ShapeStep, at: Mapping[str, float], shape: Sequence[Region | Trace], own: Mapping[str, Point],
    known: Sequence[Named], ends: Box | None,
) -> Placed:  # fmt: skip
    """Where the origin of `step` comes to lie; `shape` and its `own` corners and middles of edges are as turned,
    about their origin at 0.

    `known` are the earlier steps' names, `ends` the box of the part so far. Raises NotchError at "from_x", "anchor" and so on.
    """
    box = join_boxes([one.box for one in shape]) if shape else (0.0, 0.0, 0.0, 0.0)
    lines = {axis: _line(axis, getattr(step, f"from_{axis}"), getattr(step, f"to_{axis}"), known) for axis in _AXES}
    wanted, anchors = [], []
    for axis, line in lines.items():
        anchor, reach = _anchor(step, line, getattr(step, f"to_{axis}"), shape, box, own)
        anchors.append(anchor)
        wanted.append((line.normal, line.base + at[axis] - reach))
    x, y = _where(wanted)
    pitch = None
    if isinstance(step.pattern, Spread):
        first, pitch = _spread(step.pattern, at, box, known, ends)
        x, y = (first, y) if step.pattern.along == "x" else (x, first)
    spread = step.pattern.along if isinstance(step.pattern, Spread) else ""
    measured = tuple(
        _measured(step, axis, line, (x + anchor[0], y + anchor[1]))
        for (axis, line), anchor in zip(lines.items(), anchors, strict=True)
        if axis != spread
    )
    return Placed(x, y, pitch, measured)


def from_zero(step: ShapeStep) -> bool:
    """Whether a step's own origin is measured from the part's zero, as most are: then there is nothing to work out."""
    plain = not (step.anchor or step.from_x or step.from_y or step.to_x or step.to_y)
    return plain and not isinstance(step.pattern, Spread)


def zero_lines(step: str, x: float, y: float) -> tuple[Measured, ...]:
    return (Measured(step, "x", (0.0, y), (x, y)), Measured(step, "y", (x, 0.0), (x, y)))


def _measured(step: ShapeStep, axis: str, line: _Line, end: Point) -> Measured:
    """From the foot on what it counts from, square to it, to the anchor."""
    away = line.normal[0] * end[0] + line.normal[1] * end[1] - line.base
    return Measured(step.id, axis, (end[0] - away * line.normal[0], end[1] - away * line.normal[1]), end)


def _where(wanted: Sequence[tuple[Point, float]]) -> Point:
    ((ax, ay), a), ((bx, by), b) = wanted
    if (ax, ay, bx, by) == (1.0, 0.0, 0.0, 1.0):
        return (a, b)
    across = ax * by - ay * bx
    if abs(across) < _PARALLEL:
        raise BadGeometry(
            "Both distances are measured the same way, so the place along the edge stays open.",
            fix="Measure one of them from something that runs another way.", field="from_y",
        )  # fmt: skip
    return ((a * by - ay * b) / across, (ax * b - a * bx) / across)


def _line(axis: str, of: str, to: str, known: Sequence[Named]) -> _Line:
    way = _AXES[axis]
    if not of and not to:
        return _Line(way, 0.0, (0.0, 0.0))
    try:
        first = _found(of, way, known)
    except BadGeometry as error:
        raise error.at(f"from_{axis}") from None
    if not to:
        return first
    try:
        second = _found(to, way, known)
    except BadGeometry as error:
        raise error.at(f"to_{axis}") from None
    for line, field in ((first, f"from_{axis}"), (second, f"to_{axis}")):
        _check_square(line, way, field)
    middle = sum(line.at[0] * way[0] + line.at[1] * way[1] for line in (first, second)) / 2
    return _Line(way, middle, (middle * way[0], middle * way[1]))


def _check_square(line: _Line, way: Point, field: str) -> None:
    if abs(line.normal[0] * way[1] - line.normal[1] * way[0]) > _SQUARE:
        across = "across" if way[0] else "up"
        raise BadGeometry(
            f"A slanted edge has no one place to be halfway from, {across}.",
            fix="Use a corner, a centre or an edge that stands square.", field=field,
        )  # fmt: skip


def _found(of: str, way: Point, known: Sequence[Named]) -> _Line:
    if not of:
        return _Line(way, 0.0, (0.0, 0.0))
    sort, _, name = of.partition(":")
    for one in known:
        if sort == "edge":
            edge = dict(one.edges).get(name)
            if edge:
                return beside(edge, one.inward)
        else:
            point = point_of(one, sort, name)
            if point:
                return _Line(way, point[0] * way[0] + point[1] * way[1], point)
    there = list(dict.fromkeys(one.step for one in known))
    raise BadGeometry(
        f"No step before this one has the {sort or 'place'} “{name}”.",
        fix=f"Measure from something of: {', '.join(there[:12])}; or move this step behind the one that makes it."
        if there else "Measure from the part's zero: leave it empty.",
    )  # fmt: skip


def point_of(one: Named, sort: str, name: str) -> Point | None:
    if sort == "corner":
        return dict(one.corners).get(name)
    if sort == "middle":
        edge = dict(one.edges).get(name)
        return edge.at(0.5) if edge else None
    return dict(one.points).get(f"{sort}:{name}")


def beside(edge: Segment, inward: int) -> _Line:
    """Square to an edge, from its chord, towards the side that counts."""
    (x0, y0), (x1, y1) = edge.start, edge.end
    long = math.hypot(x1 - x0, y1 - y0)
    normal = (-(y1 - y0) / long * inward, (x1 - x0) / long * inward)
    snapped = tuple(float(round(one)) if abs(one - round(one)) < _SQUARE else one for one in normal)
    normal = (snapped[0] + 0.0, snapped[1] + 0.0)
    return _Line(normal, normal[0] * x0 + normal[1] * y0, edge.at(0.5), edge=True)


def _anchor(
    step: ShapeStep, line: _Line, to: str, shape: Sequence[Region | Trace], box: Box, own: Mapping[str, Point]
) -> tuple[Point, float]:  # fmt: skip
    """Where the anchor is from the shape's origin, and how far that is along what counts."""
    name = step.anchor or ("centre" if to else "")
    if not name and line.edge and shape:
        return nearest(shape, line.normal)
    if not name:
        point = (0.0, 0.0)
    elif name in own:
        point = own[name]
    elif name in IN_BOX:
        point = in_box(box, name)
    else:
        raise BadGeometry(
            f"The shape has no anchor “{name}”.", fix=f"Use: {', '.join((*IN_BOX, *own)[:20])}.", field="anchor"
        )
    return point, point[0] * line.normal[0] + point[1] * line.normal[1]


def nearest(shape: Sequence[Region | Trace], normal: Point) -> tuple[Point, float]:
    """The place of a shape that lies least far along `normal`: in the middle, where several do."""
    turn = Motion(angle=-math.degrees(math.atan2(normal[1], normal[0])))
    if abs(normal[0]) == 1 or abs(normal[1]) == 1:
        turn = replace(turn, angle=float(round(turn.angle)))
    box = join_boxes([(turn.region(one) if isinstance(one, Region) else turn.trace(one)).box for one in shape])
    return turn.back((box[0], (box[1] + box[3]) / 2)), box[0]


def _spread(
    pattern: Spread, at: Mapping[str, float], box: Box, known: Sequence[Named], ends: Box | None
) -> tuple[float, float]:  # fmt: skip
    """Where the first copy's origin is along the pattern's way, and the pitch."""
    way, i = _AXES[pattern.along], 0 if pattern.along == "x" else 1
    bounds = []
    for of, field, default in ((pattern.start, "start", i), (pattern.end, "end", i + 2)):
        if not of:
            bounds.append(ends[default] if ends else 0.0)
            continue
        try:
            line = _found(of, way, known)
        except BadGeometry as error:
            raise error.at(f"pattern/{field}") from None
        _check_square(line, way, f"pattern/{field}")
        bounds.append(line.at[i])
    low, high = sorted(bounds)
    count, size, room = int(at["pattern/count"]), box[i + 2] - box[i], high - low
    margin = at.get("pattern/margin")
    if pattern.by == "centres":
        pitch = room / (count + 1) if margin is None else (room - 2 * margin) / max(count - 1, 1)
        start = pitch if margin is None else margin
        first = low + (start if count > 1 or margin is None else room / 2) - (box[i] + box[i + 2]) / 2
        fits, gap = pitch > 0, pitch
    else:
        gap = (
            (room - count * size) / (count + 1)
            if margin is None
            else (room - 2 * margin - count * size) / max(count - 1, 1)
        )
        pitch = gap + size
        first = low + (gap if margin is None else margin if count > 1 else (room - size) / 2) - box[i]
        fits = gap >= 0
    if not fits:
        most = int((room - 2 * (margin or 0.0)) / size) if size > 0 else 0
        raise OutOfRange(
            f"{count} of {say_mm(size)} do not fit into {say_mm(room)}: {say_mm(-gap)} is missing at each gap.",
            fix=f"Use at most {most}, make them narrower, or spread them further." if most > 0
            else "Make them narrower, or spread them further.",
            field="pattern/count",
        )  # fmt: skip
    return first, pitch
