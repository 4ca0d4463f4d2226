"""A part as the beam follows it, before it lies on a sheet: outlines grown by half the kerf, marks, and what both lose."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import chain

from ..geometry import Circle, Region, Ring, Trace
from ..geometry.batched import batched
from ..geometry.offset import lengths_all, offset, offset_all
from ..geometry.tidy import tidied
from ..ground.findings import Finding
from ..ground.remembered import Remembered, by_value
from ..joints.mate import Strip
from ..lengths.said import say_mm
from ..making import Build, FlatMark, FlatPart
from ..nesting import Layout
from .areas import as_one
from .hatch import hatched
from .paths import CutPath, Kerfs
from .profile import Profile
from .reach import barely, lost, not_entered, on_the_back, unreached
from .starts import Start, starts, strips_of


def segments_of(build: Build) -> int:
    """How many lines and arcs all copies of all parts have."""
    return sum(_count(part) * part.quantity for part in build.parts)


def _count(part: FlatPart) -> int:
    """How many lines and arcs a part's outlines and marks have."""
    rings = [
        ring for region in (part.region, *(r for mark in part.marks for r in mark.regions)) for ring in region.rings
    ]
    traces = sum(len(trace.vertices) for mark in part.marks for trace in mark.traces)
    return traces + sum(1 if isinstance(ring, Circle) else len(ring.segments) for ring in rings)


def cut_lengths(build: Build, layout: Layout, kerfs: Kerfs) -> tuple[float, ...]:
    """Of each sheet, in mm, the length of all through-cuts, without planning their order."""
    asked = [(part, kerfs[part.board]) for part in build.parts]
    of_part = {
        part.id: length for part, kerf in asked if (length := _CUT_LENGTHS.find((part, kerf), part.id)) is not None
    }
    new = [(part, kerf) for part, kerf in asked if part.id not in of_part]
    for kerf in {kerf for _, kerf in new}:
        parts = [part for part, other in new if other == kerf]
        for part, length in zip(parts, lengths_all([part.region for part in parts], kerf / 2), strict=True):
            whole = kerf_path(part, kerf).length if length is None else length
            of_part[part.id] = _CUT_LENGTHS.keep((part, kerf), whole + _marks_length(part, kerf), part.id)
    return tuple(math.fsum(of_part[placed.part] for placed in layout.on_sheet(sheet.number)) for sheet in layout.sheets)


_CUT_LENGTHS: Remembered[float] = Remembered(shared="cut length")


def _marks_length(part: FlatPart, kerf: float) -> float:
    """Of what is cut through beside the part's own outline."""
    cut = (mark for mark in part.marks if mark.operation == "cut" and not mark.back)
    return math.fsum(moved.length for mark in cut for moved in chain.from_iterable(_moved(mark, kerf)))


def kerf_path(part: FlatPart, kerf: float) -> Region:
    """The path whose beam of width `kerf` leaves `part` at its finished size, as far as the beam fits into it."""
    return _grown([(part.region, kerf / 2)])[0]


def finished(part: FlatPart, kerf: float) -> Region:
    """What comes off the machine: the part less what through-cuts on or outside their line take beyond it."""
    from ..geometry.boolean import difference

    wide = [
        shape
        for mark in part.marks
        if mark.operation == "cut"
        for region in mark.regions
        for shape in offset(region, kerf if mark.side == "outside" else kerf / 2 if mark.side == "on" else 0.0)
    ]
    return max(difference([part.region], wide), key=lambda region: region.area) if wide else part.region


def _grow(asked: Sequence[tuple[Region, float]]) -> list[Region]:
    results = dict[tuple[Region, float], Region]()
    for distance in {distance for _, distance in asked}:
        regions = [region for region, other in asked if other == distance]
        for region, grown in zip(regions, offset_all(regions, distance), strict=True):
            results[region, distance] = tidied(max(grown, key=lambda one: one.area))
    return [results[key] for key in asked]


# An edit seldom changes every part: the others' paths are at hand, and new ones are made together.
_grown = batched(_grow)


@dataclass(frozen=True)
class DrawnPath:
    """A path on its part, and where it may start."""

    path: CutPath
    starts: tuple[Start, ...]


@dataclass(frozen=True)
class Drawing:
    """`back` are the paths on the other face, where they would be seen through the front."""

    paths: tuple[DrawnPath, ...]
    findings: tuple[Finding, ...]
    back: tuple[DrawnPath, ...] = ()


def drawings(build: Build, kerfs: Kerfs, profile: Profile) -> list[Drawing]:
    given = [(part, kerfs[part.board], profile, *strips_of(build.mates, part.id)) for part in build.parts]
    found = [_DRAWN.find(one) for one in given]
    new = [(part, one) for part, one, drawing in zip(build.parts, given, found, strict=True) if drawing is None]
    grown = _grown([(part.region, kerfs[part.board] / 2) for part, _ in new])
    made = iter(
        _DRAWN.keep(one, drawing_of(part, build, kerfs[part.board], path, profile))
        for (part, one), path in zip(new, grown, strict=True)
    )
    return [drawing or next(made) for drawing in found]


_DRAWN: Remembered[Drawing] = Remembered(2048, lambda drawing: len(drawing.paths), 200_000)


def drawing_of(part: FlatPart, build: Build, kerf: float, grown: Region, profile: Profile) -> Drawing:
    members = strips_of(build.mates, part.id)
    included = {operation for operation, layer in profile.layers.items() if layer.include}
    paths: list[DrawnPath] = []
    if "cut" in included:
        paths += _outlines(part.id, part.title, grown, members)
    back: list[DrawnPath] = []
    for mark in as_one(part.marks):
        if mark.operation in included:
            (back if mark.back else paths).extend(_mark_paths(part, mark, kerf, profile))
    said = (
        *lost(part, grown, kerf),
        *_too_fine(part, kerf),
        *unreached(part, grown, kerf),
        *not_entered(part, grown, kerf),
        *barely(part, grown),
        *on_the_back(part, profile),
    )
    return Drawing(tuple(paths), said, tuple(back))


@by_value(4096)
def _outlines(part: str, title: str, grown: Region, joints: tuple[Strip, ...]) -> tuple[DrawnPath, ...]:
    holes = (
        DrawnPath(CutPath(f"hole-{i}", f"hole {i}", "cut", hole, part, title, inner=True), starts(hole, ()))
        for i, hole in enumerate(grown.holes, 1)
    )
    return (*holes, DrawnPath(CutPath("", "", "cut", grown.outer, part, title), starts(grown.outer, joints)))


def _mark_paths(part: FlatPart, mark: FlatMark, kerf: float, profile: Profile) -> Iterator[DrawnPath]:
    count = 0

    def path(
        shape: Ring | Trace, *, inner: bool = False, filled: bool = False, holes: tuple[Ring, ...] = ()
    ) -> DrawnPath:
        nonlocal count
        count += 1
        one = CutPath(
            f"{mark.id}-{count}", mark.title, mark.operation, shape,
            part.id, part.title, 0, inner, mark.depth, filled, holes,
        )  # fmt: skip
        return DrawnPath(one, () if isinstance(shape, Trace) else starts(shape, ()))

    areas = list(chain.from_iterable(_moved(mark, kerf)))
    if mark.operation == "engrave" and profile.engrave == "hatch":
        yield from (path(line) for line in hatched(areas, profile.hatch_mm))
    else:
        for moved in areas:
            if mark.operation == "engrave" and profile.engrave == "filled":
                yield path(moved.outer, filled=True, holes=moved.holes)
            else:
                yield from (path(hole, inner=True) for hole in moved.holes)
                yield path(moved.outer, inner=mark.operation == "cut")
    yield from (path(trace) for trace in mark.traces)


def _beside(mark: FlatMark, kerf: float) -> float:
    """How far beside a mark's outline the middle of the beam runs, outwards.

    A tool keeps inside its pocket; a beam has no width to speak of over an area or along a line.
    """
    if mark.side == "inside" or (mark.side == "auto" and mark.operation == "pocket"):
        return -kerf / 2
    return kerf / 2 if mark.side == "outside" else 0.0


@by_value(1024)
def _moved(mark: FlatMark, kerf: float) -> tuple[tuple[Region, ...], ...]:
    """For each area of a mark what the middle of the beam goes round: nothing where the beam does not fit in."""
    return tuple(tuple(map(tidied, moved)) for moved in offset_all(mark.regions, _beside(mark, kerf)))


def _too_fine(part: FlatPart, kerf: float) -> Iterator[Finding]:
    """Marks that the beam or tool does not fit into."""
    for mark in as_one(part.marks):
        gone = [region for region, moved in zip(mark.regions, _moved(mark, kerf), strict=True) if not moved]
        if gone:
            left, low, right, high = gone[0].box
            yield Finding(
                "tool-too-wide", "stop",
                f"A kerf of {say_mm(kerf)} does not fit into the {mark.title} to {mark.operation} on {part.title}, "
                f"{say_mm(right - left)} × {say_mm(high - low)}.",
                "Make it wider than the kerf, or use a finer beam or tool.",
                part.id, place=((left + right) / 2, (low + high) / 2), amount=kerf - min(right - left, high - low),
            )  # fmt: skip
