"""What was worked out from some values, kept with them: an edit changes few, and the rest need not be worked out again."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable
from threading import Lock
from typing import Generic, NamedTuple, TypeVar

Made = TypeVar("Made")
_PLAIN = (str, bytes, int, float, bool, type(None), tuple)


class Remembered(Generic[Made]):
    """Answers by what they were made from: the last `most` of them, and no more than `weight` altogether if they are weighed.

    Values are the same if they are plain and equal (texts, numbers, tuples of those), or are the same object: all of them must
    be frozen. Two equal objects count as different ones: then the answer is made again, and is never a wrong one.

    A tuple of objects goes in as `Same` of it.

    >>> squares = Remembered[int](2)
    >>> squares((3,), lambda: 9), squares((3,), lambda: 0)
    (9, 9)
    """

    def __init__(self, most: int = 4096, weigh: Callable[[Made], int] | None = None, weight: int = 0) -> None:
        self.most, self.weigh, self.weight, self._weighs = most, weigh, weight, 0
        # The values are kept with the answer: while they are, nothing else can have their numbers.
        self._known: OrderedDict[tuple[object, ...], tuple[tuple[object, ...], Made]] = OrderedDict()
        self._lock = Lock()

    def forget(self) -> None:
        """As if nothing had been worked out."""
        with self._lock:
            self._known.clear()
            self._weighs = 0

    def __call__(self, given: tuple[object, ...], make: Callable[[], Made]) -> Made:
        """The answer for `given`, made if it is not known. What raises is not kept."""
        found = self.find(given)
        return self.keep(given, make()) if found is None else found

    def find(self, given: tuple[object, ...]) -> Made | None:
        key = _key(given)
        with self._lock:
            kept = self._known.get(key)
            if kept is None:
                return None
            self._known.move_to_end(key)
        return kept[1]

    def keep(self, given: tuple[object, ...], made: Made) -> Made:
        key = _key(given)
        with self._lock:
            if key in self._known:
                return self._known[key][1]  # somebody else was quicker: there is one of each
            self._known[key] = (given, made)
            self._weighs += self.weigh(made) if self.weigh else 0
            while len(self._known) > self.most or self._weighs > self.weight > 0 < len(self._known):
                _, (_, oldest) = self._known.popitem(last=False)
                self._weighs -= self.weigh(oldest) if self.weigh else 0
        return made


class Same(NamedTuple):
    """Something plain that counts as the same only where it is the same object: a long tuple of others, for instance."""

    it: object


def _key(given: tuple[object, ...]) -> tuple[object, ...]:
    return tuple([one if type(one) in _PLAIN else id(one.it if type(one) is Same else one) for one in given])
