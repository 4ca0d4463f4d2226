"""Right jobs from a seed, and named faults that make wrong designs and spoiled files of them, each with its place.

A place is a box: in space for a design, on the sheet for a file. What a proof says of a fault must lie within a millimetre
of it.
"""

from __future__ import annotations

import random
import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from typing import Any

from conftest import drawn, edited, make_board, make_job
from lean_notch.basis import Basis
from lean_notch.cutting import Profile
from lean_notch.design import design_from_json, design_to_json
from lean_notch.edits import Edit
from lean_notch.hand_over.files import write_files
from lean_notch.job import ChosenLayout, Job, Result, compute
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


@dataclass(frozen=True)
class SpoiledFile:
    """`files` are a sheet's bytes each; `where` is the place on its sheet, None where the whole sheet is meant."""

    name: str
    result: Result
    files: dict[int, bytes]
    format: str
    sheet: int
    where: tuple[Box2, ...] | None


Element = tuple[str, str, str]
"""Id of its group, its own id, and the line that draws it."""


def elements(svg: str) -> list[Element]:
    found, group = [], ""
    for line in svg.split("\n"):
        group = m[1] if (m := re.match(r'<g id="([^"]*)"', line)) else group
        if m := re.match(r'<(?:path|circle) id="([^"]*)"', line):
            found.append((group, m[1], line))
    return found


def box_on_sheet(result: Result, sheet: int, path_id: str) -> Box2:
    return next(path.shape.box for path in result.plan.sheets[sheet - 1].paths if path.id == path_id)


SvgFault = Callable[[str, Element], str]


def attribute(value: str) -> SvgFault:
    """The element with one more attribute."""
    return lambda svg, one: svg.replace(one[2], re.sub(r"^<(path|circle) ", rf"<\1 {value} ", one[2]), 1)


def about_middle(box: Box2, height: float, what: str) -> str:
    x, y = (box[0] + box[2]) / 2, height - (box[1] + box[3]) / 2
    return f'transform="translate({x} {y}) {what} translate({-x} {-y})"'


def to_group(group: str) -> SvgFault:
    def spoil(svg: str, one: Element) -> str:
        return svg.replace(one[2] + "\n", "", 1).replace("</svg>", f'<g id="{group}">\n{one[2]}\n</g>\n</svg>')

    return spoil


def spoiled_files() -> Iterator[SpoiledFile]:
    """Faults of one path each, over the outlines, a hole and the marks of right jobs; then of whole sheets."""
    number = 0
    for part in (*SIDES, "hole", "label", "name", "well"):
        for fault in (
            "moved a little",
            "moved",
            "turned",
            "scaled",
            "doubled",
            "dropped",
            "wrong layer",
            "unknown layer",
        ):
            number += 1
            if (fault, part) == ("turned", "hole"):  # round: it is the same
                continue
            job = right_job(2000 + number)
            yield _spoil_path(fault, part, compute(job))
    yield from _whole_sheets()


def _spoil_path(fault: str, part: str, result: Result) -> SpoiledFile:
    wanted = {"hole": "base-1-drain", "label": "front-1-label", "name": "front-1-name", "well": "base-1-well"}.get(
        part, f"{part}-1"
    )
    for file in write_files(result, "svg"):
        svg = file.data.decode()
        found = [
            one for one in elements(svg) if one[1] == wanted or (one[1].startswith(f"{wanted}-") and part not in SIDES)
        ]
        if part == "hole":
            found = [one for one in elements(svg) if one[1].startswith("base-1-hole")]
        if found:
            break
    one, height = found[0], result.layout.sheet(file.sheet).area.height
    box = box_on_sheet(result, file.sheet, one[1])
    spoil: dict[str, SvgFault] = {
        "moved a little": attribute('transform="translate(0.3 0)"'),
        "moved": attribute('transform="translate(0 3)"'),
        "turned": attribute(about_middle(box, height, "rotate(2)")),
        "scaled": attribute(about_middle(box, height, "scale(1.02)")),
        "doubled": lambda svg, one: svg.replace(one[2], f"{one[2]}\n{one[2].replace(' id=', ' data-was=')}", 1),
        "dropped": lambda svg, one: svg.replace(one[2] + "\n", "", 1),
        "wrong layer": to_group("score" if one[0] == "cut" else "cut" if one[0] != "score" else "fold"),
        "unknown layer": to_group("notes"),
    }
    data = spoil[fault](svg, one)
    assert data != svg, (fault, part)
    files = {f.sheet: f.data for f in write_files(result, "svg")} | {file.sheet: data.encode()}
    wide = 4.0 if "moved" in fault else 1.0
    where = (box[0] - wide, box[1] - wide, box[2] + wide, box[3] + wide)
    return SpoiledFile(f"{fault}: {part}", result, files, "svg", file.sheet, (where,))


def _whole_sheets() -> Iterator[SpoiledFile]:
    def whole(name: str, seed: int, change: Callable[[str], str], kind: str = "svg", where: Any = None) -> SpoiledFile:
        result = compute(right_job(seed))
        files = {one.sheet: one.data for one in write_files(result, kind)}  # type: ignore[arg-type]
        changed = {sheet: new for sheet, data in files.items() if (new := change(data.decode()).encode()) != data}
        assert changed, name
        sheet, data = next(iter(changed.items()))
        return SpoiledFile(name, result, {**files, sheet: data}, kind, sheet, where)

    yield whole(
        "unit: inches for mm",
        3001,
        lambda svg: re.sub(r'width="([\d.]+)mm" height="([\d.]+)mm"', r'width="\1in" height="\2in"', svg),
    )
    yield whole("unit: none", 3002, lambda svg: re.sub(r' width="[\d.]+mm" height="[\d.]+mm" viewBox="[^"]*"', "", svg))
    yield whole(
        "unit: 72 to the inch",
        3003,
        lambda svg: re.sub(
            r'width="([\d.]+)mm" height="([\d.]+)mm"',
            lambda m: f'width="{float(m[1]) * 96 / 72}mm" height="{float(m[2]) * 96 / 72}mm"',
            svg,
        ),
    )
    yield whole(
        "mirrored",
        3004,
        lambda svg: (
            re.sub(r'viewBox="0 0 ([\d.]+) ', lambda m: f'viewBox="0 0 {m[1]} ', svg)
            .replace("<g ", '<g transform="scale(-1 1) translate(-700 0)" ')
            .replace("-700", "-" + re.search(r'viewBox="0 0 ([\d.]+)', svg)[1])
        ),
    )  # type: ignore[index]
    yield whole("depth changed", 3005, lambda svg: re.sub(r'id="pocket-[\d.]+mm"', 'id="pocket-0.5mm"', svg))
    yield whole("no depth", 3006, lambda svg: re.sub(r'id="pocket-[\d.]+mm"', 'id="pocket"', svg))
    yield whole(
        "text left over a part", 3007, lambda svg: svg.replace("</svg>", '<text x="40" y="40">VIALS</text></svg>')
    )
    yield whole(
        "an image", 3008, lambda svg: svg.replace("</svg>", '<image href="data:," width="9" height="9"/></svg>')
    )
    for number, layer in enumerate(("CUT", "SCORE", "ENGRAVE")):
        yield whole(f"layer off: {layer}", 3010 + number, layer_off(layer), "dxf")
        yield whole(f"layer frozen: {layer}", 3020 + number, layer_off(layer, frozen=True), "dxf-r12")
    for seed in (3033, 3037, 3041):  # those with small sheets
        result = compute(right_job(seed))
        files = {one.sheet: one.data for one in write_files(result, "svg")}
        if len(files) > 1:
            last = max(files)
            rest = {sheet: data for sheet, data in files.items() if sheet != last}
            yield SpoiledFile(f"sheet missing: {last} of {seed}", result, rest, "svg", last, None)
            swapped = {**files, 1: files[2], 2: files[1]}
            yield SpoiledFile(f"sheets swapped: {seed}", result, swapped, "svg", 1, None)
    for seed, board in ((3050, 3051), (3053, 3054)):
        one, other = right_job(seed), right_job(board)
        main = other.basis.of("main")
        floor = replace(main, stock=replace(main.stock, name=f"{main.stock.name}, floor"))  # on sheets of its own
        moved = replace(one, basis=other.basis.with_board("floor", floor) if seed % 3 == 2 else other.basis)
        files = {f.sheet: f.data for f in write_files(compute(one), "svg")}
        yield SpoiledFile(f"board swapped: {seed}", compute(moved), files, "svg", 1, None)
    for seed in (3060, 3061):
        yield _lead_into_a_part(seed)


def _lead_into_a_part(seed: int) -> SpoiledFile:
    """The lead of an outline begins in the middle of its part."""
    result = compute(right_job(seed), Profile(lead_in_mm=2.0))
    files = {f.sheet: f.data for f in write_files(result, "svg")}
    svg = files[1].decode()
    line = next(one for one in elements(svg) if one[1].endswith("-1") and "Z" not in one[2] and "path" in one[2])
    far = re.sub(r'd="M[^LA]*L', f'd="M{middle_of(result, line[1])}L', line[2], count=1)
    spoiled = {**files, 1: svg.replace(line[2], far).encode()}
    return SpoiledFile(f"lead into a part: {seed}", result, spoiled, "svg", 1, (box_on_sheet(result, 1, line[1]),))


def layer_off(layer: str, *, frozen: bool = False) -> Callable[[str], str]:
    """The layer's entry in the table with a negative colour, or flag 1. DXF Reference, LAYER."""

    def change(dxf: str) -> str:
        pairs = dxf.split("\n")
        for at in range(0, len(pairs) - 24, 2):
            entry = [one.strip() for one in pairs[at : at + 24]]
            name = next((entry[i + 1] for i in range(2, 24, 2) if entry[i] == "2"), "")
            if entry[:2] == ["0", "LAYER"] and name == layer:
                k = next(i for i in range(2, 24, 2) if entry[i] == ("70" if frozen else "62"))
                pairs[at + k + 1] = "1" if frozen else f"-{entry[k + 1]}"
                return "\n".join(pairs)
        return dxf

    return change


def middle_of(result: Result, path_id: str) -> str:
    """The middle of a path, as SVG has it."""
    left, low, right, high = box_on_sheet(result, 1, path_id)
    return f"{(left + right) / 2} {result.layout.sheet(1).area.height - (low + high) / 2}"
