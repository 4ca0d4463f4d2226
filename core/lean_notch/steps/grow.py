"""The outline grown or shrunk all round."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Annotated, ClassVar

from ..documents.rules import Title
from ..ground.errors import BadGeometry, OutOfRange
from ..ground.findings import Finding
from ..lengths.length import Length
from ..lengths.said import say_mm
from .begun import Begun
from .being_made import Making
from .carve import carve
from .drawing import LARGEST_MM
from .fields import Called, Id, On
from .kind import Given, StepKind
from .words import Say, Words


@dataclass(frozen=True)
class GrowStep(StepKind):
    """The outline moved outwards all round, or inwards where `by` is negative; holes close or open by as much."""

    id: Id
    by: Annotated[Length, Title("Grow by", "less than 0: shrink")]
    title: Called = ""
    on: On = True
    kind: ClassVar[str] = "grow"
    begins = (Begun("grow", "Grow or shrink the outline", lambda on: {"by": on.typed(1)}),)

    redraws = True

    def take(self, making: Making, at: Mapping[str, float], given: Given) -> None:
        _grow(making, at["by"], given, f"parts/{given.part}/steps/{self.id}/by")

    def said(self, say: Say) -> Iterator[Words]:
        yield Words("grow the outline by ")
        yield say("by")


def _grow(making: Making, by: float, given: Given, field: str) -> None:
    """Openings close by as much as the outline grows; one that is gone then is named."""
    from ..geometry.offset import offset

    if abs(by) > LARGEST_MM:
        raise OutOfRange(f"It would grow by {say_mm(by)}.", fix="Check the decimal point and the unit.", field="by")
    carve(making)
    making.regions = [grown for region in making.regions for grown in offset(region, by)]
    if not making.regions:
        raise BadGeometry(f"Nothing is left after shrinking by {say_mm(-by)}.", fix="Shrink it by less.", field="by")
    kept, closed = [], []
    for opening in making.openings:
        left = tuple(one for region in opening.regions for one in offset(region, -by))
        if left:
            kept.append(replace(opening, regions=left))
        if len(left) < len(opening.regions):
            closed.append(opening.title)
    making.openings[:] = kept
    if closed:
        making.findings.append(
            Finding(
                "opening-closed", "look", f"Growing {given.title} by {say_mm(by)} closes {', '.join(closed)}.",
                "Grow it by less, make the opening wider, or cut it after this step.", given.part, amount=by, field=field,
            )
        )  # fmt: skip
    making.edges.clear()
    making.corners.clear()
    making.named.clear()
