"""Parts before joints: a design and its basis in; the outlines that joints are made at and where they stand out.

Lengths that cannot be are refused where they were given.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping, Sequence

from ..basis import Basis
from ..design import Against, Design, Joint, Part, Placement
from ..geometry import Region, rectangle
from ..ground.errors import NotchError, OutOfRange, ThicknessTooLarge
from ..ground.remembered import Remembered, Same, remembered
from ..ground.wording import capital
from ..joints import FACE, KINDS
from ..lengths.length import Length, positive_mm
from ..lengths.said import say_mm
from ..steps.brought import Outlines, no_files
from ..steps.carve import carve
from ..steps.drawing import LARGEST_MM
from .edges import blank_lines, length_of, sides_of, straight_edges, takes_notches
from .mates import Site
from .part import Shop, make_part
from .stand import Outlined, stand_all


def site_of(design: Design, basis: Basis, outlines: Outlines = no_files) -> Site:
    """What joints of `design` are made at. Raises NotchError as `build` does."""
    return stood(design, basis, outlines)[0]


def stood(design: Design, basis: Basis, outlines: Outlines) -> tuple[Site, Shop, tuple[NotchError, ...]]:
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
            title = capital(dimension.title)
            raise OutOfRange(
                f"{title} comes to {say_mm(mm)}.",
                fix=f"Make the whole larger or the others smaller: it lacks {say_mm(-mm)}.",
                field=design.input_behind(dimension.length) or f"dimensions/{dimension.name}/length",
            )


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


_OUTLINED: Remembered[Outlined] = Remembered(shared="outlined")


def _outlined(parts: Sequence[Part], shop: Shop) -> dict[str, Outlined]:
    """What parts are before joints, as far as joints and poses ask for it."""
    named = _edges_named(Same(shop.design.placements), Same(shop.design.joints))
    found = {}
    for part in parts:
        asked = named.get(part.id, set())
        given = (*shop.given(part), tuple(sorted(asked)))
        found[part.id] = _OUTLINED(given, lambda part=part, asked=asked: _outline(part, asked, shop), part.id)  # type: ignore[misc]
    return found


def _outline(part: Part, asked: set[str], shop: Shop) -> Outlined:
    lines = _blank_lines(part, shop) if part.blank else {}
    size = max(x for x, _ in _ends(lines)), max(y for _, y in _ends(lines))
    thickness = shop.names[part.board]["thickness"]
    whole = FACE in asked and len([step for step in part.steps if step.on]) > 1
    asked = asked - {FACE}
    if takes_notches(part) and asked <= lines.keys() and not whole:
        # Whatever is cut out of it later, joints along edges see the same plain rectangle.
        assert part.blank, "it takes notches"
        return _plain(part.blank.id, *size, thickness)
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


@remembered()
def _plain(step: str, width: float, height: float, thickness: float) -> Outlined:
    return Outlined(
        (width, height), thickness, sides_of(step, width, height), Region(rectangle(0.0, 0.0, width, height))
    )


def _ends(lines: Mapping[str, tuple[tuple[float, float], tuple[float, float]]]) -> list[tuple[float, float]]:
    return [point for line in lines.values() for point in line] or [(0.0, 0.0)]


@remembered(64)
def _edges_named(placements: Same[tuple[Placement, ...]], joints: Same[tuple[Joint, ...]]) -> dict[str, set[str]]:
    """The edges that joints and poses name, by part; FACE where a joint looks at the whole of it as it is cut."""
    named: dict[str, set[str]] = defaultdict(set)
    part_of = {one.id: one.part for one in placements.it}
    for joint in joints.it:
        crosses = KINDS[type(joint.how)].ends == ("face", "face")
        for member in (joint.first, joint.second):
            if member.placement in part_of and (member.edge != FACE or crosses):
                named[part_of[member.placement]].add(member.edge)
    for one in placements.it:
        if isinstance(one.pose, Against):
            named[one.part].add(one.pose.edge)
            if one.pose.placement in part_of:
                named[part_of[one.pose.placement]].add(one.pose.other_edge)
    return named


def names_of(design: Design) -> tuple[object, ...]:
    """All of a design that names something else of it."""
    return (Same(design.parts), Same(design.placements), Same(design.joints), Same(design.boards))


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
            raise error.at(field_of(shop.design, part, path)) from None
    return blank_lines(part, shop.names[part.board])


def field_of(design: Design, part: Part, path: str) -> str:
    """The path of what decides a length of a part's blank."""
    blank = part.blank
    assert blank
    typed = dict(blank.lengths)[path]
    assert isinstance(typed, Length), "asked of its width and height"
    return design.input_behind(typed) or f"parts/{part.id}/steps/{blank.id}/{path}"
