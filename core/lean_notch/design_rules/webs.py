"""What is thin between two cuts of a part, and where one outline comes near itself: in, a part as built and its steps; out, findings
with the move that mends them. Places are on the part."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING

from ..design import Lettering, ShapeStep, Spread, Step
from ..geometry import Box, Circle, Point, Region, Ring, flatten, loops
from ..ground.findings import Finding, Mend, Severity
from ..ground.remembered import remembered
from ..lengths.length import Length
from ..lengths.said import say_mm
from ..making import FlatPart, title_of

if TYPE_CHECKING:
    import numpy as np

CHORD_MM = 0.01
LITTLE_MM = 0.005


def webs(part: FlatPart, steps: dict[str, Step], least: float, beam: float) -> Iterator[Finding]:
    """Between two rings of a part, and where its outline comes near itself. Only what is near by its boxes is looked at closely."""
    if least <= 0:
        return
    rings = list(part.region.rings)
    reach = least - LITTLE_MM
    holes = [ring.box for ring in rings[1:]]
    near = [(a + 1, b + 1) for a, b in _meeting(holes, holes, reach) if a < b]
    edges = [segment.box for segment in rings[0].segments]
    near += [(0, hole) for hole in sorted({a + 1 for a, _ in _meeting(holes, edges, reach)})]
    if near:
        yield from _between(part, steps, rings, near, least, beam)
    yield from _necks(part, steps, least, beam)


def _meeting(boxes: Sequence[Box], others: Sequence[Box], apart: float) -> list[tuple[int, int]]:
    """Pairs of a box and another that are nearer than that."""
    import numpy as np
    import shapely

    if not boxes or not others:
        return []
    grown = shapely.box(*(np.array(boxes) + np.array([-apart, -apart, apart, apart])).T)
    first, second = shapely.STRtree(shapely.box(*np.array(others).T)).query(grown)
    return list(zip(first.tolist(), second.tolist(), strict=True))


def _between(
    part: FlatPart, steps: dict[str, Step], rings: Sequence[Ring], near: Sequence[tuple[int, int]], least: float, beam: float
) -> Iterator[Finding]:  # fmt: skip
    """Pairs of rings that are too near each other, those of the same two steps as one."""
    import numpy as np
    import shapely

    owners = _owners(part, rings)
    asked = sorted({i for pair in near for i in pair})
    lines = {i: shapely.LinearRing(flatten(rings[i].segments, CHORD_MM)) for i in asked}
    shortest = shapely.shortest_line([lines[a] for a, _ in near], [lines[b] for _, b in near])
    ends = shapely.get_coordinates(shortest).reshape(-1, 2, 2)
    widths = np.hypot(*(ends[:, 1] - ends[:, 0]).T)
    pairs: dict[tuple[str, ...], list[int]] = {}
    for at in np.argsort(widths).tolist():
        if widths[at] > least - LITTLE_MM:
            break
        both = [
            owners.get(ring) or owner_of(part, (float(x), float(y)))
            for ring, (x, y) in zip(near[at], ends[at], strict=True)
        ]
        pairs.setdefault(tuple(sorted(both)), []).append(at)
    for some in pairs.values():
        yield _web(part, steps, ends[some[0]], least, beam, len(some) - 1)


def _web(part: FlatPart, steps: dict[str, Step], ends: np.ndarray, least: float, beam: float, more: int) -> Finding:
    first, second = ((float(x), float(y)) for x, y in ends)
    width = math.dist(first, second)
    owners = [owner_of(part, place) for place in (first, second)]
    between = " and ".join(called(part, steps, one) for one in owners)
    if owners[0] == owners[1]:
        between = f"two cuts of {called(part, steps, owners[0])}"
    mend = _apart(part, steps, owners, (first, second), least - width)
    step = steps.get(owners[0])
    letters = owners[0] == owners[1] and isinstance(step, ShapeStep) and isinstance(step.shape, Lettering)
    return Finding(
        "web-thin", severity(width, beam),
        f"A web of {say_mm(width, 2)} stays between {between}{f', and {more} more as thin' if more else ''}; this board takes "
        f"{say_mm(least, 2)} at least.",
        f"{mend.says}, or make one of the two smaller." if mend else "Make it larger." if letters
        else "Move one of the two, or make it smaller.",
        part.id, place=((first[0] + second[0]) / 2, (first[1] + second[1]) / 2), amount=width,
        field=f"parts/{part.id}/steps/{owners[1] or owners[0]}" if any(owners) else f"parts/{part.id}", mend=mend,
    )  # fmt: skip


def called(part: FlatPart, steps: dict[str, Step], owner: str) -> str:
    return title_of(steps[owner]) if owner in steps else f"the edge of {part.title}"


def _owners(part: FlatPart, rings: Sequence[Ring]) -> dict[int, str]:
    """The step whose opening a ring is, where it is all of one."""
    whole = {
        (region.box, round(region.outer.area, 6)): one.id for one in reversed(part.openings) for region in one.regions
    }
    found = ((number, whole.get((ring.box, round(abs(ring.area), 6)))) for number, ring in enumerate(rings))
    return {number: owner for number, owner in found if owner}


def owner_of(part: FlatPart, place: Point) -> str:
    """The step whose opening has its edge at a place; "" for the part's own outline."""
    for opening in part.openings:
        for region in opening.regions:
            left, low, right, high = region.box
            near = left - 0.1 <= place[0] <= right + 0.1 and low - 0.1 <= place[1] <= high + 0.1
            if near and _on_edge(region, place):
                return opening.id
    return ""


def _on_edge(region: Region, place: Point) -> bool:
    import shapely

    ring = shapely.Polygon(*loops(region, CHORD_MM)).boundary
    return bool(shapely.dwithin(ring, shapely.Point(place), 2 * CHORD_MM))


def _apart(
    part: FlatPart, steps: dict[str, Step], owners: Sequence[str], ends: tuple[Point, Point], more: float
) -> Mend | None:  # fmt: skip
    """The later step moved away from the other one, along the axis that needs the least."""
    order = list(steps)
    known = [one for one in owners if isinstance(steps.get(one), ShapeStep)]
    if not known or owners[0] == owners[1]:
        return None
    mover = max(known, key=order.index)
    step = steps[mover]
    assert isinstance(step, ShapeStep)
    away = 1.0 if mover == owners[1] else -1.0
    way = tuple(away * (b - a) for a, b in zip(*ends, strict=True))
    axis = 0 if abs(way[0]) >= abs(way[1]) else 1
    share = abs(way[axis]) / math.hypot(*way) if any(way) else 0.0
    if share < 0.5 or isinstance(step.pattern, Spread):
        return None
    name = "xy"[axis]
    by = math.copysign(math.ceil(more / share * 10 - 1e-6) / 10, way[axis])
    sense = _sense(part, mover, name, axis)
    words = {0: ("right", "left"), 1: ("up", "down")}[axis][0 if by > 0 else 1]
    where = f"to the {words}" if axis == 0 else words
    typed: Length = getattr(step, name)
    return Mend(
        f"Move {title_of(step)} {say_mm(abs(by))} {where}",
        f"parts/{part.id}/steps/{mover}/{name}",
        _plus(typed, by * sense),
    )


def _sense(part: FlatPart, step: str, name: str, axis: int) -> float:
    """Which way a distance counts: -1 from a right or an upper edge inwards."""
    for one in part.measured:
        if (one.step, one.path) == (step, name) and one.end[axis] < one.start[axis]:
            return -1.0
    return 1.0


def _plus(typed: Length, by: float) -> str:
    """What was typed, and so much more: a plain number stays one, with its unit, whatever bare numbers count in where it is put.

    >>> _plus(Length("12"), 0.9), _plus(Length("width/2"), -0.5), _plus(Length("0.5", "in"), 25.4)
    ('12.9 mm', 'width/2 - 0.5 mm', '0.5 in + 25.4 mm')
    """
    try:
        number = float(typed.text) if typed.unit == "mm" else None
    except ValueError:
        number = None
    if number is not None:
        return f"{number + by:.6g} mm"
    text = typed.text if any(sign.isalpha() for sign in typed.text) else f"{typed.text} {typed.unit}"
    return f"{text} {'-' if by < 0 else '+'} {abs(by):.6g} mm"


def _necks(part: FlatPart, steps: dict[str, Step], least: float, beam: float) -> Iterator[Finding]:
    """Where one outline comes so near itself that what it holds would fall in two if it were that much smaller: the part's own, or
    one of an opening, into which a tongue of the board may reach."""
    for number, ring in enumerate(part.region.rings):
        hole = number > 0
        if isinstance(ring, Circle):
            continue
        for width, spot in _necks_of(ring, hole, least):
            owner = owner_of(part, ring.segments[0].start) if hole else ""
            what = f"A tongue in {called(part, steps, owner)}" if hole else part.title
            yield Finding(
                "web-thin", severity(width, beam),
                f"{what} is only {say_mm(width, 2)} wide at a neck; this board takes {say_mm(least, 2)} at least.",
                "Make it wider there, or move what is cut beside it.", part.id, place=spot, amount=width,
                field=f"parts/{part.id}{f'/steps/{owner}' if owner else ''}",
            )  # fmt: skip


@remembered(8192)
def _necks_of(ring: Ring, hole: bool, least: float) -> tuple[tuple[float, Point], ...]:
    """How wide each is, and where."""
    import shapely

    inside = shapely.Polygon(flatten(ring.segments, CHORD_MM))
    if inside.convex_hull.area - inside.area < LITTLE_MM**2:
        return ()  # nothing of a plain plate, or round a plain hole, comes near itself
    outline = inside.exterior
    board = shapely.box(*inside.buffer(2 * least).bounds).difference(inside) if hole else inside
    bodies = [one for one in shapely.get_parts(board.buffer(-least / 2 + LITTLE_MM)) if not one.is_empty]
    if len(bodies) < 2:
        return ()
    found = []
    grown = shapely.union_all([one.buffer(least / 2 - LITTLE_MM, quad_segs=16) for one in bodies])
    for rest in shapely.get_parts(board.difference(grown.buffer(LITTLE_MM))):
        touching = sum(one.dwithin(rest, least / 2 + 0.05) for one in bodies)
        if touching < 2:
            continue
        sides = [
            one for one in shapely.get_parts(shapely.line_merge(rest.boundary.intersection(outline.buffer(1e-6))))
            if one.length > LITTLE_MM
        ]  # fmt: skip
        if len(sides) < 2:
            continue
        spot = rest.representative_point()
        found.append((min(sides[i].distance(sides[j]) for i in range(len(sides)) for j in range(i)), (spot.x, spot.y)))
    return tuple(found)


def severity(amount: float, beam: float) -> Severity:
    return "stop" if amount <= beam else "look"
