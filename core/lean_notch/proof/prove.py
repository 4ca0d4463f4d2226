"""The proof: files in, and the job they should be; findings out, each with its place, its amount and its mend."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

from ..basis import Basis
from ..build import Build, Mate
from ..cutting import PLAIN, CutPlan, Profile, finished
from ..findings import Finding
from ..formats.read_file import ReadFile, ReadPath
from ..geometry import Motion, Point, Region
from ..nesting import Layout, Placed
from ..operations import Operation
from ..units import say_mm
from .as_cut import AsCut, as_cut, outline_of, without_lead
from .compare import EDGE_MM, Comparison, compare
from .mates import Measured, measure_mate, measure_member

if TYPE_CHECKING:
    import shapely

SAME_MM = 0.01
"""Two outlines this near to each other all round are one, cut twice: it scorches, and takes twice the time."""

MARKS_SHARE = 0.001
"""Lengths of lines that are not cut through must be in the file to a thousandth."""

BLOCKED_MM = 0.1
"""A square corner gives way by a few hundredths when it is pushed home; more keeps a mate from entering. Common practice."""

PROUD_MM = 0.1
"""Faces further out of line than this want sanding; less is not felt. Common practice."""


@dataclass(frozen=True)
class PartProof:
    """One finished piece. `edge` and the corners are its worst distances from nominal in mm, None if there is none."""

    part: str
    copy: int
    sheet: int
    edge: float | None
    corner: float | None
    inside_corner: float | None
    ok: bool


@dataclass(frozen=True)
class MateProof:
    """A mate over all its fingers as cut; `proud` is how far the first member's fingers stand out of the second's
    face for the thinnest, mean and thickest reading (negative: they fall short). None: it could not be measured."""

    mate: str
    wanted: float
    clearance: tuple[float, float] | None
    proud: tuple[float, float, float] | None
    ok: bool


@dataclass(frozen=True)
class Proof:
    """`pieces` are the finished shapes by sheet number, where they lie on it."""

    parts: tuple[PartProof, ...]
    mates: tuple[MateProof, ...]
    findings: tuple[Finding, ...]
    pieces: Mapping[int, tuple[shapely.Geometry, ...]]

    @property
    def fits(self) -> bool:
        return bool(self.parts) and not any(finding.severity == "stop" for finding in self.findings)


def prove(
    files: Mapping[int, ReadFile], build: Build, layout: Layout, basis: Basis, plan: CutPlan, profile: Profile = PLAIN
) -> Proof:
    """The files of some sheets (by sheet number) against the parts that should come off them.

    Layers mean what `profile` says. Mates are judged where both members are in the files given. What the build and
    the cut plan had to say is said here too.
    """
    prover = _Prover(build, basis, plan, profile)
    prover.findings += [_on_sheet(finding, layout) for finding in (*build.findings, *plan.findings)]
    for sheet, file in sorted(files.items()):
        prover.file(sheet, file, layout)
    prover.mates()
    return Proof(tuple(prover.parts), tuple(prover.mated), tuple(prover.findings), prover.pieces)


class _Prover:
    """Collects what is found while the sheets, then the mates, are gone through."""

    def __init__(self, build: Build, basis: Basis, plan: CutPlan, profile: Profile) -> None:
        self.build, self.basis, self.plan, self.profile = build, basis, plan, profile
        self.parts: list[PartProof] = []
        self.mated: list[MateProof] = []
        self.findings: list[Finding] = []
        self.pieces: dict[int, tuple[shapely.Geometry, ...]] = {}
        self.flat: dict[str, list[shapely.Geometry]] = {part.id: [] for part in build.parts}

    def file(self, sheet: int, file: ReadFile, layout: Layout) -> None:
        if file.assumed:
            self.findings.append(
                Finding(
                    "no-unit", "stop", f"The file does not say its unit; it was taken as {file.assumed}.",
                    "Export it with its unit, or the receiver has to guess.", sheet=sheet,
                )
            )  # fmt: skip
        by_operation: dict[Operation | None, list[ReadPath]] = defaultdict(list)
        for path in file.paths:
            by_operation[self.profile.operation_of(path.layer)].append(path)
        for path in by_operation[None]:
            self._unknown(sheet, f"a path on the layer “{path.layer}”", path.segments[0].start)
        for kind in (*file.unread, *(f"the text “{text.text[:40]}”" for text in file.texts)):
            self._unknown(sheet, kind, None)
        self._marks(sheet, by_operation)
        cut = by_operation["cut"]
        kerf = self.basis.of(layout.sheet(sheet).board).kerf
        pieces = as_cut(self._sound(sheet, cut), kerf)
        self.pieces[sheet] = tuple(piece.finished for piece in pieces)
        for placed in layout.on_sheet(sheet):
            self._part(placed, pieces)
        for piece in pieces:  # those that no part has claimed
            place = piece.path.representative_point()
            self.findings.append(
                Finding(
                    "unknown-piece", "stop", "A closed outline belongs to no part of this job.",
                    "Delete it, or add the part to the job and lay out again.",
                    sheet=sheet, place=(place.x, place.y), amount=piece.path.area ** 0.5,
                )
            )  # fmt: skip

    def _marks(self, sheet: int, found: Mapping[Operation | None, Sequence[ReadPath]]) -> None:
        """Whether what is scored, engraved and the like is there in full: its length is compared with the plan's."""
        wanted = next(one for one in self.plan.sheets if one.number == sheet)
        for operation, layer in self.profile.layers.items():
            if operation in ("cut", "reference") or not layer.include:
                continue
            plan = math.fsum(path.length for path in wanted.paths if path.operation == operation)
            file = math.fsum(segment.length for path in found.get(operation, ()) for segment in path.segments)
            if abs(plan - file) > MARKS_SHARE * plan + EDGE_MM:
                self.findings.append(
                    Finding(
                        "marks-missing", "stop",
                        f"The file has {say_mm(file, 1)} of lines to {operation}; the job has {say_mm(plan, 1)}.",
                        "Export the file again.", sheet=sheet, amount=file - plan,
                    )
                )  # fmt: skip

    def _sound(self, sheet: int, cut: Sequence[ReadPath]) -> list[ReadPath]:
        """The outlines that can be cut as they are; the others are findings, at their place."""
        paths = [without_lead(path) for path in cut]
        outlines = [outline_of(path) for path in paths]
        twice = _there_before(outlines)
        sound: list[ReadPath] = []
        for index, (path, outline) in enumerate(zip(paths, outlines, strict=True)):
            place, name = path.segments[-1].end, path.name or "without a name"
            gap = math.dist(path.segments[0].start, place)
            if not path.closed:
                self._bad(
                    sheet, "open-path", f"The outline {name} is open by {say_mm(gap)}.", "Join its ends", place, gap
                )
            elif outline.is_empty or not outline.is_valid:
                self._bad(sheet, "crosses-itself", f"The outline {name} crosses itself.", "Draw it anew", place)
            elif index in twice:
                self._bad(sheet, "cut-twice", f"The outline {name} is there twice.", "Delete one of them", place)
            else:
                sound.append(path)
        return sound

    def _bad(self, sheet: int, code: str, why: str, fix: str, place: Point, amount: float = 0.0) -> None:
        fix = f"{fix}, or export the file again."
        self.findings.append(Finding(code, "stop", why, fix, sheet=sheet, place=place, amount=amount))

    def _unknown(self, sheet: int, what: str, place: Point | None) -> None:
        self.findings.append(
            Finding(
                "not-an-outline", "look", f"The file also holds {what}.",
                "Remove it if the machine should not see it.", sheet=sheet, place=place,
            )
        )  # fmt: skip

    def _part(self, placed: Placed, pieces: list[AsCut]) -> None:
        part = self.build.part(placed.part)
        title = f"{part.title} {placed.copy}"
        kerf = self.basis.of(part.board).kerf
        nominal = placed.motion.region(finished(part, kerf))
        piece = _take(pieces, nominal, kerf)
        where = {"part": placed.part, "copy": placed.copy, "sheet": placed.sheet}
        if piece is None or piece.finished.is_empty or piece.finished.geom_type != "Polygon":
            left, low, right, high = nominal.box
            missing = piece is None
            self.findings.append(
                Finding(
                    "part-missing" if missing else "part-in-pieces", "stop",
                    f"{title} is not in the file where the layout has it." if missing
                    else f"A beam of {say_mm(kerf)} does not leave {title} in one piece.",
                    "Export the file again from this layout." if missing else "Widen its thin places, or use a finer beam.",
                    place=((left + right) / 2, (low + high) / 2), **where,  # type: ignore[arg-type]
                )
            )  # fmt: skip
            self.parts.append(PartProof(placed.part, placed.copy, placed.sheet, None, None, None, False))
            return
        compared = compare(piece.finished, nominal, kerf)
        ok = compared.ok
        self.parts.append(
            PartProof(
                placed.part, placed.copy, placed.sheet,
                compared.edge.amount, compared.corner.amount, compared.inside_corner.amount, ok,
            )
        )  # fmt: skip
        if not ok:
            self._off(title, compared, where, kerf)
        self.flat[placed.part].append(_put_back(piece.finished, placed.motion))

    def _off(self, title: str, compared: Comparison, where: dict[str, object], kerf: float) -> None:
        others = max((compared.corner, compared.extra), key=lambda deviation: deviation.amount)
        worst = compared.edge if compared.edge.amount > EDGE_MM else others
        size = "larger" if compared.larger else "smaller"
        self.findings.append(
            Finding(
                "off-size", "stop",
                f"{title} comes out {say_mm(worst.amount)} {size} than nominal at {say_mm(worst.place[0])}, "
                f"{say_mm(worst.place[1])} with a kerf of {say_mm(kerf)}.",
                "Export the file again with this kerf, or measure the kerf again.",
                place=worst.place, amount=worst.amount, **where,  # type: ignore[arg-type]
            )
        )  # fmt: skip

    def mates(self) -> None:
        for mate in self.build.mates:
            firsts = [measure_member(mate, mate.first, piece) for piece in self.flat[mate.first.part]]
            seconds = [measure_member(mate, mate.second, piece) for piece in self.flat[mate.second.part]]
            if firsts and seconds:
                self._mate(mate, [measure_mate(mate, first, second) for first in firsts for second in seconds])

    def _mate(self, mate: Mate, measured: Sequence[Measured | None]) -> None:
        good = [one for one in measured if one]
        wanted = mate.division.clearance
        if len(good) < len(measured):
            self.findings.append(
                Finding(
                    "fingers-missing", "stop", f"“{mate.title}” has fingers that do not take turns as they should.",
                    "Export the file again, or use wider fingers.", part=mate.first.part,
                )
            )  # fmt: skip
            self.mated.append(MateProof(mate.id, wanted, None, None, False))
            return
        clearances = [value for one in good for value in one.clearances]
        low, high = min(clearances), max(clearances)
        # The first member's fingers stand in the second's sockets' place on the face of the second's board.
        depth = sum(one.socket_depths[0] for one in good) / len(good)
        readings = self.basis.of(self.build.part(mate.second.part).board).stock.readings
        proud = (depth - readings.thin, depth - readings.mean, depth - readings.thick)
        # A finger and its socket may each be off by what one edge may.
        tolerance = 2 * EDGE_MM
        ok = wanted - tolerance <= low and high <= wanted + tolerance
        blocked = max(one.blocked for one in good)
        if blocked > BLOCKED_MM:
            ok = False
            self.findings.append(
                Finding(
                    "corner-blocked", "stop",
                    f"At “{mate.title}” the tool leaves {say_mm(blocked, 2)} in the corners where square fingers go.",
                    "Relieve the corners with dogbones or T-bones, or use a finer tool.",
                    part=mate.first.part, amount=blocked,
                )
            )  # fmt: skip
        self.mated.append(MateProof(mate.id, wanted, (low, high), proud, ok))
        if not (wanted - tolerance <= low and high <= wanted + tolerance):
            off = low if abs(low - wanted) > abs(high - wanted) else high
            tight = off < wanted
            self.findings.append(
                Finding(
                    "off-fit", "stop",
                    f"“{mate.title}” has {say_mm(off)} of clearance as cut, {say_mm(wanted)} were chosen: "
                    f"{'too tight' if tight else 'too loose'}.",
                    "Measure the kerf again and export the file anew.",
                    part=mate.first.part, amount=off - wanted,
                )
            )  # fmt: skip
        for name, value in (("thinnest", proud[0]), ("thickest", proud[2])):
            if abs(value) > PROUD_MM:
                self.findings.append(
                    Finding(
                        "faces-uneven", "look",
                        f"At “{mate.title}” the fingers {'stand' if value > 0 else 'fall'} {say_mm(abs(value), 2)} "
                        f"{'proud' if value > 0 else 'short'} where the board is {name}.",
                        "Sand them flush, or pick a more even board.", part=mate.first.part, amount=value,
                    )
                )  # fmt: skip


def _there_before(outlines: Sequence[shapely.Polygon]) -> set[int]:
    """Which outlines run, all round, within `SAME_MM` of one before them."""
    import shapely

    closed = [index for index, outline in enumerate(outlines) if not outline.is_empty]
    if not closed:
        return set()
    plain = [outlines[index].normalize() for index in closed]
    corners = shapely.points(shapely.bounds(plain)[:, :2])
    near = shapely.STRtree(corners).query(corners, predicate="dwithin", distance=2 * SAME_MM)
    return {
        closed[later] for later, first in near.T.tolist()
        if first < later and plain[later].equals_exact(plain[first], SAME_MM)
    }  # fmt: skip


def _on_sheet(finding: Finding, layout: Layout) -> Finding:
    """A finding on a part, at its place on the sheet where the part's first copy lies."""
    placed = next((one for one in layout.placed if one.part == finding.part), None)
    if placed is None or finding.place is None:
        return finding
    return replace(finding, place=placed.motion.point(finding.place), sheet=placed.sheet, copy=placed.copy)


def _take(pieces: list[AsCut], nominal: Region, kerf: float) -> AsCut | None:
    """The piece that lies where `nominal` does, taken off the list."""
    left, low, right, high = nominal.box
    beside = kerf / 2  # a path runs that far outside its part

    def apart(piece: AsCut) -> float:
        a, b, c, d = piece.path.bounds
        return float(
            max(abs(a + beside - left), abs(b + beside - low), abs(c - beside - right), abs(d - beside - high))
        )

    if not pieces:
        return None
    nearest = min(pieces, key=apart)
    if apart(nearest) > 0.05 * max(right - left, high - low) + 1:
        return None
    pieces.remove(nearest)
    return nearest


def _put_back(finished: shapely.Geometry, motion: Motion) -> shapely.Geometry:
    """A finished piece turned and moved back into its panel's own frame."""
    import numpy as np
    import shapely

    cos, sin = Motion(angle=motion.angle).point((1.0, 0.0))
    turn = np.array([[cos, -sin], [sin, cos]])
    return shapely.transform(finished, lambda xy: (xy - (motion.x, motion.y)) @ turn)
