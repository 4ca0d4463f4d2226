"""How much memory the server's process may hold: what it remembers of jobs is forgotten before it holds more."""

from __future__ import annotations

import ctypes
import gc
import logging
import os
import time
from contextlib import suppress
from pathlib import Path
from threading import Lock

from lean_notch.ground.remembered import forget_all

MOST_BYTES = 450_000_000
"""Resident; what goes on at that moment comes on top."""

PAUSE_SECONDS = 10.0
"""At least, between two times: what goes on now needs some of it at once."""

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


def forget() -> None:
    """As if nothing had been computed yet; what is free is given back to the system."""
    forget_all()
    gc.collect()
    with suppress(OSError, AttributeError):  # only glibc has it
        ctypes.CDLL(None).malloc_trim(0)
