"""The server's entry for uvicorn."""

from __future__ import annotations

import asyncio
import gc
import os
import threading

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")

from django.conf import settings
from django.core.asgi import get_asgi_application
from ground import folder
from ground.threads import KeptThreads, Receive, Scope, Send
from lean_notch.ground.errors import NotchError

from config.gate import Gate, Lane

COLLECTED = (20_000, 20, 100)
"""How rarely the collector goes through what was made lately, and through everything."""

REQUEST_THREADS = 8
"""More would only wait for each other: the machine's processors, and one writer at a time in the database."""

_threads = KeptThreads(get_asgi_application(), REQUEST_THREADS)
_serve = Gate(Lane(_threads, "POST", "/api/session"), settings.SESSION_COOKIE_NAME)


async def application(scope: Scope, receive: Receive, send: Send) -> None:
    if scope["type"] == "lifespan":
        await _live(receive, send)
    elif scope["type"] == "http":
        await _serve(scope, receive, send)


async def _live(receive: Receive, send: Send) -> None:
    """What begins and ends with the server."""
    await receive()
    try:
        folder.take(settings.DATA_DIR)
    except NotchError as error:
        await send({"type": "lifespan.startup.failed", "message": f"{error.why} {error.fix}"})
        return
    # Only here: models can be read once Django is set up.
    from tasks.actions import RUNNING
    from tasks.pool import Pool
    from upkeep.housekeeping import Housekeeping

    threading.Thread(target=_warm_up, daemon=True).start()
    pool, housekeeping = Pool(), Housekeeping(settings.DATA_DIR)
    if settings.WRITABLE:  # else nothing can be kept of a task, and there is nothing to back up
        RUNNING.pool = pool
        pool.start()
        housekeeping.start()
    await send({"type": "lifespan.startup.complete"})
    await receive()
    if settings.WRITABLE:
        await asyncio.to_thread(pool.stop)
        await asyncio.to_thread(housekeeping.stop)
    folder.give_back()
    await send({"type": "lifespan.shutdown.complete"})


def _warm_up() -> None:
    """Imports what the first edit would wait for; then takes all that out of the collector's rounds.

    A full round over the imported libraries takes 60 ms, which an edit of a large job would otherwise meet.
    """
    import ezdxf  # noqa: F401
    import lxml.etree  # noqa: F401
    import shapely  # noqa: F401
    from lean_notch.lettering import FONTS, glyph

    for font in FONTS:
        glyph(font, "A", 10.0)
    gc.collect()
    gc.freeze()
    gc.set_threshold(*COLLECTED)
