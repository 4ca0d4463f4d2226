"""What a proof shows of itself: corners seen closely, deviations where they are, and what was tested."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from conftest import drawn, make_basis, make_board, make_job, one_board
from lean_notch.geometry import Circle, Region, rectangle
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute
from lean_notch.proof.close_up import CloseLooks, edge_at, spots
from lean_notch.proof.compare import nominal_polygon


def of(close_up, what):
    return next(one.off for one in close_up.measured if one.of == what)


@pytest.fixture(scope="module")
def proof():
    return prove_job(compute(make_job()))


def test_every_part_is_shown_at_a_corner_with_what_was_measured_there(proof):
    """A path half a kerf outside, a finished edge on nominal, and what a round beam of radius r leaves in a square inner corner:
    r (sqrt 2 - 1), by the circle that touches both sides."""
    shown = {one.part: one for one in proof.close_ups}
    assert set(shown) == {"front", "back", "left", "right", "base"}
    for one in shown.values():
        assert (one.what, one.finding, one.beam) == ("inner corner", -1, 0.14)
        assert of(one, "path") == pytest.approx(0.07, abs=1e-4)
        assert of(one, "finished") == pytest.approx(0.0, abs=1e-3)
        assert of(one, "corner") == pytest.approx(0.07 * (math.sqrt(2) - 1), abs=1e-3)
        assert all((one.nominal, one.finished, one.paths))
        x, y = one.place
        places = [p for lines in (one.nominal, one.finished, one.paths) for line in lines for p in line]
        assert all(max(abs(a - x), abs(b - y)) <= one.reach + 1e-4 for a, b in places)


def looked(region, paths, kerf=0.2):
    import shapely

    finished = nominal_polygon(region)
    looks = CloseLooks(1, [shapely.LinearRing(path) for path in paths], kerf)
    return looks.at(spots(region)[0], "plate", 1, nominal_polygon(region), finished)


def test_a_path_is_measured_outwards_on_the_side_of_the_waste():
    region = Region(rectangle(0, 0, 40, 20))
    shown = looked(
        region, [[(-0.1, -0.1), (40.1, -0.1), (40.1, 20.1), (-0.1, 20.1)], [(41, -5), (50, -5), (50, 30), (41, 30)]]
    )
    assert (shown.what, of(shown, "path")) == ("outer corner", pytest.approx(0.1))
    assert of(shown, "corner") == 0


def test_a_part_without_corners_is_shown_at_its_edge():
    region = Region(Circle(30, 30, 10))
    shown = looked(region, [[(30 + 10.1 * math.cos(t / 50), 30 + 10.1 * math.sin(t / 50)) for t in range(314)]])
    assert shown.what == "edge"
    assert of(shown, "path") == pytest.approx(0.1, abs=1e-3)
    assert not [one for one in shown.measured if one.of == "corner"]


def test_a_place_on_an_outline_knows_which_way_is_out():
    region = Region(rectangle(0, 0, 40, 20), (Circle(10, 10, 4),))
    for place, spot, along in (((20, 0.4), (20, 0), (1, 0)), ((39.7, 5), (40, 5), (0, 1))):
        found = edge_at(region, place)
        assert (found.place, found.along) == (pytest.approx(spot), pytest.approx(along))
    hole = edge_at(region, (14.3, 10))
    assert math.dist(hole.place, (10, 10)) == pytest.approx(4, abs=1e-6)


def test_what_came_out_right_shows_no_deviation_and_every_inner_corner(proof):
    for part in proof.parts:
        assert part.runs == ()
    kept = [one for part in proof.parts for one in part.kept]
    assert len(kept) > 100
    assert all(off == pytest.approx(0.029, abs=1e-3) for _, _, off in kept)


def test_a_deviation_is_told_where_it_is_and_which_way():
    """The same file, judged by a beam twice as wide as it was made for: every edge is short by the half of what it takes more."""
    from lean_notch.hand_over.files import write_files
    from lean_notch.hand_over.reading import read_any
    from lean_notch.proof import Face, Given, prove

    result = compute(make_job())
    wider = compute(make_job(one_board(make_board(kerf=0.28))))
    file = read_any(write_files(result, "svg")[0].data, "tray.svg")
    front = Given(Face(file, frozenset({"cut"})))
    found = prove({1: front}, result.build, result.layout, wider.job.basis, wider.plan)
    front = next(part for part in found.parts if part.part == "front")
    assert not front.ok
    assert front.runs
    assert {round(math.hypot(dx, dy), 2) for run in front.runs for _, _, dx, dy in run} == {0.07}
    shown = next(one for one in found.close_ups if one.finding >= 0)
    assert found.findings[shown.finding].code == "off-size"
    assert of(shown, "finished") == pytest.approx(-0.07, abs=2e-3)
    rows = {one.key: one for one in found.tested}
    assert (rows["outlines"].state, rows["outlines"].found) == ("bad", "0 of 5 good, at most 0.07 mm off")
    assert rows["joints"].state == "bad"


def test_what_was_tested_claims_no_more_than_was_measured(proof):
    rows = {one.key: one for one in proof.tested}
    assert {key: one.state for key, one in rows.items()} == {
        "outlines": "ok", "corners": "ok", "joints": "ok", "clearance": "ok", "thickness": "ok", "space": "ok",
        "marks": "none", "paths": "ok",
    }  # fmt: skip
    assert rows["joints"].found == "8 of 8 fit"
    assert rows["space"].found == "5 of 5 stood up, none overlap"
    assert rows["paths"].found == "5 of 5 sound"
    assert rows["marks"].found == "there are none"


def test_an_empty_job_tested_nothing():
    job = make_job()
    nothing = replace(job, design=replace(job.design, parts=(), placements=(), joints=(), origin=None))
    found = prove_job(compute(nothing))
    assert {one.state for one in found.tested} == {"none"}
    assert found.close_ups == ()


def test_parts_are_given_as_cut_in_their_own_frame(proof):
    front, *holes = proof.as_cut["front"]
    assert holes == []
    assert len(proof.as_cut["base"]) == 1
    xs, ys = [x for x, _ in front], [y for _, y in front]
    assert (max(xs) - min(xs), max(ys) - min(ys)) == (pytest.approx(156.12, abs=0.02), pytest.approx(63.06, abs=0.02))


def test_close_looks_are_bounded():
    """A plate with 300 webs that are too thin has as many findings as are listed, and no more windows than are stepped through."""
    rows = {"kind": "grid", "columns": 20, "rows": 10, "dx": "3.5", "dy": "3.5"}
    job = make_job(make_basis(), width="150")
    many = drawn(
        job,
        {
            "kind": "shape",
            "id": "holes",
            "does": "cut",
            "x": "30",
            "y": "12",
            "shape": {"kind": "disc", "diameter": "3"},
            "pattern": rows,
        },
    )
    found = prove_job(compute(many))
    assert any(one.code == "thin-web" for one in found.findings)
    assert len(found.close_ups) <= 120
