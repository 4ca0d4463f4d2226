"""What a board and a tool ask of a design: in, parts as built and their boards; out, findings with place, figure and mend.

Webs between two cuts, holes, letters to engrave, and inside corners that a tool cannot reach. Places are on the part. What is
less than the beam or the tool itself takes is a stop, the rest is to be looked at.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence

from ..basis import BoardBasis
from ..design import Design, Lettering, Part, Rectangle, ShapeStep, Step
from ..geometry import Circle, Contour, Point, Region, flatten
from ..geometry.contour import join_boxes
from ..geometry.corners import turn_between
from ..ground.findings import Finding, Mend, shortened
from ..ground.remembered import remembered
from ..ground.wording import capital, counted
from ..lengths.said import say_mm
from ..making import Build, FlatMark, FlatPart
from .skins import skins
from .stray_marks import marks_on
from .webs import CHORD_MM, LITTLE_MM, called, owner_of, severity, webs

MOST_SHOWN = 12
"""Findings of one sort on one part; more are counted."""

BLUNT_TOOL_MM = 0.5
"""A beam rounds inside corners by a few hundredths, which nobody sees; a tool of more than this across leaves them round."""


def design_limits(design: Design, built: Build, boards: dict[str, BoardBasis]) -> tuple[Finding, ...]:
    """Of all parts; `boards` are the bases by board."""
    found: list[Finding] = []
    boxes = _jointed(built)
    for part in built.parts:
        made_of, basis = design.part(part.id), boards.get(part.board)
        if made_of is None or basis is None:
            continue
        jointed = tuple(boxes.get(part.id, ())) if basis.kerf >= BLUNT_TOOL_MM else ()
        found += _of_part(part, basis, made_of, jointed)
    return tuple(found)


def _jointed(built: Build) -> dict[str, list[_Box]]:
    """By part, what joints take of it."""
    found: dict[str, list[_Box]] = {}
    for mate in built.mates:
        for change in mate.members:
            boxes = found.setdefault(change.part, [])
            boxes += [region.box for region in change.cuts]
            boxes += [change.strip.box(0.0, mate.meeting.length)] if change.strip else []
    return found


_Box = tuple[float, float, float, float]


@remembered(1024, shared="limits")
def _of_part(part: FlatPart, basis: BoardBasis, designed: Part, jointed: tuple[_Box, ...]) -> tuple[Finding, ...]:
    by_id = {step.id: step for step in designed.steps}
    web, hole, text = basis.stock.least
    found = [*webs(part, by_id, web, basis.kerf), *_holes(part, by_id, hole, basis.kerf)]
    found += [*_letters(part, by_id, text, basis.kerf), *_in_the_void(part), *marks_on(part), *skins(part, basis)]
    if basis.kerf >= BLUNT_TOOL_MM:
        found += _corners(part, by_id, basis.kerf / 2, jointed)
    return tuple(shortened(found, MOST_SHOWN))


def _in_the_void(part: FlatPart) -> Iterator[Finding]:
    """Cuts that take nothing away: none of the finished part's edges is theirs, or another cut has it already."""
    holes = set(part.region.holes)
    taken: dict[tuple[float, ...], FlatMark] = {}
    for opening in part.openings:
        idle, on = [], ""
        for one in opening.regions:
            before = taken.get(_place(one))
            if before:
                on = "another of its copies" if before is opening else before.title
            if before or (one.outer.reversed not in holes and not _has_edge_of(part.region, one)):
                idle.append(one)
            taken.setdefault(_place(one), opening)
        if not idle:
            continue
        left, low, right, high = idle[0].box
        around = on or _around(part, opening, idle[0])
        if on:
            where = f"where {on} is already"
        else:
            where = f"inside {around}" if around else f"beside the board of {part.title}"
        count = (
            f"{len(idle)} of {capital(opening.title)} lie{'s' * (len(idle) == 1)}"
            if len(opening.regions) > 1
            else f"{capital(opening.title)} lies"
        )
        yield Finding(
            "cut-in-void", "look", f"{count} {where}: it cuts nothing.", "Move it onto the board, or remove it.", part.id,
            place=((left + right) / 2, (low + high) / 2), field=opening.field,
        )  # fmt: skip


def _place(region: Region) -> tuple[float, ...]:
    """The same for cuts that nobody could tell apart."""
    return tuple(round(value / LITTLE_MM) for value in (*region.box, math.sqrt(region.area)))


def _has_edge_of(region: Region, cut: Region) -> bool:
    import shapely

    places = [segment.at(0.5) for segment in cut.outer.segments] + [vertex.point for vertex in cut.outer.corners]
    left, low, right, high = cut.box
    for ring in region.rings:
        a, b, c, d = ring.box
        if a > right or c < left or b > high or d < low:
            continue
        line = shapely.LinearRing(flatten(ring.segments, CHORD_MM))
        if bool(shapely.dwithin(line, shapely.points(places), 2 * CHORD_MM).any()):
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
        a[0] >= b[0] - LITTLE_MM and a[1] >= b[1] - LITTLE_MM and a[2] <= b[2] + LITTLE_MM and a[3] <= b[3] + LITTLE_MM
    )


def _holes(part: FlatPart, steps: dict[str, Step], least: float, beam: float) -> Iterator[Finding]:
    for opening in part.openings:
        worst = min(map(_across, opening.regions), default=least)
        step = steps.get(opening.id)
        if worst >= least - LITTLE_MM or (isinstance(step, ShapeStep) and isinstance(step.shape, Lettering)):
            continue
        left, low, right, high = opening.regions[0].box
        path = _narrow_path(step)
        mend = Mend(f"Make it {say_mm(least)}", f"{opening.field}/{path}", f"{least:g} mm") if path else None
        yield Finding(
            "hole-small", severity(worst, beam),
            f"{capital(opening.title)} is {say_mm(worst, 2)} across; this board takes {say_mm(least, 2)} at least.",
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


def _letters(part: FlatPart, steps: dict[str, Step], least: float, beam: float) -> Iterator[Finding]:
    for mark in (*part.marks, *part.openings):
        step = steps.get(mark.id)
        if not (isinstance(step, ShapeStep) and isinstance(step.shape, Lettering)):
            continue
        stroke = _stroke(mark)
        high = _capitals(mark)
        fine, low = stroke is not None and stroke < beam - 1e-9, high is not None and high < least - LITTLE_MM
        if not (fine or low) or high is None:
            continue
        wanted = max(least, high * beam / stroke if stroke else 0.0)
        wanted = math.ceil(wanted * 10 - 1e-6) / 10
        why = (
            f"its strokes are {say_mm(stroke or 0.0, 2)} wide, the kerf {say_mm(beam, 2)}"
            if fine
            else f"at least {say_mm(least)} can be read"
        )
        path = f"parts/{part.id}/steps/{mark.id}/shape/height"
        mend = Mend(f"Make it {say_mm(wanted)} high", path, f"{wanted:g} mm")
        left, bottom, right, top = _box(mark)
        yield Finding(
            "text-fine", "look", f"{capital(mark.title)} is {say_mm(high, 2)} high: {why}.",
            f"{mend.says}, or use the single-stroke font.", part.id, place=((left + right) / 2, (bottom + top) / 2),
            amount=stroke if fine and stroke else high, field=path, mend=mend,
        )  # fmt: skip


def _stroke(mark: FlatMark) -> float | None:
    """How wide the strokes of outlined letters are about: twice their area over the length of their edges."""
    length = math.fsum(region.length for region in mark.regions)
    return 2 * math.fsum(region.area for region in mark.regions) / length if length else None


def _box(mark: FlatMark) -> _Box:
    return join_boxes([shape.box for shape in mark.shapes])


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
                after.bulge < 0 and after.radius < tool - LITTLE_MM
            )
            place = after.start
            if tight and not any(
                a - 0.1 <= place[0] <= c + 0.1 and b - 0.1 <= place[1] <= d + 0.1 for a, b, c, d in jointed
            ):
                sharp.setdefault(owner_of(part, place), []).append(place)
    for owner, places in sharp.items():
        step = steps.get(owner)
        plain = isinstance(step, ShapeStep) and isinstance(step.shape, Rectangle)
        path = f"parts/{part.id}/steps/{owner}" if owner else f"parts/{part.id}"
        mend = Mend(f"Round them {say_mm(tool)}", f"{path}/shape/radius", f"{tool:g} mm") if plain else None
        yield Finding(
            "corner-tight", "look",
            f"{counted(len(places), 'inside corner')} of {called(part, steps, owner)} stay round: the tool leaves "
            f"{say_mm(tool)} in them.",
            f"{mend.says}, or leave it if nothing has to fit there." if mend else "Round them, or leave it if nothing has to fit there.",
            part.id, place=places[0], amount=tool, field=path, mend=mend,
        )  # fmt: skip
