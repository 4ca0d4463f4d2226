"""What would take longer than a request may: worked out by a real child, and the same answers as where it is quick."""

from __future__ import annotations

import json
import time

import pytest
from client import edit, get, post
from designs.models import Design, Revision
from django.core.files.uploadedfile import SimpleUploadedFile
from ground.memory import forget
from results.models import Result
from tasks.models import Task

pytestmark = [pytest.mark.django_db(transaction=True), pytest.mark.xdist_group("tasks")]

DRAWING = b'<svg xmlns="http://www.w3.org/2000/svg" width="20mm" height="20mm" viewBox="0 0 20 20"><path id="l" d="M0 0H20V20H0Z"/></svg>'


@pytest.fixture
def slow(monkeypatch, pool):
    """No request may take any time: whatever can be worked out beside is."""
    monkeypatch.setattr("designs.compute.QUICK_SECONDS", -1.0)


def finished(client, ask, most=4):
    """The answer to a request that is made again once the tasks that it waits for are done; how many those were."""
    for waited in range(most):
        answer = ask()
        if answer.status_code != 202:
            return answer, waited
        task = answer.json()
        assert task["again"]
        until = time.monotonic() + 60
        while task["state"] in ("waiting", "running") and time.monotonic() < until:
            time.sleep(0.05)
            task = get(client, f"/tasks/{task['id']}").json()
        assert task["state"] == "done", task
    raise AssertionError(f"still waiting after {most} tasks")


def test_an_edit_waits_once_and_is_saved_once(wren, tray, slow):
    answer, waited = finished(wren, lambda: edit(wren, tray, width="180"))
    assert (answer.status_code, waited) == (200, 1)
    assert Revision.objects.filter(design=tray["id"]).count() == 2
    here = Design.objects.get(pk=tray["id"])
    assert "180" in json.dumps(here.head.document["design"]["dimensions"])


def test_what_a_child_worked_out_is_what_would_be_worked_out_here(wren, tray, pool, monkeypatch):
    edit(wren, tray, width="180")
    here = get(wren, f"/designs/{tray['id']}").json()
    monkeypatch.setattr("designs.compute.QUICK_SECONDS", -1.0)
    forget()
    beside, waited = finished(wren, lambda: get(wren, f"/designs/{tray['id']}"))
    assert waited == 1
    assert beside.json() == here


def test_undo_moves_once_whatever_has_to_be_waited_for(wren, tray, pool, monkeypatch):
    after = edit(wren, tray, width="180").json()
    moves = (after.get("plain") or after)["moves"]
    monkeypatch.setattr("designs.compute.QUICK_SECONDS", -1.0)
    forget()
    answer, waited = finished(wren, lambda: post(wren, f"/designs/{tray['id']}/undo", {"seen": moves}))
    assert (answer.status_code, waited) == (200, 1)
    assert Design.objects.get(pk=tray["id"]).moves == moves + 1
    assert Design.objects.get(pk=tray["id"]).head.number == 1


@pytest.mark.parametrize("form", ["html", "pdf"])
def test_a_job_sheet_is_the_same_page(wren, tray, pool, monkeypatch, form):
    address = f"/designs/{tray['id']}/job-sheet?form={form}"
    here = get(wren, address)
    assert here.status_code == 200
    monkeypatch.setattr("designs.compute.QUICK_SECONDS", -1.0)
    beside, waited = finished(wren, lambda: get(wren, address))
    assert waited >= 1
    assert beside["Content-Type"] == here["Content-Type"]
    if form == "html":
        assert beside.content == here.content
    else:
        assert beside.content.startswith(b"%PDF")


def test_a_browser_is_shown_a_page_until_there_is_one(wren, tray, pool, monkeypatch):
    monkeypatch.setattr("designs.compute.QUICK_SECONDS", -1.0)
    address, accepts = f"/api/designs/{tray['id']}/job-sheet", {"HTTP_ACCEPT": "text/html,*/*;q=0.8"}
    waits = wren.get(address, **accepts)
    assert waits.status_code == 202
    assert b'http-equiv="refresh"' in waits.content
    assert "script-src" in waits["Content-Security-Policy"] or "default-src" in waits["Content-Security-Policy"]
    finished(wren, lambda: wren.get(address))
    assert b"Tray" in wren.get(address, **accepts).content


def test_other_bases_are_tried_the_same_and_one_that_is_not_there_is_told_by_itself(
    wren, tray, stock, pool, monkeypatch
):
    swaps = {"swaps": [{"board": "main", "stock": stock.id}, {"board": "main", "stock": 10**6}]}
    here = post(wren, f"/designs/{tray['id']}/tries", swaps).json()
    assert [bool(one["problem"]) for one in here] == [False, False, True]
    monkeypatch.setattr("designs.compute.QUICK_SECONDS", -1.0)
    beside, waited = finished(wren, lambda: post(wren, f"/designs/{tray['id']}/tries", swaps))
    assert waited >= 1
    assert beside.json() == here


def test_a_drawing_is_read_beside_and_kept_once_it_was(wren, slow):
    def brought():
        return wren.post("/api/files", {"file": SimpleUploadedFile("a.svg", DRAWING)})

    answer, waited = finished(wren, brought)
    assert (answer.status_code, waited) == (201, 1)
    first = wren.post("/api/files", {"file": SimpleUploadedFile("b.svg", b"<svg")})
    task = first.json()
    until = time.monotonic() + 60
    while task["state"] in ("waiting", "running") and time.monotonic() < until:
        time.sleep(0.05)
        task = get(wren, f"/tasks/{task['id']}").json()
    assert (task["state"], task["problem"]["code"]) == ("failed", "unreadable-file")
    assert wren.get("/api/health").status_code == 200


def test_a_packed_job_is_read_beside(wren, tray, pool, monkeypatch):
    packed = get(wren, f"/designs/{tray['id']}/packed").content
    monkeypatch.setattr("designs.compute.QUICK_SECONDS", -1.0)

    def sent():
        return wren.post("/api/designs/packed", {"file": SimpleUploadedFile("a.zip", packed)})

    answer, waited = finished(wren, sent)
    assert (answer.status_code, waited) == (201, 2)
    assert Design.objects.count() == 2


def test_a_file_of_before_is_compared_beside(wren, tray, pool, monkeypatch):
    [made] = post(wren, f"/designs/{tray['id']}/exports", {"format": "svg"}).json()
    here = get(wren, f"/exports/{made['id']}/today").json()
    monkeypatch.setattr("designs.compute.QUICK_SECONDS", -1.0)
    beside, _ = finished(wren, lambda: get(wren, f"/exports/{made['id']}/today"))
    assert beside.json() == here == {"known": True, "differs": []}


def test_what_is_refused_is_refused_beside_too(wren, tray, slow):
    answer = edit(wren, tray, width="9000")
    for _ in range(3):
        task = answer.json()
        until = time.monotonic() + 60
        while task["state"] in ("waiting", "running") and time.monotonic() < until:
            time.sleep(0.05)
            task = get(wren, f"/tasks/{task['id']}").json()
        answer = edit(wren, tray, width="9000")
        if answer.status_code != 202:
            break
    assert answer.status_code in (200, 422), json.dumps(answer.json())


def test_what_was_forgotten_meanwhile_is_asked_for_anew(wren, tray, slow):
    first = get(wren, f"/designs/{tray['id']}/job-sheet")
    finished(wren, lambda: get(wren, f"/designs/{tray['id']}/job-sheet"))
    Result.objects.all().delete()
    again = get(wren, f"/designs/{tray['id']}/job-sheet")
    assert again.status_code == 202
    assert again.json()["id"] != first.json()["id"]
    assert Task.objects.filter(pk=first.json()["id"]).count() == 0
