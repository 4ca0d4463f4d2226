"""A kind of joint that the program does not have: it passes everything that works on contacts, without being known."""

from dataclasses import dataclass
from typing import ClassVar

import pytest
from conftest import make_basis, make_board
from lean_notch.basis import Basis
from lean_notch.cutting import plan_cut
from lean_notch.design import ByNumbers, Design, Joint, Member, Part, Placement, Rectangle, ShapeStep
from lean_notch.errors import NotchError
from lean_notch.geometry.space import cross, unit
from lean_notch.job import Job, compute
from lean_notch.joints import KINDS
from lean_notch.joints.mate import Caliper, Change, Contact, Mate, Meeting, Notch, SharpCorner, Strip
from lean_notch.ledger import ledger
from lean_notch.proving import prove_job
from lean_notch.route import route
from lean_notch.trial import try_basis
from lean_notch.typed import Typed
from lean_notch.units import Length


@dataclass(frozen=True)
class Crossing(Typed):
    """Two upright parts cross half-way along both: the first is slotted from its top, the second from its bottom."""

    kind: ClassVar[str] = "crossing"


class CrossingJoint:
    how = Crossing
    title = "crossing"
    second = "edge"

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
        return Meeting(first.frame.at(first.line[0]), axis, 1.0, *strips)

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
                Change(seat.placement, seat.part, strip, (Notch(seat.named, x - half, x + half, deep),), (), sharp)
            )
            lines = tuple((strip.point(-2 * half, s * deep), strip.point(2 * half, s * deep)) for s in (0.5, 0.05))
            contacts.append(Contact(other.part, None, Caliper(seat.part, lines), other.thickness, gap, deep, seat.part))
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


@pytest.fixture(autouse=True)
def registered(monkeypatch):
    monkeypatch.setitem(KINDS, Crossing, CrossingJoint())


def test_it_is_built_and_proved_and_without_it_the_parts_stand_in_each_other():
    result = compute(crossing())
    assert len(result.build.mates) == 1
    proof = prove_job(result)
    assert (proof.verdict, {one.code for one in proof.findings}) == ("fits", {"fit-spread"})
    assert proof.mates[0].clearance == pytest.approx((0.02, 0.02), abs=1e-3)
    [finding] = prove_job(compute(crossing(joined=False))).findings
    assert (finding.code, finding.severity) == ("doubled", "stop")
    assert finding.amount == pytest.approx(3.06, abs=0.1)
    # Where the two cross: the rail's middle, anywhere up its height.
    assert finding.space[:2] == pytest.approx((80, 1.5), abs=0.5)


def test_its_figures_its_fit_and_the_stops_are_told():
    result = compute(crossing())
    rows = {row.key: row for row in ledger(result)["joint:cross"]}
    assert rows["socket"].value == pytest.approx(3.08)
    assert rows["socket"].title == "slot, across"
    assert rows["fit"].word == "press to snug"
    assert "1 joint" in next(stop.line for stop in route(result) if stop.key == "join")
    thick = try_basis(result, make_basis(readings=(3.4, 3.5, 3.6)))
    assert thick.failing == ()
    assert len(thick.joints) == 1


def test_the_beam_must_have_room_in_its_slot():
    with pytest.raises(NotchError) as caught:
        compute(crossing(Basis((("main", make_board(readings=(0.4,), kerf=0.45, clearance=0.02)),))))
    assert caught.value.code == "kerf-too-wide"
    assert "Rail over foot" in caught.value.why


def test_starts_keep_off_its_slots_and_a_router_gets_its_relief():
    """No path starts on a flank of a slot, and a tool of 2 mm leaves a square corner free."""
    job = crossing()
    result = compute(job)
    plan = plan_cut("rack", result.build, result.layout, job.all_settings, job.kerfs)
    for path in plan.sheets[0].paths:
        assert path.shape.length > 0
    relieved = Job(
        Design(job.design.name, job.design.parts, job.design.placements, job.design.joints, relief="dogbone"),
        make_basis(kerf=0.4, sheet=(600, 400)),
    )
    built = compute(relieved).build
    assert all(any(v.bulge for v in part.region.outer.vertices) for part in built.parts)
    assert prove_job(compute(relieved)).verdict == "fits"
