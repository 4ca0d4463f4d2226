"""What the server does by itself while it runs: a backup each day."""

from __future__ import annotations

import logging
import threading
from datetime import date
from pathlib import Path

from config.backups import daily_backup

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
            try:
                if file := daily_backup(self.folder, date.today()):
                    log.info("backed up", extra={"told": {"file": file.name, "bytes": file.stat().st_size}})
            except Exception as error:  # the next one may go well
                log.error("no backup was made", exc_info=error)
