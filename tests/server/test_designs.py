"""Designs over HTTP: revisions, undo, two windows, owners, bad input, exports."""

import json
from pathlib import Path

import pytest
from client import edit, post
from designs.models import Design, Export, Layout, Revision
from django.core.management import call_command
from edit_paths import path_of, puts
from workshop.models import Stock

ROOT = Path(__file__).resolve().parents[2]


def width(design):
    return next(row["value"] for row in design["ledger"]["job"] if row["key"] == "width")


def test_a_design_comes_with_everything_the_page_draws(tray):
    assert len(tray["parts"]) == 5
    assert len(tray["mates"]) == 8
    assert len(tray["route"]) == 6
    assert tray["parts"][0]["path"].startswith("M")
    assert tray["sheets"][0]["file_names"]["svg"] == "tray_poplar-ply_3.06mm_sheet-1.svg"
    assert tray["boards"][0]["basis"]["slot"] == pytest.approx(3.08)
    assert (tray["revision"], tray["can_undo"], tray["can_redo"]) == (1, False, False)


def test_every_edit_is_a_revision_and_undo_and_redo_walk_them(wren, tray):
    second = edit(wren, tray, width="160").json()
    third = edit(wren, second, width="170").json()
    assert (third["revision"], width(third)) == (3, 170)
    back = post(wren, f"/designs/{tray['id']}/undo", {"seen": third["moves"]}).json()
    assert (back["revision"], width(back), back["can_redo"]) == (2, 160, True)
    reloaded = wren.get(f"/api/designs/{tray['id']}").json()
    assert (reloaded["revision"], reloaded["can_undo"], reloaded["can_redo"]) == (2, True, True)
    forth = post(wren, f"/designs/{tray['id']}/redo", {"seen": back["moves"]}).json()
    assert (forth["revision"], width(forth), forth["can_redo"]) == (3, 170, False)


def test_an_edit_after_an_undo_keeps_the_other_branch(wren, tray):
    second = edit(wren, tray, width="160").json()
    back = post(wren, f"/designs/{tray['id']}/undo", {"seen": second["moves"]}).json()
    other = edit(wren, back, width="140").json()
    assert (other["revision"], other["can_redo"]) == (3, False)
    assert Revision.objects.count() == 3
    again = post(wren, f"/designs/{tray['id']}/undo", {"seen": other["moves"]}).json()
    assert width(post(wren, f"/designs/{tray['id']}/redo", {"seen": again["moves"]}).json()) == 140


def test_undo_stops_at_the_first_revision(wren, tray):
    answer = post(wren, f"/designs/{tray['id']}/undo", {"seen": tray["moves"]})
    assert (answer.status_code, answer.json()["code"]) == (422, "nothing-there")


def test_an_edit_that_changes_nothing_saves_nothing(wren, tray):
    assert edit(wren, tray, width="150").json()["revision"] == 1


def test_the_later_of_two_windows_that_change_one_thing_is_refused_and_loses_nothing(wren, tray):
    first = edit(wren, tray, width="160").json()
    late = edit(wren, tray, width="170")
    assert (late.status_code, late.json()["code"]) == (409, "changed-elsewhere")
    [theirs] = late.json()["theirs"]
    assert (theirs["number"], theirs["sentence"], theirs["by"]) == (2, "Set width to 160 mm", "Wren")
    assert late.json()["mine"] == "Set width to 170 mm"
    assert "stay in the history" in late.json()["fix"]
    on_top = edit(wren, first, width="170").json()
    assert width(on_top) == 170
    assert Revision.objects.count() == 3


def test_what_two_windows_change_apart_from_each_other_is_both_kept(wren, tray):
    edit(wren, tray, width="160")
    hole = {"kind": "shape", "shape": {"kind": "disc", "diameter": "8"}, "does": "cut", "x": "30", "y": "30"}
    both = edit(wren, tray, {"verb": "put", "path": "parts/front/steps/hole", "value": hole}, kerf="0.2")
    assert both.status_code == 200, both.json()
    assert width(both.json()) == 160
    assert both.json()["boards"][0]["basis"]["machine"]["kerf"] == 0.2
    assert [step["id"] for step in both.json()["parts"][0]["steps"]] == ["blank", "hole"]


def test_undo_in_one_window_is_seen_by_the_other(wren, tray):
    second = edit(wren, tray, width="160").json()
    post(wren, f"/designs/{tray['id']}/undo", {"seen": second["moves"]})
    assert edit(wren, second, width="90").status_code == 409


def test_a_maker_sees_only_their_own_designs(sign_in, wren, tray):
    files = post(wren, f"/designs/{tray['id']}/exports", {"format": "svg"}).json()
    other = sign_in("Heron")
    path = f"/designs/{tray['id']}"
    assert other.get("/api/designs").json() == []
    assert other.get(f"/api{path}").status_code == 404
    assert other.get(f"/api{path}/proof").status_code == 404
    assert other.get(f"/api{path}/exports").status_code == 404
    assert other.get(f"/api/exports/{files[0]['id']}/file").status_code == 404
    assert other.delete(f"/api{path}").status_code == 404
    for action, body in (("edits", {"edits": puts(width="9")}), ("undo", {}), ("redo", {}), ("go", {"revision": 1})):
        assert post(other, f"{path}/{action}", {**body, "seen": 1}).status_code == 404
    assert post(other, f"{path}/restore").status_code == 404


@pytest.mark.django_db
def test_nothing_is_shown_without_signing_in(client):
    for path in ("/designs", "/stocks", "/machines", "/choices", "/designs/1", "/exports/1/file"):
        answer = client.get(f"/api{path}")
        assert (answer.status_code, answer.json()["code"]) == (401, "signed-out")


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"width": "8", "sizes": "outside"}, "width"),
        ({"height": "2"}, "height"),
        ({"width": "six"}, "width"),
        ({"width": ""}, "width"),
        ({"width": "-150"}, "width"),
        ({"width": "1e9"}, "width"),
        ({"width": "1e999"}, "width"),
        ({"width": "700"}, "width"),
        ({"finger": "1"}, "finger"),
        ({"kerf": "9.5", "spacing": "12", "margin": "6"}, "kerf"),
        ({"kerf": "-0.1"}, "kerf"),
        ({"readings": ["3.0", "30"]}, "readings/1"),
        ({"readings": ["90"]}, "readings/0"),
        ({"readings": ["14"], "height": "12"}, "height"),
        ({"readings": []}, "readings"),
        ({"clearance": "inf"}, "clearance"),
        ({"spacing": "-1"}, "spacing"),
        ({"spacing": "two"}, "spacing"),
        ({"sizes": "around"}, "sizes"),
        ({"nonsense": "1"}, "nonsense"),
    ],
)
def test_bad_input_is_refused_at_its_field_and_the_last_good_state_stays(wren, tray, changes, field):
    answer = edit(wren, tray, **changes)
    problem = answer.json()
    assert answer.status_code == 422, problem
    head, _, rest = field.partition("/")
    assert problem["field"] == "/".join(filter(None, (path_of(head), rest))), problem
    assert problem["why"]
    assert problem["fix"]
    assert wren.get(f"/api/designs/{tray['id']}").json() == tray


@pytest.mark.parametrize(
    "body",
    [{}, {"edits": puts(width="1")}, {"edits": [], "seen": 1}, {"edits": [{"verb": "cut", "path": "x"}], "seen": 1},
     {"edits": puts(width="1") * 999, "seen": 1}, {"edits": [{"verb": "put", "path": "x" * 999}], "seen": 1}],
)  # fmt: skip
def test_a_malformed_request_is_answered_like_any_problem(wren, tray, body):
    answer = post(wren, f"/designs/{tray['id']}/edits", body)
    assert (answer.status_code, answer.json()["code"]) == (422, "malformed")


@pytest.mark.parametrize(
    ("start", "field"),
    [
        ({"settings": {"width": "2"}}, "answers/width"),
        ({"name": " "}, "name"),
        ({"recipe": "closed-box"}, "recipe"),
        ({"settings": {"colour": "red"}}, "answers/colour"),
    ],
)
def test_a_design_that_cannot_be_built_is_not_started(wren, stock, machine, start, field):
    body = {"name": "Tray", "recipe": "open-tray", "stock": stock.id, "machine": machine.id, **start}
    answer = post(wren, "/designs", body)
    assert (answer.status_code, answer.json()["field"]) == (422, field)
    assert Design.objects.count() == 0


def test_inches_are_understood_and_kept_as_typed(wren, tray):
    shown = edit(wren, tray, width="6-1/2", unit="in").json()
    assert width(shown) == pytest.approx(165.1)
    answer = next(answer for answer in shown["answers"] if answer["setting"]["name"] == "width")
    assert (answer["typed"], answer["unit"]) == ("6 1/2", "in")


def test_the_job_follows_another_board_and_machine(wren, tray, stock):
    thicker = wren.post(
        "/api/stocks",
        {
            "name": "Other ply",
            "nominal": "1/4 in",
            "readings": ["0.22 in", "5.6"],
            "sheet_width": 900,
            "sheet_height": 500,
        },
        content_type="application/json",
    ).json()
    shown = edit(wren, tray, stock=thicker["id"]).json()
    assert shown["boards"][0]["basis"]["stock"]["name"] == "Other ply"
    assert shown["boards"][0]["basis"]["thickness"] == pytest.approx((0.22 * 25.4 + 5.6) / 2)
    missing = edit(wren, shown, stock=9999)
    assert (missing.status_code, missing.json()["field"]) == (422, "basis/main/stock")


def test_readings_in_a_job_leave_the_rack_alone(wren, tray, stock):
    edit(wren, tray, readings=["3.2", "3.3"])
    assert Stock.objects.get(id=stock.id).document["readings"] == [3.02, 3.05, 3.06, 3.07, 3.1]


def test_a_bad_stock_is_refused_at_its_field(wren, stock):
    body = {**stock.document, "readings": ["3", "33"], "unit": "mm"}
    answer = wren.patch(f"/api/stocks/{stock.id}", body, content_type="application/json")
    assert (answer.status_code, answer.json()["field"]) == (422, "readings[1]")


def test_the_proof_is_of_the_file_that_would_be_handed_over(wren, tray):
    proof = wren.get(f"/api/designs/{tray['id']}/proof").json()
    assert proof["fits"]
    assert proof["moves"] == tray["moves"]
    assert len(proof["finished"]["1"]) == len(proof["paths"]["1"]) == 5
    # Nobody measured this kerf: what rests on it is said so, and is not green.
    assert proof["sentence"] == "Fits, if the kerf is 0.14 mm (typed in, not measured)"
    assert [stop["state"] for stop in proof["route"]] == ["look", "ready", "ready", "ready", "look", "look"]
    assert "warp" in " ".join(proof["not_looked_at"])


@pytest.mark.parametrize(
    ("file_format", "start"), [("svg", b"<?xml"), ("dxf", b"  0\nSECTION"), ("dxf-r12", b"  0\nSECTION")]
)
def test_files_are_kept_byte_for_byte_with_their_layout(wren, tray, file_format, start):
    [made] = post(wren, f"/designs/{tray['id']}/exports", {"format": file_format, "reference_square": True}).json()
    assert made["file_name"].startswith("tray_poplar-ply_3.06mm_sheet-1")
    edit(wren, tray, width="200")
    answer = wren.get(f"/api/exports/{made['id']}/file")
    assert made["file_name"] in answer["Content-Disposition"]
    assert answer.content.startswith(start)
    assert len(answer.content) == made["bytes"]
    assert len(Layout.objects.get().document["sheets"]) == 1
    assert Export.objects.count() == 1
    assert [row["id"] for row in wren.get(f"/api/designs/{tray['id']}/exports").json()] == [made["id"]]


def test_an_archived_job_is_listed_and_can_be_restored(wren, tray):
    assert wren.delete(f"/api/designs/{tray['id']}").status_code == 204
    assert wren.get("/api/designs").json() == []
    # In a window that still shows it, an edit and a reload say what has become of it, and how it comes back.
    for answer in (wren.get(f"/api/designs/{tray['id']}"), edit(wren, tray, name="Fern tray")):
        assert (answer.status_code, answer.json()["code"], answer.json()["why"]) == (
            422,
            "archived",
            "Tray is archived.",
        )
    assert [one["name"] for one in wren.get("/api/designs/archived").json()] == ["Tray"]
    assert post(wren, f"/designs/{tray['id']}/restore").status_code == 200
    [card] = wren.get("/api/designs").json()
    assert (card["name"], len(card["panels"])) == ("Tray", 5)


def test_a_name_can_be_changed_and_undone(wren, tray):
    renamed = edit(wren, tray, name="Vial carrier").json()
    assert renamed["name"] == "Vial carrier"
    assert post(wren, f"/designs/{tray['id']}/undo", {"seen": renamed["moves"]}).json()["name"] == "Tray"


@pytest.mark.django_db
def test_the_demo_is_seeded_once_and_keeps_what_was_done(sign_in):
    call_command("seed_demo")
    wren = sign_in("Wren")
    card, *others = wren.get("/api/designs").json()
    assert [one["name"] for one in others] == [
        "Viewer side", "Trail sign", "Slide drawer", "Seed tray", "Divided vial carrier", "Specimen viewer", "Dragonfly", "Boot rack",
    ]  # fmt: skip
    assert all(one["pictured"] and one["proof"]["verdict"] == "fits" for one in (card, *others))
    assert (card["name"], card["boards"]) == ("Vial carrier", [{"name": "Poplar ply", "thickness": 3.06}])
    design = wren.get(f"/api/designs/{card['id']}").json()
    edit(wren, design, width="180")
    call_command("seed_demo")
    again, *_ = wren.get("/api/designs").json()
    assert (again["id"], again["revision"]) == (card["id"], design["revision"] + 1)


def test_the_committed_schema_is_the_apis_own():
    """The page's types are generated from it: run `make api` when this fails."""
    from config.api import api

    committed = json.loads((ROOT / "docs" / "openapi.json").read_text())
    assert committed == json.loads(json.dumps(api.get_openapi_schema()))


def test_the_loupe_gets_the_contacts_of_any_kind_of_joint(monkeypatch):
    """One that the program does not have: two boards in slots, by their thickness."""
    from crossing import Crossing, CrossingJoint, crossing
    from designs.shown import show_mate
    from lean_notch.job import compute
    from lean_notch.joints import KINDS
    from lean_notch.making import joint_fits

    monkeypatch.setitem(KINDS, Crossing, CrossingJoint())
    job = crossing()
    built = compute(job).build
    [fit] = joint_fits(built.parts, built.mates, job.basis)
    shown = show_mate(built.mates[0], fit, built, job.basis)
    assert (shown.inner, shown.outer, shown.kind) == ("board", "slot", "crossing")
    assert {(one.outer_part, one.by_thickness, one.count) for one in shown.contacts} == {
        ("rail", True, 1),
        ("foot", True, 1),
    }
    assert all(one.width == pytest.approx(3.06) for one in shown.contacts)


def test_a_joint_is_made_changed_and_removed_and_leaves_the_parts_as_they_were(wren, tray):
    before = {part["id"]: part["path"] for part in tray["parts"]}
    gone = edit(wren, tray, {"verb": "drop", "path": "joints/front-left"}).json()
    assert len(gone["mates"]) == 7
    assert not wren.get(f"/api/designs/{tray['id']}/proof").json()["fits"]
    joint = next(one for one in tray["joints"] if one["id"] == "front-left")
    back = edit(wren, gone, {"verb": "put", "path": "joints/front-left", "value": joint}).json()
    assert {part["id"]: part["path"] for part in back["parts"]} == before
    tabs = edit(wren, back, {"verb": "put", "path": "joints/front-left/how", "value": {"kind": "tab-and-slot"}}).json()
    [lost] = [one for one in tabs["findings"] if one["joint"] == "front-left"]
    assert (lost["severity"], lost["field"]) == ("stop", "joints/front-left")
    assert lost["space"]
    choices = wren.get("/api/choices").json()
    assert choices["joints"]["tab-and-slot"] == {"title": "tab and slot", "first": "edge", "second": "face"}
    assert [field["name"] for field in choices["fields"]["joint/tab-and-slot"]] == [
        "count", "width", "inset", "deep", "lock",
    ]  # fmt: skip
