"""A part from its steps: in, the part, its lengths in mm and what its joints take; out, what is left, and what was marked.

A step that fails leaves what the steps before it made. What is cut is taken away at the end, all at once, unless a step
in between needs it done.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import partial

from ..design import Design, Part, ShapeStep, Side, Step
from ..documents import codec
from ..geometry import Region
from ..ground.errors import BadGeometry, CircularParts, NotchError, OutOfRange
from ..ground.findings import Finding
from ..ground.remembered import Remembered, by_value
from ..joints.mate import Notch as EdgeNotch
from ..joints.mate import Pocket
from ..steps import Given, title_of
from ..steps.being_made import FailedStep, Making
from ..steps.brought import Outlines
from ..steps.carve import box_of_all, carve, combined
from ..steps.drawing import draw
from ..steps.shape_made import name_drawn
from .edges import as_region, blank_notches, straight_edges
from .outline import Notch, Notches, outline


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
    about = Given(
        part.id, part.title, names["thickness"], shop.outlines, partial(_other, of=part, shop=shop, stack=stack)
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
                step.take(making, step.mm(names), about)
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
    name_drawn(making, step, drawn)


def _other(part_id: str, of: Part, shop: Shop, stack: tuple[str, ...]) -> tuple[Region, ...]:
    """The outlines of another part that this one is made of."""
    if part_id in (of.id, *stack):
        raise CircularParts(
            f"{of.title} would be made of itself.", fix="Choose a part that is not made of this one.", field="shape/part"
        )  # fmt: skip
    other = shop.design.part(part_id)
    if other is None:
        raise OutOfRange(f"There is no part “{part_id}”.", fix="Choose one that there is.", field="shape/part")
    made = make_part(other, shop, stack=(*stack, of.id))
    if made.failed:
        raise OutOfRange(
            f"{other.title} cannot be made: {made.failed.error.why}", fix="Mend it first.", field="shape/part"
        )
    carve(made)
    return tuple(made.regions)


def _middle(regions: Sequence[Region]) -> tuple[float, float]:
    left, low, right, high = box_of_all(regions)
    return ((left + right) / 2, (low + high) / 2)


def _within(path: str, field: str) -> str:
    return field if field.startswith("parts/") else codec.join(path, field) if field else path
