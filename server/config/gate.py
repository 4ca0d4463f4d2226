"""What a request must be before it gets a thread: complete, and no larger than its sender may send.

In: ASGI; out: the same with a body that is all there. A slow or broken upload holds nobody up, and leaves nothing behind.
"""

from __future__ import annotations

import asyncio
import json
import tempfile
from collections.abc import Mapping

from ground.problems import Problem
from ground.threads import App, Message, Receive, Scope, Send
from lean_notch.ground.limits import MOST_DRAWING_BYTES

MOST_BYTES = MOST_DRAWING_BYTES + 2_000_000
"""Of a body: the largest drawing and the form around it."""

MOST_UNKNOWN_BYTES = 100_000
"""Of a body from somebody who shows no session: signing in needs no more."""

_IN_MEMORY = 1_000_000
_CHUNK = 256_000


class Gate:
    """An ASGI app in front of another one. `session_cookie` is the cookie without which little may be sent."""

    def __init__(self, app: App, session_cookie: str) -> None:
        self.app, self.cookie = app, f"{session_cookie}=".encode()

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        headers = dict(scope["headers"])
        known = self.cookie in headers.get(b"cookie", b"")
        most = MOST_BYTES if known else MOST_UNKNOWN_BYTES
        told = headers.get(b"content-length", b"")
        if told.isdigit() and int(told) > most:
            await _refuse(send, most, known)
            return
        with tempfile.SpooledTemporaryFile(_IN_MEMORY) as body:
            size = 0
            while True:
                message = await receive()
                if message["type"] == "http.disconnect":
                    return
                chunk = message.get("body", b"")
                size += len(chunk)
                if size > most:
                    await _refuse(send, most, known)
                    return
                body.write(chunk)
                if not message.get("more_body"):
                    break
            body.seek(0)
            left = size

            async def replay() -> Message:
                nonlocal left
                if left < 0:
                    return await receive()  # whether the client is still there
                chunk = body.read(_CHUNK)
                left -= len(chunk)
                more = left > 0
                left = left if more else -1
                return {"type": "http.request", "body": chunk, "more_body": more}

            await self.app(scope, replay, send)


class Lane:
    """An ASGI app in which no more than `most` requests of one kind are under way at once, `waiting` more wait, and further ones are
    refused: checking a password takes a processor for most of a second, on purpose, and nobody else is to wait for that."""

    def __init__(self, app: App, method: str, path: str, most: int = 2, waiting: int = 30) -> None:
        self.app, self.kind, self.most, self.waiting = app, (method, path), most, waiting
        self._free: asyncio.Semaphore | None = None
        self._there = 0

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if (scope["method"], scope["path"]) != self.kind:
            await self.app(scope, receive, send)
            return
        if self._there >= self.most + self.waiting:
            why, fix = "Too many people are signing in at once.", "Try again in a moment."
            await respond(send, 429, Problem(code="too-many", why=why, fix=fix, field=""), {"retry-after": "5"})
            return
        if self._free is None:
            self._free = asyncio.Semaphore(self.most)
        self._there += 1
        try:
            async with self._free:
                await self.app(scope, receive, send)
        finally:
            self._there -= 1


async def _refuse(send: Send, most: int, known: bool) -> None:
    if known:
        fix = f"Send less than {most // 1_000_000} MB."
        await respond(send, 413, Problem(code="too-large", why="That is too much to send at once.", fix=fix, field=""))
    else:
        await respond(send, 401, Problem(code="signed-out", why="You are not signed in.", fix="Sign in.", field=""))


async def respond(send: Send, status: int, problem: Problem, headers: Mapping[str, str] | None = None) -> None:
    """Answers with a problem, outside Django."""
    said = {"content-type": "application/json", "connection": "close", **(headers or {})}
    raw = [(name.encode(), value.encode()) for name, value in said.items()]
    await send({"type": "http.response.start", "status": status, "headers": raw})
    await send({"type": "http.response.body", "body": json.dumps(problem.model_dump()).encode()})
