"""All that there is so far, turned, scaled and moved."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Annotated, ClassVar

from ..documents.rules import Title
from ..geometry import Motion, Region, Trace, scaled_region, scaled_trace
from ..lengths.length import Length
from .begun import Begun
from .being_made import Making
from .carve import carve
from .drawing import scaled_edge
from .fields import NONE, ONE, ZERO, Called, Id, On, Scale, Turn
from .kind import Given, StepKind
from .words import Say, Words, pair


@dataclass(frozen=True)
class TurnStep(StepKind):
    """All that there is so far, turned round a point and scaled from it, then moved."""

    id: Id
    x: Annotated[Length, Title("About, from the left")] = ZERO
    y: Annotated[Length, Title("About, from the bottom")] = ZERO
    turn: Annotated[Turn, Title("Rotation")] = NONE
    scale: Annotated[Scale, Title("Scale")] = ONE
    dx: Annotated[Length, Title("Move to the right")] = ZERO
    dy: Annotated[Length, Title("Move up")] = ZERO
    title: Called = ""
    on: On = True
    kind: ClassVar[str] = "turn"
    begins = (Begun("turn", "Move, rotate or scale all of it", lambda on: {"turn": 90}),)

    redraws = True

    def take(self, making: Making, at: Mapping[str, float], given: Given) -> None:
        _turn(making, at)

    def said(self, say: Say) -> Iterator[Words]:
        yield Words("turn all of it ")
        yield say("turn")
        yield Words("° about ")
        yield from pair(say, "x", "y")
        if say("scale").typed != ONE:
            yield Words(", scale it by ")
            yield say("scale")
        if not (say.zero("dx") and say.zero("dy")):
            yield Words(", and move it ")
            yield say("dx")
            yield Words(" to the right and ")
            yield say("dy")
            yield Words(" up")


def _turn(making: Making, at: Mapping[str, float]) -> None:
    carve(making)
    x, y, k = at["x"], at["y"], at["scale"]
    to_origin, back = Motion(-x, -y), Motion(angle=at["turn"])
    there = Motion(x + at["dx"], y + at["dy"])

    def region(one: Region) -> Region:
        return there.region(back.region(scaled_region(to_origin.region(one), k)))

    def trace(one: Trace) -> Trace:
        return there.trace(back.trace(scaled_trace(to_origin.trace(one), k)))

    making.regions = [region(one) for one in making.regions]
    making.marks, making.openings = (
        [replace(one, regions=tuple(map(region, one.regions)), traces=tuple(map(trace, one.traces))) for one in some]
        for some in (making.marks, making.openings)
    )
    making.edges = {
        name: there.segment(back.segment(scaled_edge(to_origin.segment(edge), k)))
        for name, edge in making.edges.items()
    }
    making.corners = {
        name: there.point(back.point((k * (px - x), k * (py - y)))) for name, (px, py) in making.corners.items()
    }
    if k == 1:
        whole = Motion(*there.point(back.point((-x, -y))), at["turn"])
        making.named = [one.moved(whole) for one in making.named]
    else:
        making.named.clear()
    making.measured.clear()
