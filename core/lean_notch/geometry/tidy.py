"""Outlines without pieces too short to be cut: in, a region; out, the same within a thousandth of a millimetre or two."""

from __future__ import annotations

import math

from .contour import Contour
from .region import Region
from .ring import Ring

SHORTEST_MM = 0.002
"""No machine makes a move this short; some stop and burn there."""


def tidied(region: Region) -> Region:
    """Pieces shorter than `SHORTEST_MM` go: what comes before one ends where it ended. A region without any is itself."""
    rings = [_tidied(ring) for ring in region.rings]
    if all(new is old for new, old in zip(rings, region.rings, strict=True)):
        return region
    return Region(rings[0], tuple(rings[1:]))


def _tidied(ring: Ring) -> Ring:
    if not isinstance(ring, Contour):
        return ring
    vertices = ring.vertices
    count = len(vertices)
    short = [math.dist(vertices[i][:2], vertices[(i + 1) % count][:2]) < SHORTEST_MM for i in range(count)]
    if not any(short):
        return ring
    # A short arc that goes nearly all the way round is no short piece.
    kept = [v for v, gone in zip(vertices, short, strict=True) if not gone or abs(v.bulge) > 1]
    if len(kept) < 3:
        return ring
    # An arc whose end moves by so little keeps its bulge: it leaves its way by no more than that.
    return Contour(tuple(kept))
