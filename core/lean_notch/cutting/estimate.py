"""How long a sheet takes, by operation and by part: in, a sheet's plan and the machine's speeds; out, seconds."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping
from dataclasses import dataclass

from ..basis import Speeds
from ..operations import Operation
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


def estimate(sheet: SheetPlan, speeds: Speeds) -> Estimate:
    """An estimate, not a promise: machines differ in how they turn corners."""
    by_operation: dict[Operation, float] = defaultdict(float)
    by_part: dict[str, float] = defaultdict(float)
    known: dict[object, float] = {}  # copies of a part take equally long
    paths = [path for path in sheet.paths if path.operation != "reference"]
    for path in paths:
        key = (path.part, path.what, len(path.shape.segments), path.depth)
        seconds = known[key] = known[key] if key in known else _seconds(path, speeds)
        by_operation[path.operation] += seconds
        by_part[path.part] += seconds
    # Ways of average length, each from rest to rest.
    ways = max(len(paths), 1)
    travel = ways * travel_seconds(sheet.travel / ways, speeds.travel, speeds.acceleration)
    return Estimate(sum(by_operation.values()) + travel, dict(by_operation), dict(by_part), travel)


def _seconds(path: CutPath, speeds: Speeds) -> float:
    speed = {
        "cut": speeds.cut, "score": speeds.score, "fold": speeds.score,
        "engrave": speeds.engrave, "pocket": speeds.pocket,
    }[path.operation]  # fmt: skip
    if path.filled:
        area = abs(path.shape.area) - sum(abs(hole.area) for hole in path.holes)  # type: ignore[union-attr]
        return area_seconds(area, RASTER_MM, speed)
    return path_seconds(path.shape.segments, speed, speeds.acceleration)


def say_time(seconds: float) -> str:
    """A duration as people say it.

    >>> say_time(8), say_time(95), say_time(4000)
    ('8 s', '1 min 35 s', '1 h 06 min')
    """
    if seconds < 60:
        return f"{seconds:.0f} s"
    minutes, rest = divmod(round(seconds), 60)
    return f"{minutes} min {rest:02d} s" if minutes < 60 else f"{minutes // 60} h {minutes % 60:02d} min"
