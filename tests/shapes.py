"""Random shapes for laws and soaks: rectangles, circles, stadiums, plates with holes, stars with arcs, letters."""

from __future__ import annotations

import math
import random

import shapely
from lean_notch.geometry import Circle, Contour, Cubic, Curved, Motion, Region, Segment, Vertex, flatten, rectangle
from lean_notch.lettering import glyph


def polygon(region: Region, chord: float = 1e-4) -> shapely.Polygon:
    """The same region for a general-purpose geometry library, chords for arcs."""
    outer, *holes = (flatten(ring.segments, chord) for ring in region.rings)
    return shapely.Polygon(outer, holes)


def stadium(length: float, radius: float) -> Region:
    return Region(
        Contour((Vertex(0, -radius), Vertex(length, -radius, 1), Vertex(length, radius), Vertex(0, radius, 1)))
    )


def random_region(rng: random.Random) -> Region:
    """A valid region near the origin; coordinates are often round numbers, so that edges and corners coincide."""
    grid = rng.choice([1, 2, 100, 10_000])

    def number(low: float, high: float) -> float:
        return rng.randint(int(low * grid), int(high * grid)) / grid

    x, y, kind = number(-20, 20), number(-20, 20), rng.randrange(7)
    if kind == 0:
        return Region(rectangle(x, y, number(1, 30), number(1, 30)))
    if kind == 1:
        return Region(Circle(x, y, number(1, 15)))
    if kind == 2:
        angle = rng.choice([0.0, 30.0, 90.0, 47.3, 180.0])
        return Motion(x, y, angle, rng.random() < 0.5).region(stadium(number(2, 20), number(1, 6)))
    if kind == 3:
        plate = Region(rectangle(0, 0, 30, 20), (Circle(8, 8, 3), rectangle(15, 5, 8, 8)))
        return Motion(x, y, rng.choice([0.0, 90.0, 33.0])).region(plate)
    if kind == 4:
        letter = glyph(rng.choice(["sans", "slab", "stencil"]), rng.choice("ABOR8ge&"), number(8, 30))
        assert letter
        return Motion(x, y).region(rng.choice(letter.regions))
    if kind == 5:
        return Region(_blob(rng, x, y))
    corners = []
    count = rng.randint(5, 12)
    for i in range(count):
        reach, turn = number(3, 20), 2 * math.pi * i / count
        corners.append(Vertex(x + reach * math.cos(turn), y + reach * math.sin(turn), rng.choice([0, 0, 0.1, -0.1])))
    star = Region(Contour(tuple(corners)))
    return star if polygon(star).is_valid else random_region(rng)


def _blob(rng: random.Random, x: float, y: float) -> Curved:
    """A closed smooth curve round (x, y): cubics whose control points go on straight at each joint."""
    count = rng.randint(3, 6)
    points = []
    for i in range(count):
        reach, turn = rng.uniform(6, 14), 2 * math.pi * i / count
        points.append((x + reach * math.cos(turn), y + reach * math.sin(turn), turn + math.pi / 2, reach))
    pieces: list[Segment | Cubic] = []
    for (ax, ay, a, r), (bx, by, b, s) in zip(points, [*points[1:], points[0]], strict=True):
        k = 0.35 * min(r, s)
        pieces.append(
            Cubic(
                (ax, ay),
                (ax + k * math.cos(a), ay + k * math.sin(a)),
                (bx - k * math.cos(b), by - k * math.sin(b)),
                (bx, by),
            )
        )
    return Curved(tuple(pieces))
