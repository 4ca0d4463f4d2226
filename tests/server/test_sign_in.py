"""Signing in: wrong passwords, sessions that end, what a browser is told of every answer.

Checked against OWASP ASVS 4.0, chapters 3 (sessions) and 14.4 (headers), from memory.
"""

import asyncio
import os
import subprocess
import sys

import pytest
from accounts.demo_maker import DEMO_NAME, DEMO_PASSWORD
from client import get, post
from config.gate import Lane
from django.conf import settings
from django.contrib.auth.models import User
from django.core.cache import cache
from django.test import Client


@pytest.fixture(autouse=True)
def wren_has_a_password(db):
    User.objects.create_user(DEMO_NAME, password=DEMO_PASSWORD)


def tried(password, address="10.0.0.1", name=DEMO_NAME, client=None):
    return (client or Client(REMOTE_ADDR=address)).post(
        "/api/session", {"name": name, "password": password}, content_type="application/json", REMOTE_ADDR=address
    )


def test_too_many_wrong_passwords_wait_and_the_maker_elsewhere_does_not():
    answers = [tried("wrong") for _ in range(settings.AXES_FAILURE_LIMIT + 1)]
    assert {one.status_code for one in answers[:-1]} == {422, 429}
    assert [one.json()["code"] for one in answers[:2]] == ["wrong-password"] * 2
    last = answers[-1]
    assert (last.status_code, last.json()["code"], last.json()["field"]) == (429, "too-many-tries", "password")
    assert "five minutes" in last.json()["fix"]
    assert tried(DEMO_PASSWORD).status_code == 429  # also with the right one, from there
    assert tried(DEMO_PASSWORD, "10.0.0.2").status_code == 200
    assert tried("wrong", name="somebody else").status_code == 422


def test_fifty_addresses_lock_nobody_out():
    for number in range(50):
        assert tried("wrong", f"10.1.0.{number}").status_code == 422
    assert tried(DEMO_PASSWORD, "10.0.0.9").status_code == 200


def test_a_right_password_forgets_the_wrong_ones():
    for _ in range(3):
        for _ in range(settings.AXES_FAILURE_LIMIT - 2):
            assert tried("wrong").status_code == 422
        assert tried(DEMO_PASSWORD).status_code == 200


def test_a_copied_session_ends_with_signing_out():
    """It went on for fourteen days: the whole of it was in the cookie."""
    client = Client()
    assert tried(DEMO_PASSWORD, client=client).status_code == 200
    copied = Client()
    copied.cookies[settings.SESSION_COOKIE_NAME] = client.cookies[settings.SESSION_COOKIE_NAME].value
    assert get(copied, "/designs").status_code == 200
    assert client.delete("/api/session").status_code == 200
    assert get(copied, "/designs").status_code == 401
    cache.clear()
    assert get(copied, "/designs").status_code == 401


def test_signing_in_gives_another_session_and_a_cookie_no_script_reads():
    """ASVS 3.2.1, 3.4.2, 3.4.3."""
    client = Client()
    tried(DEMO_PASSWORD, client=client)
    cookie = client.cookies[settings.SESSION_COOKIE_NAME]
    first = cookie.value
    assert (cookie["httponly"], cookie["samesite"], cookie["path"], cookie["domain"]) == (True, "Lax", "/", "")
    tried(DEMO_PASSWORD, client=client)
    assert len(first) >= 16
    assert client.cookies[settings.SESSION_COOKIE_NAME].value != first


def test_a_new_password_ends_the_sessions_of_the_old_one():
    """ASVS 3.3.3."""
    client = Client()
    tried(DEMO_PASSWORD, client=client)
    maker = User.objects.get(username=DEMO_NAME)
    maker.set_password("another long one")
    maker.save()
    assert get(client, "/designs").status_code == 401


def test_signing_in_asks_for_the_token():
    """A page of another site could sign a maker in, to have them work under its name."""
    browser = Client(enforce_csrf_checks=True)
    body = {"name": DEMO_NAME, "password": DEMO_PASSWORD}
    refused = browser.post("/api/session", body, content_type="application/json")
    assert (refused.status_code, refused.json()["code"]) == (403, "token-missing")
    token = browser.get("/api/session").json()["token"]
    signed = browser.post("/api/session", body, content_type="application/json", headers={"X-CSRFToken": token})
    assert signed.status_code == 200


def test_every_answer_says_what_a_browser_may_do_with_it(stock, machine):
    client = Client()
    client.force_login(User.objects.get())
    job = post(
        client, "/designs", {"name": "Tray", "recipe": "open-tray", "stock": stock.id, "machine": machine.id}
    ).json()
    files = post(client, f"/designs/{job['id']}/exports", {"format": "svg"}).json()
    box = f"/designs/{job['id']}"
    for path in (
        "",
        "/proof",
        "/job-sheet?style=light",
        "/job-sheet?style=light&form=pdf",
        "/packed",
        f"/exports/{files[0]['id']}",
    ):
        answer = get(client, box + path)
        assert answer.status_code in (200, 404), path
        assert answer["Cache-Control"] in ("no-store", "private, no-store"), path
        policy = answer["Content-Security-Policy"]
        assert "default-src 'self'" in policy
        assert "frame-ancestors 'none'" in policy
        assert "script-src" not in policy  # scripts are as all else: from here only
        assert answer["X-Content-Type-Options"] == "nosniff"
        assert answer["X-Frame-Options"] == "DENY"
    page = client.get("/jobs/1/shape")
    assert "default-src 'self'" in page["Content-Security-Policy"]


@pytest.mark.parametrize(("given", "secure"), [("1", True), ("", False)])
def test_cookies_are_for_tls_alone_where_that_is_set(given, secure, tmp_path):
    said = "from config import settings as s; print(s.SESSION_COOKIE_SECURE, s.CSRF_COOKIE_SECURE, s.SECURE_HSTS_SECONDS > 0, s.SESSION_COOKIE_NAME[:7] == '__Host-')"
    environment = {**os.environ, "LEAN_NOTCH_HTTPS": given, "LEAN_NOTCH_DATA": str(tmp_path)}
    answer = subprocess.run(
        [sys.executable, "-c", said],
        env=environment,
        cwd=settings.ROOT / "server",
        capture_output=True,
        text=True,
        check=True,
    )
    assert answer.stdout.split() == [str(secure)] * 4


def test_passwords_take_no_more_than_two_threads_and_nobody_else_waits():
    """Sixteen wrong passwords held a maker's edit for 18.7 s."""

    async def checked():
        going, most, done, let = 0, 0, [], asyncio.Event()

        async def app(scope, receive, send):
            nonlocal going, most
            going += 1
            most = max(most, going)
            if scope["path"] == "/api/session":
                await let.wait()
            done.append(scope["path"])
            going -= 1

        said = []

        async def send(message):
            said.append(message)

        lane = Lane(app, "POST", "/api/session", most=2, waiting=3)
        asked = [asyncio.create_task(lane({"method": "POST", "path": "/api/session"}, None, send)) for _ in range(16)]
        await asyncio.sleep(0)
        await asyncio.sleep(0)
        await lane({"method": "POST", "path": "/api/designs/1/edits"}, None, send)
        assert done == ["/api/designs/1/edits"]
        assert most == 3  # two passwords, and the edit beside them
        let.set()
        await asyncio.gather(*asked)
        return done, said

    done, said = asyncio.run(checked())
    assert done.count("/api/session") == 5
    assert [one["status"] for one in said if "status" in one] == [429] * 11
