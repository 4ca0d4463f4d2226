"""A part from its steps: in, the part, its lengths in mm and what its joints take; out, what is left, and what was marked.

A step that fails leaves what the steps before it made. What is cut is taken away at the end, all at once, unless a step
in between needs it done.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from ..design import (
    BendStep,
    CornerStep,
    Design,
    GrowStep,
    Imported,
    Lettering,
    MirrorStep,
    OtherPart,
    Part,
    RepeatStep,
    ShapeStep,
    Side,
    Step,
    TurnStep,
)
from ..documents import codec
from ..geometry import (
    Box,
    Motion,
    Region,
    Trace,
    Vertex,
)
from ..ground.errors import BadGeometry, CircularParts, NotchError, OutOfRange
from ..ground.findings import Finding
from ..ground.operations import OPERATIONS
from ..ground.remembered import Remembered, by_value
from ..ground.wording import capital
from ..joints.mate import Notch as EdgeNotch
from ..joints.mate import Pocket
from ..lengths.length import positive_mm
from ..lengths.said import say_mm
from .brought import Outlines, as_wide, findings_of_file, said_of_file
from .carve import MOST_SINGLE, as_one, box_of_all, carve, check_cuts, combined
from .corner_steps import make_corners
from .edges import as_region, blank_notches, straight_edges
from .flat import FailedStep, FlatMark, Making
from .letters import letters_lost
from .outline import Notch, Notches, outline
from .shapes import LARGEST_MM, Drawn, draw, placed
from .step_titles import title_of
from .whole_part import grow, mirror_all, repeat, turn


@dataclass(frozen=True)
class Asked:
    """What joints want of a part, at one of its placements."""

    notches: tuple[EdgeNotch, ...] = ()
    cuts: tuple[Region, ...] = ()
    adds: tuple[Region, ...] = ()
    pockets: tuple[Pocket, ...] = ()


NOTHING = Asked()


@dataclass(frozen=True)
class Shop:
    """What parts are made with: the design, its lengths by board, the boards' thicknesses, and files' outlines."""

    design: Design
    names: Mapping[str, Mapping[str, float]]
    outlines: Outlines

    def given(self, part: Part) -> tuple[object, ...]:
        """All that decides what a part is before joints: the same of it, and it is the same part."""
        names = self.names[part.board]
        values = tuple([names.get(name) for name in part.names])
        return (part, values, self.outlines, self.design if part.made_of_others else None)


def make_part(part: Part, shop: Shop, asked: Asked = NOTHING, stack: tuple[str, ...] = ()) -> Making:
    """`part` as its steps make it, with what joints want of it. Raises NotchError if nothing came of its first step."""
    names = shop.names[part.board]
    notches = blank_notches(part, asked.notches, names)
    steps = tuple([step for step in part.steps if step.on])
    given = (
        part.id,
        part.title,
        names["thickness"],
        shop.given(part)[1:],
        tuple(sorted((notches or {}).items())),
        notches is None,
    )
    known, making = _as_far_as_known(steps, given)
    stops = _stops(len(steps))
    for number, step in enumerate(steps[known:], known):
        if number in stops and number > known:
            _MADE.keep((*steps[:number], *given), making.copy())
        path = f"parts/{part.id}/steps/{step.id}"
        before = making.copy()
        try:
            if notches is not None and step is part.blank:
                _start(making, step, names, notches)
            else:
                _take(making, part, step, shop, names, stack)
        except NotchError as error:
            error.field = _within(path, error.field)
            if not before.regions:
                raise
            making = before
            making.failed = FailedStep(step.id, error)
            making.findings.append(
                Finding(
                    "step-failed", "stop", f"“{title_of(step)}” of {part.title} fails: {error.why}", error.fix, part.id,
                    place=_middle(making.regions), field=error.field,
                )
            )  # fmt: skip
            break
    if not making.regions:
        raise BadGeometry(
            f"{part.title} has no outline.", fix="Add a step that makes one: a rectangle, a disc, an outline.",
            field=f"parts/{part.id}/steps",
        )  # fmt: skip
    if notches is None:
        _notch(making, asked.notches)
    if asked.adds:
        carve(making)
        making.regions = combined(making.regions, asked.adds, "union")
    making.cuts += asked.cuts
    return making


_MADE: Remembered[Making] = Remembered(1024, lambda made: len(made.measured) + len(made.cuts), 300_000)
"""Parts as some of their steps left them: most edits change one of the last."""


def _stops(count: int) -> tuple[int, ...]:
    """After how many steps a part is remembered: now and then, and before the last."""
    return (*range(0, count, max(16, count // 8)), count - 1)


def _as_far_as_known(steps: tuple[Step, ...], given: tuple[object, ...]) -> tuple[int, Making]:
    """How many of the steps need not be done again, and what they made."""
    for number in reversed(_stops(len(steps))):
        found = _MADE.find((*steps[:number], *given)) if number > 0 else None
        if found:
            return number, found.copy()
    return 0, Making()


def _notch(making: Making, notches: Sequence[EdgeNotch]) -> None:
    """What joints take at edges that are not drawn with them: tabs are added last, so that no cut of the part takes them."""
    if not notches:
        return
    wanted = {notch.edge for notch in notches}
    some = {name: edge for name, edge in making.edges.items() if name in wanted}
    lines = straight_edges(some, making.regions, making.cuts)
    shapes = [(notch.depth, as_region(lines[notch.edge], notch)) for notch in notches if notch.edge in lines]
    making.cuts += [region for depth, region in shapes if depth > 0]
    tabs = [region for depth, region in shapes if depth < 0]
    if tabs:
        carve(making)
        making.regions = combined(making.regions, tabs, "union")


@by_value(1024)
def _panel(width: float, height: float, notches: tuple[tuple[Side, tuple[Notch, ...]], ...]) -> Region:
    return Region(outline(width, height, dict(notches)))


def _start(making: Making, step: Step, names: Mapping[str, float], notches: Notches) -> None:
    """The blank with its notches, drawn in one go: no boolean, so no stray corner."""
    assert isinstance(step, ShapeStep)
    at = step.mm(names)
    drawn = draw(step, at, names["thickness"], title_of(step))
    making.regions = [_panel(at["shape/width"], at["shape/height"], tuple(sorted(notches.items())))]
    _name(making, step, drawn)


def _take(
    making: Making, part: Part, step: Step, shop: Shop, names: Mapping[str, float], stack: tuple[str, ...]
) -> None:
    at = step.mm(names)
    if isinstance(step, ShapeStep):
        _shape(making, part, step, at, shop, names["thickness"], stack)
    elif isinstance(step, CornerStep):
        make_corners(making, step, at["size"])
    elif isinstance(step, RepeatStep):
        repeat(making, part, step, at)
    elif isinstance(step, GrowStep):
        grow(making, at["by"], part, f"parts/{part.id}/steps/{step.id}/by")
    elif isinstance(step, MirrorStep):
        mirror_all(making, step, at)
    elif isinstance(step, TurnStep):
        turn(making, at)
    else:
        _bend(making, part, step, at)


def _shape(
    making: Making, part: Part, step: ShapeStep, at: dict[str, float], shop: Shop, thickness: float,
    stack: tuple[str, ...],
) -> None:  # fmt: skip
    title = title_of(step)
    source = _source(making, part, step, at, shop, stack)
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
    if lost := letters_lost(step, drawn.lost, at, thickness, title, part.id):
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
                "Look at it closely; another font or a wider bridge may hold better.", part.id, place=drawn.steep,
            )
        )  # fmt: skip
    if step.does == "mark" or (step.does == "cut" and step.side in ("outside", "on")):
        _mark(making, part, step, at, thickness, drawn.regions, drawn.traces)
        _point_at(making, drawn)
        return
    if step.does == "cut":
        if len(drawn.regions) > MOST_SINGLE:
            check_cuts((*making.cuts, *drawn.regions), part.title)
        _check_over(making, part, drawn.regions, title)
        making.cuts += drawn.regions
        making.openings.append(_opening(part, step, drawn.regions))
    else:
        carve(making)
        how = "union" if step.does == "add" else "intersection"
        made = list(drawn.regions)
        making.regions = (
            combined(making.regions, made, how) if making.regions or how == "intersection" else as_one(made)
        )
        if not making.regions:
            raise BadGeometry(f"Nothing is left after {title}.", fix="Move it over the part.")
    _name(making, step, drawn)


def _turned_over(box: Box) -> Motion:
    """From the back as it is looked at to where that is seen through the front, and the other way round."""
    return Motion(box[0] + box[2], 0.0, 0.0, mirrored=True)


def _source(
    making: Making, part: Part, step: ShapeStep, at: Mapping[str, float], shop: Shop, stack: tuple[str, ...]
) -> Sequence[Region]:  # fmt: skip
    shape = step.shape
    if isinstance(shape, Imported):
        try:
            brought = shop.outlines(shape)
        except NotchError as error:
            error.field = error.field or "shape/file"
            raise
        making.notes.append((step.id, said_of_file(brought)))
        making.findings += findings_of_file(part, step, brought)
        return as_wide(brought.regions, at.get("shape/width"))
    if not isinstance(shape, OtherPart):
        return ()
    if shape.part in (part.id, *stack):
        raise CircularParts(
            f"{part.title} would be made of itself.",
            fix="Choose a part that is not made of this one.",
            field="shape/part",
        )
    other = shop.design.part(shape.part)
    if other is None:
        raise OutOfRange(f"There is no part “{shape.part}”.", fix="Choose one that there is.", field="shape/part")
    made = make_part(other, shop, stack=(*stack, part.id))
    if made.failed:
        raise OutOfRange(
            f"{other.title} cannot be made: {made.failed.error.why}", fix="Mend it first.", field="shape/part"
        )
    carve(made)
    return tuple(made.regions)


def _check_over(making: Making, part: Part, regions: Sequence[Region], title: str) -> None:
    """A cut that lies beside the part is a slip."""
    boxes = [region.box for region in making.regions]
    for region in regions:
        a, b, c, d = region.box
        if not any(a < right and c > left and b < high and d > low for left, low, right, high in boxes):
            raise BadGeometry(
                f"{title} at {say_mm(a)}, {say_mm(b)} lies beside {part.title}.", fix="Move it onto the part."
            )


def _mark(
    making: Making, part: Part, step: ShapeStep, at: dict[str, float], thickness: float,
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
            f"There is nothing of {part.title} to mark yet.",
            fix="Put a step before it that adds to the part.",
            field="does",
        )
    title = f"“{step.shape.text}”" if isinstance(step.shape, Lettering) else title_of(step)
    path = f"parts/{part.id}/steps/{step.id}"
    depth = _pocket_depth(at, thickness) if operation == "pocket" else 0.0
    mark = FlatMark(step.id, title, operation, regions, traces, step.side, path, depth, step.face == "back")
    left, low, right, high = box_of_all(making.regions)
    for shape in mark.shapes if operation in ("pocket", "fold") else ():  # of other marks `marks_on` tells more
        a, b, c, d = shape.box
        if a < left or b < low or c > right or d > high:
            making.findings.append(
                Finding(
                    "off-part", "look", f"{capital(title)} on {part.title} goes beyond its edge.",
                    "Move it inside the part, or leave it if that is meant.", part.id,
                    place=((a + c) / 2, (b + d) / 2), field=path,
                )
            )  # fmt: skip
            break
    making.marks.append(mark)


def _opening(part: Part, step: ShapeStep, regions: tuple[Region, ...]) -> FlatMark:
    return FlatMark(step.id, title_of(step), "cut", regions, (), step.side, f"parts/{part.id}/steps/{step.id}")


def _pocket_depth(at: Mapping[str, float], thickness: float) -> float:
    depth = positive_mm(at.get("depth", 0.0), "depth", "The pocket's depth", LARGEST_MM)
    if depth >= thickness:
        raise OutOfRange(
            f"A pocket of {say_mm(depth)} goes through a board of {say_mm(thickness)}.",
            fix=f"Stay above {say_mm(thickness)}, or cut it through.",
            field="depth",
        )
    return depth


def _bend(making: Making, part: Part, step: BendStep, at: Mapping[str, float]) -> None:
    ends = (Vertex(at["x"], at["y"]), Vertex(at["to_x"], at["to_y"]))
    if ends[0] == ends[1]:
        raise OutOfRange("The bend line has no length.", fix="Give it another end.", field="to_x")
    path = f"parts/{part.id}/steps/{step.id}"
    making.marks.append(FlatMark(step.id, title_of(step), "fold", (), (Trace(ends),), "auto", path))


def _name(making: Making, step: ShapeStep, drawn: Drawn) -> None:
    """What a step drew can be joined, rounded and measured from."""
    making.edges |= {f"{step.id}.{name}": edge for name, edge in drawn.edges}
    making.corners |= {f"{step.id}.{name}": corner for name, corner in drawn.corners}
    _point_at(making, drawn)


def _point_at(making: Making, drawn: Drawn) -> None:
    if drawn.named:
        making.named.append(drawn.named)


def _middle(regions: Sequence[Region]) -> tuple[float, float]:
    left, low, right, high = box_of_all(regions)
    return ((left + right) / 2, (low + high) / 2)


def _within(path: str, field: str) -> str:
    return field if field.startswith("parts/") else codec.join(path, field) if field else path
