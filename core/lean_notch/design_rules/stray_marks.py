"""Marks held against their part: in, a part as built; out, those that are drawn twice, and those that run over an opening or
beyond an edge, where there is nothing to mark. Places are on the part.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING

from ..cutting.areas import as_one
from ..geometry import flatten, loops
from ..ground.errors import TooMuchWork
from ..ground.findings import Finding
from ..ground.remembered import remembered
from ..ground.wording import capital
from ..lengths.said import say_mm
from ..making import FlatMark, FlatPart

if TYPE_CHECKING:
    import shapely

BESIDE_MM = 0.2
"""A mark may run this far over an edge: less is not seen beside what the cut takes there. Common practice."""

TWICE_MM = 0.02
"""Two lines this near to each other are one that is drawn twice."""

LEAST_TWICE_MM, LEAST_TWICE_MM2 = 1.0, 0.5
"""Less is how lines meet and areas touch."""

_CHORD_MM = 0.01


MOST_PAIRS = 20_000
"""Shapes of marks on one part that come near each other: what is compared."""


def marks_on(part: FlatPart) -> Iterator[Finding]:
    """One finding a mark and fault. A pocket may run out over an edge, and a fold across an opening: both are common practice."""
    marks = _seen(part)
    fold = next((mark for mark in marks if mark.operation == "fold"), None)
    if fold:
        yield Finding(
            "flat-length", "unseen",
            f"{part.title} is folded: its flat length is not computed, so that it is not known how large it is once it is bent.",
            "Bend a strip of this board first, and give the part the length that it needs.", part.id, field=fold.field,
        )  # fmt: skip
    if marks:
        yield from _found(part)


def _seen(part: FlatPart) -> list[FlatMark]:
    return [mark for mark in part.marks if mark.operation in ("score", "engrave", "fold")]


@remembered(1024)
def _found(part: FlatPart) -> tuple[Finding, ...]:
    marks = _seen(part)
    return (*_beyond(part, marks), *_twice(part, marks))


def _beyond(part: FlatPart, marks: Sequence[FlatMark]) -> Iterator[Finding]:
    import shapely

    outer, holes = loops(part.region, _CHORD_MM)
    around = shapely.Polygon(outer)
    board = shapely.Polygon(outer, holes).buffer(BESIDE_MM, quad_segs=2)
    shapely.prepare(board)
    for mark in marks:
        drawn = [one for one in (*_areas(mark), *_traces(mark)) if not shapely.covers(board, one)]
        if mark.operation == "fold" or not drawn:
            continue
        over = shapely.difference(shapely.union_all(drawn), board)
        if over.is_empty:
            continue
        places = shapely.points(shapely.get_coordinates(over))
        off = shapely.distance(places, board)
        place = places[int(off.argmax())]
        amount, outside = float(off.max()) + BESIDE_MM, not around.contains(place)
        yield Finding(
            *(("mark-beyond", "stop") if outside else ("mark-over-opening", "look")),
            f"{capital(mark.title)} runs {say_mm(amount, 1)} "
            f"{f'beyond the edge of {part.title}' if outside else f'over {_opening(part, place)}'}: there is no board to {mark.operation}.",
            "Move it, make it smaller, or end it at the edge.", part.id, place=(place.x, place.y), amount=amount, field=mark.field,
        )  # fmt: skip


def _opening(part: FlatPart, place: shapely.Point) -> str:
    """What is cut out there, as the maker calls it."""
    import shapely

    for opening in part.openings:
        for region in opening.regions:
            if shapely.Polygon(flatten(region.outer.segments, _CHORD_MM)).buffer(BESIDE_MM).contains(place):
                return opening.title
    return "an opening"


def _twice(part: FlatPart, marks: Sequence[FlatMark]) -> Iterator[Finding]:
    """What runs along, or lies on, another of the same operation and face."""
    try:
        drawn = as_one(tuple(marks))  # areas that lie on each other are drawn as one: what still does is drawn twice
    except TooMuchWork as error:
        yield Finding(
            "mark-twice",
            "unseen",
            f"{error.why} Doubles were not looked for.",
            error.fix,
            part.id,
            field=marks[0].field,
        )
        return
    kinds: dict[tuple[object, ...], list[tuple[FlatMark, shapely.Geometry]]] = defaultdict(list)
    for mark in drawn:
        lines = _traces(mark)
        if mark.operation == "engrave":
            kinds["areas", mark.back] += [(mark, area) for area in _areas(mark)]
        else:
            lines += _edges(mark)
        kinds[mark.operation, mark.back] += [(mark, line) for line in lines]
    for some in filter(None, kinds.values()):
        yield from _shared(part, some)


def _shared(part: FlatPart, some: Sequence[tuple[FlatMark, shapely.Geometry]]) -> Iterator[Finding]:
    import shapely

    shapes = [shape for _, shape in some]
    first, second = shapely.STRtree(shapes).query(shapes, predicate="dwithin", distance=TWICE_MM)
    pairs = [(a, b) for a, b in zip(first.tolist(), second.tolist(), strict=True) if a < b]
    if len(pairs) > MOST_PAIRS:
        yield Finding(
            "mark-twice", "unseen", f"{len(pairs):,} pairs of marks on {part.title} come near each other: doubles were not looked for.",
            "Use fewer copies.", part.id, field=some[0][0].field,
        )  # fmt: skip
        return
    said = set[str]()
    for a, b in pairs:
        (one, shape), (other, on) = some[a], some[b]
        if other.id in said:
            continue
        area = shape.geom_type == "Polygon"
        both = shapely.intersection(on, shape if area else shape.buffer(TWICE_MM, quad_segs=2))
        amount = float(both.area if area else both.length)
        if amount < (LEAST_TWICE_MM2 if area else LEAST_TWICE_MM):
            continue
        said.add(other.id)
        place = both.representative_point()
        what = "another of its copies" if other is one else one.title
        size = f"{amount:.0f} mm²" if area else f"{say_mm(amount, 1)}"
        yield Finding(
            "mark-twice", "stop", f"{capital(other.title)} lies on {what} over {size}: it would be marked twice there.",
            "Remove one of the two, or move it.", part.id, place=(place.x, place.y), amount=amount, field=other.field,
        )  # fmt: skip


def _areas(mark: FlatMark) -> list[shapely.Geometry]:
    import shapely

    return [shapely.Polygon(*loops(region, _CHORD_MM)).buffer(0) for region in mark.regions]


def _edges(mark: FlatMark) -> list[shapely.Geometry]:
    import shapely

    return [shapely.LinearRing(flatten(ring.segments, _CHORD_MM)) for region in mark.regions for ring in region.rings]


def _traces(mark: FlatMark) -> list[shapely.Geometry]:
    import shapely

    return [
        shapely.LineString([*flatten(trace.segments, _CHORD_MM), trace.segments[-1].end])
        for trace in mark.traces
        if trace.segments
    ]
