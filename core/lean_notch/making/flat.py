"""What a part is on the flat: its finished outline, what else is done on it, and the names of its edges and corners."""

from __future__ import annotations

from dataclasses import dataclass

from ..geometry import Box, Point, Region, Segment
from ..lengths.length import Length
from ..steps.being_made import FailedStep, FlatMark
from ..steps.place import Measured, Named


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
