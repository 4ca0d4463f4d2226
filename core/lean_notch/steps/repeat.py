"""All that there is so far, repeated."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Annotated, ClassVar

from ..documents.rules import Title
from ..ground.limits import check_part_work
from .begun import Begun, Document, Where
from .being_made import Making
from .carve import MOST_SINGLE, carve, check_cuts, combined, count
from .fields import Called, Id, On
from .kind import Given, StepKind
from .patterns import Around, Grid, how_many, motions, pattern_words
from .words import Say, Words


def _beside(on: Where) -> Document:
    return {"kind": "grid", "columns": 2, "rows": 1, "dx": on.just(on.width), "dy": on.typed(0)}


@dataclass(frozen=True)
class RepeatStep(StepKind):
    """All that there is so far, repeated in columns and rows or round a centre, and united."""

    id: Id
    pattern: Annotated[Grid | Around, Title("Copies")]
    title: Called = ""
    on: On = True
    kind: ClassVar[str] = "repeat"
    begins = (Begun("repeat", "Repeat all of it", lambda on: {"pattern": _beside(on)}),)

    redraws = True

    def take(self, making: Making, at: Mapping[str, float], given: Given) -> None:
        _repeat(making, given.title, self, at)

    def said(self, say: Say) -> Iterator[Words]:
        yield Words("repeat all of it")
        yield from pattern_words(self.pattern, say)


def _repeat(making: Making, title: str, step: RepeatStep, at: Mapping[str, float]) -> None:
    carve(making)
    copies = how_many(step.pattern, at)
    check_part_work(copies * sum(map(count, making.regions)), 0, title, "pattern")
    others = motions(step.pattern, at)[1:]
    regions = [there.region(region) for there in others for region in making.regions]
    if len(regions) > MOST_SINGLE:
        check_cuts(regions, title)
    marks, openings = list(making.marks), list(making.openings)
    making.regions = combined(making.regions, regions, "union") if regions else making.regions
    making.marks += [
        replace(one.moved(there), id=f"{one.id}-{i}") for i, there in enumerate(others, 2) for one in marks
    ]
    making.openings += [one.moved(there) for there in others for one in openings]
