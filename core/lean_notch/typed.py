"""What holds lengths as typed, also in what it holds: in, a value of the design; out, its lengths by path."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from functools import cached_property
from typing import Any, ClassVar

from .codec import fields_of, join, key_of
from .errors import NotchError
from .units import Length, names_in


class Typed:
    """Something with lengths in it, also in the shapes and lists that it holds. `kind` tells it from others of its sort."""

    kind: ClassVar[str]

    @cached_property
    def lengths(self) -> tuple[tuple[str, Length], ...]:
        """Its lengths as typed, by their path in it: "x", "shape/width", "shape/nodes/n1/x"."""
        return tuple(_lengths(self, ""))

    @cached_property
    def names(self) -> tuple[str, ...]:
        """The names that its lengths use, units among them."""
        return tuple(dict.fromkeys(name for _, typed in self.lengths for name in names_in(typed.text)))

    def mm(self, names: Mapping[str, float]) -> dict[str, float]:
        """Its lengths in mm, by their path in it. Raises NotchError at that path."""
        found = {}
        for path, typed in self.lengths:
            try:
                found[path] = typed.mm(names)
            except NotchError as error:
                error.field = path
                raise
        return found


def _lengths(value: Any, path: str) -> Iterator[tuple[str, Length]]:
    for field in fields_of(type(value)):
        one, at = getattr(value, field.name), join(path, field.name)
        if isinstance(one, Length):
            yield at, one
        elif isinstance(one, tuple):
            for i, entry in enumerate(one):
                if not isinstance(entry, str):
                    yield from _lengths(entry, join(at, key_of(entry) or i))
        elif hasattr(type(one), "kind"):
            yield from _lengths(one, at)
