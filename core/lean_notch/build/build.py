"""Design + basis in; flat parts at finished size, where they stand, and their mates out. The kerf is not in it."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

from ..basis import Basis, BoardBasis
from ..design import Against, Design, Imported, Part, Rectangle, dangling
from ..errors import BadGeometry, MissingInput, NotchError, OutOfRange, ThicknessTooLarge
from ..findings import Finding, Place
from ..geometry import Region, rectangle
from ..geometry.batched import batched
from ..joints import FACE, KINDS, Change, Mate
from ..remembered import Remembered, Same
from ..units import Length, positive_mm, say_mm
from .basis_findings import basis_findings
from .carve import carve, check_cuts
from .edges import blank_lines, length_of, straight_edges, takes_notches
from .fit import fit_findings, joint_fits
from .flat import FlatMark, FlatPart, Making
from .mates import Site, make_mates
from .overlap import overlapping
from .part import Asked, Outlines, Shop, make_part
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
    site, shop, unplaced = _stood(design, basis, outlines)
    standings, outlined = site.standings, site.parts
    mates, lost = make_mates(site)
    findings = [*basis_findings(basis, {board.id: board.title for board in design.boards})]
    findings += _DANGLING(
        _names_of(design), lambda: [_dangling(*one) for one in dangling(design) if not one[0].startswith("joints/")]
    )
    findings += _other_boards(design, site.names)
    findings += [Finding(e.code, "stop", e.why, e.fix, field=e.field) for e in unplaced]
    findings += lost
    changes = _changes(mates)
    orders = []
    for part in design.parts:
        if part.id not in outlined:
            continue
        own = [one.id for one in design.placements_of(part.id)]
        findings += _differing(part, own, changes, standings)
        orders.append(_Order(part, outlined[part.id], changes.get(own[0], ()) if own else (), basis.of(part.board)))
    made = _make_all(orders, shop)
    findings += [finding for one in made for finding in one.findings]
    parts = tuple(one.part for one in made)
    findings += [finding for mate in mates for finding in mate.findings]
    findings += overlapping(mates)
    findings += fit_findings(joint_fits(parts, mates, basis))
    return Build(parts, tuple(standings.values()), mates, dict(site.names[design.boards[0].id]), tuple(findings))


def site_of(design: Design, basis: Basis, outlines: Outlines = no_files) -> Site:
    """What joints of `design` are made at. Raises NotchError as `build` does."""
    return _stood(design, basis, outlines)[0]


def _stood(design: Design, basis: Basis, outlines: Outlines) -> tuple[Site, Shop, tuple[NotchError, ...]]:
    """The parts before joints, where they stand, and why some do not stand anywhere."""
    names = design.evaluate(basis.names(design.boards[0].id))
    _check_lengths(design, names)
    by_board = {board.id: {**names, **basis.names(board.id)} for board in design.boards}
    shop = Shop(design, by_board, outlines)
    outlined = _outlined(tuple(part for part in design.parts if part.board in by_board), shop)
    standings, unplaced = stand_all(design, outlined, by_board)
    return Site(design, standings, outlined, by_board, basis), shop, unplaced


def _check_lengths(design: Design, names: dict[str, float]) -> None:
    """Lengths that must be more than nothing are refused where they were given."""
    for dimension in design.dimensions:
        if dimension.chosen:
            field = design.input_of(dimension.name)
            positive_mm(names[dimension.name], field, f"The {dimension.title}", LARGEST_MM)
    _check_inside(design, names)
    for dimension in design.dimensions:
        mm = names[dimension.name]
        if dimension.positive and mm <= 0:
            title = dimension.title[:1].upper() + dimension.title[1:]
            raise OutOfRange(
                f"{title} comes to {say_mm(mm)}.",
                fix=f"Make the whole larger or the others smaller: it lacks {say_mm(-mm)}.",
                field=design.input_behind(dimension.length) or f"dimensions/{dimension.name}/length",
            )


_OUTLINED: Remembered[Outlined] = Remembered()


def _outlined(parts: Sequence[Part], shop: Shop) -> dict[str, Outlined]:
    """What parts are before joints, as far as joints and poses ask for it."""
    named = _NAMED(_names_of(shop.design), lambda: _edges_named(shop.design))
    found = {}
    for part in parts:
        asked = named.get(part.id, set())
        given = (*shop.given(part), tuple(sorted(asked)))
        found[part.id] = _OUTLINED(given, lambda part=part, asked=asked: _outline(part, asked, shop))  # type: ignore[misc]
    return found


def _outline(part: Part, asked: set[str], shop: Shop) -> Outlined:
    lines = _blank_lines(part, shop) if part.blank else {}
    size = max(x for x, _ in _ends(lines)), max(y for _, y in _ends(lines))
    thickness = shop.names[part.board]["thickness"]
    whole = FACE in asked and len([step for step in part.steps if step.on]) > 1
    asked = asked - {FACE}
    if takes_notches(part) and asked <= lines.keys() and not whole:
        # Whatever is cut out of it later, joints along edges see the same plain rectangle.
        plain = (*lines, *size, thickness)
        return _BLANKS(plain, lambda: Outlined(size, thickness, lines, Region(rectangle(0.0, 0.0, *size))))
    made = make_part(part, shop)
    wanted = asked | lines.keys()
    lines = straight_edges({name: edge for name, edge in made.edges.items() if name in wanted}, made.regions, made.cuts)
    if whole:
        carve(made)
    region = max(made.regions, key=lambda one: one.area)
    if part.blank is None:
        boxes = [one.box for one in made.regions]
        size = max(box[2] for box in boxes), max(box[3] for box in boxes)
    return Outlined(size, thickness, lines, region)


_BLANKS: Remembered[Outlined] = Remembered()


def _ends(lines: Mapping[str, tuple[tuple[float, float], tuple[float, float]]]) -> list[tuple[float, float]]:
    return [point for line in lines.values() for point in line] or [(0.0, 0.0)]


_DANGLING: Remembered[list[Finding]] = Remembered(64)
_NAMED: Remembered[dict[str, set[str]]] = Remembered(64)


def _names_of(design: Design) -> tuple[object, ...]:
    """All of a design that names something else of it."""
    return (Same(design.parts), Same(design.placements), Same(design.joints), Same(design.boards))


def _edges_named(design: Design) -> dict[str, set[str]]:
    """The edges that joints and poses name, by part; FACE where a joint looks at the whole of it as it is cut."""
    named: dict[str, set[str]] = defaultdict(set)
    part_of = {one.id: one.part for one in design.placements}
    for joint in design.joints:
        crosses = KINDS[type(joint.how)].ends == ("face", "face")
        for member in (joint.first, joint.second):
            if member.placement in part_of and (member.edge != FACE or crosses):
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


_Changes = tuple[tuple[Mate, Change], ...]
"""What joints do to a part where it stands, and the mates that they are of."""


def _changes(mates: Sequence[Mate]) -> dict[str, _Changes]:
    """By the placement that joints name."""
    found: dict[str, list[tuple[Mate, Change]]] = defaultdict(list)
    for mate in mates:
        for change in mate.members:
            found[change.placement].append((mate, change))
    return {name: tuple(some) for name, some in found.items()}


def _asked(changes: _Changes) -> Asked:
    """What they want of the part together."""
    notches = sorted(notch for _, change in changes for notch in change.notches)
    return Asked(
        tuple(notches), tuple([cut for _, change in changes for cut in change.cuts]),
        tuple([add for _, change in changes for add in change.adds]),
        tuple([pocket for _, change in changes for pocket in change.pockets]),
    )  # fmt: skip


def _differing(
    part: Part, placements: Sequence[str], changes: Mapping[str, _Changes], standings: Mapping[str, Standing]
) -> list[Finding]:
    """Placements whose joints want another part than those of the first one do."""
    if len(placements) < 2:
        return []
    first = _asked(changes.get(placements[0], ()))
    other = next((one for one in placements[1:] if not _same(first, _asked(changes.get(one, ())))), None)
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
    areas = [sorted(map(_area, some)) for some in (asked.cuts, asked.adds)]
    pockets = sorted((*_area(one.region), _micro(one.depth), one.back) for one in asked.pockets)
    return notches, areas, pockets


def _area(region: Region) -> tuple[object, ...]:
    return (*map(_micro, region.box), _micro(region.area))


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
    assert isinstance(typed, Length), "asked of its width and height"
    return design.input_behind(typed) or f"parts/{part.id}/steps/{blank.id}/{path}"


@dataclass(frozen=True)
class _Order:
    """A part to be made: what is known of it, what joints do to it, and its board."""

    part: Part
    outlined: Outlined
    changes: _Changes
    board: BoardBasis

    def given(self, shop: Shop) -> tuple[object, ...]:
        mates = [one for pair in self.changes for one in pair]
        quantity, relief = shop.design.quantity(self.part), shop.design.relief
        return (*shop.given(self.part), self.outlined, self.board, quantity, relief, *mates)


@dataclass(frozen=True)
class _Made:
    part: FlatPart
    findings: tuple[Finding, ...]


def _weight(made: _Made) -> int:
    """Lines and arcs, roughly."""
    marks = sum(len(region.holes) + 1 for mark in made.part.marks for region in mark.regions)
    return sum(len(ring.corners) for ring in made.part.region.rings) + marks


_MADE: Remembered[_Made] = Remembered(weigh=_weight, weight=300_000)


def _make_all(orders: Sequence[_Order], shop: Shop) -> list[_Made]:
    """Parts with what joints take; cuts and reliefs are taken away of all new ones at once."""
    given = [order.given(shop) for order in orders]
    found = [_MADE.find(one) for one in given]
    new = [(order, one) for order, one, made in zip(orders, given, found, strict=True) if made is None]
    begun = [_begun(order, shop) for order, _ in new]
    pieces = _carved([carving for _, carving, _ in begun])
    finished = iter(
        _MADE.keep(one, _finished(order, making, some, findings, shop))
        for (order, one), (making, _, findings), some in zip(new, begun, pieces, strict=True)
    )
    return [made or next(finished) for made in found]


def _begun(order: _Order, shop: Shop) -> tuple[Making, _Carving, list[Finding]]:
    part, board = order.part, order.board
    asked = _asked(order.changes)
    _check_depths(shop.design, part, order.outlined, asked)
    making = make_part(part, shop, asked)
    making.marks += _pockets(order.changes)
    bone = bone_of(shop.design.relief, board)
    cleared: list[Region] = []
    findings: list[Finding] = []
    for mate, change in order.changes if bone else ():
        assert bone
        cleared += bones(change, bone, board.kerf / 2)
        weak = weak_flanks(mate, change, bone, board.kerf / 2, part.title)
        findings += [weak] if weak else []
    check_cuts(making.cuts, part.title)
    return making, (tuple(making.regions), (*cleared, *making.cuts)), findings


def _pockets(changes: _Changes) -> Iterator[FlatMark]:
    """What joints sink into a part's faces."""
    for mate, change in changes:
        for number, pocket in enumerate(change.pockets, 1):
            yield FlatMark(
                f"{mate.id}-{number}", f"{mate.outer} of “{mate.title}”", "pocket", (pocket.region,), (), "auto",
                f"joints/{mate.id}", pocket.depth, pocket.back,
            )  # fmt: skip


def _finished(
    order: _Order, making: Making, pieces: Sequence[Region], findings: Sequence[Finding], shop: Shop
) -> _Made:  # fmt: skip
    """Of several pieces the largest is the part."""
    part, blank = order.part, order.part.blank
    region, said = _one_piece(part, pieces)
    sizes = blank.shape if blank else None
    flat = FlatPart(
        part.id, part.title, part.board, region, shop.design.quantity(part), order.outlined.thickness, order.outlined.size,
        (sizes.width, sizes.height) if isinstance(sizes, Rectangle) else None, tuple(making.marks), tuple(making.openings),
        tuple(making.edges.items()), tuple(making.corners.items()), making.failed, tuple(making.named), tuple(making.measured),
    )  # fmt: skip
    return _Made(flat, (*findings, *making.findings, *said, *_eaten(order, making)))


_Carving = tuple[tuple[Region, ...], tuple[Region, ...]]


def _carve(asked: Sequence[_Carving]) -> list[list[Region]]:
    if not any(tools for _, tools in asked):
        return [list(regions) for regions, _ in asked]
    from ..geometry.boolean import combine
    from ..geometry.cut_out import apart, with_holes

    split = [apart(regions, tools) for regions, tools in asked]
    results = [list(regions) for regions, _ in asked]
    cut = [(i, asked[i][0], rest) for i, (rest, _) in enumerate(split) if rest]
    for (i, _, _), pieces in zip(cut, combine([(r, t) for _, r, t in cut], "difference") if cut else (), strict=True):
        results[i] = pieces
    return [with_holes(pieces, free) for pieces, (_, free) in zip(results, split, strict=True)]


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


def _eaten(order: _Order, making: Making) -> list[Finding]:
    """Cuts that reach into a joint's fingers or slots."""
    if not takes_notches(order.part):
        return []
    joints = {id(cut) for _, change in order.changes for cut in change.cuts}
    own = [cut for cut in making.cuts if id(cut) not in joints]
    found: list[Finding] = []
    for mate, change in order.changes if own else ():
        found += _cut_into(order.part, own, mate, change)
    return found


def _cut_into(part: Part, cuts: Sequence[Region], mate: Mate, change: Change) -> list[Finding]:
    from ..geometry.boolean import intersection

    zones = [*change.zones]
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


_OPPOSITE = (("left", "right", 0, "shape/width"), ("bottom", "top", 1, "shape/height"))


def _check_depths(design: Design, part: Part, outlined: Outlined, asked: Asked) -> None:
    """Notches from opposite sides must not meet where both run."""
    if part.blank is None:
        return
    for low, high, axis, path in _OPPOSITE:
        some, others = (
            [one for one in asked.notches if one.edge.endswith(f".{side}") and one.depth > 0] for side in (low, high)
        )
        alone = max((one.depth for one in (*some, *others)), default=0.0)
        both = max(
            (a.depth + b.depth for a in some for b in others if a.start < b.end and b.start < a.end), default=0.0
        )
        depth, length = max(alone, both), outlined.size[axis]
        if depth and depth >= length:
            raise ThicknessTooLarge(
                f"The boards that meet {part.title} take {say_mm(depth)} of its {say_mm(length)}.",
                fix=f"Make {part.title} larger than {say_mm(depth)} there, or use a thinner board.",
                field=_field_of(design, part, path),
            )
