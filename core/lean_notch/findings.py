"""What the maker should know before cutting: in, whatever noticed it; out, one kind of row with its place and its mend."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

Severity = Literal["stop", "look", "unseen"]
"""Stop: do not cut it. Look: it may be meant. Unseen: what is named was not looked at, so nothing is known of it."""

Place = tuple[float, float, float]


@dataclass(frozen=True)
class Finding:
    """Something to stop for, or to look at: where, how much, and what to do.

    `place` is in mm: on the sheet where `sheet` is named, else on the part; `space` is where it is when the parts stand
    together. `placement` and `joint` say which one it is of. `field` is the path of what to mend, or "". Lengths in texts are
    "<number> mm".
    """

    code: str
    severity: Severity
    why: str
    fix: str
    part: str = ""
    copy: int = 0
    sheet: int = 0
    place: tuple[float, float] | None = None
    amount: float = 0.0
    field: str = ""
    space: Place | None = None
    placement: str = ""
    joint: str = ""
