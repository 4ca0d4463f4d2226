"""What the maker's first page shows of a job, made once a revision: in, a job; out, a small document kept with it."""

from __future__ import annotations

from collections.abc import Iterable
from contextlib import suppress
from typing import Any

from django.db import DatabaseError
from lean_notch.formats.svg_path import path_data
from lean_notch.geometry import Point, Region, Ring, flatten, loops
from lean_notch.ground.elsewhere import TooLongHere, within
from lean_notch.ground.errors import NotchError
from lean_notch.ground.remembered import by_value
from lean_notch.job import Job, Result
from lean_notch.joints import CrossLap
from lean_notch.joints.mate import Strip
from lean_notch.making import Build, FlatPart
from lean_notch.told.another_basis import job_seconds
from lean_notch.told.route import route
from results import release

from .compute import Beside, computed
from .models import Revision

Picture = dict[str, Any]

FORM = 4
"""Pictures of an older form are made anew."""

CHORD_MM = 0.3
PLAN_SECONDS = 0.5
MOST_PANELS, MOST_FLAT, MOST_LETTERS = 200, 60, 80_000
"""Of one picture: a list of two hundred jobs is sent at once."""

MOST_HOLES = 400
SMALLEST_HOLE_MM2 = 20.0
_NOTHING: Picture = {
    "form": FORM, "release": "", "boards": [], "panels": [], "flat": [], "titles": [], "stops": [], "pieces": 0, "sheets": 0, "used": 0.0,
    "seconds": None, "problem": None, "drawn": None,
}  # fmt: skip

LOOKED_BACK = 20
"""How many revisions to go back for one that can still be drawn."""


def picture_of(revision: Revision) -> Picture:
    """The picture of a revision; of one that cannot be read or computed any more, its problem, and the picture of the last
    revision before it that can. Of one that takes long there is none until it is opened."""
    try:
        return picture(revision.job)
    except Beside:
        return _NOTHING
    except NotchError as error:
        return {**_last_good(revision), "problem": error.as_json()}


def _last_good(revision: Revision) -> Picture:
    before = revision.parent
    for _ in range(LOOKED_BACK):
        if before is None:
            break
        try:
            return {**picture(before.job), "drawn": before.number}
        except NotchError:
            before = before.parent
    return {**_NOTHING, "release": release.core()}


def keep_picture(revision: Revision) -> None:
    """Makes the picture of a revision that has none of this release; on a disk that cannot be written it is shown only."""
    if is_of_release(revision.picture):
        return
    made = picture_of(revision)
    if made is _NOTHING:
        return
    revision.picture = made
    with suppress(DatabaseError):
        revision.save(update_fields=["picture"])


def is_current(picture: Picture | None) -> bool:
    return bool(picture) and picture is not None and picture.get("form") == FORM


def is_of_release(picture: Picture | None) -> bool:
    """Whether what it says of the first stops is what this release would say; an older one can be drawn all the same."""
    return picture is not None and is_current(picture) and picture.get("release") == release.core()


def picture(job: Job) -> Picture:
    """The parts as they stand, or flat where none stands, with the boards as measured and the stops that need no proof."""
    result = computed(job)
    built, layout = result.build, result.layout
    regions = {part.id: part for part in built.parts if part.quantity}
    panels = panels_of(built)
    flat = [
        {"path": "".join(path_data(ring, digits=1) for ring in _seen(part.region)), "box": part.region.box, "quantity": part.quantity}
        for part in list(regions.values())[: 0 if panels else MOST_FLAT]
    ]  # fmt: skip
    return {
        "form": FORM, "release": release.core(),
        "boards": [
            {"name": basis.stock.name, "thickness": basis.thickness, "stock": basis.stock.id, "machine": basis.machine.id}
            for basis in (job.basis.of(board.id) for board in job.design.boards)
        ],
        "panels": panels, "flat": flat, "titles": [part.title for part in built.parts],
        "stops": [[stop.key, stop.title, stop.line, stop.state, stop.wants] for stop in route(result)[:4]],
        "pieces": sum(part.quantity for part in built.parts), "sheets": len(layout.sheets), "used": used_share(result),
        "seconds": _seconds(result), "problem": None, "drawn": None,
    }  # fmt: skip


def _seconds(result: Result) -> float | None:
    """None where planning the cuts takes longer than a picture may."""
    try:
        with within(PLAN_SECONDS):
            return job_seconds(result)
    except TooLongHere:
        return None


def panels_of(built: Build) -> list[dict[str, Any]]:
    """Every board as it stands, up to `MOST_PANELS`; where all of them are more than `MOST_LETTERS` long, their boxes."""
    drawn = {part.id: _loops(part.region) for part in built.parts}
    standing = [one for one in built.standings if one.part in drawn][:MOST_PANELS]
    letters = sum(len(line) for one in standing for line in (drawn[one.part]["outline"], *drawn[one.part]["holes"]))
    if letters > MOST_LETTERS:
        drawn = {part.id: _box(part.region) for part in built.parts}
    parted = {} if letters > MOST_LETTERS else _parted(built)
    return [
        {"origin": one.origin, "u": one.u, "v": one.v, "n": one.n, "thickness": one.thickness, **piece}
        for one in standing for piece in parted.get(one.placement, [drawn[one.part]])
    ][:MOST_PANELS]  # fmt: skip


def _parted(built: Build) -> dict[str, list[dict[str, Any]]]:
    """By placement, boards that others pass through, in the pieces on either side of those: only so can one be drawn after what
    it hides."""
    crossed: dict[str, list[tuple[Strip, str]]] = {}
    for mate in built.mates:
        if mate.kind == CrossLap.kind:
            crossed.setdefault(mate.second.placement, []).append((mate.meeting.second, mate.second.part))
    return {name: _pieces(built.part(some[0][1]), tuple(strip for strip, _ in some)) for name, some in crossed.items()}


@by_value(1024)
def _pieces(part: FlatPart, strips: tuple[Strip, ...]) -> list[dict[str, Any]]:
    from shapely import LineString, Polygon
    from shapely.ops import split

    pieces = [Polygon(*loops(part.region, CHORD_MM))]
    far = 2 * max(abs(one) for one in part.region.box) + 10
    for strip in strips:
        middle = (strip.low + strip.high) / 2
        line = LineString([strip.point(-far, middle), strip.point(far, middle)])
        pieces = [one for piece in pieces for one in split(piece, line).geoms]
    return [
        {"outline": _line(piece.exterior.coords[:-1]), "holes": [_line(ring.coords[:-1]) for ring in piece.interiors]}
        for piece in pieces
    ]


def used_share(result: Result) -> float:
    """Of all sheets' area."""
    layout = result.layout
    return sum(result.used(sheet.number) for sheet in layout.sheets) / layout.area if layout.sheets else 0.0


def _box(region: Region) -> dict[str, Any]:
    left, low, right, high = region.box
    return {"outline": _line([(left, low), (right, low), (right, high), (left, high)]), "holes": []}


def _line(points: Iterable[Point]) -> str:
    """To a tenth of a millimetre, as text: a list of numbers takes ten times as long to read from the database."""
    return " ".join(f"{round(x, 1):g} {round(y, 1):g}" for x, y in points)


def _seen(region: Region, smallest: float = 0.0) -> list[Ring]:
    """Its outline, and as many holes as a small picture can show."""
    return [region.outer, *(hole for hole in region.holes[:MOST_HOLES] if abs(hole.area) > smallest)]


def _loops(region: Region) -> dict[str, Any]:
    """Outlines to a tenth of a millimetre: a drawing a hand wide shows no more."""
    outline, *others = (_line(flatten(ring.segments, CHORD_MM)) for ring in _seen(region, SMALLEST_HOLE_MM2))
    return {"outline": outline, "holes": others}
