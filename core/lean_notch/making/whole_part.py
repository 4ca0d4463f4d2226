"""Steps that change all that there is so far: grown, mirrored, repeated, turned and moved. In, a part being made and the step's
numbers; the part is changed."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from ..design import MirrorStep, Part, RepeatStep
from ..geometry import Motion, Region, Trace, mirror, scaled_region, scaled_trace
from ..ground.errors import BadGeometry, OutOfRange
from ..ground.findings import Finding
from ..ground.limits import check_part_work
from ..lengths.said import say_mm
from .carve import MOST_SINGLE, carve, check_cuts, combined, count
from .flat import FlatMark, Making
from .shapes import LARGEST_MM, how_many, motions, scaled_edge


def grow(making: Making, by: float, part: Part, field: str) -> None:
    """Openings close by as much as the outline grows; one that is gone then is named."""
    from ..geometry.offset import offset

    if abs(by) > LARGEST_MM:
        raise OutOfRange(f"It would grow by {say_mm(by)}.", fix="Check the decimal point and the unit.", field="by")
    carve(making)
    making.regions = [grown for region in making.regions for grown in offset(region, by)]
    if not making.regions:
        raise BadGeometry(f"Nothing is left after shrinking by {say_mm(-by)}.", fix="Shrink it by less.", field="by")
    kept, closed = [], []
    for opening in making.openings:
        left = tuple(one for region in opening.regions for one in offset(region, -by))
        if left:
            kept.append(replace(opening, regions=left))
        if len(left) < len(opening.regions):
            closed.append(opening.title)
    making.openings[:] = kept
    if closed:
        making.findings.append(
            Finding(
                "opening-closed", "look", f"Growing {part.title} by {say_mm(by)} closes {', '.join(closed)}.",
                "Grow it by less, make the opening wider, or cut it after this step.", part.id, amount=by, field=field,
            )
        )  # fmt: skip
    making.edges.clear()
    making.corners.clear()
    making.named.clear()


def mirror_all(making: Making, step: MirrorStep, at: Mapping[str, float]) -> None:
    carve(making)
    motion = mirror((at["x"], at["y"]), at["angle"])
    other = [motion.region(region) for region in making.regions]
    marks, openings = ([moved_mark(mark, motion) for mark in some] for some in (making.marks, making.openings))
    if step.keep:
        making.regions = combined(making.regions, other, "union")
        making.marks += [replace(mark, id=f"{mark.id}-mirrored") for mark in marks]
        making.openings += openings
        making.edges |= {f"{step.id}.{name}": motion.segment(edge) for name, edge in making.edges.items()}
        making.corners |= {f"{step.id}.{name}": motion.point(place) for name, place in making.corners.items()}
        making.named += [one.moved(motion, f"{step.id}.") for one in making.named]
        return
    making.regions, making.marks, making.openings = other, marks, openings
    making.edges = {name: motion.segment(edge) for name, edge in making.edges.items()}
    making.corners = {name: motion.point(place) for name, place in making.corners.items()}
    making.named = [one.moved(motion) for one in making.named]
    making.measured.clear()


def repeat(making: Making, part: Part, step: RepeatStep, at: Mapping[str, float]) -> None:
    carve(making)
    copies = how_many(step.pattern, at)
    check_part_work(copies * sum(map(count, making.regions)), 0, part.title, "pattern")
    others = motions(step.pattern, at)[1:]
    regions = [there.region(region) for there in others for region in making.regions]
    if len(regions) > MOST_SINGLE:
        check_cuts(regions, part.title)
    marks, openings = list(making.marks), list(making.openings)
    making.regions = combined(making.regions, regions, "union") if regions else making.regions
    making.marks += [
        replace(moved_mark(one, there), id=f"{one.id}-{i}") for i, there in enumerate(others, 2) for one in marks
    ]
    making.openings += [moved_mark(one, there) for there in others for one in openings]


def turn(making: Making, at: Mapping[str, float]) -> None:
    carve(making)
    x, y, k = at["x"], at["y"], at["scale"]
    to_origin, back = Motion(-x, -y), Motion(angle=at["turn"])
    there = Motion(x + at["dx"], y + at["dy"])

    def region(one: Region) -> Region:
        return there.region(back.region(scaled_region(to_origin.region(one), k)))

    def trace(one: Trace) -> Trace:
        return there.trace(back.trace(scaled_trace(to_origin.trace(one), k)))

    making.regions = [region(one) for one in making.regions]
    making.marks, making.openings = (
        [replace(one, regions=tuple(map(region, one.regions)), traces=tuple(map(trace, one.traces))) for one in some]
        for some in (making.marks, making.openings)
    )
    making.edges = {
        name: there.segment(back.segment(scaled_edge(to_origin.segment(edge), k)))
        for name, edge in making.edges.items()
    }
    making.corners = {
        name: there.point(back.point((k * (px - x), k * (py - y)))) for name, (px, py) in making.corners.items()
    }
    if k == 1:
        whole = Motion(*there.point(back.point((-x, -y))), at["turn"])
        making.named = [one.moved(whole) for one in making.named]
    else:
        making.named.clear()
    making.measured.clear()


def moved_mark(mark: FlatMark, motion: Motion) -> FlatMark:
    return replace(
        mark, regions=tuple(map(motion.region, mark.regions)), traces=tuple(map(motion.trace, mark.traces))
    )  # fmt: skip
