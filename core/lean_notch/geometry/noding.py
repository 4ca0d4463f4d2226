"""Segments cut up wherever they meet: in, segments of any number of groups; out, nodes and the pieces between them.

Pieces share their nodes bitwise, and two pieces have nothing in common but nodes, unless they are one and the same.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

import numpy as np

from .contour import JOIN_MM
from .segments import Flags, Floats, Ints, Segments, distances

_MOST_FOUND = 4_000_000

LONGEST_PIECE = np.pi / 2 + 1e-9
"""Arcs are handed in in quarters, so that a line across one at its middle never meets it twice."""


@dataclass(frozen=True)
class Pieces:
    """Piece k runs from node `first[k]` to node `last[k]` along segment `parent[k]`, in its direction and order.

    `nodes` are (m, 2) in mm; `same[k]` numbers the place of piece k, shared by pieces that coincide. `meetings` are
    those of the segments that were cut up.
    """

    nodes: Floats
    first: Ints
    last: Ints
    bulge: Floats
    parent: Ints
    group: Ints
    meetings: tuple[Ints, Ints, Floats]

    @cached_property
    def as_segments(self) -> Segments:
        return Segments(self.nodes[self.first], self.nodes[self.last], self.bulge, self.group)

    @cached_property
    def forward(self) -> Flags:
        """Whether a piece runs from its lower-numbered node to the higher one."""
        return self.first < self.last

    @cached_property
    def same(self) -> Ints:
        low, high = np.minimum(self.first, self.last), np.maximum(self.first, self.last)
        rise = np.where(self.forward, self.bulge, -self.bulge) * self.as_segments.span / 2
        order = np.lexsort((rise, high, low))
        new: Flags = np.ones(len(order), bool)
        a, b = order[:-1], order[1:]
        new[1:] = (low[a] != low[b]) | (high[a] != high[b]) | (np.abs(rise[a] - rise[b]) > 4 * JOIN_MM)
        place = np.empty(len(order), np.int64)
        place[order] = np.cumsum(new) - 1
        return place


def quarters(segments: Segments) -> tuple[Segments, Ints]:
    """`segments` with arcs of more than a quarter turn in equal pieces, and of each piece the segment it is of."""
    counts = np.maximum(np.ceil(np.abs(segments.sweep) / LONGEST_PIECE), 1).astype(np.int64)
    if (counts == 1).all():
        return segments, np.arange(len(segments))
    parent = np.repeat(np.arange(len(segments)), counts)
    ends = np.cumsum(counts)
    index = np.arange(len(parent)) - (ends - counts)[parent]
    count = counts[parent]
    turn = segments.sweep[parent] * index / count
    centre = segments.centre[parent]
    away = segments.start[parent] - centre
    cos, sin = np.cos(turn), np.sin(turn)
    inner = centre + np.stack([away[:, 0] * cos - away[:, 1] * sin, away[:, 0] * sin + away[:, 1] * cos], axis=1)
    start = np.where((index == 0)[:, None], segments.start[parent], inner)
    end = np.where((index == count - 1)[:, None], segments.end[parent], np.roll(start, -1, axis=0))
    bulge = np.where(count == 1, segments.bulge[parent], np.tan(segments.sweep[parent] / count / 4))
    return Segments(start, end, bulge, segments.group[parent]), parent


class TooTangled(Exception):
    """More segments lie near each other than are compared."""


class Neighbours:
    """Finds which segments' boxes touch which; groups are laid side by side so that they never do."""

    def __init__(self, segments: Segments) -> None:
        import shapely

        self._box = segments.box
        count = int(segments.group.max()) + 1 if len(segments) else 0
        low = np.full((count, 2), np.inf)
        np.minimum.at(low, segments.group, self._box[:, :2])
        high = np.full((count, 2), -np.inf)
        np.maximum.at(high, segments.group, self._box[:, 2:])
        self.low, self.high = low, high
        self.reach = float(np.max(high - low, initial=0.0, where=np.isfinite(high - low))) + 1.0
        self._shift = np.arange(count)[:, None] * (self.reach + 1.0) - np.where(np.isfinite(low), low, 0.0)
        self._tree = shapely.STRtree(self._boxes(self._box, segments.group))
        # So many queries at once that even if each met every segment, what they find has room.
        self._at_once = _MOST_FOUND // max(len(segments), 1) + 1

    def _boxes(self, box: Floats, group: Ints, slack: float = 2 * JOIN_MM) -> object:
        import shapely

        shift = self._shift[group]
        # A diagonal has the box's envelope, which is all that the tree asks for, and is quicker made.
        return shapely.linestrings((box + np.hstack([shift, shift]) + (-slack, -slack, slack, slack)).reshape(-1, 2, 2))

    def pairs(self, most: int | None = None) -> tuple[Ints, Ints]:
        """Every pair of segments whose boxes touch, once. Raises TooTangled for more than `most`."""
        found: list[tuple[Ints, Ints]] = []
        count, every = 0, self._tree.geometries
        for low in range(0, len(every), self._at_once):
            first, second = self._tree.query(every[low : low + self._at_once])
            first = first + low
            ahead = first < second
            found.append((first[ahead], second[ahead]))
            count += len(found[-1][0])
            if most is not None and count > most:
                raise TooTangled
        if not found:
            return np.empty(0, np.int64), np.empty(0, np.int64)
        firsts, seconds = zip(*found, strict=True)
        return np.concatenate(firsts), np.concatenate(seconds)

    def touching(self, box: Floats, group: Ints, slack: float = 2 * JOIN_MM) -> tuple[Ints, Ints]:
        """(query, segment) for every segment whose box touches a query's `box`."""
        query, segment = self._tree.query(self._boxes(box, group, slack))
        return query, segment

    def touching_by_parts(self, box: Floats, group: Ints, slack: float, most: int) -> Iterator[tuple[Ints, Ints]]:
        """As `touching`, a part of the queries after the other. Raises TooTangled once more than `most` were found."""
        count = 0
        for low in range(0, len(box), self._at_once):
            some = slice(low, low + self._at_once)
            query, segment = self.touching(box[some], group[some], slack)
            count += len(query)
            if count > most:
                raise TooTangled
            yield query + low, segment


def meetings(s: Segments, i: Ints, j: Ints) -> tuple[Ints, Ints, Floats]:
    """(segment, other, point) for every place where the segments of a pair meet, shared stretches by their ends.

    Ends that are bitwise those of the segment itself are left out.
    """
    owners: list[Ints] = []
    others: list[Ints] = []
    places: list[Floats] = []
    for a, b in ((i, j), (j, i)):
        for point in (s.start[b], s.end[b]):
            own = (point == s.start[a]).all(axis=1) | (point == s.end[a]).all(axis=1)
            maybe = np.flatnonzero(~own)
            if not len(maybe):
                continue
            on = maybe[s.lies_on(a[maybe], point[maybe])]
            owners.append(a[on])
            others.append(b[on])
            places.append(point[on])
    for pair, point in _crossings(s, i, j):
        if not len(pair):
            continue
        both = s.lies_on(i[pair], point) & s.lies_on(j[pair], point)
        owners += [i[pair[both]], j[pair[both]]]
        others += [j[pair[both]], i[pair[both]]]
        places += [point[both], point[both]]
    if not owners:
        return np.empty(0, np.int64), np.empty(0, np.int64), np.empty((0, 2))
    return np.concatenate(owners), np.concatenate(others), np.concatenate(places)


def _crossings(s: Segments, i: Ints, j: Ints) -> list[tuple[Ints, Floats]]:
    """(pair, point) where the lines and circles of the pairs meet."""
    round_i, round_j = s.round[i], s.round[j]
    found = []
    lines = np.flatnonzero(~round_i & ~round_j)
    found += _lines_meet(s, lines, i[lines], j[lines])
    if len(lines) == len(i):
        return found
    mixed = np.flatnonzero(round_i != round_j)
    line, arc = np.where(round_i[mixed], j[mixed], i[mixed]), np.where(round_i[mixed], i[mixed], j[mixed])
    found += _line_meets_circle(s, mixed, line, arc)
    arcs = np.flatnonzero(round_i & round_j)
    found += _circles_meet(s, arcs, i[arcs], j[arcs])
    return found


def _lines_meet(s: Segments, pair: Ints, i: Ints, j: Ints) -> list[tuple[Ints, Floats]]:
    d, e, between = s.chord[i], s.chord[j], s.start[j] - s.start[i]
    cross = d[:, 0] * e[:, 1] - d[:, 1] * e[:, 0]
    meet = np.abs(cross) > 1e-12 * s.span[i] * s.span[j]
    t = (between[meet, 0] * e[meet, 1] - between[meet, 1] * e[meet, 0]) / cross[meet]
    return [(pair[meet], s.start[i[meet]] + t[:, None] * d[meet])]


def _line_meets_circle(s: Segments, pair: Ints, line: Ints, arc: Ints) -> list[tuple[Ints, Floats]]:
    unit = s.chord[line] / s.span[line][:, None]
    centre, radius = s.centre[arc], s.radius[arc]
    foot = s.start[line] + ((centre - s.start[line]) * unit).sum(axis=1)[:, None] * unit
    return _both_sides(pair, foot, unit, distances(foot, centre), radius)


def _circles_meet(s: Segments, pair: Ints, i: Ints, j: Ints) -> list[tuple[Ints, Floats]]:
    apart = distances(s.centre[i], s.centre[j])
    far = apart > JOIN_MM
    pair, i, j, apart = pair[far], i[far], j[far], apart[far]
    r, other = s.radius[i], s.radius[j]
    along = (apart**2 + r**2 - other**2) / (2 * apart)
    unit = (s.centre[j] - s.centre[i]) / apart[:, None]
    foot = s.centre[i] + along[:, None] * unit
    across = np.stack([-unit[:, 1], unit[:, 0]], axis=1)
    # Circles that miss or cut by less than JOIN_MM touch in one point.
    touch = np.minimum(np.abs(apart - r - other), np.abs(apart - np.abs(r - other))) <= JOIN_MM
    height = np.where(touch, r, np.abs(along))
    return _both_sides(pair, foot, across, height, r)


def _both_sides(pair: Ints, foot: Floats, unit: Floats, height: Floats, radius: Floats) -> list[tuple[Ints, Floats]]:
    """Where a line through `foot` along `unit`, `height` from a circle's centre, cuts the circle."""
    touch = np.abs(height - radius) <= JOIN_MM
    cut = (height < radius) & ~touch
    half = np.sqrt(np.maximum(radius[cut] ** 2 - height[cut] ** 2, 0.0))[:, None] * unit[cut]
    return [(pair[touch], foot[touch]), (pair[cut], foot[cut] - half), (pair[cut], foot[cut] + half)]


def cut_up(segments: Segments, neighbours: Neighbours | None = None, most: int | None = None) -> Pieces:
    """`segments`, none turning more than a quarter, in the pieces between all their meetings.

    Raises TooTangled where more than `most` pairs of them may meet.
    """
    count = len(segments)
    i, j = (neighbours or Neighbours(segments)).pairs(most)
    met = meetings(segments, i, j)
    owner, _, place = met
    points = np.concatenate([segments.start, segments.end, place])
    group = np.concatenate([segments.group, segments.group, segments.group[owner]])
    node = merged(points, group)
    # Each segment's own ends and what lies between them, in order along it.
    holder = np.concatenate([np.arange(count), np.arange(count), owner])
    reach = np.where(segments.round, np.abs(segments.sweep), segments.span)
    param = np.concatenate([np.zeros(count), reach, segments.param(owner, place)])
    rank = np.concatenate([np.full(count, -1), np.full(count, 1), np.zeros(len(owner), np.int64)])
    order = np.lexsort((param, rank, holder))
    holder, node = holder[order], node[order]
    piece = (holder[:-1] == holder[1:]) & (node[:-1] != node[1:])
    first, last, parent = node[:-1][piece], node[1:][piece], holder[:-1][piece]
    bulge = np.zeros(len(parent))
    arcs = np.flatnonzero(segments.round[parent])
    if arcs.size:
        centre = segments.centre[parent[arcs]]
        a, b = points[first[arcs]] - centre, points[last[arcs]] - centre
        turn = np.arctan2(a[:, 0] * b[:, 1] - a[:, 1] * b[:, 0], (a * b).sum(axis=1))
        bulge[arcs] = np.tan(turn / 4)
    return Pieces(points, first, last, bulge, parent, segments.group[parent], met)


def merged(points: Floats, group: Ints) -> Ints:
    """For each point the number of the first point of its group within JOIN_MM, itself if it is alone."""
    label = np.arange(len(points))
    size = 4 * JOIN_MM
    # Two points within JOIN_MM share a cell in at least one of four grids shifted by half a cell.
    for shift in ((0.0, 0.0), (0.5, 0.0), (0.0, 0.5), (0.5, 0.5)):
        cell = np.floor(points / size + shift).astype(np.int64).view(np.uint64)
        key = _mixed(_mixed(_mixed(cell[:, 0]) ^ cell[:, 1]) ^ group.astype(np.uint64))
        _, place = np.unique(key, return_inverse=True)
        lowest = np.full(int(place.max(initial=-1)) + 1, len(points))
        np.minimum.at(lowest, place, label)
        root = np.arange(len(points))
        np.minimum.at(root, label, lowest[place])
        while (root[root] != root).any():
            root = root[root]
        label = root[label]
    return label


def alike(s: Segments, within: float) -> Ints:
    """For each segment the number of the first one that is the same line or arc, whichever way it runs, on a grid of
    `within` mm; itself if there is none. What is told apart by the grid only may be told apart."""
    forward = (s.start[:, 0] < s.end[:, 0]) | ((s.start[:, 0] == s.end[:, 0]) & (s.start[:, 1] <= s.end[:, 1]))
    low, high = np.where(forward[:, None], s.start, s.end), np.where(forward[:, None], s.end, s.start)
    rise = np.where(forward, s.bulge, -s.bulge) * s.span / 2
    cells = np.rint(np.column_stack([low, high, rise]) / within).astype(np.int64).view(np.uint64)
    key = s.group.astype(np.uint64)
    for column in cells.T:
        key = _mixed(_mixed(key) ^ column)
    _, first, place = np.unique(key, return_index=True, return_inverse=True)
    return np.asarray(first[place])


def _mixed(value: Ints) -> Ints:
    """Spreads 64 bits (Steele, Lea and Flood 2014, SplitMix64; from memory)."""
    value = (value ^ (value >> np.uint64(30))) * np.uint64(0xBF58476D1CE4E5B9)
    value = (value ^ (value >> np.uint64(27))) * np.uint64(0x94D049BB133111EB)
    return value ^ (value >> np.uint64(31))
