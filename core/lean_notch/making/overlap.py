"""Joints that run into each other on one part: in, mates; out, a finding for each pair, with its place."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Sequence
from typing import cast

from ..geometry import Box
from ..ground.findings import Finding
from ..ground.remembered import remembered
from ..joints import Change, Mate
from ..lengths.said import say_mm

_TOUCH_MM = 1e-6


def overlapping(mates: Sequence[Mate]) -> Iterator[Finding]:
    """Slots, holes and pockets that lie in another joint's. Fingers at one corner share it: that is settled where they are made."""
    by_placement: dict[str, list[tuple[Mate, Change]]] = defaultdict(list)
    for mate in mates:
        for change in mate.members:
            by_placement[change.placement].append((mate, change))
    for some in by_placement.values():
        yield from _on_one(*(one for pair in some for one in pair))


@remembered()
def _on_one(*given: Mate | Change) -> list[Finding]:
    """Of joints on one part, each with what it does there."""
    some = cast("list[tuple[Mate, Change]]", list(zip(given[::2], given[1::2], strict=True)))
    if not any(change.zones for _, change in some):
        return []
    import numpy as np

    boxes, owners, zones = [], [], []
    for number, (mate, change) in enumerate(some):
        strip = (
            [change.strip.box(0.0, mate.meeting.length)] if change.strip and change.notches and not change.zones else []
        )
        for box in (*change.zones, *strip):
            boxes.append(box)
            owners.append(number)
            zones.append(box not in strip)
    at, own, zone = np.array(boxes), np.array(owners), np.array(zones)
    low = np.maximum(at[:, None, :2], at[None, :, :2])
    high = np.minimum(at[:, None, 2:], at[None, :, 2:])
    shared = (high - low).min(axis=2)
    wrong = (shared > _TOUCH_MM) & (own[:, None] < own[None, :]) & (zone[:, None] | zone[None, :])
    worst: dict[tuple[int, int], tuple[float, int, int]] = {}
    for i, j in np.argwhere(wrong).tolist():
        pair, one = (owners[i], owners[j]), (float(shared[i, j]), i, j)
        worst[pair] = max(worst.get(pair, one), one)
    return [
        _finding(some[a][0], some[b][0], some[b][1], by, boxes[i], boxes[j]) for (a, b), (by, i, j) in worst.items()
    ]


def _finding(one: Mate, two: Mate, change: Change, by: float, a: Box, b: Box) -> Finding:
    left, low, right, high = max(a[0], b[0]), max(a[1], b[1]), min(a[2], b[2]), min(a[3], b[3])
    return Finding(
        "joints-overlap", "stop", f"“{one.title}” and “{two.title}” run into each other by {say_mm(by, 2)} on one part.",
        f"Move one of them by {say_mm(by, 2)} and more, use fewer or narrower tabs, or remove one.",
        change.part, place=((left + right) / 2, (low + high) / 2), amount=by, joint=two.id, placement=change.placement,
        field=f"joints/{two.id}",
    )  # fmt: skip
