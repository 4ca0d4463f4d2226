"""What a board and a tool ask of a design: in, parts as built and their boards; out, findings with place, figure and mend.

Webs between two cuts, holes, letters to engrave, and inside corners that a tool cannot reach. Places are on the part. What is
less than the beam or the tool itself takes is a stop, the rest is to be looked at.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import replace
from typing import TYPE_CHECKING

from .basis import BoardBasis
from .build import Build, FlatMark, FlatPart, title_of
from .design import Design, Lettering, Rectangle, ShapeStep, Spread, Step
from .findings import Finding, Mend, Severity
from .geometry import Circle, Contour, Point, Region, Ring, flatten, loops
from .geometry.corners import turn_between
from .remembered import Remembered
from .units import Length, say_mm

if TYPE_CHECKING:
    import numpy as np

_CHORD_MM = 0.01
_LITTLE_MM = 0.005
MOST_SHOWN = 12
"""Findings of one sort on one part; more are counted."""

BLUNT_TOOL_MM = 0.5
"""A beam rounds inside corners by a few hundredths, which nobody sees; a tool of more than this across leaves them round."""

_FOUND: Remembered[tuple[Finding, ...]] = Remembered(1024)


def design_limits(design: Design, built: Build, boards: dict[str, BoardBasis]) -> tuple[Finding, ...]:
    """Of all parts; `boards` are the bases by board."""
    found: list[Finding] = []
    for part in built.parts:
        made_of, basis = design.part(part.id), boards.get(part.board)
        if made_of is None or basis is None:
            continue
        jointed = tuple(
            box
            for mate in built.mates
            for change in mate.members
            if change.part == part.id
            for box in (
                [region.box for region in change.cuts]
                + ([change.strip.box(0.0, mate.meeting.length)] if change.strip else [])
            )
        )
        given = (part, basis, made_of, jointed)
        found += _FOUND(given, lambda p=part, b=basis, s=made_of.steps, j=jointed: tuple(_of_part(p, b, s, j)))  # type: ignore[misc]
    return tuple(found)


_Box = tuple[float, float, float, float]


def _of_part(part: FlatPart, basis: BoardBasis, steps: Sequence[Step], jointed: Sequence[_Box]) -> Iterator[Finding]:
    by_id = {step.id: step for step in steps}
    web, hole, text = basis.stock.least
    yield from _few(_webs(part, by_id, web, basis.kerf))
    yield from _few(_holes(part, by_id, hole, basis.kerf))
    yield from _few(_letters(part, by_id, text, basis.kerf))
    yield from _few(_in_the_void(part))
    if basis.kerf >= BLUNT_TOOL_MM:
        yield from _few(_corners(part, by_id, basis.kerf / 2, jointed))


def _few(findings: Iterator[Finding]) -> Iterator[Finding]:
    some = list(findings)
    yield from some[:MOST_SHOWN]
    if len(some) > MOST_SHOWN:
        rest = len(some) - MOST_SHOWN
        yield replace(some[MOST_SHOWN], why=f"{rest} more of the same kind.", amount=rest, more=rest, mend=None)


def _severity(amount: float, beam: float) -> Severity:
    return "stop" if amount <= beam else "look"


def _webs(part: FlatPart, steps: dict[str, Step], least: float, beam: float) -> Iterator[Finding]:
    """Between two rings of a part, and where its outline comes near itself. Only what is near by its boxes is looked at closely."""
    if least <= 0:
        return
    rings = list(part.region.rings)
    reach = least - _LITTLE_MM
    holes = [ring.box for ring in rings[1:]]
    near = [(a + 1, b + 1) for a, b in _meeting(holes, holes, reach) if a < b]
    edges = [segment.box for segment in rings[0].segments]
    near += [(0, hole) for hole in sorted({a + 1 for a, _ in _meeting(holes, edges, reach)})]
    if near:
        yield from _between(part, steps, rings, near, least, beam)
    yield from _necks(part, least, beam)


def _meeting(boxes: Sequence[_Box], others: Sequence[_Box], apart: float) -> list[tuple[int, int]]:
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

    asked = sorted({i for pair in near for i in pair})
    lines = {i: shapely.LinearRing(flatten(rings[i].segments, _CHORD_MM)) for i in asked}
    shortest = shapely.shortest_line([lines[a] for a, _ in near], [lines[b] for _, b in near])
    ends = shapely.get_coordinates(shortest).reshape(-1, 2, 2)
    widths = np.hypot(*(ends[:, 1] - ends[:, 0]).T)
    pairs: dict[tuple[str, ...], list[int]] = {}
    for at in np.argsort(widths).tolist():
        if widths[at] > least - _LITTLE_MM:
            break
        owners = tuple(_owner(part, (float(x), float(y))) for x, y in ends[at])
        pairs.setdefault(tuple(sorted(owners)), []).append(at)
    for some in pairs.values():
        yield _web(part, steps, ends[some[0]], least, beam, len(some) - 1)


def _web(part: FlatPart, steps: dict[str, Step], ends: np.ndarray, least: float, beam: float, more: int) -> Finding:
    first, second = ((float(x), float(y)) for x, y in ends)
    width = math.dist(first, second)
    owners = [_owner(part, place) for place in (first, second)]
    between = " and ".join(_called(part, steps, one) for one in owners)
    if owners[0] == owners[1]:
        between = f"two cuts of {_called(part, steps, owners[0])}"
    mend = _apart(part, steps, owners, (first, second), least - width)
    step = steps.get(owners[0])
    letters = owners[0] == owners[1] and isinstance(step, ShapeStep) and isinstance(step.shape, Lettering)
    return Finding(
        "web-thin", _severity(width, beam),
        f"A web of {say_mm(width, 2)} stays between {between}{f', and {more} more as thin' if more else ''}; this board takes "
        f"{say_mm(least, 2)} at least.",
        f"{mend.says}, or make one of the two smaller." if mend else "Make it larger." if letters
        else "Move one of the two, or make it smaller.",
        part.id, place=((first[0] + second[0]) / 2, (first[1] + second[1]) / 2), amount=width,
        field=f"parts/{part.id}/steps/{owners[1] or owners[0]}" if any(owners) else f"parts/{part.id}", mend=mend,
    )  # fmt: skip


def _called(part: FlatPart, steps: dict[str, Step], owner: str) -> str:
    return title_of(steps[owner]) if owner in steps else f"the edge of {part.title}"


def _owner(part: FlatPart, place: Point) -> str:
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

    ring = shapely.Polygon(*loops(region, _CHORD_MM)).boundary
    return bool(shapely.dwithin(ring, shapely.Point(place), 2 * _CHORD_MM))


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
    """What was typed, and so much more: a plain number stays one.

    >>> _plus(Length("12"), 0.9), _plus(Length("width/2"), -0.5), _plus(Length("0.5", "in"), 25.4)
    ('12.9', 'width/2 - 0.5 mm', '0.5 in + 25.4 mm')
    """
    try:
        number = float(typed.text) if typed.unit == "mm" else None
    except ValueError:
        number = None
    if number is not None:
        return f"{number + by:.6g}"
    text = typed.text if any(sign.isalpha() for sign in typed.text) else f"{typed.text} {typed.unit}"
    return f"{text} {'-' if by < 0 else '+'} {abs(by):.6g} mm"


def _necks(part: FlatPart, least: float, beam: float) -> Iterator[Finding]:
    """Where one outline comes so near itself that the part would fall in two if it were that much smaller."""
    import shapely

    if len(part.region.outer.corners) <= 4:
        return  # nothing of a plain plate comes near itself
    shape = shapely.Polygon(flatten(part.region.outer.segments, _CHORD_MM))
    bodies = [one for one in shapely.get_parts(shape.buffer(-least / 2 + _LITTLE_MM)) if not one.is_empty]
    if len(bodies) < 2:
        return
    grown = shapely.union_all([one.buffer(least / 2 - _LITTLE_MM, quad_segs=16) for one in bodies])
    for rest in shapely.get_parts(shape.difference(grown.buffer(_LITTLE_MM))):
        touching = sum(one.dwithin(rest, least / 2 + 0.05) for one in bodies)
        if touching < 2:
            continue
        sides = [
            one for one in shapely.get_parts(shapely.line_merge(rest.boundary.intersection(shape.exterior.buffer(1e-6))))
            if one.length > _LITTLE_MM
        ]  # fmt: skip
        if len(sides) < 2:
            continue
        width = min(sides[i].distance(sides[j]) for i in range(len(sides)) for j in range(i))
        spot = rest.representative_point()
        yield Finding(
            "web-thin", _severity(width, beam),
            f"{part.title} is only {say_mm(width, 2)} wide at a neck; this board takes {say_mm(least, 2)} at least.",
            "Make it wider there, or move what is cut beside it.", part.id, place=(spot.x, spot.y), amount=width,
            field=f"parts/{part.id}",
        )  # fmt: skip


def _in_the_void(part: FlatPart) -> Iterator[Finding]:
    """Cuts that take nothing away: none of the finished part's edges is theirs."""
    holes = set(part.region.holes)
    for opening in part.openings:
        idle = [
            one for one in opening.regions if one.outer.reversed not in holes and not _has_edge_of(part.region, one)
        ]
        if not idle:
            continue
        left, low, right, high = idle[0].box
        around = _around(part, opening, idle[0])
        where = f"inside {around}" if around else f"beside the board of {part.title}"
        count = (
            f"{len(idle)} of {_sentence(opening.title)} lie"
            if len(opening.regions) > 1
            else f"{_sentence(opening.title)} lies"
        )
        yield Finding(
            "cut-in-void", "look", f"{count} {where}: it cuts nothing.", "Move it onto the board, or remove it.", part.id,
            place=((left + right) / 2, (low + high) / 2), field=opening.field,
        )  # fmt: skip


def _has_edge_of(region: Region, cut: Region) -> bool:
    import shapely

    places = [segment.at(0.5) for segment in cut.outer.segments] + [vertex.point for vertex in cut.outer.corners]
    left, low, right, high = cut.box
    for ring in region.rings:
        a, b, c, d = ring.box
        if a > right or c < left or b > high or d < low:
            continue
        line = shapely.LinearRing(flatten(ring.segments, _CHORD_MM))
        if bool(shapely.dwithin(line, shapely.points(places), 2 * _CHORD_MM).any()):
            return True
    return False


def _around(part: FlatPart, opening: FlatMark, cut: Region) -> str:
    """The title of another cut that a cut lies in, or ""."""
    for other in part.openings:
        for region in other.regions:
            if other is not opening and _box_within(cut.box, region.box):
                return other.title
    return ""


def _box_within(a: _Box, b: _Box) -> bool:
    return (
        a[0] >= b[0] - _LITTLE_MM
        and a[1] >= b[1] - _LITTLE_MM
        and a[2] <= b[2] + _LITTLE_MM
        and a[3] <= b[3] + _LITTLE_MM
    )


def _holes(part: FlatPart, steps: dict[str, Step], least: float, beam: float) -> Iterator[Finding]:
    for opening in part.openings:
        worst = min(map(_across, opening.regions), default=least)
        step = steps.get(opening.id)
        if worst >= least - _LITTLE_MM or (isinstance(step, ShapeStep) and isinstance(step.shape, Lettering)):
            continue
        left, low, right, high = opening.regions[0].box
        path = _narrow_path(step)
        mend = Mend(f"Make it {say_mm(least)}", f"{opening.field}/{path}", f"{least:g} mm") if path else None
        yield Finding(
            "hole-small", _severity(worst, beam),
            f"{_sentence(opening.title)} is {say_mm(worst, 2)} across; this board takes {say_mm(least, 2)} at least.",
            f"{mend.says}, or mark its place instead." if mend else "Make it larger, or mark its place instead.",
            part.id, place=((left + right) / 2, (low + high) / 2), amount=worst, field=opening.field, mend=mend,
        )  # fmt: skip


def _across(region: Region) -> float:
    if isinstance(region.outer, Circle):
        return 2 * region.outer.radius
    left, low, right, high = region.box
    return min(right - left, high - low)


def _narrow_path(step: Step | None) -> str:
    """The length that makes a plain shape narrow."""
    kind = step.shape.kind if isinstance(step, ShapeStep) else ""
    return {"disc": "shape/diameter", "slot": "shape/width"}.get(kind, "")


def _sentence(title: str) -> str:
    return title[:1].upper() + title[1:]


def _letters(part: FlatPart, steps: dict[str, Step], least: float, beam: float) -> Iterator[Finding]:
    for mark in (*part.marks, *part.openings):
        step = steps.get(mark.id)
        if not (isinstance(step, ShapeStep) and isinstance(step.shape, Lettering)):
            continue
        stroke = _stroke(mark)
        high = _capitals(mark)
        fine, low = stroke is not None and stroke < beam - 1e-9, high is not None and high < least - _LITTLE_MM
        if not (fine or low) or high is None:
            continue
        wanted = max(least, high * beam / stroke if stroke else 0.0)
        wanted = math.ceil(wanted * 10 - 1e-6) / 10
        why = (
            f"its strokes are {say_mm(stroke or 0.0, 2)} wide, the beam {say_mm(beam, 2)}"
            if fine
            else f"at least {say_mm(least)} can be read"
        )
        path = f"parts/{part.id}/steps/{mark.id}/shape/height"
        mend = Mend(f"Make it {say_mm(wanted)} high", path, f"{wanted:g} mm")
        left, bottom, right, top = _box(mark)
        yield Finding(
            "text-fine", "look", f"{_sentence(mark.title)} is {say_mm(high, 2)} high: {why}.",
            f"{mend.says}, or use the single-stroke font.", part.id, place=((left + right) / 2, (bottom + top) / 2),
            amount=stroke if fine and stroke else high, field=path, mend=mend,
        )  # fmt: skip


def _stroke(mark: FlatMark) -> float | None:
    """How wide the strokes of outlined letters are about: twice their area over the length of their edges."""
    length = math.fsum(region.length for region in mark.regions)
    return 2 * math.fsum(region.area for region in mark.regions) / length if length else None


def _box(mark: FlatMark) -> _Box:
    boxes = [shape.box for shape in mark.shapes]
    return (min(b[0] for b in boxes), min(b[1] for b in boxes), max(b[2] for b in boxes), max(b[3] for b in boxes))


def _capitals(mark: FlatMark) -> float | None:
    """The height of what is written, square to its base line if that runs along an axis."""
    if not (mark.regions or mark.traces):
        return None
    left, low, right, high = _box(mark)
    return min(right - left, high - low) if right > left else high - low


def _corners(part: FlatPart, steps: dict[str, Step], tool: float, jointed: Sequence[_Box]) -> Iterator[Finding]:
    """Inside corners that are sharper than the tool is round, one finding a step; a joint's own have their relief."""
    sharp: dict[str, list[Point]] = {}
    for ring in part.region.rings:
        if not isinstance(ring, Contour):
            continue
        segments = ring.segments
        for i, after in enumerate(segments):
            tight = turn_between(segments[i - 1], after) < -1e-6 or (
                after.bulge < 0 and after.radius < tool - _LITTLE_MM
            )
            place = after.start
            if tight and not any(
                a - 0.1 <= place[0] <= c + 0.1 and b - 0.1 <= place[1] <= d + 0.1 for a, b, c, d in jointed
            ):
                sharp.setdefault(_owner(part, place), []).append(place)
    for owner, places in sharp.items():
        step = steps.get(owner)
        plain = isinstance(step, ShapeStep) and isinstance(step.shape, Rectangle)
        path = f"parts/{part.id}/steps/{owner}" if owner else f"parts/{part.id}"
        mend = Mend(f"Round them {say_mm(tool)}", f"{path}/shape/radius", f"{tool:g} mm") if plain else None
        yield Finding(
            "corner-tight", "look",
            f"{len(places)} inside corner{'s' * (len(places) != 1)} of {_called(part, steps, owner)} stay round: the tool leaves "
            f"{say_mm(tool)} in them.",
            f"{mend.says}, or leave it if nothing has to fit there." if mend else "Round them, or leave it if nothing has to fit there.",
            part.id, place=places[0], amount=tool, field=path, mend=mend,
        )  # fmt: skip
