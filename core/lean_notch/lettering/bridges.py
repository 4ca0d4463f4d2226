"""Stencil bridges: in, the shapes to be cut out; out, the same shapes with bars left standing to hold their islands.

All bars of one text run the same way, in pairs on one axis through each island, with two parallel edges, and as square
to the walls they meet as the letter allows.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from ..geometry import Motion, Point, Region, Ring, Segment, rectangle

SQUARE_WITHIN = math.radians(25)
"""Bars that meet a wall more askew look torn and leave thin points."""

_TRIES = 41
_SPECK_SHARE = 0.25  # of a bar's width squared: what a bar leaves over of a thin stroke


@dataclass(frozen=True)
class Bridged:
    """`cut` is what is cut out after bridging; `bridges` are the bars' middles; `steep` those meeting a wall askew."""

    cut: tuple[Region, ...]
    bridges: tuple[Point, ...]
    steep: tuple[Point, ...]


def bridged(shapes: Sequence[Region], width: float) -> Bridged:
    """`shapes` with every island held by bars `width` mm wide, upright or level, whichever meets the walls squarer.

    A shape without islands stays as it is.
    """
    if not any(shape.holes for shape in shapes):
        return Bridged(tuple(shapes), (), ())
    from ..geometry.boolean import difference

    ways = [_bars(shapes, width, turned) for turned in (0.0, 90.0)]
    turned, bars = min(((0.0, ways[0]), (90.0, ways[1])), key=lambda way: sum(bar.askew for bar in way[1]))
    back = Motion(angle=turned)
    rectangles = [
        back.region(Region(rectangle(bar.at - width / 2, bar.low, width, bar.high - bar.low))) for bar in bars
    ]
    cut = [region for region in difference(shapes, rectangles) if region.area > _SPECK_SHARE * width**2]
    middles = [back.point((bar.at, (bar.low + bar.high) / 2)) for bar in bars]
    steep = [place for place, bar in zip(middles, bars, strict=True) if bar.askew > SQUARE_WITHIN]
    return Bridged(tuple(cut), tuple(middles), tuple(steep))


@dataclass(frozen=True)
class _Bar:
    """An upright bar through a void: its axis, from where to where, and how far off square it meets a wall."""

    at: float
    low: float
    high: float
    askew: float


def _bars(shapes: Sequence[Region], width: float, turned: float) -> list[_Bar]:
    """Upright bars for the islands of `shapes`, seen turned back by `turned` degrees."""
    back = Motion(angle=-turned)
    bars: list[_Bar] = []
    for shape in map(back.region, shapes):
        for island in sorted(shape.holes, key=lambda hole: hole.area):  # holes run clockwise: the largest comes first
            bars += _pair(shape, island, width)
    return _without_doubles(bars, width)


def _pair(shape: Region, island: Ring, width: float) -> list[_Bar]:
    """The bars above and below an island, on the axis where they meet the walls squarest, near its middle."""
    left, _, right, _ = island.box
    middle, room = (left + right) / 2, max((right - left - width) / 2, 0.0)
    places = [middle + room * (2 * index / (_TRIES - 1) - 1) for index in range(_TRIES)]
    tries: list[list[_Bar]] = []
    for x in sorted(places, key=lambda x: abs(x - middle)):
        if bars := _at(shape, island, x, width):
            if all(bar.askew <= SQUARE_WITHIN for bar in bars):
                return bars
            tries.append(bars)
    return min(tries, key=lambda bars: max(bar.askew for bar in bars), default=[])


def _at(shape: Region, island: Ring, x: float, width: float) -> list[_Bar]:
    """The void just above and just below `island` along the axis at `x`."""
    walls = sorted((y, askew, ring is island) for ring in shape.rings for y, askew in _walls(ring.segments, x, width))
    own = [index for index, (_, _, mine) in enumerate(walls) if mine]
    if not own or len(walls) % 2:
        return []
    low, high = own[0], own[-1]
    if low % 2 == 0 or high % 2 == 1 or low == 0 or high + 1 >= len(walls):
        return []
    slack = width / 2  # the bar reaches into the material on both sides, so that slanted walls are crossed whole
    return [
        _Bar(
            x,
            walls[a][0] - _reach(walls[a][1], slack),
            walls[b][0] + _reach(walls[b][1], slack),
            max(walls[a][1], walls[b][1]),
        )
        for a, b in ((low - 1, low), (high, high + 1))
    ]


def _reach(askew: float, slack: float) -> float:
    return slack * min(math.tan(askew), 20.0) + 0.01 * slack


def _walls(segments: Sequence[Segment], x: float, width: float) -> list[tuple[float, float]]:
    """Where an upright line meets `segments`: the height, and how far off level the wall is there or at a bar's edges."""
    found = []
    for segment in segments:
        for y, slope in _heights(segment, x):
            edges = [slope]
            for beside in (x - width / 2, x + width / 2):
                edges += [s for _, s in _heights(segment, beside)][:1]
            found.append((y, max(edges)))
    return found


def _heights(segment: Segment, x: float) -> list[tuple[float, float]]:
    """(height, angle off level) where a segment crosses the upright line at `x`; its start counts, its end does not."""
    (x0, y0), (x1, y1) = segment.start, segment.end
    if segment.bulge == 0:
        if (x0 <= x) == (x1 <= x):
            return []
        share = (x - x0) / (x1 - x0)
        return [(y0 + share * (y1 - y0), abs(math.atan2(y1 - y0, abs(x1 - x0))))]
    (cx, cy), radius = segment.centre, segment.radius
    if abs(x - cx) >= radius:
        return []
    half = math.sqrt(radius**2 - (x - cx) ** 2)
    found = []
    for y in (cy - half, cy + half):
        cross = (x1 - x0) * (y - y0) - (y1 - y0) * (x - x0)
        if cross * segment.bulge < 0:
            found.append((y, abs(math.asin(min(1.0, abs(x - cx) / radius)))))
    return found


def _without_doubles(bars: Sequence[_Bar], width: float) -> list[_Bar]:
    """Two islands in a row share the bar between them."""
    kept: list[_Bar] = []
    for bar in bars:
        middle = (bar.low + bar.high) / 2
        if not any(abs(bar.at - o.at) < width and o.low <= middle <= o.high for o in kept):
            kept.append(bar)
    return kept
