"""What the machine follows: for each sheet, ordered paths, those that cut moved into the waste by half the kerf."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache, partial
from itertools import chain

from ..build import Build, FlatMark, FlatPart
from ..errors import KerfTooWide, OutOfRange
from ..findings import Finding
from ..geometry import Circle, Motion, Point, Region, Ring, Trace, Vertex, mirror, rectangle
from ..geometry.batched import batched
from ..geometry.offset import lengths_all, offset, offset_all
from ..geometry.tidy import tidied
from ..joints.mate import Strip
from ..lettering import SINGLE_STROKE, lettered
from ..limits import check_job_work
from ..nesting import Layout, LayoutSettings
from ..nesting.problem import TurnedAbout
from ..operations import Operation
from ..remembered import Remembered
from ..units import say_mm
from .hatch import hatched
from .order import Step, Stretch, innermost_first, leave_at, shortest, travel
from .profile import PLAIN, Profile
from .starts import Start, Waste, led_in, starting_at, starts, strips_of

REFERENCE_MM = 100.0
"""A square of this size, if asked for, shows at a glance whether a file was read at the right scale."""

LABEL_MM = 5.0
BARELY_MM = 0.05
"""A path narrower than this is one line, cut to and fro. Common practice: some machines stop or burn there."""

REACHED_MM = 0.1
"""An inside corner that keeps less than this is not felt. Common practice."""


@dataclass(frozen=True)
class CutPath:
    """One path of a copy of a part, or of none. `what` tells it from the other paths of that part, "" for the outline;
    `part_title` and `about` are those in words.

    `holes` are there where an area is to be filled: the path goes round it, they lie in it.
    """

    what: str
    about: str
    operation: Operation
    shape: Ring | Trace
    part: str = ""
    part_title: str = ""
    copy: int = 0
    inner: bool = False
    depth: float = 0.0
    filled: bool = False
    holes: tuple[Ring, ...] = ()

    @property
    def id(self) -> str:
        """Unique within its sheet: "front-1-hole-2"."""
        return "-".join(filter(None, (self.part, str(self.copy) if self.part else "", self.what)))

    @property
    def title(self) -> str:
        """Which part it belongs to, and what of it: "Front 1, hole 2"."""
        return ", ".join(filter(None, (f"{self.part_title} {self.copy}" if self.part else "", self.about)))

    @property
    def closed(self) -> bool:
        return not isinstance(self.shape, Trace)

    @property
    def length(self) -> float:
        return self.shape.length + math.fsum(hole.length for hole in self.holes)


@dataclass(frozen=True)
class SheetPlan:
    """A sheet's paths in the order in which they are to be done; y points up, the origin is the lower left corner.

    `travel` is the way between the paths in mm; `travel_unordered` is what it would be part by part as laid out. `back` is what
    is done on the other face, as it lies once the sheet is turned over about its edge `turned_about`.
    """

    number: int
    width: float
    height: float
    paths: tuple[CutPath, ...]
    travel: float = 0.0
    travel_unordered: float = 0.0
    back: tuple[CutPath, ...] = ()
    turned_about: TurnedAbout = "left"

    @property
    def cut_length(self) -> float:
        return math.fsum(path.length for path in self.paths if path.operation == "cut")


@dataclass(frozen=True)
class CutPlan:
    """`findings` are what the tool cannot do; their places are on the part."""

    name: str
    sheets: tuple[SheetPlan, ...]
    findings: tuple[Finding, ...] = ()


Kerfs = Mapping[str, float]
"""What the beam or tool takes, by board."""


def plan_cut(
    name: str,
    build: Build,
    layout: Layout,
    settings: Mapping[str, LayoutSettings],
    kerfs: Kerfs,
    profile: Profile = PLAIN,
) -> CutPlan:
    """Paths for every placed part, in the profile's order of operations, holes before outlines, with little travel.

    Raises KerfTooWide where the beam does not fit between the fingers of a joint, and OutOfRange where spacing or
    margin leave it no room.
    """
    check_room(build, settings, kerfs)
    check_job_work(segments_of(build))
    drawn = {part.id: drawing for part, drawing in zip(build.parts, _drawings(build, kerfs, profile), strict=True)}
    sheets = []
    said = [finding for one in drawn.values() for finding in one.findings]
    for sheet in layout.sheets:
        number = sheet.number
        paths = [
            _ON_SHEETS((one, *placed.motion.numbers, placed.copy), partial(_placed, one, placed.motion, placed.copy))
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
    return CutPlan(name, tuple(sheets), tuple(said))


def _back(
    layout: Layout, number: int, drawn: Mapping[str, _Drawing], profile: Profile, about: TurnedAbout
) -> tuple[CutPath, ...]:  # fmt: skip
    """What is done on the back of a sheet, where it lies once that is turned over."""
    area = layout.sheet(number).area
    over = mirror((area.width / 2, area.height / 2), 90.0 if about == "left" else 0.0)
    paths = [
        _placed(_placed(one, placed.motion, placed.copy), over, placed.copy)
        for placed in layout.on_sheet(number)
        for one in drawn[placed.part].back
    ]
    return tuple(_ordered(paths, profile, Waste([], 0.0, area.width, area.height))[0]) if paths else ()


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


def segments_of(build: Build) -> int:
    """How many lines and arcs all copies of all parts have."""
    return sum(_count(part) * part.quantity for part in build.parts)


def _count(part: FlatPart) -> int:
    """How many lines and arcs a part's outlines and marks have."""
    rings = [
        ring for region in (part.region, *(r for mark in part.marks for r in mark.regions)) for ring in region.rings
    ]
    traces = sum(len(trace.vertices) for mark in part.marks for trace in mark.traces)
    return traces + sum(1 if isinstance(ring, Circle) else len(ring.segments) for ring in rings)


def plan_part(part: FlatPart, build: Build, kerf: float, profile: Profile = PLAIN) -> SheetPlan:
    """One part by itself, as a sheet of its own size: what a file a part holds."""
    drawing = _drawing(part, build, kerf, kerf_path(part, kerf), profile)
    boxes = [one.path.shape.box for one in drawing.paths]
    left, low = min((box[0] for box in boxes), default=0.0), min((box[1] for box in boxes), default=0.0)
    right, high = max((box[2] for box in boxes), default=0.0), max((box[3] for box in boxes), default=0.0)
    # Around a part by itself there is room: leads are only kept out of the part.
    around = profile.lead_in_mm and profile.lead_in_mm + kerf
    width, height = right - left + 2 * around, high - low + 2 * around
    shift = Motion(around - left, around - low)
    waste = Waste([shift.region(finished(part, kerf))] if around else [], kerf, width, height)
    ordered, before, after = _ordered([_placed(one, shift, 1) for one in drawing.paths], profile, waste)
    return SheetPlan(1, width, height, tuple(ordered), after, before)


def cut_lengths(build: Build, layout: Layout, kerfs: Kerfs) -> tuple[float, ...]:
    """Of each sheet, in mm, the length of all through-cuts, without planning their order."""
    asked = [(part, kerfs[part.board]) for part in build.parts]
    new = [one for one in asked if _CUT_LENGTHS.find(one) is None]
    for kerf in {kerf for _, kerf in new}:
        parts = [part for part, other in new if other == kerf]
        for part, length in zip(parts, lengths_all([part.region for part in parts], kerf / 2), strict=True):
            whole = kerf_path(part, kerf).length if length is None else length
            _CUT_LENGTHS.keep((part, kerf), whole + _marks_length(part, kerf))
    of_part = {part.id: _CUT_LENGTHS.find((part, kerf)) or 0.0 for part, kerf in asked}
    return tuple(math.fsum(of_part[placed.part] for placed in layout.on_sheet(sheet.number)) for sheet in layout.sheets)


_CUT_LENGTHS: Remembered[float] = Remembered()


def _marks_length(part: FlatPart, kerf: float) -> float:
    """Of what is cut through beside the part's own outline."""
    cut = (mark for mark in part.marks if mark.operation == "cut" and not mark.back)
    return math.fsum(moved.length for mark in cut for moved in chain.from_iterable(_moved(mark, kerf)))


def kerf_path(part: FlatPart, kerf: float) -> Region:
    """The path whose beam of width `kerf` leaves `part` at its finished size, as far as the beam fits into it."""
    return _grown([(part.region, kerf / 2)])[0]


def finished(part: FlatPart, kerf: float) -> Region:
    """What comes off the machine: the part less what through-cuts on or outside their line take beyond it."""
    from ..geometry.boolean import difference

    wide = [
        shape
        for mark in part.marks
        if mark.operation == "cut"
        for region in mark.regions
        for shape in offset(region, kerf if mark.side == "outside" else kerf / 2 if mark.side == "on" else 0.0)
    ]
    return max(difference([part.region], wide), key=lambda region: region.area) if wide else part.region


def _grow(asked: Sequence[tuple[Region, float]]) -> list[Region]:
    results = dict[tuple[Region, float], Region]()
    for distance in {distance for _, distance in asked}:
        regions = [region for region, other in asked if other == distance]
        for region, grown in zip(regions, offset_all(regions, distance), strict=True):
            results[region, distance] = tidied(max(grown, key=lambda one: one.area))
    return [results[key] for key in asked]


# An edit seldom changes every part: the others' paths are at hand, and new ones are made together.
_grown = batched(_grow)


@dataclass(frozen=True)
class _Path:
    """A path on its part, and where it may start."""

    path: CutPath
    starts: tuple[Start, ...]


@dataclass(frozen=True)
class _Drawing:
    """`back` are the paths on the other face, where they would be seen through the front."""

    paths: tuple[_Path, ...]
    findings: tuple[Finding, ...]
    back: tuple[_Path, ...] = ()


def _drawings(build: Build, kerfs: Kerfs, profile: Profile) -> list[_Drawing]:
    given = [(part, kerfs[part.board], profile, *strips_of(build.mates, part.id)) for part in build.parts]
    found = [_DRAWN.find(one) for one in given]
    new = [(part, one) for part, one, drawing in zip(build.parts, given, found, strict=True) if drawing is None]
    grown = _grown([(part.region, kerfs[part.board] / 2) for part, _ in new])
    made = iter(
        _DRAWN.keep(one, _drawing(part, build, kerfs[part.board], path, profile))
        for (part, one), path in zip(new, grown, strict=True)
    )
    return [drawing or next(made) for drawing in found]


_DRAWN: Remembered[_Drawing] = Remembered(2048, lambda drawing: len(drawing.paths), 200_000)
_ON_SHEETS: Remembered[_Path] = Remembered(16_384)
_ENTERED: Remembered[CutPath] = Remembered(16_384)
_ORDERED: Remembered[tuple[list[CutPath], float, float]] = Remembered(64, lambda one: len(one[0]), 50_000)


def _drawing(part: FlatPart, build: Build, kerf: float, grown: Region, profile: Profile) -> _Drawing:
    members = strips_of(build.mates, part.id)
    included = {operation for operation, layer in profile.layers.items() if layer.include}
    paths: list[_Path] = []
    if "cut" in included:
        paths += _outlines(part.id, part.title, grown, members)
    back: list[_Path] = []
    for mark in part.marks:
        if mark.operation in included:
            (back if mark.back else paths).extend(_mark_paths(part, mark, kerf, profile))
    said = (
        *_lost(part, grown, kerf),
        *_too_fine(part, kerf),
        *_unreached(part, grown, kerf),
        *_barely(part, grown),
        *_on_the_back(part, profile),
    )
    return _Drawing(tuple(paths), said, tuple(back))


def _on_the_back(part: FlatPart, profile: Profile) -> Iterator[Finding]:
    """What is done on the other face is in a file of its own, which no proof reads; with a file a part it is in none."""
    back = [mark for mark in part.marks if mark.back]
    if back:
        apart = profile.split != "part"
        what = f"{len(back)} mark{'s are' if len(back) > 1 else ' is'} on the back of {part.title}"
        yield Finding(
            "on-the-back", "unseen",
            f"{what}, in a file of their own that is not proved." if apart else f"{what}, and in no file.",
            "Turn the sheet over about the edge that the file's name says, and check where it lies." if apart
            else "Write a file a sheet, make it a mark on the front, or turn the part over and do it by hand.",
            part.id, field=back[0].field,
        )  # fmt: skip


@lru_cache(maxsize=4096)
def _outlines(part: str, title: str, grown: Region, joints: tuple[Strip, ...]) -> tuple[_Path, ...]:
    holes = (
        _Path(CutPath(f"hole-{i}", f"hole {i}", "cut", hole, part, title, inner=True), starts(hole, ()))
        for i, hole in enumerate(grown.holes, 1)
    )
    return (*holes, _Path(CutPath("", "", "cut", grown.outer, part, title), starts(grown.outer, joints)))


def _mark_paths(part: FlatPart, mark: FlatMark, kerf: float, profile: Profile) -> Iterator[_Path]:
    count = 0

    def path(shape: Ring | Trace, *, inner: bool = False, filled: bool = False, holes: tuple[Ring, ...] = ()) -> _Path:
        nonlocal count
        count += 1
        one = CutPath(
            f"{mark.id}-{count}", mark.title, mark.operation, shape,
            part.id, part.title, 0, inner, mark.depth, filled, holes,
        )  # fmt: skip
        return _Path(one, () if isinstance(shape, Trace) else starts(shape, ()))

    for regions in _moved(mark, kerf):
        for moved in regions:
            if mark.operation == "engrave" and profile.engrave == "hatch":
                yield from (path(line) for line in hatched(moved, profile.hatch_mm))
            elif mark.operation == "engrave" and profile.engrave == "filled":
                yield path(moved.outer, filled=True, holes=moved.holes)
            else:
                yield from (path(hole, inner=True) for hole in moved.holes)
                yield path(moved.outer, inner=mark.operation == "cut")
    yield from (path(trace) for trace in mark.traces)


def _beside(mark: FlatMark, kerf: float) -> float:
    """How far beside a mark's outline the middle of the beam runs, outwards.

    A tool keeps inside its pocket; a beam has no width to speak of over an area or along a line.
    """
    if mark.side == "inside" or (mark.side == "auto" and mark.operation == "pocket"):
        return -kerf / 2
    return kerf / 2 if mark.side == "outside" else 0.0


@lru_cache(maxsize=1024)
def _moved(mark: FlatMark, kerf: float) -> tuple[tuple[Region, ...], ...]:
    """For each area of a mark what the middle of the beam goes round: nothing where the beam does not fit in."""
    return tuple(tuple(map(tidied, moved)) for moved in offset_all(mark.regions, _beside(mark, kerf)))


def _too_fine(part: FlatPart, kerf: float) -> Iterator[Finding]:
    """Marks that the beam or tool does not fit into."""
    for mark in part.marks:
        gone = [region for region, moved in zip(mark.regions, _moved(mark, kerf), strict=True) if not moved]
        if gone:
            left, low, right, high = gone[0].box
            yield Finding(
                "tool-too-wide", "stop",
                f"A kerf of {say_mm(kerf)} does not fit into the {mark.title} to {mark.operation} on {part.title}, "
                f"{say_mm(right - left)} x {say_mm(high - low)}.",
                "Make it wider than the kerf, or use a finer beam or tool.",
                part.id, place=((left + right) / 2, (low + high) / 2), amount=kerf - min(right - left, high - low),
            )  # fmt: skip


def _lost(part: FlatPart, grown: Region, kerf: float) -> Iterator[Finding]:
    """Holes that the beam or tool is too wide for."""
    if len(grown.holes) == len(part.region.holes):
        return
    for hole in part.region.holes:
        if not offset(Region(hole.reversed), -kerf / 2):
            left, low, right, high = hole.box
            yield Finding(
                "tool-too-wide", "stop",
                f"A kerf of {say_mm(kerf)} fills a hole of {say_mm(right - left)} x {say_mm(high - low)} in {part.title}.",
                "Make that hole wider than the kerf, or use a finer beam or tool.",
                part.id, place=((left + right) / 2, (low + high) / 2), amount=kerf - min(right - left, high - low),
            )  # fmt: skip


def _barely(part: FlatPart, grown: Region) -> Iterator[Finding]:
    """Holes that the tool only just fits into, one finding a part: its path there lies all but on itself."""
    thin = [(2 * abs(ring.area) / ring.length, ring) for ring in grown.holes]
    thin = [one for one in thin if one[0] < BARELY_MM]
    if thin:
        width, ring = min(thin, key=lambda one: one[0])
        left, low, right, high = ring.box
        yield Finding(
            "barely-fits", "look",
            f"The tool only just fits into {len(thin)} hole{'s' * (len(thin) > 1)} of {part.title}: its path there is "
            f"{say_mm(width)} wide.",
            "Make that hole a little wider, or use a finer tool; there it cuts the same line to and fro.",
            part.id, place=((left + right) / 2, (low + high) / 2), amount=width,
        )  # fmt: skip


def _unreached(part: FlatPart, grown: Region, kerf: float) -> Iterator[Finding]:
    """Inside corners that a round tool leaves a part of, one finding a part: as far as its path `grown` stays away."""
    square = not part.region.holes and not any(corner.bulge for corner in part.region.outer.corners)
    if square and (math.sqrt(2) - 1) * kerf / 2 <= REACHED_MM:
        return
    from ..geometry.segments import segments_of_rings

    corners = _inside_corners(part.region)
    # For walls without end; where walls are short, the tool comes nearer than that.
    narrow = [place for place, angle in corners if (1 / math.sin(angle / 2) - 1) * kerf / 2 > REACHED_MM]
    way, _ = segments_of_rings(list(grown.rings), [0] * (1 + len(grown.holes)))
    kept = [(place, left) for place in narrow if (left := way.nearest(place) - kerf / 2) > REACHED_MM]
    if kept:
        place, amount = max(kept, key=lambda one: one[1])
        yield Finding(
            "corner-unreached", "look",
            f"The tool leaves up to {say_mm(amount, 2)} in {len(kept)} inside corner{'s' * (len(kept) > 1)} of {part.title}.",
            "Round these corners, relieve them, use a finer tool, or leave them if nothing square goes there.",
            part.id, place=place, amount=amount,
        )  # fmt: skip


@lru_cache(maxsize=1024)
def _inside_corners(region: Region) -> tuple[tuple[Point, float], ...]:
    """Sharp inside corners, with the open angle between their walls."""
    import numpy as np

    from ..geometry.segments import previous_in_ring, segments_of_rings

    segments, ring = segments_of_rings(list(region.rings), [0] * (1 + len(region.holes)))
    arriving, leaving = segments.tangents(1)[previous_in_ring(ring)], segments.tangents(0)
    turn = np.arctan2(arriving[:, 0] * leaving[:, 1] - arriving[:, 1] * leaving[:, 0], (arriving * leaving).sum(axis=1))
    at = np.flatnonzero(turn < -math.radians(1))
    return tuple((tuple(segments.start[i].tolist()), math.pi + float(turn[i])) for i in at)


def _placed(one: _Path, motion: Motion, copy: int) -> _Path:
    path = one.path
    shape = motion.trace(path.shape) if isinstance(path.shape, Trace) else motion.ring(path.shape)
    holes = tuple(motion.ring(hole) for hole in path.holes)
    moved = replace(path, shape=shape, copy=copy, holes=holes)
    return _Path(moved, tuple(Start(start.segment, motion.point(start.point)) for start in one.starts))


def _ordered(paths: Sequence[_Path], profile: Profile, waste: Waste) -> tuple[list[CutPath], float, float]:
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
            enter = partial(_entered, one, step.entry, profile, waste)
            done.append(enter() if profile.lead_in_mm else _ENTERED((one, step.entry), enter))
            here = leave_at(stretches, step)
    return done, before, after


def _phases(paths: Sequence[_Path], order: Iterable[Operation]) -> Iterator[list[_Path]]:
    """One operation after the other."""
    for operation in order:
        yield [one for one in paths if one.path.operation == operation]


def _stretch(one: _Path, *, first: bool = False) -> Stretch:
    shape = one.path.shape
    if isinstance(shape, Trace):
        return Stretch((shape.vertices[0].point, shape.vertices[-1].point), open=True)
    if first:
        return Stretch((shape.corners[0].point,))
    return Stretch(tuple(start.point for start in one.starts))


def _entered(one: _Path, entry: int, profile: Profile, waste: Waste) -> CutPath:
    path = one.path
    if isinstance(path.shape, Trace):
        return replace(path, shape=path.shape.reversed) if entry else path
    ring = starting_at(path.shape, one.starts[entry])
    if not profile.lead_in_mm or path.operation != "cut":
        return replace(path, shape=ring)
    # Where the waste is too narrow there, it may not be at another start.
    others = (starting_at(path.shape, start) for start in one.starts if start is not one.starts[entry])
    led = (led_in(each, profile.lead_in_mm, waste) for each in chain([ring], others))
    return replace(path, shape=next(filter(None, led), ring))


def _extras(profile: Profile, build: Build, layout: Layout, sheet: int) -> list[CutPath]:
    """What is there to be read, not to be cut."""
    if not profile.layers["reference"].include:
        return []
    extra: list[CutPath] = []
    if profile.labels:
        for placed in layout.on_sheet(sheet):
            extra += _label(build.part(placed.part), placed.copy, placed.motion)
    if profile.reference_square:
        square = rectangle(0, 0, REFERENCE_MM, REFERENCE_MM)
        extra.append(CutPath("reference-square", f"Reference square, {say_mm(REFERENCE_MM)}", "reference", square))
    return extra


def _label(part: FlatPart, copy: int, motion: Motion) -> Iterator[CutPath]:
    """The part's name in its middle, as large as fits, upright on the sheet."""
    left, low, right, high = motion.region(part.region).box
    plain = "".join(c if c.isascii() else "-" for c in f"{part.title} {copy}")
    wide = lettered(plain, SINGLE_STROKE, LABEL_MM).width
    size = min(LABEL_MM, (high - low) / 3, LABEL_MM * 0.8 * (right - left) / wide)
    if size < 1:
        return
    drawn = lettered(plain, SINGLE_STROKE, size, "middle")
    x, y = (left + right) / 2, (low + high - size) / 2
    for index, stroke in enumerate(drawn.strokes, 1):
        line = Trace(tuple(Vertex(px + x, py + y) for px, py in stroke))
        yield CutPath(f"label-{index}", "label", "reference", line, part.id, part.title, copy)


def check_room(build: Build, settings: Mapping[str, LayoutSettings], kerfs: Kerfs) -> None:
    """Raises KerfTooWide or OutOfRange, as `plan_cut` does."""
    board = {part.id: part.board for part in build.parts}
    narrow = max(kerfs.values(), default=0.0)
    for mate in build.mates:
        for contact in mate.contacts if mate.narrowest <= narrow else ():
            sides = {board[contact.outer.part]} | ({board[contact.inner.part]} if contact.inner else set())
            widest = max(sides, key=lambda one: kerfs[one])
            kerf, narrowest = kerfs[widest], contact.narrowest if contact.inner else contact.outer_width
            if kerf >= narrowest:
                raise KerfTooWide(
                    f"A kerf of {say_mm(kerf)} does not fit between the {mate.inner}s of “{mate.title}”, "
                    f"{say_mm(narrowest)} wide.",
                    fix=f"Use {mate.inner}s wider than {say_mm(kerf)}, or a finer beam or tool.",
                    field=f"basis/{widest}/kerf",
                )
    for name in dict.fromkeys(board.values()):
        _check_spacing(settings[name], kerfs[name], f"layout/{name}")


def _check_spacing(settings: LayoutSettings, kerf: float, path: str) -> None:
    if settings.spacing <= kerf:
        raise OutOfRange(
            f"A spacing of {say_mm(settings.spacing)} leaves nothing between cuts {say_mm(kerf)} wide.",
            fix=f"Use a spacing of more than {say_mm(kerf)}.",
            field=f"{path}/spacing",
        )
    if settings.margin < kerf / 2:
        raise OutOfRange(
            f"With a margin of {say_mm(settings.margin)} the beam leaves the sheet.",
            fix=f"Use a margin of at least {say_mm(kerf / 2)}.",
            field=f"{path}/margin",
        )
