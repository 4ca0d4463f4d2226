"""How a proof says what is wrong on a sheet, and what it did not look at."""

from __future__ import annotations

from collections.abc import Sequence

from ..geometry import Point
from ..ground.findings import Finding

DONE = {"cut": "cut", "score": "scored", "engrave": "engraved", "pocket": "pocketed", "fold": "folded"}


def bad(
    sheet: int, code: str, why: str, fix: str, place: Point, amount: float = 0.0, *, back: bool = False
) -> Finding:  # fmt: skip
    """Of a file: exporting it again mends it too."""
    fix = f"{fix}, or export the file again."
    return Finding(code, "stop", why, fix, sheet=sheet, place=place, amount=amount, back=back)


def unseen(code: str, why: str, fix: str, sheet: int = 0, place: Point | None = None, *, back: bool = False) -> Finding:
    return Finding(code, "unseen", why, fix, sheet=sheet, place=place, back=back)


def some(names: Sequence[str]) -> str:
    """
    >>> some(["Front"]), some(["Front", "Back", "Left", "Right", "Base"])
    ('Front was', 'Front, Back, Left and 2 more were')
    """
    shown = ", ".join(names[:3]) + (f" and {len(names) - 3} more" if len(names) > 3 else "")
    return f"{shown} {'was' if len(names) == 1 else 'were'}"
