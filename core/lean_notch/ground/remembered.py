"""What was worked out from some values, kept with them: an edit changes few, and the rest need not be worked out again."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable
from dataclasses import is_dataclass
from functools import lru_cache, partial, wraps
from inspect import signature
from threading import Lock
from typing import Any, Generic, NamedTuple, ParamSpec, Protocol, TypeVar

from .elsewhere import about_to_take, kept, taken

Made = TypeVar("Made")
Given = ParamSpec("Given")
_PLAIN = frozenset({str, bytes, int, float, bool, type(None), tuple})
_FIXED: set[type] = set()
"""Kinds of values that were looked at: they cannot change."""


class Memory(NamedTuple):
    """What keeps answers, as it is registered: its name, how many it holds, and how it forgets them."""

    name: str
    holds: Callable[[], int]
    forget: Callable[[], None]


MEMORIES: list[Memory] = []
"""All that there are."""

MOST_TOGETHER = 2_500_000
"""What answers may weigh altogether: places, pieces or the like; of those that are not weighed, each is taken for LIGHT."""

LIGHT = 20


def characters(text: str) -> int:
    """What a text weighs: about as much as a place for every 50."""
    return len(text) // 50 + 1


def forget_all() -> None:
    """As if nothing had been worked out yet, anywhere."""
    for one in MEMORIES:
        one.forget()


class Remembered(Generic[Made]):
    """Answers by what they were made from: the last `most` of them, and no more than `weight` altogether if they are weighed.

    All memories together hold no more than `MOST_TOGETHER`: then the heaviest one forgets what was asked for longest ago.

    Values are the same if they are plain and equal (texts, numbers, tuples of those), or are the same object: all of them must
    be frozen. Two equal objects count as different ones: then the answer is made again, and is never a wrong one.

    A tuple of objects goes in as `Same` of it; what is the same list may hold something else by now, and is refused there too. What is `shared` under a name is handed over to whoever works the same job out in
    another process, where it is said which part or board an answer is `of`; and taken from there.

    >>> squares = Remembered[int](2)
    >>> squares((3,), lambda: 9), squares((3,), lambda: 0)
    (9, 9)
    """

    def __init__(self, most: int = 4096, weigh: Callable[[Made], int] | None = None, weight: int = 0, shared: str = "", name: str = ""
    ) -> None:  # fmt: skip
        self.most, self.weigh, self.weight, self.shared = most, weigh, weight, shared
        self.weighs = 0
        # The values are kept with the answer: while they are, nothing else can have their numbers.
        self._known: OrderedDict[tuple[object, ...], tuple[tuple[object, ...], Made, int]] = OrderedDict()
        _TOGETHER.all.append(self)
        MEMORIES.append(Memory(name or shared, lambda: len(self._known), self.forget))

    def forget(self) -> None:
        """As if nothing had been worked out."""
        with _TOGETHER.lock:
            self._known.clear()
            _TOGETHER.weigh -= self.weighs
            self.weighs = 0

    def __call__(self, given: tuple[object, ...], make: Callable[[], Made], of: str = "") -> Made:
        """The answer for `given`, made if it is not known. What raises is not kept."""
        found = self.find(given, of)
        if found is None:
            if of:
                about_to_take()
            found = self.keep(given, make(), of)
        return found

    def find(self, given: tuple[object, ...], of: str = "") -> Made | None:
        found = self._find(given)
        if not of:
            return found
        if found is None and (there := taken(self.shared, of)) is not None:
            found = self._keep(given, there)
        return None if found is None else kept(self.shared, of, found)

    def _find(self, given: tuple[object, ...]) -> Made | None:
        key = _key(given)
        with _TOGETHER.lock:
            kept = self._known.get(key)
            if kept is None:
                return None
            self._known.move_to_end(key)
        return kept[1]

    def keep(self, given: tuple[object, ...], made: Made, of: str = "") -> Made:
        made = self._keep(given, made)
        return kept(self.shared, of, made) if of else made

    def _keep(self, given: tuple[object, ...], made: Made) -> Made:
        key, weight = _key(given), self.weigh(made) if self.weigh else LIGHT
        with _TOGETHER.lock:
            if key in self._known:
                return self._known[key][1]  # somebody else was quicker: there is one of each
            self._known[key] = (given, made, weight)
            self._add(weight)
            while len(self._known) > self.most or self.weighs > self.weight > 0 < len(self._known):
                self.drop()
            _TOGETHER.keep_within(MOST_TOGETHER)
        return made

    def drop(self) -> None:
        """Forgets what was asked for longest ago; to be asked with the lock held, of one that holds something."""
        _, (_, _, weight) = self._known.popitem(last=False)
        self._add(-weight)

    def _add(self, weight: int) -> None:
        self.weighs += weight
        _TOGETHER.weigh += weight


class _Together:
    """All memories, and what they weigh."""

    def __init__(self) -> None:
        self.lock, self.weigh = Lock(), 0
        self.all: list[Remembered[Any]] = []

    def keep_within(self, most: int) -> None:
        while self.weigh > most:
            max(self.all, key=lambda one: one.weighs).drop()


_TOGETHER = _Together()


class Same(NamedTuple, Generic[Made]):
    """Something plain that counts as the same only where it is the same object: a long tuple of others, for instance."""

    it: Made


def _key(given: tuple[object, ...]) -> tuple[object, ...]:
    return tuple([one if (kind := type(one)) in _PLAIN else id(one) if kind in _FIXED else _id(one) for one in given])


def _id(one: object) -> int:
    """Raises TypeError for what can change: an answer would be kept under what it was not made from."""
    kind = type(one)
    if isinstance(one, Same):
        return _id(one.it)
    if issubclass(kind, (list, dict, set, bytearray)) or (is_dataclass(kind) and not kind.__dataclass_params__.frozen):  # type: ignore[attr-defined]
        raise TypeError(f"{kind.__name__} can change: no answer can be remembered by it.")
    _FIXED.add(kind)
    return id(one)


_WHOLE = ("site", "shop", "result", "built", "build", "job")
"""What holds everything there is: an answer kept by it is never found again, or reads more of it than it is kept by."""


class _Decorator(Protocol):
    def __call__(self, function: Callable[Given, Made], /) -> Callable[Given, Made]: ...


def remembered(
    most: int = 4096, weigh: Callable[[Any], int] | None = None, weight: int = 0, shared: str = ""
) -> _Decorator:
    """Decorates a function of frozen values whose answers are kept, each under all of its arguments; see `Remembered`. A `shared` answer is
    of its first argument, by its `id`.

    >>> @remembered(2)
    ... def half(number: int) -> float:
    ...     return print("asked") or number / 2
    >>> half(3), half(3)
    asked
    (1.5, 1.5)
    """

    def decorated(function: Callable[Given, Made]) -> Callable[Given, Made]:
        if wrong := [name for name in signature(function).parameters if name in _WHOLE]:
            raise TypeError(f"{function.__qualname__} is remembered by “{wrong[0]}”, which holds everything there is.")
        memory: Remembered[Made] = Remembered(most, weigh, weight, shared, function.__qualname__)

        @wraps(function)
        def asked(*given: Given.args, **named: Given.kwargs) -> Made:
            if named:
                raise TypeError(f"{function.__qualname__} is asked by position: its arguments are the key.")
            of: str = given[0].id if shared else ""  # type: ignore[attr-defined]
            return memory(given, partial(function, *given, **named), of)

        return asked

    return decorated


def by_value(most: int) -> _Decorator:
    """The same for small values that are cheap to compare: equal ones have one answer, whatever objects they are."""

    def decorated(function: Callable[Given, Made]) -> Callable[Given, Made]:
        known: Any = lru_cache(maxsize=most)(function)
        MEMORIES.append(Memory(function.__qualname__, lambda: known.cache_info().currsize, known.cache_clear))
        return known  # type: ignore[no-any-return]

    return decorated
