"""A whole job: documents, names of files, edits, ledger and route."""

import pytest
from conftest import edited
from lean_notch.cutting.drawn import kerf_path
from lean_notch.edits import Edit, edit_job
from lean_notch.ground.errors import NotchError
from lean_notch.hand_over.files import file_name, slug
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute, job_from_json, job_to_json
from lean_notch.told.ledger import ledger
from lean_notch.told.route import last_stops, route
from plates import plate, rectangle


def rows(job, subject):
    return {row.key: row for row in ledger(compute(job))[subject]}


def test_a_job_survives_its_document(job):
    assert job_from_json(job_to_json(job)) == job


def test_file_names_carry_design_stock_thickness_and_sheet(job):
    assert file_name(job, 2, "svg", "main") == "vial-carrier_poplar-ply_3.06mm_sheet-2.svg"
    assert file_name(job, 1, "dxf-r12", "main") == "vial-carrier_poplar-ply_3.06mm_sheet-1_R12.dxf"


@pytest.mark.parametrize(
    ("name", "plain"),
    [
        ("../../etc", "etc"),
        ("日本", "日本"),
        ("…", "job"),
        ("Ψ/..\\ω", "ψ-ω"),
        ("A  b\n“c”", "a-b-c"),
        ("x" * 99, "x" * 60),
    ],
)
def test_any_name_becomes_a_safe_file_name(name, plain):
    assert slug(name) == plain


def test_the_ledger_adds_up(job):
    basis = rows(job, "basis:main")
    assert basis["slot"].value == pytest.approx(3.08)
    assert basis["slot_drawn"].value == pytest.approx(2.94)
    assert basis["slot"].because == "thickness 3.06 mm + clearance 0.02 mm"
    joint = rows(job, "joint:front-base")
    assert joint["socket"].value - joint["finger"].value == pytest.approx(0.02)
    assert joint["finger_drawn"].value - joint["finger"].value == pytest.approx(0.14)
    assert joint["socket"].value - joint["socket_drawn"].value == pytest.approx(0.14)
    assert joint["pitch"].value * joint["fingers"].value == pytest.approx(156.12)


def test_a_part_is_as_wide_and_high_as_all_its_steps_make_it():
    """A T of two rectangles, and half a plate turned over its own edge; by hand."""
    stem = {**rectangle("stem", 30, 140), "does": "add", "x": 65, "y": -140}
    t = rows(plate(stem, blank=rectangle("bar", 160, 30)), "part:plate")
    assert (t["width"].value, t["height"].value) == pytest.approx((160, 170))
    half = rows(plate({"kind": "mirror", "id": "fold", "x": 100, "y": 0, "angle": 90.0}), "part:plate")
    assert (half["width"].value, half["height"].value) == pytest.approx((200, 60))


def test_what_is_drawn_is_what_the_ledger_says(job):
    """The drawn finger, measured on the path itself."""
    outline = kerf_path(compute(job).build.part("base"), 0.14).outer
    left = sorted(v.x for v in outline.vertices if abs(v.y - outline.box[1]) < 1e-6)
    assert left[1] - left[0] == pytest.approx(rows(job, "joint:front-base")["finger_drawn"].value, abs=1e-9)


def test_chosen_rows_can_be_edited_and_the_others_say_why(job):
    job_rows = rows(job, "job")
    assert (job_rows["width"].source, job_rows["width"].field, job_rows["width"].typed) == (
        "chosen",
        "answers/width",
        "150",
    )
    assert job_rows["outside_width"].because == "width 150 mm + 2 × thickness 3.06 mm"


def test_edits_change_only_what_they_name(job):
    changed = edited(job, kerf="0.2", readings=["3.1", "3.2"], margin="6", width="depth*2")
    board = changed.basis.of("main")
    assert board.kerf == 0.2
    assert board.thickness == pytest.approx(3.15)
    assert changed.settings("main").margin == 6
    assert compute(changed).build.names["width"] == 200
    assert edit_job(changed, []) == changed
    assert board.stock.name == job.basis.of("main").stock.name


def test_edits_count_in_the_makers_unit(job):
    changed = edited(job, width="6", kerf="0.005", spacing="1/16", unit="in")
    names = compute(changed).build.names
    assert names["width"] == pytest.approx(152.4)
    assert changed.basis.of("main").kerf == pytest.approx(0.127)
    assert changed.settings("main").spacing == pytest.approx(1.5875)
    again = edited(changed, depth="100")
    assert compute(again).build.names["width"] == pytest.approx(152.4)


@pytest.mark.parametrize(
    ("path", "value", "field"),
    [("basis/main/kerf", "x", ""), ("basis/main/readings", [], ""), ("basis/main/readings", ["3", "y"], "/1"),
     ("basis/main/clearance", "90", ""), ("layout/main/margin", "-1", ""), ("colour", "red", ""), ("name", " ", "")],
)  # fmt: skip
def test_a_refused_edit_names_its_path(job, path, value, field):
    with pytest.raises(NotchError) as caught:
        edited(job, Edit("put", path, value))
    assert caught.value.field == path + field
    assert caught.value.fix


def test_a_job_without_its_recipe_is_edited_by_its_dimensions(job):
    document = job_to_json(job)
    del document["design"]["origin"]
    plain = job_from_json(document)
    wider = edited(plain, Edit("put", "dimensions/width/length", "170"), name="Plain")
    assert compute(wider).build.names["width"] == 170
    with pytest.raises(NotchError, match="no recipe"):
        edited(plain, width="1")


def test_the_route_has_six_stops_with_a_line_each(job):
    result = compute(job)
    before, after = route(result), route(result, prove_job(result).said)
    assert [stop.key for stop in before] == ["measure", "shape", "join", "lay-out", "prove", "hand-over"]
    assert all(stop.line for stop in before)
    assert [stop.state for stop in before[-2:]] == ["open", "open"]
    assert [stop.state for stop in after] == ["ready"] * 5 + ["open"]
    assert [stop.state for stop in last_stops(5, 1, prove_job(result).said, handed=True)] == ["ready", "ready"]
    assert before[0].line == "3.06 mm, 5 readings"


def test_the_route_asks_for_a_look_where_one_is_due(tray, basis):
    few, uneven = (route(compute(tray(basis(readings=values))))[0] for values in ((3.0,), (2.8, 3.0, 3.2)))
    assert (few.state, few.wants) == ("look", "only 1 reading")
    assert uneven.wants == "uneven board"
