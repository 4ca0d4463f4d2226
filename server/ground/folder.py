"""The data folder belongs to one process at a time: two servers on one folder would each take the other's work for lost."""

from __future__ import annotations

import fcntl
import os
from pathlib import Path
from typing import IO

from lean_notch.ground.errors import NotchError

ROOT = Path(__file__).resolve().parent.parent.parent


def named() -> Path:
    """Where the data is: as the environment says, else beside the code."""
    return Path(os.environ.get("LEAN_NOTCH_DATA", ROOT / ".data"))


class FolderTaken(NotchError):
    code = "folder-taken"


_held: list[IO[str]] = []


def take(folder: Path) -> None:
    """Until this process ends. Raises FolderTaken. A folder that cannot be written is nobody's."""
    try:
        folder.mkdir(parents=True, exist_ok=True)
        lock = (folder / "server.lock").open("a+")
    except OSError:
        return
    try:
        fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except BlockingIOError:
        lock.seek(0)
        number = lock.read().strip() or "unknown"
        lock.close()
        raise FolderTaken(
            f"A server runs on the data folder {folder} already (process {number}).",
            fix="Stop that one first, or set LEAN_NOTCH_DATA to another folder.",
        ) from None
    lock.truncate(0)
    lock.write(str(os.getpid()))
    lock.flush()
    _held.append(lock)


def give_back() -> None:
    while _held:
        _held.pop().close()
