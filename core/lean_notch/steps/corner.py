"""Corners rounded or cut off, all of a part's or those that are named."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Annotated, ClassVar, Literal

from ..documents.rules import Many, Title
from ..documents.rules import Words as Text
from ..geometry import (
    Contour,
    Region,
    Ring,
)
from ..geometry.corners import chamfered, rounded, turn_between
from ..ground.errors import BadGeometry, NotchError
from ..lengths.length import Length, positive_mm
from .begun import Begun
from .being_made import Making
from .carve import carve
from .drawing import LARGEST_MM
from .fields import Called, Id, On
from .kind import Given, StepKind
from .words import Say, Titles, Words, of_words


@dataclass(frozen=True)
class CornerStep(StepKind):
    """Corners by name, or all, or all that stand out or reach in, rounded by a radius or cut off straight `size` along both
    edges."""

    id: Id
    size: Annotated[Length, Title("Size")]
    corners: Annotated[tuple[Annotated[str, Text(90)], ...], Many(200), Title("Corners")] = ()
    which: Annotated[Literal["named", "all", "outer", "inner"], Title("Which")] = "named"
    shape: Annotated[Literal["round", "chamfer"], Title("Shape")] = "round"
    title: Called = ""
    on: On = True
    kind: ClassVar[str] = "corner"
    begins = (
        Begun("corner", "Corners to round or bevel", lambda on: {"corners": [*on.corners[:1]], "size": on.typed(3)}),
        Begun("corners", "All corners to round or bevel", lambda on: {"which": "all", "size": on.typed(3)}),
    )
    redraws = False

    def take(self, making: Making, at: Mapping[str, float], given: Given) -> None:
        _make_corners(making, self, at["size"])

    def said(self, say: Say) -> Iterator[Words]:
        yield Words(f"{'round' if self.shape == 'round' else 'bevel'} {self._which(say.titles)} ")
        yield say("size")

    def _which(self, titles: Titles) -> str:
        if self.which != "named":
            return {"all": "all corners", "outer": "all outer corners", "inner": "all inner corners"}[self.which]
        if len(self.corners) == 1:
            return f"the {of_words(f'corner:{self.corners[0]}', titles).removeprefix('the ')}"
        return f"{len(self.corners)} corners"

    def follows(self) -> Iterator[str]:
        yield from (f"corner:{name}" for name in self.corners)

    def renamed(self, name: Callable[[str], str]) -> CornerStep:
        return replace(self, corners=tuple(map(name, self.corners)))


NEAR_MM = 1e-6


def _make_corners(making: Making, step: CornerStep, size: float) -> None:
    positive_mm(size, "size", "The corner's size", LARGEST_MM)
    if step.which != "named":
        carve(making)
        making.regions = [_with_corners(region, step, size) for region in making.regions]
        return
    if not step.corners:
        raise BadGeometry(
            "No corner is chosen.",
            fix=f"Use: {', '.join(sorted(making.corners)[:20])}; or all of them.",
            field="corners",
        )
    for name in step.corners:
        place = making.corners.get(name)
        if place is None:
            raise BadGeometry(
                f"There is no corner {name}.", fix=f"Use: {', '.join(sorted(making.corners)[:20])}.", field="corners"
            )
        if not _has_corner(making.regions, place) or any(_reaches(cut, place) for cut in making.cuts):
            carve(making)  # it may be one that a cut makes, or takes away
        if not _has_corner(making.regions, place):
            raise BadGeometry(
                f"The corner {name} is cut away, or belongs to a joint.", fix="Choose another corner.", field="corners"
            )
        making.regions = [_with_corner(region, place, size, step.shape) for region in making.regions]


def _with_corners(region: Region, step: CornerStep, size: float) -> Region:
    """All corners of a region, or those that stand out of the material, or reach into it: it lies to the left of its outlines."""
    make = rounded if step.shape == "round" else chamfered
    rings: list[Ring] = []
    for ring in region.rings:
        if not isinstance(ring, Contour):
            rings.append(ring)
            continue
        turns = [turn_between(before, after) for before, after in pairwise((ring.segments[-1], *ring.segments))]
        wanted = [
            i for i, turn in enumerate(turns)
            if abs(turn) > _SMOOTH and (step.which == "all" or (turn > 0) == (step.which == "outer"))
        ]  # fmt: skip
        try:
            rings.append(make(ring, size, wanted) if wanted else ring)
        except NotchError as error:
            error.field = "size"
            raise
    return Region(rings[0], tuple(rings[1:]))


_SMOOTH = 1e-6


def _reaches(region: Region, place: tuple[float, float]) -> bool:
    left, low, right, high = region.box
    return left - NEAR_MM <= place[0] <= right + NEAR_MM and low - NEAR_MM <= place[1] <= high + NEAR_MM


def _has_corner(regions: Sequence[Region], place: tuple[float, float]) -> bool:
    return any(_near(v.point, place) for region in regions for ring in region.rings for v in ring.corners)


def _with_corner(region: Region, place: tuple[float, float], size: float, shape: str) -> Region:
    make = rounded if shape == "round" else chamfered
    rings: list[Ring] = []
    for ring in region.rings:
        at = [i for i, v in enumerate(ring.corners) if _near(v.point, place)] if isinstance(ring, Contour) else []
        try:
            rings.append(make(ring, size, at) if at and isinstance(ring, Contour) else ring)
        except NotchError as error:
            error.field = "size"
            raise
    return Region(rings[0], tuple(rings[1:]))


def _near(a: tuple[float, float], b: tuple[float, float]) -> bool:
    return abs(a[0] - b[0]) <= NEAR_MM and abs(a[1] - b[1]) <= NEAR_MM
