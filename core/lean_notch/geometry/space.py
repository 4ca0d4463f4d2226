"""Flat things in space: plain vectors, and the frame of a board's face. In and out: triples of mm, unit vectors as triples."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

from .contour import Box, Point

Triple = tuple[float, float, float]


def add(a: Triple, b: Triple, times: float = 1.0) -> Triple:
    """a + times x b."""
    return (a[0] + times * b[0], a[1] + times * b[1], a[2] + times * b[2])


def minus(a: Triple, b: Triple) -> Triple:
    return (a[0] - b[0], a[1] - b[1], a[2] - b[2])


def times(a: Triple, k: float) -> Triple:
    return (k * a[0], k * a[1], k * a[2])


def dot(a: Triple, b: Triple) -> float:
    return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]


def cross(a: Triple, b: Triple) -> Triple:
    return (a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0])


def unit(a: Triple) -> Triple:
    """`a` with the length 1, exact for what runs along an axis. Raises ZeroDivisionError for a vector without length."""
    size = math.sqrt(dot(a, a))
    return (a[0] / size, a[1] / size, a[2] / size)


_QUARTERS = {0.0: (1.0, 0.0), 90.0: (0.0, 1.0), 180.0: (-1.0, 0.0), 270.0: (0.0, -1.0)}


def turned(a: Triple, axis: Triple, degrees: float) -> Triple:
    """`a` turned counter-clockwise about `axis`, a unit vector through the origin; quarter turns are exact.

    >>> turned((1.0, 0.0, 0.0), (0.0, 0.0, 1.0), 90)
    (0.0, 1.0, 0.0)
    """
    cos, sin = _QUARTERS.get(degrees % 360) or (
        math.cos(math.radians(degrees)), math.sin(math.radians(degrees)),
    )  # fmt: skip
    along = dot(a, axis) * (1 - cos)
    x, y, z = cross(axis, a)
    return (
        a[0] * cos + x * sin + axis[0] * along,
        a[1] * cos + y * sin + axis[1] * along,
        a[2] * cos + z * sin + axis[2] * along,
    )


@dataclass(frozen=True)
class Frame:
    """A board's face: its origin, its right `u` and its top `v`, and `n` away from its material. Unit vectors.

    `n` is u x v, or the opposite for a board that is turned over.
    """

    origin: Triple
    u: Triple
    v: Triple
    n: Triple

    def at(self, point: Point, depth: float = 0.0) -> Triple:
        """The point of the face in space, `depth` mm into the material."""
        x, y = point
        (ox, oy, oz), u, v, n = self.origin, self.u, self.v, self.n
        return (
            ox + x * u[0] + y * v[0] - depth * n[0],
            oy + x * u[1] + y * v[1] - depth * n[1],
            oz + x * u[2] + y * v[2] - depth * n[2],
        )

    def behind(self, depth: float) -> Frame:
        """The same face, `depth` mm into the material."""
        return replace(self, origin=self.at((0.0, 0.0), depth)) if depth else self

    def towards(self, way: Point) -> Triple:
        """A direction on the face as one in space."""
        return add((way[0] * self.u[0], way[0] * self.u[1], way[0] * self.u[2]), self.v, way[1])

    def flat(self, place: Triple) -> Point:
        """Where a place in space lies on the face, looked at squarely."""
        off = minus(place, self.origin)
        return (dot(off, self.u), dot(off, self.v))

    def depth(self, place: Triple) -> float:
        """How far a place lies behind the face: 0 on it, negative before it."""
        return dot(minus(self.origin, place), self.n)


def block_box(place: Frame, box: Box, thickness: float) -> tuple[Triple, Triple]:
    """Lowest and highest corner of the box around a block: what of a face lies in `box`, `thickness` deep."""
    left, low, right, high = box
    corners = [place.at((x, y), z) for x in (left, right) for y in (low, high) for z in (0.0, thickness)]
    xs, ys, zs = zip(*corners, strict=True)
    return (min(xs), min(ys), min(zs)), (max(xs), max(ys), max(zs))


def frame(origin: Triple, u: Triple, v: Triple, *, turned_over: bool = False) -> Frame:
    x, y, z = cross(u, v)
    return Frame(origin, u, v, (-x, -y, -z) if turned_over else (x, y, z))
