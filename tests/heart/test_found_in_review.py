"""What a review of the proof and of written files found: each was wrong once."""

import json
import math
import sys
from dataclasses import replace
from pathlib import Path

import pytest
import shapely
from conftest import drawn, edited, make_basis, make_board, make_job, one_board, prove_sheets
from lean_notch.basis import Basis, Machine
from lean_notch.basis.machine import KerfFound
from lean_notch.cli.main import main
from lean_notch.cutting import Layer, Profile
from lean_notch.cutting.profile import dxf_layer, layer_id
from lean_notch.design import design_from_json, design_to_json
from lean_notch.edits import Edit
from lean_notch.formats.dxf_read import read_dxf
from lean_notch.geometry import Circle, Contour, Region, Vertex, rectangle
from lean_notch.geometry.boolean import difference, union
from lean_notch.geometry.offset import offset
from lean_notch.hand_over.files import write_files
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import ChosenLayout, Job, compute
from lean_notch.making import joint_fits
from lean_notch.proof import NOT_LOOKED_AT
from lean_notch.told.route import route

BASIS = str(Path(__file__).resolve().parents[2] / "demo" / "basis.json")


def codes(proof, severity=None):
    return {one.code for one in proof.findings if severity in (None, one.severity)}


def shape(name, what, **values):
    return {"kind": "shape", "id": name, "shape": what, **values}


def sign(steps, machine=None, thickness=12.0, size=(500, 200)):
    """One part that stands nowhere."""
    board = make_board((thickness,), sheet=(1250, 1250))
    board = replace(board, machine=machine) if machine else board
    blank = shape("blank", {"kind": "rectangle", "width": size[0], "height": size[1]})
    document = {"lean_notch_design": 2, "name": "Trail sign", "parts": [
        {"id": "sign", "title": "Sign", "loose": 1, "steps": [blank, *steps]},
    ]}  # fmt: skip
    return Job(design_from_json(document), one_board(board), (("main", ChosenLayout(12, 14)),))


ROUTER = Machine(
    "Barn router", "router", 1250, 1250, 6.0, found=KerfFound("slats", "Poplar ply", 12.0, "2026-03-01", 0.0)
)


# What the proof asks


def test_a_kerf_that_nobody_measured_is_said_wherever_it_counts():
    job = make_job(one_board(make_board(typed_kerf=True)))
    proof = prove_job(compute(job))
    assert (proof.verdict, proof.sentence) == ("fits", "Fits, if the kerf is 0.14 mm (typed in, not measured)")
    [finding] = proof.findings
    assert (finding.severity, finding.field) == ("look", "basis/main/kerf")
    assert "test piece" in finding.fix
    assert prove_job(compute(make_job())).sentence == "Fits"


def test_proud_means_the_same_before_and_after_cutting():
    result = compute(make_job())
    fits = joint_fits(result.build.parts, result.build.mates, result.job.basis)
    for fit, mate in zip(fits, prove_job(result).mates, strict=True):
        assert mate.proud == pytest.approx(fit.proud, abs=1e-3)


def test_the_proof_does_not_take_a_cut_beside_its_line_from_the_cut_plan(monkeypatch):
    """A plan that runs outside cuts on their line, and an idea of what is left to match it: still found."""

    def on_the_line(part, kerf):
        cut = [grown for mark in part.marks for region in mark.regions for grown in offset(region, kerf / 2)]
        return max(difference([part.region], cut), key=lambda one: one.area)

    monkeypatch.setattr("lean_notch.cutting.drawn._beside", lambda *_: 0.0)
    monkeypatch.setattr(sys.modules["lean_notch.proof.prove"], "finished", on_the_line)
    outside = shape(
        "slot", {"kind": "rectangle", "width": 40.125, "height": 20}, does="cut", side="outside", x=60, y=60
    )
    proof = prove_job(compute(sign([outside])))
    assert "off-line" in codes(proof, "stop")
    assert "off-size" not in codes(proof)


@pytest.mark.parametrize("side", ["on", "outside"])
def test_cuts_that_cross_are_said_and_nothing_crashes(side):
    rects = [
        shape(
            f"r{i}",
            {"kind": "rectangle", "width": 40, "height": 30},
            does="cut",
            side=side,
            x=60 + 20 * i,
            y=60 + 10 * i,
        )
        for i in range(2)
    ]
    proof = prove_job(compute(sign(rects)))
    assert proof.verdict == "does-not-fit"
    [cross, *_] = [one for one in proof.findings if one.code == "paths-cross"]
    assert cross.place


def test_a_hole_and_its_copy_a_hair_beside_it_are_said():
    holes = [
        shape(f"h{i}", {"kind": "disc", "diameter": 8}, does="cut", side="on", x=60 + 0.05 * i, y=60) for i in range(2)
    ]
    assert prove_job(compute(sign(holes))).verdict == "does-not-fit"


def test_sheets_that_are_not_given_are_not_called_a_fit():
    result = compute(replace(make_job(make_basis(sheet=(300, 240))), sets=2))
    files = {one.sheet: one.data for one in write_files(result, "svg")}
    assert len(files) > 1
    assert prove_sheets(result, files, "svg").verdict == "fits"
    part = prove_sheets(result, {1: files[1]}, "svg")
    assert part.verdict == "as-far-as-seen"
    assert "sheet-not-given" in codes(part, "unseen")
    none = prove_sheets(result, {}, "svg")
    assert (none.verdict, none.sentence) == ("as-far-as-seen", "Nothing was measured")
    assert {"joints-not-measured", "placements-not-measured"} <= codes(none, "unseen")


def test_firsts_in_a_circle_are_settled_and_every_corner_is_filled():
    """front > left, left > base, base > front: the corner of the three is the first one's in the list of joints."""
    job = edited(
        make_job(),
        Edit("put", "joints/front-base/first", {"placement": "base", "edge": "blank.bottom"}),
        Edit("put", "joints/front-base/second", {"placement": "front", "edge": "blank.bottom"}),
    )
    plain, circle = compute(make_job()), compute(job)
    assert sum(p.region.area for p in circle.build.parts) == pytest.approx(
        sum(p.region.area for p in plain.build.parts), abs=2
    )
    proof = prove_job(circle)
    assert proof.findings == ()
    assert proof.verdict == "fits"


def test_a_rounded_jointed_corner_that_leaves_a_hole_is_said_with_its_place():
    job = drawn(make_job(), {"kind": "corner", "id": "round", "corners": ["blank.bottom-left"], "size": 5})
    hole, *_ = [one for one in prove_job(compute(job)).findings if one.code == "corner-open"]
    assert (hole.severity, hole.sheet) == ("look", 1)
    assert math.dist(hole.space, (0, 0, 0)) < 6
    assert 5 < hole.amount < 60


def test_swapping_first_and_second_exchanges_fingers_and_sockets_and_nothing_else():
    """A law, on two boards that only meet each other."""
    job = edited(make_job(), *(Edit("drop", f"parts/{one}") for one in ("back", "right", "base")))
    joint = next(one for one in design_to_json(job.design)["joints"] if one["id"] == "front-left")
    swapped = edited(
        job,
        Edit("put", "joints/front-left/first", joint["second"]),
        Edit("put", "joints/front-left/second", joint["first"]),
    )
    t = job.basis.of("main").thickness
    for part, width in (("front", 156.12), ("left", 106.12)):
        a, b = (compute(one).build.part(part).region for one in (job, swapped))
        strip = shapely.box(0, 0, t, 63.06) if part == "front" else shapely.box(width - t, 0, width, 63.06)
        one, two = (shapely.Polygon([v.point for v in region.outer.vertices]) for region in (a, b))
        assert one.symmetric_difference(two).difference(strip).area == pytest.approx(0, abs=1e-9)
        # What one has in the strip the other has not, but for the gaps beside six cuts of the edge.
        both = one.intersection(two).intersection(strip).area
        neither = strip.difference(one).difference(two).area
        assert both == pytest.approx(0, abs=1e-9)
        assert neither == pytest.approx(6 * 0.01 * t, abs=1e-6)


def test_what_no_reading_of_a_flat_file_can_see_is_listed():
    assert any("depth" in one for one in NOT_LOOKED_AT)
    assert any("warp" in one for one in NOT_LOOKED_AT)


def test_a_kerf_known_within_a_hundredth_is_not_stopped_for_less():
    """Written for 0.13, cut with 0.14 as measured: 0.005 an edge, where the kerf is known within 0.012."""

    def known(kerf):
        board = make_board()
        found = replace(board.machine.found, within=0.012)
        return one_board(replace(board, machine=replace(board.machine, kerf=kerf, found=found)))

    files = {1: write_files(compute(make_job(known(0.13))), "svg")[0].data}
    assert prove_sheets(compute(make_job(known(0.14))), files, "svg").verdict == "fits"
    assert prove_sheets(compute(make_job(known(0.17))), files, "svg").verdict == "does-not-fit"
    sure = make_job(make_basis(kerf=0.14))
    wider = {1: write_files(compute(make_job(make_basis(kerf=0.115))), "svg")[0].data}
    assert prove_sheets(compute(sure), wider, "svg").verdict == "does-not-fit"


def test_marks_beside_their_part_and_thin_webs_have_a_word():
    score = shape("s", {"kind": "line", "to_x": 560, "to_y": 40}, does="mark", operation="score", x=20, y=40)
    proof = prove_job(compute(sign([score], size=(500, 60))))
    assert "mark-beyond" in codes(proof, "stop")
    far = shape("s", {"kind": "line", "to_x": 1300, "to_y": 40}, does="mark", operation="score", x=20, y=40)
    assert "mark-off-sheet" in codes(prove_job(compute(sign([far]))), "stop")
    holes = [shape(f"h{i}", {"kind": "disc", "diameter": 8}, does="cut", x=60 + 8.05 * i, y=60) for i in range(2)]
    [web] = [one for one in prove_job(compute(sign(holes))).findings if one.code == "thin-web"]
    assert web.amount == pytest.approx(0.05, abs=0.005)


def test_a_mark_that_runs_onto_the_next_part_stops():
    job = drawn(
        make_job(), shape("s", {"kind": "line", "to_x": 300, "to_y": 30}, does="mark", operation="score", x=20, y=30)
    )
    assert "mark-on-other" in codes(prove_job(compute(job)), "stop")


def test_a_mark_that_runs_off_its_part_into_the_waste_is_on_no_other():
    job = drawn(
        make_job(), shape("s", {"kind": "line", "to_x": 20, "to_y": -9}, does="mark", operation="score", x=20, y=30)
    )
    found = codes(prove_job(compute(job)), "stop")
    assert "mark-beyond" in found
    assert "mark-on-other" not in found


# Reliefs


@pytest.mark.parametrize(("relief", "tool"), [("t-bone", 4.5), ("dogbone", 7.8)])
def test_reliefs_that_eat_their_flanks_say_so(relief, tool):
    """A board of 6: a T-bone of 4.5 takes more than two thirds of a flank, a dogbone of 7.8 leaves 8 %."""
    machine = replace(ROUTER, kerf=tool, found=replace(ROUTER.found, thickness=6.0))
    board = replace(make_board((6.0,), sheet=(1250, 1250)), machine=machine)
    job = make_job(one_board(board), ChosenLayout(20, 20), width="300", depth="200", height="150", finger="25")
    found = compute(edited(job, relief=relief)).build.findings
    [weak, *_] = [one for one in found if one.code == "weak-flank"]
    assert "6 mm flank" in weak.why
    assert weak.amount < 2


# Files


def test_large_letters_for_a_router_are_not_stopped():
    """The tool does not reach all of them, and cuts into none: that is said, and no stop."""
    text = {"kind": "lettering", "text": "Marsh", "height": 60}
    proof = prove_job(compute(sign([shape("t", text, does="cut", x=30, y=60)], machine=ROUTER)))
    assert proof.verdict == "fits"
    [left] = [one for one in proof.findings if one.code == "corner-unreached"]
    assert left.amount < 12


def test_a_path_round_all_but_nothing_has_a_word():
    """A slot of 6.02 for a tool of 6: its path is 0.02 mm wide and 34 long."""
    slot = shape("s", {"kind": "rectangle", "width": 40, "height": 6.02}, does="cut", x=60, y=60)
    proof = prove_job(compute(sign([slot], machine=ROUTER)))
    [told] = [one for one in proof.findings if one.code == "barely-fits"]
    assert told.amount == pytest.approx(0.02, abs=0.001)
    assert proof.verdict == "fits"


def test_text_paths_have_no_pieces_too_short_to_cut():
    text = {"kind": "lettering", "text": "Marsh & Pond 8", "height": 20}
    result = compute(sign([shape("t", text, does="cut", x=30, y=60)]))
    lengths = [s.length for path in result.plan.sheets[0].paths for s in path.shape.segments]
    assert min(lengths) > 0.002
    # Through 12 mm they are too small for their bridges, which is said; else nothing stops them.
    assert codes(prove_job(result), "stop") == {"letters-lost"}
    [said] = [one.why for one in result.build.findings if one.code == "letters-lost"]
    assert said == "In t more than half of “a & P o d 8” is lost to bridges 12 mm wide."
    assert route(result)[1].wants == "letters lost in 1 text"


@pytest.mark.parametrize("name", ["Through 1", "Étage 2", "cut.outer", "Top-Layer_3", "ß 4"])
@pytest.mark.parametrize("kind", ["svg", "dxf", "dxf-r12"])
def test_odd_layer_names_are_read_as_they_were_written(name, kind):
    profile = Profile(layers={**Profile().layers, "cut": Layer(name, "#000000"), "pocket": Layer("Deep 1", "#009E73")})
    well = shape(
        "w", {"kind": "rectangle", "width": 30, "height": 20}, does="mark", operation="pocket", depth=1.25, x=60, y=60
    )
    assert prove_job(compute(sign([well]), profile), kind).verdict == "fits"
    for written in (layer_id(name), dxf_layer(name)):
        assert profile.operation_of(written) == "cut"
    assert profile.depth_of(dxf_layer("Deep 1 1.25MM")) == 1.25


@pytest.mark.parametrize("kind", ["dxf", "dxf-r12"])
@pytest.mark.parametrize("ends", ["\r\n", "\r"])
def test_other_line_ends_change_nothing(kind, ends):
    result = compute(make_job())
    data = write_files(result, kind)[0].data
    other = data.replace(b"\n", ends.encode())
    assert read_dxf(other).paths == read_dxf(data).paths
    assert prove_sheets(result, {1: other}, kind).verdict == "fits"


def test_the_command_line_survives_what_nobody_expected(tmp_path, capsys, monkeypatch):
    design = tmp_path / "tray.json"
    assert main(["recipe", "open-tray", "--out", str(design)]) == 0
    monkeypatch.setattr("lean_notch.making.build", lambda *_: 1 / 0)
    assert main(["build", str(design), "--basis", BASIS]) == 3
    said = capsys.readouterr().err
    assert said.count("\n") == 1
    assert "ZeroDivisionError" in said
    assert main(["build", str(design), "--basis", BASIS, "--json"]) == 3
    assert json.loads(capsys.readouterr().err)["error"]["code"] == "unexpected"
    with pytest.raises(ZeroDivisionError):
        main(["build", str(design), "--basis", BASIS, "--traceback"])


def test_exit_codes_tell_a_fit_from_as_far_as_seen(tmp_path, capsys):
    design = tmp_path / "tray.json"
    main(["recipe", "open-tray", "--set", "width=400", "--set", "depth=300", "--out", str(design)])
    main(["export", str(design), "--basis", BASIS, "--out", str(tmp_path), "--json"])
    files = json.loads(capsys.readouterr().out.split("\n", 0)[-1])["files"]
    assert len(files) > 1
    for given, code, verdict in ((files, 0, "fits"), (files[:1], 4, "as-far-as-seen")):
        assert main(["prove", *given]) == code
        report = json.loads(capsys.readouterr().out)
        assert (report["verdict"], report["fits"]) == (verdict, code == 0)


def test_build_lists_lettering_with_its_curves(tmp_path, capsys):
    job = sign([shape("t", {"kind": "lettering", "text": "Pond", "height": 40}, does="cut", x=30, y=60)])
    design = tmp_path / "sign.json"
    design.write_text(json.dumps(design_to_json(job.design)))
    assert main(["build", str(design), "--basis", BASIS, "--json"]) == 0
    assert json.loads(capsys.readouterr().out)["parts"][0]["holes"]


# Geometry


def test_a_tool_path_round_an_island_near_the_edge_reaches_all_it_can():
    """Against the library's own erosion of the same region."""
    region = Region(rectangle(0, 0, 60, 40), (rectangle(3.5, 10, 20, 20).reversed,))
    ours = sum(one.area for one in offset(region, -2.0))
    eroded = shapely.Polygon([(0, 0), (60, 0), (60, 40), (0, 40)], [[(3.5, 10), (23.5, 10), (23.5, 30), (3.5, 30)]])
    assert ours == pytest.approx(eroded.buffer(-2.0, quad_segs=256).area, abs=0.005)


def test_a_hole_that_lies_outside_its_outline_is_no_material():
    region = Region(rectangle(0, 0, 10, 10), (Circle(30, 5, 3, hole=True),))
    [only] = union(region)
    assert only.area == pytest.approx(100)


def test_one_short_edge_leaves_the_other_corners_square():
    notch = ((0, 0), (100, 0), (100, 50), (50.02, 50), (50.02, 49.99), (50, 49.99), (50, 50), (0, 50))
    [grown] = offset(Region(Contour(tuple(Vertex(*place) for place in notch))), 3.0)
    assert sum(vertex.bulge != 0 for vertex in grown.outer.vertices) <= 2
    assert {(-3, -3), (103, -3), (103, 53), (-3, 53)} <= {(round(v.x, 6), round(v.y, 6)) for v in grown.outer.vertices}


def test_two_boards_in_one_joint_count_for_their_own_kerfs():
    """A kerf that is known within 0.01 on one board and 0.03 on the other: 0.04 either way between them."""

    def within(value):
        board = make_board()
        return replace(board, machine=replace(board.machine, found=replace(board.machine.found, within=value)))

    job = edited(make_job(), Edit("put", "boards/floor", {"title": "Floor"}), Edit("put", "parts/base/board", "floor"))
    job = replace(job, basis=Basis((("main", within(0.01)), ("floor", within(0.03)))))
    built = compute(job).build
    fits = {one.mate: one.fit for one in joint_fits(built.parts, built.mates, job.basis)}
    assert (fits["front-base"].low, fits["front-base"].high) == (pytest.approx(-0.02), pytest.approx(0.06))
    assert (fits["front-left"].low, fits["front-left"].high) == (pytest.approx(0.0), pytest.approx(0.04))


# What would still have been green


def test_a_short_line_that_is_there_twice_is_found_among_long_ones():
    """2 mm of a score line are less than a thousandth of five metres of them: lengths alone do not tell."""
    grid = {"kind": "grid", "columns": 1, "rows": 12, "dx": 0, "dy": 14}
    lines = shape(
        "l", {"kind": "line", "to_x": 470, "to_y": 10}, does="mark", operation="score", x=20, y=10, pattern=grid
    )
    short = shape("s", {"kind": "line", "to_x": 482, "to_y": 20}, does="mark", operation="score", x=480, y=20)
    result = compute(sign([lines, short]))
    [file] = write_files(result, "svg")
    line = next(one for one in file.data.decode().split("\n") if 'id="sign-1-s-1"' in one)
    twice = file.data.decode().replace(line, f"{line}\n{line.replace(' id=', ' data-was=')}")
    assert prove_sheets(result, {1: file.data}, "svg").verdict == "fits"
    proof = prove_sheets(result, {1: twice.encode()}, "svg")
    [found] = [one for one in proof.findings if one.code == "marks-astray"]
    low = result.plan.sheets[0].paths
    left, bottom, right, top = next(path for path in low if path.id == "sign-1-s-1").shape.box
    assert (left - 1 <= found.place[0] <= right + 1, bottom - 1 <= found.place[1] <= top + 1) == (True, True)
    assert found.amount == pytest.approx(2, abs=0.01)


def test_nothing_is_ready_to_be_handed_over_on_a_kerf_that_nobody_measured():
    def handed(job):
        result = compute(job)
        return next(stop for stop in route(result, prove_job(result).said) if stop.key == "hand-over")

    assert handed(make_job()).state == "open"
    typed = handed(make_job(one_board(make_board(typed_kerf=True))))
    assert (typed.state, typed.wants) == ("look", "if the kerf is 0.14 mm (typed in, not measured)")
