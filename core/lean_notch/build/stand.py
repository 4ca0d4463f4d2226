"""Where a panel stands in the assembled object: pose in, box in space and directions out."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from ..design import Pose, Side
from ..errors import NotchError

Triple = tuple[float, float, float]


@dataclass(frozen=True)
class Standing:
    """A panel in space. `u`, `v` and `n` are unit vectors: right, up, and towards whoever looks at its face."""

    origin: Triple
    u: Triple
    v: Triple
    width: float
    height: float
    thickness: float

    @cached_property
    def n(self) -> Triple:
        (a, b, c), (d, e, f) = self.u, self.v
        return (b * f - c * e, c * d - a * f, a * e - b * d)

    def at(self, x: float, y: float, depth: float = 0.0) -> Triple:
        """The point at (x, y) on the panel's face, `depth` mm into the material."""
        return tuple(  # type: ignore[return-value]
            o + x * u + y * v - depth * n for o, u, v, n in zip(self.origin, self.u, self.v, self.n, strict=True)
        )

    @cached_property
    def box(self) -> tuple[Triple, Triple]:
        """Lowest and highest corner of the panel as a block."""
        a, b = self.at(0, 0), self.at(self.width, self.height, self.thickness)
        low, high = zip(*(sorted(pair) for pair in zip(a, b, strict=True)), strict=True)
        return low, high

    def along(self, side: Side) -> tuple[int, float, float]:
        """How a side runs in space: its axis (0-2), where its zero lies on that axis, and its sense (1 or -1)."""
        direction = self.u if side in ("bottom", "top") else self.v
        axis = next(i for i in range(3) if direction[i])
        return axis, self.origin[axis], direction[axis]


def stand(pose: Pose, width: float, height: float, names: dict[str, float]) -> Standing:
    """The panel of `width` x `height` standing as `pose` says, on a board of names["thickness"]."""
    try:
        x, y, z = (length.mm(names) for length in pose.origin)
    except NotchError as error:
        raise error.at("pose") from None
    return Standing((x, y, z), _vector(pose.u), _vector(pose.v), width, height, names["thickness"])


def _vector(axis: str) -> Triple:
    sign = 1.0 if axis[0] == "+" else -1.0
    return tuple(sign if letter == axis[1] else 0.0 for letter in "xyz")  # type: ignore[return-value]
