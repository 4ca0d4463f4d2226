"""Joints as cut: in, a build and gauges on its finished pieces; out, each joint's clearance, how proud it is, and findings."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence

from ..basis import Basis
from ..geometry import Point
from ..ground.findings import Finding, Mend
from ..ground.remembered import Remembered, remembered
from ..joints.mate import Line
from ..lengths.said import say_mm
from ..making import Build, Contact, Mate
from .assembly import bar_lines
from .compare import EDGE_MM
from .contacts import Gauge, blocked, how_long, inner_width, outer_width
from .proof import MateProof

BLOCKED_MM = 0.1
"""A square corner gives way by a few hundredths when it is pushed home; more keeps a mate from entering. Common practice."""

PROUD_MM = 0.1
"""Faces further out of line than this want sanding; less is not felt. Common practice."""


_Measured = tuple[tuple[MateProof, ...], tuple[Finding, ...]]
_MEASURED: Remembered[_Measured] = Remembered()


@remembered()
def _lines_kept(mate: Mate) -> tuple[tuple[str, Line], ...]:
    return tuple(_lines(mate))


def _lines(mate: Mate) -> Iterator[tuple[str, Line]]:
    """Where a joint is measured: by part, the lines of its calipers and along its bar."""
    for contact in _swept(mate):
        for caliper in (contact.inner, contact.outer, contact.stands):
            if caliper:
                yield from ((caliper.part, line) for line in caliper.lines)
    for change, line in bar_lines(mate):
        yield change.part, line


def _swept(mate: Mate) -> list[Contact]:
    """Those that the sweep of a beam tells something of."""
    return [contact for contact in mate.contacts if not contact.in_pocket]


class JointsAsCut:
    """`gauges` are those of the finished copies of each part. Measured once made: `proofs`, and what is wrong."""

    def __init__(self, build: Build, basis: Basis, gauges: Mapping[str, Sequence[Gauge]]) -> None:
        self.build, self.basis, self.gauges = build, basis, gauges
        self.proofs: list[MateProof] = []
        self.findings: list[Finding] = []
        self._measure()

    def _measure(self) -> None:
        self._lay_calipers()
        for mate in self.build.mates:
            if all(self.gauges[change.part] for change in mate.members):
                known = self._known(mate)
                if known is None:
                    before = len(self.proofs), len(self.findings)
                    self._mate(mate)
                    found = tuple(self.proofs[before[0] :]), tuple(self.findings[before[1] :])
                    _MEASURED.keep(self._given(mate), found)
                else:
                    self.proofs += known[0]
                    self.findings += known[1]

    def _given(self, mate: Mate) -> tuple[object, ...]:
        """All that is measured or compared at a joint: the same of it, and it is the same joint."""
        parts = dict.fromkeys(part for part, _ in _lines_kept(mate))
        parts |= dict.fromkeys(change.part for change in mate.members)
        return (mate, self.basis, *(gauge for part in parts for gauge in self.gauges[part]))

    def _known(self, mate: Mate) -> _Measured | None:
        return _MEASURED.find(self._given(mate))

    def _lay_calipers(self) -> None:
        """All that will be measured on a piece at once."""
        lines: dict[str, list[Line]] = {part: [] for part in self.gauges}
        for mate in self.build.mates:
            if self._known(mate) is None:
                for part, line in _lines_kept(mate):
                    lines[part].append(line)
        for part, gauges in self.gauges.items():
            for gauge in gauges:
                gauge.lay(lines[part])

    def _mate(self, mate: Mate) -> None:
        found: list[tuple[Contact, float, float]] = []
        for contact in _swept(mate):
            inners = self._inner_widths(contact)
            outers = [outer_width(gauge, contact.outer) for gauge in self.gauges[contact.outer.part]]
            if not all(inners) or not all(outers):
                self._missing(mate, contact)
                return
            known = [one for one in outers if one is not None], [one for one in inners if one is not None]
            found.append((contact, min(known[0]) - max(known[1]), max(known[0]) - min(known[1])))
        if not found:
            return
        # A finger and its socket may each be off by what one edge may, and by half of what the kerf is unsure by.
        off = [
            (low - contact.clearance, high - contact.clearance, 2 * EDGE_MM + self._unsure(contact), contact)
            for contact, low, high in found
        ]
        tight = min(off, key=lambda one: one[0] + one[2])
        loose = max(off, key=lambda one: one[1] - one[2])
        ok = tight[0] >= -tight[2] and loose[1] <= loose[2]
        left = [(blocked(gauge, change.sharp), change) for change in mate.members for gauge in self.gauges[change.part]]
        (most, corner), change = max(left, key=lambda one: one[0][0])
        if most > BLOCKED_MM and corner:
            ok = False
            self.findings.append(
                Finding(
                    "corner-blocked", "stop",
                    f"At “{mate.title}” the tool leaves {say_mm(most, 2)} in the corners where square {mate.inner}s go.",
                    "Relieve the corners with dogbones or T-bones, or use a finer tool.",
                    part=change.part, place=corner.place, amount=most, joint=mate.id, placement=change.placement,
                    mend=Mend("Relieve the inside corners with dogbones", "relief", "dogbone"),
                )
            )  # fmt: skip
        clearances = [value for _, low, high in found for value in (low, high)]
        proud = self._proud(mate)
        self.proofs.append(MateProof(mate.id, found[0][0].clearance, (min(clearances), max(clearances)), proud, ok))
        if tight[0] < -tight[2]:
            self._off_fit(mate, tight[3], tight[0], "too tight")
        elif loose[1] > loose[2] and not _bears_on_nothing(mate):
            self._off_fit(mate, loose[3], loose[1], "too loose")
        self._uneven(mate, proud)

    def _inner_widths(self, contact: Contact) -> list[float | None]:
        if contact.inner is None:
            return [contact.width]
        return [inner_width(gauge, contact.inner) for gauge in self.gauges[contact.inner.part]]

    def _unsure(self, contact: Contact) -> float:
        parts = {contact.outer.part} | ({contact.inner.part} if contact.inner else set())
        sides = 2 if len(parts) == 1 else 1
        return sides * sum(self.basis.of(self.build.part(part).board).machine.kerf_within for part in parts)

    def _missing(self, mate: Mate, contact: Contact) -> None:
        if not _bears_on_nothing(mate):
            self.findings.append(
                Finding(
                    "fingers-missing", "stop", f"The {mate.inner}s of “{mate.title}” do not stand where its {mate.outer}s are.",
                    f"Export the file again, or use wider {mate.inner}s.", part=contact.outer.part,
                    place=_middle(contact), joint=mate.id,
                )
            )  # fmt: skip
        self.proofs.append(MateProof(mate.id, contact.clearance, None, None, False))

    def _off_fit(self, mate: Mate, contact: Contact, off: float, how: str) -> None:
        self.findings.append(
            Finding(
                "off-fit", "stop",
                f"“{mate.title}” has {say_mm(contact.clearance + off)} of clearance as cut, {say_mm(contact.clearance)} were "
                f"chosen: {how}.",
                "Measure the kerf again and export the file anew.",
                part=contact.outer.part, place=_middle(contact), amount=off, joint=mate.id,
            )
        )  # fmt: skip

    def _proud(self, mate: Mate) -> tuple[float, float, float] | None:
        """How far the first member's contacts, else the second's, stand out of the board they go through."""
        standing = [one for one in _swept(mate) if one.stands]
        own = [one for one in standing if one.inner_part == mate.first.part] or standing
        found = []
        for contact in own:
            assert contact.stands
            lengths = [
                how_long(gauge, contact.stands, void=contact.stands_void)
                for gauge in self.gauges[contact.stands.part]
            ]  # fmt: skip
            found += [length for length in lengths if length is not None]
        if not found:
            return None
        depth = math.fsum(found) / len(found)
        readings = self.basis.of(self.build.part(own[0].through).board).stock.readings
        return (depth - readings.thin, depth - readings.mean, depth - readings.thick)

    def _uneven(self, mate: Mate, proud: tuple[float, float, float] | None) -> None:
        for name, value in (("thinnest", proud[0]), ("thickest", proud[2])) if proud else ():
            if abs(value) > PROUD_MM:
                self.findings.append(
                    Finding(
                        "faces-uneven", "look",
                        f"At “{mate.title}” the {mate.inner}s {'stand' if value > 0 else 'fall'} {say_mm(abs(value), 2)} "
                        f"{'proud' if value > 0 else 'short'} where the board is {name}.",
                        "Sand them flush, or pick a more even board.", part=mate.first.part, amount=value,
                        place=_middle(mate.contacts[0]) if mate.contacts[0].outer.part == mate.first.part else None,
                        joint=mate.id,
                    )
                )  # fmt: skip


def _bears_on_nothing(mate: Mate) -> bool:
    """Then only reliefs are there to measure, and the build has said so."""
    return any(one.code == "no-bearing" for one in mate.findings)


def _middle(contact: Contact) -> Point:
    """Half-way along the caliper on the outer part."""
    (x0, y0), (x1, y1) = contact.outer.lines[0]
    return ((x0 + x1) / 2, (y0 + y1) / 2)
