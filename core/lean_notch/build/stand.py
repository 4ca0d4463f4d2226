"""Where a part stands in the assembled object: a placement in, its frame and its box in space out."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

from ..design import Placement, Side
from ..errors import NotchError

Triple = tuple[float, float, float]


@dataclass(frozen=True)
class Standing:
    """A part in space, as a block of `width` x `height` x `thickness`. `u`, `v` and `n` are unit vectors: its right, its
    top, and away from its material. One that is turned over (`mirrored`) has its material on the other side of its face.
    """

    placement: str
    part: str
    origin: Triple
    u: Triple
    v: Triple
    width: float
    height: float
    thickness: float
    mirrored: bool = False

    @cached_property
    def n(self) -> Triple:
        (a, b, c), (d, e, f) = self.u, self.v
        sign = -1.0 if self.mirrored else 1.0
        return (sign * (b * f - c * e), sign * (c * d - a * f), sign * (a * e - b * d))

    def at(self, x: float, y: float, depth: float = 0.0) -> Triple:
        """The point at (x, y) on the part's face, `depth` mm into the material."""
        return tuple(  # type: ignore[return-value]
            o + x * u + y * v - depth * n for o, u, v, n in zip(self.origin, self.u, self.v, self.n, strict=True)
        )

    @cached_property
    def box(self) -> tuple[Triple, Triple]:
        """Lowest and highest corner of the block."""
        a, b = self.at(0, 0), self.at(self.width, self.height, self.thickness)
        low, high = zip(*(sorted(pair) for pair in zip(a, b, strict=True)), strict=True)
        return low, high

    def along(self, side: Side) -> tuple[int, float, float]:
        """How a side runs in space: its axis (0-2), where its zero lies on that axis, and its sense (1 or -1)."""
        direction = self.u if side in ("bottom", "top") else self.v
        axis = next(i for i in range(3) if direction[i])
        return axis, self.origin[axis], direction[axis]


def stand(placement: Placement, size: tuple[float, float], names: Mapping[str, float]) -> Standing:
    """A part of that size, of the board that `names` are of, standing as `placement` says. Raises NotchError at the pose's
    length."""
    pose = placement.pose
    origin = []
    for axis in ("x", "y", "z"):
        try:
            origin.append(getattr(pose, axis).mm(names))
        except NotchError as error:
            raise error.at(f"placements/{placement.id}/pose/{axis}") from None
    return Standing(
        placement.id, placement.part, (origin[0], origin[1], origin[2]), _vector(pose.u), _vector(pose.v),
        *size, names["thickness"], placement.mirrored,
    )  # fmt: skip


def _vector(axis: str) -> Triple:
    sign = 1.0 if axis[0] == "+" else -1.0
    return tuple(sign if letter == axis[1] else 0.0 for letter in "xyz")  # type: ignore[return-value]
