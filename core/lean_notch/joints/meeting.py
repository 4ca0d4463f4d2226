"""Do two members really meet? In: an edge, and another edge or a face, as they stand; out: where, or by how much they miss.

Parts that cross are in `crossing`.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import replace

from ..geometry import Point
from ..geometry.space import Triple, add, cross, dot, minus, times, unit
from ..ground.errors import NotchError
from ..lengths.said import say_mm
from .mate import FACE, Line, Meeting, Seat, Strip, rising, ways

FLUSH_MM = 0.005
"""Sides that are further out of line than this do not meet: as near as a straight edge must come out."""

STRAIGHT = math.sin(math.radians(0.01))
_TOUCH_MM = 1e-6


class NotMeeting(NotchError):
    """Two members that a joint names do not meet. `place` is where, in space; `amount` by how much, in mm or degrees."""

    code = "panels-do-not-meet"

    def __init__(self, why: str, *, fix: str, place: Triple, amount: float = 0.0, field: str = "") -> None:
        super().__init__(why, fix=fix, field=field)
        self.place = place
        self.amount = amount


LEAST_ANGLE = 30.0
"""Boards that meet at less than this, or within it of lying flat, are not joined by square cuts: more of a finger is wedge than
finger. Common practice."""


def edge_to_edge(first: Seat, second: Seat) -> Meeting:
    """Two edges that share a bar of both thicknesses: on its outer face each edge is flush with the other's outer face.

    At other angles than 90 degrees a square-cut finger cannot fill that bar: each member's strip goes from where its fingers
    end, if nothing is to stand out, to where its sockets have to, measured inwards from its edge. Raises NotMeeting.
    """
    for seat, other in ((first, second), (second, first)):
        _needs_edge(seat, other)
    axis = _axis(first, second)
    for seat, other in ((first, second), (second, first)):
        _along(seat, other, axis, first, second)
    for seat, other in ((first, second), (second, first)):
        _flush(seat, other, first, second)
    spans = [sorted((dot(axis, seat.stretch.start), dot(axis, seat.stretch.end))) for seat in (first, second)]
    low, high = max(spans[0][0], spans[1][0]), min(spans[0][1], spans[1][1])
    if high - low <= _TOUCH_MM:
        gap = low - high
        raise NotMeeting(
            f"{_edge(first)} and {_edge(second)} miss each other by {say_mm(max(gap, 0.0))} along the edge.",
            fix=f"Move one of them {say_mm(max(gap, 0.0))} along the edge and more, so that they overlap.",
            place=_middle(first), amount=gap,
        )  # fmt: skip
    base = first.stretch.start
    off = low - dot(axis, base)
    # Along an axis of the room the place is exactly what it was worked out from.
    start: Triple = tuple(low if x == 1 else b + off * x for b, x in zip(base, axis, strict=True))  # type: ignore[assignment]
    cosine = dot(first.stretch.inward, second.stretch.inward)
    square = abs(cosine) <= STRAIGHT
    strips = []
    for seat, other in ((first, second), (second, first)):
        strip = _strip(seat, start, axis, other.thickness)
        if not square:
            lean = seat.thickness * cosine / math.sqrt(1 - cosine**2)
            reach = other.thickness / math.sqrt(1 - cosine**2)
            strip = replace(strip, low=max(0.0, lean), high=reach + max(0.0, lean))
        strips.append(strip)
    angle = 90.0 if square else math.degrees(math.acos(max(-1.0, min(1.0, cosine))))
    return Meeting(start, axis, high - low, strips[0], strips[1], shares_bar=square, angle=angle)


def edge_on_face(first: Seat, second: Seat) -> Meeting:
    """An edge of the first that stands on a face of the second, at any angle from LEAST_ANGLE on: one that leans touches with
    one of its two corners. Raises NotMeeting."""
    _needs_edge(first, second)
    n, ends, axis = second.frame.n, first.stretch[:2], first.stretch.along
    slope = dot(axis, n)
    if abs(slope) > STRAIGHT:
        raise NotMeeting(
            f"{_edge(first)} runs at {math.degrees(math.asin(min(1.0, abs(slope)))):.1f}° to the face of {second.title}.",
            fix="Turn one of them so that the edge lies along the face.", place=_middle(first), amount=abs(slope),
        )  # fmt: skip
    if abs(dot(first.frame.n, n)) > 1 - STRAIGHT**2:
        raise NotMeeting(
            f"The faces of {first.title} and {second.title} are parallel: {first.title} does not stand on that face.",
            fix="Turn one of them by 90°, or join another pair.", place=_middle(first), amount=90.0,
        )  # fmt: skip
    rise = dot(first.stretch.inward, n)
    leans = math.degrees(math.asin(max(-1.0, min(1.0, abs(rise)))))
    if leans < LEAST_ANGLE:
        raise NotMeeting(
            f"{first.title} stands at {leans:.1f}° on the face of {second.title}; square cuts hold from {LEAST_ANGLE:g}° on.",
            fix=f"Turn one of them by {LEAST_ANGLE - leans:.1f}° or more.", place=_middle(first), amount=LEAST_ANGLE - leans,
        )  # fmt: skip
    square = abs(rise) >= 1 - STRAIGHT**2
    from_front = rise > 0
    # Of the edge's two corners the one that touches; both do where it stands square.
    behind: Triple = (-first.frame.n[0], -first.frame.n[1], -first.frame.n[2])
    depths = [_beyond(second, add(ends[0], behind, at), from_front) for at in (0.0, first.thickness)]
    touches = 0.0 if square else (0.0, first.thickness)[depths.index(max(depths))]
    off = depths[0] if square else max(depths)
    if abs(off) > FLUSH_MM:
        how = "inside" if off > 0 else "short of"
        raise NotMeeting(
            f"{_edge(first)} lies {say_mm(abs(off))} {how} the face of {second.title}.",
            fix=f"Move {first.title} by {say_mm(abs(off))} so that its edge lies on that face.",
            place=_middle(first), amount=abs(off),
        )  # fmt: skip
    strip = _strip(first, ends[0], axis, 0.0)
    reach = second.thickness if square else second.thickness / abs(rise)
    strip = replace(strip, low=-reach, tip=-reach)
    base = add(ends[0], behind, touches)
    across = behind if square else unit(minus(behind, times(n, dot(behind, n))))
    low, high = (0.0, first.thickness) if square else band(second, first, base, across)
    slot = Strip(FACE, second.frame.flat(base), flat_way(second, axis), flat_way(second, across), low, high)
    return Meeting(ends[0], axis, first.stretch.span, strip, slot, angle=90.0 if square else leans)


def _beyond(second: Seat, place: Triple, from_front: bool) -> float:
    """How far a place lies behind the face that something comes to."""
    depth = second.frame.depth(place)
    return depth if from_front else second.thickness - depth


def band(seat: Seat, other: Seat, base: Triple, across: Triple) -> tuple[float, float]:
    """From where to where across a part, a unit vector on its face, another's board passes through its own board, counted from
    `base`: what a square cut has to clear for it. Both are mm."""
    slope = -dot(across, other.frame.n)
    at = []
    for depth in (0.0, seat.thickness):
        start = other.frame.depth(add(base, seat.frame.n, seat.frame.depth(base) - depth))
        at += [(wanted - start) / slope for wanted in (0.0, other.thickness)]
    return min(at), max(at)


def _needs_edge(seat: Seat, other: Seat) -> None:
    if seat.named == FACE:
        raise NotMeeting(
            f"This joint needs an edge of {seat.title}, not its face.",
            fix=f"Choose one of: {', '.join(map(_words, seat.edges))}.", place=other.frame.origin,
        )  # fmt: skip


def _axis(first: Seat, second: Seat) -> Triple:
    """The line that both faces share, from the first member's edge. Raises NotMeeting for faces that are almost parallel."""
    cos = abs(dot(first.frame.n, second.frame.n))
    if cos > math.cos(math.radians(LEAST_ANGLE)) + STRAIGHT**2:
        flat = cos > 1 - STRAIGHT**2
        angle = math.degrees(math.acos(min(1.0, cos)))
        raise NotMeeting(
            f"The faces of {first.title} and {second.title} are parallel; this joint is cut where they meet at an angle." if flat
            else f"{first.title} and {second.title} meet at {angle:.1f}°, or {180 - angle:.1f}°: square cuts hold from "
            f"{LEAST_ANGLE:g}° to {180 - LEAST_ANGLE:g}°.",
            fix="Turn one of them by 90°, or join another pair." if flat else f"Turn one of them by {LEAST_ANGLE - angle:.1f}° or more.",
            place=_middle(first), amount=90.0 if flat else LEAST_ANGLE - angle,
        )  # fmt: skip
    axis = unit(cross(first.frame.n, second.frame.n))
    back = max(axis, key=abs) < 0
    # Whole axes come out whole: what lies along x has no y of minus nought.
    return tuple((-x if back else x) + 0.0 for x in axis)  # type: ignore[return-value]


def _along(seat: Seat, other: Seat, axis: Triple, first: Seat, second: Seat) -> None:
    if math.hypot(*cross(axis, seat.stretch.along)) > STRAIGHT:
        good = [name for name, line in seat.edges.items() if _lies_along(seat, line, axis)]
        raise NotMeeting(
            f"{_edge(seat)} does not run along {other.title}.",
            fix=_other_edges(first, second)
            or (f"Choose {_any_of(good)} of {seat.title}." if good else f"Turn {seat.title} so that its edge runs along it."),
            place=_middle(seat),
        )  # fmt: skip


def _flush(seat: Seat, other: Seat, first: Seat, second: Seat) -> None:
    """The seat's edge must be flush with the face of `other` that lies away from the seat's material."""
    off = _off_face(seat, other)
    if abs(off) <= FLUSH_MM:
        return
    how = "short of" if off > 0 else "beyond"
    instead = _other_edges(first, second)
    raise NotMeeting(
        f"{_edge(seat)} ends {say_mm(abs(off))} {how} the outer face of {other.title}.",
        fix=instead or f"Make {seat.title} {say_mm(abs(off))} {'longer' if off > 0 else 'shorter'} there, or move one of them.",
        place=_middle(seat), amount=abs(off),
    )  # fmt: skip


def _off_face(seat: Seat, other: Seat) -> float:
    """How far the edge of `seat`, on its outer face, stays short of the far face of `other`, in mm; negative: it goes beyond."""
    way = dot(seat.stretch.inward, other.frame.n)
    # Square to it both of its faces tell the same.
    inside = dot(seat.frame.n, _into(other, seat)) > STRAIGHT and abs(dot(seat.frame.n, other.frame.n)) > STRAIGHT
    depth = other.frame.depth(add(seat.stretch.start, seat.frame.n, -seat.thickness if inside else 0.0))
    return depth if way < 0 else other.thickness - depth


def _into(seat: Seat, other: Seat) -> Triple:
    """Which way a seat's material goes from where it meets another."""
    return seat.stretch.inward if seat.named != FACE else minus(other.frame.origin, seat.frame.origin)


def _other_edges(first: Seat, second: Seat) -> str:
    """What other pair of edges of the two would meet, in words; "" for none."""
    for a, line_a in first.edges.items():
        for b, line_b in second.edges.items():
            one, two = replace(first, named=a), replace(second, named=b)
            axis = cross(first.frame.n, second.frame.n)
            if (
                (a, b) != (first.named, second.named)
                and _lies_along(first, line_a, axis)
                and _lies_along(second, line_b, axis)
                and max(abs(_off_face(one, two)), abs(_off_face(two, one))) <= FLUSH_MM
            ):
                return f"Join {_words(a)} of {first.title} with {_words(b)} of {second.title}: they meet."
    return ""


def _words(edge: str) -> str:
    """
    >>> _words("blank.left"), _words("tab-1.top")
    ('left', 'tab 1, top')
    """
    return edge.removeprefix("blank.").replace(".", ", ").replace("-", " ")


def _lies_along(seat: Seat, line: Line, axis: Triple) -> bool:
    a, b = (seat.frame.at(point) for point in line)
    return math.hypot(*cross(axis, unit(minus(b, a)))) <= STRAIGHT


def _any_of(names: list[str]) -> str:
    return names[0] if len(names) == 1 else f"one of {', '.join(names)}"


def _edge(seat: Seat) -> str:
    return f"{seat.named.rpartition('.')[2].capitalize()} of {seat.title}"


def _middle(seat: Seat) -> Triple:
    if seat.named == FACE:
        return seat.frame.origin
    (x0, y0), (x1, y1) = seat.line
    return seat.frame.at(((x0 + x1) / 2, (y0 + y1) / 2))


def _strip(seat: Seat, start: Triple, axis: Triple, depth: float) -> Strip:
    line = rising(seat.line)
    (ux, uy), _, _ = ways(line)
    (x0, y0), (x, y) = line[0], seat.frame.flat(start)
    at = (x - x0) * ux + (y - y0) * uy  # on the edge itself, however flush the other part is
    left = 1.0 if line is seat.line else -1.0
    sense = left if dot(axis, seat.stretch.along) > 0 else -left
    return Strip(
        seat.named, (x0 + at * ux, y0 + at * uy), (sense * ux, sense * uy), (-left * uy + 0.0, left * ux + 0.0), 0.0, depth
    )  # fmt: skip


def flat_way(seat: Seat, way: Triple) -> Point:
    return (dot(way, seat.frame.u), dot(way, seat.frame.v))


def block_along(meeting: Meeting, first: Seat, second: Seat, third: Seat) -> tuple[float, float]:
    """From where to where, in positions of the meeting, a third panel's board crosses the bar that two members share.

    Its faces may be askew to the bar: then all that any of the bar's four edges has in it.
    """
    cosine = dot(meeting.axis, third.frame.n)
    if abs(cosine) < STRAIGHT:
        return (math.inf, -math.inf)
    places = []
    for corner in _bar_corners(meeting, first, second):
        depth = third.frame.depth(corner)
        places += [depth / cosine, (depth - third.thickness) / cosine]
    return (min(places), max(places))


def _bar_corners(meeting: Meeting, first: Seat, second: Seat) -> Iterator[Triple]:
    """The bar's four edges, at its start."""
    for a in (0.0, first.thickness):
        for b in (0.0, second.thickness):
            out = add(first.frame.at(meeting.first.point(0.0, 0.0)), first.frame.towards(meeting.first.inward), b)
            yield add(out, first.frame.n, -a)
