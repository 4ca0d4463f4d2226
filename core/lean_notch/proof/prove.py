"""The proof: files in, and the job they should be; findings out, each with its place, its amount and its mend."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from typing import TYPE_CHECKING

from ..basis import Basis
from ..cutting import PLAIN, CutPath, CutPlan, Profile, SheetPlan, finished
from ..formats.read_file import ReadPath
from ..geometry import Motion, Point, Region
from ..geometry.transform import MotionNumbers
from ..ground.findings import Finding, shortened
from ..ground.progress import Tell, untold
from ..ground.remembered import remembered
from ..lengths.said import say_mm
from ..making import Build, FlatPart
from ..nesting import Layout, Placed
from .as_cut import AsCut, as_cut, outline_of
from .assembly import near_pairs
from .close_up import CloseLooks
from .compare import EDGE_MM, Comparison, compare
from .contacts import Gauge
from .corners_shown import MOST_CLOSE_UPS, corners_shown
from .faults import DONE, bad, unseen
from .finding_places import located
from .in_space import Stood, in_space
from .joints_as_cut import JointsAsCut
from .marks import Astray, compare_marks, kinds_planned, kinds_read, left_open
from .not_seen import not_given, not_measured
from .on_line import CutLines, beside_line
from .outlines import THIN_WEB_MM, sound_outlines, thinnest_web
from .proof import Face, Given, PartProof, Proof
from .put_together import pairs_in_pockets, put_together
from .strange import on_others, strange_things
from .tested import Counts, tested

if TYPE_CHECKING:
    import shapely


NO_TITLES: Mapping[int, str] = {}


AS_CUT_MM = 0.01

MOST_OF_A_KIND = 100
"""Findings of one kind beyond this are counted, not listed."""


def prove(
    sheets: Mapping[int, Given], build: Build, layout: Layout, basis: Basis, plan: CutPlan, profile: Profile = PLAIN,
    also: Sequence[Finding] = (), titles: Mapping[int, str] = NO_TITLES, tell: Tell = untold,
) -> Proof:  # fmt: skip
    """The files of some sheets (by sheet number) against the parts that should come off them, and those parts stood up.

    Layers mean what `profile` says; `titles` are those of parts that have a sheet each to themselves. What was not given or could
    not be measured is a finding of its own; what the build and the cut plan had to say is said here too, and so is `also`.
    """
    prover = _Prover(build, layout, basis, plan, profile, titles, tell)
    prover.findings += [*build.findings, *plan.findings, *also]
    plans = {one.number: one for one in plan.sheets}
    prover.findings += not_given(sheets, build, layout, plans, profile, titles)
    prover.said = len(prover.findings)
    for sheet, given in sorted(sheets.items()):
        if given.front:
            prover.front(sheet, given.front)
        if given.back:
            prover.back(sheet, given.back)
        prover.looked_at += sheet in prover.pieces  # else nothing of it that is cut out was measured
    tell(0.7, "measuring the joints", prover.so_far)
    joints = JointsAsCut(build, basis, prover.gauges)
    tell(0.85, "standing the parts up", prover.so_far)
    gauges = {part: some[0] for part, some in prover.gauges.items() if some}
    stood = Stood(build, gauges, {part.board: basis.of(part.board).kerf for part in build.parts})
    # Whose joint is wrong, or sits in a pocket that no beam sweeps, is not compared in space.
    sunk = {mate.id for mate in build.mates if any(contact.in_pocket for contact in mate.contacts)}
    wrong = {one.mate for one in joints.proofs if not one.ok} | sunk
    prover.findings += [*joints.findings, *put_together(build, basis)]
    prover.findings += in_space(stood, {mate.id for mate in build.mates} - wrong, pairs_in_pockets(build, basis))
    prover.findings += list(
        not_measured(build, prover.gauges, prover.findings, {one.mate for one in joints.proofs} | sunk)
    )
    findings = tuple(located(finding, build, layout) for finding in shortened(prover.findings, MOST_OF_A_KIND))
    skipped = {frozenset(one.placement for one in mate.members) for mate in build.mates if mate.id in wrong}
    counts = Counts(
        prover.paths, prover.sound, prover.marks, len(stood.bodies), len(build.standings), len(near_pairs(stood.bodies)),
        len(skipped),
    )  # fmt: skip
    tell(0.95, "looking at the corners", prover.so_far)
    return Proof(
        tuple(prover.parts), tuple(joints.proofs), findings, prover.pieces, _provided(build, basis),
        tested(prover.parts, joints.proofs, findings, counts), tuple(corners_shown(findings, layout, prover.shapes, prover.looks)), _rings(gauges),
    )  # fmt: skip


def _rings(gauges: Mapping[str, Gauge]) -> dict[str, tuple[tuple[Point, ...], ...]]:
    """Of finished parts, to a hair: for a drawing of them put together."""
    import shapely

    found = {}
    for part, gauge in list(gauges.items())[:MOST_CLOSE_UPS]:
        rings = shapely.simplify(shapely.get_rings(gauge.piece), AS_CUT_MM)
        found[part] = tuple(tuple((round(x, 3), round(y, 3)) for x, y in ring.coords[:-1]) for ring in rings)
    return found


def _provided(build: Build, basis: Basis) -> str:
    """What the proof takes for granted: kerfs that nobody measured."""
    used = dict.fromkeys(part.board for part in build.parts if part.quantity)
    kerfs = dict.fromkeys(basis.of(board).kerf for board in used if basis.of(board).kerf_typed)
    if not kerfs:
        return ""
    said = " and ".join(say_mm(kerf) for kerf in kerfs)
    return f"the kerf is {said} (typed in, not measured)"


# What was measured of a piece holds for the same piece: a file's outlines are mostly those of the one before.
@remembered(2048, lambda region: sum(len(r.corners) for r in region.rings), 300_000)
def _nominal(part: FlatPart, kerf: float, lies: MotionNumbers) -> Region:
    return Motion(*lies).region(finished(part, kerf))


_compared = remembered()(compare)


@remembered(2048, lambda gauge: gauge.size, 600_000)
def _gauge(piece: shapely.Geometry, lies: MotionNumbers) -> Gauge:
    return Gauge(_put_back(piece, Motion(*lies)))


@remembered()
def _thinnest(piece: shapely.Geometry) -> tuple[tuple[float, Point] | None]:
    return (thinnest_web(piece),)


class _Prover:
    """Collects what is found while the sheets, then the mates, are gone through."""

    def __init__(
        self, build: Build, layout: Layout, basis: Basis, plan: CutPlan, profile: Profile, titles: Mapping[int, str], tell: Tell
    ) -> None:  # fmt: skip
        self.build, self.layout, self.basis, self.plan, self.profile = build, layout, basis, plan, profile
        self.titles, self.tell = titles, tell
        self.parts: list[PartProof] = []
        self.findings: list[Finding] = []
        self.pieces: dict[int, tuple[shapely.Geometry, ...]] = {}
        self.gauges: dict[str, list[Gauge]] = {part.id: [] for part in build.parts}
        self.paths = self.sound = self.marks = self.looked_at = self.said = 0
        self.looks: dict[int, CloseLooks] = {}
        self.shapes: dict[tuple[str, int], tuple[Region, shapely.Geometry]] = {}

    def so_far(self) -> dict[str, object]:
        """Of how many sheets what is found is known already, how much that is, and the first of it in words: of the files, not what
        the job itself said before."""
        told = list(dict.fromkeys(one.why for one in self.findings[self.said :]))
        return {"done": self.looked_at, "of": len(self.layout.sheets), "found": len(told), "first": told[:3]}

    def _plan(self, sheet: int) -> SheetPlan:
        return next(one for one in self.plan.sheets if one.number == sheet)

    def front(self, sheet: int, face: Face) -> None:
        """The face that is cut through."""
        file = face.file
        cut = [path for path in file.paths if self.profile.operation_of(path.layer) == "cut"]
        board = self.layout.sheet(sheet).board
        kerf = self.basis.of(board).kerf
        if "cut" in face.operations:
            sound, leads = sound_outlines(cut, lambda *told: self.findings.append(bad(sheet, *told)))
            self.paths += len(cut)
            self.sound += len(sound)
            self.looks[sheet] = CloseLooks(sheet, [outline_of(path).exterior for path in sound], kerf)
            pieces = as_cut(sound, kerf, leads)
            self.pieces[sheet] = tuple(piece.finished for piece in pieces)
            self._on_line(sheet, sound, kerf)
            for placed in self.layout.on_sheet(sheet):
                self.tell(0.7 * len(self.parts) / len(self.layout.placed), "comparing the parts", self.so_far)
                self._part(placed, pieces)
            self._unclaimed(sheet, pieces)
        self._marks(sheet, face, self._plan(sheet).paths)
        self.findings += on_others(
            sheet, self._plan(sheet), self.build, self.layout.on_sheet(sheet), self.pieces.get(sheet, ())
        )
        self.findings += strange_things(sheet, file, self.profile, self.pieces.get(sheet, ()))

    def back(self, sheet: int, face: Face) -> None:
        """The other face, as it lies once the sheet is turned over: where that is follows from an edge of the sheet."""
        basis, about = self.basis.of(self.layout.sheet(sheet).board), self._plan(sheet).turned_about
        area = self.layout.sheet(sheet).area
        known, real = (
            (area.width, basis.stock.sheet_width) if about == "left" else (area.height, basis.stock.sheet_height)
        )
        if real > known + EDGE_MM:
            self.findings.append(unseen(
                "back-not-looked-at",
                f"The back of sheet {sheet} was not looked at: the sheet is {say_mm(real, 1)} {_ACROSS[about]}, the bed takes "
                f"{say_mm(known, 1)} of it, so where the sheet lies once it is turned over is not known.",
                "Type the size of the piece that lies on the bed, or lay the back out by hand.", sheet=sheet, back=True,
            ))  # fmt: skip
        self._marks(sheet, face, self._plan(sheet).back, back=True)
        self.findings += strange_things(sheet, face.file, self.profile, (), back=True)

    def _unclaimed(self, sheet: int, pieces: Sequence[AsCut]) -> None:
        for piece in pieces:
            place = piece.path.representative_point()
            self.findings.append(
                Finding(
                    "unknown-piece", "stop", "A closed outline belongs to no part of this job.",
                    "Delete it, or add the part to the job and lay out again.",
                    sheet=sheet, place=(place.x, place.y), amount=piece.path.area ** 0.5,
                )
            )  # fmt: skip

    def _marks(self, sheet: int, face: Face, paths: Sequence[CutPath], *, back: bool = False) -> None:
        """Whether what is scored, engraved and the like lies where it should, all of it and no more."""
        wanted = face.operations if back else face.operations - {"cut"}
        read = {kind: lines for kind, lines in kinds_read(face.file.paths, self.profile).items() if kind[0] in wanted}
        planned = {kind: lines for kind, lines in kinds_planned(paths).items() if kind[0] in wanted}
        self.marks += sum(kind[0] != "reference" for kind in planned)
        for astray in compare_marks(planned, read):
            if astray.kind[0] != "reference":
                self.findings.append(_astray(astray, sheet, back=back))
        for operation, gap, place in left_open(paths, face.file.paths, self.profile):
            if operation in wanted:
                self.findings.append(
                    Finding(
                        "open-path", "stop", f"An outline of what is to be {DONE[operation]} is open by {say_mm(gap)}.",
                        "Join its ends, or export the file again.", sheet=sheet, place=place, amount=gap, back=back,
                    )
                )  # fmt: skip
        area = self.layout.sheet(sheet).area
        for (operation, _), lines in planned.items():
            places = [place for line in lines for segment in line for place in (segment.start, segment.end)]
            off = next((p for p in places if not (0 <= p[0] <= area.width and 0 <= p[1] <= area.height)), None)
            if off and operation != "reference":
                beyond = max(-off[0], -off[1], off[0] - area.width, off[1] - area.height)
                self.findings.append(bad(
                    sheet, "mark-off-sheet", f"What is to be {DONE[operation]} leaves the sheet by {say_mm(beyond)}.",
                    "Move it onto its part", off, beyond, back=back,
                ))  # fmt: skip

    def _on_line(self, sheet: int, cut: Sequence[ReadPath], kerf: float) -> None:
        """Cuts that run on or outside their line, against that line itself."""
        lines = CutLines(cut)
        for placed in self.layout.on_sheet(sheet):
            part = self.build.part(placed.part)
            for off, place in beside_line(part, placed.motion, lines, kerf):
                self.findings.append(bad(
                    sheet, "off-line", f"A cut on or beside its line on {part.title} runs {say_mm(off)} from where it should.",
                    "Export the file again", place, off,
                ))  # fmt: skip

    def _part(self, placed: Placed, pieces: list[AsCut]) -> None:
        part = self.build.part(placed.part)
        title = f"{part.title} {placed.copy}"
        board = self.basis.of(part.board)
        laser = board.machine.kind == "laser"
        kerf, unsure = board.kerf, board.machine.kerf_within / 2
        nominal = _nominal(part, kerf, placed.motion.numbers)
        piece = _take(pieces, nominal, kerf)
        where = {"part": placed.part, "copy": placed.copy, "sheet": placed.sheet}
        if piece is None or piece.finished.is_empty or piece.finished.geom_type != "Polygon":
            left, low, right, high = nominal.box
            missing = piece is None
            self.findings.append(
                Finding(
                    "part-missing" if missing else "part-in-pieces", "stop",
                    f"{title} is not in the file where the layout has it." if missing
                    else f"{'A beam' if laser else 'A tool'} of {say_mm(kerf)} does not leave {title} in one piece.",
                    "Export the file again from this layout." if missing else "Widen its thin places, or use a finer beam." if laser else "Widen its thin places, or use a finer tool.",
                    place=((left + right) / 2, (low + high) / 2), **where,  # type: ignore[arg-type]
                )
            )  # fmt: skip
            self.parts.append(PartProof(placed.part, placed.copy, placed.sheet, None, None, None, False))
            return
        shape = piece.finished
        compared = _compared(shape, nominal, kerf)
        ok = compared.ok(unsure)
        self.parts.append(
            PartProof(
                placed.part, placed.copy, placed.sheet,
                compared.edge.amount, compared.corner.amount, compared.inside_corner.amount, ok, compared.runs, compared.kept,
            )
        )  # fmt: skip
        self.shapes[placed.part, placed.copy] = (nominal, shape)
        if not ok:
            self._off(title, compared, where, kerf, unsure)
        self._webs(part, shape, where)
        gauge = _gauge(shape, placed.motion.numbers)
        self.gauges[placed.part].append(gauge)

    def _webs(self, part: FlatPart, piece: shapely.Geometry, where: dict[str, object]) -> None:
        """The thinnest web between two cuts of a part, one finding a part."""
        found = _thinnest(piece)[0]
        if found and not any(one.code == "thin-web" and one.part == part.id for one in self.findings):
            width, place = found
            self.findings.append(
                Finding(
                    "thin-web", "look", f"A web of {say_mm(width, 2)} stays between two cuts of {part.title}.",
                    f"Keep {say_mm(THIN_WEB_MM)} between cuts, or leave it if it is to break out.",
                    place=place, amount=width, **where,  # type: ignore[arg-type]
                )
            )  # fmt: skip

    def _off(self, title: str, compared: Comparison, where: dict[str, object], kerf: float, unsure: float) -> None:
        if compared.larger and any(one.code in _NOT_IN and one.part == where["part"] for one in self.plan.findings):
            return  # said already, with what would do: the kerf is not to blame
        others = max((compared.corner, compared.extra), key=lambda deviation: deviation.amount)
        worst = compared.edge if compared.edge.amount > EDGE_MM + unsure else others
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


_NOT_IN = ("tool-not-in", "tool-too-wide")
_ACROSS = {"left": "wide", "bottom": "high"}


def _astray(astray: Astray, sheet: int, *, back: bool = False) -> Finding:
    (operation, depth), off = astray.kind, astray.off
    what = operation + (f" {say_mm(depth)} deep" if depth else "")
    if math.isinf(off):
        why = (
            f"The file has lines to {what}; the job has none." if astray.extra
            else f"The job has lines to {what}; the file has none."
        )  # fmt: skip
    elif off:
        whose = "the file" if astray.extra else "the job"
        why = f"A line of {whose} to {what} lies {say_mm(off, 2)} from where it should be."
    else:
        more = "more" if astray.extra else "less"
        why = f"The file has {say_mm(abs(astray.length), 1)} {more} of lines to {what} than the job" + (
            ": some are doubled." if astray.extra else "."
        )
    return Finding(
        "marks-astray", "stop", why, "Export the file again.", sheet=sheet, place=astray.place,
        amount=off if 0 < off < math.inf else astray.length, back=back,
    )  # fmt: skip


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
