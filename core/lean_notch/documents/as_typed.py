"""What holds lengths and plain numbers as typed, also in what it holds: in, a value of the design; out, its numbers by path."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from functools import cached_property
from typing import Any, ClassVar

from ..ground.errors import NotchError
from ..lengths.length import Amount, Length, names_in
from ..lengths.units import MM_PER_UNIT
from .codec import Field, fields_of, join, key_of
from .rules import AmountRule


class Typed:
    """Something with lengths in it, also in the shapes and lists that it holds. `kind` tells it from others of its sort."""

    kind: ClassVar[str]

    @cached_property
    def lengths(self) -> tuple[tuple[str, Length | Amount], ...]:
        """Its lengths and plain numbers as typed, by their path in it: "x", "turn", "shape/nodes/n1/x"."""
        return tuple((path, typed) for path, typed, _ in self._typed)

    @cached_property
    def _typed(self) -> tuple[tuple[str, Length | Amount, Field], ...]:
        return tuple(_lengths(self, ""))

    @cached_property
    def names(self) -> tuple[str, ...]:
        """The names that its numbers use, units among them."""
        return tuple(dict.fromkeys(name for _, typed in self.lengths for name in names_in(typed.text)))

    @cached_property
    def fields_typed(self) -> Mapping[str, tuple[Length | Amount, Field]]:
        return {path: (typed, field) for path, typed, field in self._typed}

    def mm(self, names: Mapping[str, float]) -> dict[str, float]:
        """Its numbers, lengths in mm, by their path in it. Raises NotchError at that path."""
        return self._evaluated(names) if self.needs_names else dict(self._fixed)

    @cached_property
    def needs_names(self) -> bool:
        return any(name.lower() not in MM_PER_UNIT for name in self.names)

    @cached_property
    def _fixed(self) -> dict[str, float]:
        return self._evaluated({})

    def _evaluated(self, names: Mapping[str, float]) -> dict[str, float]:
        found = {}
        for path, typed, field in self._typed:
            try:
                found[path] = number_of(typed, field, names)
            except NotchError as error:
                error.field = path
                raise
        return found


def number_at(holder: Typed, path: str, names: Mapping[str, float]) -> float:
    """One of its numbers, lengths in mm, by its path in it. Raises NotchError, and KeyError for a path without a number."""
    typed, field = holder.fields_typed[path]
    return number_of(typed, field, names)


def number_of(typed: Length | Amount, field: Field, names: Mapping[str, float]) -> float:
    """A length in mm, or a plain number within the field's own limits."""
    if isinstance(typed, Length):
        return typed.mm(names)
    value = typed.value(names)
    return field.rule.check(value, "") if isinstance(field.rule, AmountRule) else value


def _lengths(value: Any, path: str) -> Iterator[tuple[str, Length | Amount, Field]]:
    for field in fields_of(type(value)):
        one, at = getattr(value, field.name), join(path, field.name)
        if isinstance(one, Length | Amount):
            yield at, one, field
        elif isinstance(one, tuple):
            for i, entry in enumerate(one):
                if not isinstance(entry, str):
                    yield from _lengths(entry, join(at, key_of(entry) or i))
        elif hasattr(type(one), "kind"):
            yield from _lengths(one, at)
