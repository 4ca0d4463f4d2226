"""A kind of joint that the program does not have: two upright parts cross, each slotted half-way."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

from conftest import make_basis
from lean_notch.basis import Basis
from lean_notch.design import ByNumbers, Design, Joint, Member, Part, Placement, Rectangle, ShapeStep
from lean_notch.documents.as_typed import Typed
from lean_notch.geometry.space import cross, unit
from lean_notch.job import Job
from lean_notch.joints.mate import Caliper, Change, Contact, Mate, Meeting, Notch, SharpCorner, Strip
from lean_notch.lengths.length import Length


@dataclass(frozen=True)
class Crossing(Typed):
    """Two upright parts cross half-way along both: the first is slotted from its top, the second from its bottom."""

    kind: ClassVar[str] = "crossing"


class CrossingJoint:
    how = Crossing
    title = "crossing"
    ends = ("edge", "edge")

    def meet(self, first, second):
        axis = unit(cross(first.frame.n, second.frame.n))
        strips = []
        for seat, other in ((first, second), (second, first)):
            left, right = sorted(
                place for z in (0.0, other.thickness) for place in [seat.frame.flat(other.frame.at((0.0, 0.0), z))[0]]
            )
            edge = seat.line[0][1]
            down = -1.0 if edge > 1 else 1.0
            strips.append(Strip(seat.named, ((left + right) / 2, edge), (1.0, 0.0), (0.0, down), 0.0, self.deep(seat)))
        return Meeting(first.frame.at(first.line[0]), axis, 1.0, *strips, angle=90.0)

    def deep(self, seat):
        return max(line[0][1] for line in seat.edges.values()) / 2

    def make(self, asked):
        changes, contacts = [], []
        gap = asked.first.board.clearance
        members = ((asked.first, asked.second, asked.meeting.first), (asked.second, asked.first, asked.meeting.second))
        for seat, other, strip in members:
            half, deep = (other.thickness + gap) / 2, strip.high
            x = strip.origin[0]
            sharp = tuple(
                SharpCorner(strip.point(way * half, deep), (-way, 0.0), (-strip.inward[0], -strip.inward[1]), 50.0, deep,
                            strip.point(way * (half - gap / 2), deep))
                for way in (-1.0, 1.0)
            )  # fmt: skip
            changes.append(
                Change(
                    seat.placement,
                    seat.part,
                    strip,
                    (Notch(seat.named, x - half, x + half, deep),),
                    corners=lambda found=sharp: found,
                )
            )
            runs = tuple((-2 * half, share * deep, 2 * half, share * deep) for share in (0.5, 0.05))
            outer = Caliper(seat.part, strip, runs)
            contacts.append(Contact(other.part, None, outer, other.thickness, gap, deep, seat.part))
        return Mate(
            asked.id,
            asked.title,
            "crossing",
            "crossing at 90°",
            "board",
            "slot",
            *changes,
            tuple(contacts),
            asked.meeting,
            pushes=((0.0, 0.0, 1.0),),
        )


def crossing(basis: Basis | None = None, *, joined: bool = True) -> Job:
    parts = tuple(
        Part(name, name.capitalize(), (ShapeStep("blank", Rectangle(Length(width), Length("60"))),))
        for name, width in (("rail", "160"), ("foot", "120"))
    )  # fmt: skip
    placements = (
        Placement("rail", "rail", ByNumbers(turn_x=90)),
        Placement("foot", "foot", ByNumbers(x=Length("80 + thickness/2"), y=Length("-60"), turn_x=90, turn_z=90)),
    )
    joint = Joint("cross", "Rail over foot", Member("rail", "blank.top"), Member("foot", "blank.bottom"), Crossing())
    return Job(Design("Boot rack", parts, placements, (joint,) if joined else ()), basis or make_basis())
