"""Parts in each other's way, before anything is cut: in, a build and its basis; out, what shares material where the boards are
as thick as they are on average, where they are thinnest and where they are thickest, and the gap at every joint.

Each part is its finished outline, as thick as the level says, behind the face that its lengths are worked out from, less what is
sunk into its faces: then it is several blocks.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal, get_args

from ..basis import Basis
from ..geometry import loops
from ..ground.findings import Finding
from ..ground.remembered import remembered
from ..joints.halving import Halving
from ..lengths.said import say_mm
from ..making import Build, FlatPart, Mate, Standing, blocks
from .assembly import CLASH_MM, MOST_PAIRS, Body, Shared, near_pairs, shared
from .contacts import Gauge

Level = Literal["mean", "thin", "thick"]
LEVELS: tuple[Level, ...] = get_args(Level)
_SAYS: Mapping[Level, str] = {
    "mean": "",
    "thin": " where the boards are thinnest",
    "thick": " where the boards are thickest",
}

HAIR_MM = 0.005
"""What chords leave of arcs, and no caliper shows: two parts are as near, and as far in each other, as before within this."""

_CHORD_MM = 0.002


@dataclass(frozen=True)
class Gap:
    """The gap of a joint's tightest contact at three thicknesses of what goes in, in mm; negative: a press. `measured` says that a
    board's readings count, else the gap is as cut at any thickness."""

    joint: str
    title: str
    thin: float
    mean: float
    thick: float
    measured: bool


@dataclass(frozen=True)
class Interference:
    """What was found at one level: `pairs` neighbours were compared."""

    level: Level
    pairs: int
    findings: tuple[Finding, ...]


def interference(build: Build, basis: Basis, level: Level = "mean") -> Interference:
    """At one level; the mean is what to look at first."""
    stood = bodies(build, basis, level)
    near = neighbours(stood)
    if len(near) > MOST_PAIRS:
        found = Finding(
            "assembly-too-large", "unseen", f"{len(near)} pairs of parts lie near each other; that is more than is compared.",
            "Look at a smaller assembly.",
        )  # fmt: skip
        return Interference(level, 0, (found,))
    joined: dict[frozenset[str], list[Mate]] = {}
    for mate in build.mates:
        joined.setdefault(frozenset(change.placement for change in mate.members), []).append(mate)
    titles, findings = build.called, [*_not_stood(build)]
    for names, pairs in near.items():
        mates = joined.get(names, [])
        worst = clash(pairs, _allowed(mates, level, build, basis))
        if worst:
            findings.append(found_clash(worst, titles, mates, level))
    return Interference(level, len(near), tuple(findings))


Pair = tuple[Body, Body]


def neighbours(stood: Sequence[Body]) -> dict[frozenset[str], list[Pair]]:
    """Which blocks of which two placements lie near each other."""
    found: dict[frozenset[str], list[Pair]] = {}
    for first, second in ((stood[a], stood[b]) for a, b in near_pairs(stood, HAIR_MM)):
        if first.placement != second.placement:
            found.setdefault(frozenset((first.placement, second.placement)), []).append((first, second))
    return found


def clash(pairs: Sequence[Pair], allowed: float = CLASH_MM) -> list[Shared]:
    """What the blocks of two parts share, the most first."""
    found: list[Shared] = []
    for first, second in pairs:
        found += _shared(first, second, allowed)
    return sorted(found, key=lambda one: -one.amount)


def _not_stood(build: Build) -> Iterator[Finding]:
    """What cannot be compared, since it stands nowhere or is not yet what it is to be."""
    fix = "Mend that first, then look again."
    if not build.standings:
        yield Finding(
            "placements-not-measured", "unseen", "No part stands anywhere: nothing was compared.", "Place the parts."
        )
    wrong = [one for one in build.findings if one.severity == "stop" and one.field.startswith("placements/")]
    if wrong:
        yield Finding("placements-not-measured", "unseen", f"Not all placements were compared: {wrong[0].why}", fix)
    if build.failed:
        parts = ", ".join(part.title for part in build.parts if part.failed)
        yield Finding("placements-not-measured", "unseen", f"{parts} stood in unfinished: a step of it fails.", fix)


@remembered()
def _shared(first: Body, second: Body, allowed: float) -> tuple[Shared, ...]:
    return tuple(shared(first, second, allowed))


@remembered()
def _body(one: Standing, low: float, high: float, gauge: Gauge) -> Body:
    """There is one of each: what two of them share is found again by them."""
    return Body(one.placement, one.part, one.frame.behind(low), high - low, gauge)


def _allowed(mates: Sequence[Mate], level: Level, build: Build, basis: Basis) -> float:
    """How much two parts may share: what only touches, or what the press fit between them asks for. Thinner and thicker boards are
    looked at more coarsely: the fit tells by how much a joint gets tighter. What is halved only stands proud where it is thicker."""
    press = max(0.0, max((-contact.clearance for mate in mates for contact in mate.contacts), default=0.0))
    if level == "mean":
        return CLASH_MM + press
    halved = [
        basis.of(build.part(one.part).board).stock.readings
        for mate in mates
        if mate.kind == Halving.kind
        for one in mate.members
    ]
    return CLASH_MM + press + math.fsum(max(0.0, getattr(one, level) - one.mean) for one in halved)


def bodies(build: Build, basis: Basis, level: Level = "mean") -> tuple[Body, ...]:
    """The blocks of every part that stands somewhere, at finished size."""
    thick = {part.id: getattr(basis.of(part.board).stock.readings, level) for part in build.parts}
    of_part = {part.id: _blocks(part, thick[part.id]) for part in build.parts}
    return tuple(
        _body(one, low, high, gauge) for one in build.standings for low, high, gauge in of_part.get(one.part, ())
    )


_Blocks = tuple[tuple[float, float, Gauge], ...]


@remembered(1024, lambda found: sum(gauge.size for _, _, gauge in found), 300_000)
def _blocks(part: FlatPart, thickness: float) -> _Blocks:
    import shapely

    return tuple(
        (one.low, one.high, Gauge(shapely.Polygon(*loops(one.region, _CHORD_MM)))) for one in blocks(part, thickness)
    )


def found_clash(
    found: Sequence[Shared], titles: Mapping[str, str], mates: Sequence[Mate] = (), level: Level = "mean"
) -> Finding:
    worst = found[0]
    first, second = worst.first, worst.second
    size = " x ".join(say_mm(one, 2) for one in sorted(worst.size))
    places = f", in {len(found)} places" if len(found) > 1 else ""
    names = f"{titles[first.placement]} and {titles[second.placement]}"
    if mates:
        why = f"{names} both have material in {size} at “{mates[0].title}”{places}{_SAYS[level]}."
        fix = (
            "Give the joint more clearance, or look at what else stands in its way."
            if level == "mean"
            else "Choose a looser fit, or a more even board."
        )
    else:
        why = f"{names} stand in each other by {size}{places}{_SAYS[level]}, and no joint is there."
        fix = f"Join them, or move one by {say_mm(worst.amount, 2)}."
    return Finding(
        "doubled", "stop" if level == "mean" else "look", why, fix, first.part, amount=worst.amount, space=worst.place,
        placement=first.placement, joint=mates[0].id if mates else "",
    )  # fmt: skip


def gaps(build: Build, basis: Basis) -> Iterator[Gap]:
    """Of every joint that has something to measure."""
    return (gap for mate in build.mates if (gap := gap_of(mate, build, basis)))


def gap_of(mate: Mate, build: Build, basis: Basis) -> Gap | None:
    """None where nothing goes into anything."""
    found = []
    for contact in mate.contacts:
        readings = basis.of(build.part(contact.inner_part).board).stock.readings
        # At a slant a board that is thicker by some is wider there in proportion.
        wider = contact.width / readings.mean if contact.inner is None else 0.0
        thick = contact.clearance - wider * (readings.thick - readings.mean)
        thin = contact.clearance + wider * (readings.mean - readings.thin)
        found.append((thick, contact.clearance, thin, contact.inner is None))
    if not found:
        return None
    thick, mean, thin, measured = min(found)
    return Gap(mate.id, mate.title, thin, mean, thick, measured)
