"""What all writers share: how a sheet lies in a file, and which layer each path goes to."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..cutting import CutPath, Profile, SheetPlan
from ..cutting.profile import depth_word
from ..geometry import Point
from ..ground.operations import Operation
from ..lengths.units import MM_PER_INCH

_CORNER = {
    "lower left": (0.0, 0.0),
    "upper left": (0.0, 1.0),
    "lower right": (1.0, 0.0),
    "upper right": (1.0, 1.0),
    "centre": (0.5, 0.5),
}


FrameNumbers = tuple[float, float, bool, float]


@dataclass(frozen=True)
class Frame:
    """From a sheet's coordinates (mm, y up from its lower left corner) to a file's, and back.

    `left` and `low` are where the file's origin lies on the sheet; `per_mm` is the file's units in a millimetre.
    """

    left: float
    low: float
    flipped: bool
    per_mm: float

    @property
    def numbers(self) -> FrameNumbers:
        return (self.left, self.low, self.flipped, self.per_mm)

    @classmethod
    def of(cls, sheet: SheetPlan, profile: Profile, *, flipped: bool | None = None) -> Frame:
        return cls.on(sheet.width, sheet.height, profile, flipped=flipped)

    @classmethod
    def on(cls, width: float, height: float, profile: Profile, *, flipped: bool | None = None) -> Frame:
        down = profile.y_down if flipped is None else flipped
        across, up = (0.0, float(down)) if profile.origin == "plain" else _CORNER[profile.origin]
        per_mm = 1.0 if profile.unit == "mm" else 1 / MM_PER_INCH
        return cls(across * width, up * height, down, per_mm)

    def point(self, point: Point) -> Point:
        up = self.low - point[1] if self.flipped else point[1] - self.low
        return ((point[0] - self.left) * self.per_mm, up * self.per_mm)

    def back(self, point: Point) -> Point:
        """From a file's place, already in mm, to the sheet's."""
        return (point[0] + self.left, self.low - point[1] if self.flipped else point[1] + self.low)


@dataclass(frozen=True)
class FileLayer:
    name: str
    operation: Operation
    colour: str
    paths: tuple[CutPath, ...]


def file_layers(sheet: SheetPlan, profile: Profile) -> list[FileLayer]:
    """The layers of a sheet in the profile's order, pockets of each depth on one of their own; empty ones are left out."""
    layers = []
    for operation in profile.order:
        known = profile.layers[operation]
        mine = [path for path in sheet.paths if path.operation == operation] if known.include else []
        for depth in sorted({path.depth for path in mine}):
            name = f"{known.name} {depth_word(depth)}MM" if depth else known.name
            layers.append(FileLayer(name, operation, known.colour, tuple(p for p in mine if p.depth == depth)))
    return layers


def only(sheet: SheetPlan, operations: Sequence[Operation]) -> SheetPlan:
    """`sheet` with the paths of some operations."""
    return replace(sheet, paths=tuple(path for path in sheet.paths if path.operation in operations))
