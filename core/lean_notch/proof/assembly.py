"""The as-cut parts stood up in space: in, finished pieces and where they stand; out, where two share material or nobody has any.

Each part is its finished outline, as thick as its board's mean. Boards that cross at a right angle are compared exactly: along
the line that both share, each has stretches of material, and any point of one meets any point of the other. Askew ones are
compared in sections.
"""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

import numpy as np

from ..geometry import Point
from ..geometry.segments import Floats
from ..geometry.space import Frame, Triple, block_box, cross, dot, minus, unit
from ..joints import Change, Mate
from ..joints.mate import Line
from .contacts import Gauge

if TYPE_CHECKING:
    import shapely

CLASH_MM = 0.05
"""Parts that share less than this in every direction only touch: it is less than a board varies. The one limit for what any two
parts may share, drawn or as cut; a press fit may share as much more as it presses."""

FILLED_MM = 0.1
"""A gap along a joint's bar that is wider than the clearance by this is a hole. Common practice: less is not seen."""

MOST_PAIRS = 20_000
_SQUARE = 1e-6
_LEVELS = 9


@dataclass(frozen=True)
class Body:
    """A part as cut, where it stands: the piece in its gauge lies flat in its own frame."""

    placement: str
    part: str
    frame: Frame
    thickness: float
    gauge: Gauge

    @property
    def shape(self) -> shapely.Geometry:
        return self.gauge.piece

    def without_corners(self, corners: Sequence[Point], radius: float) -> Body:
        """The body less what lies within `radius` of some places in either direction."""
        import shapely

        if not corners:
            return self
        reach = radius + CLASH_MM
        boxes = [shapely.box(x - reach, y - reach, x + reach, y + reach) for x, y in corners]
        return replace(self, gauge=Gauge(shapely.difference(self.shape, shapely.union_all(boxes))))

    def box(self) -> tuple[Triple, Triple]:
        return block_box(self.frame, self.shape.bounds, self.thickness)


@dataclass(frozen=True)
class Shared:
    """Material that two bodies share: its extent along the line where they cross and into either, and its middle."""

    first: Body
    second: Body
    size: tuple[float, float, float]
    place: Triple

    @property
    def amount(self) -> float:
        return min(self.size)


def near_pairs(bodies: Sequence[Body], reach: float = CLASH_MM) -> list[tuple[int, int]]:
    """Which bodies' boxes overlap by more than `reach` in every direction; a negative one lets them be that far apart."""
    import shapely

    if len(bodies) < 2:
        return []
    boxes = np.array([body.box() for body in bodies])
    low, high = boxes[:, 0], boxes[:, 1]
    apart = max(-reach, 0.0)
    flat = shapely.box(low[:, 0] - apart, low[:, 1] - apart, high[:, 0] + apart, high[:, 1] + apart)
    a, b = shapely.STRtree(flat).query(flat)
    ahead = a < b
    a, b = a[ahead], b[ahead]
    overlap = np.minimum(high[a], high[b]) - np.maximum(low[a], low[b])
    deep = (overlap > reach).all(axis=1)
    return list(zip(a[deep].tolist(), b[deep].tolist(), strict=True))


def shared_when_joined(
    first: Body, second: Body, allowed: float, corners: Mapping[str, Sequence[Point]], radius: float
) -> list[Shared]:  # fmt: skip
    """As `shared`, of two members of a joint, without what a beam of `radius` leaves in the inside `corners` of either (by its
    placement): that gives way, or is told as a corner that is blocked."""
    if not shared(first, second, allowed):
        return []
    bare = [body.without_corners(corners[body.placement], radius) for body in (first, second)]
    return shared(bare[0], bare[1], allowed)


def shared(first: Body, second: Body, allowed: float = CLASH_MM) -> list[Shared]:
    """Where two bodies have material in one place, more than `allowed` in every direction, the most first."""
    n, m = first.frame.n, second.frame.n
    cosine = dot(n, m)
    if abs(cosine) > 1 - 1e-9:
        found = _flat(first, second, allowed)
    elif abs(cosine) <= _SQUARE:
        found = _square(first, second, allowed)
    else:
        found = _askew(first, second, allowed)
    return sorted(found, key=lambda one: -one.amount)


def _flat(first: Body, second: Body, allowed: float) -> Iterator[Shared]:
    """Of two boards whose faces are parallel."""
    import shapely

    depths = sorted(first.frame.depth(second.frame.at((0.0, 0.0), z)) for z in (0.0, second.thickness))
    low, high = max(0.0, depths[0]), min(first.thickness, depths[1])
    if high - low <= allowed:
        return
    both = shapely.intersection(first.shape, _onto(first.frame, second.frame, second.shape))
    for piece in shapely.get_parts(shapely.buffer(both, -allowed / 2, quad_segs=2)):
        if not piece.is_empty:
            left, bottom, right, top = piece.bounds
            place = piece.representative_point()
            yield Shared(
                first, second, (right - left + allowed, top - bottom + allowed, high - low),
                first.frame.at((place.x, place.y), (low + high) / 2),
            )  # fmt: skip


def _onto(target: Frame, source: Frame, shape: shapely.Geometry) -> shapely.Geometry:
    """A shape on one frame's plane, looked at squarely from another one's."""
    import shapely

    turn = np.array(
        [[dot(source.u, target.u), dot(source.u, target.v)], [dot(source.v, target.u), dot(source.v, target.v)]]
    )
    move = np.array(target.flat(source.origin))
    return shapely.transform(shape, lambda xy: xy @ turn + move)


@dataclass(frozen=True)
class _Lane:
    """A body in the coordinates of a crossing: along the line that both share, and across it in its own plane."""

    along: Point
    across: Point
    shape: shapely.Geometry

    def place(self, at: float, out: float) -> Point:
        return (
            at * self.along[0] + out * self.across[0], at * self.along[1] + out * self.across[1],
        )  # fmt: skip


def _lane(body: Body, axis: Triple, base: Triple) -> _Lane:
    """Positions count along `axis` from `base`'s own; the way across is the axis turned to the left on the part."""
    import shapely

    frame = body.frame
    along = (dot(axis, frame.u), dot(axis, frame.v))
    across = (-along[1], along[0])
    turn = np.array([[along[0], across[0]], [along[1], across[1]]])
    shift = np.array([dot(axis, minus(frame.origin, base)), 0.0])
    return _Lane(along, across, shapely.transform(body.shape, lambda xy: xy @ turn + shift))


def _band(body: Body, other: Body, lane: _Lane) -> tuple[float, float]:
    """Between which places across its lane `other`'s board crosses a body's plane, at right angles."""
    origin = other.frame.depth(body.frame.origin)
    per = other.frame.depth(body.frame.at(lane.across)) - origin
    low, high = sorted(((0.0 - origin) / per, (other.thickness - origin) / per))
    return low, high


def _square(first: Body, second: Body, allowed: float) -> Iterator[Shared]:
    """Of two boards at a right angle."""
    axis, base = unit(cross(first.frame.n, second.frame.n)), first.frame.origin
    lanes = [_lane(body, axis, base) for body in (first, second)]
    bands = [_band(first, second, lanes[0]), _band(second, first, lanes[1])]
    # Seats that are flush stick to the band's edges: it is taken a little narrower.
    stretches = [list(_stretches(lane.shape, band, allowed / 2)) for lane, band in zip(lanes, bands, strict=True)]
    for low, high, shape in stretches[0]:
        for start, end, other in stretches[1]:
            a, b = max(low, start), min(high, end)
            if b - a <= allowed:
                continue
            for p, q, mine, theirs in _runs(shape, other, a, b, allowed):
                middle = (p + q) / 2
                place = lanes[0].place(middle - dot(axis, minus(first.frame.origin, base)), sum(mine) / 2)
                beside = lanes[1].place(middle - dot(axis, minus(second.frame.origin, base)), sum(theirs) / 2)
                depth = first.frame.depth(second.frame.at(beside))
                # On one side at least the band was taken narrower.
                size = (q - p, mine[1] - mine[0] + allowed / 2, theirs[1] - theirs[0] + allowed / 2)
                yield Shared(first, second, size, first.frame.at(place, depth))


def crossings(first: Body, second: Body) -> Iterator[tuple[Point, Point]]:
    """Where the first has material in the second's board, at a right angle to it: from where to where along the middle of its
    thickness, flat on the second."""
    if abs(dot(first.frame.n, second.frame.n)) > _SQUARE:
        return
    axis, base = unit(cross(first.frame.n, second.frame.n)), first.frame.origin
    mine, theirs = (_lane(body, axis, base) for body in (first, second))
    shift = dot(axis, minus(second.frame.origin, base))
    middle = sum(_band(second, first, theirs)) / 2
    for start, end, _ in _stretches(mine.shape, _band(first, second, mine), CLASH_MM / 2):
        yield theirs.place(start - shift, middle), theirs.place(end - shift, middle)


Span = tuple[float, float]


def _runs(
    shape: shapely.Geometry, other: shapely.Geometry, start: float, end: float, allowed: float
) -> Iterator[tuple[float, float, Span, Span]]:
    """Of two pieces that both run from `start` to `end` along the line: from where to where both reach across by more than
    `allowed`, and how far either does there."""
    whole = [_across(piece, start, end) for piece in (shape, other)]
    if any(one is None or one[1] - one[0] <= 0 for one in whole):
        return
    turns = np.unique(np.concatenate([_corners_along(piece) for piece in (shape, other)]))
    places = [start, *turns[(turns > start + _SQUARE) & (turns < end - _SQUARE)].tolist(), end]
    run: tuple[float, float, Span, Span] | None = None
    for p, q in itertools.pairwise(places):
        mine, theirs = _across(shape, p, q), _across(other, p, q)
        both = mine and theirs and _lesser(mine, theirs) > allowed / 2
        if mine and theirs and both:
            start = run[0] if run else p
            # It may change from place to place what reaches how far: the worst of them tells.
            worst = run[2:] if run and _lesser(*run[2:]) >= _lesser(mine, theirs) else (mine, theirs)
            run = (start, q, *worst)
        if run and (not both or q == end):
            if run[1] - run[0] > allowed:
                yield run
            run = None


def _lesser(one: Span, two: Span) -> float:
    return min(one[1] - one[0], two[1] - two[0])


def _corners_along(piece: shapely.Geometry) -> Floats:
    import shapely

    return shapely.get_coordinates(piece)[:, 0]  # type: ignore[no-any-return]


def _stretches(
    shape: shapely.Geometry, band: tuple[float, float], inset: float
) -> Iterator[tuple[float, float, shapely.Geometry]]:
    import shapely

    low, high = band[0] + inset, band[1] - inset
    left, bottom, right, top = shape.bounds
    if high <= low or top <= low or bottom >= high:
        return
    for piece in shapely.get_parts(clipped(shape, left - 1, low, right + 1, high)):
        if piece.geom_type == "Polygon" and piece.area > 0:
            start, _, end, _ = piece.bounds
            yield start, end, piece


def clipped(shape: shapely.Geometry, left: float, low: float, right: float, high: float) -> shapely.Geometry:
    """What of a shape lies in a box. The quick way of the library fails where an edge of the box runs along one of the shape's."""
    import shapely

    try:
        return shapely.clip_by_rect(shape, left, low, right, high)
    except shapely.GEOSException:
        return shapely.intersection(shape, shapely.box(left, low, right, high))


def _across(piece: shapely.Geometry, start: float, end: float) -> tuple[float, float] | None:
    import shapely

    _, low, _, high = piece.bounds
    left, _, right, _ = piece.bounds
    if start <= left and end >= right:
        return low, high
    part = clipped(piece, start, low - 1, end, high + 1)
    if part.is_empty:
        return None
    # It may be in several pieces there: the widest tells.
    bounds = [one.bounds for one in shapely.get_parts(part)]
    return max(((low, high) for _, low, _, high in bounds), key=lambda one: one[1] - one[0])


def _askew(first: Body, second: Body, allowed: float) -> Iterator[Shared]:
    """Of two boards at any other angle: sections parallel to the first one's face, the second sheared onto it."""
    import shapely

    axis, base = unit(cross(first.frame.n, second.frame.n)), first.frame.origin
    lanes = [_lane(body, axis, base) for body in (first, second)]
    out, theirs = first.frame.towards(lanes[0].across), second.frame.towards(lanes[1].across)
    best: Shared | None = None
    count = 0
    for depth in np.linspace(allowed / 2, first.thickness - allowed / 2, _LEVELS):
        start = first.frame.at((0.0, 0.0), float(depth))
        sunk, sunk_per = second.frame.depth(start), -dot(second.frame.n, out)
        low, high = sorted((-sunk / sunk_per, (second.thickness - sunk) / sunk_per))
        across, across_per = dot(minus(start, second.frame.origin), theirs), dot(out, theirs)
        seen = shapely.transform(
            lanes[1].shape, lambda xy, a=across, k=across_per: np.stack([xy[:, 0], (xy[:, 1] - a) / k], axis=1)
        )
        mine = clipped(lanes[0].shape, *_wide(lanes[0].shape, low + allowed / 2, high - allowed / 2))
        both = shapely.buffer(shapely.intersection(mine, seen), -allowed / 2, quad_segs=2)
        if both.is_empty:
            continue
        count += 1
        piece = max(shapely.get_parts(both), key=lambda one: one.area)
        left, bottom, right, top = piece.bounds
        spot = piece.representative_point()
        flat = lanes[0].place(spot.x, spot.y)
        one = Shared(
            first, second, (right - left + allowed, top - bottom + allowed, first.thickness),
            first.frame.at(flat, float(depth)),
        )  # fmt: skip
        best = one if best is None or one.amount > best.amount else best
    if best:
        deep = count * first.thickness / _LEVELS
        yield Shared(first, second, (*best.size[:2], max(deep, 2 * allowed)), best.place)


def _wide(shape: shapely.Geometry, low: float, high: float) -> tuple[float, float, float, float]:
    left, _, right, _ = shape.bounds
    return (left - 1, low, right + 1, max(high, low))


@dataclass(frozen=True)
class Hole:
    """A stretch of a joint's bar where no part has material: where in space, how long, and how much, in mm³."""

    mate: Mate
    place: Triple
    length: float
    volume: float


_SHARES = (0.5, 0.05)
"""How deep in the bar it is looked along: half-way, and near its outer edge, where corners are rounded."""


def bar_lines(mate: Mate) -> Iterator[tuple[Change, Line]]:
    """The lines that `holes` looks along, on either member."""
    meeting = mate.meeting
    if meeting.shares_bar:
        start, end = -meeting.ends[0].block, meeting.length + meeting.ends[1].block
        for share in _SHARES:
            for change, strip in ((mate.first, meeting.first), (mate.second, meeting.second)):
                yield change, (strip.point(start, share * strip.high), strip.point(end, share * strip.high))


def holes(mate: Mate, first: Body, second: Body, bodies: Sequence[Body], radius: float) -> Iterator[Hole]:
    """Along the bar that two members share, corners included: where neither has material, nor anybody else.

    What a tool of `radius` takes beside a corner as relief is no hole.
    """
    meeting, lines = mate.meeting, list(bar_lines(mate))
    start, end = -meeting.ends[0].block, meeting.length + meeting.ends[1].block
    gap = max((contact.clearance for contact in mate.contacts), default=0.0) / 2 + FILLED_MM + 2.1 * radius
    worst: Hole | None = None
    for share, both in zip(_SHARES, (lines[:2], lines[2:]), strict=True):
        stretches = [
            one for body, (_, line) in zip((first, second), both, strict=False) for one in body.gauge.material(line)
        ]
        reached = 0.0
        for low, high in [*sorted(stretches), (end - start, math.inf)] if both else ():
            if low - reached > gap:
                middle = start + (low + reached) / 2
                place = first.frame.at(
                    meeting.first.point(middle, share * meeting.first.high), share * meeting.second.high
                )
                others = (one for one in bodies if one not in (first, second) and _holds(one, place))
                if next(others, None) is None:
                    one = Hole(mate, place, low - reached, (low - reached) * meeting.first.high * meeting.second.high)
                    worst = one if worst is None or one.length > worst.length else worst
            reached = max(reached, high)
    if worst:
        yield worst


def _holds(body: Body, place: Triple) -> bool:
    import shapely

    if not -CLASH_MM <= body.frame.depth(place) <= body.thickness + CLASH_MM:
        return False
    return bool(shapely.contains(body.shape, shapely.Point(body.frame.flat(place))))
