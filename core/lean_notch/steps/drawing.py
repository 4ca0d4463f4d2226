"""A step's shape as drawn on the part: in, the step and its lengths in mm; out, exact regions and lines, every copy.

Nothing here knows what the shape will do to the part.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING

from ..geometry import (
    Box,
    Circle,
    Contour,
    Cubic,
    Curved,
    Motion,
    Point,
    Region,
    Segment,
    Trace,
    Vertex,
    rectangle,
)
from ..geometry.contour import join_boxes
from ..geometry.corners import rounded
from ..geometry.transform import scaled_region, scaled_trace
from ..ground.errors import NotchError, OutOfRange
from ..ground.limits import check_part_work
from ..ground.operations import OPERATIONS
from ..ground.remembered import by_value
from ..lengths.length import positive_mm
from ..lengths.said import say_mm
from ..lettering import SINGLE_STROKE, Lost, bridged, lettered
from .patterns import how_many, motions
from .place import Named, Placed, from_zero, named, place, zero_lines
from .shapes import (
    Annulus,
    Disc,
    Ellipse,
    Imported,
    Lettering,
    Line,
    OtherPart,
    Outline,
    Polygon,
    Rectangle,
    Slot,
)

if TYPE_CHECKING:
    from .shape import ShapeStep

LARGEST_MM = 20_000.0
Lengths = Mapping[str, float]


@dataclass(frozen=True)
class Drawn:
    """`edges` and `corners` are named within the step, of its first copy, as `named` has them for others; `steep` is where a
    bridge meets a slanted wall, `lost` which letters are not cut as they were asked for."""

    regions: tuple[Region, ...] = ()
    traces: tuple[Trace, ...] = ()
    edges: tuple[tuple[str, Segment], ...] = ()
    corners: tuple[tuple[str, Point], ...] = ()
    steep: Point | None = None
    named: Named | None = None
    lost: tuple[Lost, ...] = ()

    @property
    def shapes(self) -> tuple[Region | Trace, ...]:
        return (*self.regions, *self.traces)

    def moved(self, motion: Motion) -> Drawn:
        return replace(
            self, regions=tuple(map(motion.region, self.regions)), traces=tuple(map(motion.trace, self.traces)),
            edges=tuple((name, motion.segment(edge)) for name, edge in self.edges),
            corners=tuple((name, motion.point(corner)) for name, corner in self.corners),
            steep=motion.point(self.steep) if self.steep else None, named=self.named.moved(motion) if self.named else None,
        )  # fmt: skip


def placed(
    step: ShapeStep, lengths: Mapping[str, float], thickness: float, title: str, known: Sequence[Named], ends: Box | None,
    source: Sequence[Region] = (),
) -> tuple[Mapping[str, float], Placed]:  # fmt: skip
    """The step's numbers with its place worked out: where what it is measured from is (`known`, of earlier steps), and how what
    is spread lies between the part's `ends`. Raises NotchError at the field."""
    if from_zero(step):
        x, y = lengths["x"], lengths["y"]
        return lengths, Placed(x, y, None, zero_lines(step.id, x, y))
    there = {**lengths, "x": 0.0, "y": 0.0}
    alone = isinstance(step.shape, Line)
    drawn = Drawn() if alone else draw(replace(step, pattern=None), there, thickness, title, source)
    own = {name: edge.at(0.5) for name, edge in drawn.edges} | dict(drawn.corners)
    found = place(step, lengths, drawn.shapes, own, known, ends)
    pitch = {} if found.pitch is None else {"pattern/pitch": found.pitch}
    return {**lengths, "x": found.x, "y": found.y, **pitch}, found


def draw(step: ShapeStep, lengths: Lengths, thickness: float, title: str, source: Sequence[Region] = ()) -> Drawn:
    """All copies of a step's shape, `source` being the outlines of a shape that comes from elsewhere.

    `lengths` are those of the step by their path in it ("x", "shape/width"). Raises NotchError at that path.
    """
    return _draw(step, tuple(lengths.items()), thickness, title, tuple(source))


# The same step on the same lengths is the same drawing: an edit changes few of them.
@by_value(2048)
def _draw(
    step: ShapeStep, lengths: tuple[tuple[str, float], ...], thickness: float, title: str, source: tuple[Region, ...]
) -> Drawn:
    at = dict(lengths)
    one = _alone(step, at, thickness, source)
    if at["scale"] != 1:
        one = _scaled(one, at["scale"])
    move = Motion(at["x"], at["y"], at["turn"], step.mirrored)
    regions, traces = tuple(map(move.region, one.regions)), tuple(map(move.trace, one.traces))
    edges = tuple((name, move.segment(edge)) for name, edge in one.edges)
    corners = tuple((name, move.point(corner)) for name, corner in one.corners)
    boxes = [*(region.box for region in regions), *(trace.box for trace in traces)]
    steep = move.point(one.steep) if one.steep else None
    names = named(step, edges, corners, join_boxes(boxes) if boxes else None)
    one = Drawn(regions, traces, edges, corners, steep, names, one.lost)
    copies = how_many(step.pattern, at)
    if copies == 1:
        return one
    segments = sum(len(ring.segments) for region in one.regions for ring in region.rings)
    segments += sum(len(trace.vertices) for trace in one.traces)
    check_part_work(segments * copies, 0, title, "pattern")
    places = motions(step.pattern, at)
    return replace(
        one,
        regions=tuple(there.region(region) for there in places for region in one.regions),
        traces=tuple(there.trace(trace) for there in places for trace in one.traces),
    )


def _alone(step: ShapeStep, at: Lengths, thickness: float, source: tuple[Region, ...]) -> Drawn:
    """One copy, before it is scaled, turned and moved."""
    shape = step.shape
    if isinstance(shape, Rectangle):
        return _rectangle(at)
    if isinstance(shape, Disc):
        diameter = positive_mm(at["shape/diameter"], "shape/diameter", "The diameter", LARGEST_MM)
        return Drawn((Region(Circle(0.0, 0.0, diameter / 2)),))
    if isinstance(shape, Ellipse):
        return Drawn((_ellipse(at),))
    if isinstance(shape, Annulus):
        return Drawn((_annulus(at),))
    if isinstance(shape, Polygon):
        return _polygon(shape, at)
    if isinstance(shape, Slot):
        return _slot(at)
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


def _size(at: Lengths, name: str, what: str) -> float:
    return positive_mm(at[f"shape/{name}"], f"shape/{name}", what, LARGEST_MM)


_PIECES = 16
"""Cubics of an ellipse: at 22.5 degrees each leaves it by less than 1e-7 of its size."""


def _ellipse(at: Lengths) -> Region:
    across, up = _size(at, "width", "The width") / 2, _size(at, "height", "The height") / 2
    if across == up:
        return Region(Circle(0.0, 0.0, across))
    step = 2 * math.pi / _PIECES
    reach = 4 / 3 * math.tan(step / 4)

    def on(angle: float, off: float = 0.0) -> Point:
        cos, sin = math.cos(angle), math.sin(angle)
        return (across * (cos - off * sin), up * (sin + off * cos))

    # Each angle is worked out once, so that neighbours share their ends to the last bit.
    angles = [step * i for i in range(_PIECES)]
    ends = [on(angle) for angle in angles]
    pieces = tuple(
        Cubic(ends[i], on(angle, reach), on(angles[(i + 1) % _PIECES], -reach), ends[(i + 1) % _PIECES])
        for i, angle in enumerate(angles)
    )
    return Region(Curved(pieces))


def _annulus(at: Lengths) -> Region:
    outside, inside = _size(at, "diameter", "The diameter"), _size(at, "inside", "The inside diameter")
    if inside >= outside:
        raise OutOfRange(
            f"The inside, {say_mm(inside)}, is not smaller than the outside, {say_mm(outside)}.",
            fix=f"Give less than {say_mm(outside)}.", field="shape/inside",
        )  # fmt: skip
    return Region(Circle(0.0, 0.0, outside / 2), (Circle(0.0, 0.0, inside / 2),))


def _polygon(shape: Polygon, at: Lengths) -> Drawn:
    count = int(at["shape/sides"])
    across = _size(at, "across", "The size")
    radius = across / 2 if shape.measured == "corners" else across / 2 / math.cos(math.pi / count)
    first = -math.pi / 2 - math.pi / count
    places = [first + 2 * math.pi * i / count for i in range(count)]
    ring = Contour(tuple(Vertex(radius * math.cos(angle), radius * math.sin(angle)) for angle in places))
    edges = tuple((f"s{i}", edge) for i, edge in enumerate(ring.segments, 1))
    return Drawn((Region(ring),), (), edges, tuple((f"c{i}", v.point) for i, v in enumerate(ring.vertices, 1)))


def _slot(at: Lengths) -> Drawn:
    length, width = _size(at, "length", "The length"), _size(at, "width", "The width")
    if length < width:
        raise OutOfRange(
            f"The slot is {say_mm(length)} long and {say_mm(width)} wide.",
            fix=f"Give a length of at least {say_mm(width)}, or turn it.", field="shape/length",
        )  # fmt: skip
    if length == width:
        return Drawn((Region(Circle(0.0, 0.0, width / 2)),))
    x, y = (length - width) / 2, width / 2
    ring = Contour((Vertex(-x, -y), Vertex(x, -y, 1.0), Vertex(x, y), Vertex(-x, y, 1.0)))
    return Drawn((Region(ring),), (), (("bottom", ring.segments[0]), ("top", ring.segments[2])))


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
    if step.does != "cut":
        return Drawn(drawn.regions, traces)
    held = bridged(drawn.letters, bridge_width(at, thickness))
    return Drawn(held.cut, traces, steep=held.steep[0] if held.steep else None, lost=held.lost)


def bridge_width(at: Lengths, thickness: float) -> float:
    """Before the step is scaled. Narrower than the board is thick, a bridge breaks (common practice); 0: none is wanted."""
    bridge = at.get("shape/bridge", thickness)
    return max(bridge, thickness) / at["scale"] if bridge > 0 else 0.0


def _scaled(one: Drawn, factor: float) -> Drawn:
    return Drawn(
        tuple(scaled_region(region, factor) for region in one.regions),
        tuple(scaled_trace(trace, factor) for trace in one.traces),
        tuple((name, scaled_edge(edge, factor)) for name, edge in one.edges),
        tuple((name, (x * factor, y * factor)) for name, (x, y) in one.corners),
        one.steep and (one.steep[0] * factor, one.steep[1] * factor),
        lost=one.lost,
    )


def scaled_edge(edge: Segment, factor: float) -> Segment:
    """An edge larger by `factor`, about the origin."""
    (ax, ay), (bx, by), bulge = edge
    return Segment((ax * factor, ay * factor), (bx * factor, by * factor), bulge)
