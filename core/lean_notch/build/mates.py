"""Which edge of which part meets which, and how they share it; corners where three panels meet are settled here.

In: a design's joints and where its parts stand; out: mates, each with one division that both members follow.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ..basis import Basis
from ..design import SIDES, Design, Joint, Part, Side
from ..design import Member as JointMember
from ..errors import NotchError, PanelsDoNotMeet
from ..geometry import Point
from ..joints.finger import FingerDivision, Interval, divide_edge
from ..units import say_mm
from .outline import Notch
from .part import moved_blank
from .stand import Standing

_TOUCH_MM = 1e-6


@dataclass(frozen=True)
class Member:
    """One side of a mate: `place = start + sense * position` turns a position of the division into one on the side.

    `panel` is the blank's width and height before joints, `depth` the thickness of the board it meets.
    """

    placement: str
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


class NoEdge(NotchError):
    """A joint names an edge that is not there, or not one that can be joined."""

    code = "no-edge"


def make_mates(
    design: Design, standings: Mapping[str, Standing], names: Mapping[str, Mapping[str, float]], basis: Basis
) -> tuple[tuple[Mate, ...], tuple[tuple[Joint, NotchError], ...]]:
    """A mate for each joint, `names` being lengths by board; and the joints whose members are not there any more.

    Raises NotchError at the field that a joint goes back to.
    """
    first_over: dict[str, set[str]] = defaultdict(set)
    whole, lost = [], []
    for joint in design.joints:
        try:
            sides = [side_of(design, joint, member, end, standings) for member, end in _ends(joint)]
        except NoEdge as error:
            lost.append((joint, error))
        else:
            first_over[joint.second.placement].add(joint.first.placement)
            whole.append((joint, sides))
    mates = tuple(_mate(design, joint, sides, standings, names, basis, first_over) for joint, sides in whole)
    return mates, tuple(lost)


def _ends(joint: Joint) -> tuple[tuple[JointMember, str], ...]:
    return ((joint.first, "first"), (joint.second, "second"))


def side_of(design: Design, joint: Joint, member: JointMember, end: str, standings: Mapping[str, Standing]) -> Side:
    """The side of a part's blank that a member names. Raises NoEdge at the member."""
    path = f"joints/{joint.id}/{end}"
    placement = design.placement(member.placement)
    part = design.part(placement.part) if placement else None
    if part is None or member.placement not in standings:
        raise NoEdge(
            f"“{joint.title}” joins “{member.placement}”, which does not stand anywhere.",
            fix="Remove the joint, or place the part again.", field=f"{path}/placement",
        )  # fmt: skip
    step, _, side = member.edge.rpartition(".")
    blank = part.blank
    if blank is None or blank.id != step or side not in SIDES:
        sides = (
            f"{', '.join(f'{blank.id}.{one}' for one in SIDES)}" if blank else "none, since it starts from no rectangle"
        )
        raise NoEdge(
            f"“{joint.title}” joins the edge {member.edge} of {part.title}, which cannot be joined.",
            fix=f"Edges of {part.title} that can: {sides}.", field=f"{path}/edge",
        )  # fmt: skip
    mover = moved_blank(part)
    if mover is not None:
        raise NoEdge(
            f"“{joint.title}” joins {member.edge} of {part.title}, which the step {mover.id} moves.",
            fix="Switch that step off, or remove the joint.", field=f"{path}/edge",
        )  # fmt: skip
    return side


FirstOver = Mapping[str, set[str]]
"""For each placement, those that are first in a joint with it."""


def _mate(
    design: Design,
    joint: Joint,
    sides: Sequence[Side],
    standings: Mapping[str, Standing],
    names: Mapping[str, Mapping[str, float]],
    basis: Basis,
    first_over: FirstOver,
) -> Mate:
    first, second = standings[joint.first.placement], standings[joint.second.placement]
    axis, (low, high) = _shared_edge(joint, sides, first, second)
    own = _part_of(design, first)
    low, high = _less_corners(joint, standings, first_over, axis, low, high, own, sides[0], design)
    field = f"joints/{joint.id}/how/width"
    try:
        wanted = joint.how.width.mm(names[own.board]) if joint.how.width else None
    except NotchError as error:
        raise error.at(_finger_field(design, field)) from None
    clearance = basis.of(own.board).clearance
    try:
        division = divide_edge(high - low, max(first.thickness, second.thickness), clearance, wanted)
    except NotchError as error:
        if error.field == "finger":
            # Without a wanted width the edge itself is what is too short.
            error.field = _size_field(own, sides[0], design) if wanted is None else _finger_field(design, field)
        elif error.field == "clearance":
            error.field = f"basis/{own.board}/clearance"
        raise
    return Mate(
        joint.id,
        joint.title,
        _member(sides[0], first, second.thickness, low),
        _member(sides[1], second, first.thickness, low),
        division,
    )


def _part_of(design: Design, standing: Standing) -> Part:
    part = design.part(standing.part)
    assert part, "what stands is a part of the design"
    return part


def _finger_field(design: Design, field: str) -> str:
    """Where a finger's width was typed: as the recipe's answer, or at the joint."""
    asked = design.origin and design.origin.answer("finger")
    joint = next(one for one in design.joints if field == f"joints/{one.id}/how/width")
    return "answers/finger" if asked and joint.how.width and asked.length == joint.how.width else field


def _size_field(part: Part, side: Side, design: Design) -> str:
    """The path of what decides how long a side of a part's blank is."""
    blank = part.blank
    assert blank, "a side belongs to a blank"
    size = "width" if side in ("bottom", "top") else "height"
    return design.input_behind(getattr(blank.shape, size)) or f"parts/{part.id}/steps/{blank.id}/shape/{size}"


def _member(side: Side, standing: Standing, depth: float, low: float) -> Member:
    _, zero, sense = standing.along(side)
    return Member(
        standing.placement, standing.part, side, (low - zero) * sense, sense, (standing.width, standing.height), depth
    )  # fmt: skip


def _shared_edge(joint: Joint, sides: Sequence[Side], first: Standing, second: Standing) -> tuple[int, Interval]:
    """The axis along which two panels share a bar of material, and from where to where."""
    axis, _, _ = first.along(sides[0])
    spans = [
        (max(a, b), min(c, d))
        for a, b, c, d in zip(first.box[0], second.box[0], first.box[1], second.box[1], strict=True)
    ]
    wrong = axis != second.along(sides[1])[0] or first.n[axis] or second.n[axis]
    if wrong or any(high - low <= _TOUCH_MM for low, high in spans):
        raise PanelsDoNotMeet(
            f"“{joint.title}” joins edges that do not meet at a right angle.",
            fix="Join edges of panels that stand at 90 degrees and share a corner.",
            field=f"joints/{joint.id}",
        )
    return axis, spans[axis]


def _less_corners(
    joint: Joint,
    standings: Mapping[str, Standing],
    first_over: FirstOver,
    axis: int,
    low: float,
    high: float,
    own: Part,
    side: Side,
    design: Design,
) -> Interval:
    """The shared edge without the corner blocks that a third panel has, being first over both members."""
    start, end = low, high
    for third in first_over.get(joint.first.placement, set()) & first_over.get(joint.second.placement, set()):
        box = standings[third].box
        if box[0][axis] <= low + _TOUCH_MM:
            start = max(start, box[1][axis])
        elif box[1][axis] >= high - _TOUCH_MM:
            end = min(end, box[0][axis])
    if end <= start:
        raise PanelsDoNotMeet(
            f"“{joint.title}” has nothing left between its corners, {say_mm(high - low)} apart.",
            fix="Make the panels larger, or use a thinner board.",
            field=_size_field(own, side, design),
        )
    return start, end
