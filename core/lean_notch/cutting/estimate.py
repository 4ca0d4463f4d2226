"""How long a sheet takes, by operation and by part: in, a sheet's plan and the board and machine; out, seconds."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from ..basis import BoardBasis, Machine
from ..basis.settings import passes_for
from ..geometry import Ring
from ..operations import Operation
from ..units import say_mm
from .paths import CutPath, SheetPlan
from .time import area_seconds, path_seconds, travel_seconds

RASTER_MM = 0.1
"""How far apart a machine's own engraving lines are taken to be where an area is handed over whole. Common practice."""


@dataclass(frozen=True)
class Estimate:
    """Seconds in all, by operation, by part id (all its copies), and on the way between paths."""

    total: float
    by_operation: Mapping[Operation, float]
    by_part: Mapping[str, float]
    travel: float


def estimate(sheet: SheetPlan, basis: BoardBasis) -> Estimate:
    """An estimate, not a promise: machines differ in how they turn corners. A beam cuts in one pass, a tool in passes no deeper than
    it is wide, through the thickest place of the board (common practice); plunging is not counted."""
    speeds = basis.machine.usual
    by_operation: dict[Operation, float] = defaultdict(float)
    by_part: dict[str, float] = defaultdict(float)
    known: dict[object, float] = {}  # copies of a part take equally long
    paths = [path for path in sheet.paths if path.operation != "reference"]
    for path in paths:
        key = (path.part, path.what, len(path.shape.segments), path.depth)
        seconds = known[key] = known[key] if key in known else _seconds(path, basis)
        by_operation[path.operation] += seconds
        by_part[path.part] += seconds
    # Ways of average length, each from rest to rest.
    ways = max(len(paths), 1)
    travel = ways * travel_seconds(sheet.travel / ways, speeds.travel, speeds.acceleration)
    return Estimate(sum(by_operation.values()) + travel, dict(by_operation), dict(by_part), travel)


def rests_on(machines: Iterable[Machine]) -> str:
    """What estimates on these machines take for granted, in words."""
    machines = tuple(machines)
    kinds = {machine.kind for machine in machines}
    speeds = (
        "the machine’s speeds" if all(machine.speeds for machine in machines) else "default speeds for such a machine"
    )
    return f"at {speeds}, in {' or '.join(words for kind, words in _PASSES.items() if kind in kinds) or 'one pass'}"


_PASSES = {
    "laser": f"one pass, areas in lines {say_mm(RASTER_MM, 1)} apart",
    "router": "passes no deeper than the tool is wide, pockets in ways half a tool apart, without plunging",
}


def _seconds(path: CutPath, basis: BoardBasis) -> float:
    machine, speeds = basis.machine, basis.machine.usual
    speed = {
        "cut": speeds.cut, "score": speeds.score, "fold": speeds.score,
        "engrave": speeds.engrave, "pocket": speeds.pocket,
    }[path.operation]  # fmt: skip
    tool = machine.in_spindle.diameter if machine.in_spindle else machine.kerf
    routed = machine.kind == "router" and tool > 0
    passes = 1
    if routed and path.operation == "cut":
        passes = passes_for(basis.stock.readings.thick, tool)
    elif routed:
        passes = max(math.ceil(path.depth / tool - 1e-9), 1)
    if isinstance(path.shape, Ring) and path.operation == "pocket":
        return passes * _cleared(path.shape, tool / 2 if routed else RASTER_MM, island=path.inner) / speed
    if path.filled:
        area = abs(path.shape.area) - sum(abs(hole.area) for hole in path.holes)  # type: ignore[union-attr]
        return area_seconds(area, RASTER_MM, speed)
    return passes * path_seconds(path.shape.segments, speed, speeds.acceleration)


def _cleared(ring: Ring, apart: float, *, island: bool) -> float:
    """The way round a pocket's edge and on inwards, ring after ring, in mm: the trapezoid rule, as rings are slices of the area."""
    area = abs(ring.area)
    return (-area if island else area) / apart + ring.length / 2


def say_time(seconds: float) -> str:
    """A duration as people say it.

    >>> say_time(8), say_time(95), say_time(4000)
    ('8 s', '1 min 35 s', '1 h 06 min')
    """
    if seconds < 60:
        return f"{seconds:.0f} s"
    minutes, rest = divmod(round(seconds), 60)
    return f"{minutes} min {rest:02d} s" if minutes < 60 else f"{minutes // 60} h {minutes % 60:02d} min"
