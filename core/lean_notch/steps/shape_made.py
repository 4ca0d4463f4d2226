"""What a step with a shape makes of a part: in, the part so far, the step and its numbers; the part is changed."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import TYPE_CHECKING

from ..geometry import Box, Motion, Region, Trace
from ..ground.errors import BadGeometry, NotchError, OutOfRange
from ..ground.findings import Finding
from ..ground.operations import OPERATIONS
from ..ground.wording import capital
from ..lengths.length import positive_mm
from ..lengths.said import say_mm
from .being_made import FlatMark, Making
from .brought import as_wide, findings_of_file, said_of_file
from .carve import MOST_SINGLE, as_one, box_of_all, carve, check_cuts, combined
from .drawing import LARGEST_MM, Drawn, draw, placed
from .letters import letters_lost
from .shapes import Imported, Lettering, OtherPart
from .titles import title_of

if TYPE_CHECKING:
    from .kind import Given
    from .shape import ShapeStep


def made(making: Making, step: ShapeStep, at: Mapping[str, float], given: Given) -> None:
    title, thickness = title_of(step), given.thickness
    source = _source(making, step, at, given)
    ends = box_of_all(making.regions) if making.regions else None
    over = _turned_over(ends) if step.face == "back" and ends else None
    # What is on the back is placed as that side is looked at: what is measured from lies mirrored there too.
    known = [one.moved(over) for one in making.named] if over else making.named
    at, where = placed(step, at, thickness, title, known, ends, source)
    drawn = draw(step, at, thickness, title, source)
    if over:
        drawn = drawn.moved(over)
        drawn = replace(drawn, named=drawn.named and replace(drawn.named, turned=over.x))
    making.measured += (
        [replace(one, start=over.point(one.start), end=over.point(one.end)) for one in where.measured]
        if over
        else where.measured
    )
    if lost := letters_lost(step, drawn.lost, at, thickness, title, given.part):
        making.findings.append(lost)
        if not drawn.regions:
            return
    if step.does != "mark" and not drawn.regions:
        raise OutOfRange(
            f"{title} goes round nothing.",
            fix="Mark along it, or choose a shape that goes round an area.",
            field="does",
        )
    if drawn.steep:
        making.findings.append(
            Finding(
                "bridge-askew", "look", f"A bridge in {title} meets a slanted wall.",
                "Look at it closely; another font or a wider bridge may hold better.", given.part, place=drawn.steep,
            )
        )  # fmt: skip
    if step.does == "mark" or (step.does == "cut" and step.side in ("outside", "on")):
        _mark(making, step, at, given, drawn.regions, drawn.traces)
        _point_at(making, drawn)
        return
    if step.does == "cut":
        if len(drawn.regions) > MOST_SINGLE:
            check_cuts((*making.cuts, *drawn.regions), given.title)
        _check_over(making, given.title, drawn.regions, title)
        making.cuts += drawn.regions
        making.openings.append(_opening(given.part, step, drawn.regions))
    else:
        carve(making)
        how = "union" if step.does == "add" else "intersection"
        made = list(drawn.regions)
        making.regions = (
            combined(making.regions, made, how) if making.regions or how == "intersection" else as_one(made)
        )
        if not making.regions:
            raise BadGeometry(f"Nothing is left after {title}.", fix="Move it over the part.")
    name_drawn(making, step, drawn)


def _turned_over(box: Box) -> Motion:
    """From the back as it is looked at to where that is seen through the front, and the other way round."""
    return Motion(box[0] + box[2], 0.0, 0.0, mirrored=True)


def _source(making: Making, step: ShapeStep, at: Mapping[str, float], given: Given) -> Sequence[Region]:
    """The outlines of a shape that comes from elsewhere."""
    shape = step.shape
    if isinstance(shape, Imported):
        try:
            brought = given.outlines(shape)
        except NotchError as error:
            error.field = error.field or "shape/file"
            raise
        making.notes.append((step.id, said_of_file(brought)))
        making.findings += findings_of_file(given.part, given.title, step, brought)
        return as_wide(brought.regions, at.get("shape/width"))
    return given.other(shape.part) if isinstance(shape, OtherPart) else ()


def _check_over(making: Making, part: str, regions: Sequence[Region], title: str) -> None:
    """A cut that lies beside the part is a slip."""
    boxes = [region.box for region in making.regions]
    for region in regions:
        a, b, c, d = region.box
        if not any(a < right and c > left and b < high and d > low for left, low, right, high in boxes):
            raise BadGeometry(f"{title} at {say_mm(a)}, {say_mm(b)} lies beside {part}.", fix="Move it onto the part.")


def _mark(
    making: Making, step: ShapeStep, at: Mapping[str, float], given: Given,
    regions: tuple[Region, ...], traces: tuple[Trace, ...],
) -> None:  # fmt: skip
    operation = "cut" if step.does == "cut" else step.operation
    if step.does == "mark" and step.operation == "cut":
        raise OutOfRange("A mark is not cut through.", fix="Choose what it does: cut.", field="does")
    if step.operation == "pocket" and step.does == "mark" and traces and not regions:
        raise OutOfRange(
            f"A line cannot be a {OPERATIONS['pocket'].lower()}: it goes round nothing.",
            fix="Score, fold or engrave along it, or use a rectangle.", field="operation",
        )  # fmt: skip
    if operation == "cut" and traces and not regions:
        raise OutOfRange(
            "A line cannot be cut out: it goes round nothing.", fix="Use a narrow rectangle.", field="does"
        )
    if not making.regions:
        raise BadGeometry(
            f"There is nothing of {given.title} to mark yet.",
            fix="Put a step before it that adds to the part.",
            field="does",
        )
    title = f"“{step.shape.text}”" if isinstance(step.shape, Lettering) else title_of(step)
    path = f"parts/{given.part}/steps/{step.id}"
    depth = _pocket_depth(at, given.thickness) if operation == "pocket" else 0.0
    mark = FlatMark(step.id, title, operation, regions, traces, step.side, path, depth, step.face == "back")
    left, low, right, high = box_of_all(making.regions)
    for shape in mark.shapes if operation in ("pocket", "fold") else ():  # of other marks `marks_on` tells more
        a, b, c, d = shape.box
        if a < left or b < low or c > right or d > high:
            making.findings.append(
                Finding(
                    "off-part", "look", f"{capital(title)} on {given.title} goes beyond its edge.",
                    "Move it inside the part, or leave it if that is meant.", given.part,
                    place=((a + c) / 2, (b + d) / 2), field=path,
                )
            )  # fmt: skip
            break
    making.marks.append(mark)


def _opening(part: str, step: ShapeStep, regions: tuple[Region, ...]) -> FlatMark:
    return FlatMark(step.id, title_of(step), "cut", regions, (), step.side, f"parts/{part}/steps/{step.id}")


def _pocket_depth(at: Mapping[str, float], thickness: float) -> float:
    depth = positive_mm(at.get("depth", 0.0), "depth", "The pocket's depth", LARGEST_MM)
    if depth >= thickness:
        raise OutOfRange(
            f"A pocket of {say_mm(depth)} goes through a board of {say_mm(thickness)}.",
            fix=f"Stay above {say_mm(thickness)}, or cut it through.",
            field="depth",
        )
    return depth


def name_drawn(making: Making, step: ShapeStep, drawn: Drawn) -> None:
    """What a step drew can be joined, rounded and measured from."""
    making.edges |= {f"{step.id}.{name}": edge for name, edge in drawn.edges}
    making.corners |= {f"{step.id}.{name}": corner for name, corner in drawn.corners}
    _point_at(making, drawn)


def _point_at(making: Making, drawn: Drawn) -> None:
    if drawn.named:
        making.named.append(drawn.named)
