"""What the workshop says newer than jobs were computed from, and jobs that follow it, one by one."""

from __future__ import annotations

import pytest
from client import edit, get, post
from designs.models import Design
from django.db import connection
from django.test.utils import CaptureQueriesContext
from workshop.actions import put_machine, put_stock
from workshop.models import Stock

ROW = ["98.3", "98.31", "98.3"]
CARD = {"nominal": 3, "sheet_width": 600, "sheet_height": 400}


def concerned(client):
    return get(client, "/designs/concerned").json()


def follow(client, row):
    return post(client, f"/designs/{row['id']}/follow", {"seen": row["moves"], "revision": row["revision"]})


def thickness(client, job):
    return get(client, f"/designs/{job['id']}").json()["boards"][0]["basis"]["thickness"]


def made(client, name, stock, machine, **settings):
    asked = {"name": name, "recipe": "open-tray", "stock": stock.id, "machine": machine.id, "settings": settings}
    return post(client, "/designs", asked).json()


def test_jobs_follow_one_by_one_each_with_an_undo_of_its_own(wren, tray, stock, machine, sign_in):
    other = made(wren, "Other", stock, machine)
    handed = made(wren, "Handed", stock, machine)
    [file] = post(wren, f"/designs/{handed['id']}/exports", {"format": "svg"}).json()
    assert concerned(wren) == []
    put_stock({"readings": [3.15, 3.16]}, stock)
    rows = concerned(wren)
    assert {row["name"]: row["handed"] for row in rows} == {"Tray": False, "Other": False, "Handed": True}
    assert rows[-1]["name"] == "Handed", "those that were handed over stand last"
    assert {said for row in rows for said in row["said"]} == {"Poplar ply measures 3.155 mm now, was 3.06 mm"}
    told = get(wren, f"/designs/{tray['id']}/following").json()
    assert (told["stays"], told["edits"][0]["path"]) == (None, "basis/main/stock")
    assert ("outside width", 156.12, 156.31) in [
        (one["title"], round(one["before"], 2), round(one["after"], 2)) for one in told["changes"] if one["before"]
    ]
    assert follow(sign_in("Teal"), rows[0]).status_code == 404
    for row in rows:
        assert follow(wren, row).status_code == 200
        assert thickness(wren, row) == pytest.approx(3.155)
    assert concerned(wren) == []
    shown = get(wren, f"/designs/{other['id']}").json()
    back = post(wren, f"/designs/{other['id']}/undo", {"seen": shown["moves"]}).json()
    assert back["boards"][0]["basis"]["thickness"] == pytest.approx(3.06)
    assert [row["name"] for row in concerned(wren)] == ["Other"], "the others stay where they are"
    kept = get(wren, f"/designs/{handed['id']}/exports").json()
    assert [(one["id"], one["sha256"]) for one in kept] == [(file["id"], file["sha256"])]
    assert follow(wren, {"id": tray["id"], "moves": 99, "revision": 2}).status_code == 200, (
        "nothing newer: nothing to do"
    )


def test_what_another_window_saved_meanwhile_is_merged(wren, tray, stock):
    put_stock({"readings": [3.15, 3.16]}, stock)
    [row] = concerned(wren)
    edit(wren, tray, name="Tray for ferns")
    assert follow(wren, row).status_code == 200
    followed = get(wren, f"/designs/{tray['id']}").json()
    assert (followed["name"], thickness(wren, tray)) == ("Tray for ferns", pytest.approx(3.155))
    put_stock({"readings": [3.25, 3.26]}, stock)
    [row] = concerned(wren)
    edit(wren, followed, readings=["3.4", "3.41"])
    assert follow(wren, row).status_code == 200
    assert thickness(wren, tray) == pytest.approx(3.405), "its own readings stay"


def test_a_job_that_would_not_build_or_fit_stays_and_says_why(wren, machine):
    """A board that is four times as thick now leaves nothing inside a tray 20 mm wide outside."""
    stock = put_stock({"name": "Thin board", "readings": [3.0, 3.01], **CARD})
    narrow = made(wren, "Narrow", stock, machine, width="20", depth="20", height="20", finger="4", sizes="outside")
    wide = made(wren, "Wide", stock, machine, width="150")
    put_stock({"nominal": 12, "readings": [12.0, 12.1]}, stock)
    rows = {row["name"]: row for row in concerned(wren)}
    told = get(wren, f"/designs/{narrow['id']}/following").json()
    refused = follow(wren, rows["Narrow"])
    assert refused.status_code == 422
    assert (told["changes"], told["stays"]["why"]) == ([], refused.json()["why"])
    assert follow(wren, rows["Wide"]).status_code == 200
    assert Design.objects.get(pk=narrow["id"]).head.number == 1
    assert Design.objects.get(pk=wide["id"]).head.number == 2


def test_the_notebook_and_the_machine_are_followed_too(wren, tray, stock, machine):
    put_machine({"bed_width": 500}, machine)
    piece = {"way": "slats", "stock": stock.id, "machine": machine.id, "row": ROW}
    kept = post(wren, "/notebook", piece)
    assert kept.status_code == 201, kept.content
    [told] = concerned(wren)
    assert told["said"][0] == "Shed laser was changed: bed"
    assert told["said"][1].startswith("The kerf of Shed laser in Poplar ply is 0.1")
    assert told["said"][1].endswith("now, was 0.14 mm")
    assert follow(wren, told).status_code == 200
    basis = get(wren, f"/designs/{tray['id']}").json()["boards"][0]["basis"]
    assert (basis["machine"]["bed_width"], basis["machine"]["found"]["way"]) == (500, "slats")
    assert basis["machine"]["kerf"] != 0.14
    assert concerned(wren) == []
    # A kerf that is taken back is told to the job that rests on it; with none to stand in for it, nobody measured it.
    [entry] = [one for one in get(wren, f"/notebook?machine={machine.id}&stock={stock.id}").json() if one["valid"]]
    assert (
        wren.put(f"/api/notebook/{entry['id']}", {"valid": False}, content_type="application/json").status_code == 204
    )
    [told] = concerned(wren)
    kerf = basis["machine"]["kerf"]
    assert told["said"] == [f"The kerf of Shed laser in Poplar ply, {kerf:.2f} mm, was marked invalid in the notebook"]
    [news] = get(wren, f"/designs/{tray['id']}/news").json()
    assert (news["of"], news["what"], news["problem"]) == ("notebook", ["kerf taken back"], None)
    assert follow(wren, told).status_code == 200
    basis = get(wren, f"/designs/{tray['id']}").json()["boards"][0]["basis"]
    assert (basis["machine"]["kerf"], basis["machine"]["found"]) == (kerf, None)
    assert concerned(wren) == []
    # Measured anew, the newest is offered.
    assert post(wren, "/notebook", {**piece, "row": ["98.4", "98.41", "98.4"]}).status_code == 201
    [told] = concerned(wren)
    assert follow(wren, told).status_code == 200
    # What is archived tells nothing.
    wren.delete(f"/api/stocks/{stock.id}")
    put_stock({"readings": [3.3, 3.31]}, Stock.objects.get(pk=stock.id))
    assert concerned(wren) == []


def test_many_jobs_are_told_from_their_documents(wren, tray, stock):
    """Listing asks the database as often for nine jobs as for one: none is computed. Each is followed in a request of its own."""
    put_stock({"readings": [3.15, 3.16]}, stock)
    with CaptureQueriesContext(connection) as one:
        assert len(concerned(wren)) == 1
    for _ in range(8):
        post(wren, f"/designs/{tray['id']}/duplicate", {})
    with CaptureQueriesContext(connection) as nine:
        assert len(concerned(wren)) == 9
    assert len(nine) == len(one) <= 12
