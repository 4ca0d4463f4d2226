"""What the machine follows: for each sheet, ordered paths, those that cut moved into the waste by half the kerf."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import partial
from itertools import chain

from ..geometry import Motion, Point, Trace, Vertex, rectangle
from ..geometry.transform import MotionNumbers
from ..ground.findings import Finding
from ..ground.limits import check_job_work
from ..ground.operations import Operation
from ..ground.remembered import Remembered, remembered
from ..ground.wording import in_base_letters
from ..lengths.said import say_mm
from ..lettering import SINGLE_STROKE, lettered
from ..making import Build, FlatPart
from ..nesting import Layout, LayoutSettings
from ..nesting.problem import TurnedAbout
from .drawn import Drawing, DrawnPath, drawing_of, drawings, finished, kerf_path, segments_of
from .order import Step, Stretch, innermost_first, leave_at, shortest, travel
from .paths import CutPath, CutPlan, Kerfs, SheetPlan
from .profile import PLAIN, Profile
from .registering import REGISTERING, registering, turned_over
from .starts import Start, Waste, led_in, starting_at

REFERENCE_MM = 100.0
SQUARE = "reference-square"
"""A square of this size, if asked for, shows at a glance whether a file was read at the right scale."""


LABEL_MM = 5.0


def plan_cut(
    name: str,
    build: Build,
    layout: Layout,
    settings: Mapping[str, LayoutSettings],
    kerfs: Kerfs,
    profile: Profile = PLAIN,
) -> CutPlan:
    """Paths for every placed part, in the profile's order of operations, holes before outlines, with little travel."""
    check_job_work(segments_of(build))
    drawn = {part.id: drawing for part, drawing in zip(build.parts, drawings(build, kerfs, profile), strict=True)}
    sheets = []
    said = [finding for one in drawn.values() for finding in one.findings]
    for sheet in layout.sheets:
        number = sheet.number
        paths = [
            _placed(one, placed.motion.numbers, placed.copy)
            for placed in layout.on_sheet(number)
            for one in drawn[placed.part].paths
        ]
        area, kerf = sheet.area, kerfs[sheet.board]
        waste = Waste(
            [one.motion.region(finished(build.part(one.part), kerf)) for one in layout.on_sheet(number)]
            if profile.lead_in_mm else [], kerf, area.width, area.height,
        )  # fmt: skip
        ordered, before, after = _ORDERED(
            (profile, area.width, area.height, kerf, *paths), partial(_ordered, paths, profile, waste)
        )
        said += _not_led_in(ordered, profile, number)
        extra = _extras(profile, build, layout, number)
        about = settings[sheet.board].turned_about
        back = _back(layout, number, drawn, profile, about)
        sheets.append(
            SheetPlan(number, sheet.area.width, sheet.area.height, (*ordered, *extra), after, before, back, about)
        )
    return CutPlan(name, tuple(sheets), (*said, *_not_registered(profile, sheets)))


def _back(
    layout: Layout, number: int, drawn: Mapping[str, Drawing], profile: Profile, about: TurnedAbout
) -> tuple[CutPath, ...]:  # fmt: skip
    """What is done on the back of a sheet, where it lies once that is turned over."""
    area = layout.sheet(number).area
    over = turned_over(area.width, area.height, about)
    paths = [
        _placed(_placed(one, placed.motion.numbers, placed.copy), over.numbers, placed.copy)
        for placed in layout.on_sheet(number)
        for one in drawn[placed.part].back
    ]
    if not paths:
        return ()
    ordered, _, _ = _ordered(paths, profile, Waste([], 0.0, area.width, area.height))
    shown = registering(number, area.width, area.height, about) if profile.layers["reference"].include else ()
    return (*ordered, *shown)


def _not_registered(profile: Profile, sheets: Sequence[SheetPlan]) -> Iterator[Finding]:
    """Backs in whose file nothing shows where the sheet lies."""
    if not profile.layers["reference"].include:
        for sheet in sheets:
            if sheet.back:
                yield Finding(
                    "back-not-registered", "look",
                    f"The file of the back of sheet {sheet.number} does not show the edge of the sheet: the profile leaves lines for "
                    "reference out.",
                    "Include the reference layer in the profile, or lay the sheet against a stop on both faces.",
                    sheet=sheet.number, back=True,
                )  # fmt: skip


def _not_led_in(paths: Sequence[CutPath], profile: Profile, sheet: int) -> list[Finding]:
    """Outlines for which the waste has no room to lead in from, one finding a sheet."""
    plain = [one for one in paths if one.operation == "cut" and one.closed] if profile.lead_in_mm else []
    if not plain:
        return []
    first = plain[0].shape.segments[0].start
    return [
        Finding(
            "no-lead-in", "look",
            f"{len(plain)} outline{'s have' if len(plain) > 1 else ' has'} no room beside it for a lead-in: cutting starts on "
            f"the outline, of {plain[0].title} first.",
            "Space the parts wider, or use a shorter lead-in.", sheet=sheet, place=first, amount=len(plain),
        )
    ]  # fmt: skip


@dataclass(frozen=True)
class Alone:
    """One part by itself on a sheet of its own size, number 1, and where it lies there."""

    plan: SheetPlan
    motion: Motion
    findings: tuple[Finding, ...]


def alone(part: FlatPart, build: Build, kerf: float, profile: Profile = PLAIN) -> Alone:
    """What a file a part holds. A square to measure makes the sheet as large as it is."""
    drawing = drawing_of(part, build, kerf, kerf_path(part, kerf), profile)
    boxes = [one.path.shape.box for one in drawing.paths]
    left, low = min((box[0] for box in boxes), default=0.0), min((box[1] for box in boxes), default=0.0)
    right, high = max((box[2] for box in boxes), default=0.0), max((box[3] for box in boxes), default=0.0)
    # Around a part by itself there is room: leads are only kept out of the part.
    around = profile.lead_in_mm and profile.lead_in_mm + kerf
    width, height = right - left + 2 * around, high - low + 2 * around
    motion = Motion(around - left, around - low)
    waste = Waste([motion.region(finished(part, kerf))] if around else [], kerf, width, height)
    ordered, before, after = _ordered([_placed(one, motion.numbers, 1) for one in drawing.paths], profile, waste)
    extra = [*(_label(part, 1, motion) if _labelled(profile) else ()), *_square(profile)]
    least = REFERENCE_MM if _square(profile) else 0.0
    plan = SheetPlan(1, max(width, least), max(height, least), (*ordered, *extra), after, before)
    return Alone(plan, motion, (*drawing.findings, *_not_led_in(ordered, profile, 0)))


_ORDERED: Remembered[tuple[list[CutPath], float, float]] = Remembered(64, lambda one: len(one[0]), 50_000)


@remembered(16_384)
def _placed(one: DrawnPath, numbers: MotionNumbers, copy: int) -> DrawnPath:
    path, motion = one.path, Motion(*numbers)
    shape = motion.trace(path.shape) if isinstance(path.shape, Trace) else motion.ring(path.shape)
    holes = tuple(motion.ring(hole) for hole in path.holes)
    moved = replace(path, shape=shape, copy=copy, holes=holes)
    return DrawnPath(moved, tuple(Start(start.segment, motion.point(start.point)) for start in one.starts))


def _ordered(paths: Sequence[DrawnPath], profile: Profile, waste: Waste) -> tuple[list[CutPath], float, float]:
    """The paths in the order of work, and the travel between them before and after ordering."""
    plain = [_stretch(one, first=True) for one in paths]
    home: Point = (0.0, 0.0)
    before = travel(plain, [Step(index, 0) for index in range(len(plain))], home)
    done: list[CutPath] = []
    after, here = 0.0, home
    for phase in _phases(paths, profile.order):
        stretches = [_stretch(one) for one in phase]
        cut = phase[0].path.operation == "cut" if phase else False
        steps = shortest(stretches, here, innermost_first([one.path.shape.box for one in phase]) if cut else None)
        after += travel(stretches, steps, here)
        for step in steps:
            one = phase[step.index]
            lead = profile.lead_in_mm if one.path.operation == "cut" else 0.0
            done.append(_led_in(one, step.entry, lead, waste) if lead else _begun(one, step.entry))
            here = leave_at(stretches, step)
    return done, before, after


def _phases(paths: Sequence[DrawnPath], order: Iterable[Operation]) -> Iterator[list[DrawnPath]]:
    """One operation after the other."""
    for operation in order:
        yield [one for one in paths if one.path.operation == operation]


def _stretch(one: DrawnPath, *, first: bool = False) -> Stretch:
    shape = one.path.shape
    if isinstance(shape, Trace):
        return Stretch((shape.vertices[0].point, shape.vertices[-1].point), open=True)
    if first:
        return Stretch((shape.corners[0].point,))
    return Stretch(tuple(start.point for start in one.starts))


@remembered(16_384)
def _begun(one: DrawnPath, entry: int) -> CutPath:
    """A path as it is followed from one of its starts."""
    path = one.path
    if isinstance(path.shape, Trace):
        return replace(path, shape=path.shape.reversed) if entry else path
    return replace(path, shape=starting_at(path.shape, one.starts[entry]))


def _led_in(one: DrawnPath, entry: int, lead: float, waste: Waste) -> CutPath:
    begun = _begun(one, entry)
    path, ring = one.path, begun.shape
    if isinstance(path.shape, Trace) or isinstance(ring, Trace):
        return begun
    # Where the waste is too narrow there, it may not be at another start.
    others = (starting_at(path.shape, start) for start in one.starts if start is not one.starts[entry])
    led = (led_in(each, lead, waste) for each in chain([ring], others))
    return replace(begun, shape=next(filter(None, led), ring))


def _extras(profile: Profile, build: Build, layout: Layout, sheet: int) -> list[CutPath]:
    """What is there to be read, not to be cut."""
    extra: list[CutPath] = []
    if _labelled(profile):
        for placed in layout.on_sheet(sheet):
            extra += _label(build.part(placed.part), placed.copy, placed.motion)
    return [*extra, *_square(profile)]


def in_every_file(path: CutPath) -> bool:
    """Whether it goes into each file of a sheet that is split by operations: by it the files are known to lie alike."""
    return path.what == SQUARE or path.what.startswith(REGISTERING)


def _labelled(profile: Profile) -> bool:
    return profile.labels and profile.layers["reference"].include


def _square(profile: Profile) -> list[CutPath]:
    """A square to measure, by which a receiver sees that the file was read at the right size."""
    if not (profile.reference_square and profile.layers["reference"].include):
        return []
    square = rectangle(0, 0, REFERENCE_MM, REFERENCE_MM)
    return [CutPath(SQUARE, f"Reference square, {say_mm(REFERENCE_MM)}", "reference", square)]


def _label(part: FlatPart, copy: int, motion: Motion) -> Iterator[CutPath]:
    """The part's name in its middle, as large as fits, upright on the sheet."""
    left, low, right, high = motion.region(part.region).box
    plain = in_base_letters(f"{part.title} {copy}")
    wide = lettered(plain, SINGLE_STROKE, LABEL_MM).width
    size = min(LABEL_MM, (high - low) / 3, LABEL_MM * 0.8 * (right - left) / wide)
    if size < 1:
        return
    drawn = lettered(plain, SINGLE_STROKE, size, "middle")
    x, y = (left + right) / 2, (low + high - size) / 2
    for index, stroke in enumerate(drawn.strokes, 1):
        line = Trace(tuple(Vertex(px + x, py + y) for px, py in stroke))
        yield CutPath(f"label-{index}", "label", "reference", line, part.id, part.title, copy)
