"""What the server does by itself while it runs: a backup each day; each hour a look at the database, an end to old sessions, and
a look through the results that are kept."""

from __future__ import annotations

import logging
import threading
from datetime import date
from pathlib import Path

from django.contrib.sessions.backends.db import SessionStore
from django.db import connection
from results import store

from upkeep.backups import DATABASE, daily_backup
from upkeep.health import LOOKED

FIRST_SECONDS, EVERY_SECONDS = 60.0, 3600.0
log = logging.getLogger("lean_notch.housekeeping")


class Housekeeping:
    """A thread that looks once an hour whether there is something to do."""

    def __init__(self, folder: Path, first: float = FIRST_SECONDS) -> None:
        self.folder, self._first, self._stop = folder, first, threading.Event()
        self._thread = threading.Thread(target=self._run, name="housekeeping", daemon=True)

    def start(self) -> None:
        self._thread.start()

    def stop(self) -> None:
        self._stop.set()
        self._thread.join(10)

    def _run(self) -> None:
        wait = self._first
        while not self._stop.wait(wait):
            wait = EVERY_SECONDS
            for what, task in (
                ("back up", self._back_up),
                ("look", self._look),
                ("end old sessions", _end_old_sessions),
                ("look through the results", _tidy_results),
            ):
                try:
                    task()
                except Exception as error:  # the next time may go well
                    log.error(f"could not {what}", exc_info=error)

    def _back_up(self) -> None:
        if file := daily_backup(self.folder, date.today()):
            log.info("backed up", extra={"told": {"file": file.name, "bytes": file.stat().st_size}})

    def _look(self) -> None:
        if fault := LOOKED.look(self.folder / DATABASE):
            log.error("damaged", extra={"told": {"fault": fault}})


def _end_old_sessions() -> None:
    try:
        SessionStore.clear_expired()
    finally:
        connection.close()


def _tidy_results() -> None:
    try:
        store.tidy()
    finally:
        connection.close()
