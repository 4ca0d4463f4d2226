"""What a hand-over profile promises of a file, held against the file: in, what was read and the plan it was written from; out,
where the two differ. Where lines lie is not asked here.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence

from ..cutting import Profile, SheetPlan
from ..cutting.plan import REFERENCE_MM, SQUARE
from ..cutting.profile import FileFormat
from ..cutting.registering import REGISTERING
from ..formats.dxf_write import colour_numbers
from ..formats.file_kinds import FORMATS
from ..formats.frame import Frame, file_layers
from ..formats.read_file import ReadFile, ReadPath
from ..geometry import Point
from ..geometry.contour import join_boxes
from ..ground.findings import Finding
from ..ground.operations import Operation
from ..lengths.said import say_mm
from .as_cut import outline_of, rings_around, without_lead
from .compare import EDGE_MM
from .outlines import SAME_MM

_AGAIN = "Export the file again."


def promised(file: ReadFile, plan: SheetPlan, profile: Profile, file_format: FileFormat) -> Iterator[Finding]:
    """Unit, colours, order, depths that are named, and the square to measure, one finding of a kind and operation."""
    if not file.assumed and FORMATS[file_format].own_unit and file.unit != profile.unit:
        yield Finding("unit-astray", "stop", f"The file is in {file.unit}; the profile says {profile.unit}.", _AGAIN)
    yield from _zero(file, plan, profile)
    told = [(path, operation) for path in file.paths if (operation := profile.operation_of(path.layer))]
    yield from _colours(told, _expected(plan, profile, file_format))
    yield from _order(told, profile)
    yield from _depths(told, profile)
    if profile.reference_square and any(path.what == SQUARE for path in plan.paths):
        yield from _square(told)


def _zero(file: ReadFile, plan: SheetPlan, profile: Profile) -> Iterator[Finding]:
    """Where coordinates are 0, in a format that names both that and the page."""
    if file.corner is None:
        return
    frame = Frame.of(plan, profile, flipped=True)
    wanted = tuple(value / frame.per_mm for value in frame.point((0.0, 0.0)))
    off = math.dist(file.corner, wanted)
    if off > EDGE_MM:
        yield Finding(
            "origin-astray", "stop", f"The file's zero lies {say_mm(off, 2)} from where the profile has it: {profile.origin}.", _AGAIN,
            amount=off,
        )  # fmt: skip


_Told = Sequence[tuple[ReadPath, Operation]]


def _expected(plan: SheetPlan, profile: Profile, file_format: FileFormat) -> dict[Operation, str]:
    layers = file_layers(plan, profile)
    if FORMATS[file_format].any_colour:
        return {layer.operation: layer.colour.lower() for layer in layers}
    numbers = colour_numbers(layer.colour for layer in layers)
    return {layer.operation: str(numbers[layer.colour]) for layer in layers}


def _colours(told: _Told, expected: Mapping[Operation, str]) -> Iterator[Finding]:
    said = set[Operation]()
    for path, operation in told:
        wanted = expected.get(operation)
        if wanted is None or operation in said or path.colour == wanted:
            continue
        said.add(operation)
        is_of = next((other for other, colour in expected.items() if colour == path.colour), None)
        found = f"{path.colour or 'no plain colour'}{f', the colour of {is_of}' if is_of else ''}"
        yield _at(
            "colour-astray",
            f"A line to {operation} is drawn in {found}; the profile says {wanted}: machines go by colour.",
            path,
        )
    filled = next((path for path, operation in told if operation == "cut" and path.filled), None)
    if filled:
        yield _at("colour-astray", "An outline to cut is filled: a machine may engrave it.", filled)


def _order(told: _Told, profile: Profile) -> Iterator[Finding]:
    """Operations in the profile's order, and what is cut out of a piece before the piece itself is free."""
    latest = 0
    for path, operation in told:
        at = profile.order.index(operation)
        if at < latest:
            before = profile.order[latest]
            yield _at(
                "out-of-order",
                f"The file has lines to {operation} after those to {before}; the profile wants them first.",
                path,
            )
            break
        latest = at
    outlines = [without_lead(path)[0] for path, operation in told if operation == "cut"]
    closed = [
        (number, ring)
        for number, path in enumerate(outlines)
        if not (ring := outline_of(path)).is_empty and ring.is_valid
    ]
    closed.sort(key=lambda one: -one[1].area)
    for (number, ring), around in zip(closed, rings_around([ring for _, ring in closed]), strict=True):
        # One that is doubled lies in the other, and is told as that.
        larger = [closed[outer][0] for outer in around if closed[outer][1].area - ring.area > SAME_MM * ring.length]
        sooner = next((outer for outer in larger if outer < number), None)
        if sooner is not None:
            name = outlines[sooner].name or "around it"
            yield _at(
                "out-of-order", f"The outline {name} is cut before a hole in it: by then the piece is free and may move.",
                outlines[number],
            )  # fmt: skip
            return


def _depths(told: _Told, profile: Profile) -> Iterator[Finding]:
    """Cuts go through: a layer that says how deep means something else."""
    for path, operation in told:
        depth = profile.depth_of(path.layer)
        if operation == "cut" and depth is not None:
            yield _at(
                "depth-astray",
                f"A cut is on the layer “{path.layer}”, {say_mm(depth)} deep; it goes right through.",
                path,
            )
            return


def _square(told: _Told) -> Iterator[Finding]:
    """The square by which a receiver sees that the file was read at the right size."""
    for path, operation in told:
        if operation == "reference" and path.goes_round and len(path.segments) == 4:
            left, low, right, high = join_boxes(segment.box for segment in path.segments)
            if max(abs(right - left - REFERENCE_MM), abs(high - low - REFERENCE_MM)) <= EDGE_MM:
                return
    yield Finding(
        "square-missing", "stop", f"The profile promises a square of {say_mm(REFERENCE_MM)} to measure; the file has none of that size.",
        _AGAIN,
    )  # fmt: skip


def registered(lying: ReadFile, plan: SheetPlan, profile: Profile) -> Iterator[Finding]:
    """Whether the edge of the sheet, where the plan shows it, is `lying` where the sheet does."""
    if not any(path.what.startswith(REGISTERING) for path in plan.paths):
        return
    for path in lying.paths:
        if profile.operation_of(path.layer) == "reference" and path.goes_round and len(path.segments) == 4:
            box = join_boxes(segment.box for segment in path.segments)
            if math.dist(box, (0.0, 0.0, plan.width, plan.height)) <= EDGE_MM:
                return
    yield Finding(
        "edge-missing", "stop",
        "The file does not have the edge of the sheet where the sheet lies: what is on the back may land elsewhere.", _AGAIN,
    )  # fmt: skip


def _at(code: str, why: str, path: ReadPath) -> Finding:
    place: Point = path.segments[0].start
    return Finding(code, "stop", why, _AGAIN, place=place)
