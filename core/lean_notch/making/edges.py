"""Edges that joints are made at: in, a part and what joints ask; out, its straight edges, and notches as they are drawn."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from ..design import SIDES, Part, Side, Step
from ..geometry import Contour, Region, Segment, Vertex, loops
from ..ground.remembered import by_value
from ..joints.mate import Line, rising, ways
from ..joints.mate import Notch as EdgeNotch
from ..lengths.length import Length
from ..steps.corner import NEAR_MM
from .outline import Notch, Notches, can_be_drawn

_BESIDE_MM = 1e-3
_COARSE_MM = 0.01


def as_region(line: Line, notch: EdgeNotch) -> Region:
    """A notch or a tab as the rectangle that it is."""
    (x0, y0), (ux, uy) = rising(line)[0], ways(rising(line))[0]
    left = 1.0 if rising(line) == line else -1.0
    low, high = sorted((0.0, left * notch.depth))
    places = ((notch.start, low), (notch.end, low), (notch.end, high), (notch.start, high))
    return Region(Contour(tuple(Vertex(x0 + s * ux - d * uy, y0 + s * uy + d * ux) for s, d in places)))


def straight_edges(edges: Mapping[str, Segment], regions: Sequence[Region], cuts: Sequence[Region]) -> dict[str, Line]:
    """Of a part's edges by name, the straight ones that the outline of `regions` less `cuts` still has, each with the part's
    material to its left."""
    import numpy as np
    import shapely

    named = [(name, edge) for name, edge in edges.items() if edge.bulge == 0 and edge.length > NEAR_MM]
    if not named:
        return {}
    shape = shapely.union_all(
        [shapely.Polygon(*loops(region, _COARSE_MM)) for region in regions]
    ).difference(shapely.union_all([shapely.Polygon(*loops(region, _COARSE_MM)) for region in cuts]))  # fmt: skip
    ends = np.array([(edge.start, edge.end) for _, edge in named])
    way = ends[:, 1] - ends[:, 0]
    left = np.stack([-way[:, 1], way[:, 0]], axis=1) / np.hypot(*way.T)[:, None]
    kept = np.zeros(len(named), np.int64)
    shapely.prepare(shape)
    for share in (0.5, 0.25, 0.75, 0.05, 0.95):
        middle = ends[:, 0] + share * way
        sides = [shapely.contains_xy(shape, *(middle + sign * _BESIDE_MM * left).T).astype(int) for sign in (1, -1)]
        kept = np.where(kept == 0, sides[0] - sides[1], kept)
    found: dict[str, Line] = {}
    for (name, edge), sense in zip(named, kept.tolist(), strict=True):
        if sense:
            found[name] = (edge.start, edge.end) if sense > 0 else (edge.end, edge.start)
    return found


def length_of(step: Step, path: str, names: Mapping[str, float]) -> float:
    typed = dict(step.lengths)[path]
    assert isinstance(typed, Length), "asked of lengths"
    return typed.mm(names)


def blank_lines(part: Part, names: Mapping[str, float]) -> dict[str, Line]:
    """The four edges of the rectangle that a part starts from, counter-clockwise. Raises NotchError at its sizes."""
    blank = part.blank
    assert blank, "asked of parts with a blank"
    return sides_of(blank.id, *(length_of(blank, path, names) for path in ("shape/width", "shape/height")))


def sides_of(step: str, width: float, height: float) -> dict[str, Line]:
    """The edges of a rectangle as that step names them."""
    corners = ((0.0, 0.0), (width, 0.0), (width, height), (0.0, height))
    return {f"{step}.{side}": (corners[i], corners[(i + 1) % 4]) for i, side in enumerate(SIDES)}


def blank_notches(part: Part, notches: Sequence[EdgeNotch], names: Mapping[str, float]) -> Notches | None:
    """Notches by the blank's side, as its outline is drawn with them; None where it cannot be drawn in one go."""
    if not takes_notches(part):
        return None
    blank = part.blank
    assert blank, "a part that takes notches has one"
    sides: dict[str, Side] = {f"{blank.id}.{side}": side for side in SIDES}
    some: dict[Side, list[Notch]] = {}
    for edge, start, end, depth in notches:
        if edge not in sides:
            return None
        some.setdefault(sides[edge], []).append(Notch(start, end, depth))
    found = {side: tuple(sorted(mine)) for side, mine in some.items()}
    if found:
        width, height = (length_of(blank, path, names) for path in ("shape/width", "shape/height"))
        if not _drawable(width, height, tuple(found.items())):
            return None
    return found


@by_value(1024)
def _drawable(width: float, height: float, notches: tuple[tuple[Side, tuple[Notch, ...]], ...]) -> bool:
    return can_be_drawn(width, height, dict(notches))


def takes_notches(part: Part) -> bool:
    """Whether a joint's notches can be drawn into the blank's outline at once, since nothing is added to it later."""
    rest = [step for step in part.steps if step.on][1:]
    return part.blank is not None and not any(step.redraws for step in rest)
