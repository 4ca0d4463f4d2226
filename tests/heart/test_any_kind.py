"""A kind of joint that the program does not have: it passes everything that works on contacts, without being known."""

from dataclasses import replace

import pytest
from conftest import make_basis, make_board
from crossing import Crossing, CrossingJoint, crossing
from lean_notch.basis import Basis
from lean_notch.cutting import plan_cut
from lean_notch.design import Design
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import Job, compute
from lean_notch.joints import KINDS
from lean_notch.told.another_basis import try_basis
from lean_notch.told.ledger import ledger
from lean_notch.told.route import route


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
    result = compute(crossing(Basis((("main", make_board(readings=(0.4,), kerf=0.45, clearance=0.02)),))))
    [finding] = [one for one in result.build.findings if one.code == "kerf-too-wide"]
    assert finding.severity == "stop"
    assert "Rail over foot" in finding.why


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


def test_a_joint_that_has_nothing_to_measure_is_not_called_measured(monkeypatch):
    class Unmeasured(CrossingJoint):
        def make(self, asked):
            return replace(super().make(asked), contacts=())

    monkeypatch.setitem(KINDS, Crossing, Unmeasured())
    proof = prove_job(compute(crossing()))
    assert proof.verdict == "as-far-as-seen"
    [told] = [one for one in proof.findings if one.code == "joints-not-measured"]
    assert "Rail over foot" in told.why
