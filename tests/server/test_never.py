"""Boards that are never cut on a machine, over HTTP: at the strip, at Hand over, in exports, with test pieces."""

from __future__ import annotations

import pytest
from client import edit, get, post
from django.test import Client
from workshop.actions import put_machine, put_stock

SHEET = {"nominal": 3, "readings": [3.0, 3.02], "sheet_width": 600, "sheet_height": 400}
PVC = "PVC and other chlorinated plastic"


def put(path: str, value: object) -> dict[str, object]:
    return {"verb": "put", "path": path, "value": value}


def patch(client: Client, address: str, body: object):
    return client.patch(f"/api{address}", body, content_type="application/json")


@pytest.fixture
def vinyl(db):
    return put_stock({"name": "Grey sheet", "kind": PVC, **SHEET})


@pytest.fixture
def router(db):
    return put_machine({"name": "Barn router", "kind": "router", "bed_width": 900, "bed_height": 900, "kerf": 2.0})


def refused(answer, field):
    assert answer.status_code == 422, answer.content
    told = answer.json()
    assert (told["code"], told["field"]) == ("never-on-machine", field)
    assert "hydrogen chloride" in told["why"]


def test_it_is_refused_wherever_it_is_chosen(wren, tray, vinyl, machine, router):
    address = f"/designs/{tray['id']}"
    refused(edit(wren, tray, put("basis/main/stock", vinyl.pk)), "basis/main/stock")
    ids = {"stock": vinyl.pk, "machine": machine.pk}
    refused(post(wren, "/designs", {"name": "Box", "recipe": "open-tray", **ids}), "machine")
    refused(post(wren, "/designs/draft", {"recipe": "open-tray", **ids}), "machine")
    for way in ("slats", "plug", "comb"):
        refused(post(wren, "/test-pieces", {"way": way, **ids}), "machine")
    # Compared with others, the one that may not be says so, and the others are told.
    tried = post(wren, f"{address}/tries", {"swaps": [{"stock": vinyl.pk}, {"machine": router.pk}]}).json()
    assert "never cut on a laser" in tried[1]["problem"]["why"]
    assert (tried[2]["problem"] or {}).get("code") != "never-on-machine"
    # On the router it may be; then not for the laser, and not back to it.
    made = post(
        wren, "/designs", {"name": "Box", "recipe": "open-tray", "stock": vinyl.pk, "machine": router.pk}
    ).json()
    box = f"/designs/{made['id']}"
    refused(edit(wren, made, put("basis/main/machine", machine.pk)), "basis/main/machine")
    for what in ("in-files", "exports"):
        assert post(wren, f"{box}/{what}", {"format": "dxf"}).status_code in (200, 201)
        refused(post(wren, f"{box}/{what}", {"format": "dxf", "machine": machine.pk}), "machine")


def test_what_the_workshop_says_today_counts_whatever_the_jobs_copy_says(wren, tray, stock, machine):
    address = f"/designs/{tray['id']}"
    assert post(wren, f"{address}/in-files", {"format": "svg"}).status_code == 200
    rule = {"never": True, "reason": "its glue gives off hydrogen chloride"}
    assert patch(wren, f"/stocks/{stock.pk}", {"limits": {"laser": rule}}).status_code == 200
    for what in ("in-files", "exports"):
        refused(post(wren, f"{address}/{what}", {"format": "svg"}), "machine")
    shown = get(wren, address).json()
    assert [one["what"] for one in get(wren, f"{address}/news").json()] == [["where it may be cut"]]
    followed = edit(wren, shown, put("basis/main/stock", stock.pk))
    assert followed.status_code == 200, "the same board on the same machine: the job learns why it is not written"
    stops = [one for one in get(wren, f"{address}/proof").json()["findings"] if one["severity"] == "stop"]
    assert [one["code"] for one in stops] == ["never-on-machine"]
    # Overruled with a reason, it is written, and says so.
    may = {"never": False, "reason": "the maker of the glue says there is none"}
    patch(wren, f"/stocks/{stock.pk}", {"limits": {"laser": may}})
    edit(wren, get(wren, address).json(), put("basis/main/stock", stock.pk))
    assert post(wren, f"{address}/exports", {"format": "svg"}).status_code == 201
    said = [one["why"] for one in get(wren, f"{address}/proof").json()["findings"] if one["code"] == "overruled"]
    assert len(said) == 1
    assert may["reason"] in said[0]


def test_a_rule_for_a_kind_is_the_workshops(wren, tray, stock):
    rule = {"never": True, "reason": "its glue gives off hydrogen chloride"}
    assert patch(wren, "/limits/plywood", {"laser": rule}).status_code == 204
    refused(post(wren, f"/designs/{tray['id']}/exports", {"format": "svg"}), "machine")
    [shown] = [one for one in get(wren, "/stocks").json() if one["id"] == stock.pk]
    assert (shown["usual"]["laser"], shown["document"]["limits"]["laser"]) == (rule, None)
    bad = patch(wren, "/limits/plywood", {"laser": {"never": True, "reason": " "}})
    assert (bad.status_code, bad.json()["field"]) == (422, "stock.limits.laser")


def test_a_composite_is_asked_what_it_is_made_of(wren, stock):
    bare = {"name": "Black sheet", "kind": "composite", **SHEET}
    answer = post(wren, "/stocks", bare)
    assert (answer.status_code, answer.json()["field"]) == (422, "made_of")
    made = post(wren, "/stocks", {**bare, "made_of": "glass or carbon fibres in resin"}).json()
    assert "fibres" in made["usual"]["laser"]["reason"]
    changed = patch(wren, f"/stocks/{stock.pk}", {"kind": "composite"})
    assert (changed.status_code, changed.json()["field"]) == (422, "made_of")
    # One from before, of which nobody asked, can still be measured.
    old = put_stock({**bare, "made_of": "wood and resin"})
    old.document = {name: value for name, value in old.document.items() if name != "made_of"}
    old.save()
    assert patch(wren, f"/stocks/{old.pk}", {"readings": [3.1, 3.11]}).status_code == 200
