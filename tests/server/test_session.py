"""Signing in and out, with CSRF checked as a browser would meet it."""

import pytest
from accounts.demo_maker import DEMO_NAME, DEMO_PASSWORD
from django.core.management import call_command
from django.test import Client


@pytest.fixture
def browser(db):
    call_command("seed_demo")
    return Client(enforce_csrf_checks=True)


def sign_in(browser, name, password, token):
    body = {"name": name, "password": password}
    return browser.post("/api/session", body, content_type="application/json", headers={"X-CSRFToken": token})


def token_of(browser):
    return browser.get("/api/session").json()["token"]


def test_a_maker_signs_in_and_out(browser):
    answer = sign_in(browser, f" {DEMO_NAME} ", DEMO_PASSWORD, token_of(browser))
    assert (answer.status_code, answer.json()["name"]) == (200, DEMO_NAME)
    assert len(browser.get("/api/designs").json()) == 9
    left = browser.delete("/api/session", headers={"X-CSRFToken": answer.json()["token"]})
    assert left.json()["name"] is None
    assert browser.get("/api/designs").status_code == 401


@pytest.mark.parametrize(("name", "password"), [(DEMO_NAME, "wrong"), ("nobody", DEMO_PASSWORD), ("", "")])
def test_a_wrong_password_says_what_to_do(browser, name, password):
    answer = sign_in(browser, name, password, token_of(browser))
    assert (answer.status_code, answer.json()["field"]) == (422, "password")


def test_changes_without_the_token_are_refused(browser):
    signed = sign_in(browser, DEMO_NAME, DEMO_PASSWORD, token_of(browser))
    assert signed.status_code == 200
    card = browser.get("/api/designs").json()[0]
    body = {"changes": {"width": "9"}, "seen": 1}
    answer = browser.post(f"/api/designs/{card['id']}/edits", body, content_type="application/json")
    assert answer.status_code == 403


def test_the_demos_maker_is_offered_only_by_the_demo(browser, settings):
    settings.DEMO = False
    assert browser.get("/api/session").json()["demo"] is None
    settings.DEMO = True
    assert browser.get("/api/session").json()["demo"]["name"] == DEMO_NAME


def test_the_page_is_served_for_any_address(browser, settings, tmp_path):
    settings.WEB_DIR = tmp_path
    assert browser.get("/jobs/1/shape").status_code == 503
    (tmp_path / "index.html").write_text("<!doctype html>")
    assert browser.get("/jobs/1/shape").content == b"<!doctype html>"
    assert browser.get("/api/nowhere").status_code == 404
