"""What a field of a document may be: one rule a field, declared on its class."""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any, Protocol

from ..ground.errors import BadDocument
from ..ground.limits import MOST_TYPED
from ..lengths.length import Amount, amount
from .plain import choice, mm, text, whole


class Rule(Protocol):
    """What a field takes. `read` raises NotchError at the path it is given."""

    def read(self, value: object, path: str) -> Any: ...


@dataclass(frozen=True)
class Mm:
    """A measured length: a number in mm, or a text with a unit. Both ends are allowed."""

    least: float = -100_000.0
    most: float = 100_000.0

    def read(self, value: object, path: str) -> float:
        return within(mm(value, path), self.least, self.most, path, " mm")


@dataclass(frozen=True)
class Number:
    """A plain number: degrees, a ratio."""

    least: float
    most: float
    unit: str = ""

    def read(self, value: object, path: str) -> float:
        if isinstance(value, str):
            try:
                value = float(value.strip().replace(",", ".")) if value.isascii() else None
            except ValueError:
                value = None
        if not isinstance(value, int | float) or isinstance(value, bool) or not math.isfinite(value):
            raise BadDocument(f"“{path}” is not a number.", fix="Type a plain number.", field=path)
        return within(float(value), self.least, self.most, path, self.unit)


@dataclass(frozen=True)
class AmountRule:
    """A plain number that may be arithmetic; the limits hold for what comes of it. `whole` ones are counts."""

    least: float
    most: float
    unit: str = ""
    whole: bool = False

    def read(self, value: object, path: str) -> Amount:
        if isinstance(value, str) and value.strip():
            typed = Amount(value.strip())
            if typed.literal is None:
                literal = Amount(value.strip().replace(",", ".")).literal
                if literal is None:
                    return typed if len(typed.text) <= MOST_TYPED else self._refused(path)
                value = literal
            else:
                value = typed.literal
        if not isinstance(value, int | float) or isinstance(value, bool) or not math.isfinite(value):
            return self._refused(path)
        return amount(self.check(float(value), path))

    def _refused(self, path: str) -> Amount:
        raise BadDocument(f"“{path}” is not a number.", fix="Type a number, or arithmetic such as 360/7.", field=path)

    def check(self, value: float, path: str) -> float:
        """`value` if it is allowed. Raises BadDocument at `path`."""
        if self.whole:
            nearest = round(value)
            if abs(value - nearest) > 1e-9 or not self.least <= nearest <= self.most:
                what = f"“{path}” is {value:g}." if path else f"It comes to {value:g}."
                raise BadDocument(what, fix=f"Give a whole number from {self.least:g} to {self.most:g}.", field=path)
            return float(nearest)
        return within(value, self.least, self.most, path, self.unit)


@dataclass(frozen=True)
class Whole:
    """A count."""

    least: int
    most: int

    def read(self, value: object, path: str) -> int:
        return whole(value, path, self.least, self.most)


@dataclass(frozen=True)
class Words:
    """A text of printable characters, without blanks around it."""

    longest: int = 120
    required: bool = True

    def read(self, value: object, path: str) -> str:
        return text(value, path, self.longest, required=self.required)


@dataclass(frozen=True)
class Name:
    """What something is called by others: letters, digits, - and _, no longer than `longest`. With `dashes` False it can
    stand in arithmetic."""

    longest: int = 40
    dashes: bool = True

    def read(self, value: object, path: str) -> str:
        pattern = r"[A-Za-z0-9][A-Za-z0-9_-]*" if self.dashes else r"[A-Za-z_][A-Za-z0-9_]*"
        if not isinstance(value, str) or len(value) > self.longest or not re.fullmatch(pattern, value):
            signs = "letters, digits, - and _" if self.dashes else "letters, digits and _, not a digit first"
            raise BadDocument(
                f"“{str(value)[:60]}” is not a name.", fix=f"Use {signs}, {self.longest} at most.", field=path
            )
        return value


@dataclass(frozen=True)
class OneOf:
    """One of several words that are known only when the program runs."""

    words: Callable[[], Sequence[str]]

    def read(self, value: object, path: str) -> str:
        return choice(value, self.words(), path)


@dataclass(frozen=True)
class Many:
    """How many entries a list may have."""

    most: int
    least: int = 0


@dataclass(frozen=True)
class Title:
    """What a field is called on the screen, and what is said beside it."""

    text: str
    help: str = ""


def within(value: float, least: float, most: float, path: str, unit: str) -> float:
    if not least <= value <= most:
        what = f"“{path}” is {value:g}{unit}." if path else f"It comes to {value:g}{unit}."
        raise BadDocument(what, fix=f"Give {least:g}{unit} to {most:g}{unit}.", field=path)
    return value
