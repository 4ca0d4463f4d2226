"""Logs as lines of JSON: in, what Python's logging has; out, one object a line, without texts that makers wrote."""

from __future__ import annotations

import json
import logging
import re
import traceback
from datetime import UTC, datetime
from logging.handlers import RotatingFileHandler
from pathlib import Path

MOST_BYTES = 10_000_000
KEPT = 4
"""How many full log files are kept beside the one that is written."""

_QUOTED = re.compile(r"'[^']*'|\"[^\"]*\"|“[^”]*”|«[^»]*»")


class Lines(logging.Formatter):
    """`told` of a record (a dict) becomes fields of the line."""

    def format(self, record: logging.LogRecord) -> str:
        line: dict[str, object] = {
            "time": datetime.fromtimestamp(record.created, UTC).isoformat(timespec="milliseconds"),
            "level": record.levelname.lower(), "from": record.name, "event": record.getMessage(),
            **getattr(record, "told", {}),
        }  # fmt: skip
        if record.exc_info and record.exc_info[1]:
            line["traceback"] = traced(record.exc_info[1])
        return json.dumps(line, default=str)


def traced(error: BaseException) -> list[str]:
    """Where an error came from, the innermost place last, and what it was; of its message nothing that is quoted."""
    frames = traceback.extract_tb(error.__traceback__)
    places = [f"{Path(frame.filename).name}:{frame.lineno} {frame.name}" for frame in frames]
    return [*places, f"{type(error).__name__}: {_QUOTED.sub('…', str(error))[:300]}"]


class LogFile(RotatingFileHandler):
    """The log in the data folder, as far as it can be written: a full disk stops no request."""

    def __init__(self, path: Path) -> None:
        self._wanted = path
        super().__init__(path, maxBytes=MOST_BYTES, backupCount=KEPT, encoding="utf-8", delay=True)

    def emit(self, record: logging.LogRecord) -> None:
        try:
            self._wanted.parent.mkdir(parents=True, exist_ok=True)
        except OSError:
            return
        super().emit(record)

    def handleError(self, record: logging.LogRecord) -> None:  # noqa: N802, ARG002
        return


def logging_for(folder: Path) -> dict[str, object]:
    """Django's LOGGING: everything to a file in `folder`, what failed to the terminal too."""
    return {
        "version": 1,
        "disable_existing_loggers": False,
        "formatters": {"lines": {"()": Lines}},
        "handlers": {
            "file": {"()": LogFile, "path": folder / "server.log", "formatter": "lines"},
            "terminal": {"class": "logging.StreamHandler", "level": "ERROR", "formatter": "lines"},
        },
        "loggers": {
            "lean_notch": {"handlers": ["file", "terminal"], "level": "INFO", "propagate": False},
            "django": {"handlers": ["file", "terminal"], "level": "ERROR", "propagate": False},
        },
    }
