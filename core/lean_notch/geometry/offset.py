"""Outlines moved sideways by a fixed distance: what a beam's centre must follow, and what it leaves.

The lines and circles themselves are moved, never chords of them. Where the moved pieces meet cleanly that is
all; where they collide, they are cut up at their crossings and kept where they are far enough from the source.
"""

from __future__ import annotations

import math
from collections.abc import Sequence

from .arrangement import CHORD_MM, Arrangement
from .boolean import difference, recover_regions
from .contour import Circle, Contour, Point, Ring, Segment, Vertex
from .crossings import JOIN_MM, circles_meet
from .flatten import flatten
from .region import Region

SHARPEST_MITRE = math.radians(60)
"""Narrower corners get an arc instead of a point that reaches far out. The finished part is the same."""


def offset(region: Region, distance: float) -> list[Region]:
    """`region` grown by `distance` mm on all sides (holes shrink), or shrunk where it is negative.

    Square corners stay square where both edges are longer than 2 x distance; other convex corners get an exact
    arc. A region may fall apart or vanish, so there may be any number of results.
    """
    if distance == 0:
        return [region]
    outer = _offset_solid(region.outer, distance)
    holes = [_offset_solid(hole.reversed, -distance) for hole in region.holes]
    bores = [bore for solid in holes for bore in solid]
    if not bores:
        return outer
    if len(outer) == 1 and not outer[0].holes and _stay_apart(region, outer[0], bores, distance):
        return [Region(outer[0].outer, tuple(bore.outer for bore in bores))]
    return difference(outer, bores)


def _stay_apart(region: Region, outer: Region, bores: Sequence[Region], distance: float) -> bool:
    """Whether holes need no check against each other: they shrink, each in its place."""
    return distance > 0 and len(bores) == len(region.holes) and outer.area > 0


def _offset_solid(ring: Ring, distance: float) -> list[Region]:
    """A counter-clockwise ring, taken as a solid, grown by `distance`."""
    if isinstance(ring, Circle):
        radius = ring.radius + distance
        return [Region(Circle(ring.x, ring.y, radius))] if radius > JOIN_MM else []
    straight = all(vertex.bulge == 0 for vertex in ring.vertices)
    moved = (_move_straight(ring, distance) if straight else None) or _move_cleanly(ring, distance)
    return [Region(moved)] if moved else _move_and_resolve(ring, distance)


def _move_straight(ring: Contour, distance: float) -> Contour | None:
    """What `_move_cleanly` gives for an outline of lines whose corners all stay square; None for any other.

    One pass over arrays: panels with many fingers are the common case.
    """
    import numpy as np

    points = np.array([(vertex.x, vertex.y) for vertex in ring.vertices])
    edges = np.roll(points, -1, axis=0) - points
    lengths = np.hypot(edges[:, 0], edges[:, 1])
    after = edges / lengths[:, None]
    before = np.roll(after, 1, axis=0)
    cross = before[:, 0] * after[:, 1] - before[:, 1] * after[:, 0]
    dot = (before * after).sum(axis=1)
    parting = cross * distance > 0
    long_enough = np.minimum(lengths, np.roll(lengths, 1)) > 2 * abs(distance)
    if (parting & ~(long_enough & (dot >= -math.cos(SHARPEST_MITRE) - 1e-9))).any() or (dot < -1 + 1e-9).any():
        return None
    # Both moved lines pass through corner + distance (n + m) / (1 + n.m), n and m their unit normals to the right.
    normals = np.stack([before[:, 1] + after[:, 1], -before[:, 0] - after[:, 0]], axis=1)
    moved = points + distance * normals / (1 + dot)[:, None]
    if (((np.roll(moved, -1, axis=0) - moved) * after).sum(axis=1) <= JOIN_MM).any():
        return None
    contour = Contour(tuple(Vertex(x, y) for x, y in moved.tolist()))
    return contour if _keeps_away(contour, ring, abs(distance)) else None


def _move_cleanly(ring: Contour, distance: float) -> Contour | None:
    """The moved outline if every piece keeps its direction and nothing collides, else None."""
    segments = ring.segments
    shifted = [_shift(segment, distance) for segment in segments]
    ends: list[tuple[Point, ...]] = []  # the vertices that replace corner i, between segments i - 1 and i
    for index, segment in enumerate(segments):
        if _inside_out(segment, distance):
            return None
        corner = _corner(segments[index - 1], segment, shifted[index - 1], shifted[index], distance)
        if corner is None:
            return None
        ends.append(corner)
    vertices: list[Vertex] = []
    for index, segment in enumerate(segments):
        start, end = ends[index][-1], ends[(index + 1) % len(ends)][0]
        if len(ends[index]) == 2:
            vertices.append(Vertex(*ends[index][0], _round_bulge(segments[index - 1], segment, distance)))
        piece = _same_way(segment, start, end)
        if piece is None:
            return None
        vertices.append(Vertex(*start, piece))
    moved = Contour(tuple(vertices))
    return moved if _keeps_away(moved, ring, abs(distance)) else None


def _shift(segment: Segment, distance: float) -> Segment:
    """`segment` moved to its right by `distance`. An arc moved past its centre turns inside out."""
    (ux, uy), (vx, vy) = _tangent(segment, 0), _tangent(segment, 1)
    return Segment(
        (segment.start[0] + distance * uy, segment.start[1] - distance * ux),
        (segment.end[0] + distance * vy, segment.end[1] - distance * vx),
        segment.bulge,
    )


def _tangent(segment: Segment, share: int) -> Point:
    """Unit direction of travel at the start (0) or the end (1)."""
    (x0, y0), (x1, y1) = segment.start, segment.end
    length = math.hypot(x1 - x0, y1 - y0)
    ux, uy = (x1 - x0) / length, (y1 - y0) / length
    if segment.bulge == 0:
        return (ux, uy)
    turn = segment.sweep * (share - 0.5)
    return (ux * math.cos(turn) - uy * math.sin(turn), ux * math.sin(turn) + uy * math.cos(turn))


def _turn_between(before: Segment, after: Segment) -> float:
    """Signed angle in radians by which travel turns at a corner, -pi to pi; left is positive."""
    (ax, ay), (bx, by) = _tangent(before, 1), _tangent(after, 0)
    return math.atan2(ax * by - ay * bx, ax * bx + ay * by)


def _corner(
    before: Segment, after: Segment, moved_before: Segment, moved_after: Segment, distance: float
) -> tuple[Point, ...] | None:
    """What replaces a corner: one point where the moved pieces meet, or the two ends of an arc round it."""
    turn = _turn_between(before, after)
    if abs(turn) < 1e-9:
        return (moved_after.start,)
    straight = before.bulge == 0 and after.bulge == 0
    if turn * distance > 0:  # the pieces part
        long_enough = min(before.length, after.length) > 2 * abs(distance)
        if straight and long_enough and math.pi - abs(turn) >= SHARPEST_MITRE - 1e-9:
            reach = distance * math.tan(turn / 2)
            ux, uy = _tangent(before, 1)
            return ((moved_before.end[0] + reach * ux, moved_before.end[1] + reach * uy),)
        return (moved_before.end, moved_after.start)
    meets = _meet(moved_before, moved_after)
    return (min(meets, key=lambda p: math.dist(p, before.end)),) if meets else None


def _meet(a: Segment, b: Segment) -> list[Point]:
    """Where the carriers of two segments meet."""
    if a.bulge and b.bulge:
        return list(circles_meet(a.centre, a.radius, b.centre, b.radius))
    if a.bulge == 0 and b.bulge == 0:
        (ux, uy), (vx, vy) = _tangent(a, 1), _tangent(b, 0)
        cross = ux * vy - uy * vx
        t = ((b.start[0] - a.end[0]) * vy - (b.start[1] - a.end[1]) * vx) / cross
        return [(a.end[0] + t * ux, a.end[1] + t * uy)]
    line, arc = (a, b) if a.bulge == 0 else (b, a)
    (cx, cy), (ux, uy) = arc.centre, _tangent(line, 0)
    along = (cx - line.start[0]) * ux + (cy - line.start[1]) * uy
    foot = (line.start[0] + along * ux, line.start[1] + along * uy)
    square = arc.radius**2 - math.dist(foot, (cx, cy)) ** 2
    if square < 0:
        return []
    half = math.sqrt(square)
    return [(foot[0] + s * half * ux, foot[1] + s * half * uy) for s in (-1, 1)]


def _round_bulge(before: Segment, after: Segment, distance: float) -> float:
    return math.copysign(math.tan(abs(_turn_between(before, after)) / 4), distance)


def _inside_out(segment: Segment, distance: float) -> bool:
    return segment.bulge != 0 and segment.radius + math.copysign(1, segment.bulge) * distance <= JOIN_MM


def _same_way(segment: Segment, start: Point, end: Point) -> float | None:
    """The bulge of the moved piece from `start` to `end`, or None if it would run backwards."""
    if math.dist(start, end) <= JOIN_MM:
        return None
    if segment.bulge == 0:
        ux, uy = _tangent(segment, 0)
        return 0.0 if (end[0] - start[0]) * ux + (end[1] - start[1]) * uy > 0 else None
    cx, cy = segment.centre
    first, last = math.atan2(start[1] - cy, start[0] - cx), math.atan2(end[1] - cy, end[0] - cx)
    sign = math.copysign(1, segment.bulge)
    sweep = (last - first) * sign % (2 * math.pi)
    # A moved arc that suddenly sweeps far more than its source has turned inside out.
    return sign * math.tan(sweep / 4) if sweep < abs(segment.sweep) + math.pi / 2 else None


def _keeps_away(moved: Contour, source: Contour, distance: float) -> bool:
    """Whether `moved` is one loop, turns the same way, and comes nowhere nearer to `source` than `distance`."""
    import numpy as np
    import shapely

    loop = shapely.linearrings(np.array(flatten(moved.segments, CHORD_MM)))
    if moved.area * source.area <= 0 or not shapely.is_simple(loop):
        return False
    edge = shapely.linearrings(np.array(flatten(source.segments, CHORD_MM)))
    shapely.prepare(edge)
    return bool(shapely.distance(edge, loop) >= distance - 2 * CHORD_MM)


def _move_and_resolve(ring: Contour, distance: float) -> list[Region]:
    """The moved pieces cut up where they cross, and of the faces between them those at the right distance.

    The true boundary is part of the moved pieces, so each face lies wholly on one side of it.
    """
    import shapely

    pieces = _raw_pieces(ring, distance)
    source = shapely.Polygon(flatten(ring.segments, CHORD_MM))
    shapely.prepare(source)
    arrangement = Arrangement()
    arrangement.flatten([[piece] for piece in pieces])
    chords = shapely.linestrings(arrangement.chords())
    faces = shapely.get_parts(shapely.polygonize(chords))
    inner = shapely.point_on_surface(faces)
    outside = ~shapely.contains(source, inner)
    depth = shapely.distance(source.exterior, inner)
    kept = (~outside | (depth < distance)) if distance > 0 else (~outside & (depth > -distance))
    return recover_regions(arrangement, shapely.union_all(faces[kept]))


def _raw_pieces(ring: Contour, distance: float) -> list[Segment]:
    """Every segment moved, even if its arc turns inside out, and an arc round every corner where two part."""
    segments = ring.segments
    moved = [_shift(segment, distance) for segment in segments]
    pieces = list(moved)
    for index, segment in enumerate(segments):
        if _turn_between(segments[index - 1], segment) * distance > 1e-9:
            bulge = _round_bulge(segments[index - 1], segment, distance)
            pieces.append(Segment(moved[index - 1].end, moved[index].start, bulge))
    return [piece for piece in pieces if math.dist(piece.start, piece.end) > JOIN_MM]
