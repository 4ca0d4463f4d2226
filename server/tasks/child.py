"""A process that computes one task after the other: in, files in its folder and a word over a pipe; out, progress, then an
answer in its folder or a problem.

What goes over the pipe is short, so that nobody ever waits for the other to read. It has no database, gives way to the server, may hold only so much memory, and ends with the server.
"""

from __future__ import annotations

import json
import os
import resource
import sys
import time
from multiprocessing.connection import Connection
from pathlib import Path

MOST_BYTES = 900_000_000
"""Of private memory, so that all of it stays under a gigabyte."""

REMEMBERED_BYTES = 300_000_000
"""What it may hold when it begins another task."""

TO_SAY_SO = 30_000_000
"""What a child may have besides once it has run out: enough to say that."""

LEAST_SECONDS = 0.1
"""Between two reports of progress."""

MOST_SAID = 16_000
"""Of one message, in bytes."""

NICE = 10
_DIE_WITH_PARENT = 1  # PR_SET_PDEATHSIG


def main() -> None:
    number, parent, folder = sys.argv[1:]
    _give_way(int(parent))
    pipe = Connection(int(number))
    _get_ready()
    pipe.send_bytes(b"{}")
    from ground.memory import keep_within

    while True:
        try:
            asked = json.loads(pipe.recv_bytes())
        except EOFError:
            return
        said = _computed(pipe, asked, Path(folder))
        pipe.send_bytes(json.dumps({"task": asked["task"], **said}).encode()[:MOST_SAID])
        if said.get("last"):
            return
        keep_within(REMEMBERED_BYTES)


def _give_way(parent: int) -> None:
    os.nice(NICE)
    resource.setrlimit(resource.RLIMIT_DATA, (MOST_BYTES, MOST_BYTES + TO_SAY_SO))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    if sys.platform == "linux":
        import ctypes
        import signal

        ctypes.CDLL(None).prctl(_DIE_WITH_PARENT, signal.SIGKILL)
        if os.getppid() != parent:
            sys.exit(1)  # it ended before this was said


def _get_ready() -> None:
    import django

    django.setup()
    from tasks.kinds import kind_of

    kind_of("")
    import ezdxf  # noqa: F401
    import lxml.etree  # noqa: F401
    import shapely  # noqa: F401


def _computed(pipe: Connection, asked: dict[str, object], folder: Path) -> dict[str, object]:
    from ground.logs import traced
    from lean_notch.ground.errors import NotchError
    from lean_notch.ground.progress import SoFar

    from tasks.kinds import Given, kind_of

    told = 0.0

    def tell(share: float, stage: str, so_far: SoFar | None = None) -> None:
        nonlocal told
        now = time.monotonic()
        if now - told >= LEAST_SECONDS:
            told = now
            words = {"task": asked["task"], "progress": share, "stage": stage}
            known = json.dumps(words | {"so_far": so_far()}).encode() if so_far else b""
            # What is too long to be told so far is told at the end.
            pipe.send_bytes(known if 0 < len(known) <= MOST_SAID else json.dumps(words).encode())

    try:
        kind = kind_of(str(asked["kind"]))
        assert kind, "the pool gives out what it knows"
        given = Given(json.loads((folder / "document").read_bytes()), (folder / "data").read_bytes())
        (folder / "answer").write_bytes(kind.compute(given, tell))
        return {"done": True}
    except NotchError as error:
        return {"problem": error.as_json()}
    except MemoryError:
        resource.setrlimit(resource.RLIMIT_DATA, (MOST_BYTES + TO_SAY_SO, MOST_BYTES + TO_SAY_SO))
        return {"problem": NO_MEMORY, "last": True}
    except Exception as error:
        return {"failed": traced(error)[-12:]}


NO_MEMORY = {
    "code": "too-much-memory", "why": "This takes more memory than one task may have.",
    "fix": "Do less at once: fewer copies, fewer parts, or part of the file.", "field": "",
}  # fmt: skip

if __name__ == "__main__":
    main()
