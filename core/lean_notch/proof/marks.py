"""Lines that are not cut through, compared where they lie: in, paths as planned and as read; out, what is missing or astray."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from ..cutting import CutPath, Profile
from ..cutting.profile import depth_word
from ..formats.read_file import ReadPath
from ..geometry import Point, Segment, flatten
from ..geometry.segments import Floats
from ..ground.operations import Operation

ASTRAY_MM = 0.02
"""A mark may lie this far from where it is planned: less than a line is wide."""

LENGTH_SHARE = 0.001
_CHORD_MM = 0.002
_STEP_MM = 5.0

Kind = tuple[Operation, float]
"""An operation, and how deep where it has a depth."""


@dataclass(frozen=True)
class Astray:
    """`off` is how far the worst point is from where it belongs, infinite where nothing is near; `extra` says that it is the
    file's line that has no business there. `length` is what the file has more than the plan, in mm."""

    kind: Kind
    off: float
    extra: bool
    place: Point
    length: float


def kinds_planned(paths: Sequence[CutPath]) -> dict[Kind, list[Sequence[Segment]]]:
    found: dict[Kind, list[Sequence[Segment]]] = defaultdict(list)
    for path in paths:
        found[path.operation, float(depth_word(path.depth))] += [
            path.shape.segments,
            *(hole.segments for hole in path.holes),
        ]
    return found


def kinds_read(paths: Sequence[ReadPath], profile: Profile) -> dict[Kind, list[Sequence[Segment]]]:
    found: dict[Kind, list[Sequence[Segment]]] = defaultdict(list)
    for path in paths:
        operation = profile.operation_of(path.layer)
        if operation:
            found[operation, profile.depth_of(path.layer) or 0.0].append(path.segments)
    return found


def compare_marks(
    planned: Mapping[Kind, Sequence[Sequence[Segment]]], read: Mapping[Kind, Sequence[Sequence[Segment]]]
) -> Iterator[Astray]:
    """One for each kind of mark whose lines are not all where they belong, or are not as long as they should be."""
    for kind in sorted({*planned, *read}):
        wanted, given = _lines(planned.get(kind, ())), _lines(read.get(kind, ()))
        more = math.fsum(map(_length, given)) - math.fsum(map(_length, wanted))
        worst = _worst(wanted, given), _worst(given, wanted)
        extra = worst[1][0] > worst[0][0]
        off, place = worst[1] if extra else worst[0]
        if off > ASTRAY_MM:
            yield Astray(kind, off, extra, place, more)
            continue
        # A short line that is there twice is less than the tolerance on all of them: it is looked for by itself.
        planned_twice, twice = _doubled(wanted), _doubled(given)
        if len(twice) > len(planned_twice):
            yield Astray(kind, 0.0, True, twice[-1], more)
        elif abs(more) > LENGTH_SHARE * math.fsum(map(_length, wanted)) + ASTRAY_MM:
            yield Astray(kind, 0.0, more > 0, place, more)


def left_open(
    planned: Sequence[CutPath], read: Sequence[ReadPath], profile: Profile
) -> Iterator[tuple[Operation, float, Point]]:  # fmt: skip
    """Outlines that are not cut through and whose ends do not meet, where the plan has no line that ends there: by how much, and
    where."""
    import shapely

    lines = [one for one in read if one.segments and not one.goes_round]
    told = [(one, profile.operation_of(one.layer)) for one in lines]
    for operation in {operation for _, operation in told if operation not in (None, "cut", "reference")}:
        mine = [one.segments for one, other in told if other == operation]
        shapes = [path.shape.segments for path in planned if path.operation == operation and not path.closed]
        met: list[int] = []
        if shapes:
            there, asked = ([place for one in some for place in (one[0].start, one[-1].end)] for some in (shapes, mine))
            tree = shapely.STRtree(shapely.points(there))
            met = tree.query(shapely.points(asked), predicate="dwithin", distance=2 * ASTRAY_MM)[0].tolist()
        for at in sorted(set(range(len(mine))) - _both(met)):
            start, end = mine[at][0].start, mine[at][-1].end
            yield operation, math.dist(start, end), start


def _both(ends: Sequence[int]) -> set[int]:
    """Lines both of whose ends (numbers 2 k and 2 k + 1) are among some."""
    known = set(ends)
    return {number // 2 for number in known if number ^ 1 in known}


def _lines(some: Sequence[Sequence[Segment]]) -> list[Floats]:
    found = (np.asarray(flatten(segments, _CHORD_MM)) for segments in some if segments)
    closed = [
        np.concatenate([line, [_end(segments)]]) if len(line) else line
        for line, segments in zip(found, (one for one in some if one), strict=True)
    ]
    return [line for line in closed if len(line) > 1]


def _end(segments: Sequence[Segment]) -> Point:
    return segments[-1].end


def _length(line: Floats) -> float:
    return float(np.hypot(*np.diff(line, axis=0).T).sum())


def _worst(lines: Sequence[Floats], others: Sequence[Floats]) -> tuple[float, Point]:
    """How far a point of some lines is from all others at most, and which."""
    import shapely

    if not lines:
        return 0.0, (0.0, 0.0)
    if not others:
        return math.inf, (float(lines[0][0][0]), float(lines[0][0][1]))
    dense = shapely.segmentize(shapely.linestrings(np.concatenate(lines), indices=_owners(lines)), _STEP_MM)
    points = np.unique(shapely.get_coordinates(dense), axis=0)
    ends = np.concatenate([np.stack([line[:-1], line[1:]], axis=1) for line in others])
    tree = shapely.STRtree(shapely.linestrings(ends))
    off = tree.query_nearest(shapely.points(points), return_distance=True, all_matches=False)[1]
    at = int(off.argmax())
    return float(off[at]), (float(points[at][0]), float(points[at][1]))


def _owners(lines: Sequence[Floats]) -> Floats:
    return np.repeat(np.arange(len(lines)), [len(line) for line in lines])


def _doubled(lines: Sequence[Floats]) -> list[Point]:
    """A place on each line that another one has run along already."""
    seen: set[tuple[float, ...]] = set()
    found = []
    for line in lines:
        low, high = line.min(axis=0), line.max(axis=0)
        key = tuple(np.round([*low, *high, _length(line)], 2).tolist())
        if key in seen:
            found.append((float(line[0][0]), float(line[0][1])))
        seen.add(key)
    return found
