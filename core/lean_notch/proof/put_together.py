"""Whether standing parts can be put where they stand: in, a build and its basis; out, what cannot, and what was not looked at.

Every joint knows the ways in which its first member leaves the second. Parts come apart if, again and again, some of them can be
moved along one such way while the rest stays (the blocking graph of Wilson and Latombe, Geometric reasoning about mechanical
assembly, 1994, with the joints alone as obstacles). What no way takes apart, none puts together. What else is in the way while a
part moves is not looked at.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace

from ..basis import Basis
from ..geometry import loops
from ..geometry.space import Triple, dot, times
from ..ground.findings import Finding
from ..ground.remembered import Remembered, remembered
from ..making import Build, FlatPart, Mate
from .assembly import MOST_PAIRS, Body, near_pairs, shared
from .contacts import Gauge
from .interference import LEVELS, Interference, clash, interference, neighbours
from .interference import bodies as blocks_of

MOST_WAYS = 60
"""Directions that are tried; a design has a handful."""

NEAR_MM = 0.5
"""Parts that are further apart do not touch."""

_SAME = 1 - 1e-9
_CHORD_MM = 0.002

Pair = frozenset[str]


def put_together(build: Build, basis: Basis) -> tuple[Finding, ...]:
    """Interlocks, parts that pass through others or stand in their pockets without a joint, and parts that nothing joins."""
    given = (*build.standings, *build.mates, *build.parts, basis)
    return _FOUND(given, lambda: tuple(_all(build, basis)))


_FOUND: Remembered[tuple[Finding, ...]] = Remembered(64)


def _all(build: Build, basis: Basis) -> Iterator[Finding]:
    titles = build.called
    yield from _interlocked(build.mates, titles)
    whole = _whole(build)
    pairs = near_pairs(whole)
    if len(pairs) > MOST_PAIRS:
        return  # which is told where they are compared
    joined = {_pair(mate) for mate in build.mates}
    yield from _passing(build, basis, [(whole[a], whole[b]) for a, b in pairs], joined, titles)
    yield from _alone(build, whole, titles)


def levels(build: Build, basis: Basis) -> list[Interference]:
    """What is in the way at each thickness; at the mean with whether it can be put together at all."""
    found = [interference(build, basis, level) for level in LEVELS]
    return [
        replace(one, findings=(*one.findings, *(put_together(build, basis) if one.level == "mean" else ())))
        for one in found
    ]


def _pair(mate: Mate) -> Pair:
    return frozenset(change.placement for change in mate.members)


def pairs_in_pockets(build: Build, basis: Basis) -> set[Pair]:
    """Parts that stand in a pocket that was drawn by hand: how deep it is cut no sweep tells."""
    return {
        frozenset((one.placement, one.other))
        for one in put_together(build, basis)
        if one.code == "depth-not-swept" and one.other
    }


def _interlocked(mates: Sequence[Mate], titles: Mapping[str, str]) -> Iterator[Finding]:
    unknown = [mate for mate in mates if not mate.pushes]
    known = [mate for mate in mates if mate.pushes]
    if unknown:
        yield Finding(
            "order-not-looked-at", "unseen", f"How “{unknown[0].title}” is put together is not known: whether it can be was not looked at.",
            "Try it with the parts in hand.", joint=unknown[0].id,
        )  # fmt: skip
    ways: list[Triple] = []
    for mate in known:
        for push in mate.pushes:
            for way in (push, times(push, -1.0)):
                if not any(dot(way, other) > _SAME for other in ways):
                    ways.append(way)
    if len(ways) > MOST_WAYS:
        yield Finding(
            "order-not-looked-at", "unseen", f"The joints of this design are pushed in {len(ways)} directions; whether it can be put "
            "together was not looked at.", "Try it with the parts in hand.",
        )  # fmt: skip
        return
    for some in _components(known):
        for stuck in _stuck(some, known, ways):
            names = [titles.get(one, one) for one in sorted(stuck)]
            shown = (
                f"{', '.join(names[:-1])} and {names[-1]}"
                if len(names) < 5
                else f"{', '.join(names[:3])} and {len(names) - 3} more"
            )
            inside = next(mate for mate in known if _pair(mate) <= stuck)
            yield Finding(
                "interlocked", "stop", f"{shown} hold each other: no push along their joints puts them together.",
                "Turn one of their joints round, or hold one of them with a groove or glue instead.",
                placement=inside.first.placement, joint=inside.id, space=inside.meeting.start,
            )  # fmt: skip


def _components(mates: Sequence[Mate]) -> list[frozenset[str]]:
    found: list[set[str]] = []
    for mate in mates:
        pair = set(_pair(mate))
        for other in [one for one in found if one & pair]:
            pair |= other
            found.remove(other)
        found.append(pair)
    return [frozenset(one) for one in found]


def _stuck(parts: frozenset[str], mates: Sequence[Mate], ways: Sequence[Triple]) -> Iterator[frozenset[str]]:
    """Sets of parts that no way takes apart."""
    waiting = [parts]
    while waiting:
        some = waiting.pop()
        if len(some) < 2:
            continue
        split = _split(some, [mate for mate in mates if _pair(mate) <= some], ways)
        if split is None:
            yield some
        else:
            waiting += [split, some - split]


def _split(some: frozenset[str], mates: Sequence[Mate], ways: Sequence[Triple]) -> frozenset[str] | None:
    """Parts that can be moved along one way while the others stay."""
    for way in ways:
        follows: dict[str, set[str]] = {}
        for mate in mates:
            first, second = (change.placement for change in mate.members)
            along = any(dot(push, way) > _SAME for push in mate.pushes)
            against = any(dot(push, way) < -_SAME for push in mate.pushes)
            if not along:
                follows.setdefault(first, set()).add(second)
            if not against:
                follows.setdefault(second, set()).add(first)
        tried: set[str] = set()
        for part in sorted(some):
            if part in tried:
                continue
            moved, edge = {part}, [part]
            while edge:
                new = follows.get(edge.pop(), set()) - moved
                moved |= new
                edge += new
            if len(moved) < len(some):
                return frozenset(moved)
            tried |= moved if len(moved) == 1 else {part}
    return None


def _passing(
    build: Build, basis: Basis, pairs: Sequence[tuple[Body, Body]], joined: set[Pair], titles: Mapping[str, str]
) -> Iterator[Finding]:  # fmt: skip
    drawn = {
        part.id
        for part in build.parts
        if any(m.operation == "pocket" and m.field.startswith("parts/") for m in part.marks)
    }
    blocks = neighbours(blocks_of(build, basis)) if drawn else {}
    holed = {part.id: part for part in build.parts if part.region.holes}
    for first, second in pairs:
        pair = frozenset((first.placement, second.placement))
        if pair in joined:
            continue
        if shared(first, second):
            pocketed = next((one for one in (first, second) if one.part in drawn), None)
            if pocketed and not clash(blocks.get(pair, ())):
                other = second if pocketed is first else first
                yield Finding(
                    "depth-not-swept", "unseen",
                    f"{titles[other.placement]} stands in a pocket of {titles[pocketed.placement]}: how deep that is cut is not swept, "
                    "and whether it fits was not looked at.",
                    "Cut one and try it, or join the two with a groove.", placement=pocketed.placement, other=other.placement,
                )  # fmt: skip
            continue
        for through, around in ((first, second), (second, first)):
            if around.part in holed and shared(through, _filled(around, holed[around.part])):
                yield Finding(
                    "order-not-looked-at", "unseen",
                    f"{titles[through.placement]} passes through an opening of {titles[around.placement]} where no joint is: whether it "
                    "can be put there was not looked at.",
                    "Join the two there, or try it with the parts in hand.", placement=through.placement,
                )  # fmt: skip
                break


def _alone(build: Build, whole: Sequence[Body], titles: Mapping[str, str]) -> Iterator[Finding]:
    """Parts that stand by themselves among others."""
    if len(whole) < 2:
        return
    held = {name for mate in build.mates for name in _pair(mate)}
    held |= {whole[i].placement for pair in near_pairs(whole, -NEAR_MM) for i in pair}
    alone = [titles[body.placement] for body in whole if body.placement not in held]
    if alone:
        shown = ", ".join(alone[:3]) + (f" and {len(alone) - 3} more" if len(alone) > 3 else "")
        yield Finding(
            "nothing-joins", "unseen",
            f"{shown} {'stand' if len(alone) > 1 else 'stands'} apart from all other parts: nothing joins or touches "
            f"{'them' if len(alone) > 1 else 'it'}, so that no fit was measured.",
            "Join them, move them together, or let them lie loose.",
        )  # fmt: skip


def _whole(build: Build) -> list[Body]:
    """Every part where it stands, as thick as its board, with what is cut through and without what is only sunk into it."""
    parts = {part.id: part for part in build.parts}
    return [
        Body(
            one.placement,
            one.part,
            one.frame,
            one.thickness,
            _gauge(parts[one.part]),
        )
        for one in build.standings
        if one.part in parts
    ]


@remembered(1024, lambda gauge: gauge.size, 300_000)
def _gauge(part: FlatPart) -> Gauge:
    import shapely

    return Gauge(shapely.Polygon(*loops(part.region, _CHORD_MM)))


@remembered(1024, lambda gauge: gauge.size, 300_000)
def _filled_gauge(part: FlatPart) -> Gauge:
    import shapely

    return Gauge(shapely.Polygon(loops(part.region, _CHORD_MM)[0]))


def _filled(body: Body, part: FlatPart) -> Body:
    return Body(body.placement, body.part, body.frame, body.thickness, _filled_gauge(part))
