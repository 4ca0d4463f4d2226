"""A file that was read, held against the plan it was written from: in, its paths and the plan; out, the same paths, each in the
plan's own numbers where it is the plan's within a ten-thousandth of a millimetre.

What was measured of the plan then holds for the file, and is not measured again. A path that is off by more stays as it was read.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import replace

from ..cutting import Profile, SheetPlan
from ..formats.frame import file_layers
from ..formats.read_file import ReadFile, ReadPath
from ..geometry import Circle, Curved, Point, Ring, Segment, Trace
from ..ground.remembered import remembered

SAME_MM = 0.0001


def as_planned(file: ReadFile, plan: SheetPlan, profile: Profile) -> ReadFile:
    """Only of a file with as many paths as the plan, in its order; of any other nothing is taken to be the plan's."""
    shapes = list(_shapes(plan, profile))
    if len(shapes) != len(file.paths):
        return file
    return replace(file, paths=tuple(map(_planned, file.paths, shapes)))


def _shapes(plan: SheetPlan, profile: Profile) -> Iterator[Ring | Trace]:
    """As writers go through them."""
    for layer in file_layers(plan, profile):
        for path in layer.paths:
            yield path.shape
            yield from path.holes


def _planned(path: ReadPath, shape: Ring | Trace) -> ReadPath:
    if isinstance(shape, Curved) or path.closed != (not isinstance(shape, Trace)):
        return path
    segments = _segments(shape)
    same = _is_circle(path.segments, shape) if isinstance(shape, Circle) else _follows(path.segments, segments)
    return replace(path, segments=segments) if same else path


# The same object for the same shape: what follows from it is found again.
@remembered(16_384, len, 300_000)
def _segments(shape: Ring | Trace) -> tuple[Segment, ...]:
    return tuple(shape.segments)


def _follows(read: Sequence[Segment], planned: Sequence[Segment]) -> bool:
    """Whether what was read goes where the plan does, piece by piece; an arc may have been written in several."""
    at = 0
    for wanted in planned:
        if wanted.bulge == 0:
            if (
                at >= len(read)
                or read[at].bulge
                or not _near(read[at].start, wanted.start)
                or not _near(read[at].end, wanted.end)
            ):
                return False
            at += 1
            continue
        (x, y), radius, turned = wanted.centre, wanted.radius, 0.0
        while True:
            if at >= len(read) or read[at].bulge * wanted.bulge <= 0:
                return False
            one = read[at]
            at += 1
            turned += one.sweep
            if any(abs(math.hypot(a - x, b - y) - radius) > SAME_MM for a, b in (one.start, one.at(0.5), one.end)):
                return False
            if _near(one.end, wanted.end):
                break
        if abs(turned - wanted.sweep) * radius > 2 * SAME_MM:
            return False
    return at == len(read)


def _near(one: Point, other: Point) -> bool:
    return abs(one[0] - other[0]) <= SAME_MM and abs(one[1] - other[1]) <= SAME_MM


def _is_circle(segments: Sequence[Segment], circle: Circle) -> bool:
    if not math.isclose(abs(math.fsum(one.sweep for one in segments if one.bulge)), 2 * math.pi, rel_tol=1e-6):
        return False
    places = [place for one in segments for place in (one.start, one.at(0.5))]
    return all(abs(math.hypot(x - circle.x, y - circle.y) - circle.radius) <= SAME_MM for x, y in places)
