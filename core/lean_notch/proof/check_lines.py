"""Checks of how lines lie to each other: twice, crossing, too close, and short ones in place of an arc."""

from __future__ import annotations

import math
from collections.abc import Iterator

import numpy as np

from ..geometry.gaps import gaps
from ..geometry.noding import Pieces, TooTangled, cut_up
from ..geometry.segments import Floats, Ints
from ..ground.findings import Finding
from ..lengths.said import say_mm
from .drawing import JOINS_MM, Drawing, finding

MOST_PAIRS = 500_000
"""Pairs of lines whose boxes touch: each may cross. What compares them takes a few seconds and some hundred megabytes."""

MOST_NEAR = 2_000_000
"""Pairs of lines that lie near enough to ask how near."""

NEAR_COPY_MM = 0.05
LEAST_TWICE_MM = 0.01
"""Less than this of a path on another one is how they meet, no double."""

CHORD_TURNS = 8
LONGEST_CHORD_MM = 5.0
ROUND_WITHIN_MM = 0.02


def twice_and_crossing(drawing: Drawing) -> Iterator[Finding]:
    """Stretches that are there twice, and paths that cross themselves, from the pieces between all meetings."""
    if not len(drawing.segments):
        return
    count = len(drawing.paths)
    amount = np.zeros(count)
    np.add.at(amount, drawing.fine_path[drawing.again], drawing.fine.length[drawing.again])
    place = dict(
        zip(drawing.fine_path[drawing.again].tolist(), drawing.fine.middle[drawing.again].tolist(), strict=True)
    )
    try:
        pieces = cut_up(drawing.once, drawing.around, MOST_PAIRS)
    except TooTangled:
        pieces = None
        yield _not_compared(drawing, "doubles that lie on each other in part, and crossings", MOST_PAIRS)
    if pieces:
        path = drawing.once_path[pieces.parent]
        order = np.argsort(pieces.same, kind="stable")
        same = pieces.same[order]
        again = order[np.flatnonzero(np.r_[False, same[1:] == same[:-1]])]
        np.add.at(amount, path[again], pieces.as_segments.length[again])
        place |= zip(path[again].tolist(), pieces.as_segments.middle[again].tolist(), strict=True)
    whole = np.bincount(drawing.fine_path, drawing.fine.length, count)
    twice = np.flatnonzero(amount > LEAST_TWICE_MM).tolist()
    for number in twice:
        over = "." if amount[number] > 0.999 * whole[number] else f" over {say_mm(float(amount[number]), 1)}."
        x, y = place[number]
        yield finding(
            "cut-twice", "stop", f"Path {drawing.name(number)} is doubled{over}",
            "Delete one. Cutting a line twice scorches it and doubles the time.", (x, y), float(amount[number]),
        )  # fmt: skip
    told = set(twice)
    yield from _near_copies(drawing, told)
    if pieces:
        yield from _crossings(drawing, pieces, told)


def _not_compared(drawing: Drawing, what: str, most: int) -> Finding:
    box = drawing.box or (0.0, 0.0, 0.0, 0.0)
    return finding(
        "too-tangled", "unseen",
        f"More than {most:,} pairs of lines come near each other: {what} were not looked for.",
        "Check a part of the drawing at a time, or delete what is there many times.",
        ((box[0] + box[2]) / 2, (box[1] + box[3]) / 2), most,
    )  # fmt: skip


def _near_copies(drawing: Drawing, told: set[int]) -> Iterator[Finding]:
    """Paths with the same box and length as another, and lying on it: drawn over each other by hand or by two exports."""
    known: dict[tuple[int, ...], int] = {}
    boxes: dict[int, Floats] = {}
    first = np.flatnonzero(np.r_[True, drawing.path[1:] != drawing.path[:-1]])
    numbers = drawing.path[first].tolist()
    at = dict(zip(numbers, np.split(np.arange(len(drawing.path)), first[1:]), strict=True))
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
            if (
                other != number and number not in told and np.abs(boxes[other] - row).max() < NEAR_COPY_MM
                and _lies_on(drawing, at[number], at[other])
            ):  # fmt: skip
                told.add(number)
                yield finding(
                    "cut-twice", "stop", f"Path {drawing.name(number)} lies on {drawing.name(other)}.",
                    "Delete one. Cutting a line twice scorches it and doubles the time.",
                    (float(row[0]), float(row[1])), float(row[4]),
                )  # fmt: skip


def _lies_on(drawing: Drawing, one: Ints, other: Ints) -> bool:
    """Whether some twenty places of one path's segments lie on another's."""
    s = drawing.segments
    some = one[:: max(len(one) // 10, 1)]
    places = np.concatenate([s.start[some], s.middle[some]])
    query, target = np.repeat(np.arange(len(places)), len(other)), np.tile(other, len(places))
    nearest = s.distance_to(target, places[query]).reshape(len(places), len(other)).min(axis=1)
    return bool(nearest.max() < 2 * NEAR_COPY_MM)


def _crossings(drawing: Drawing, pieces: Pieces, twice: set[int]) -> Iterator[Finding]:
    """Places where a path meets itself other than from one piece to the next, or crosses another."""
    path, segments = drawing.once_path, drawing.once
    owner, other, place = pieces.meetings
    inside = np.flatnonzero(segments.from_ends(owner, place) > 1e-5)
    one, two = path[owner[inside]], path[other[inside]]
    one, two = np.minimum(one, two), np.maximum(one, two)
    layer, closed = drawing.layers, drawing.closed
    # Lines of letters and the like may cross as they please.
    counts = (layer[one] == layer[two]) & ((one == two) | (closed[one] & closed[two]))
    counts &= ~np.isin(one, list(twice)) & ~np.isin(two, list(twice))
    one, two, inside = one[counts], two[counts], inside[counts]
    _, first = np.unique(one * len(drawing.paths) + two, return_index=True)
    for a, b, (x, y) in zip(one[first].tolist(), two[first].tolist(), place[inside[first]].tolist(), strict=True):
        where = (x, y)
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
    s, path = drawing.once, drawing.once_path
    if not len(s) or limit <= 0:
        return
    layer, closed = drawing.layers, drawing.closed
    asked = np.flatnonzero(closed[path])
    touching: set[tuple[int, int]] = set()
    worst: dict[tuple[int, int], tuple[float, float, float]] = {}
    try:
        for some, j in drawing.around.touching_by_parts(s.box[asked], s.group[asked], limit, MOST_NEAR):
            i = asked[some]
            apart = (path[i] < path[j]) & closed[path[j]] & (layer[path[i]] == layer[path[j]])
            i, j = i[apart], j[apart]
            gap, place = gaps(s, i, j)
            order = np.argsort(gap, kind="stable")
            order = order[gap[order] < limit - 1e-6]
            _, first = np.unique(path[i[order]] * len(drawing.paths) + path[j[order]], return_index=True)
            for k in order[first].tolist():
                key = (int(path[i[k]]), int(path[j[k]]))
                if gap[k] <= 1e-5:
                    touching.add(key)
                elif key not in worst or gap[k] < worst[key][0]:
                    worst[key] = (float(gap[k]), float(place[k][0]), float(place[k][1]))
    except TooTangled:
        yield _not_compared(drawing, f"cuts nearer than {say_mm(limit)}", MOST_NEAR)
    for (a, b), (near, x, y) in worst.items():
        if (a, b) not in touching:
            yield finding(
                "cuts-close", "look",
                f"Paths {drawing.name(a)} and {drawing.name(b)} come within {say_mm(near)} of each other.",
                f"Move them {say_mm(limit)} apart: a thin web burns or breaks.", (x, y), near,
            )  # fmt: skip
