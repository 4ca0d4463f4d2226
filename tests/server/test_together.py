"""Parts put together over HTTP: what could be joined, what is in the way, and a trial pair as a job of its own."""

import pytest
from client import edit, post


@pytest.fixture
def together(wren, tray):
    return lambda design=tray: wren.get(f"/api/designs/{design['id']}/together").json()


def test_a_tray_has_nothing_to_join_and_nothing_in_its_way(together):
    found = together()
    assert found["proposals"] == []
    assert [(one["level"], one["pairs"], one["findings"]) for one in found["levels"]] == [
        ("mean", 8, []), ("thin", 8, []), ("thick", 8, []),
    ]  # fmt: skip


def test_a_joint_that_is_gone_is_proposed_with_all_that_it_takes_to_make_it(wren, tray, together):
    gone = edit(wren, tray, {"verb": "drop", "path": "joints/front-base"}).json()
    found = together(gone)
    [offer] = found["proposals"]
    assert (offer["kinds"], offer["off"], offer["closes"]) == (["finger"], 0, None)
    assert found["levels"][0]["findings"][0]["severity"] == "stop"
    value = {"title": offer["title"], "first": offer["first"], "second": offer["second"], "how": {"kind": "finger"}}
    made = edit(wren, gone, {"verb": "put", "path": "joints/again", "value": value}).json()
    assert together(made)["proposals"] == []


def test_what_almost_meets_is_closed_by_the_edit_that_comes_with_it(wren, tray, together):
    gone = edit(wren, tray, {"verb": "drop", "path": "joints/front-base"}).json()
    off = edit(wren, gone, {"verb": "put", "path": "placements/base/pose/z", "value": "thickness + 0.4"}).json()
    offer = next(one for one in together(off)["proposals"] if one["off"])
    assert offer["off"] == pytest.approx(0.4)
    assert "close it?" in offer["sentence"]
    closed = edit(wren, off, {"verb": "put", **offer["closes"]}).json()
    assert all(not one["off"] for one in together(closed)["proposals"])


def test_joints_say_their_gap_and_where_the_fit_of_their_boards_is_put(wren, tray):
    mate = tray["mates"][0]
    assert (mate["gap"]["mean"], mate["gap"]["measured"], mate["angle"]) == (pytest.approx(0.02), False, 90)
    assert mate["fit_field"] == "basis/main/clearance"
    slid = edit(wren, tray, {"verb": "put", "path": mate["fit_field"], "value": "0.1"}).json()
    assert slid["mates"][0]["gap"]["mean"] == pytest.approx(0.1)


def test_a_trial_pair_is_a_job_of_its_own(wren, tray):
    answer = post(wren, f"/designs/{tray['id']}/trial-pair", {"joint": "front-left"})
    assert answer.status_code == 201
    pair = answer.json()
    assert pair["name"] == "Trial pair: Front meets left side"
    assert {part["id"]: part["quantity"] for part in pair["parts"]} == {"slots": 1, "tongue": 2}
    assert wren.get(f"/api/designs/{pair['id']}/proof").json()["fits"]
    held = tray["mates"][0]["trial"][4]
    assert held == pytest.approx(0.06)
    fitted = edit(wren, tray, {"verb": "put", "path": tray["mates"][0]["fit_field"], "value": f"{held} mm"}).json()
    mate = fitted["mates"][0]
    assert mate["gap"]["mean"] == pytest.approx(held)
    assert mate["trial"] == tray["mates"][0]["trial"], "its numbers mean what they meant when it was cut"
    refused = post(wren, f"/designs/{tray['id']}/trial-pair", {"joint": "nowhere"})
    assert (refused.status_code, refused.json()["field"]) == (422, "joints/nowhere")


def test_what_an_edit_would_break_is_told_before_it_is_made(wren, tray):
    edits = [{"verb": "put", "path": "placements/base/pose/z", "value": "thickness + 2"}]
    tried = post(wren, f"/designs/{tray['id']}/tried", {"edits": edits, "unit": "mm"}).json()
    assert len(tried["broken"]) == 4
    assert "Front" in tried["broken"][0]


def test_a_divided_case_is_tried_with_its_plan_and_refused_at_its_list(wren, stock, machine):
    ids = {"stock": stock.id, "machine": machine.id}
    given = {"recipe": "divided-case", "settings": {"columns": "52 1fr 1fr 40", "rows": "45 1fr"}, **ids}
    draft = post(wren, "/designs/draft", given).json()
    [plan] = draft["views"]
    assert [round(one["size"][0], 2) for one in plan["clears"]][:2] == [52.0, 52.0]
    assert {shape["piece"] for shape in plan["shapes"] if shape["piece"]} >= {"c1r1", "r1c4"}
    wrong = post(wren, "/designs/draft", {**given, "settings": {"columns": "52 -1fr"}})
    assert (wrong.status_code, wrong.json()["field"]) == (422, "answers/columns")
    inches = post(
        wren,
        "/designs/draft",
        {**given, "unit": "in", "settings": {"columns": "1 3 4", "rows": "2", "width": "", "depth": ""}},
    )
    assert [round(one["size"][0] / 25.4, 6) for one in inches.json()["views"][0]["clears"]] == [1, 3, 4]
