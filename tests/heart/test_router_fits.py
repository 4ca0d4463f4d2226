"""Joints on a router: relieved wherever a square corner goes home, measured where they bear, and refused with what would do."""

from __future__ import annotations

import math
from collections import Counter
from dataclasses import replace

import pytest
from joined import on_wall
from lean_notch.basis import Basis, Tool
from lean_notch.cli.main import main
from lean_notch.cutting import estimate
from lean_notch.cutting.time import path_seconds
from lean_notch.geometry.bones import ROOM
from lean_notch.ground.errors import NotchError
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute, job_to_json
from lean_notch.making import build
from plates import plate
from right_jobs import random_job
from routed import job_of, routed

JOINED = ("open-tray", "case", "divided-case", "divider-set", "rack", "framed-stand", "crossed-figure")
TOOLS = {6: (3.0,), 9: (3.0,), 12: (3.0, 3.175, 4.0, 6.0), 18: (3.0, 4.0, 5.0, 6.0)}
REFUSED = 9
"""Of all below: a framed stand whose inserts would stand in its base (height - insert - 3 x thickness is below 0)."""


def refusal(recipe, thick, tool):
    """The field where a job is refused, "" for one that can be made."""
    try:
        compute(job_of(recipe, thick, tool))
    except NotchError as error:
        return error.field
    return ""


def test_every_recipe_with_joints_fits_on_every_tool_or_is_refused_at_its_field():
    """Default sizes in boards of 6 to 18 mm, tools up to a third of the board and 6 mm: chosen, not tried."""
    refused = Counter()
    for recipe in JOINED:
        for thick, tools in TOOLS.items():
            for tool in tools:
                field = refusal(recipe, thick, tool)
                if field:
                    assert field.startswith("answers/"), (recipe, thick, tool, field)
                    assert 62 - 40 - 3 * thick < 0, "the closed form behind"
                    refused[field] += 1
                    continue
                proof = prove_job(compute(job_of(recipe, thick, tool)))
                assert proof.verdict == "fits", (
                    recipe,
                    thick,
                    tool,
                    [one.why for one in proof.findings if one.severity != "look"],
                )
    print(dict(refused))
    assert sum(refused.values()) == REFUSED


def test_what_a_dogbone_leaves_of_a_flank_is_told_in_mm():
    """A circle that touches a corner on its bisector takes the square root of 2 of its radius off either wall. Closed form."""
    built = compute(job_of("open-tray", 12, 6.0)).build
    mate = built.mates[0]
    [figure] = [one for one in mate.figures if one.key == "bearing"]
    corners = min(len(change.sharp) for change in mate.members)
    assert figure.value == pytest.approx(corners * (routed(12, 6.0).thickness - math.sqrt(2) * 3 * ROOM), rel=1e-6)


def test_a_joint_that_is_left_too_little_to_bear_on_is_refused_with_the_tool_that_would_do():
    job = job_of("open-tray", 12, 6.0, "t-bone")
    wrong = [one for one in build(job.design, job.basis).findings if one.code == "no-bearing"]
    assert wrong
    assert {one.severity for one in wrong} == {"stop"}
    assert "Use a tool of at most 5.9 mm" in wrong[0].fix
    mended = job_of("open-tray", 12, 5.9, "t-bone")
    assert "no-bearing" not in {one.code for one in build(mended.design, mended.basis).findings}


def test_a_slot_whose_ends_are_all_relief_is_refused_before_it_is_written():
    """Two dogbones of radius r bite sqrt(2) r each off the end of a slot: nothing is left of one narrower than 2 sqrt(2) r, and the
    proof measured across them: "0.667 mm of clearance, too loose; measure the kerf again"."""
    job = random_job(148)
    assert (job.basis.of("main").thickness, job.kerfs) == (pytest.approx(3.28), {"main": 3.0})
    result = compute(job)
    stops = [one for one in result.build.findings if one.code == "no-bearing"]
    assert stops
    assert "0 mm to bear on, at each end of a slot, 3.28 mm wide" in stops[0].why
    proof = prove_job(result)
    assert ("off-fit" in {one.code for one in proof.findings}, proof.fits) == (False, False)
    # The tool that it names leaves a tenth of each end, and the job then fits.
    told = float(stops[0].fix.split("at most ")[1].split(" mm")[0])
    assert 0.1 * 3.28 <= 3.28 - math.sqrt(2) * told * ROOM < 0.2 * 3.28
    finer = replace(job.basis.of("main"), machine=replace(job.basis.of("main").machine, kerf=told))
    assert prove_job(compute(replace(job, basis=Basis((("main", finer),))))).fits


def test_roots_of_tabs_are_relieved_and_the_slot_goes_home():
    """The wrong state: a tab was 5 mm wider at its root and stopped 2 mm before it was seated."""
    one = on_wall({"kind": "tab-and-slot"}, basis=Basis((("main", routed(12, 6.0)),)))
    result = compute(replace(one, layouts=()))
    shelf = next(change for mate in result.build.mates for change in mate.members if change.part == "shelf")
    assert len(shelf.sharp) == 2 * next(f.value for f in result.build.mates[0].figures if f.key == "tabs")
    assert prove_job(result).verdict == "fits"
    bare = compute(replace(one, layouts=(), design=replace(one.design, relief="none")))
    assert "corner-blocked" in {finding.code for finding in prove_job(bare).findings}


def lettered(height, tool):
    text = {
        "kind": "shape", "id": "t", "does": "cut", "x": 150, "y": 40,
        "shape": {"kind": "lettering", "text": "OAK", "font": "sans", "align": "middle", "height": height, "bridge": "9"},
    }  # fmt: skip
    blank = {"kind": "shape", "id": "blank", "shape": {"kind": "rectangle", "width": 300, "height": 120}}
    return replace(plate(text, blank=blank), basis=Basis((("main", routed(12, tool)),)), layouts=())


def test_an_opening_that_the_tool_enters_in_part_is_told_as_that_and_never_as_a_wrong_kerf():
    codes = {one.code: one for one in prove_job(compute(lettered("32", 6.0))).findings}
    assert codes["tool-not-in"].severity == "stop"
    assert "off-size" not in codes
    assert not any("measure the kerf again" in one.fix for one in codes.values())
    wide = {
        "kind": "shape",
        "id": "w",
        "does": "cut",
        "x": 40,
        "y": 20,
        "shape": {"kind": "rectangle", "width": 20, "height": 6.5},
    }
    entered = replace(plate(wide), basis=Basis((("main", routed(12, 6.0)),)), layouts=())
    assert "tool-not-in" not in {one.code for one in compute(entered).plan.findings}


def test_a_corner_that_stays_round_is_no_opening_that_was_not_entered():
    triangle = {
        "kind": "shape", "id": "t", "does": "cut", "x": 50, "y": 30, "shape": {"kind": "polygon", "sides": 3, "across": 40, "measured": "corners"},
    }  # fmt: skip
    job = replace(plate(triangle), basis=Basis((("main", routed(12, 6.0)),)), layouts=())
    assert "tool-not-in" not in {one.code for one in compute(job).plan.findings}


def test_join_prove_and_the_command_line_say_the_same_of_one_state(tmp_path, capsys):
    import json

    job = job_of("open-tray", 12, 6.0, "t-bone")
    (tmp_path / "job.json").write_text(json.dumps(job_to_json(job)))
    said = next(one.why for one in build(job.design, job.basis).findings if one.code == "no-bearing")
    assert said in [one.why for one in prove_job(compute(job)).findings]
    assert main(["joints", str(tmp_path / "job.json")]) == 1
    assert said in capsys.readouterr().out


def test_a_tool_wider_than_every_slot_is_said_where_it_was_chosen():
    for recipe in JOINED:
        if refusal(recipe, 6.0, 8.0):
            continue
        result = compute(job_of(recipe, 6.0, 8.0))
        stops = [one for one in (*result.build.findings, *result.plan.findings) if one.severity == "stop"]
        assert stops, recipe
        assert all(one.fix for one in stops), recipe
        known = {one.code for one in stops}
        late = [one for one in prove_job(result).findings if one.severity == "stop" and one.code not in known]
        # Where no tool goes into a joint its fit as cut is wrong too, and the first stop has said why.
        assert "kerf-too-wide" in known or not [one.why for one in late if "kerf" in one.fix], recipe


def test_a_board_of_40_mm_with_a_tool_of_2_goes_through_in_twenty_one_passes():
    board = routed(40.0, 2.0)
    job = replace(plate(), basis=Basis((("main", board),)), layouts=())
    result = compute(job)
    [path] = [path for path in result.plan.sheets[0].paths if path.operation == "cut"]
    speeds = board.machine.usual
    once = path_seconds(path.shape.segments, speeds.cut, speeds.acceleration)
    assert estimate(result.plan.sheets[0], board).by_operation["cut"] == pytest.approx(
        21 * once + 40.09 * 2 / speeds.cut
    )
    short = Tool("2 mm", 2.0, 10.0)
    fitted = replace(board, machine=replace(board.machine, tools=(short,), tool="2 mm"))
    found = compute(replace(job, basis=Basis((("main", fitted),)))).build.findings
    assert [(one.code, one.field) for one in found if one.severity == "stop"] == [("short-flutes", "basis/main/tool")]
