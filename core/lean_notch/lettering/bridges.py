"""Stencil bridges: in, the letters to be cut out; out, the same letters with bars left standing to hold their islands, and what of
them is lost.

All bars of one text run the same way where that holds, on one axis through each island, with two parallel edges, and as square
to the walls they meet as the letter allows. A bar runs through its island, so that it is as wide as told also where the island is not.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from ..geometry import Motion, Point, Region, Ring, Segment, rectangle
from .text import Letter

SQUARE_WITHIN = math.radians(25)
"""Bars that meet a wall more askew look torn and leave thin points."""

LEAST_SHARE = 0.5
"""A letter of which less is left cannot be read. Common practice."""

_TRIES = 41
_COLUMNS = 9
_SPECK_SHARE = 0.25  # of a bar's width squared: what a bar leaves over of a thin stroke
_SPECKS_SHARE = 0.02  # of a letter: more that is left over is not its bridges


Why = Literal["thin", "torn", "drops"]


@dataclass(frozen=True)
class Lost:
    """A letter that is not cut as it was asked for: bars take more than half of it, or a part that is more than its bridges; or an
    island of it drops out."""

    letter: str
    why: Why


@dataclass(frozen=True)
class Bridged:
    """`cut` is what is cut out after bridging; `bridges` are the bars' middles; `steep` those meeting a wall askew."""

    cut: tuple[Region, ...]
    bridges: tuple[Point, ...]
    steep: tuple[Point, ...]
    lost: tuple[Lost, ...] = ()


def bridged(letters: Sequence[Letter], width: float) -> Bridged:
    """`letters` with every island held by bars `width` mm wide, upright or level, whichever meets the walls squarer.

    A shape without islands stays as it is. With no width nothing is held.
    """
    shapes = [shape for letter in letters for shape in letter.regions]
    if width <= 0 or not any(shape.holes for shape in shapes):
        drops = dict.fromkeys(one.character for one in letters if any(shape.holes for shape in one.regions))
        return Bridged(tuple(shapes), (), (), tuple(Lost(letter, "drops") for letter in drops))
    return _bridged(letters, shapes, _views(shapes), width)


def least_height(letters: Sequence[Letter], height: float, width: float) -> float | None:
    """How high letters that are `height` mm high must be at least for bars of `width` to leave them whole, upwards to 0.5 mm; None where
    not even sixteen times that does. What matters is how wide bars are for the letters: they are made narrower here."""
    shapes = [shape for letter in letters for shape in letter.regions]
    views = _views(shapes)

    def whole(share: float) -> bool:
        return not _bridged(letters, shapes, views, width / share).lost

    low = high = 1.0
    while not whole(high):
        low, high = high, high * 1.5
        if high > 16:
            return None
    while (high - low) * height > 0.25:
        middle = (low + high) / 2
        low, high = (low, middle) if whole(middle) else (middle, high)
    return math.ceil(2 * high * height) / 2


_Views = Mapping[float, Sequence["_View"]]


def _views(shapes: Sequence[Region]) -> _Views:
    return {turned: [_View(shape, turned) for shape in shapes] for turned in (0.0, 90.0)}


def _bridged(letters: Sequence[Letter], shapes: Sequence[Region], views: _Views, width: float) -> Bridged:
    ways = {turned: [view.bars(width) for view in some] for turned, some in views.items()}
    usual = min(ways, key=lambda turned: sum(bar.askew for bars in ways[turned] for bar in bars))
    held = _held(shapes, ways[usual], width, usual)
    # What no bar of the usual way holds may be held across it.
    wrong = [i for i, one in enumerate(held) if one.drops]
    across = 90.0 - usual
    others = _held([shapes[i] for i in wrong], [ways[across][i] for i in wrong], width, across)
    for i, other in zip(wrong, others, strict=True):
        if not other.drops:
            held[i] = other
    bars = [bar for one in held for bar in one.bars]
    return Bridged(
        tuple(region for one in held for region in one.cut), tuple(place for place, _ in bars),
        tuple(place for place, askew in bars if askew > SQUARE_WITHIN), tuple(_lost(letters, held)),
    )  # fmt: skip


@dataclass(frozen=True)
class _Held:
    """A shape less its bars: what is cut, the bars' middles with how far off square they are, and the area of specks left out."""

    cut: Sequence[Region]
    bars: Sequence[tuple[Point, float]] = ()
    specks: float = 0.0

    @property
    def drops(self) -> bool:
        return any(region.holes for region in self.cut)


def _held(shapes: Sequence[Region], bars: Sequence[list[_Bar]], width: float, turned: float) -> list[_Held]:
    """Each shape less its own bars, without specks, and the bars' middles with how far off square they are."""
    from ..geometry.boolean import combine

    back = Motion(angle=turned)
    less = [
        [
            back.region(Region(rectangle(low.at - width / 2, low.low, width, high.high - low.low)))
            for low, high in _pairs(some)
        ]
        for some in bars
    ]
    barred = [i for i, some in enumerate(less) if some]
    results = [_Held([shape]) for shape in shapes]
    cut = combine([([shapes[i]], less[i]) for i in barred], "difference") if barred else []
    for i, pieces in zip(barred, cut, strict=True):
        kept = [region for region in pieces if region.area > _SPECK_SHARE * width**2]
        specks = math.fsum(region.area for region in pieces) - math.fsum(region.area for region in kept)
        middles = [
            (back.point((bar.at, (bar.low + bar.high) / 2)), bar.askew) for bar in _without_doubles(bars[i], width)
        ]
        results[i] = _Held(kept, middles, specks)
    return results


def _pairs(bars: Sequence[_Bar]) -> Iterator[tuple[_Bar, _Bar]]:
    return zip(bars[::2], bars[1::2], strict=True)


def _lost(letters: Sequence[Letter], held: Sequence[_Held]) -> Iterator[Lost]:
    """Told from areas: what was asked for, and what is left of it."""
    at, told = 0, set[str]()
    for letter in letters:
        some = held[at : at + len(letter.regions)]
        at += len(letter.regions)
        whole = math.fsum(region.area for region in letter.regions)
        left = math.fsum(region.area for one in some for region in one.cut)
        why: Why | None = None
        if any(one.drops for one in some):
            why = "drops"
        elif left < LEAST_SHARE * whole:
            why = "thin"
        elif math.fsum(one.specks for one in some) > _SPECKS_SHARE * whole:
            why = "torn"
        if why and letter.character not in told:
            told.add(letter.character)
            yield Lost(letter.character, why)


@dataclass(frozen=True)
class _Bar:
    """An upright bar through a void: its axis, from where to where, and how far off square it meets a wall."""

    at: float
    low: float
    high: float
    askew: float


class _View:
    """A shape seen turned back by `turned` degrees, its walls at hand by where they lie across."""

    def __init__(self, shape: Region, turned: float) -> None:
        self.shape = Motion(angle=-turned).region(shape) if shape.holes else shape
        self.walls = [
            (left, right, segment, ring)
            for ring in (self.shape.rings if shape.holes else ())
            for segment in ring.segments
            for left, _, right, _ in (segment.box,)
        ]

    def bars(self, width: float) -> list[_Bar]:
        """Upright bars for its islands: the one below and the one above each."""
        # Holes run clockwise: the largest comes first.
        islands = sorted(self.shape.holes, key=lambda hole: hole.area)
        return [bar for island in islands for bar in self._pair(island, width)]

    def _pair(self, island: Ring, width: float) -> list[_Bar]:
        """On the axis where they meet the walls squarest, near the island's middle."""
        left, _, right, _ = island.box
        middle, room = (left + right) / 2, max((right - left - width) / 2, 0.0)
        places = [middle + room * (2 * index / (_TRIES - 1) - 1) for index in range(_TRIES if room else 1)]
        tries: list[list[_Bar]] = []
        for x in sorted(places, key=lambda x: abs(x - middle)):
            if bars := self._at(island, x, width):
                if all(bar.askew <= SQUARE_WITHIN for bar in bars):
                    return bars
                tries.append(bars)
        return min(tries, key=lambda bars: max(bar.askew for bar in bars), default=[])

    def _at(self, island: Ring, x: float, width: float) -> list[_Bar]:
        """The void just below and just above `island` along the axis at `x`, as far as it goes anywhere across the bar."""
        beside = [self._heights(x + width * (i / (_COLUMNS - 1) - 0.5)) for i in range(_COLUMNS)]
        here = beside[_COLUMNS // 2]
        own = [index for index, (_, _, segment, ring) in enumerate(here) if ring is island]
        if not own or len(here) % 2:
            return []
        low, high = own[0], own[-1]
        if low % 2 == 0 or high % 2 == 1 or low == 0 or high + 1 >= len(here):
            return []
        sides = (beside[0], beside[-1])
        askew = [
            max([wall[1], *(s for side in sides for _, s, segment, _ in side if segment is wall[2])]) for wall in here
        ]
        below, above = (here[low - 1][0], here[low][0]), (here[high][0], here[high + 1][0])
        voids = [(a[0], b[0]) for column in beside for a, b in zip(column[::2], column[1::2], strict=False)]
        slack = 0.01 * width
        deepest = min(a for a, b in [below, *voids] if a < below[1] and b > below[0])
        highest = max(b for a, b in [above, *voids] if a < above[1] and b > above[0])
        return [
            _Bar(x, deepest - slack, below[1], max(askew[low - 1], askew[low])),
            _Bar(x, above[0], highest + slack, max(askew[high], askew[high + 1])),
        ]

    def _heights(self, x: float) -> list[tuple[float, float, Segment, Ring]]:
        """Where an upright line at `x` meets walls, from below: the height, how far off level the wall is there, and which it is."""
        found = [
            (y, slope, segment, ring)
            for left, right, segment, ring in self.walls
            if left <= x <= right
            for y, slope in _heights(segment, x)
        ]
        return sorted(found, key=lambda one: one[0])


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
