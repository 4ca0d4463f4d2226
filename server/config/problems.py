"""How an error looks to whoever calls the API."""

from lean_notch.errors import NotchError
from ninja import Schema


class Problem(Schema):
    """The same that the core and the command line give."""

    code: str
    why: str
    fix: str
    field: str
    mend: str = ""


class Conflict(NotchError):
    """Somebody else, or another window, was quicker."""

    code = "changed-elsewhere"
