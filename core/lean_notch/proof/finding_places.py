"""Where a finding is: from a place on a part, a sheet or in space to the others that follow from it."""

from __future__ import annotations

from dataclasses import replace

from ..geometry import Point
from ..ground.findings import Finding, Place
from ..making import Build
from ..nesting import Layout, Placed


def located(finding: Finding, build: Build, layout: Layout) -> Finding:
    """A finding with its place on the sheet and in space, as far as one follows from the other."""
    if finding.sheet or not finding.part or finding.place is None:
        if finding.space is None and finding.sheet and finding.part and finding.place:
            placed = _copy_of(layout, finding.part, finding.copy)
            flat = placed.motion.back(finding.place) if placed else None
            return replace(finding, space=_space(finding, build, flat)) if flat else finding
        return _on_the_sheet(finding, build, layout)
    placed = _copy_of(layout, finding.part, finding.copy)
    space = finding.space or _space(finding, build, finding.place)
    if placed is None:
        return replace(finding, space=space)
    return replace(
        finding, place=placed.motion.point(finding.place), sheet=placed.sheet, copy=placed.copy, space=space
    )  # fmt: skip


def _on_the_sheet(finding: Finding, build: Build, layout: Layout) -> Finding:
    """Where on its sheet a place in space is, on the part that stands there."""
    standing = build.standing.get(finding.placement)
    placed = _copy_of(layout, standing.part, 0) if standing else None
    if finding.space is None or finding.sheet or standing is None or placed is None:
        return finding
    flat = standing.frame.flat(finding.space)
    return replace(
        finding, part=standing.part, place=placed.motion.point(flat), sheet=placed.sheet, copy=placed.copy
    )  # fmt: skip


def _copy_of(layout: Layout, part: str, copy: int) -> Placed | None:
    return next((one for one in layout.placed if one.part == part and copy in (0, one.copy)), None)


def _space(finding: Finding, build: Build, flat: Point) -> Place | None:
    """Where a place of a part stands: at the placement that is named, else where the part stands first."""
    standing = build.standing.get(finding.placement)
    if standing is None or standing.part != finding.part:
        standing = next((one for one in build.standings if one.part == finding.part), None)
    return standing.frame.at(flat) if standing else None
