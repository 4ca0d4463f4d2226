"""The cut plan: kerf, order, room for the beam."""

import json
from dataclasses import replace

import pytest
from conftest import drawn
from lean_notch.basis import Basis
from lean_notch.cli.main import main
from lean_notch.cutting import Profile
from lean_notch.edits import Edit, edit_job, refuse_own_failures
from lean_notch.geometry import Circle
from lean_notch.ground.errors import NotchError
from lean_notch.hand_over.files import write_files
from lean_notch.hand_over.job_sheet import job_sheet
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import ChosenLayout, Job, compute, job_from_json, job_to_json
from lean_notch.recipes import RECIPES
from lean_notch.told.ledger import ledger
from lean_notch.told.route import route


def with_hole(job: Job, diameter: float = 8) -> Job:
    hole = {
        "kind": "shape",
        "id": "hole",
        "shape": {"kind": "disc", "diameter": diameter},
        "does": "cut",
        "x": 50,
        "y": 50,
    }
    return drawn(job, hole, part="base")


def test_paths_move_into_the_waste_by_half_the_kerf(job):
    result = compute(job)
    front = next(path for path in result.plan.sheets[0].paths if path.part == "front")
    left, low, right, high = front.shape.box
    assert right - left == pytest.approx(156.12 + 0.14, abs=1e-9)
    assert high - low == pytest.approx(63.06 + 0.14, abs=1e-9)


def test_a_hole_is_drawn_smaller_and_stays_one_circle(job):
    hole = next(path for path in compute(with_hole(job)).plan.sheets[0].paths if path.inner)
    assert isinstance(hole.shape, Circle)
    assert hole.shape.radius == pytest.approx(4 - 0.07)
    assert hole.title == "Base 1, hole 1"


def test_compensation_adds_no_node(job):
    result = compute(job)
    for path in result.plan.sheets[0].paths:
        outline = len(result.build.part(path.part).region.outer.vertices)
        assert len(path.shape.vertices) == outline + 1, "but for the one where the beam starts, in a straight run"


def test_without_kerf_the_path_is_the_outline(tray, basis):
    result = compute(tray(basis(kerf=0)))
    assert result.plan.sheets[0].cut_length == pytest.approx(sum(p.region.length for p in result.build.parts))
    assert result.cut_lengths == pytest.approx([sheet.cut_length for sheet in result.plan.sheets])


def test_holes_come_before_their_outline(job):
    """Common practice: once the outline is cut the part may move."""
    order = [path.id for path in compute(with_hole(job)).plan.sheets[0].paths]
    assert order.index("base-1-hole-1") < order.index("base-1")


def test_every_outline_is_one_path_with_an_id_of_its_own(job):
    paths = compute(job).plan.sheets[0].paths
    assert len({path.id for path in paths}) == len(paths) == 5


def test_the_reference_square_is_there_only_if_asked_for(job):
    [square] = [
        p for p in compute(job, Profile(reference_square=True)).plan.sheets[0].paths if p.operation == "reference"
    ]
    assert square.shape.box == (0, 0, 100, 100)
    assert all(path.operation == "cut" for path in compute(job).plan.sheets[0].paths)


@pytest.mark.parametrize(
    ("kerf", "layout", "field", "code", "severity"),
    [
        (0.14, ChosenLayout(spacing=0.1), "layout/main/spacing", "spacing-narrow", "stop"),
        (0.14, ChosenLayout(spacing=0.14), "layout/main/spacing", "spacing-narrow", "stop"),
        (0.14, ChosenLayout(spacing=0.27), "layout/main/spacing", "spacing-narrow", "look"),
        (0.14, ChosenLayout(spacing=1.4), "layout/main/spacing", "spacing-narrow", "look"),
        (0.14, ChosenLayout(margin=0.05), "layout/main/margin", "margin-narrow", "stop"),
    ],
)
def test_a_beam_without_room_is_a_finding_at_its_field_with_what_mends_it(
    tray, basis, kerf, layout, field, code, severity
):
    """The dead end: a machine could not be changed, since the spacing of the last one was refused."""
    job = tray(basis(kerf=kerf), layout)
    [finding] = [one for one in compute(job).build.findings if one.code == code][:1]
    assert (finding.field, finding.severity) == (field, severity)
    assert prove_job(compute(job)).fits == (severity == "look")
    if finding.mend:
        mended = edit_job(job, [Edit("put", finding.mend.path, finding.mend.value)], "in")
        assert code not in [one.code for one in compute(mended).build.findings]
        assert mended.settings("main").spacing == 1.5


def test_a_tool_wider_than_the_fingers_is_a_finding_and_the_job_stays(tray, basis):
    board = basis().of("main")
    job = replace(tray(basis()), layouts=())
    wide = replace(board, machine=replace(board.machine, kind="router", kerf=9.5, found=None))
    result = compute(replace(job, basis=job.basis.with_board("main", wide)))
    found = [one for one in result.build.findings if one.code == "kerf-too-wide"]
    assert {(one.severity, one.field) for one in found} == {("stop", "basis/main/kerf")}
    assert "does not fit between the fingers" in found[0].why
    assert not prove_job(result).fits


def test_a_router_has_two_tool_widths_and_a_web_between_parts(tray, basis):
    """14 for a tool of 6: 2 x 6 and 2 to hold what is between. An empty spacing follows the tool, a chosen one stays."""
    board = basis(kerf=0.14).of("main")
    router = replace(board, machine=replace(board.machine, kind="router", kerf=6.0, found=None))
    usual = replace(tray(basis()), layouts=())
    moved = replace(usual, basis=usual.basis.with_board("main", router))
    assert (usual.settings("main").spacing, moved.settings("main").spacing) == (1.5, 14)
    assert job_to_json(moved)["layout"] == {}
    spacing = {figure.key: figure for figure in ledger(compute(moved))["sheet:1"]}["spacing"]
    assert (spacing.source, spacing.typed, spacing.value) == ("computed", "", 14)
    chosen = edit_job(moved, [Edit("put", "layout/main/spacing", "12")])
    assert job_from_json(job_to_json(chosen)).settings("main").spacing == 12
    assert chosen.settings("main").margin == 6
    [finding] = [one for one in compute(chosen).build.findings if one.code == "spacing-narrow"]
    assert "run into each other" in finding.why
    assert finding.mend.says == "Use the usual 14 mm"


def test_a_hole_narrower_than_the_kerf_is_a_finding_and_the_rest_is_cut(job):
    plan = compute(with_hole(job, diameter=0.13)).plan
    [lost] = plan.findings
    assert (lost.code, lost.severity, lost.part) == ("tool-too-wide", "stop", "base")
    assert "wider" in lost.fix
    assert len(plan.sheets[0].paths) == 5


def test_a_part_larger_than_the_bed_is_a_finding_at_its_size_and_in_no_file(tray, basis):
    """A machine may be changed at any time: what no longer has a place stays in the job, and no file is written without it."""
    result = compute(tray(basis(), width="700"))
    found = [one for one in result.build.findings if one.code == "part-too-large"]
    assert {(one.severity, one.field, one.part, one.amount) for one in found} == {
        ("stop", "answers/width", "front", 1), ("stop", "answers/width", "back", 1), ("stop", "answers/width", "base", 1),
    }  # fmt: skip
    assert {one.part for one in result.layout.placed} == {"left", "right"}
    assert not prove_job(result).fits
    with pytest.raises(NotchError) as caught:
        write_files(result, "svg")
    assert (caught.value.field, caught.value.code) == ("answers/width", "part-too-large")
    deep = compute(tray(basis(), depth="height * 20", height="40"))
    assert {one.field for one in deep.build.findings if one.code == "part-too-large"} == {"answers/depth"}
    assert "without a place" in {one.key: one.wants for one in route(result)}["lay-out"]
    assert "On no sheet: Front ×1. Front is 706.12 mm" in str(job_sheet(result))


def test_the_command_line_tells_what_lies_on_no_sheet(tray, basis, tmp_path, capsys):
    (tmp_path / "job.json").write_text(json.dumps(job_to_json(tray(basis(), width="700"))))
    assert main(["lay-out", str(tmp_path / "job.json")]) == 1
    assert "on no sheet: front x1: Front is 706.12 mm" in capsys.readouterr().out
    assert main(["lay-out", str(tmp_path / "job.json"), "--json"]) == 1
    told = json.loads(capsys.readouterr().out)
    assert next((one["part"], one["count"], one["code"]) for one in told["left"]) == ("front", 1, "part-too-large")
    assert {one["part"] for one in told["placed"]} == {"left", "right"}


def test_an_edit_that_makes_a_part_too_large_is_refused_and_a_smaller_bed_is_not(tray, basis):
    job = tray(basis())
    before = compute(job)
    wide = [Edit("put", "answers/width", "700")]
    with pytest.raises(NotchError) as caught:
        refuse_own_failures(wide, before, compute(edit_job(job, wide)))
    assert caught.value.code == "part-too-large"
    board = basis().of("main")
    small = replace(board, machine=replace(board.machine, bed_width=100, bed_height=60))
    after = compute(replace(job, basis=job.basis.with_board("main", small)))
    refuse_own_failures([Edit("put", "basis/main/machine", "2")], before, after)
    assert after.layout.left
    # Once a part has no place, other edits of the job go on.
    title = [Edit("put", "name", "Small")]
    refuse_own_failures(title, after, compute(edit_job(after.job, title)))


def test_boards_that_are_one_stock_share_their_sheets(basis):
    """Two boards of a job had a sheet each, and the same stock was counted twice."""
    design = RECIPES["divided-case"].design("Case", {"board": "another board"})
    one = basis().of("main")
    job = Job(design, Basis((("main", one), ("dividers", one))))
    shared = compute(job)
    other = replace(one, stock=replace(one.stock, name="Another"))
    apart = compute(replace(job, basis=job.basis.with_board("dividers", other)))
    assert (len(shared.layout.sheets), len(apart.layout.sheets)) == (1, 2)
    assert shared.boards_on(1) == ("main", "dividers")
    assert prove_job(shared).fits
    # What is chosen for one of them is chosen for their sheets.
    chosen = edit_job(job, [Edit("put", "layout/dividers/margin", "9")])
    assert (chosen.settings("main").margin, chosen.settings("dividers").margin) == (9, 9)
    lying = [one.motion.region(shared.build.part(one.part).region).box for one in compute(chosen).layout.placed]
    assert min(box[0] for box in lying) >= 9 - 1e-9
