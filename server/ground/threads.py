"""Django on a few threads that stay: a request's database connection is then open already, and stays open.

An edit is on disk when it is answered (synchronous=FULL). With a connection of its own each request would besides pay for
opening it, and the last one to close would write the whole log into the database.
"""

from __future__ import annotations

import asyncio
from collections.abc import Awaitable, Callable, Mapping
from concurrent.futures import Future, ThreadPoolExecutor
from typing import Any

from asgiref.sync import ThreadSensitiveContext

Scope = dict[str, Any]
Message = Mapping[str, Any]
Receive = Callable[[], Awaitable[Message]]
Send = Callable[[Message], Awaitable[None]]
App = Callable[[Scope, Receive, Send], Awaitable[None]]


class KeptThreads:
    """An ASGI app whose requests each run on one of `count` threads; further ones wait."""

    def __init__(self, app: App, count: int) -> None:
        self.app, self.count = app, count
        self._free: asyncio.Queue[ThreadPoolExecutor] | None = None

    @property
    def free(self) -> asyncio.Queue[ThreadPoolExecutor]:
        if self._free is None:
            self._free = asyncio.Queue()
            for number in range(self.count):
                self._free.put_nowait(ThreadPoolExecutor(1, f"request-{number}"))
        return self._free

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        thread = await self.free.get()
        try:
            async with ThreadSensitiveContext(executor=thread):
                await self.app(scope, receive, send)
        finally:
            self._give_back(thread)

    def _give_back(self, thread: ThreadPoolExecutor) -> None:
        """Once it is done: a request whose client has gone may still compute."""
        loop, free = asyncio.get_running_loop(), self.free

        def done(_: Future[None]) -> None:
            loop.call_soon_threadsafe(free.put_nowait, thread)

        thread.submit(_nothing).add_done_callback(done)


def _nothing() -> None:
    pass
