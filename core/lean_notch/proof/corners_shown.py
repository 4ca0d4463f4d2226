"""Which corners of a proof are looked at closely: one of each part, then the places of its findings."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace
from typing import TYPE_CHECKING

from ..geometry import Box, Point, Region
from ..ground.findings import Finding
from ..nesting import Layout, Placed
from .close_up import LEAST_REACH_MM, CloseLooks, CloseUp, Spot, edge_at, nearest, spots
from .compare import nominal_polygon

if TYPE_CHECKING:
    import shapely


MOST_CLOSE_UPS = 60
"""Parts and findings beyond this are not looked at closely: a maker steps through them one by one."""

Shapes = Mapping[tuple[str, int], tuple[Region, "shapely.Geometry"]]
"""By part and copy: its nominal outline as it lies, and the finished piece."""


def corners_shown(
    findings: Sequence[Finding], layout: Layout, shapes: Shapes, looks: Mapping[int, CloseLooks]
) -> Iterator[CloseUp]:  # fmt: skip
    """A corner of the first copy of each part, then the places of findings on a sheet."""
    found = {key: spots(nominal) for key, (nominal, _) in shapes.items()}
    wanted: dict[tuple[str, int], shapely.Polygon] = {}

    def look(key: tuple[str, int], spot: Spot, sheet: int, amount: float = 0.0) -> CloseUp:
        nominal, shape = shapes[key]
        wanted[key] = wanted.get(key) or nominal_polygon(nominal)
        return looks[sheet].at(spot, *key, wanted[key], shape, amount)

    firsts: dict[str, Placed] = {}
    for placed in layout.placed:
        if (placed.part, placed.copy) in shapes:
            firsts.setdefault(placed.part, placed)
    for placed in list(firsts.values())[:MOST_CLOSE_UPS]:
        key = (placed.part, placed.copy)
        yield look(key, found[key][0], placed.sheet)
    placed_findings = [(i, one) for i, one in enumerate(findings) if one.sheet in looks and one.place]
    for number, one in placed_findings[:MOST_CLOSE_UPS]:
        assert one.place
        near = _at(layout, shapes, one.sheet, one.place, one.part, one.copy)
        if near is None:
            continue
        kerf = looks[one.sheet].kerf
        spot = nearest(found[near], one.place, max(kerf, abs(one.amount), LEAST_REACH_MM))
        spot = spot or edge_at(shapes[near][0], one.place)
        yield replace(look(near, spot, one.sheet, one.amount), finding=number)


def _at(
    layout: Layout, shapes: Shapes, sheet: int, place: Point, part: str, copy: int
) -> tuple[str, int] | None:  # fmt: skip
    """The piece that a place belongs to: the one that is named, else the nearest on that sheet."""
    if (part, copy) in shapes:
        return part, copy
    keys = [(one.part, one.copy) for one in layout.on_sheet(sheet) if (one.part, one.copy) in shapes]
    return min(keys, key=lambda key: _beyond(shapes[key][0].box, place), default=None)


def _beyond(box: Box, place: Point) -> float:
    """How far a place lies outside a box, 0 inside."""
    return max(box[0] - place[0], place[0] - box[2], box[1] - place[1], place[1] - box[3], 0.0)
