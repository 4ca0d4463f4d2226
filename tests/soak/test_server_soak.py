"""The server and its children killed at any moment, over and over: nothing that was acknowledged is lost, no task is stuck, no
process is left. `make soak-server`; ROUNDS=n for more or fewer."""

from __future__ import annotations

import os
import random
import signal
import socket
import sqlite3
import subprocess
import sys
import threading
import time
import urllib.request
from contextlib import closing, suppress
from http.client import HTTPException
from pathlib import Path

import hostile
import pytest
from accounts.demo_maker import DEMO_NAME, DEMO_PASSWORD
from maker import Maker

ROOT = Path(__file__).resolve().parents[2]
ROUNDS = int(os.environ.get("ROUNDS", "100"))


def port() -> int:
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        return free.getsockname()[1]


@pytest.fixture
def environment(tmp_path):
    found = {**os.environ, "LEAN_NOTCH_DATA": str(tmp_path), "PYTHONPATH": os.pathsep.join(sys.path)}
    for command in (["migrate", "-v0"], ["seed_demo"]):
        subprocess.run([sys.executable, str(ROOT / "server/manage.py"), *command], env=found, check=True)
    return found


def started(environment, at):
    server = subprocess.Popen(
        [sys.executable, "-c", f"from config.command import main; main(['start', '--port', '{at}'])"],
        env=environment, cwd=ROOT / "server",
    )  # fmt: skip
    until = time.monotonic() + 30
    while time.monotonic() < until:
        try:
            urllib.request.urlopen(f"http://127.0.0.1:{at}/api/health", timeout=5).close()
            return server
        except OSError:
            assert server.poll() is None, "the server ended by itself"
            time.sleep(0.05)
    raise AssertionError("no health within 30 s")


def children_of(parent: int) -> list[int]:
    found = []
    for one in Path("/proc").glob("[0-9]*/cmdline"):
        try:
            words = one.read_bytes().split(b"\0")
        except OSError:
            continue
        if b"tasks.child" in words and str(parent).encode() in words:
            found.append(int(one.parent.name))
    return found


def kill(victims: list[int]) -> None:
    for one in victims[::-1]:
        with suppress(ProcessLookupError):
            os.kill(one, signal.SIGKILL)


def test_killed_at_any_moment(environment, tmp_path):
    some, lost_connections, ended = random.Random(1), 0, {"done": 0, "failed": 0}
    width, moves, open_tasks = 150.0, 0, []
    address, maker = port(), None
    for number in range(ROUNDS):
        server = started(environment, address)
        # Who was signed in still is: the secret is in the data folder.
        maker = maker.again() if maker else Maker(f"http://127.0.0.1:{address}", DEMO_NAME, DEMO_PASSWORD)
        job = maker.ask("GET", f"/designs/{maker.ask('GET', '/designs')[1][0]['id']}")[1]
        # All that was acknowledged before the last kill is there; at most one edit more, whose answer was on its way.
        found = next(row["value"] for row in job["ledger"]["job"] if row["key"] == "width")
        if number:
            assert job["moves"] in (moves, moves + 1)
            assert found == pytest.approx(width) or job["moves"] == moves + 1
        for task in open_tasks:
            end = maker.followed(maker.ask("GET", f"/tasks/{task}")[1], 30)
            assert end["state"] in ("done", "failed"), end
            ended[end["state"]] += 1
        open_tasks = []
        width, moves = found, job["moves"]
        if number % 2 == 0:
            status, task = maker.check("many.svg", hostile.nested_uses(3, step=0.1 + number / 1000))
            open_tasks += [task["id"]] if status == 202 else []
        victims = [server.pid, *(children_of(server.pid) if some.random() < 0.5 else [])]

        killer = threading.Timer(some.uniform(0, 0.6), kill, [victims])
        killer.start()
        try:
            for _ in range(50):
                asked = round(100 + some.uniform(0, 80), 3)
                status, said = maker.put(job, "answers/width", str(asked))
                assert status == 200, said
                width, moves = asked, job["moves"]
        except (OSError, HTTPException, ValueError):
            lost_connections += 1
        killer.join()
        server.wait(10)
        until = time.monotonic() + 5
        while children_of(server.pid) and time.monotonic() < until:
            time.sleep(0.05)
        assert children_of(server.pid) == [], "children outlive their server"
        with closing(sqlite3.connect(tmp_path / "lean-notch.sqlite3")) as database:
            assert database.execute("PRAGMA integrity_check").fetchone() == ("ok",)
    print(
        f"\n{ROUNDS} kills, {lost_connections} in the middle of an edit; tasks that went on after one: {ended}; {moves} moves"
    )
    checked = subprocess.run(
        [sys.executable, "-c", "from config.command import main; raise SystemExit(main(['check']))"],
        env=environment, cwd=ROOT / "server", capture_output=True, text=True,
    )  # fmt: skip
    assert checked.stdout == "Nothing wrong was found.\n"
