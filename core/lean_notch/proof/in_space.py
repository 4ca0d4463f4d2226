"""The proof of the assembled object: as-cut parts stood up, in; what shares material or leaves a corner empty, out."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Iterator, Mapping, Sequence, Set
from dataclasses import dataclass
from functools import cached_property, partial

from ..ground.findings import Finding
from ..ground.remembered import Remembered
from ..joints import Mate
from ..lengths.said import say_mm
from ..making import Build
from .assembly import CLASH_MM, FILLED_MM, MOST_PAIRS, Body, Shared, holes, near_pairs, shared, shared_when_joined
from .contacts import Gauge


@dataclass(frozen=True)
class Stood:
    """The build, a finished piece of each part that was measured, flat in its own frame, and kerfs by board."""

    build: Build
    gauges: Mapping[str, Gauge]
    kerfs: Mapping[str, float]

    @cached_property
    def bodies(self) -> tuple[Body, ...]:
        return tuple(
            Body(one.placement, one.part, one.frame, one.thickness, self.gauges[one.part])
            for one in self.build.standings
            if one.part in self.gauges
        )

    def radius(self, *bodies: Body) -> float:
        """Of the wider beam or tool that cut some bodies."""
        return max(self.kerfs[self.build.part(body.part).board] for body in bodies) / 2

    def title(self, body: Body) -> str:
        return self.build.called[body.placement]


def in_space(stood: Stood, sound: set[str], sunk: Set[frozenset[str]] = frozenset()) -> Iterator[Finding]:
    """Parts that share material, and holes along joints; of the joints only those in `sound`: what is wrong with the others
    is known already. Pairs that are `sunk` into each other's pockets are not compared: no sweep tells how deep those are."""
    bodies = stood.bodies
    pairs = near_pairs(bodies)
    if len(pairs) > MOST_PAIRS:
        yield Finding(
            "assembly-too-large", "unseen", f"{len(pairs)} pairs of parts lie near each other; that is more than is compared.",
            "Prove a smaller assembly.",
        )  # fmt: skip
        return
    by_pair: dict[frozenset[str], list[Mate]] = {}
    for mate in stood.build.mates:
        by_pair.setdefault(frozenset(change.placement for change in mate.members), []).append(mate)
    for a, b in pairs:
        pair = frozenset((bodies[a].placement, bodies[b].placement))
        joined = by_pair.get(pair, [])
        if pair not in sunk and all(mate.id in sound for mate in joined):
            first, second = bodies[a], bodies[b]
            given = (*_of(stood, first), *_of(stood, second), *joined)
            yield from _SAID(given, partial(_list, _clash, stood, first, second, joined))
    at = {body.placement: body for body in bodies}
    near: dict[str, set[int]] = defaultdict(set)
    for a, b in near_pairs(bodies, -FILLED_MM):
        near[bodies[a].placement].add(b)
        near[bodies[b].placement].add(a)
    for mate in stood.build.mates:
        if mate.id in sound and all(change.placement in at for change in mate.members):
            first, second = (at[change.placement] for change in mate.members)
            beside = [bodies[i] for i in sorted(near[first.placement] | near[second.placement])]
            given = (
                mate,
                *_of(stood, first),
                *_of(stood, second),
                *(one for body in beside for one in _of(stood, body)),
            )
            yield from _SAID(given, partial(_list, _open, stood, mate, first, second, beside))


# Where the same two pieces stand as they stood, the same is said of them.
_SAID: Remembered[list[Finding]] = Remembered()


def _list(found: Callable[..., Iterator[Finding]], *given: object) -> list[Finding]:
    return list(found(*given))


def _of(stood: Stood, body: Body) -> tuple[object, ...]:
    """All that counts of a body: its piece, where it stands, how thick it is, what cut it, and what it is called."""
    standing = stood.build.standing[body.placement]
    return (body.gauge, standing, body.thickness, stood.radius(body), stood.title(body))


def _clash(stood: Stood, first: Body, second: Body, joined: Sequence[Mate]) -> Iterator[Finding]:
    if joined:
        tight = max((-contact.clearance for mate in joined for contact in mate.contacts), default=0.0)
        corners = {
            body.placement: [
                corner.place for mate in joined for change in mate.members if change.placement == body.placement
                for corner in change.sharp
            ]
            for body in (first, second)
        }  # fmt: skip
        found = shared_when_joined(first, second, CLASH_MM + max(tight, 0.0), corners, stood.radius(first, second))
    else:
        found = shared(first, second)
    if not found:
        return
    worst, titles = found[0], (stood.title(first), stood.title(second))
    size = " x ".join(say_mm(one, 2) for one in sorted(worst.size))
    places = f", in {len(found)} places" if len(found) > 1 else ""
    if joined:
        why = f"{titles[0]} and {titles[1]} both have material in {size} at “{joined[0].title}”{places}."
        fix = "Look at the joint: one of the two must give way there. Or export the file again."
    else:
        why = f"{titles[0]} and {titles[1]} stand in each other by {size}{places}, and no joint is there."
        fix = f"Join them, or move one by {say_mm(worst.amount, 2)}."
    yield _in_space("doubled", why, fix, worst, joined[0].id if joined else "")


def _in_space(code: str, why: str, fix: str, worst: Shared, joint: str) -> Finding:
    return Finding(
        code, "stop", why, fix, amount=worst.amount, space=worst.place, placement=worst.first.placement, joint=joint
    )


def _open(stood: Stood, mate: Mate, first: Body, second: Body, beside: Sequence[Body]) -> Iterator[Finding]:
    for hole in holes(mate, first, second, beside, stood.radius(first, second)):
        yield Finding(
            "corner-open", "look",
            f"Along “{mate.title}” nobody fills {say_mm(hole.length, 2)} of the edge: {hole.volume:.0f} mm³ stay open.",
            "Leave the corner square, or leave it if a hole is meant there.",
            amount=hole.volume, space=hole.place, placement=first.placement, joint=mate.id,
        )  # fmt: skip
