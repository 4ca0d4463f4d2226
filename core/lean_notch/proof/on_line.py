"""Cuts on or outside their line, against the line itself: in, a part's marks and the file's paths; out, how far off.

What such a cut leaves is worked out by the cut plan; here only the line as drawn and the beam's width count.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from functools import cached_property
from typing import TYPE_CHECKING

from ..formats.read_file import ReadPath
from ..geometry import Motion, Point, flatten
from ..making import FlatPart
from .compare import EDGE_MM, nominal_polygon

if TYPE_CHECKING:
    import shapely

_CHORD_MM = 0.001
_STEP_MM = 2.0


class CutLines:
    """A sheet's paths to cut as lines, made when a part asks for them first."""

    def __init__(self, paths: Sequence[ReadPath]) -> None:
        self.paths = paths

    @cached_property
    def tree(self) -> shapely.STRtree:
        import shapely

        return shapely.STRtree([_line(path) for path in self.paths])

    def near(self, shape: shapely.Geometry) -> list[shapely.Geometry]:
        return list(self.tree.geometries[self.tree.query(shape)])


def beside_line(part: FlatPart, motion: Motion, cut: CutLines, kerf: float) -> Iterator[tuple[float, Point]]:
    """For each area of a part that is cut on or outside its line: how far the nearest path is off, and where.

    In mm, on the sheet; only what is off by more than an edge may be.
    """
    import shapely

    drawn = [
        (nominal_polygon(motion.region(region)), kerf / 2 if mark.side == "outside" else 0.0)
        for mark in part.marks
        if mark.operation == "cut" and not mark.back
        for region in mark.regions
    ]
    if not drawn:
        return
    for shape, wanted in drawn:
        middle = shape.boundary
        near = cut.near(middle.buffer(wanted + 1.0))
        worst = max(
            (min((_off(line, ring, wanted) for line in near), default=(1.0, _any(ring))) for ring in shapely.get_parts(middle)),
            key=lambda one: one[0],
        )  # fmt: skip
        if worst[0] > EDGE_MM:
            yield worst


def _line(path: ReadPath) -> shapely.LineString:
    import shapely

    return shapely.LineString([*flatten(path.segments, _CHORD_MM), path.segments[-1].end])


def _any(line: shapely.Geometry) -> Point:
    import shapely

    x, y = shapely.get_coordinates(line)[0].tolist()
    return (x, y)


def _off(line: shapely.Geometry, ring: shapely.Geometry, wanted: float) -> tuple[float, Point]:
    """How far a path leaves its distance from a drawn ring at most; all of the ring must have it beside."""
    import shapely

    dense = shapely.segmentize(line, _STEP_MM)
    there = shapely.get_coordinates(dense)
    away = abs(shapely.distance(shapely.points(there), ring) - wanted)
    back = abs(
        shapely.distance(shapely.points(shapely.get_coordinates(shapely.segmentize(ring, _STEP_MM))), line) - wanted
    )
    at = int(away.argmax())
    x, y = there[at].tolist()
    # A ring's own corners may be further from a path that rounds them, never nearer.
    return (float(max(away[at], back.max() - 0.5 * wanted)), (x, y))
