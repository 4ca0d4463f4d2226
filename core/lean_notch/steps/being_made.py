"""A part while its steps are gone through, and what is marked on it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field, replace

from ..geometry import Motion, Point, Region, Segment, Trace
from ..ground.errors import NotchError
from ..ground.findings import Finding
from ..ground.operations import Operation, Side
from .place import Measured, Named


@dataclass(frozen=True)
class FlatMark:
    """What is to be done on a part besides cutting it out: areas, lines, and for pockets how deep.

    `step` made it, `field` is that step's path; through-cuts that keep their size are part of the part's own outline
    instead. A mark on the back lies where it would be seen through the front.
    """

    id: str
    title: str
    operation: Operation
    regions: tuple[Region, ...]
    traces: tuple[Trace, ...]
    side: Side
    field: str
    depth: float = 0.0
    back: bool = False

    @property
    def shapes(self) -> Iterator[Region | Trace]:
        yield from self.regions
        yield from self.traces

    def moved(self, motion: Motion) -> FlatMark:
        return replace(
            self, regions=tuple(map(motion.region, self.regions)), traces=tuple(map(motion.trace, self.traces))
        )  # fmt: skip


@dataclass(frozen=True)
class FailedStep:
    """The step that a part got stuck at: what is shown is what the steps before it made."""

    step: str
    error: NotchError


@dataclass
class Making:
    """A part while its steps are gone through. `cuts` are taken away at the end, or before a step that needs it done."""

    regions: list[Region] = field(default_factory=list)
    cuts: list[Region] = field(default_factory=list)
    marks: list[FlatMark] = field(default_factory=list)
    openings: list[FlatMark] = field(default_factory=list)
    edges: dict[str, Segment] = field(default_factory=dict)
    corners: dict[str, Point] = field(default_factory=dict)
    findings: list[Finding] = field(default_factory=list)
    failed: FailedStep | None = None
    named: list[Named] = field(default_factory=list)
    measured: list[Measured] = field(default_factory=list)
    notes: list[tuple[str, str]] = field(default_factory=list)

    def copy(self) -> Making:
        """As it is now, for going back when a step fails."""
        return Making(
            [*self.regions], [*self.cuts], [*self.marks], [*self.openings], {**self.edges}, {**self.corners},
            [*self.findings], self.failed, [*self.named], [*self.measured], [*self.notes],
        )  # fmt: skip
