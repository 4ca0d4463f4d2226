"""Names for what is new: the stem and the ids that are taken in; the first one with a number that is free out."""

from __future__ import annotations

from collections.abc import Iterable


def numbered(stem: str, taken: Iterable[str]) -> str:
    """
    >>> numbered("hole-", ["hole-1", "hole-3"])
    'hole-2'
    """
    known = {*taken}
    return next(name for i in range(1, len(known) + 2) if (name := f"{stem}{i}") not in known)
