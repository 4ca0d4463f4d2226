"""What stands before Django: bodies that are whole and not too large, and threads that stay. Plain ASGI, no server."""

from __future__ import annotations

import asyncio
import json
import threading

from asgiref.sync import sync_to_async
from config.gate import MOST_UNKNOWN_BYTES, Gate
from ground.threads import KeptThreads


def asked(app, *messages, **headers):
    """What an app sends for a request whose body comes in these pieces; None cuts it off."""
    sent = []
    waiting = [
        {"type": "http.request", "body": piece, "more_body": True} if piece is not None else {"type": "http.disconnect"}
        for piece in messages
    ]
    if None not in messages:
        waiting.append({"type": "http.request", "body": b"", "more_body": False})

    async def receive():
        return waiting.pop(0) if waiting else {"type": "http.disconnect"}

    async def send(message):
        sent.append(message)

    raw = [(name.replace("_", "-").encode(), value.encode()) for name, value in headers.items()]
    asyncio.run(app({"type": "http", "headers": raw}, receive, send))
    return sent


async def echo(_, receive, send):
    body = b""
    while True:
        message = await receive()
        body += message["body"]
        if not message["more_body"]:
            break
    await send({"body": body, "after": (await receive())["type"]})


SIGNED = {"cookie": "a=1; sessionid=abc"}


def test_a_body_arrives_whole_and_then_the_client_may_still_go():
    pieces = [b"a" * 300_000, b"b" * 300_001]
    assert asked(Gate(echo, "sessionid"), *pieces, **SIGNED) == [{"body": b"".join(pieces), "after": "http.disconnect"}]
    assert asked(Gate(echo, "sessionid"), **SIGNED) == [{"body": b"", "after": "http.disconnect"}]


def test_an_upload_that_is_cut_off_asks_nothing_of_the_app():
    assert asked(Gate(echo, "sessionid"), b"half", None, **SIGNED) == []


def refused(sent):
    start, body = sent
    return start["status"], json.loads(body["body"])["code"]


def test_too_much_is_refused_by_what_is_said_and_by_what_comes(monkeypatch):
    gate = Gate(echo, "sessionid")
    assert refused(asked(gate, content_length="60000000", **SIGNED)) == (413, "too-large")
    monkeypatch.setattr("config.gate.MOST_BYTES", 10)
    assert refused(asked(gate, b"12345", b"678901", **SIGNED)) == (413, "too-large")
    assert asked(gate, b"12345", b"67890", **SIGNED)[0]["body"] == b"1234567890"


def test_who_shows_no_session_may_send_little():
    gate = Gate(echo, "sessionid")
    assert refused(asked(gate, content_length=str(MOST_UNKNOWN_BYTES + 1))) == (401, "signed-out")
    assert refused(asked(gate, b"x" * (MOST_UNKNOWN_BYTES + 1))) == (401, "signed-out")
    assert len(asked(gate, b"x" * MOST_UNKNOWN_BYTES)[0]["body"]) == MOST_UNKNOWN_BYTES


def test_requests_share_a_few_threads_that_stay_and_one_that_still_computes_is_left_alone():
    used, hold, begun = [], threading.Event(), threading.Event()

    def compute():
        begun.set()
        hold.wait(10)

    async def work(scope, receive, send):
        if scope["heavy"]:
            await sync_to_async(compute)()
        used.append(await sync_to_async(threading.get_ident)())

    app = KeptThreads(work, 2)

    async def many():
        left = asyncio.create_task(app({"heavy": True}, None, None))
        await asyncio.to_thread(begun.wait, 10)
        left.cancel()  # its client has gone
        await asyncio.gather(*(app({"heavy": False}, None, None) for _ in range(10)))
        assert len(set(used)) == 1
        hold.set()
        while app.free.qsize() < 2:
            await asyncio.sleep(0.01)

    asyncio.run(many())
    assert len(used) == 10
