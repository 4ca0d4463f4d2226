"""A step's shape as drawn on the part: in, the step and its lengths in mm; out, exact regions and lines, every copy.

Nothing here knows what the shape will do to the part.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

from ..design import Around, Disc, Grid, Imported, Lettering, Line, OtherPart, Outline, Rectangle, ShapeStep
from ..errors import NotchError, OutOfRange
from ..geometry import Circle, Contour, Motion, Point, Region, Segment, Trace, Vertex, grid, rectangle, round_about
from ..geometry.corners import rounded
from ..geometry.transform import scaled_region, scaled_trace
from ..lettering import SINGLE_STROKE, bridged, lettered
from ..limits import check_part_work
from ..operations import OPERATIONS
from ..units import positive_mm, say_mm

LARGEST_MM = 20_000.0
Lengths = Mapping[str, float]


@dataclass(frozen=True)
class Drawn:
    """`edges` and `corners` are named within the step, of its first copy; `steep` is where a bridge meets a slanted wall."""

    regions: tuple[Region, ...] = ()
    traces: tuple[Trace, ...] = ()
    edges: tuple[tuple[str, Segment], ...] = ()
    corners: tuple[tuple[str, Point], ...] = ()
    steep: Point | None = None


def draw(step: ShapeStep, lengths: Lengths, thickness: float, title: str, source: Sequence[Region] = ()) -> Drawn:
    """All copies of a step's shape, `source` being the outlines of a shape that comes from elsewhere.

    `lengths` are those of the step by their path in it ("x", "shape/width"). Raises NotchError at that path.
    """
    return _draw(step, tuple(lengths.items()), thickness, title, tuple(source))


# The same step on the same lengths is the same drawing: an edit changes few of them.
@lru_cache(maxsize=2048)
def _draw(
    step: ShapeStep, lengths: tuple[tuple[str, float], ...], thickness: float, title: str, source: tuple[Region, ...]
) -> Drawn:
    at = dict(lengths)
    one = _alone(step, at, thickness, source)
    if step.scale != 1:
        one = _scaled(one, step.scale)
    place = Motion(at["x"], at["y"], step.turn, step.mirrored)
    one = Drawn(
        tuple(map(place.region, one.regions)), tuple(map(place.trace, one.traces)),
        tuple((name, place.segment(edge)) for name, edge in one.edges),
        tuple((name, place.point(corner)) for name, corner in one.corners),
        place.point(one.steep) if one.steep else None,
    )  # fmt: skip
    places = _places(step, at)
    if len(places) == 1:
        return one
    segments = sum(len(ring.segments) for region in one.regions for ring in region.rings)
    segments += sum(len(trace.vertices) for trace in one.traces)
    check_part_work(segments * len(places), 0, title, "pattern")
    return Drawn(
        tuple(there.region(region) for there in places for region in one.regions),
        tuple(there.trace(trace) for there in places for trace in one.traces),
        one.edges, one.corners, one.steep,
    )  # fmt: skip


def _places(step: ShapeStep, at: Lengths) -> list[Motion]:
    pattern = step.pattern
    if isinstance(pattern, Around):
        centre = (at["pattern/x"], at["pattern/y"])
        return list(round_about(centre, pattern.count, pattern.sweep))
    if not isinstance(pattern, Grid):
        return [Motion()]
    dx, dy = at["pattern/dx"], at["pattern/dy"]
    for count, apart, name, what in ((pattern.columns, dx, "dx", "column"), (pattern.rows, dy, "dy", "row")):
        if count > 1 and apart == 0:
            raise OutOfRange(
                f"{count} {what}s lie on one another.", fix=f"Type the {what} spacing.", field=f"pattern/{name}"
            )
    return list(grid(pattern.columns, pattern.rows, dx, dy))


def _alone(step: ShapeStep, at: Lengths, thickness: float, source: tuple[Region, ...]) -> Drawn:
    """One copy, before it is scaled, turned and moved."""
    shape = step.shape
    if isinstance(shape, Rectangle):
        return _rectangle(at)
    if isinstance(shape, Disc):
        diameter = positive_mm(at["shape/diameter"], "shape/diameter", "The diameter", LARGEST_MM)
        circle = Circle(0.0, 0.0, diameter / 2)
        return Drawn((Region(circle),))
    if isinstance(shape, Outline):
        return _outline(shape, at)
    if isinstance(shape, Line):
        end = (at["shape/to_x"] - at["x"], at["shape/to_y"] - at["y"])
        if end == (0.0, 0.0):
            raise OutOfRange("The line has no length.", fix="Give it another end.", field="shape/to_x")
        return Drawn((), (Trace((Vertex(0.0, 0.0), Vertex(*end))),))
    if isinstance(shape, Lettering):
        return _lettering(step, shape, at, thickness)
    assert isinstance(shape, Imported | OtherPart)
    edges = [segment for region in source for ring in region.rings for segment in ring.segments]
    return Drawn(
        source, (), tuple((f"e{i}", edge) for i, edge in enumerate(edges, 1)),
        tuple((f"e{i}", edge.start) for i, edge in enumerate(edges, 1)),
    )  # fmt: skip


def _rectangle(at: Lengths) -> Drawn:
    width = positive_mm(at["shape/width"], "shape/width", "The width", LARGEST_MM)
    height = positive_mm(at["shape/height"], "shape/height", "The height", LARGEST_MM)
    radius = at.get("shape/radius", 0.0)
    if radius < 0:
        raise OutOfRange(f"The radius is {say_mm(radius)}.", fix="Give 0 mm or more.", field="shape/radius")
    ring = rectangle(0.0, 0.0, width, height)
    sides = zip(("bottom", "right", "top", "left"), ring.segments, strict=True)
    corners = zip(("bottom-left", "bottom-right", "top-right", "top-left"), ring.vertices, strict=True)
    try:
        shown = rounded(ring, radius)
    except NotchError as error:
        error.field = "shape/radius"
        raise
    return Drawn((Region(shown),), (), tuple(sides), tuple((name, corner.point) for name, corner in corners))


def _outline(shape: Outline, at: Lengths) -> Drawn:
    from ..geometry.boolean import filled

    vertices = tuple(
        Vertex(at[f"shape/nodes/{node.id}/x"], at[f"shape/nodes/{node.id}/y"], node.bulge) for node in shape.nodes
    )
    try:
        ring = Contour(vertices)
        regions = filled([ring])
    except NotchError as error:
        raise error.at("shape/nodes") from None
    names = [node.id for node in shape.nodes]
    if len(regions) != 1 or regions[0].holes:
        raise OutOfRange(
            "The outline does not go round one area.", fix="Order its nodes once round, without crossing.",
            field="shape/nodes",
        )  # fmt: skip
    return Drawn(
        tuple(regions), (), tuple(zip(names, ring.segments, strict=True)),
        tuple((name, vertex.point) for name, vertex in zip(names, vertices, strict=True)),
    )  # fmt: skip


def _lettering(step: ShapeStep, shape: Lettering, at: Lengths, thickness: float) -> Drawn:
    if shape.font == SINGLE_STROKE and (step.does != "mark" or step.operation == "pocket"):
        what = OPERATIONS[step.operation].lower() if step.does == "mark" else f"shape to {step.does}"
        raise OutOfRange(
            f"Single-stroke letters cannot be a {what}: they go round nothing.",
            fix="Score or engrave along them, or choose an outline font.",
            field="shape/font",
        )
    try:
        drawn = lettered(shape.text, shape.font, at["shape/height"], shape.align)
    except NotchError as error:
        error.field = f"shape/{error.field}"
        raise
    traces = tuple(Trace(tuple(Vertex(*point) for point in stroke)) for stroke in drawn.strokes)
    bridge = at.get("shape/bridge", thickness)
    if step.does != "cut" or bridge <= 0:
        return Drawn(drawn.regions, traces)
    # Narrower than the board is thick, a bridge breaks. Common practice.
    held = bridged(drawn.regions, max(bridge, thickness))
    return Drawn(held.cut, traces, steep=held.steep[0] if held.steep else None)


def _scaled(one: Drawn, factor: float) -> Drawn:
    return Drawn(
        tuple(scaled_region(region, factor) for region in one.regions),
        tuple(scaled_trace(trace, factor) for trace in one.traces),
        tuple((name, scaled_edge(edge, factor)) for name, edge in one.edges),
        tuple((name, (x * factor, y * factor)) for name, (x, y) in one.corners),
        one.steep and (one.steep[0] * factor, one.steep[1] * factor),
    )


def scaled_edge(edge: Segment, factor: float) -> Segment:
    """An edge larger by `factor`, about the origin."""
    (ax, ay), (bx, by), bulge = edge
    return Segment((ax * factor, ay * factor), (bx * factor, by * factor), bulge)
