"""Design + basis in; flat parts at finished size and their mates out. The kerf is not in it."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from ..basis import Basis
from ..design import Design, Part, Side
from ..errors import BadGeometry, NotchError, ThicknessTooLarge
from ..findings import Finding
from ..geometry import Circle, Contour, Region
from ..geometry.batched import batched
from ..geometry.corners import chamfered, rounded
from ..units import Length, positive_mm, say_mm
from .basis_findings import basis_findings, fit_findings
from .marks import FlatMark, draw_mark, outlines
from .mates import Mate, make_mates
from .outline import Notch, outline
from .relief import bone_of, bones
from .stand import Standing, stand

LARGEST_PANEL_MM = 20_000.0


@dataclass(frozen=True)
class FlatPart:
    """One kind of part, flat, at finished size, lower left corner of its panel at the origin.

    `region` has all that is cut through it, reliefs included; `marks` are what else is done on it.
    """

    id: str
    title: str
    region: Region
    quantity: int
    standing: Standing
    marks: tuple[FlatMark, ...] = ()


@dataclass(frozen=True)
class Build:
    """What a design is on this basis. `names` are all its lengths in mm, by name."""

    parts: tuple[FlatPart, ...]
    mates: tuple[Mate, ...]
    names: dict[str, float]
    findings: tuple[Finding, ...] = ()

    def part(self, part_id: str) -> FlatPart:
        return next(part for part in self.parts if part.id == part_id)


def build(design: Design, basis: Basis) -> Build:
    """Flat parts and mates of `design` on `basis`. Raises NotchError at the chosen dimension to mend."""
    names = design.evaluate(basis.names)
    for dimension in design.dimensions:
        if dimension.chosen:
            positive_mm(names[dimension.name], dimension.name, f"The {dimension.title}", LARGEST_PANEL_MM)
    _check_inside(names)
    standings = {part.id: _stand(design, part, names) for part in design.parts}
    mates = make_mates(design, standings, names)
    notches: dict[str, dict[Side, tuple[Notch, ...]]] = defaultdict(dict)
    cleared: dict[str, list[Region]] = defaultdict(list)
    bone = bone_of(design.relief, basis)
    for mate in mates:
        for member in (mate.first, mate.second):
            notches[member.part][member.side] = mate.notches(member)
            if bone:
                cleared[member.part] += bones(mate, member, bone, basis.kerf / 2)
    parts, carved = [], []
    findings = [*basis_findings(basis), *fit_findings(basis, len(mates))]
    for part in design.parts:
        standing = standings[part.id]
        _check_depths(design, part, standing, notches[part.id])
        panel = _panel(standing.width, standing.height, tuple(sorted(notches[part.id].items())))
        region = _with_holes(part, _with_corners(part, panel, standing, names), names)
        marks, said = _marks(part, region, names)
        findings += said
        # Cuts on or outside their line come out wider by what the beam takes: the kerf, which is not known here.
        through = [mark for mark in marks if mark.operation == "cut" and mark.side in ("auto", "inside")]
        cuts = [shape for mark in through for shape in mark.regions]
        kept = tuple(mark for mark in marks if mark not in through)
        parts.append(FlatPart(part.id, part.title, region, part.quantity, standing, kept))
        carved.append((region, (*cleared[part.id], *cuts)))
    whole = []
    for flat, pieces in zip(parts, _carved(carved), strict=True):
        region, said = _one_piece(flat, pieces)
        findings += said
        whole.append(replace(flat, region=region))
    return Build(tuple(whole), mates, names, tuple(findings))


# An edit seldom changes every part: the others' outlines are at hand, with all that is known of them.
@lru_cache(maxsize=1024)
def _panel(width: float, height: float, notches: tuple[tuple[Side, tuple[Notch, ...]], ...]) -> Region:
    return Region(outline(width, height, dict(notches)))


_Carving = tuple[Region, tuple[Region, ...]]


def _carve(asked: Sequence[_Carving]) -> list[list[Region]]:
    cut = [(i, region, tools) for i, (region, tools) in enumerate(asked) if tools]
    results = [[region] for region, _ in asked]
    if not cut:
        return results
    from ..geometry.boolean import combine

    for (i, _, _), pieces in zip(cut, combine([([r], t) for _, r, t in cut], "difference"), strict=True):
        results[i] = pieces
    return results


_carved = batched(_carve)


def _one_piece(part: FlatPart, pieces: Sequence[Region]) -> tuple[Region, list[Finding]]:
    """The largest piece is the part; whatever else is left would drop out."""
    if not pieces:
        raise BadGeometry(
            f"Nothing is left of {part.title}.", fix="Make what is cut out of it smaller.", field=f"{part.id}.marks"
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


def _marks(part: Part, region: Region, names: Mapping[str, float]) -> tuple[list[FlatMark], list[Finding]]:
    marks: list[FlatMark] = []
    findings: list[Finding] = []
    for index, mark in enumerate(part.marks):
        flat, said = draw_mark(mark, f"{part.id}.marks[{index}]", part.id, names)
        marks.append(flat)
        findings += said
        left, low, right, high = region.box
        for shape in outlines(flat):
            a, b, c, d = shape.box
            if a >= left and b >= low and c <= right and d <= high:
                continue
            if flat.operation == "cut":
                raise BadGeometry(
                    f"The {flat.title} to be cut out at {say_mm(a)}, {say_mm(b)} leaves {part.title}.",
                    fix="Move it inside the part, or make it smaller.",
                    field=flat.field,
                )
            findings.append(
                Finding(
                    "off-part", "look", f"The {flat.title} on {part.title} goes beyond its edge.",
                    "Move it inside the part, or leave it if that is meant.", part.id, place=((a + c) / 2, (b + d) / 2),
                )
            )  # fmt: skip
            break
    return marks, findings


_CORNER_AT = {"bottom-left": (0, 0), "bottom-right": (1, 0), "top-right": (1, 1), "top-left": (0, 1)}


def _with_corners(part: Part, region: Region, standing: Standing, names: Mapping[str, float]) -> Region:
    for index, cut in enumerate(part.corners):
        field = f"{part.id}.corners[{index}].size"
        outer = region.outer
        assert isinstance(outer, Contour), "a panel is a contour"
        across, up = _CORNER_AT[cut.corner]
        place = (across * standing.width, up * standing.height)
        at = [i for i, vertex in enumerate(outer.vertices) if vertex.point == place]
        if not at:
            raise BadGeometry(
                f"The {cut.corner} corner of {part.title} belongs to a joint.",
                fix="Choose a corner without a joint.",
                field=field,
            )
        try:
            size = positive_mm(cut.size.mm(names), field, "The corner's size")
            region = Region((rounded if cut.shape == "round" else chamfered)(outer, size, at))
        except NotchError as error:
            error.field = field
            raise
    return region


def _stand(design: Design, part: Part, names: dict[str, float]) -> Standing:
    def size(typed: Length, what: str) -> float:
        field = design.chosen_behind(typed)
        try:
            return positive_mm(typed.mm(names), field, f"The {what} of {part.title}", LARGEST_PANEL_MM)
        except NotchError as error:
            raise error.at(field) from None

    width, height = size(part.panel.width, "width"), size(part.panel.height, "height")
    return stand(part.pose, width, height, names)


def _check_inside(names: dict[str, float]) -> None:
    """A box whose walls are thicker than itself is refused where its size was given."""
    for side in ("width", "depth", "height"):
        outside, inside = names.get(f"outside_{side}"), names.get(f"inside_{side}")
        if outside is not None and inside is not None and inside <= 0 < outside:
            raise ThicknessTooLarge(
                f"{say_mm(outside)} outside leaves {say_mm(inside)} inside a board of {say_mm(names['thickness'])}.",
                fix=f"Give a {side} of more than {say_mm(outside - inside)}, or use a thinner board.",
                field=side,
            )


def _check_depths(design: Design, part: Part, standing: Standing, notches: dict[Side, tuple[Notch, ...]]) -> None:
    def deepest(side: Side) -> float:
        return max((notch.depth for notch in notches.get(side, ())), default=0.0)

    for size, typed, depth in (
        (standing.width, part.panel.width, deepest("left") + deepest("right")),
        (standing.height, part.panel.height, deepest("bottom") + deepest("top")),
    ):
        if depth >= size:
            raise ThicknessTooLarge(
                f"The boards that meet {part.title} take {say_mm(depth)} of its {say_mm(size)}.",
                fix=f"Make {part.title} larger than {say_mm(depth)} there, or use a thinner board.",
                field=design.chosen_behind(typed),
            )


def _with_holes(part: Part, region: Region, names: dict[str, float]) -> Region:
    if not part.holes:
        return region
    from ..geometry.linking import lies_within
    from ..geometry.segments import segments_of_rings

    around, _ = segments_of_rings([region.outer], [0])
    holes: list[Circle] = []
    for index, hole in enumerate(part.holes):
        field = f"{part.id}.holes[{index}]"
        x, y = hole.x.mm(names), hole.y.mm(names)
        diameter = positive_mm(hole.diameter.mm(names), field, "The hole's diameter")
        circle = Circle(x, y, diameter / 2, hole=True)
        clash = any(((x - o.x) ** 2 + (y - o.y) ** 2) ** 0.5 <= o.radius + diameter / 2 for o in holes)
        if clash or not lies_within(circle, region.outer) or around.nearest((x, y)) <= diameter / 2:
            raise BadGeometry(
                f"The hole of {say_mm(diameter)} at {say_mm(x)}, {say_mm(y)} in {part.title} "
                f"{'touches another hole' if clash else 'does not lie inside its outline'}.",
                fix="Move it or make it smaller.",
                field=field,
            )
        holes.append(circle)
    return Region(region.outer, tuple(holes))
