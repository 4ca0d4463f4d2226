"""Design + basis in; flat parts at finished size, where they stand, and their mates out. The kerf is not in it."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

from ..basis import Basis
from ..design import Against, Design, Imported, Part, dangling
from ..errors import BadGeometry, MissingInput, NotchError, ThicknessTooLarge
from ..findings import Finding, Place
from ..geometry import Region, rectangle
from ..geometry.batched import batched
from ..joints import FACE, Change, Mate
from ..joints.mate import Notch
from ..units import positive_mm, say_mm
from .basis_findings import basis_findings
from .edges import blank_lines, length_of, straight_edges, takes_notches
from .fit import fit_findings, joint_fits
from .flat import FlatPart, Making
from .mates import Site, make_mates
from .part import NOTHING, Asked, Outlines, Shop, check_cuts, make_part
from .relief import bone_of, bones, weak_flanks
from .shapes import LARGEST_MM
from .stand import Outlined, Standing, stand_all


@dataclass(frozen=True)
class Build:
    """What a design is on this basis. `names` are all its lengths in mm, by name, as the first board's parts see them."""

    parts: tuple[FlatPart, ...]
    standings: tuple[Standing, ...]
    mates: tuple[Mate, ...]
    names: dict[str, float]
    findings: tuple[Finding, ...] = ()

    def part(self, part_id: str) -> FlatPart:
        return self._by_id[part_id]

    @cached_property
    def _by_id(self) -> dict[str, FlatPart]:
        return {part.id: part for part in self.parts}

    @cached_property
    def standing(self) -> dict[str, Standing]:
        """By placement."""
        return {one.placement: one for one in self.standings}

    @property
    def failed(self) -> frozenset[str]:
        """The paths of the steps that parts got stuck at."""
        return frozenset(f"parts/{p.id}/steps/{p.failed.step}" for p in self.parts if p.failed)

    @property
    def lost(self) -> dict[str, Finding]:
        """Joints that cannot be made, by id, and why."""
        made = {mate.id for mate in self.mates}
        return {one.joint: one for one in self.findings if one.joint and one.joint not in made}


def no_files(wanted: Imported) -> Sequence[Region]:
    """The outlines of a job that keeps no file."""
    raise MissingInput(
        f"The file {wanted.file[:12]} is not kept with this job.", fix="Add the file again.", field="shape/file"
    )


def build(design: Design, basis: Basis, outlines: Outlines = no_files) -> Build:
    """Flat parts and mates of `design` on `basis`. Raises NotchError at the path of what to mend.

    A step that fails, a joint whose members are gone and placements that want a part different are findings, and the
    rest is made as far as it goes.
    """
    first = design.boards[0].id
    names = design.evaluate(basis.names(first))
    for dimension in design.dimensions:
        if dimension.chosen:
            field = design.input_of(dimension.name)
            positive_mm(names[dimension.name], field, f"The {dimension.title}", LARGEST_MM)
    _check_inside(design, names)
    by_board = {board.id: {**names, **basis.names(board.id)} for board in design.boards}
    shop = Shop(design, by_board, outlines)
    known = tuple(part for part in design.parts if part.board in by_board)
    outlined, before = _outlined(known, shop)
    standings, unplaced = stand_all(design, outlined, by_board)
    mates, lost = make_mates(Site(design, standings, outlined, before, by_board, basis))
    findings = [*basis_findings(basis, {board.id: board.title for board in design.boards})]
    findings += [_dangling(*one) for one in dangling(design) if not one[0].startswith("joints/")]
    findings += _other_boards(design, by_board)
    findings += [Finding(e.code, "stop", e.why, e.fix, field=e.field) for e in unplaced]
    findings += lost
    asked = _asked(mates)
    makings = []
    for part in known:
        own = [one.id for one in design.placements_of(part.id)]
        findings += _differing(part, own, asked, standings)
        wanted = asked.get(own[0], NOTHING) if own else NOTHING
        _check_depths(design, part, outlined[part.id], wanted)
        makings.append((part, make_part(part, shop, wanted), own[:1]))
    parts = _finish(design, basis, makings, mates, outlined, by_board, findings)
    findings += _eaten(makings, mates)
    findings += fit_findings(joint_fits(parts, mates, basis))
    return Build(tuple(parts), tuple(standings.values()), mates, names, tuple(findings))


def _outlined(parts: Sequence[Part], shop: Shop) -> tuple[dict[str, Outlined], dict[str, Region]]:
    """What parts are before joints, as far as joints and poses ask for it; and their outlines then."""
    named = _edges_named(shop.design)
    found, regions = {}, {}
    for part in parts:
        names = shop.names[part.board]
        lines = _blank_lines(part, shop) if part.blank else {}
        size = max(x for x, _ in _ends(lines)), max(y for _, y in _ends(lines))
        if takes_notches(part) and named.get(part.id, set()) <= lines.keys():
            region = Region(rectangle(0.0, 0.0, *size))
        else:
            made = make_part(part, shop)
            lines = straight_edges(made.edges, made.regions, made.cuts)
            region = max(made.regions, key=lambda one: one.area)
            if part.blank is None:
                boxes = [one.box for one in made.regions]
                size = max(box[2] for box in boxes), max(box[3] for box in boxes)
        found[part.id] = Outlined(size, names["thickness"], lines)
        regions[part.id] = region
    return found, regions


def _ends(lines: Mapping[str, tuple[tuple[float, float], tuple[float, float]]]) -> list[tuple[float, float]]:
    return [point for line in lines.values() for point in line] or [(0.0, 0.0)]


def _edges_named(design: Design) -> dict[str, set[str]]:
    """The edges that joints and poses name, by part."""
    named: dict[str, set[str]] = defaultdict(set)
    part_of = {one.id: one.part for one in design.placements}
    for joint in design.joints:
        for member in (joint.first, joint.second):
            if member.placement in part_of and member.edge != FACE:
                named[part_of[member.placement]].add(member.edge)
    for one in design.placements:
        if isinstance(one.pose, Against):
            named[one.part].add(one.pose.edge)
            if one.pose.placement in part_of:
                named[part_of[one.pose.placement]].add(one.pose.other_edge)
    return named


def _other_boards(design: Design, by_board: Mapping[str, Mapping[str, float]]) -> list[Finding]:
    """Standing parts of another thickness than the recipe worked its lengths out for: what it calls inside is not."""
    main = design.boards[0]
    if design.origin is None:
        return []
    titles = {board.id: board.title for board in design.boards}
    standing = {one.part for one in design.placements}
    usual = by_board[main.id]["thickness"]
    return [
        Finding(
            "other-board", "look",
            f"{part.title} is cut from {titles[part.board]}, {say_mm(thickness)} thick; the recipe's lengths are worked out "
            f"for {main.title}, {say_mm(usual)}.",
            "Check the space that is left inside, or change the lengths that hold the thickness.", part.id,
        )
        for part in design.parts
        if part.id in standing and part.board in titles
        and abs((thickness := by_board[part.board]["thickness"]) - usual) > _OTHER_MM
    ]  # fmt: skip


_OTHER_MM = 0.01  # finer than a caliper shows


def _dangling(path: str, name: str, what: str) -> Finding:
    return Finding(
        "dangling", "stop", f"“{path}” names the {what} “{name}”, which is not in this design.",
        f"Choose a {what} that there is, or remove what names it.", field=path,
    )  # fmt: skip


def _asked(mates: Sequence[Mate]) -> dict[str, Asked]:
    """What joints want of a part, by the placement they name."""
    notches: dict[str, list[Notch]] = defaultdict(list)
    cuts: dict[str, list[Region]] = defaultdict(list)
    for mate in mates:
        for change in mate.members:
            notches[change.placement] += change.notches
            cuts[change.placement] += change.cuts
    return {name: Asked(tuple(sorted(notches[name])), tuple(cuts[name])) for name in notches}


def _differing(
    part: Part, placements: Sequence[str], asked: Mapping[str, Asked], standings: Mapping[str, Standing]
) -> list[Finding]:
    """Placements whose joints want another part than those of the first one do."""
    if len(placements) < 2:
        return []
    first = asked.get(placements[0], NOTHING)
    other = next((one for one in placements[1:] if not _same(first, asked.get(one, NOTHING))), None)
    if other is None:
        return []
    return [
        Finding(
            "placements-differ", "stop",
            f"The joints at “{placements[0]}” and at “{other}” want {part.title} different; it is made as “{placements[0]}” "
            "wants it.",
            f"Make the one at “{other}” a part of its own, or join both alike.", part.id, field=f"placements/{other}",
            placement=other, space=_middle_of(standings.get(other)),
        )
    ]  # fmt: skip


def _middle_of(standing: Standing | None) -> Place | None:
    return standing.frame.at((standing.width / 2, standing.height / 2), standing.thickness / 2) if standing else None


def _same(a: Asked, b: Asked) -> bool:
    if a == b:
        return True
    return _rounded(a) == _rounded(b)


def _rounded(asked: Asked) -> tuple[object, ...]:
    notches = [(edge, *(_micro(one) for one in numbers)) for edge, *numbers in asked.notches]
    cuts = sorted((tuple(map(_micro, region.box)), _micro(region.area)) for region in asked.cuts)
    return notches, cuts


def _micro(mm: float) -> float:
    return round(mm, 6)


def _blank_lines(part: Part, shop: Shop) -> dict[str, tuple[tuple[float, float], tuple[float, float]]]:
    """The edges of a part's blank. Raises NotchError at the chosen dimension behind its size."""
    blank = part.blank
    assert blank, "asked of parts with a blank"
    for name in ("width", "height"):
        path = f"shape/{name}"
        try:
            mm = length_of(blank, path, shop.names[part.board])
            positive_mm(mm, "", f"The {name} of {part.title}", LARGEST_MM)
        except NotchError as error:
            raise error.at(_field_of(shop.design, part, path)) from None
    return blank_lines(part, shop.names[part.board])


def _field_of(design: Design, part: Part, path: str) -> str:
    """The path of what decides a length of a part's blank."""
    blank = part.blank
    assert blank
    typed = dict(blank.lengths)[path]
    return design.input_behind(typed) or f"parts/{part.id}/steps/{blank.id}/{path}"


_Makings = Sequence[tuple[Part, Making, Sequence[str]]]


def _finish(
    design: Design, basis: Basis, makings: _Makings, mates: Sequence[Mate], outlined: Mapping[str, Outlined],
    names: Mapping[str, Mapping[str, float]], findings: list[Finding],
) -> list[FlatPart]:  # fmt: skip
    """Cuts and reliefs taken away, all parts at once; of several pieces the largest is the part."""
    carved = []
    for part, making, placements in makings:
        one = basis.of(part.board)
        bone = bone_of(design.relief, one)
        cleared: list[Region] = []
        for mate, change in _changes_at(mates, placements) if bone else ():
            assert bone
            cleared += bones(change, bone, one.kerf / 2)
            weak = weak_flanks(mate, change, bone, one.kerf / 2, part.title)
            findings += [weak] if weak else []
        check_cuts(making.cuts, part.title)
        carved.append((tuple(making.regions), (*cleared, *making.cuts)))
    parts = []
    for (part, making, _), pieces in zip(makings, _carved(carved), strict=True):
        findings += making.findings
        region, said = _one_piece(part, pieces)
        findings += said
        blank = part.blank
        typed = dict(blank.lengths) if blank else {}
        parts.append(
            FlatPart(
                part.id, part.title, part.board, region, design.quantity(part), names[part.board]["thickness"],
                outlined[part.id].size, (typed["shape/width"], typed["shape/height"]) if blank else None, tuple(making.marks),
                tuple(making.edges.items()), tuple(making.corners.items()), making.failed,
            )
        )  # fmt: skip
    return parts


_Carving = tuple[tuple[Region, ...], tuple[Region, ...]]


def _carve(asked: Sequence[_Carving]) -> list[list[Region]]:
    cut = [(i, regions, tools) for i, (regions, tools) in enumerate(asked) if tools]
    results = [list(regions) for regions, _ in asked]
    if not cut:
        return results
    from ..geometry.boolean import combine

    for (i, _, _), pieces in zip(cut, combine([(r, t) for _, r, t in cut], "difference"), strict=True):
        results[i] = pieces
    return results


# An edit seldom changes every part: the others' outlines are at hand, and new ones are made together.
_carved = batched(_carve)


def _one_piece(part: Part, pieces: Sequence[Region]) -> tuple[Region, list[Finding]]:
    """The largest piece is the part; whatever else is left would drop out."""
    if not pieces:
        raise BadGeometry(
            f"Nothing is left of {part.title}.",
            fix="Make what is cut out of it smaller.",
            field=f"parts/{part.id}/steps",
        )
    largest, *others = sorted(pieces, key=lambda region: -region.area)
    findings = []
    for other in others:
        left, low, right, high = other.box
        findings.append(
            Finding(
                "drops-out", "look",
                f"A piece of {say_mm(right - left, 1)} x {say_mm(high - low, 1)} drops out of {part.title}.",
                "Hold it with a bridge, use a stencil font, or leave it if it is waste.",
                part.id, place=((left + right) / 2, (low + high) / 2), amount=other.area,
            )
        )  # fmt: skip
    return largest, findings


def _changes_at(mates: Sequence[Mate], placements: Sequence[str]) -> Iterator[tuple[Mate, Change]]:
    return ((mate, change) for mate in mates for change in mate.members if change.placement in placements)


def _eaten(makings: _Makings, mates: Sequence[Mate]) -> list[Finding]:
    """Cuts that reach into a joint's fingers or slots."""
    found = []
    for part, making, placements in makings:
        if not takes_notches(part):
            continue
        own = [
            cut for cut in making.cuts if not any(cut in change.cuts for _, change in _changes_at(mates, placements))
        ]
        for mate, change in _changes_at(mates, placements) if own else ():
            found += _cut_into(part, own, mate, change)
    return found


def _cut_into(part: Part, cuts: Sequence[Region], mate: Mate, change: Change) -> list[Finding]:
    from ..geometry.boolean import intersection

    zones = [region.box for region in change.cuts]
    if change.strip and change.notches:
        zones.append(change.strip.box(0.0, mate.meeting.length))
    for left, low, right, high in zones:
        for cut in cuts:
            a, b, c, d = cut.box
            if a < right - _CLEAR_MM and c > left + _CLEAR_MM and b < high - _CLEAR_MM and d > low + _CLEAR_MM:
                both = intersection([Region(rectangle(left, low, right - left, high - low))], [cut])
                if not both:
                    continue
                x0, y0, x1, y1 = both[0].box
                why = f"A cut of {part.title} reaches into “{mate.title}”."
                return [
                    Finding(
                        "joint-cut", "look", why, "Move the cut, or leave it if that is meant.", part.id,
                        place=((x0 + x1) / 2, (y0 + y1) / 2), joint=mate.id, placement=change.placement,
                    )
                ]  # fmt: skip
    return []


_CLEAR_MM = 1e-6


def _check_inside(design: Design, names: dict[str, float]) -> None:
    """A box whose walls are thicker than itself is refused where its size was given."""
    for side in ("width", "depth", "height"):
        outside, inside = names.get(f"outside_{side}"), names.get(f"inside_{side}")
        if outside is not None and inside is not None and inside <= 0 < outside:
            raise ThicknessTooLarge(
                f"{say_mm(outside)} outside leaves {say_mm(inside)} inside a board of {say_mm(names['thickness'])}.",
                fix=f"Give a {side} of more than {say_mm(outside - inside)}, or use a thinner board.",
                field=design.input_of(side),
            )


def _check_depths(design: Design, part: Part, outlined: Outlined, asked: Asked) -> None:
    def deepest(side: str) -> float:
        return max((notch.depth for notch in asked.notches if notch.edge.endswith(f".{side}")), default=0.0)

    for length, path, depth in (
        (outlined.size[0], "shape/width", deepest("left") + deepest("right")),
        (outlined.size[1], "shape/height", deepest("bottom") + deepest("top")),
    ):
        if part.blank and depth and depth >= length:
            raise ThicknessTooLarge(
                f"The boards that meet {part.title} take {say_mm(depth)} of its {say_mm(length)}.",
                fix=f"Make {part.title} larger than {say_mm(depth)} there, or use a thinner board.",
                field=_field_of(design, part, path),
            )
