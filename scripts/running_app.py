"""The real app on a temporary data folder and a free port: for browser tests, screenshots and benchmarks."""

from __future__ import annotations

import os
import socket
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
BROWSER_ARGS = [
    "--no-sandbox", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update",
    "--disable-sync", "--disable-dev-shm-usage", "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1, EXCLUDE localhost",
]  # fmt: skip
"""Headless Chromium that talks to this machine only."""


@dataclass(frozen=True)
class RunningApp:
    """`environment` is the server's own, for another process on the same data."""

    address: str
    environment: dict[str, str]
    process: int


@contextmanager
def running_app() -> Iterator[RunningApp]:
    """A freshly seeded demo, which ends with the block."""
    with tempfile.TemporaryDirectory() as data, socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
        free.close()
        environment = {**os.environ, "LEAN_NOTCH_DATA": data, "LEAN_NOTCH_DEMO": "1"}
        manage = [sys.executable, str(ROOT / "server" / "manage.py")]
        for command in (["migrate", "-v0"], ["seed_demo"]):
            subprocess.run([*manage, *command], env=environment, check=True)
        server = subprocess.Popen(
            [sys.executable, "-m", "uvicorn", "config.asgi:application", "--port", str(port), "--log-level", "warning"],
            cwd=ROOT / "server",
            env=environment,
        )
        try:
            _wait(f"http://127.0.0.1:{port}/api/session", server)
            yield RunningApp(f"http://127.0.0.1:{port}", environment, server.pid)
        finally:
            server.terminate()
            server.wait(10)


def _wait(address: str, server: subprocess.Popen[bytes]) -> None:
    for _ in range(200):
        if server.poll() is not None:
            raise RuntimeError("The server ended before it answered.")
        try:
            urllib.request.urlopen(address, timeout=1).close()
            return
        except OSError:
            time.sleep(0.05)
    raise RuntimeError("The server did not answer within ten seconds.")
