"""Every finding that the core may say is said by a test of what should bring it up; those here had none."""

from __future__ import annotations

import re
from dataclasses import replace
from pathlib import Path

import pytest
import shapely
from conftest import make_basis, make_job, prove_sheets, with_board
from joined import on_wall
from lean_notch.cutting import Profile
from lean_notch.design import design_from_json
from lean_notch.formats.file_kinds import FORMATS, not_held
from lean_notch.geometry import Region
from lean_notch.geometry import rectangle as ring
from lean_notch.hand_over.files import write_files
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute
from lean_notch.making import Brought, build
from lean_notch.proof.contacts import Gauge
from lean_notch.proof.joints_as_cut import JointsAsCut
from plates import plate, rectangle
from shapes import polygon

TESTS = Path(__file__).resolve().parents[1]
CORE = TESTS.parent / "core/lean_notch"
SAID = re.compile(r'\b(?:Finding|bad|unseen|_in_space)\(\s*(?:[a-z_.]+,\s*)*"([a-z]+(?:-[a-z]+)*)"')


def test_every_finding_is_named_by_a_test():
    codes = {code for path in CORE.rglob("*.py") for code in SAID.findall(path.read_text())}
    named = "".join(path.read_text() for path in TESTS.rglob("*.py"))
    assert len(codes) > 60
    assert sorted(code for code in codes if f'"{code}"' not in named) == []


def found(built, code):
    return [one for one in built.findings if one.code == code]


def lettered(text):
    letters = {"kind": "lettering", "text": text, "height": 20}
    return compute(plate({"kind": "shape", "id": "t", "does": "cut", "x": 5, "y": 20, "shape": letters})).build


def test_a_bridge_at_a_slanted_wall_is_to_be_looked_at():
    """The island of a 4 has a slanted side, that of a D none where its bridges are."""
    [said] = found(lettered("4"), "bridge-askew")
    assert said.severity == "look"
    assert 5 <= said.place[0] <= 25
    assert found(lettered("D"), "bridge-askew") == []


@pytest.mark.parametrize(
    ("changes", "field", "said"),
    [
        ({"parts": [{"id": "plate", "title": "Plate", "board": "oak", "loose": 1, "steps": [rectangle("blank", 9, 9)]}]}, "parts/plate/board", "board “oak”"),
        ({"placements": [{"id": "one", "part": "gone", "pose": {"kind": "numbers"}}]}, "placements/one/part", "part “gone”"),
    ],
)  # fmt: skip
def test_what_names_something_that_is_gone_says_what(changes, field, said):
    whole = {"lean_notch_design": 2, "name": "Plate", "parts": [{"id": "plate", "title": "Plate", "loose": 1, "steps": [rectangle("blank", 9, 9)]}]}  # fmt: skip
    built = build(design_from_json({**whole, **changes}), make_basis())
    [one] = found(built, "dangling")
    assert (one.field, said in one.why) == (field, True)


def test_what_is_left_out_of_a_file_is_told_and_its_unit_asked_for():
    brought = Brought((Region(ring(0.0, 0.0, 40.0, 30.0)),), 1, ("1 open line",), "mm")
    step = {"kind": "shape", "id": "plan", "shape": {"kind": "imported", "file": "0" * 64}}
    job = plate(blank=step)
    built = build(job.design, job.basis, lambda _: brought)
    [left], [unit] = found(built, "file-left-out"), found(built, "file-no-unit")
    assert (left.severity, left.field) == ("unseen", "parts/plate/steps/plan/shape/layers")
    assert "1 open line" in left.why
    assert (unit.severity, unit.field) == ("stop", "parts/plate/steps/plan/shape/unit")
    whole = replace(brought, left=(), assumed="")
    assert build(job.design, job.basis, lambda _: whole).findings == ()


def test_a_joint_whose_tabs_are_elsewhere_is_told():
    result = compute(on_wall({"kind": "tab-and-slot"}))
    there = {part.id: polygon(part.region) for part in result.build.parts}
    shelf = shapely.affinity.translate(there["shelf"], 60, 0)
    gauges = {"wall": [Gauge(there["wall"])], "shelf": [Gauge(shelf)]}
    assert "fingers-missing" in {one.code for one in JointsAsCut(result.build, result.job.basis, gauges).findings}
    right = {part: [Gauge(shape)] for part, shape in there.items()}
    assert "fingers-missing" not in {one.code for one in JointsAsCut(result.build, result.job.basis, right).findings}


def test_that_a_lock_snaps_in_is_not_measured():
    [said] = found(compute(on_wall({"kind": "tab-and-slot", "count": 1, "lock": "0.8"})).build, "lock-not-measured")
    assert said.severity == "unseen"
    assert found(compute(on_wall({"kind": "tab-and-slot", "count": 1})).build, "lock-not-measured") == []


def test_a_pocket_that_leaves_its_part_is_to_be_looked_at():
    def pocket(x):
        mark = rectangle("well", 20, 10, does="mark", x=x, y=20)
        return compute(plate({**mark, "operation": "pocket", "depth": "1"})).build

    [said] = found(pocket(90), "off-part")
    assert said.place == pytest.approx((100, 25))
    assert found(pocket(80), "off-part") == []


@pytest.mark.parametrize(
    ("profile", "format", "fields"),
    [
        (Profile(), "svg", []),
        (Profile(y_down=True), "svg", ["y_down"]),
        (Profile(y_down=True, engrave="filled"), "dxf", ["engrave"]),
        (Profile(unit="in", origin="centre", y_down=True), "pdf", ["unit", "origin", "y_down"]),
        (Profile(origin="lower left", engrave="filled"), "pdf", []),
    ],
)
def test_what_a_format_cannot_hold_is_said_at_its_field(profile, format, fields):
    said = not_held(profile, format)
    assert {one.code for one in said} <= {"not-held"}
    assert [one.field for one in said] == fields
    assert all(one.why.startswith(FORMATS[format].title) for one in said)


def test_a_square_that_was_promised_and_is_not_there_stops():
    plain, asked = (compute(make_job(), Profile(reference_square=square)) for square in (False, True))
    files = {one.sheet: one.data for one in write_files(plain, "svg")}
    assert "square-missing" in {one.code for one in prove_sheets(asked, files).findings}
    files = {one.sheet: one.data for one in write_files(asked, "svg")}
    assert "square-missing" not in {one.code for one in prove_sheets(asked, files).findings}


def test_a_line_of_an_unknown_layer_over_a_part_stops_and_beside_it_was_not_looked_at():
    result = compute(make_job())
    [file] = write_files(result, "svg")

    def proved(x, y):
        line = f'<g id="notes" fill="none" stroke="#123456"><path d="M{x} {y} L{x + 5} {y - 5}"/></g></svg>'
        return {
            one.code for one in prove_sheets(result, {1: file.data.decode().replace("</svg>", line).encode()}).findings
        }

    assert "unknown-layer" in proved(20, 380)
    assert proved(560, 30) == {"not-looked-at"}


def test_a_sheet_that_is_larger_than_the_bed_is_not_known_to_lie_there_once_it_is_turned_over():
    mark = {"kind": "disc", "diameter": 10}
    back = {"kind": "shape", "id": "ring", "shape": mark, "does": "mark", "operation": "score", "face": "back", "x": 20, "y": 30}  # fmt: skip

    def proved(width):
        job = plate(back, sheet=(width, 300))
        bed = replace(job.basis.of("main").machine, bed_width=600)
        return {one.code for one in prove_job(compute(replace(job, basis=with_board(job.basis, machine=bed)))).findings}

    assert "back-not-looked-at" in proved(900)
    assert "back-not-looked-at" not in proved(500)
