"""Checks of how lines lie to each other: twice, crossing, too close, and short ones in place of an arc."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterator

import numpy as np

from ..findings import Finding
from ..geometry.noding import Pieces, cut_up
from ..geometry.segments import Floats, Ints, Segments
from ..units import say_mm
from .drawing import JOINS_MM, Drawing, finding

CHORD_TURNS = 8
LONGEST_CHORD_MM = 5.0
ROUND_WITHIN_MM = 0.02


def twice_and_crossing(drawing: Drawing) -> Iterator[Finding]:
    """Stretches that are there twice, and paths that cross themselves, from the pieces between all meetings."""
    if not len(drawing.segments):
        return
    pieces = cut_up(drawing.fine, drawing.around)
    path = drawing.fine_path[pieces.parent]
    length = pieces.as_segments.length
    order = np.argsort(pieces.same, kind="stable")
    same = pieces.same[order]
    again = order[np.flatnonzero(np.r_[False, same[1:] == same[:-1]])]
    by_path: dict[int, list[int]] = defaultdict(list)
    for k in again.tolist():
        by_path[int(path[k])].append(k)
    for number, twice in by_path.items():
        amount = float(length[twice].sum())
        middle = pieces.as_segments.middle[twice[0]]
        whole = amount > 0.999 * float(length[path == number].sum())
        yield finding(
            "cut-twice", "stop",
            f"Path {drawing.name(number)} is there twice" + ("." if whole else f" over {say_mm(amount, 1)}."),
            "Delete one of the two: it scorches, and takes twice the time.",
            (float(middle[0]), float(middle[1])), amount,
        )  # fmt: skip
    yield from _near_copies(drawing, set(by_path))
    yield from _crossings(drawing, pieces, set(by_path))


def _near_copies(drawing: Drawing, told: set[int]) -> Iterator[Finding]:
    """Paths with the same box and length as another within 0.05 mm: drawn over each other by hand or by two exports."""
    known: dict[tuple[int, ...], int] = {}
    boxes: dict[int, Floats] = {}
    first = np.flatnonzero(np.r_[True, drawing.path[1:] != drawing.path[:-1]])
    numbers = drawing.path[first].tolist()
    low = np.minimum.reduceat(drawing.segments.box[:, :2], first)
    high = np.maximum.reduceat(drawing.segments.box[:, 2:], first)
    lengths = np.add.reduceat(drawing.segments.length, first)
    rows = np.column_stack([low, high, lengths])
    for row, number in zip(rows, numbers, strict=True):
        boxes[number] = row
        # Two rows within 0.05 share one of two grids.
        for shift in (0.0, 0.5):
            key = (int(shift * 2), *np.floor(row / 0.1 + shift).astype(int).tolist())
            other = known.setdefault(key, number)
            if other != number and number not in told and np.abs(boxes[other] - row).max() < 0.05:
                told.add(number)
                yield finding(
                    "cut-twice", "stop", f"Path {drawing.name(number)} lies on {drawing.name(other)}.",
                    "Delete one of the two: it scorches, and takes twice the time.",
                    (float(row[0]), float(row[1])), float(row[4]),
                )  # fmt: skip


def _crossings(drawing: Drawing, pieces: Pieces, twice: set[int]) -> Iterator[Finding]:
    """Places where a path meets itself other than from one piece to the next, or crosses another."""
    path, segments = drawing.fine_path, drawing.fine
    owner, other, place = pieces.meetings
    inside = segments.from_ends(owner, place) > 1e-5
    told: set[tuple[int, int]] = set()
    for k in np.flatnonzero(inside).tolist():
        a, b = sorted((int(path[owner[k]]), int(path[other[k]])))
        if (a, b) in told or a in twice or b in twice:
            continue
        one, two = drawing.paths[a], drawing.paths[b]
        if one.layer != two.layer or (a != b and not (one.closed and two.closed)):
            continue  # lines of letters and the like may cross as they please
        told.add((a, b))
        where = (float(place[k][0]), float(place[k][1]))
        if a == b:
            yield finding(
                "crosses-itself", "stop", f"Path {drawing.name(a)} crosses or touches itself.",
                "Draw it anew, or take it apart where it crosses.", where,
            )  # fmt: skip
        else:
            yield finding(
                "paths-cross", "look", f"Paths {drawing.name(a)} and {drawing.name(b)} cross or touch.",
                "Join them into one outline, or move them apart.", where,
            )  # fmt: skip


def chords(drawing: Drawing) -> Iterator[Finding]:
    """Runs of short lines whose corners lie on one circle: arcs that were taken apart."""
    s, path = drawing.segments, drawing.path
    if len(s) < CHORD_TURNS:
        return
    cross = s.chord[:-1, 0] * s.chord[1:, 1] - s.chord[:-1, 1] * s.chord[1:, 0]
    turn = np.arctan2(cross, (s.chord[:-1] * s.chord[1:]).sum(axis=1))
    bend = turn / ((s.span[:-1] + s.span[1:]) / 2)
    # A joint between two lines of about one length that turns a little, the same way and as much as the one before.
    joint = (
        (path[:-1] == path[1:])
        & ~s.round[:-1]
        & ~s.round[1:]
        & (np.abs(s.end[:-1] - s.start[1:]).max(axis=1) < JOINS_MM)
        & (np.maximum(s.span[:-1], s.span[1:]) < LONGEST_CHORD_MM)
        & (np.abs(turn) > 1e-4)
        & (np.abs(turn) < math.radians(46))
    )
    alike = joint[:-1] & joint[1:] & (np.abs(bend[:-1] - bend[1:]) <= 0.1 * np.abs(bend[:-1]) + 1e-6)
    edges = np.flatnonzero(np.diff(np.r_[False, alike, False].astype(np.int8)))
    for low, high in zip(edges[::2].tolist(), edges[1::2].tolist(), strict=True):
        if high - low + 1 < CHORD_TURNS - 1:
            continue
        corners = np.vstack([s.start[low : high + 2], s.end[high + 1 : high + 2]])
        radius, off = _circle_through(corners)
        if off <= ROUND_WITHIN_MM and radius < 1e4:
            number = int(path[low])
            yield finding(
                "chords-for-arc", "look",
                f"Path {drawing.name(number)} has {high - low + 2} short lines in place of an arc of radius {say_mm(radius)}.",
                "Export arcs as arcs: short lines cut slowly and show facets.",
                (float(corners[0][0]), float(corners[0][1])), high - low + 2,
            )  # fmt: skip


def _circle_through(points: Floats) -> tuple[float, float]:
    """The radius of the circle that fits points best by least squares (Kasa 1976), and how far the worst of them is off it."""
    away = points - points.mean(axis=0)
    matrix = np.column_stack([2 * away, np.ones(len(away))])
    (x, y, rest), *_ = np.linalg.lstsq(matrix, (away**2).sum(axis=1), rcond=None)
    radius = math.sqrt(max(rest + x * x + y * y, 0.0))
    off = np.abs(np.hypot(away[:, 0] - x, away[:, 1] - y) - radius)
    return radius, float(off.max())


def too_close(drawing: Drawing, limit: float) -> Iterator[Finding]:
    """Pairs of outlines of one layer whose lines come nearer than `limit` without meeting."""
    s, path = drawing.fine, drawing.fine_path
    if not len(s) or limit <= 0:
        return
    i, j = drawing.around.touching(s.box, s.group, slack=limit)
    ahead = path[i] < path[j]
    i, j = i[ahead], j[ahead]
    layers = {layer: n for n, layer in enumerate({one.layer for one in drawing.paths})}
    layer = np.array([layers[one.layer] for one in drawing.paths])
    closed = np.array([one.closed for one in drawing.paths])
    alike = (layer[path[i]] == layer[path[j]]) & closed[path[i]] & closed[path[j]]
    i, j = i[alike], j[alike]
    gap, place = _gaps(s, i, j)
    near = np.flatnonzero((gap < limit - 1e-6) & (gap > 1e-5))
    touching = {(int(path[a]), int(path[b])) for a, b in zip(i[gap <= 1e-5], j[gap <= 1e-5], strict=True)}
    worst: dict[tuple[int, int], int] = {}
    for k in near.tolist():
        key = (int(path[i[k]]), int(path[j[k]]))
        if key not in touching and (key not in worst or gap[k] < gap[worst[key]]):
            worst[key] = k
    for (a, b), k in worst.items():
        yield finding(
            "cuts-close", "look",
            f"Paths {drawing.name(a)} and {drawing.name(b)} come within {say_mm(float(gap[k]))} of each other.",
            f"Move them {say_mm(limit)} apart: a thin web burns or breaks.",
            (float(place[k][0]), float(place[k][1])), float(gap[k]),
        )  # fmt: skip


def _gaps(s: Segments, i: Ints, j: Ints) -> tuple[Floats, Floats]:
    """How near the segments of each pair come, and where; crossing ones count by their ends alone.

    Two lines are nearest at an end of one. An arc may be nearest where the way to the other's line or centre leaves it.
    """
    best, place = np.full(len(i), np.inf), np.zeros((len(i), 2))

    def consider(at: Ints, points: Floats, on: Ints) -> None:
        gap = s.distance_to(on, points)
        closer = gap < best[at]
        best[at[closer]] = gap[closer]
        place[at[closer]] = points[closer]

    every = np.arange(len(i))
    for a, b in ((i, j), (j, i)):
        consider(every, s.start[a], b)
        consider(every, s.end[a], b)
        arcs = np.flatnonzero(s.round[a])
        towards = np.where(s.round[b[arcs]][:, None], s.centre[b[arcs]], _foot(s, b[arcs], s.centre[a[arcs]]))
        way = towards - s.centre[a[arcs]]
        size = np.maximum(np.hypot(*way.T), 1e-12)
        for sign in (1.0, -1.0):
            points = s.centre[a[arcs]] + sign * way * (s.radius[a[arcs]] / size)[:, None]
            on = s.on_arc_side(a[arcs], points)
            consider(arcs[on], points[on], b[arcs[on]])
    return best, place


def _foot(s: Segments, line: Ints, points: Floats) -> Floats:
    share = ((points - s.start[line]) * s.chord[line]).sum(axis=1) / s.span[line] ** 2
    return np.asarray(s.start[line] + share[:, None] * s.chord[line])
