"""What a part is on the flat: its finished outline, what else is done on it, and the names of its edges and corners."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field

from ..geometry import Box, Point, Region, Segment, Trace
from ..ground.errors import NotchError
from ..ground.findings import Finding
from ..ground.operations import Operation, Side
from ..lengths.length import Length
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


@dataclass(frozen=True)
class FailedStep:
    """The step that a part got stuck at: what is shown is what the steps before it made."""

    step: str
    error: NotchError


@dataclass(frozen=True)
class FlatPart:
    """One kind of part, flat, at finished size, its own origin at the origin.

    `region` has all that is cut through it, reliefs included; `marks` are what else is done on it. `size` is that of
    the blank it starts from, else that of its box; `typed` are those as typed, where it has a blank. `edges` and
    `corners` are those of its steps that can still be pointed at, by name; `openings` is what each step cuts out. `named` is
    what places can be measured from, `measured` how those of its steps are. `notes` are what is to be said under a step, by its id.
    """

    id: str
    title: str
    board: str
    region: Region
    quantity: int
    thickness: float
    size: tuple[float, float]
    typed: tuple[Length, Length] | None = None
    marks: tuple[FlatMark, ...] = ()
    openings: tuple[FlatMark, ...] = ()
    edges: tuple[tuple[str, Segment], ...] = ()
    corners: tuple[tuple[str, Point], ...] = ()
    failed: FailedStep | None = None
    named: tuple[Named, ...] = ()
    measured: tuple[Measured, ...] = ()
    notes: tuple[tuple[str, str], ...] = ()

    @property
    def box(self) -> Box:
        return self.region.box


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
