"""Every refusal under /api is a problem with reason and fix; what fails leaves a trace, and nothing private in it."""

from __future__ import annotations

import json
import logging

import pytest
from client import edit, get, patch, post
from django.db import DatabaseError, OperationalError, connection
from django.test import Client
from ground.failures import told
from ground.logs import Lines, LogFile, logging_for


def is_problem(answer, status, code):
    assert answer.status_code == status, answer.content
    said = answer.json()
    assert said["code"] == code
    assert said["why"]
    assert said["fix"]
    return said


def test_what_is_not_there_what_cannot_be_done_and_what_cannot_be_read(wren, tray):
    is_problem(get(wren, "/nowhere"), 404, "not-found")
    is_problem(get(wren, "/designs/99999"), 404, "not-found")
    refused = patch(wren, f"/designs/{tray['id']}")
    is_problem(refused, 405, "not-allowed")
    assert "DELETE" in refused["Allow"]
    is_problem(wren.post("/api/designs", "{", content_type="application/json"), 400, "malformed")
    is_problem(Client().get("/api/designs"), 401, "signed-out")
    too_much = wren.post("/api/designs", b"x" * 3_000_000, content_type="application/json")
    is_problem(too_much, 413, "too-large")


def test_a_change_without_its_token(wren, tray):
    strict = Client(enforce_csrf_checks=True)
    strict.cookies = wren.cookies
    is_problem(post(strict, f"/designs/{tray['id']}/undo", {"seen": 1}), 403, "token-missing")


@pytest.fixture
def logged():
    """Lines as the log file has them."""
    kept: list[dict] = []

    class Keep(logging.Handler):
        def emit(self, record):
            kept.append(json.loads(self.format(record)))

    handler = Keep()
    handler.setFormatter(Lines())
    logger = logging.getLogger("lean_notch")
    logger.addHandler(handler)
    yield kept
    logger.removeHandler(handler)


def test_an_error_nobody_expected_is_logged_with_its_place_and_without_a_makers_words(wren, tray, logged, monkeypatch):
    wren.raise_request_exception = False

    def broken(*_):
        raise ValueError("no room for 'Aunt Edda'")

    monkeypatch.setattr("designs.shown.show_history", broken)
    answer = get(wren, f"/designs/{tray['id']}/history?secret=1")
    said = is_problem(answer, 500, "failed")
    failed, answered = logged
    assert failed["request"] == answered["request"] == answer["X-Request"]
    assert failed["request"] in said["fix"]
    assert failed["traceback"][-2].startswith("test_refusals.py:")
    assert failed["traceback"][-1] == "ValueError: no room for …"
    assert answered | {"status": 500, "route": "api/designs/<design_id>/history", "code": "failed"} == answered
    assert isinstance(answered["user"], int)
    assert "Wren" not in json.dumps(logged)
    assert "secret" not in json.dumps(logged)


def test_slow_requests_stand_out(wren, tray, logged, monkeypatch):
    monkeypatch.setattr("config.requests.SLOW_SECONDS", 0.0)
    get(wren, f"/designs/{tray['id']}")
    assert [(line["event"], line["level"]) for line in logged] == [("slow", "warning")]


def test_the_log_goes_on_where_its_folder_cannot_be_made(tmp_path):
    (tmp_path / "log").write_text("a file where the folder should be")
    LogFile(tmp_path / "log" / "server.log").emit(logging.makeLogRecord({"msg": "lost"}))
    assert logging_for(tmp_path / "log")["handlers"]["terminal"]["level"] == "ERROR"


@pytest.mark.parametrize(("error", "status", "code"), [
    (OperationalError("database is locked"), 503, "busy"),
    (OperationalError("database or disk is full"), 507, "disk-full"),
    (OperationalError("attempt to write a readonly database"), 503, "read-only"),
    (OperationalError("unable to open database file"), 503, "no-database"),
    (DatabaseError("database disk image is malformed"), 500, "damaged"),
    (DatabaseError("file is not a database"), 500, "damaged"),
    (OSError(28, "No space left on device"), 507, "disk-full"),
    (OSError(30, "Read-only file system"), 503, "read-only"),
    (MemoryError(), 503, "no-memory"),
    (KeyError("x"), 500, "failed"),
])  # fmt: skip
def test_what_the_machine_cannot_do_is_told_apart(error, status, code):
    found, problem = told(error, "ab12")
    assert (found, problem.code) == (status, code)


@pytest.mark.django_db(transaction=True)
def test_on_a_full_disk_reading_goes_on_and_an_edit_says_so(wren, tray):
    """SQLite's own limit of pages gives the error that a full disk gives."""
    with connection.cursor() as cursor:
        pages = cursor.execute("PRAGMA page_count").fetchone()[0]
        cursor.execute(f"PRAGMA max_page_count = {pages}")
    try:
        for size in range(200):
            answer = edit(wren, tray, width=str(150 + size))
            if answer.status_code != 200:
                break
            tray = answer.json()
        is_problem(answer, 507, "disk-full")
        assert get(wren, f"/designs/{tray['id']}").json()["moves"] == tray["moves"]
        assert get(wren, "/designs").status_code == 200
    finally:
        with connection.cursor() as cursor:
            cursor.execute("PRAGMA max_page_count = 1073741823")
    assert edit(wren, tray, width="99").status_code == 200


@pytest.mark.django_db(transaction=True)
def test_where_nothing_can_be_written_signing_in_and_reading_go_on(tray, wren, django_user_model):
    django_user_model.objects.create_user("Heron", password="reed and sedge")
    with connection.cursor() as cursor:
        cursor.execute("PRAGMA query_only = ON")
    try:
        client = Client()
        assert post(client, "/session", {"name": "Heron", "password": "reed and sedge"}).status_code == 200
        assert get(wren, "/designs").status_code == 200
        is_problem(edit(wren, tray, width="99"), 503, "read-only")
    finally:
        with connection.cursor() as cursor:
            cursor.execute("PRAGMA query_only = OFF")


@pytest.mark.django_db
def test_health_says_whether_the_server_can_work(client, monkeypatch):
    found = client.get("/api/health")
    assert found.status_code == 200
    assert found.json()["ok"] is True
    assert found.json()["version"]
    assert (found.json()["tasks"], found.json()["running"], found.json()["waiting"]) == ("ok", 0, 0)
    monkeypatch.setattr("upkeep.health.LEAST_FREE_MB", 10**9)
    full = client.get("/api/health")
    assert (full.status_code, full.json()["disk"]) == (503, "nearly full")
