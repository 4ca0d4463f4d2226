"""What long work reports to, while it goes on."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Protocol

SoFar = Callable[[], Mapping[str, object]]
"""What can be told of an answer before it is whole, as JSON; made only where somebody listens."""


class Tell(Protocol):
    """Takes how much is done, 0 to 1, what is being done, in words, and what is known so far."""

    def __call__(self, share: float, stage: str, so_far: SoFar | None = None) -> None: ...


def untold(share: float, stage: str, so_far: SoFar | None = None) -> None:
    """For work that nobody watches."""


def between(tell: Tell, low: float, high: float) -> Tell:
    """For a piece of the work: its 0 to 1 are `low` to `high` of the whole."""

    def within(share: float, stage: str, so_far: SoFar | None = None) -> None:
        tell(low + share * (high - low), stage, so_far)

    return within
