"""The proof: files in, and the job they should be; findings out, each with its place, its amount and its mend."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import replace
from typing import TYPE_CHECKING

from ..basis import Basis
from ..build import Build, Contact, FlatPart, Mate
from ..cutting import PLAIN, CutPlan, Profile, SheetPlan, finished
from ..findings import Finding
from ..formats.read_file import ReadFile, ReadPath
from ..geometry import Box, Motion, Point, Region
from ..joints.mate import Line
from ..nesting import Layout, Placed
from ..operations import OPERATIONS
from ..units import say_mm
from .as_cut import AsCut, as_cut, outline_of, without_lead
from .assembly import bar_lines
from .compare import EDGE_MM, Comparison, compare
from .contacts import Gauge, blocked, how_long, inner_width, outer_width
from .in_space import Stood, in_space
from .marks import Astray, compare_marks, kinds_planned, kinds_read
from .on_line import beside_line
from .proof import MateProof, PartProof, Proof

if TYPE_CHECKING:
    import shapely

SAME_MM = 0.01
"""Two outlines this near to each other all round are one, cut twice: it scorches, and takes twice the time."""

BLOCKED_MM = 0.1
"""A square corner gives way by a few hundredths when it is pushed home; more keeps a mate from entering. Common practice."""

PROUD_MM = 0.1
"""Faces further out of line than this want sanding; less is not felt. Common practice."""

THIN_WEB_MM = 1.0
"""Between cuts nearer than this the web burns or breaks. Common practice; thicker stock wants more."""


def prove(
    files: Mapping[int, ReadFile], build: Build, layout: Layout, basis: Basis, plan: CutPlan, profile: Profile = PLAIN
) -> Proof:
    """The files of some sheets (by sheet number) against the parts that should come off them, and those parts stood up.

    Layers mean what `profile` says. What was not given or could not be measured is a finding of its own; what the build
    and the cut plan had to say is said here too.
    """
    prover = _Prover(build, layout, basis, plan, profile)
    prover.findings += [*build.findings, *plan.findings]
    prover.not_given(files)
    for sheet, file in sorted(files.items()):
        prover.file(sheet, file)
    prover.mates()
    gauges = {part: some[0] for part, some in prover.gauges.items() if some}
    stood = Stood(build, gauges, {part.board: basis.of(part.board).kerf for part in build.parts})
    wrong = {one.mate for one in prover.mated if not one.ok}
    prover.findings += in_space(stood, {mate.id for mate in build.mates} - wrong)
    prover.not_measured()
    findings = tuple(_located(finding, build, layout) for finding in prover.findings)
    return Proof(tuple(prover.parts), tuple(prover.mated), findings, prover.pieces, _provided(build, basis))


def _provided(build: Build, basis: Basis) -> str:
    """What the proof takes for granted: kerfs that nobody measured."""
    used = dict.fromkeys(part.board for part in build.parts if part.quantity)
    kerfs = dict.fromkeys(basis.of(board).kerf for board in used if basis.of(board).kerf_typed)
    if not kerfs:
        return ""
    said = " and ".join(say_mm(kerf) for kerf in kerfs)
    return f"the kerf is {said} (typed in, not measured)"


class _Prover:
    """Collects what is found while the sheets, then the mates, are gone through."""

    def __init__(self, build: Build, layout: Layout, basis: Basis, plan: CutPlan, profile: Profile) -> None:
        self.build, self.layout, self.basis, self.plan, self.profile = build, layout, basis, plan, profile
        self.parts: list[PartProof] = []
        self.mated: list[MateProof] = []
        self.findings: list[Finding] = []
        self.pieces: dict[int, tuple[shapely.Geometry, ...]] = {}
        self.gauges: dict[str, list[Gauge]] = {part.id: [] for part in build.parts}

    @property
    def cut_given(self) -> bool:
        return self.profile.layers["cut"].include

    def not_given(self, files: Mapping[int, ReadFile]) -> None:
        """Sheets without a file, and operations that are in none."""
        for sheet in self.layout.sheets:
            if sheet.number not in files:
                titles = dict.fromkeys(self.build.part(one.part).title for one in self.layout.on_sheet(sheet.number))
                self._unseen(
                    "sheet-not-given", f"Sheet {sheet.number} is not among the files: {_some(list(titles))} not looked at.",
                    "Prove the files of all sheets together.", sheet=sheet.number,
                )  # fmt: skip
        wanted = {mark.operation for part in self.build.parts for mark in part.marks if not mark.back}
        wanted |= {"cut"} if self.build.parts else set()
        for operation, title in OPERATIONS.items():
            if operation in wanted and operation != "reference" and not self.profile.layers[operation].include:
                self._unseen(
                    "operation-not-given", f"What is to {title.lower()} is in none of the files, and was not looked at.",
                    "Include its layer in the hand-over profile, or prove the files of all operations together.",
                )  # fmt: skip

    def _unseen(self, code: str, why: str, fix: str, sheet: int = 0, place: Point | None = None) -> None:
        self.findings.append(Finding(code, "unseen", why, fix, sheet=sheet, place=place))

    def file(self, sheet: int, file: ReadFile) -> None:
        if file.assumed:
            self.findings.append(
                Finding(
                    "no-unit", "stop", f"The file does not say its unit; it was taken as {file.assumed}.",
                    "Export it with its unit, or the receiver has to guess.", sheet=sheet,
                )
            )  # fmt: skip
        cut = [path for path in file.paths if self.profile.operation_of(path.layer) == "cut"]
        board = self.layout.sheet(sheet).board
        kerf = self.basis.of(board).kerf
        if self.cut_given:
            sound, leads = self._sound(sheet, cut)
            pieces = as_cut(sound, kerf, leads)
            self.pieces[sheet] = tuple(piece.finished for piece in pieces)
            self._on_line(sheet, sound, kerf)
            for placed in self.layout.on_sheet(sheet):
                self._part(placed, pieces)
            self._unclaimed(sheet, pieces)
        self._marks(sheet, file)
        self._strange(sheet, file)

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

    def _strange(self, sheet: int, file: ReadFile) -> None:
        """Lines of no known operation, and what is no line: a machine may cut them, or not."""
        import shapely

        finished_pieces = self.pieces.get(sheet, ())
        tree = shapely.STRtree(finished_pieces)
        for path in file.paths:
            if self.profile.operation_of(path.layer):
                continue
            line = shapely.LineString([*(s.start for s in path.segments), path.segments[-1].end])
            what = f"A path on the layer “{path.layer}”, which the hand-over profile does not know,"
            hit = tree.query(line, predicate="intersects")
            if len(hit):
                spot = shapely.intersection(finished_pieces[int(hit[0])], line).representative_point()
                self._bad(
                    sheet, "unknown-layer", f"{what} runs over a part: it may be cut.", "Delete it, or name its layer",
                    (spot.x, spot.y),
                )  # fmt: skip
            else:
                self._unseen(
                    "not-looked-at", f"{what} was not looked at.", "Remove it if the machine should not see it.",
                    sheet, path.segments[0].start,
                )  # fmt: skip
        for text in file.texts:
            self._unseen(
                "not-looked-at", f"The text “{text.text[:40]}” is still text, and was not looked at.",
                "Turn it into outlines, or remove it.", sheet, text.place,
            )  # fmt: skip
        for layer in file.hidden:
            self._unseen(
                "not-looked-at", f"The layer “{layer}” is switched off or frozen: what is on it was not looked at.",
                "Switch it on, or delete it.", sheet,
            )  # fmt: skip
        for kind in file.unread:
            self._unseen(
                "not-looked-at", f"The file also holds {kind}, which was not looked at.",
                "Remove it if the machine should not see it.", sheet,
            )  # fmt: skip

    def _marks(self, sheet: int, file: ReadFile) -> None:
        """Whether what is scored, engraved and the like lies where it should, all of it and no more."""
        plan = next(one for one in self.plan.sheets if one.number == sheet)
        included = {operation for operation, layer in self.profile.layers.items() if layer.include}
        read = {kind: lines for kind, lines in kinds_read(file.paths, self.profile).items() if kind[0] in included}
        planned = kinds_planned(plan.paths)
        for astray in compare_marks(planned, read):
            if astray.kind[0] != "reference":
                self.findings.append(_astray(astray, sheet))
        area = self.layout.sheet(sheet).area
        for (operation, _), lines in planned.items():
            places = [place for line in lines for segment in line for place in (segment.start, segment.end)]
            off = next((p for p in places if not (0 <= p[0] <= area.width and 0 <= p[1] <= area.height)), None)
            if off and operation != "reference":
                beyond = max(-off[0], -off[1], off[0] - area.width, off[1] - area.height)
                self._bad(
                    sheet, "mark-off-sheet", f"What is to {OPERATIONS[operation].lower()} leaves the sheet by {say_mm(beyond)}.",
                    "Move it onto its part", off, beyond,
                )  # fmt: skip
        self._on_others(sheet, plan)

    def _on_others(self, sheet: int, plan: SheetPlan) -> None:
        """Marks of one part that run onto another one beside it."""
        import shapely

        pieces = self.pieces.get(sheet, ())
        if not pieces:
            return
        placed = self.layout.on_sheet(sheet)
        own = {(one.part, one.copy): one.motion.region(self.build.part(one.part).region).box for one in placed}
        said = set[str]()
        tree = shapely.STRtree(pieces)
        for path in plan.paths:
            box = own.get((path.part, path.copy))
            if (
                path.operation in ("cut", "reference")
                or box is None
                or path.part in said
                or _within(path.shape.box, box)
            ):
                continue
            line = shapely.LineString([*(s.start for s in path.shape.segments), path.shape.segments[-1].end])
            for hit in tree.query(line, predicate="intersects").tolist():
                spot = shapely.intersection(pieces[hit], line).representative_point()
                if not _within((spot.x, spot.y, spot.x, spot.y), box):
                    said.add(path.part)
                    self._bad(
                        sheet, "mark-on-other", f"{path.title} runs onto the part beside it.", "Move it onto its own part",
                        (spot.x, spot.y),
                    )  # fmt: skip
                    break

    def _on_line(self, sheet: int, cut: Sequence[ReadPath], kerf: float) -> None:
        """Cuts that run on or outside their line, against that line itself."""
        for placed in self.layout.on_sheet(sheet):
            part = self.build.part(placed.part)
            for off, place in beside_line(part, placed.motion, cut, kerf):
                self._bad(
                    sheet, "off-line", f"A cut on or beside its line on {part.title} runs {say_mm(off)} from where it should.",
                    "Export the file again", place, off,
                )  # fmt: skip

    def _sound(self, sheet: int, cut: Sequence[ReadPath]) -> tuple[list[ReadPath], list[ReadPath]]:
        """The outlines that can be cut as they are, and the leads to them; the others are findings, at their place."""
        split = [without_lead(path) for path in cut]
        outlines = [outline_of(path) for path, _ in split]
        twice = _there_before(outlines)
        sound: list[ReadPath] = []
        leads: list[ReadPath] = []
        kept: list[shapely.Polygon] = []
        for index, ((path, lead), outline) in enumerate(zip(split, outlines, strict=True)):
            place, name = path.segments[-1].end, path.name or "without a name"
            gap = math.dist(path.segments[0].start, place)
            if not path.closed:
                self._bad(
                    sheet, "open-path", f"The outline {name} is open by {say_mm(gap)}.", "Join its ends", place, gap
                )
            elif outline.is_empty or not outline.is_valid:
                self._bad(sheet, "crosses-itself", f"The outline {name} crosses itself.", "Draw it anew", place)
            elif index in twice:
                self._bad(
                    sheet, "cut-twice", f"The outline {name} is there twice: cutting a line twice scorches it.",
                    "Delete one of them", place,
                )  # fmt: skip
            else:
                sound.append(path)
                kept.append(outline)
                leads += [lead] if lead else []
        dropped = set()
        for first, second, spot in _crossing(kept):
            dropped.add(second)
            self._bad(
                sheet, "paths-cross",
                f"The outlines {sound[first].name or 'without a name'} and {sound[second].name or 'without a name'} cross.",
                "Move one of them, or make one outline of both", spot,
            )  # fmt: skip
        return [path for i, path in enumerate(sound) if i not in dropped], leads

    def _bad(self, sheet: int, code: str, why: str, fix: str, place: Point, amount: float = 0.0) -> None:
        fix = f"{fix}, or export the file again."
        self.findings.append(Finding(code, "stop", why, fix, sheet=sheet, place=place, amount=amount))

    def _part(self, placed: Placed, pieces: list[AsCut]) -> None:
        part = self.build.part(placed.part)
        title = f"{part.title} {placed.copy}"
        board = self.basis.of(part.board)
        kerf, unsure = board.kerf, board.machine.kerf_within / 2
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
        ok = compared.ok(unsure)
        self.parts.append(
            PartProof(
                placed.part, placed.copy, placed.sheet,
                compared.edge.amount, compared.corner.amount, compared.inside_corner.amount, ok,
            )
        )  # fmt: skip
        if not ok:
            self._off(title, compared, where, kerf, unsure)
        self._webs(part, piece.finished, where)
        self.gauges[placed.part].append(Gauge(_put_back(piece.finished, placed.motion)))

    def _webs(self, part: FlatPart, piece: shapely.Geometry, where: dict[str, object]) -> None:
        """The thinnest web between two cuts of a part, one finding a part."""
        found = _thinnest_web(piece)
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

    def mates(self) -> None:
        self._lay_calipers()
        for mate in self.build.mates:
            if all(self.gauges[change.part] for change in mate.members):
                self._mate(mate)

    def _lay_calipers(self) -> None:
        """All that will be measured on a piece at once."""
        lines: dict[str, list[Line]] = {part: [] for part in self.gauges}
        for mate in self.build.mates:
            for contact in mate.contacts:
                for caliper in (contact.inner, contact.outer, contact.stands):
                    if caliper:
                        lines[caliper.part] += caliper.lines
            for change, line in bar_lines(mate):
                lines[change.part].append(line)
        for part, gauges in self.gauges.items():
            for gauge in gauges:
                gauge.lay(lines[part])

    def _mate(self, mate: Mate) -> None:
        found: list[tuple[Contact, float, float]] = []
        for contact in mate.contacts:
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
                )
            )  # fmt: skip
        clearances = [value for _, low, high in found for value in (low, high)]
        proud = self._proud(mate)
        self.mated.append(MateProof(mate.id, mate.contacts[0].clearance, (min(clearances), max(clearances)), proud, ok))
        if tight[0] < -tight[2]:
            self._off_fit(mate, tight[3], tight[0], "too tight")
        elif loose[1] > loose[2]:
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
        self.findings.append(
            Finding(
                "fingers-missing", "stop", f"The {mate.inner}s of “{mate.title}” do not stand where its {mate.outer}s are.",
                f"Export the file again, or use wider {mate.inner}s.", part=contact.outer.part,
                place=_middle(contact), joint=mate.id,
            )
        )  # fmt: skip
        self.mated.append(MateProof(mate.id, contact.clearance, None, None, False))

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
        standing = [one for one in mate.contacts if one.stands]
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

    def not_measured(self) -> None:
        """Joints and placements whose parts are in none of the files."""
        measured = {part for part, gauges in self.gauges.items() if gauges}
        proved = {one.mate for one in self.mated}
        missing = {one.part for one in self.findings if one.code in ("part-missing", "part-in-pieces")}
        joints = [mate.title for mate in self.build.mates if mate.id not in proved and mate.contacts]
        places = [one.placement for one in self.build.standings if one.part not in measured and one.part not in missing]
        if joints:
            self._unseen(
                "joints-not-measured", f"{_some(joints)} not measured: a part of each is in none of the files.",
                "Prove the files of all sheets together.",
            )  # fmt: skip
        if places:
            self._unseen(
                "placements-not-measured", f"{_some(places)} not stood up: their parts are in none of the files.",
                "Prove the files of all sheets together.",
            )  # fmt: skip


def _within(box: Box, around: Box) -> bool:
    return (
        box[0] >= around[0] - EDGE_MM and box[1] >= around[1] - EDGE_MM
        and box[2] <= around[2] + EDGE_MM and box[3] <= around[3] + EDGE_MM
    )  # fmt: skip


def _some(names: Sequence[str]) -> str:
    """
    >>> _some(["Front"]), _some(["Front", "Back", "Left", "Right", "Base"])
    ('Front was', 'Front, Back, Left and 2 more were')
    """
    shown = ", ".join(names[:3]) + (f" and {len(names) - 3} more" if len(names) > 3 else "")
    return f"{shown} {'was' if len(names) == 1 else 'were'}"


def _middle(contact: Contact) -> Point:
    """Half-way along the caliper on the outer part."""
    (x0, y0), (x1, y1) = contact.outer.lines[0]
    return ((x0 + x1) / 2, (y0 + y1) / 2)


def _astray(astray: Astray, sheet: int) -> Finding:
    (operation, depth), off = astray.kind, astray.off
    what = OPERATIONS[operation].lower() + (f", {say_mm(depth)} deep" if depth else "")
    if math.isinf(off):
        why = (
            f"The file has lines to {what}; the job has none." if astray.extra
            else f"The job has lines to {what}; the file has none."
        )  # fmt: skip
    elif off:
        whose = "the file" if astray.extra else "the job"
        why = f"A line of {whose} to {what} lies {say_mm(off, 2)} from where it should be."
    else:
        more = "more" if astray.length > 0 else "less"
        why = (
            f"The file has {say_mm(abs(astray.length), 1)} {more} of lines to {what} than the job: some are there twice."
            if (astray.length > 0)
            else f"The file has {say_mm(abs(astray.length), 1)} less of lines to {what} than the job."
        )
    return Finding(
        "marks-astray", "stop", why, "Export the file again.", sheet=sheet, place=astray.place,
        amount=astray.length if math.isinf(off) else off,
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


def _crossing(outlines: Sequence[shapely.Polygon]) -> Iterator[tuple[int, int, Point]]:
    """Pairs of outlines that cross or run along each other, the larger first, and a place where they do."""
    import shapely

    rings = [outline.exterior for outline in outlines]
    if len(rings) < 2:
        return
    a, b = shapely.STRtree(rings).query(rings, predicate="intersects")
    for first, second in zip(a.tolist(), b.tolist(), strict=True):
        larger = (outlines[first].area, -first) > (outlines[second].area, -second)
        if first != second and larger:
            spot = shapely.intersection(rings[first], rings[second]).representative_point()
            yield first, second, (spot.x, spot.y)


def _thinnest_web(piece: shapely.Geometry) -> tuple[float, Point] | None:
    """The least distance between two edges of a piece, hole and hole or hole and outline, where it is too little."""
    import shapely

    rings = list(shapely.get_rings(piece))
    if len(rings) < 2:
        return None
    a, b = shapely.STRtree(rings).query(rings, predicate="dwithin", distance=THIN_WEB_MM)
    ahead = a < b
    a, b = a[ahead], b[ahead]
    if not len(a):
        return None
    apart = shapely.distance([rings[i] for i in a], [rings[i] for i in b])
    at = int(apart.argmin())
    if apart[at] >= THIN_WEB_MM - EDGE_MM:
        return None
    spot = shapely.get_coordinates(shapely.shortest_line(rings[int(a[at])], rings[int(b[at])]))[0]
    return float(apart[at]), (float(spot[0]), float(spot[1]))


def _located(finding: Finding, build: Build, layout: Layout) -> Finding:
    """A finding with its place on the sheet and in space, as far as one follows from the other."""
    if finding.sheet or not finding.part or finding.place is None:
        if finding.space is None and finding.sheet and finding.part and finding.place:
            placed = _copy_of(layout, finding.part, finding.copy)
            flat = placed.motion.back(finding.place) if placed else None
            return replace(finding, space=_space(finding, build, flat)) if flat else finding
        return _on_the_sheet(finding, build, layout)
    placed = _copy_of(layout, finding.part, finding.copy)
    space = finding.space or _space(finding, build, finding.place)
    if placed is None:
        return replace(finding, space=space)
    return replace(
        finding, place=placed.motion.point(finding.place), sheet=placed.sheet, copy=placed.copy, space=space
    )  # fmt: skip


def _on_the_sheet(finding: Finding, build: Build, layout: Layout) -> Finding:
    """Where on its sheet a place in space is, on the part that stands there."""
    standing = build.standing.get(finding.placement)
    placed = _copy_of(layout, standing.part, 0) if standing else None
    if finding.space is None or finding.sheet or standing is None or placed is None:
        return finding
    flat = standing.frame.flat(finding.space)
    return replace(
        finding, part=standing.part, place=placed.motion.point(flat), sheet=placed.sheet, copy=placed.copy
    )  # fmt: skip


def _copy_of(layout: Layout, part: str, copy: int) -> Placed | None:
    return next((one for one in layout.placed if one.part == part and copy in (0, one.copy)), None)


def _space(finding: Finding, build: Build, flat: Point) -> tuple[float, float, float] | None:
    """Where a place of a part stands: at the placement that is named, else where the part stands first."""
    standing = build.standing.get(finding.placement)
    if standing is None or standing.part != finding.part:
        standing = next((one for one in build.standings if one.part == finding.part), None)
    return standing.frame.at(flat) if standing else None


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
