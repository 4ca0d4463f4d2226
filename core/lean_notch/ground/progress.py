"""What long work reports to, while it goes on."""

from __future__ import annotations

from collections.abc import Callable

Tell = Callable[[float, str], None]
"""Takes how much is done, 0 to 1, and what is being done, in words."""


def untold(share: float, stage: str) -> None:
    """For work that nobody watches."""


def between(tell: Tell, low: float, high: float) -> Tell:
    """For a piece of the work: its 0 to 1 are `low` to `high` of the whole."""
    return lambda share, stage: tell(low + share * (high - low), stage)
