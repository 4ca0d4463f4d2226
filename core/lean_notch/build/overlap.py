"""Joints that run into each other on one part: in, mates; out, a finding for each pair, with its place."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Sequence
from itertools import combinations

from ..findings import Finding
from ..geometry import Box
from ..joints import Change, Mate
from ..units import say_mm

_TOUCH_MM = 1e-6


def overlapping(mates: Sequence[Mate]) -> Iterator[Finding]:
    """Slots, holes and pockets that lie in another joint's. Fingers at one corner share it: that is settled where they are made."""
    by_placement: dict[str, list[tuple[Mate, Change, list[Box], list[Box]]]] = defaultdict(list)
    for mate in mates:
        for change in mate.members:
            strips = [change.strip.box(0.0, mate.meeting.length)] if change.strip and change.notches else []
            by_placement[change.placement].append((mate, change, [*change.zones], strips))
    for some in by_placement.values():
        if not any(zones for _, _, zones, _ in some):
            continue
        for (one, change, zones, strips), (two, _, others, theirs) in combinations(some, 2):
            pairs = [(a, b) for a in zones for b in (*others, *theirs)] + [(a, b) for a in strips for b in others]
            worst = max(((_shared(a, b), a, b) for a, b in pairs), default=None, key=lambda pair: pair[0])
            if worst and worst[0] > _TOUCH_MM:
                yield _finding(one, two, change, *worst)


def _shared(a: Box, b: Box) -> float:
    """How far two boxes go into each other, the lesser of both ways; negative where they are apart."""
    return min(min(a[2], b[2]) - max(a[0], b[0]), min(a[3], b[3]) - max(a[1], b[1]))


def _finding(one: Mate, two: Mate, change: Change, by: float, a: Box, b: Box) -> Finding:
    left, low, right, high = max(a[0], b[0]), max(a[1], b[1]), min(a[2], b[2]), min(a[3], b[3])
    return Finding(
        "joints-overlap", "stop", f"“{one.title}” and “{two.title}” run into each other by {say_mm(by, 2)} on one part.",
        f"Move one of them by {say_mm(by, 2)} and more, use fewer or narrower tabs, or remove one.",
        change.part, place=((left + right) / 2, (low + high) / 2), amount=by, joint=two.id, placement=change.placement,
        field=f"joints/{two.id}",
    )  # fmt: skip
