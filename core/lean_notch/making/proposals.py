"""Joints that could be made: in, a design where its parts stand; out, pairs that meet, with what would join them, and pairs that
almost meet, with the edit that closes the gap.

Edges are looked at where a part starts from a plain rectangle; parts of any outline are looked at where they cross.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from contextlib import suppress
from dataclasses import dataclass, replace
from typing import Any

from ..design import AlongAxes, ByNumbers, Member, Placement
from ..geometry.space import Triple, add, dot
from ..ground.errors import NotchError
from ..ground.findings import Place
from ..joints import FACE, KINDS, Seat
from ..joints.crossing import crossing
from ..joints.mate import Asked, Meeting
from ..joints.meeting import edge_on_face, edge_to_edge
from ..lengths.length import Length
from ..lengths.said import say_mm
from .mates import Site, plain_seat
from .stand import Standing

NEAR_MM = 1.0
"""Parts that miss each other by more were not meant to meet. Common practice."""

MOST_PAIRS = 200
MOST_PROPOSALS = 60
_LEAST_MM = 3.0
"""A meeting shorter than this is a corner that touches."""


@dataclass(frozen=True)
class Edit:
    """One edit, as the document is changed."""

    path: str
    value: Any


@dataclass(frozen=True)
class Proposal:
    """Two members that meet along `length` at `angle`, and the `kinds` of joint that can be made there. Where they miss each other
    by `off` mm, `closes` is the edit that brings them together, and `says` what it does."""

    first: Member
    second: Member
    title: str
    kinds: tuple[str, ...]
    length: float
    angle: float
    place: Place
    off: float = 0.0
    closes: Edit | None = None
    says: str = ""

    @property
    def sentence(self) -> str:
        if self.off:
            return f"{self.title} miss each other by {say_mm(self.off, 2)}: close it?"
        return f"{self.title} meet along {say_mm(self.length, 1)} at {self.angle:.3g}°"


def proposals(site: Site) -> tuple[Proposal, ...]:
    """Those that almost meet first, then the longest; of each pair one."""
    joined = {frozenset((joint.first.placement, joint.second.placement)) for joint in site.design.joints}
    found: list[Proposal] = []
    for first, second in _neighbours(list(site.standings.values())):
        if frozenset((first.placement, second.placement)) not in joined:
            one = _proposed(site, first, second) or _proposed(site, second, first)
            found += [one] if one else []
    found.sort(key=lambda one: (not one.off, -one.length))
    return tuple(found[:MOST_PROPOSALS])


def _neighbours(standings: Sequence[Standing]) -> Iterator[tuple[Standing, Standing]]:
    import numpy as np
    import shapely

    if len(standings) < 2:
        return
    boxes = np.array([one.box for one in standings])
    low, high = boxes[:, 0], boxes[:, 1]
    flat = shapely.box(low[:, 0] - NEAR_MM, low[:, 1] - NEAR_MM, high[:, 0] + NEAR_MM, high[:, 1] + NEAR_MM)
    a, b = shapely.STRtree(flat).query(flat)
    near = (a < b) & ((np.minimum(high[a], high[b]) - np.maximum(low[a], low[b]))[:, 2] > -NEAR_MM)
    for i, j in list(zip(a[near].tolist(), b[near].tolist(), strict=True))[:MOST_PAIRS]:
        yield standings[i], standings[j]


def _proposed(site: Site, one: Standing, two: Standing) -> Proposal | None:
    """What the first could be joined to the second with, the best meeting of all; the second's edges are tried by another call."""
    first, second = plain_seat(site, one.placement), plain_seat(site, two.placement)
    if abs(dot(first.frame.n, second.frame.n)) > 0.999:
        return None
    best: Proposal | None = None
    with suppress(NotchError):
        best = _offer(site, first, second, crossing(first, second), ("cross-lap",), 0.0)
    if best:
        return best
    for edge in first.edges:
        seat = replace(first, named=edge)
        for off in _offs(seat, second):
            moved = _moved(seat, second, off)
            for other in (*second.edges, FACE):
                mate = replace(second, named=other)
                meet = edge_on_face if other == FACE else edge_to_edge
                try:
                    meeting = meet(moved, mate)
                except NotchError:
                    continue
                kinds = ("tab-and-slot", "groove", "pegs") if other == FACE else ("finger",)
                found = _offer(site, moved, mate, meeting, kinds, abs(off))
                if found and off:
                    found = _closed(site, found, seat, second, off)
                if found and (best is None or (found.off == 0, found.length) > (best.off == 0, best.length)):
                    best = found
    return best


def _offs(seat: Seat, second: Seat) -> tuple[float, ...]:
    """How far the edge would have to go along the second's normal to lie on one of its faces or flush with it: 0 first."""
    depth = second.frame.depth(seat.stretch.start)
    near = [depth - face for face in (0.0, second.thickness) if 1e-6 < abs(depth - face) <= NEAR_MM]
    return (0.0, *near)


def _moved(seat: Seat, second: Seat, off: float) -> Seat:
    if not off:
        return seat
    return replace(seat, frame=replace(seat.frame, origin=add(seat.frame.origin, second.frame.n, off)))


def _offer(
    site: Site, first: Seat, second: Seat, meeting: Meeting, kinds: tuple[str, ...], off: float
) -> Proposal | None:  # fmt: skip
    """Of the kinds that are asked about those that can be made as they come."""
    if meeting.length < _LEAST_MM:
        return None
    by_name = {cls.kind: (cls, kind) for cls, kind in KINDS.items()}
    boards = [site.design.part(seat.part).board for seat in (first, second)]  # type: ignore[union-attr]
    good = []
    for name in kinds:
        cls, kind = by_name[name]
        how = cls()
        asked = Asked(
            "proposed", "", how, how.mm(site.names[boards[0]]), first, second, meeting, site.basis.between(*boards),
            site.basis.between(*reversed(boards)),
        )  # fmt: skip
        with suppress(NotchError):
            kind.make(asked)
            good.append(name)
    if not good:
        return None
    return Proposal(
        Member(first.placement, first.named), Member(second.placement, second.named),
        f"{site.design.called[first.placement]} and {site.design.called[second.placement]}", tuple(good), meeting.length, meeting.angle,
        add(meeting.start, meeting.axis, meeting.length / 2), off,
    )  # fmt: skip


def _closed(site: Site, found: Proposal, seat: Seat, second: Seat, off: float) -> Proposal | None:
    """With the number that closes the gap: how large the part is at that edge, else where it stands."""
    placement = site.design.placement(seat.placement)
    part = site.design.part(seat.part)
    if placement is None or part is None:
        return None
    way: Triple = tuple(off * n for n in second.frame.n)  # type: ignore[assignment]
    edge = seat.named.rpartition(".")[2]
    outward = -dot(seat.stretch.inward, way)
    alone = len(site.design.placements_of(part.id)) == 1
    square = abs(abs(outward) - abs(off)) < 1e-6
    if part.blank and alone and square and edge in ("right", "top"):
        side = "width" if edge == "right" else "height"
        typed: Length = getattr(part.blank.shape, side)
        mm = typed.mm(site.names[part.board]) + outward
        return replace(
            found, closes=Edit(f"parts/{part.id}/steps/{part.blank.id}/shape/{side}", _longer(typed, outward)),
            says=f"{part.title} becomes {say_mm(mm, 3)} {'wide' if side == 'width' else 'high'}",
        )  # fmt: skip
    return _shifted(found, placement, part.title, way)


def _longer(typed: Length, by: float) -> Any:
    """A length and a bit, as typed: a plain one stays a plain one."""
    try:
        plain = typed.mm({})
    except NotchError:
        sign = "+" if by > 0 else "-"
        return {"text": f"{typed.text} {sign} {abs(by):.6g} mm", "unit": typed.unit}
    return {"text": f"{plain + by:.9g}", "unit": "mm"}


def _shifted(found: Proposal, placement: Placement, title: str, way: Triple) -> Proposal | None:
    pose = placement.pose
    axis = max(range(3), key=lambda i: abs(way[i]))
    if not isinstance(pose, AlongAxes | ByNumbers) or any(abs(way[i]) > 1e-9 for i in range(3) if i != axis):
        return None
    name = "xyz"[axis]
    typed: Length = getattr(pose, name)
    return replace(
        found, closes=Edit(f"placements/{placement.id}/pose/{name}", _longer(typed, way[axis])),
        says=f"{title} moves by {say_mm(abs(way[axis]), 3)}",
    )  # fmt: skip
