"""Relief for a round tool: what to take out of an inside corner so that a square mate enters it.

In: a corner of the void (where it is, the directions of its two walls) and the tool's radius; out: the cleared shape.
A dogbone lies on the corner's bisector, a T-bone runs into one of the walls.
"""

from __future__ import annotations

import math

from ..ground.errors import OutOfRange
from .contour import Circle, Contour, Point, Vertex
from .region import Region

ROOM = 1.01
"""Bones are this much larger than the tool: at exactly its size, a path inside them would shrink to nothing."""


def dogbone(corner: Point, along: Point, across: Point, tool_radius: float) -> Region:
    """What a tool clears whose edge touches `corner`, coming along its bisector.

    `along` and `across` are unit directions from the corner along its two walls. One circle does for angles of 60
    degrees and more; narrower corners are cleared as far as the tool reaches without touching the walls.
    """
    radius = tool_radius * ROOM
    bx, by = along[0] + across[0], along[1] + across[1]
    size = math.hypot(bx, by)
    if size < 1e-9:
        raise OutOfRange("A corner that is straight needs no relief.", fix="Choose a corner between two walls.")
    bx, by = bx / size, by / size
    near = (corner[0] + radius * bx, corner[1] + radius * by)
    half = math.acos(max(-1.0, min(1.0, bx * along[0] + by * along[1])))
    if half >= math.radians(30) - 1e-9:
        return Region(Circle(*near, radius))
    reach = radius / math.sin(half)
    return capsule(near, (corner[0] + reach * bx, corner[1] + reach * by), radius)


def t_bone(corner: Point, along: Point, across: Point, tool_radius: float) -> Region:
    """What a tool clears that runs past `corner` into the wall it meets when it comes along the wall `along`.

    The tool keeps to that wall, its edge on it, and goes on until the corner itself is clear; it overcuts the wall
    `across` by its radius.
    """
    radius = tool_radius * ROOM
    # Square to the wall that the tool keeps to, into the void.
    dot = along[0] * across[0] + along[1] * across[1]
    nx, ny = across[0] - dot * along[0], across[1] - dot * along[1]
    size = math.hypot(nx, ny)
    if size < 1e-9:
        raise OutOfRange("A corner that is straight needs no relief.", fix="Choose a corner between two walls.")
    nx, ny = nx / size, ny / size
    there = (corner[0] + radius * nx, corner[1] + radius * ny)
    # Far enough back along the wall that the tool stands clear of the other wall.
    back = radius * (1 + max(dot, 0.0)) / max(math.sqrt(max(1 - dot * dot, 0.0)), 1e-6)
    return capsule((there[0] + back * along[0], there[1] + back * along[1]), there, radius)


def capsule(a: Point, b: Point, radius: float) -> Region:
    """All within `radius` of the way from `a` to `b`."""
    span = math.dist(a, b)
    if span < 1e-9:
        return Region(Circle(*a, radius))
    ux, uy = (b[0] - a[0]) / span * radius, (b[1] - a[1]) / span * radius
    return Region(
        Contour(
            (
                Vertex(a[0] + uy, a[1] - ux),
                Vertex(b[0] + uy, b[1] - ux, 1.0),
                Vertex(b[0] - uy, b[1] + ux),
                Vertex(a[0] - uy, a[1] + ux, 1.0),
            )
        )
    )
