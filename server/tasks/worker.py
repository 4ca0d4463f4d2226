"""One child process as the pool sees it: given a task, asked what it says and what it takes, ended."""

from __future__ import annotations

import json
import os
import socket
import subprocess
import sys
import tempfile
import time
from dataclasses import dataclass, field
from multiprocessing.connection import Connection
from pathlib import Path
from typing import Any

from tasks.child import MOST_SAID
from tasks.kinds import Kind

LONGEST_WAIT = 4.0
"""How many times its processor time a task may take by the clock: a child that hangs takes none."""

MOST_RESIDENT = 1_000_000_000
LONGEST_START = 60.0
_TICKS = os.sysconf("SC_CLK_TCK")
_PAGE = os.sysconf("SC_PAGE_SIZE")


@dataclass(frozen=True)
class Said:
    """One message of a child's."""

    words: dict[str, Any]

    @property
    def ends(self) -> bool:
        return not {"done", "problem", "failed"}.isdisjoint(self.words)


@dataclass
class Worker:
    """Begins as a process that gets ready; `free` once it has said so."""

    ready: bool = False
    task: int | None = None
    kind: Kind | None = None
    progress: float = 0.0
    stage: str = ""
    so_far: Any = None
    began: float = field(default_factory=time.monotonic)
    _used: float = 0.0

    def __post_init__(self) -> None:
        mine, its = socket.socketpair()
        environment = {
            **os.environ, "LEAN_NOTCH_CHILD": "1", "PYTHONPATH": os.pathsep.join(filter(None, sys.path)),
            "OPENBLAS_NUM_THREADS": "1", "OMP_NUM_THREADS": "1",
        }  # fmt: skip
        self._place = tempfile.TemporaryDirectory(prefix="lean-notch-")
        self.folder = Path(self._place.name)
        command = [sys.executable, "-m", "tasks.child", str(its.fileno()), str(os.getpid()), str(self.folder)]
        with its:
            self.process = subprocess.Popen(command, pass_fds=[its.fileno()], env=environment, stdin=subprocess.DEVNULL)
        self.pipe = Connection(mine.detach())

    @property
    def free(self) -> bool:
        return self.ready and self.task is None

    def give(self, task: int, kind: Kind, document: dict[str, Any], data: bytes) -> None:
        self.task, self.kind, self.progress, self.stage, self.so_far = task, kind, 0.0, "", None
        self.began, self._used = time.monotonic(), self.seconds
        (self.folder / "document").write_text(json.dumps(document))
        (self.folder / "data").write_bytes(data)
        self.pipe.send_bytes(json.dumps({"task": task, "kind": kind.name}).encode())

    def listen(self) -> Said | None:
        """What it says now, if it says something. Raises ValueError for nonsense, EOFError or OSError if it has ended."""
        if not self.pipe.poll():
            return None
        words = json.loads(self.pipe.recv_bytes(MOST_SAID))
        if not isinstance(words, dict):
            raise ValueError("not an object")
        if not self.ready:
            self.ready = True
            return Said(words)
        if words.get("task") != self.task:
            raise ValueError("of another task")
        return Said(words)

    def answer(self) -> bytes:
        """What it computed; to be asked for once it is done, and before anything else is given to it."""
        return (self.folder / "answer").read_bytes()

    def done(self) -> None:
        self.task, self.kind = None, None
        for file in self.folder.iterdir():
            file.unlink()

    @property
    def over(self) -> str:
        """Which limit it has passed: "time", "memory" or none, ""."""
        waited = time.monotonic() - self.began
        if self.kind is None:
            return "time" if not self.ready and waited > LONGEST_START else ""
        if self.seconds - self._used > self.kind.seconds or waited > LONGEST_WAIT * self.kind.seconds:
            return "time"
        return "memory" if self.resident > MOST_RESIDENT else ""

    @property
    def seconds(self) -> float:
        """Of processor time since it began; 0 where the system does not tell."""
        try:
            after = Path(f"/proc/{self.process.pid}/stat").read_text().rpartition(")")[2].split()
        except OSError:
            return 0.0
        return (int(after[11]) + int(after[12])) / _TICKS

    @property
    def resident(self) -> int:
        """Bytes of memory; 0 where the system does not tell."""
        try:
            return int(Path(f"/proc/{self.process.pid}/statm").read_text().split()[1]) * _PAGE
        except OSError:
            return 0

    def end(self) -> None:
        self.process.kill()
        self.process.wait()
        self.pipe.close()
        self._place.cleanup()
