"""What a machine follows, as values: paths, sheets of them, all sheets."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

from ..geometry import Ring, Trace
from ..ground.findings import Finding
from ..ground.operations import Operation
from ..nesting.problem import TurnedAbout


@dataclass(frozen=True)
class CutPath:
    """One path of a copy of a part, or of none. `what` tells it from the other paths of that part, "" for the outline;
    `part_title` and `about` are those in words.

    `holes` are there where an area is to be filled: the path goes round it, they lie in it.
    """

    what: str
    about: str
    operation: Operation
    shape: Ring | Trace
    part: str = ""
    part_title: str = ""
    copy: int = 0
    inner: bool = False
    depth: float = 0.0
    filled: bool = False
    holes: tuple[Ring, ...] = ()

    @property
    def id(self) -> str:
        """Unique within its sheet: "front-1-hole-2"."""
        return "-".join(filter(None, (self.part, str(self.copy) if self.part else "", self.what)))

    @property
    def title(self) -> str:
        """Which part it belongs to, and what of it: "Front 1, hole 2"."""
        return ", ".join(filter(None, (f"{self.part_title} {self.copy}" if self.part else "", self.about)))

    @property
    def closed(self) -> bool:
        return not isinstance(self.shape, Trace)

    @property
    def length(self) -> float:
        return self.shape.length + math.fsum(hole.length for hole in self.holes)


@dataclass(frozen=True)
class SheetPlan:
    """A sheet's paths in the order in which they are to be done; y points up, the origin is the lower left corner.

    `travel` is the way between the paths in mm; `travel_unordered` is what it would be part by part as laid out. `back` is what
    is done on the other face, as it lies once the sheet is turned over about its edge `turned_about`.
    """

    number: int
    width: float
    height: float
    paths: tuple[CutPath, ...]
    travel: float = 0.0
    travel_unordered: float = 0.0
    back: tuple[CutPath, ...] = ()
    turned_about: TurnedAbout = "left"

    @property
    def work(self) -> tuple[CutPath, ...]:
        """Of both faces: the back is done first, while the sheet is whole."""
        return (*self.back, *self.paths)

    @property
    def cut_length(self) -> float:
        return math.fsum(path.length for path in self.paths if path.operation == "cut")


@dataclass(frozen=True)
class CutPlan:
    """`findings` are what the tool cannot do; their places are on the part."""

    name: str
    sheets: tuple[SheetPlan, ...]
    findings: tuple[Finding, ...] = ()


Kerfs = Mapping[str, float]
"""What the beam or tool takes, by board."""
