"""What a beam or a tool cannot make of a part: holes that close up, corners that stay round."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import TYPE_CHECKING

from ..geometry import Point, Region, Ring, flatten
from ..geometry.offset import offset
from ..ground.findings import Finding
from ..ground.remembered import by_value
from ..lengths.said import say_mm
from ..making import FlatPart
from .profile import Profile

if TYPE_CHECKING:
    import shapely

BARELY_MM = 0.05
"""A path narrower than this is one line, cut to and fro. Common practice: some machines stop or burn there."""


REACHED_MM = 0.1
"""An inside corner that keeps less than this is not felt. Common practice."""


def on_the_back(part: FlatPart, profile: Profile) -> Iterator[Finding]:
    """With a file a part, what is done on the other face is in no file."""
    back = [mark for mark in part.marks if mark.back]
    if back and profile.split == "part":
        yield Finding(
            "on-the-back", "unseen",
            f"{len(back)} mark{'s are' if len(back) > 1 else ' is'} on the back of {part.title}, and in no file.",
            "Write a file a sheet, make it a mark on the front, or turn the part over and do it by hand.",
            part.id, field=back[0].field,
        )  # fmt: skip


def lost(part: FlatPart, grown: Region, kerf: float) -> Iterator[Finding]:
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


def barely(part: FlatPart, grown: Region) -> Iterator[Finding]:
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


def not_entered(part: FlatPart, grown: Region, kerf: float) -> Iterator[Finding]:
    """Openings that a tool enters in part only, one finding a part: what stays is more than a corner keeps."""
    if kerf < BLUNT_MM or not grown.holes:
        return
    import shapely

    radius = kerf / 2
    ways = shapely.union_all([_polygon(hole).buffer(radius, quad_segs=16) for hole in grown.holes])
    worst: tuple[float, shapely.Geometry] | None = None
    for hole in part.region.holes:
        shape = _polygon(hole)
        left = shapely.difference(shape, ways) if shapely.intersects(shape, ways) else shapely.Polygon()
        for piece in shapely.get_parts(left.buffer(-CORNER_SHARE * radius)):
            if not piece.is_empty and (worst is None or piece.area > worst[0]):
                worst = (float(piece.area), piece)
    if worst:
        spot = worst[1].representative_point()
        wide = 2 * (CORNER_SHARE * radius + float(shapely.distance(spot, worst[1].boundary)))
        yield Finding(
            "tool-not-in", "stop",
            f"A tool of {say_mm(kerf)} does not enter all of an opening of {part.title}: a piece about {say_mm(wide, 1)} wide stays in it.",
            f"Make the opening wider than {say_mm(kerf)} everywhere, or use a finer tool.", part.id, place=(spot.x, spot.y), amount=wide,
        )  # fmt: skip


BLUNT_MM = 0.5
"""A beam is finer than any opening that it is asked to cut."""

CORNER_SHARE = 0.7
"""What a round tool leaves in a corner of the angle a takes a circle of (1 - s) / (1 + s) of its radius, where s is sin(a / 2): a third
at 60 degrees, this much at 20. Closed form. What takes a larger one was not entered."""

_CHORD_MM = 0.01


def _polygon(ring: Ring) -> shapely.Polygon:
    import shapely

    return shapely.Polygon(flatten(ring.segments, _CHORD_MM)).buffer(0)


def unreached(part: FlatPart, grown: Region, kerf: float) -> Iterator[Finding]:
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


@by_value(1024)
def _inside_corners(region: Region) -> tuple[tuple[Point, float], ...]:
    """Sharp inside corners, with the open angle between their walls."""
    import numpy as np

    from ..geometry.segments import previous_in_ring, segments_of_rings

    segments, ring = segments_of_rings(list(region.rings), [0] * (1 + len(region.holes)))
    arriving, leaving = segments.tangents(1)[previous_in_ring(ring)], segments.tangents(0)
    turn = np.arctan2(arriving[:, 0] * leaving[:, 1] - arriving[:, 1] * leaving[:, 0], (arriving * leaving).sum(axis=1))
    at = np.flatnonzero(turn < -math.radians(1))
    return tuple((tuple(segments.start[i].tolist()), math.pi + float(turn[i])) for i in at)
