"""The checks of a drawing that came from anywhere: in, what a reader found in it; out, sizes, counts and findings.

Nothing is known of the job it is for. Every check looks at the lines themselves, in mm, whatever drew them.
"""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from ..findings import Finding, Severity
from ..formats.read_file import ReadFile, ReadPath
from ..geometry import Box, Point
from ..geometry.noding import Neighbours, Pieces, cut_up, merged, quarters
from ..geometry.segments import Floats, Ints, Segments, segments_of
from ..units import MM_PER_INCH, say_mm
from .as_cut import without_lead

CLOSE_CUTS_MM = 1.0
"""Between cuts nearer than this the web burns or breaks. Common practice; thicker stock wants more."""

JOINS_MM = 0.01
"""Ends this near are meant to be one."""

GAP_MM = 2.0
GAP_SHARE = 0.03
"""Ends further apart than this, or than this share of the line between them, are no gap but the ends of an open line."""

THINNEST_STROKE_MM = 0.02
CHORD_TURNS = 8
LONGEST_CHORD_MM = 5.0
ROUND_WITHIN_MM = 0.02
MOST_OF_A_KIND = 20
"""Findings of one kind beyond this are counted, not listed."""


@dataclass(frozen=True)
class LayerCount:
    """What a layer holds: paths, closed ones among them, nodes, and the length of all its lines in mm."""

    layer: str
    paths: int
    closed: int
    nodes: int
    length: float


@dataclass(frozen=True)
class FileReport:
    """`box` is the extent of all lines in mm, None for a file without any; `unit` is "" where the file names none."""

    unit: str
    page: tuple[float, float] | None
    box: Box | None
    layers: tuple[LayerCount, ...]
    findings: tuple[Finding, ...]

    @property
    def sound(self) -> bool:
        return not any(finding.severity == "stop" for finding in self.findings)


def check_file(file: ReadFile, close_mm: float = CLOSE_CUTS_MM) -> FileReport:
    """All that a receiver would complain about, each with its place and its mend."""
    drawing = _Drawing(file.paths)
    findings = [
        *_units(file, drawing),
        *_strange(file),
        *_open(drawing),
        *_no_length(drawing),
        *_twice_and_crossing(drawing),
        *_chords(drawing),
        *_looks(file),
        *_too_close(drawing, close_mm),
    ]
    page = (file.width, file.height) if file.width and file.height else None
    return FileReport(file.unit, page, drawing.box, tuple(_counts(drawing)), tuple(_shortened(findings)))


class _Drawing:
    """The lines of a file as arrays; `path` is the number of each segment's path. Those without length are apart."""

    def __init__(self, paths: Sequence[ReadPath]) -> None:
        self.paths = paths = [without_lead(path) for path in paths]
        every = segments_of([path.segments for path in paths], [0] * len(paths))
        path = np.repeat(np.arange(len(paths)), [len(one.segments) for one in paths]).astype(np.int64)
        some = every.span > 1e-9
        self.segments, self.path = every.take(some), path[some]
        self.fine, parent = quarters(self.segments)
        self.fine_path = self.path[parent]
        self.around = Neighbours(self.fine)
        self.without = [(int(path[i]), tuple(every.start[i].tolist())) for i in np.flatnonzero(~some)]
        self.box: Box | None = None
        if len(self.segments):
            low, high = self.segments.box[:, :2].min(axis=0), self.segments.box[:, 2:].max(axis=0)
            self.box = (float(low[0]), float(low[1]), float(high[0]), float(high[1]))

    def name(self, path: int) -> str:
        one = self.paths[path]
        return f"“{one.name}”" if one.name else f"number {path + 1}"


def _finding(code: str, severity: Severity, why: str, fix: str, place: Point | None, amount: float = 0.0) -> Finding:
    return Finding(code, severity, why, fix, place=place, amount=amount)


def _counts(drawing: _Drawing) -> Iterator[LayerCount]:
    lengths = np.bincount(drawing.path, drawing.segments.length, minlength=len(drawing.paths))
    by_layer: dict[str, list[int]] = defaultdict(list)
    for number, path in enumerate(drawing.paths):
        by_layer[path.layer].append(number)
    for layer, numbers in sorted(by_layer.items()):
        mine = [drawing.paths[n] for n in numbers]
        nodes = sum(len(path.segments) + (not path.closed) for path in mine)
        yield LayerCount(layer, len(mine), sum(path.closed for path in mine), nodes, float(lengths[numbers].sum()))


def _units(file: ReadFile, drawing: _Drawing) -> Iterator[Finding]:
    if drawing.box is None:
        yield _finding(
            "empty", "stop", "The file holds no lines.",
            "Export it again; check that the layers with the outlines are switched on.", None,
        )  # fmt: skip
        return
    if not file.assumed:
        return
    left, low, right, high = drawing.box
    width, height = right - left, high - low
    if file.assumed == "mm":
        guesses = f"{say_mm(width * MM_PER_INCH, 1)} x {say_mm(height * MM_PER_INCH, 1)} if it was drawn in inches"
    else:
        guesses = f"{say_mm(width * 96 / 72, 1)} x {say_mm(height * 96 / 72, 1)} if 72 units are an inch"
    yield _finding(
        "no-unit", "stop",
        f"The file does not say its unit. Taken as {file.assumed}, the drawing is {say_mm(width, 1)} x "
        f"{say_mm(height, 1)}; it is {guesses}.",
        "Ask what it should measure, and export it with its size in mm.", (left, low), max(width, height),
    )  # fmt: skip


def _strange(file: ReadFile) -> Iterator[Finding]:
    for text in file.texts:
        yield _finding(
            "text", "stop", f"“{text.text[:40]}” is still text: it may turn into another font, or into nothing.",
            "Turn text into outlines before handing it over.", text.place,
        )  # fmt: skip
    for place in file.points:
        yield _finding("stray-point", "look", "A point without extent lies in the drawing.", "Delete it.", place)
    for kind in file.unread:
        yield _finding(
            "not-an-outline", "look", f"The file also holds {kind}, which is no outline.", "Remove it.", None
        )


def _no_length(drawing: _Drawing) -> Iterator[Finding]:
    for path, place in drawing.without:
        yield _finding(
            "zero-length", "look", f"Path {drawing.name(path)} has a piece without length.",
            "Delete it; some machines stop and burn there.", place,
        )  # fmt: skip


def _open(drawing: _Drawing) -> Iterator[Finding]:
    """Open paths, told apart: pieces that make a closed outline together, small gaps, and lines that just end."""
    open_paths = [number for number, path in enumerate(drawing.paths) if not path.closed and not _is_one_point(path)]
    if not open_paths:
        return
    ends = [(n, drawing.paths[n].segments[at], at) for n in open_paths for at in (0, -1)]
    places = np.array([segment.start if at == 0 else segment.end for _, segment, at in ends])
    # merged() works at a nanometre: ends are scaled so that it joins what is meant to be joined.
    node = merged(places * (1e-6 / JOINS_MM), np.zeros(len(ends), np.int64))
    meet = np.bincount(node, minlength=len(ends))
    group = _groups(len(drawing.paths), node, [number for number, _, _ in ends])
    by_group: dict[int, list[int]] = defaultdict(list)
    for i, (number, _, _) in enumerate(ends):
        by_group[group[number]].append(i)
    loose: dict[str, list[int]] = defaultdict(list)
    unclosed: dict[str, list[int]] = defaultdict(list)
    for members in by_group.values():
        numbers = {ends[i][0] for i in members}
        layer = drawing.paths[ends[members[0]][0]].layer
        free = [i for i in members if meet[node[i]] == 1]
        place = (float(places[members[0]][0]), float(places[members[0]][1]))
        if not free and len(numbers) > 1:
            yield _finding(
                "in-pieces", "look", f"An outline is drawn in {len(numbers)} pieces.",
                "Join them into one closed path, so that it is cut in one go.", place, len(numbers),
            )  # fmt: skip
        elif not free:
            unclosed[layer].append(members[0])
        elif len(free) == 2 and (gap := _gap(drawing, numbers, places[free[0]], places[free[1]])) is not None:
            yield _finding(
                "open-path", "stop", f"Path {drawing.name(ends[free[0]][0])} is open by {say_mm(gap)}.",
                "Join its ends; the machine cuts no closed outline there.",
                (float(places[free[0]][0]), float(places[free[0]][1])), gap,
            )  # fmt: skip
        else:
            loose[layer] += free
    for code, rows, what, fix in (
        ("not-closed", unclosed, "ends where it starts but is not closed", "Close it, if it is an outline to be cut."),
        ("loose-end", loose, "ends free", "Leave it if it is scored or folded; a through-cut wants a closed outline."),
    ):
        for layer, some in rows.items():
            first = ends[some[0]][0]
            count = len({ends[i][0] for i in some})
            others = f", and {count - 1} more on the layer “{layer}”" if count > 1 else ""
            place = (float(places[some[0]][0]), float(places[some[0]][1]))
            yield _finding(code, "look", f"Path {drawing.name(first)} {what}{others}.", fix, place, count)


def _gap(drawing: _Drawing, numbers: set[int], a: Floats, b: Floats) -> float | None:
    """How far the two ends of a line or chain are apart, if that is little enough to be a slip."""
    gap = math.dist(a, b)
    length = math.fsum(segment.length for n in numbers for segment in drawing.paths[n].segments)
    return gap if gap <= min(GAP_MM, GAP_SHARE * length) else None


def _is_one_point(path: ReadPath) -> bool:
    return all(segment.start == segment.end for segment in path.segments)


def _groups(count: int, node: Ints, owners: Sequence[int]) -> list[int]:
    """The number of each path's group: paths whose ends meet are of one. `owners` are the paths of the ends."""
    parent = list(range(count))

    def root(i: int) -> int:
        while parent[i] != i:
            parent[i] = parent[parent[i]]
            i = parent[i]
        return i

    at_node: dict[int, int] = {}
    for number, place in zip(owners, node.tolist(), strict=True):
        parent[root(number)] = root(at_node.setdefault(place, number))
    return [root(i) for i in range(count)]


def _twice_and_crossing(drawing: _Drawing) -> Iterator[Finding]:
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
        yield _finding(
            "cut-twice", "stop",
            f"Path {drawing.name(number)} is there twice" + ("." if whole else f" over {say_mm(amount, 1)}."),
            "Delete one of the two: it scorches, and takes twice the time.",
            (float(middle[0]), float(middle[1])), amount,
        )  # fmt: skip
    yield from _near_copies(drawing, set(by_path))
    yield from _crossings(drawing, pieces, set(by_path))


def _near_copies(drawing: _Drawing, told: set[int]) -> Iterator[Finding]:
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
                yield _finding(
                    "cut-twice", "stop", f"Path {drawing.name(number)} lies on {drawing.name(other)}.",
                    "Delete one of the two: it scorches, and takes twice the time.",
                    (float(row[0]), float(row[1])), float(row[4]),
                )  # fmt: skip


def _crossings(drawing: _Drawing, pieces: Pieces, twice: set[int]) -> Iterator[Finding]:
    """Places where a path meets itself other than from one piece to the next, or crosses another."""
    path, segments = drawing.fine_path, drawing.fine
    owner, other, place = pieces.meetings
    inside = np.minimum(np.hypot(*(place - segments.start[owner]).T), np.hypot(*(place - segments.end[owner]).T)) > 1e-5
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
            yield _finding(
                "crosses-itself", "stop", f"Path {drawing.name(a)} crosses or touches itself.",
                "Draw it anew, or take it apart where it crosses.", where,
            )  # fmt: skip
        else:
            yield _finding(
                "paths-cross", "look", f"Paths {drawing.name(a)} and {drawing.name(b)} cross or touch.",
                "Join them into one outline, or move them apart.", where,
            )  # fmt: skip


def _chords(drawing: _Drawing) -> Iterator[Finding]:
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
        corners = s.start[low : high + 3]
        radius, off = _circle_through(corners)
        if off <= ROUND_WITHIN_MM and radius < 1e4:
            number = int(path[low])
            yield _finding(
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


def _looks(file: ReadFile) -> Iterator[Finding]:
    filled: dict[str, list[int]] = defaultdict(list)
    unseen: dict[str, list[int]] = defaultdict(list)
    for number, path in enumerate(file.paths):
        if path.filled:
            filled[path.layer].append(number)
        elif path.stroke_mm is not None and path.stroke_mm < THINNEST_STROKE_MM:
            unseen[path.layer].append(number)
    for code, rows, what, fix in (
        ("filled", filled, "filled", "Take the fill away, unless the area is to be engraved: a laser may engrave it, or skip its outline."),
        ("invisible", unseen, "drawn without a line that can be seen", "Delete what is not meant, or give it a line of 0.1 mm."),
    ):  # fmt: skip
        for layer, some in rows.items():
            count = f"{len(some)} paths" if len(some) > 1 else "A path"
            where = f" on the layer “{layer}”" if layer else ""
            are = "are" if len(some) > 1 else "is"
            yield _finding(
                code, "look", f"{count}{where} {are} {what}.", fix, file.paths[some[0]].segments[0].start, len(some)
            )


def _too_close(drawing: _Drawing, limit: float) -> Iterator[Finding]:
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
        yield _finding(
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


def _shortened(findings: Sequence[Finding]) -> Iterator[Finding]:
    """The first of each kind, and one row for the rest."""
    by_code: dict[str, list[Finding]] = defaultdict(list)
    for finding in findings:
        by_code[finding.code].append(finding)
    order: dict[Severity, int] = {"stop": 0, "look": 1}
    for some in sorted(by_code.values(), key=lambda some: order[some[0].severity]):
        yield from some[:MOST_OF_A_KIND]
        if len(some) > MOST_OF_A_KIND:
            rest, last = len(some) - MOST_OF_A_KIND, some[MOST_OF_A_KIND]
            yield Finding(
                last.code, last.severity, f"{rest} more of the same kind.", last.fix, place=last.place, amount=rest
            )
