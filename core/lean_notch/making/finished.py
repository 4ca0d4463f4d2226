"""Parts as their steps and their joints leave them: orders in; flat parts and what is to be said of them out."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ..basis import BoardBasis
from ..design import Part, Rectangle
from ..geometry import Region, rectangle
from ..geometry.batched import batched
from ..ground.elsewhere import about_to_take
from ..ground.errors import BadGeometry
from ..ground.findings import Finding
from ..ground.remembered import Remembered
from ..joints import Change, Mate
from ..lengths.said import say_mm
from ..steps.being_made import FlatMark, Making
from ..steps.carve import check_cuts
from .edges import takes_notches
from .flat import FlatPart
from .part import Shop, make_part
from .relief import bone_of, bones, weak_flanks
from .stand import Outlined
from .wanted import Changes, asked_of, check_depths


@dataclass(frozen=True)
class Order:
    """A part to be made: what is known of it, what joints do to it, and its board."""

    part: Part
    outlined: Outlined
    changes: Changes
    board: BoardBasis

    def given(self, shop: Shop) -> tuple[object, ...]:
        mates = [one for pair in self.changes for one in pair]
        quantity, relief = shop.design.quantity(self.part), shop.design.relief
        return (*shop.given(self.part), self.outlined, self.board, quantity, relief, *mates)


@dataclass(frozen=True)
class Made:
    part: FlatPart
    findings: tuple[Finding, ...]


def _weight(made: Made) -> int:
    """Lines and arcs, roughly."""
    marks = sum(len(region.holes) + 1 for mark in made.part.marks for region in mark.regions)
    return sum(len(ring.corners) for ring in made.part.region.rings) + marks


_MADE: Remembered[Made] = Remembered(weigh=_weight, weight=300_000, shared="part")


def make_all(orders: Sequence[Order], shop: Shop) -> list[Made]:
    """Parts with what joints take; cuts and reliefs are taken away of all new ones at once."""
    given = [order.given(shop) for order in orders]
    found = [_MADE.find(one, order.part.id) for order, one in zip(orders, given, strict=True)]
    new = [(order, one) for order, one, made in zip(orders, given, found, strict=True) if made is None]
    begun = [_begun(order, shop) for order, _ in new]
    pieces = _carved([carving for _, carving, _ in begun])
    finished = iter(
        _MADE.keep(one, _finished(order, making, some, findings, shop), order.part.id)
        for (order, one), (making, _, findings), some in zip(new, begun, pieces, strict=True)
    )
    return [made or next(finished) for made in found]


def _begun(order: Order, shop: Shop) -> tuple[Making, _Carving, list[Finding]]:
    about_to_take()
    part, board = order.part, order.board
    asked = asked_of(order.changes)
    check_depths(shop.design, part, order.outlined, asked)
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


def _pockets(changes: Changes) -> Iterator[FlatMark]:
    """What joints sink into a part's faces."""
    for mate, change in changes:
        for number, pocket in enumerate(change.pockets, 1):
            yield FlatMark(
                f"{mate.id}-{number}", f"{mate.outer} of “{mate.title}”", "pocket", (pocket.region,), (), "auto",
                f"joints/{mate.id}", pocket.depth, pocket.back,
            )  # fmt: skip


def _finished(
    order: Order, making: Making, pieces: Sequence[Region], findings: Sequence[Finding], shop: Shop
) -> Made:  # fmt: skip
    """Of several pieces the largest is the part."""
    part, blank = order.part, order.part.blank
    region, said = _one_piece(part, pieces)
    sizes = blank.shape if blank else None
    flat = FlatPart(
        part.id, part.title, part.board, region, shop.design.quantity(part), order.outlined.thickness, order.outlined.size,
        (sizes.width, sizes.height) if isinstance(sizes, Rectangle) else None, tuple(making.marks), tuple(making.openings),
        tuple(making.edges.items()), tuple(making.corners.items()), making.failed, tuple(making.named), tuple(making.measured),
        tuple(making.notes),
    )  # fmt: skip
    return Made(flat, (*findings, *making.findings, *said, *_eaten(order, making)))


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


_CLEAR_MM = 1e-6


def _eaten(order: Order, making: Making) -> list[Finding]:
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
