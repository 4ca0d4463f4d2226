"""Marks as drawn: in, a mark of the design and the names of its lengths; out, exact shapes on the flat part."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace

from ..design import Mark
from ..errors import NotchError, OutOfRange
from ..findings import Finding
from ..geometry import Circle, Contour, Placement, Region, Trace, Vertex, grid, rectangle
from ..geometry.corners import rounded
from ..lettering import SINGLE_STROKE, bridged, lettered
from ..operations import OPERATIONS, Operation, Side
from ..units import positive_mm, say_mm

LARGEST_MM = 20_000.0


@dataclass(frozen=True)
class FlatMark:
    """What is to be done on a part besides cutting it out: areas, lines, and for pockets how deep.

    `field` is where the mark was made; through-cuts that keep their size are part of the part's own outline instead.
    """

    id: str
    title: str
    operation: Operation
    regions: tuple[Region, ...]
    traces: tuple[Trace, ...]
    side: Side
    field: str
    depth: float = 0.0


def draw_mark(mark: Mark, field: str, part: str, names: Mapping[str, float]) -> tuple[FlatMark, tuple[Finding, ...]]:
    """The mark on the flat part, all its copies, and what is to be said of it. Raises NotchError at the field."""
    try:
        one, findings = _one(mark, field, part, names)
    except NotchError as error:
        error.field = f"{field}.{error.field}" if error.field and not error.field.startswith(field) else error.field
        raise error.at(field) from None
    if mark.columns * mark.rows == 1:
        return one, findings
    dx, dy = (_length(mark, name, names, field) for name in ("dx", "dy"))
    places = list(grid(mark.columns, mark.rows, dx, dy))
    return replace(
        one,
        regions=tuple(place.region(region) for place in places for region in one.regions),
        traces=tuple(place.trace(trace) for place in places for trace in one.traces),
    ), findings


def _one(mark: Mark, field: str, part: str, names: Mapping[str, float]) -> tuple[FlatMark, tuple[Finding, ...]]:
    at = {name: _length(mark, name, names, field) for name, _ in mark.lengths}
    title = f"“{mark.text}”" if mark.kind == "text" else mark.kind
    flat = FlatMark(mark.id, title, mark.operation, (), (), mark.side, field)
    if mark.operation == "pocket":
        flat = replace(flat, depth=_pocket_depth(at, names))
    if mark.kind == "line":
        ends = (Vertex(at["x"], at["y"]), Vertex(at["to_x"], at["to_y"]))
        if ends[0] == ends[1]:
            raise OutOfRange("The line has no length.", fix="Give it another end.", field="to_x")
        return replace(flat, traces=(Trace(ends),)), ()
    if mark.kind == "circle":
        diameter = positive_mm(at["diameter"], "diameter", "The circle's diameter", LARGEST_MM)
        return replace(flat, regions=(Region(Circle(at["x"], at["y"], diameter / 2)),)), ()
    if mark.kind == "rectangle":
        return replace(flat, regions=(Region(_rectangle(mark, at)),)), ()
    return _text(mark, flat, at, part, names)


def _rectangle(mark: Mark, at: Mapping[str, float]) -> Contour:
    width = positive_mm(at["width"], "width", "The rectangle's width", LARGEST_MM)
    height = positive_mm(at["height"], "height", "The rectangle's height", LARGEST_MM)
    ring = rectangle(0, 0, width, height)
    radius = at.get("radius", 0.0)
    if radius < 0:
        raise OutOfRange(f"The radius is {say_mm(radius)}.", fix="Give 0 mm or more.", field="radius")
    placed = Placement(at["x"], at["y"], mark.angle).ring(rounded(ring, radius))
    assert isinstance(placed, Contour)
    return placed


def _text(
    mark: Mark, flat: FlatMark, at: Mapping[str, float], part: str, names: Mapping[str, float]
) -> tuple[FlatMark, tuple[Finding, ...]]:
    place = Placement(at["x"], at["y"], mark.angle)
    single = mark.font == SINGLE_STROKE
    if single and mark.operation in ("cut", "pocket"):
        raise OutOfRange(
            f"Single-stroke letters cannot be a {OPERATIONS[mark.operation].lower()}: they go round nothing.",
            fix="Score or engrave along them, or choose an outline font.",
            field="font",
        )
    drawn = lettered(mark.text, mark.font, at["height"], mark.align)
    traces = tuple(place.trace(Trace(tuple(Vertex(*point) for point in stroke))) for stroke in drawn.strokes)
    if mark.operation != "cut":
        return replace(flat, regions=tuple(map(place.region, drawn.regions)), traces=traces), ()
    # Narrower than the board is thick, a bridge breaks. Common practice.
    width = max(at.get("bridge", 0.0), names["thickness"]) if at.get("bridge", 1.0) > 0 else 0.0
    if not width:
        return replace(flat, regions=tuple(map(place.region, drawn.regions))), ()
    held = bridged(drawn.regions, width)
    findings = tuple(
        Finding(
            "bridge-askew", "look", f"A bridge in {flat.title} meets a slanted wall.",
            "Look at it closely; another font or a wider bridge may hold better.", part, place=place.point(steep),
        )
        for steep in held.steep[:1]
    )  # fmt: skip
    return replace(flat, regions=tuple(map(place.region, held.cut))), findings


def _pocket_depth(at: Mapping[str, float], names: Mapping[str, float]) -> float:
    depth = positive_mm(at.get("depth", 0.0), "depth", "The pocket's depth", LARGEST_MM)
    if depth >= names["thickness"]:
        raise OutOfRange(
            f"A pocket of {say_mm(depth)} goes through a board of {say_mm(names['thickness'])}.",
            fix=f"Stay above {say_mm(names['thickness'])}, or make it a through-cut.",
            field="depth",
        )
    return depth


def _length(mark: Mark, name: str, names: Mapping[str, float], field: str) -> float:
    typed = mark.length(name)
    try:
        return typed.mm(names) if typed else 0.0
    except NotchError as error:
        raise error.at(f"{field}.{name}") from None


def outlines(mark: FlatMark) -> Iterator[Region | Trace]:
    yield from mark.regions
    yield from mark.traces
