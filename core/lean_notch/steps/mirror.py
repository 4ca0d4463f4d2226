"""All that there is so far, mirrored."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Annotated, ClassVar

from ..documents.rules import Title
from ..geometry import mirror
from ..lengths.length import Length
from .begun import Begun
from .being_made import Making
from .carve import carve, combined
from .fields import RIGHT_ANGLE, ZERO, Called, Id, On, Turn
from .kind import Given, StepKind
from .words import Say, Words, pair


@dataclass(frozen=True)
class MirrorStep(StepKind):
    """All that there is so far, mirrored at a line through a point; with `keep` the first half stays as well."""

    id: Id
    x: Annotated[Length, Title("Line through, from the left")] = ZERO
    y: Annotated[Length, Title("Line through, from the bottom")] = ZERO
    angle: Annotated[Turn, Title("Angle of the line")] = RIGHT_ANGLE
    keep: Annotated[bool, Title("Keep the first half")] = True
    title: Called = ""
    on: On = True
    kind: ClassVar[str] = "mirror"
    begins = (Begun("mirror", "Mirror all of it", lambda on: {"x": on.just(on.box[2]), "y": on.just(on.box[1])}),)

    redraws = True

    def take(self, making: Making, at: Mapping[str, float], given: Given) -> None:
        _mirror(making, self, at)

    def said(self, say: Say) -> Iterator[Words]:
        yield Words("mirror all of it at a line through ")
        yield from pair(say, "x", "y")
        yield Words(" at ")
        yield say("angle")
        yield Words("°" if self.keep else "°, and keep only the other half")


def _mirror(making: Making, step: MirrorStep, at: Mapping[str, float]) -> None:
    carve(making)
    motion = mirror((at["x"], at["y"]), at["angle"])
    other = [motion.region(region) for region in making.regions]
    marks, openings = ([mark.moved(motion) for mark in some] for some in (making.marks, making.openings))
    if step.keep:
        making.regions = combined(making.regions, other, "union")
        making.marks += [replace(mark, id=f"{mark.id}-mirrored") for mark in marks]
        making.openings += openings
        making.edges |= {f"{step.id}.{name}": motion.segment(edge) for name, edge in making.edges.items()}
        making.corners |= {f"{step.id}.{name}": motion.point(place) for name, place in making.corners.items()}
        making.named += [one.moved(motion, f"{step.id}.") for one in making.named]
        return
    making.regions, making.marks, making.openings = other, marks, openings
    making.edges = {name: motion.segment(edge) for name, edge in making.edges.items()}
    making.corners = {name: motion.point(place) for name, place in making.corners.items()}
    making.named = [one.moved(motion) for one in making.named]
    making.measured.clear()
