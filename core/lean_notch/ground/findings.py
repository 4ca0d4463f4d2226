"""What the maker should know before cutting: in, whatever noticed it; out, one kind of row with its place and its mend."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from typing import Literal

Severity = Literal["stop", "look", "unseen"]
"""Stop: do not cut it. Look: it may be meant. Unseen: what is named was not looked at, so nothing is known of it."""

Place = tuple[float, float, float]


@dataclass(frozen=True)
class Mend:
    """An edit that does away with a finding: in words, and the value that it puts at a path."""

    says: str
    path: str
    value: str


@dataclass(frozen=True)
class Finding:
    """Something to stop for, or to look at: where, how much, and what to do.

    `place` is in mm: on the sheet where `sheet` is named, else on the part; `space` is where it is when the parts stand
    together. `placement` and `joint` say which one it is of. `field` is the path of what to mend, or "". `more` is how many
    others of its kind it stands for; `mend` is there where one edit mends it. `back` says that the sheet lies on its other face,
    `file` names the file where it is of one alone, `other` a second placement. Lengths in texts are "<number> mm".
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
    more: int = 0
    mend: Mend | None = None
    back: bool = False
    file: str = ""
    other: str = ""


_ORDER: dict[Severity, int] = {"stop": 0, "unseen": 1, "look": 2}


def shortened(findings: Sequence[Finding], most: int) -> Iterator[Finding]:
    """The worst first; of each kind the first `most`, and one row for the rest."""
    alike: dict[tuple[str, Severity], list[Finding]] = defaultdict(list)
    for one in findings:
        alike[one.code, one.severity].append(one)
    for some in sorted(alike.values(), key=lambda some: _ORDER[some[0].severity]):
        yield from some[:most]
        if len(some) > most:
            rest = len(some) - most
            yield replace(some[most], why=f"{rest} more of the same kind.", amount=rest, more=rest, mend=None)
