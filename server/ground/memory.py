"""How much memory the server's process may hold: what it remembers of jobs is forgotten before it holds more."""

from __future__ import annotations

import ctypes
import gc
import logging
import os
import sys
import time
from collections.abc import Iterator
from contextlib import suppress
from pathlib import Path
from threading import Lock
from typing import Any

from lean_notch.ground.remembered import Remembered

MOST_BYTES = 450_000_000
"""Resident; what goes on at that moment comes on top."""

PAUSE_SECONDS = 10.0
"""At least, between two times: what goes on now needs some of it at once."""

_OURS = ("lean_notch", "designs", "workshop")
_PAGE = os.sysconf("SC_PAGE_SIZE")

log = logging.getLogger("lean_notch.memory")


class _Last:
    """When everything was forgotten last, on the monotonic clock."""

    at = -PAUSE_SECONDS
    lock = Lock()


def resident() -> int:
    """Bytes that this process holds; 0 where the system does not tell."""
    try:
        return int(Path("/proc/self/statm").read_text().split()[1]) * _PAGE
    except OSError:
        return 0


def keep_within(most: int = MOST_BYTES) -> bool:
    """To be asked now and then: whether everything had to be forgotten."""
    if resident() <= most or time.monotonic() - _Last.at < PAUSE_SECONDS or not _Last.lock.acquire(blocking=False):
        return False
    try:
        before = resident()
        forget()
        _Last.at = time.monotonic()
        log.warning("what was remembered is forgotten", extra={"told": {"mb": before >> 20, "then": resident() >> 20}})
        return True
    finally:
        _Last.lock.release()


def memories() -> Iterator[Any]:
    """Whatever modules keep at hand: memories, cached functions, batched ones."""
    for name, module in list(sys.modules.items()):
        if name.split(".")[0] in _OURS:
            for value in list(vars(module).values()):
                if isinstance(value, Remembered) or hasattr(value, "cache_clear"):
                    yield value


def forget() -> None:
    """As if nothing had been computed yet; what is free is given back to the system."""
    for one in memories():
        if isinstance(one, Remembered):
            one.forget()
        else:
            one.cache_clear()
    gc.collect()
    with suppress(OSError, AttributeError):  # only glibc has it
        ctypes.CDLL(None).malloc_trim(0)
