"""What went wrong other than in the job: in, an exception or a bare refusal; out, the problem that says what to do."""

from __future__ import annotations

import errno

from django.db import DatabaseError

from ground.problems import Problem

DISK = (errno.ENOSPC, errno.EDQUOT)
READ_ONLY = (errno.EROFS, errno.EACCES, errno.EPERM)

_STAYS = "What was saved before is kept, and can be read."

_FULL = (
    "disk-full",
    "The disk is full: this was not saved.",
    f"Make room on the server's disk, then try again. {_STAYS}",
)
_CLOSED = (
    "read-only", "The data folder cannot be written: this was not saved.",
    f"Give the server the right to write there, then try again. {_STAYS}",
)  # fmt: skip
_BUSY = ("busy", "Others were saving all the time: this was not saved.", "Try again in a moment; nothing was lost.")
_DAMAGED = (
    "damaged", "The database is damaged.",
    "Ask who runs this server to run `lean-notch-server check`, and to restore a backup.",
)  # fmt: skip
_UNREACHABLE = (
    "no-database", "The database cannot be opened.", "Ask who runs this server to look at its data folder."
)  # fmt: skip

_BY_MESSAGE = (
    ("is full", 507, _FULL),
    ("readonly", 503, _CLOSED),
    ("locked", 503, _BUSY),
    ("busy", 503, _BUSY),
    ("malformed", 500, _DAMAGED),
    ("not a database", 500, _DAMAGED),
    ("disk i/o error", 503, _UNREACHABLE),
    ("unable to open", 503, _UNREACHABLE),
)

_REFUSALS = {
    400: ("malformed", "The request could not be read.", "Correct it."),
    401: ("signed-out", "You are not signed in.", "Sign in."),
    403: ("token-missing", "The request does not carry this session's token.", "Load the page again, then repeat it."),
    404: ("not-found", "This does not exist or is not yours.", "Go back to your jobs."),
    405: ("not-allowed", "That cannot be done here.", "Look at the list of what the API offers, docs/openapi.json."),
    413: ("too-large", "That is too much to send at once.", "Send less."),
    415: ("malformed", "The request is of a kind that is not read here.", "Send JSON, or a form with a file."),
    429: ("too-many", "You asked for too much at once.", "Wait a moment, then try again."),
}


def told(error: BaseException, request: str) -> tuple[int, Problem]:
    """The status and the problem for an error that nobody expected; `request` is the number it is logged under."""
    if isinstance(error, DatabaseError):
        said = str(error).lower()
        for message, status, words in _BY_MESSAGE:
            if message in said:
                return status, _problem(words)
    if isinstance(error, OSError) and error.errno in DISK:
        return 507, _problem(_FULL)
    if isinstance(error, OSError) and error.errno in READ_ONLY:
        return 503, _problem(_CLOSED)
    if isinstance(error, MemoryError):
        return 503, _problem(
            ("no-memory", "There was not enough memory for this.", "Ask for less, or try again later.")
        )
    fix = f"Try again; your work so far is saved. If it fails again, tell who runs this server: request {request}."
    return 500, _problem(("failed", "The server failed at this.", fix))


def refused(status: int) -> tuple[int, Problem]:
    """A status, and what a bare answer of it means."""
    usual = ("failed", f"The server answered {status}.", "Try again; your work so far is saved.")
    return status, _problem(_REFUSALS.get(status, usual))


def _problem(words: tuple[str, str, str]) -> Problem:
    code, why, fix = words
    return Problem(code=code, why=why, fix=fix, field="")
