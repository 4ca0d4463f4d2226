"""Parts in each other's way, before anything is cut: in, a build and its basis; out, what shares material where the boards are
as thick as they are on average, where they are thinnest and where they are thickest, and the gap at every joint.

Each part is its finished outline, as thick as the level says, behind the face that its lengths are worked out from. What is sunk
into faces is not taken off: joints in pockets are not compared, and said to be so.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal, get_args

from ..basis import Basis
from ..build import Build, FlatPart, Mate
from ..findings import Finding
from ..geometry import loops
from ..remembered import Remembered
from ..units import say_mm
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
"""Members of a joint may share this at the mean: what chords leave of arcs, and no caliper shows."""

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
    """What was found at one level: `pairs` neighbours were compared, `skipped` pairs were not, since they meet in a pocket."""

    level: Level
    pairs: int
    skipped: int
    findings: tuple[Finding, ...]


def interference(build: Build, basis: Basis, level: Level = "mean") -> Interference:
    """At one level; the mean is what to look at first."""
    stood = bodies(build, basis, level)
    pairs = near_pairs(stood, HAIR_MM)
    if len(pairs) > MOST_PAIRS:
        found = Finding(
            "assembly-too-large", "unseen", f"{len(pairs)} pairs of parts lie near each other; that is more than is compared.",
            "Look at a smaller assembly.",
        )  # fmt: skip
        return Interference(level, 0, len(pairs), (found,))
    joined: dict[frozenset[str], list[Mate]] = {}
    for mate in build.mates:
        joined.setdefault(frozenset(change.placement for change in mate.members), []).append(mate)
    titles, findings, skipped = _titles(build), [*_not_stood(build)], 0
    for a, b in pairs:
        first, second = stood[a], stood[b]
        mates = joined.get(frozenset((first.placement, second.placement)), [])
        if any(contact.in_pocket for mate in mates for contact in mate.contacts):
            skipped += 1
            continue
        allowed = _allowed(mates, level)
        given = (first.frame, second.frame, first.thickness, second.thickness, first.gauge, second.gauge, allowed)
        worst = _SHARED(given, lambda one=first, two=second, by=allowed: tuple(shared(one, two, by)))  # type: ignore[misc]
        if worst:
            findings.append(_finding(worst, first, second, mates, titles, level))
    if skipped:
        findings.append(
            Finding(
                "depth-not-swept", "unseen", f"{skipped} pair{'s' * (skipped != 1)} that meet in a pocket or a groove were not compared.",
                "Look at them by hand.",
            )
        )  # fmt: skip
    return Interference(level, len(pairs) - skipped, skipped, tuple(findings))


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


_SHARED: Remembered[tuple[Shared, ...]] = Remembered(4096)


def _allowed(mates: Sequence[Mate], level: Level) -> float:
    """How much two parts may share: what only touches, or what the press fit between them asks for. Thinner and thicker boards are
    looked at more coarsely: the fit tells by how much a joint gets tighter."""
    press = max(0.0, max((-contact.clearance for mate in mates for contact in mate.contacts), default=0.0))
    if level != "mean":
        return CLASH_MM + press
    return HAIR_MM + press if mates else CLASH_MM


def bodies(build: Build, basis: Basis, level: Level = "mean") -> tuple[Body, ...]:
    """Every part that stands somewhere, at finished size."""
    thick = {part.id: getattr(basis.of(part.board).stock.readings, level) for part in build.parts}
    gauges = {part.id: _GAUGES((part,), lambda part=part: _gauge(part)) for part in build.parts}  # type: ignore[misc]
    return tuple(
        Body(one.placement, one.part, one.frame, thick[one.part], gauges[one.part])
        for one in build.standings
        if one.part in gauges
    )


_GAUGES: Remembered[Gauge] = Remembered(1024, lambda gauge: gauge.size, 300_000)


def _gauge(part: FlatPart) -> Gauge:
    import shapely

    return Gauge(shapely.Polygon(*loops(part.region, _CHORD_MM)))


def _titles(build: Build) -> dict[str, str]:
    count = Counter(one.part for one in build.standings)
    return {
        one.placement: build.part(one.part).title + (f" at “{one.placement}”" if count[one.part] > 1 else "")
        for one in build.standings if any(part.id == one.part for part in build.parts)
    }  # fmt: skip


def _finding(
    found: Sequence[Shared], first: Body, second: Body, mates: Sequence[Mate], titles: Mapping[str, str], level: Level
) -> Finding:  # fmt: skip
    worst = found[0]
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
