"""Which edge of which part meets which, and how they share it; corners where three panels meet are settled here.

In: a design's joints and where its panels stand; out: mates, each with one division that both members follow.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping
from dataclasses import dataclass

from ..design import Design, EdgeRef, FingerJoint, Side
from ..errors import NotchError, PanelsDoNotMeet
from ..geometry import Point
from ..joints.finger import FingerDivision, Interval, divide_edge
from ..units import say_mm
from .outline import Notch
from .stand import Standing

_TOUCH_MM = 1e-6


@dataclass(frozen=True)
class Member:
    """One side of a mate: `place = start + sense * position` turns a position of the division into one on the side.

    `panel` is the part's width and height before joints, `depth` the thickness of the board it meets.
    """

    part: str
    side: Side
    start: float
    sense: float
    panel: tuple[float, float]
    depth: float

    @property
    def length(self) -> float:
        """Of the whole side."""
        return self.panel[0 if self.side in ("bottom", "top") else 1]

    def point(self, position: float, depth: float) -> Point:
        """A place on the part: `position` along the division, `depth` into the panel from its outer edge."""
        along = self.start + self.sense * position
        width, height = self.panel
        places: dict[Side, Point] = {
            "bottom": (along, depth),
            "top": (along, height - depth),
            "left": (depth, along),
            "right": (width - depth, along),
        }
        return places[self.side]

    def on_side(self, interval: Interval) -> Interval:
        a, b = (self.start + self.sense * value for value in interval)
        return (min(a, b), max(a, b))


@dataclass(frozen=True)
class Mate:
    """A joint as built: who meets whom, and the division of the edge they share."""

    id: str
    title: str
    first: Member
    second: Member
    division: FingerDivision

    def notches(self, member: Member) -> tuple[Notch, ...]:
        """What `member` gives away, on its own side.

        Where the shared edge stops short of the side because a third panel has the corner, the end piece goes on
        to the side's end: nobody else fills what lies between.
        """
        given = self.division.first_gives if member is self.first else self.division.second_gives
        low, high = member.on_side((0.0, self.division.cuts[-1]))
        notches = []
        for interval in given:
            start, end = member.on_side(interval)
            start = 0.0 if start <= low + _TOUCH_MM else start
            end = member.length if end >= high - _TOUCH_MM else end
            notches.append(Notch(start, end, member.depth))
        return tuple(sorted(notches))


def make_mates(design: Design, standings: Mapping[str, Standing], names: Mapping[str, float]) -> tuple[Mate, ...]:
    """A mate for each joint. Raises NotchError at the field that the joint goes back to."""
    first_over: dict[str, set[str]] = defaultdict(set)
    for joint in design.joints:
        first_over[joint.second.part].add(joint.first.part)
    return tuple(_mate(design, joint, standings, names, first_over) for joint in design.joints)


FirstOver = Mapping[str, set[str]]
"""For each part, those that are first in a joint with it."""


def _mate(
    design: Design,
    joint: FingerJoint,
    standings: Mapping[str, Standing],
    names: Mapping[str, float],
    first_over: FirstOver,
) -> Mate:
    first, second = standings[joint.first.part], standings[joint.second.part]
    axis, (low, high) = _shared_edge(joint, first, second)
    low, high = _less_corners(design, joint, standings, first_over, axis, low, high)
    try:
        wanted = joint.finger.mm(names) if joint.finger else None
    except NotchError as error:
        raise error.at("finger") from None
    try:
        division = divide_edge(high - low, max(first.thickness, second.thickness), names["clearance"], wanted)
    except NotchError as error:
        # Without a wanted width the edge itself is what is too short.
        if error.field == "finger" and wanted is None:
            error.field = _size_field(design, joint.first)
        raise
    return Mate(
        joint.id,
        joint.title,
        _member(joint.first, first, second.thickness, low),
        _member(joint.second, second, first.thickness, low),
        division,
    )


def _size_field(design: Design, edge: EdgeRef) -> str:
    panel = next(part.panel for part in design.parts if part.id == edge.part)
    return design.chosen_behind(panel.width if edge.side in ("bottom", "top") else panel.height)


def _member(edge: EdgeRef, standing: Standing, depth: float, low: float) -> Member:
    _, zero, sense = standing.along(edge.side)
    return Member(edge.part, edge.side, (low - zero) * sense, sense, (standing.width, standing.height), depth)


def _shared_edge(joint: FingerJoint, first: Standing, second: Standing) -> tuple[int, Interval]:
    """The axis along which two panels share a bar of material, and from where to where."""
    axis, _, _ = first.along(joint.first.side)
    spans = [
        (max(a, b), min(c, d))
        for a, b, c, d in zip(first.box[0], second.box[0], first.box[1], second.box[1], strict=True)
    ]
    wrong = axis != second.along(joint.second.side)[0] or first.n[axis] or second.n[axis]
    if wrong or any(high - low <= _TOUCH_MM for low, high in spans):
        raise PanelsDoNotMeet(
            f"“{joint.title}” joins edges that do not meet at a right angle.",
            fix="Join edges of panels that stand at 90 degrees and share a corner.",
            field=f"joints.{joint.id}",
        )
    return axis, spans[axis]


def _less_corners(
    design: Design,
    joint: FingerJoint,
    standings: Mapping[str, Standing],
    first_over: FirstOver,
    axis: int,
    low: float,
    high: float,
) -> Interval:
    """The shared edge without the corner blocks that a third panel has, being first over both members."""
    start, end = low, high
    for third in first_over.get(joint.first.part, set()) & first_over.get(joint.second.part, set()):
        box = standings[third].box
        if box[0][axis] <= low + _TOUCH_MM:
            start = max(start, box[1][axis])
        elif box[1][axis] >= high - _TOUCH_MM:
            end = min(end, box[0][axis])
    if end <= start:
        raise PanelsDoNotMeet(
            f"“{joint.title}” has nothing left between its corners, {say_mm(high - low)} apart.",
            fix="Make the panels larger, or use a thinner board.",
            field=_size_field(design, joint.first),
        )
    return start, end
