"""What the machine follows: for each sheet, ordered closed paths, moved into the waste by half the kerf."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from ..build import Build, FlatPart
from ..errors import KerfTooWide, OutOfRange
from ..geometry import Point, Region, Ring, rectangle
from ..geometry.offset import offset
from ..nesting import Layout, LayoutSettings
from ..units import say_mm

Operation = Literal["cut", "reference"]
OPERATIONS: dict[Operation, str] = {"cut": "Through-cut", "reference": "Reference only, do not cut"}

REFERENCE_MM = 100.0
"""A square of this size, if asked for, shows at a glance whether a file was read at the right scale."""


@dataclass(frozen=True)
class CutPath:
    """One closed path. `title` says which part it belongs to, `id` is unique within its sheet."""

    id: str
    title: str
    operation: Operation
    ring: Ring
    part: str = ""
    copy: int = 0
    inner: bool = False


@dataclass(frozen=True)
class SheetPlan:
    """A sheet's paths in the order in which they are to be cut; y points up, the origin is the lower left corner."""

    number: int
    width: float
    height: float
    paths: tuple[CutPath, ...]

    @property
    def cut_length(self) -> float:
        return math.fsum(path.ring.length for path in self.paths if path.operation == "cut")


@dataclass(frozen=True)
class CutPlan:
    name: str
    sheets: tuple[SheetPlan, ...]


def plan_cut(
    name: str,
    build: Build,
    layout: Layout,
    settings: LayoutSettings,
    kerf: float,
    *,
    reference_square: bool = False,
) -> CutPlan:
    """Paths for every placed part: outer outlines out by kerf/2, holes in by kerf/2, holes first.

    Raises KerfTooWide where the beam does not fit into a socket or a hole, and OutOfRange where spacing or
    margin leave it no room.
    """
    _check_room(build, settings, kerf)
    paths_of = {part.id: kerf_path(part, kerf) for part in build.parts}
    titles = {part.id: part.title for part in build.parts}
    sheets = []
    for number in range(1, layout.sheets + 1):
        groups = []
        for placed in layout.on_sheet(number):
            title = f"{titles[placed.part]} {placed.copy}"
            region = placed.placement.region(paths_of[placed.part])
            holes = [
                CutPath(
                    f"{placed.part}-{placed.copy}-hole-{i}",
                    f"{title}, hole {i}",
                    "cut",
                    hole,
                    placed.part,
                    placed.copy,
                    True,
                )
                for i, hole in enumerate(region.holes, 1)
            ]
            outer = CutPath(f"{placed.part}-{placed.copy}", title, "cut", region.outer, placed.part, placed.copy)
            groups.append((*holes, outer))
        paths = [path for group in _nearest_first(groups) for path in group]
        if reference_square:
            square = rectangle(0, 0, REFERENCE_MM, REFERENCE_MM)
            paths.append(CutPath("reference-square", f"Reference square, {say_mm(REFERENCE_MM)}", "reference", square))
        sheets.append(SheetPlan(number, layout.area.width, layout.area.height, tuple(paths)))
    return CutPlan(name, tuple(sheets))


def kerf_path(part: FlatPart, kerf: float) -> Region:
    """The path whose beam of width `kerf` leaves `part` at its finished size."""
    grown = _grown(part.region, kerf / 2)
    if len(grown) != 1 or len(grown[0].holes) != len(part.region.holes):
        raise KerfTooWide(
            f"A kerf of {say_mm(kerf)} fills a hole or a slot of {part.title}.",
            fix="Make that hole or slot wider than the kerf, or use a finer beam or tool.",
            field="kerf",
        )
    return grown[0]


# An edit seldom changes every part: the others' paths are at hand.
_grown = lru_cache(maxsize=1024)(offset)


def _check_room(build: Build, settings: LayoutSettings, kerf: float) -> None:
    for mate in build.mates:
        narrowest = mate.division.finger - abs(mate.division.clearance) / 2
        if kerf >= narrowest:
            raise KerfTooWide(
                f"A kerf of {say_mm(kerf)} does not fit between the fingers of “{mate.title}”, {say_mm(narrowest)} wide.",
                fix=f"Use fingers wider than {say_mm(kerf)}, or a finer beam or tool.",
                field="kerf",
            )
    if settings.spacing <= kerf:
        raise OutOfRange(
            f"A spacing of {say_mm(settings.spacing)} leaves nothing between cuts {say_mm(kerf)} wide.",
            fix=f"Use a spacing of more than {say_mm(kerf)}.",
            field="spacing",
        )
    if settings.margin < kerf / 2:
        raise OutOfRange(
            f"With a margin of {say_mm(settings.margin)} the beam leaves the sheet.",
            fix=f"Use a margin of at least {say_mm(kerf / 2)}.",
            field="margin",
        )


def _nearest_first(groups: Iterable[tuple[CutPath, ...]]) -> list[tuple[CutPath, ...]]:
    """Parts one after the other, each time the one that starts nearest to where the last one ended."""
    here: Point = (0.0, 0.0)
    rest, ordered = list(groups), []
    while rest:
        group = min(rest, key=lambda g: math.dist(here, start_of(g[0].ring)))
        rest.remove(group)
        ordered.append(group)
        here = start_of(group[-1].ring)
    return ordered


def start_of(ring: Ring) -> Point:
    return ring.corners[0].point
