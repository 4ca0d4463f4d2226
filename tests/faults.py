"""Right jobs from a seed, and named faults that make wrong designs and spoiled files of them, each with its place.

A place is a box: in space for a design, on the sheet for a file. What a proof says of a fault must lie within a millimetre
of it.
"""

from __future__ import annotations

import random
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from typing import Any

from conftest import drawn, edited, make_board, make_job
from lean_notch.basis import Basis
from lean_notch.design import design_from_json, design_to_json
from lean_notch.edits import Edit
from lean_notch.job import ChosenLayout, Job, compute
from lean_notch.recipes import RECIPES

Box3 = tuple[tuple[float, float, float], tuple[float, float, float]]
Box2 = tuple[float, float, float, float]
SIDES = ("front", "back", "left", "right", "base")


def right_job(seed: int) -> Job:
    """A tray of any size, thickness, kerf and fit, with what may be drawn on it; of two boards, with a divider on tabs, or on
    small sheets, in turn."""
    rng = random.Random(seed)
    thick = rng.uniform(2, 6)
    readings = tuple(thick + rng.uniform(-0.01, 0.01) for _ in range(rng.randint(1, 5)))
    kerf, clearance = rng.uniform(0.06, 0.25), rng.uniform(0.0, 0.08)
    width, depth, height = rng.uniform(80, 180), rng.uniform(70, 130), rng.uniform(40, 70)
    sheet = (420, 300) if seed % 4 == 1 else (700, 500)
    board = make_board(readings, kerf, clearance, sheet)
    sizes = {"width": f"{width:.3f}", "depth": f"{depth:.3f}", "height": f"{height:.3f}"}
    job = Job(
        RECIPES["open-tray"].design("Vial carrier", sizes), Basis((("main", board),)), (("main", ChosenLayout()),)
    )
    job = drawn(
        job,
        mark(
            "label",
            "score",
            {"kind": "line", "to_x": "width/2 + 10", "to_y": "height/2"},
            x="width/2 - 12",
            y="height/2",
        ),
        mark("name", "engrave", {"kind": "rectangle", "width": 18, "height": 6}, x="width/2", y="height/2 + 4"),
    )
    hole = {
        "kind": "shape",
        "id": "drain",
        "shape": {"kind": "disc", "diameter": 6},
        "does": "cut",
        "x": "width/3",
        "y": "depth/2",
    }
    well = mark(
        "well",
        "pocket",
        {"kind": "rectangle", "width": 14, "height": 12},
        x="width/2",
        y="depth/2",
        depth="thickness/2",
    )
    job = drawn(job, hole, well, part="base")
    if seed % 3 == 2:
        other = make_board((thick + rng.uniform(0.3, 1.0),), kerf, clearance, sheet)
        job = edited(job, Edit("put", "boards/floor", {"title": "Floor"}), Edit("put", "parts/base/board", "floor"))
        job = replace(job, basis=Basis((("main", board), ("floor", other))))
    if seed % 5 == 3:
        job = with_divider(job)
    if rng.random() < 0.5:
        job = edited(job, Edit("put", "parts/left/steps/grip", {
            "kind": "shape", "shape": {"kind": "disc", "diameter": 12}, "does": "cut", "x": "depth/2", "y": "height - 14",
        }))  # fmt: skip
    return job


def with_divider(job: Job) -> Job:
    """A divider from front to back that stands with tabs through both."""
    blank = {"kind": "rectangle", "width": "depth", "height": "height/2"}
    divider = {"title": "Divider", "steps": [{"kind": "shape", "id": "blank", "shape": blank}]}
    pose = {"kind": "axes", "x": "width/4", "y": "thickness", "z": "thickness + 8", "u": "+y", "v": "+z"}
    joints = [
        Edit("put", f"joints/divider-{wall}", {
            "title": f"Divider in {wall}", "first": {"placement": "divider", "edge": f"blank.{side}"},
            "second": {"placement": wall, "edge": "face"}, "how": {"kind": "tab-and-slot"},
        })
        for wall, side in (("front", "left"), ("back", "right"))
    ]  # fmt: skip
    stands = {"part": "divider", "pose": pose}
    return edited(job, Edit("put", "parts/divider", divider), Edit("put", "placements/divider", stands), *joints)


def mark(name: str, operation: str, shape: dict[str, Any], **values: Any) -> dict[str, Any]:
    return {"kind": "shape", "id": name, "does": "mark", "operation": operation, "shape": shape, **values}


@dataclass(frozen=True)
class WrongDesign:
    """`where` is the fault's place in space."""

    name: str
    job: Job
    where: tuple[Box3, ...]


def wrong_designs() -> Iterator[WrongDesign]:
    """Each of a right job of its own."""
    for number, (name, make) in enumerate(_design_faults()):
        job = right_job(1000 + number)
        wrong, where = make(job)
        yield WrongDesign(name, wrong, tuple(where))


DesignFault = Callable[[Job], tuple[Job, list[Box3]]]
JOINTS = [joint.id for joint in make_job().design.joints]


def _design_faults() -> Iterator[tuple[str, DesignFault]]:
    for joint in JOINTS:
        yield f"joint missing: {joint}", without_joint(joint)
        yield f"wrong side: {joint}", wrong_side(joint)
    yield "all joints missing", without_joint(*JOINTS)
    for part in SIDES:
        yield f"part missing: {part}", without_part(part)
        yield f"turned over: {part}", turned_over(part)
        for by in (0.4, -3.0):
            yield f"shifted by {by}: {part}", shifted(part, by)
        for by in (2.0, -2.0):
            yield f"{'too long' if by > 0 else 'too short'}: {part}", resized(part, by)
    for part in ("left", "right"):
        yield f"T: {part}", shifted(part, -20.0)
        yield f"doubled in one place: {part}", doubled(part)
    for part, angle in (("left", 10), ("right", 45), ("front", 90), ("base", 3)):
        yield f"turned by {angle}: {part}", turned(part, angle)
    for clearance in (-0.11, 0.61):
        yield f"clearance {clearance}", with_clearance(clearance)
    yield "a divider through two walls", crossing
    yield "one part for two that differ", one_for_two
    yield "an edge joined twice", joined_twice
    yield "a part joined with itself", joined_with_itself


def box_of(job: Job, placement: str) -> Box3:
    return compute(job).build.standing[placement].box


def bar_of(job: Job, joint_id: str) -> Box3:
    """What both panels of a joint share."""
    joint = next(one for one in job.design.joints if one.id == joint_id)
    (a, b), (c, d) = (box_of(job, member.placement) for member in (joint.first, joint.second))
    return tuple(map(max, a, c)), tuple(map(min, b, d))  # type: ignore[return-value]


def without_joint(*joints: str) -> DesignFault:
    def make(job: Job) -> tuple[Job, list[Box3]]:
        return edited(job, *(Edit("drop", f"joints/{one}") for one in joints)), [bar_of(job, one) for one in joints]

    return make


def wrong_side(joint_id: str) -> DesignFault:
    def make(job: Job) -> tuple[Job, list[Box3]]:
        joint = next(one for one in job.design.joints if one.id == joint_id)
        opposite = {"left": "right", "right": "left", "bottom": "top", "top": "bottom"}[joint.second.edge.split(".")[1]]
        wrong = edited(job, Edit("put", f"joints/{joint_id}/second/edge", f"blank.{opposite}"))
        return wrong, [box_of(job, joint.second.placement), bar_of(job, joint_id)]

    return make


def without_part(part: str) -> DesignFault:
    """Gone from the document, while the joints still name it."""

    def make(job: Job) -> tuple[Job, list[Box3]]:
        document = design_to_json(job.design)
        for rows in ("parts", "placements"):
            document[rows] = [one for one in document[rows] if one["id"] != part]
        touched = [one.id for one in job.design.joints if part in (one.first.placement, one.second.placement)]
        beside = {
            member.placement for one in job.design.joints if one.id in touched for member in (one.first, one.second)
        } - {part}  # fmt: skip
        return replace(job, design=design_from_json(document)), [box_of(job, one) for one in sorted(beside)]

    return make


def turned_over(part: str) -> DesignFault:
    def make(job: Job) -> tuple[Job, list[Box3]]:
        return edited(job, Edit("put", f"placements/{part}/mirrored", True)), around(job, part, 8)

    return make


def around(job: Job, part: str, by: float) -> list[Box3]:
    """Where a panel is, and as far around it as it was moved."""
    low, high = box_of(job, part)
    return [(tuple(x - by for x in low), tuple(x + by for x in high))]  # type: ignore[list-item]


def shifted(part: str, by: float) -> DesignFault:
    """Along its own normal, outwards where `by` is positive."""

    def make(job: Job) -> tuple[Job, list[Box3]]:
        pose = job.design.placement(part).pose  # type: ignore[union-attr]
        n = compute(job).build.standing[part].n
        axis = max(range(3), key=lambda i: abs(n[i]))
        name = "xyz"[axis]
        typed = f"({getattr(pose, name).text}) + {by * n[axis]}"
        return edited(job, Edit("put", f"placements/{part}/pose/{name}", typed)), around(job, part, abs(by))

    return make


def resized(part: str, by: float) -> DesignFault:
    def make(job: Job) -> tuple[Job, list[Box3]]:
        blank = job.design.part(part).blank  # type: ignore[union-attr]
        typed = f"({blank.shape.width.text}) + {by}"  # type: ignore[union-attr]
        return edited(job, Edit("put", f"parts/{part}/steps/blank/shape/width", typed)), around(job, part, abs(by))

    return make


def doubled(part: str) -> DesignFault:
    def make(job: Job) -> tuple[Job, list[Box3]]:
        document = design_to_json(job.design)
        again = next(dict(one) for one in document["placements"] if one["id"] == part)
        copy = next(dict(one) for one in document["parts"] if one["id"] == part)
        document["parts"].append({**copy, "id": "again", "title": "Again"})
        document["placements"].append({**again, "id": "again", "part": "again"})
        return replace(job, design=design_from_json(document)), [box_of(job, part)]

    return make


def crossing(job: Job) -> tuple[Job, list[Box3]]:
    """A divider longer than the tray, through front and back, that nothing joins."""
    blank = {"kind": "rectangle", "width": "outside_depth + 8", "height": "height/2"}
    divider = {"title": "Divider", "steps": [{"kind": "shape", "id": "blank", "shape": blank}]}
    pose = {"kind": "axes", "x": "width/2", "y": "outside_depth + 4", "z": "thickness + 10", "u": "-y", "v": "+z"}
    stands = {"part": "divider", "pose": pose}
    wrong = edited(job, Edit("put", "parts/divider", divider), Edit("put", "placements/divider", stands))
    return wrong, [box_of(wrong, "divider")]


def turned(part: str, angle: float) -> DesignFault:
    """About the upright axis through its origin; the base about the x axis."""

    def make(job: Job) -> tuple[Job, list[Box3]]:
        import math

        standing = compute(job).build.standing[part]
        x, y, z = standing.origin
        now = math.degrees(math.atan2(standing.u[1], standing.u[0]))
        turns = {"turn_x": angle} if part == "base" else {"turn_x": 90, "turn_z": (now + angle + 180) % 360 - 180}
        pose = {"kind": "numbers", "x": f"{x} mm", "y": f"{y} mm", "z": f"{z} mm", **turns}
        wrong = edited(job, Edit("put", f"placements/{part}/pose", pose))
        return wrong, [box_of(job, part), box_of(wrong, part)]

    return make


def with_clearance(clearance: float) -> DesignFault:
    def make(job: Job) -> tuple[Job, list[Box3]]:
        names = [board.id for board in job.design.boards]
        return edited(job, *(Edit("put", f"basis/{one}/clearance", clearance) for one in names)), []

    return make


def one_for_two(job: Job) -> tuple[Job, list[Box3]]:
    wrong = edited(
        job, Edit("put", "placements/back/part", "front"), Edit("drop", "parts/back"),
        Edit("put", "joints/back-base/how/width", "thickness*2"),
    )  # fmt: skip
    return wrong, [box_of(job, "back")]


def joined_twice(job: Job) -> tuple[Job, list[Box3]]:
    joint = next(one for one in design_to_json(job.design)["joints"] if one["id"] == "front-left")
    return edited(job, Edit("put", "joints/again", {**joint, "id": "again"})), [bar_of(job, "front-left")]


def joined_with_itself(job: Job) -> tuple[Job, list[Box3]]:
    wrong = edited(job, Edit("put", "joints/front-left/second", {"placement": "front", "edge": "blank.right"}))
    return wrong, [box_of(job, "front"), bar_of(job, "front-left")]


# Files
