"""Design + basis in; flat parts at finished size and their mates out. The kerf is not in it."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass
from functools import lru_cache

from ..basis import Basis
from ..design import Design, Part, Side
from ..errors import BadGeometry, NotchError, ThicknessTooLarge
from ..geometry import Circle, Region
from ..units import Length, positive_mm, say_mm
from .mates import Mate, make_mates
from .outline import Notch, outline
from .stand import Standing, stand

LARGEST_PANEL_MM = 20_000.0


@dataclass(frozen=True)
class FlatPart:
    """One kind of part, flat, at finished size, lower left corner of its panel at the origin."""

    id: str
    title: str
    region: Region
    quantity: int
    standing: Standing


@dataclass(frozen=True)
class Build:
    """What a design is on this basis. `names` are all its lengths in mm, by name."""

    parts: tuple[FlatPart, ...]
    mates: tuple[Mate, ...]
    names: dict[str, float]

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
    for mate in mates:
        notches[mate.first.part][mate.first.side] = mate.notches(mate.first)
        notches[mate.second.part][mate.second.side] = mate.notches(mate.second)
    parts = []
    for part in design.parts:
        standing = standings[part.id]
        _check_depths(design, part, standing, notches[part.id])
        region = _panel(standing.width, standing.height, tuple(sorted(notches[part.id].items())))
        parts.append(FlatPart(part.id, part.title, _with_holes(part, region, names), part.quantity, standing))
    return Build(tuple(parts), mates, names)


# An edit seldom changes every part: the others' outlines are at hand, with all that is known of them.
@lru_cache(maxsize=1024)
def _panel(width: float, height: float, notches: tuple[tuple[Side, tuple[Notch, ...]], ...]) -> Region:
    return Region(outline(width, height, dict(notches)))


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
    import shapely

    outer = shapely.Polygon([vertex.point for vertex in region.outer.vertices])  # type: ignore[union-attr]
    holes: list[Circle] = []
    for index, hole in enumerate(part.holes):
        field = f"{part.id}.holes[{index}]"
        x, y = hole.x.mm(names), hole.y.mm(names)
        diameter = positive_mm(hole.diameter.mm(names), field, "The hole's diameter")
        place = shapely.Point(x, y)
        clash = any(((x - o.x) ** 2 + (y - o.y) ** 2) ** 0.5 <= o.radius + diameter / 2 for o in holes)
        if clash or not outer.contains(place) or outer.exterior.distance(place) <= diameter / 2:
            raise BadGeometry(
                f"The hole of {say_mm(diameter)} at {say_mm(x)}, {say_mm(y)} in {part.title} "
                f"{'touches another hole' if clash else 'does not lie inside its outline'}.",
                fix="Move it or make it smaller.",
                field=field,
            )
        holes.append(Circle(x, y, diameter / 2, hole=True))
    return Region(region.outer, tuple(holes))
