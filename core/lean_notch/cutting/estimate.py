"""How long a sheet takes, by operation and by part: in, a sheet's plan and the board and machine; out, seconds."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from ..basis import BoardBasis, Machine
from ..basis.settings import INTO_SPOILBOARD_MM, CutSetting, Settings
from ..geometry import Ring
from ..ground.operations import OPERATIONS, Operation
from ..lengths.said import say_mm
from .paths import CutPath, SheetPlan
from .time import area_seconds, path_seconds, travel_seconds

RASTER_MM = 0.1
"""How far apart a machine's own engraving lines are taken to be where an area is handed over whole. Common practice."""

PLUNGE_SHARE = 0.5
"""Of the feed, what a tool goes straight down at. Common practice."""


@dataclass(frozen=True)
class Estimate:
    """Seconds in all, by operation, by part id (all its copies), and on the way between paths."""

    total: float
    by_operation: Mapping[Operation, float]
    by_part: Mapping[str, float]
    travel: float


def estimate(sheet: SheetPlan, basis: BoardBasis, settings: Settings = {}) -> Estimate:  # noqa: B006 - read only
    """An estimate, not a promise: machines differ in how they turn corners. What `settings` hold for an operation is followed; for
    others the machine's speeds, a beam in one pass, a tool in passes no deeper than it is wide, through the thickest place of the
    board (common practice)."""
    speeds = basis.machine.usual
    by_operation: dict[Operation, float] = defaultdict(float)
    by_part: dict[str, float] = defaultdict(float)
    known: dict[object, float] = {}  # copies of a part take equally long
    paths = [path for path in sheet.work if path.operation != "reference"]
    work = {one: _way_of(one, basis, settings.get(one)) for one in {path.operation for path in paths}}
    for path in paths:
        key = (path.part, path.what, len(path.shape.segments), path.depth)
        seconds = known[key] = known[key] if key in known else _seconds(path, basis, work[path.operation])
        by_operation[path.operation] += seconds
        by_part[path.part] += seconds
    # Ways of average length, each from rest to rest.
    ways = max(len(paths), 1)
    travel = ways * travel_seconds(sheet.travel / ways, speeds.travel, speeds.acceleration)
    return Estimate(sum(by_operation.values()) + travel, dict(by_operation), dict(by_part), travel)


def rests_on(boards: Iterable[tuple[BoardBasis, Settings]]) -> str:
    """What estimates of these boards' sheets take for granted, in words."""
    boards = tuple(boards)
    machines = [basis.machine for basis, _ in boards]
    kinds = {machine.kind for machine in machines}
    speeds = (
        "the machine’s speeds" if all(machine.speeds for machine in machines) else "default speeds for such a machine"
    )
    followed = [name for name in OPERATIONS if any(name in settings for _, settings in boards)]
    at = f"at what was set before ({', '.join(followed)}), else at {speeds}" if followed else f"at {speeds}"
    return f"{at}, in {' or '.join(words for kind, words in _PASSES.items() if kind in kinds) or 'one pass'}"


_PASSES = {
    "laser": f"one pass, areas in lines {say_mm(RASTER_MM, 1)} apart",
    "router": "passes no deeper than the tool is wide, pockets in ways half a tool apart, down at half the feed",
}


@dataclass(frozen=True)
class _Way:
    """How one kind of work is gone through: mm/s along the path, the depth of a pass in mm (0 for a beam), so many `passes` at
    least, and the angle of going down in degrees (90: straight)."""

    speed: float
    deep: float = 0.0
    passes: int = 1
    ramp: float = 90.0


def _way_of(operation: Operation, basis: BoardBasis, setting: CutSetting | None) -> _Way:
    machine, speeds = basis.machine, basis.machine.usual
    speed = {
        "cut": speeds.cut, "score": speeds.score, "fold": speeds.score,
        "engrave": speeds.engrave, "pocket": speeds.pocket, "reference": speeds.travel,
    }[operation]  # fmt: skip
    if machine.kind != "router":
        return _Way(setting.speed or speed, passes=setting.passes) if setting else _Way(speed)
    if setting is None:
        return _Way(speed, _tool(machine))
    told = setting.depth or (0.0 if setting.passes > 1 else _tool(machine))
    return _Way(setting.feed / 60 if setting.feed else speed, told, setting.passes, setting.ramp or 90.0)


def _tool(machine: Machine) -> float:
    return machine.in_spindle.diameter if machine.in_spindle else machine.kerf


def _seconds(path: CutPath, basis: BoardBasis, way: _Way) -> float:
    through = path.operation == "cut"
    depth = basis.stock.readings.thick + INTO_SPOILBOARD_MM if through else path.depth
    passes = max(way.passes, math.ceil(depth / way.deep - 1e-9) if way.deep else 1)
    down = _down_seconds(depth, passes, way) if basis.machine.kind == "router" else 0.0
    if isinstance(path.shape, Ring) and path.operation == "pocket":
        apart = _tool(basis.machine) / 2 if basis.machine.kind == "router" else 0.0
        return down + passes * _cleared(path.shape, apart or RASTER_MM, island=path.inner) / way.speed
    if path.filled:
        area = abs(path.shape.area) - sum(abs(hole.area) for hole in path.holes)  # type: ignore[union-attr]
        return down + passes * area_seconds(area, RASTER_MM, way.speed)
    return down + passes * path_seconds(path.shape.segments, way.speed, basis.machine.usual.acceleration)


def _down_seconds(depth: float, passes: int, way: _Way) -> float:
    """Down to `depth` in so many passes: straight at half the feed, or along the path on a ramp, which then is gone over again."""
    if way.ramp >= 90:
        return depth / (PLUNGE_SHARE * way.speed)
    return passes * (depth / passes / math.tan(math.radians(way.ramp))) / way.speed


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
