"""Remembering what a function of many values answered for each of them, so that only new ones are asked for."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Hashable, Sequence
from threading import Lock
from typing import TypeVar

from ..ground.remembered import MEMORIES, Memory

Key = TypeVar("Key", bound=Hashable)
Answer = TypeVar("Answer")


def batched(
    answer: Callable[[Sequence[Key]], Sequence[Answer]], most: int = 1024
) -> Callable[[Sequence[Key]], list[Answer]]:
    """`answer`, asked in one call for those of its values that it was not asked for lately.

    >>> calls = []
    >>> double = batched(lambda values: calls.append(values) or [2 * value for value in values])
    >>> double([1, 2, 1]), double([2, 3]), calls
    ([2, 4, 2], [4, 6], [[1, 2], [3]])
    """
    known: OrderedDict[Key, Answer] = OrderedDict()
    lock = Lock()

    def ask(values: Sequence[Key]) -> list[Answer]:
        with lock:
            found = {value: known[value] for value in values if value in known}
        new = [value for value in dict.fromkeys(values) if value not in found]
        if new:
            found.update(zip(new, answer(new), strict=True))
        with lock:
            known.update(found)
            for value in found:
                known.move_to_end(value)
            while len(known) > most:
                known.popitem(last=False)
        return [found[value] for value in values]

    def forget() -> None:
        with lock:
            known.clear()

    MEMORIES.append(Memory(getattr(answer, "__qualname__", ""), lambda: len(known), forget))
    return ask
