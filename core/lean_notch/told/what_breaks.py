"""What an edit breaks: in, a job before and after; out, what was sound before and is not now, with its millimetres and the mend.

Joints and rules that fail are findings of the build. What is drawn by hand is no joint: parts that stand in each other now are
told here, and where one went through a hole of the other, by how much that hole is to follow.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING

from ..acts.moving import moved_by
from ..design import ShapeStep
from ..edits import Edit
from ..geometry import Point, Region, loops
from ..ground.errors import NotchError
from ..ground.findings import Finding
from ..job import Result
from ..lengths.said import say_mm
from ..making import Build, FlatMark, FlatPart
from ..proof.assembly import Body, crossings
from ..proof.interference import HAIR_MM, Pair, bodies, clash, found_clash, neighbours

if TYPE_CHECKING:
    import shapely

Stretch = tuple[Point, Point]

MOST_PAIRS = 2_000
"""Neighbours that are followed: an edit is answered while it is typed."""

_CHORD_MM = 0.01


def broken(before: Result, after: Result) -> tuple[Finding, ...]:
    """Joints that are lost first."""
    lost = after.build.lost
    stops = sorted(_new_stops(before.build, after.build), key=lambda one: one.joint not in lost)
    return (*stops, *_by_hand(before, after))


def _new_stops(before: Build, after: Build) -> Iterator[Finding]:
    """By their kind and place in the document, since the numbers of one that stays may be others."""
    known = {(one.code, one.field, one.joint, one.part) for one in before.findings if one.severity == "stop"}
    for one in after.findings:
        if one.severity == "stop" and (one.code, one.field, one.joint, one.part) not in known:
            yield one


def _by_hand(before: Result, after: Result) -> Iterator[Finding]:
    """Of parts that no joint holds together, before or after."""
    joined = {
        frozenset(change.placement for change in mate.members)
        for result in (before, after)
        for mate in result.build.mates
    }
    was = neighbours(bodies(before.build, before.job.basis))
    near = neighbours(bodies(after.build, after.job.basis))
    stood = before.build.standing.keys()
    titles = after.build.called
    for names, pairs in list(near.items())[:MOST_PAIRS]:
        old = was.get(names, [])
        if names in joined or not names <= stood or old == pairs:
            continue
        now = clash(pairs)
        if not now or now[0].amount < HAIR_MM + max((one.amount for one in clash(old)), default=0.0):
            continue
        off = list(_holes_left(_thickest(old), _thickest(pairs), before, after)) if old else []
        yield from off or [found_clash(now, titles)]


def _thickest(pairs: Sequence[Pair]) -> Pair:
    """Of what is sunk into, the block that goes furthest through."""
    return max(pairs, key=lambda pair: pair[0].thickness + pair[1].thickness)


def _holes_left(was: Pair, now: Pair, before: Result, after: Result) -> Iterator[Finding]:
    """Holes of either that the other went through and does not any more."""
    for (ran, round_it), (inner, outer) in ((was, now), (was[::-1], now[::-1])):
        old, new = before.build.part(outer.part), after.build.part(outer.part)
        stretches, moved = list(crossings(ran, round_it)), list(crossings(inner, outer))
        if len(stretches) != len(moved):
            continue  # another number of tabs: none is the same as before
        for there, here in zip(stretches, moved, strict=True):
            hole, at = _around(old, _middle(*there))
            stayed = next((one for one in new.openings if hole and one.id == hole.id), None)
            if hole is None or stayed is None or len(stayed.regions) != len(hole.regions):
                continue
            if _goes_through(here, inner.thickness, stayed.regions[at]):
                continue
            went, came = (
                _middle((x0, y0), (x1, y1)) for x0, y0, x1, y1 in (hole.regions[at].box, stayed.regions[at].box)
            )
            a, b = _middle(*there), _middle(*here)
            off = (b[0] - a[0] - came[0] + went[0], b[1] - a[1] - came[1] + went[1])
            grown = math.dist(*here) - math.dist(*there)
            back = _moved(here[0], off), _moved(here[1], off)
            # Else the hole itself is another one.
            if grown > HAIR_MM or _goes_through(back, inner.thickness, stayed.regions[at]):
                yield _left(after, inner, outer, stayed, off, grown)


def _goes_through(stretch: Stretch, thickness: float, hole: Region) -> bool:
    import shapely

    end = shapely.buffer(shapely.LineString(stretch), thickness / 2 - HAIR_MM, cap_style="flat")
    return bool(shapely.covers(_shape(hole).buffer(HAIR_MM), end))


def _around(part: FlatPart, place: Point) -> tuple[FlatMark | None, int]:
    """The opening that a place lies in, and which of its areas."""
    import shapely

    for one in part.openings:
        for at, region in enumerate(one.regions):
            if _lies_in(place, region.box) and _shape(region).contains(shapely.Point(place)):
                return one, at
    return None, 0


def _shape(region: Region) -> shapely.Polygon:
    import shapely

    return shapely.Polygon(*loops(region, _CHORD_MM))


def _lies_in(place: Point, box: tuple[float, float, float, float]) -> bool:
    return box[0] <= place[0] <= box[2] and box[1] <= place[1] <= box[3]


def _moved(place: Point, off: Point) -> Point:
    """Back by as much as it is off."""
    return place[0] - off[0], place[1] - off[1]


def _middle(a: Point, b: Point) -> Point:
    return ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)


def _left(after: Result, inner: Body, outer: Body, hole: FlatMark, off: Point, grown: float) -> Finding:
    titles = after.build.called
    where = f"“{hole.title}” of {titles[outer.placement]}"
    moved = math.hypot(*off) > HAIR_MM
    says = [f"{say_mm(math.hypot(*off))} {_way(off)}"] if moved else []
    says += [f"{say_mm(abs(grown))} {'longer' if grown > 0 else 'shorter'}"] if abs(grown) > HAIR_MM else []
    wanted = _to(after, outer.part, hole, off) if moved else ""
    fix = [f"Move the hole by {say_mm(math.hypot(*off))} {_way(off)}{wanted}"] if moved else []
    fix += [f"{'make' if fix else 'Make'} it {say_mm(grown)} longer"] if grown > HAIR_MM else []
    return Finding(
        "doubled", "stop", f"{titles[inner.placement]} went through {where} and is {' and '.join(says)} now.",
        f"{', and '.join(fix)}.", outer.part, amount=max(math.hypot(*off), abs(grown)), field=hole.field, placement=outer.placement,
    )  # fmt: skip


def _way(off: Point) -> str:
    along = "to the right" if off[0] > 0 else "to the left"
    up = "up" if off[1] > 0 else "down"
    if abs(off[1]) <= HAIR_MM:
        return along
    return up if abs(off[0]) <= HAIR_MM else f"{along} and {up}"


def _to(after: Result, part: str, hole: FlatMark, off: Point) -> str:
    """What its place is then, if one number says it."""
    step = next((one for one in after.job.design.parts if one.id == part), None)
    own = next((one for one in step.steps if one.id == hole.id), None) if step else None
    if not isinstance(own, ShapeStep) or own.pattern:
        return ""
    try:
        edits = moved_by(after, part, [hole.id], *(0.0 if abs(by) <= HAIR_MM else by for by in off))
    except NotchError:
        return ""
    return f", to {_typed(edits[0])}" if len(edits) == 1 else ""


def _typed(edit: Edit) -> str:
    text, unit = (str(edit.value[part]) for part in ("text", "unit"))
    return f"{text} {unit}" if text.replace(".", "").isdigit() else text
