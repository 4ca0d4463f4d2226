"""Lengths as people type them, in; millimetres, out.

`1/8 in`, `0.475"`, `3.06`, `3,06 mm`, `1 1/2 in`, `width/3 + 2 mm` and `(width - 2*thickness)/4` are all
understood. A number without a unit takes the unit of the field it stands in.
"""

from __future__ import annotations

import math
import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from .errors import NotALength, NotchError, OutOfRange

Unit = Literal["mm", "in"]

MM_PER_INCH = 25.4
"""Exact. International yard and pound agreement, 1959."""

MM_PER_PX = MM_PER_INCH / 96
MM_PER_PT = MM_PER_INCH / 72
"""W3C CSS Values and Units 3, absolute lengths: 1 in = 96 px = 72 pt."""

MM_PER_UNIT: Mapping[str, float] = {
    "mm": 1.0,
    "cm": 10.0,
    "m": 1000.0,
    "in": MM_PER_INCH,
    "inch": MM_PER_INCH,
    "inches": MM_PER_INCH,
    '"': MM_PER_INCH,
    "″": MM_PER_INCH,
    "ft": 12 * MM_PER_INCH,
    "thou": MM_PER_INCH / 1000,
}

LARGEST_MM = 100_000.0
"""Nothing cut flat is longer than a hundred metres; larger numbers are slips."""

_TOKEN = re.compile(
    r"""\s*(?:
      (?P<fraction>\d+\s+\d+\s*/\s*\d+(?!\d)|\d+\s*/\s*\d+(?=\s*(?:mm|cm|m|inches|inch|in|ft|thou|"|″)(?![A-Za-z_])))
    | (?P<number>(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:[eE][+-]?\d+)?)
    | (?P<name>[A-Za-z_][A-Za-z_0-9]*)
    | (?P<mark>["″])
    | (?P<op>[-+*/()×÷−])
    )""",
    re.VERBOSE,
)
_SAME_OP = {"×": "*", "÷": "/", "−": "-"}
_LONGEST_TEXT = 200
_DEEPEST = 40


@dataclass(frozen=True)
class _Quantity:
    value: float
    power: int  # of length: 0 a bare number, 1 a length in mm


def say_mm(mm: float, digits: int = 3) -> str:
    """A length as the core writes it in sentences: at most three decimals and always "mm".

    >>> say_mm(3.06), say_mm(150), say_mm(-0.0001)
    ('3.06 mm', '150 mm', '0 mm')
    """
    text = f"{mm:.{digits}f}".rstrip("0").rstrip(".") if digits else f"{mm:.0f}"
    return f"{'0' if text in ('-0', '') else text} mm"


def say_within(mm: float) -> str:
    """How far a length may be off, with the two digits that such a number is worth (JCGM 100:2008, 7.2.6).

    >>> say_within(0.00091), say_within(0.0124), say_within(0.6)
    ('± 0.00091 mm', '± 0.012 mm', '± 0.6 mm')
    """
    digits = max(1 - math.floor(math.log10(mm)), 0) if mm > 0 else 0
    return f"± {say_mm(mm, digits)}"


def length_mm(text: str, unit: Unit = "mm", names: Mapping[str, float] | None = None) -> float:
    """The length that `text` says, in mm; a number without unit counts in `unit`, `names` are lengths in mm.

    Raises NotALength for anything that is no finite length, and OutOfRange beyond 100 m.

    >>> length_mm("1/8 in"), length_mm('0.475"'), length_mm("3.06"), length_mm("1 1/4 in")
    (3.175, 12.065, 3.06, 31.75)
    >>> length_mm("width/3 + 2 mm", names={"width": 150.0})
    52.0
    >>> length_mm("0.5", unit="in")
    12.7
    """
    result = _Reader(text, unit, names or {}).read()
    if result.power not in (0, 1):
        raise NotALength(
            f"“{text.strip()}” multiplies or divides lengths, so it is no length.",
            fix="Multiply and divide by plain numbers only, as in width/3 + 2 mm.",
        )
    mm = result.value if result.power == 1 else result.value * MM_PER_UNIT[unit]
    if not math.isfinite(mm) or abs(mm) > LARGEST_MM:
        raise OutOfRange(
            f"“{text.strip()}” is beyond any sheet.",
            fix=f"Give a length below {say_mm(LARGEST_MM)}; check the decimal point and the unit.",
        )
    return mm


_BETWEEN = re.compile(r"[;\n\r\t]+|,(?=\s)")
_NEXT_NUMBER = re.compile(r" +(?=[-+]?[.,]?\d)")
_WHOLE_AND_FRACTION = re.compile(r"(?<![\d./,])(\d+)\s+(\d+\s*/\s*\d+)")
_ENDS_IN_UNIT = re.compile(r"[A-Za-z\"″]+$")


def split_lengths(text: str) -> list[str]:
    """A list of lengths as people paste it, one by one: lines, semicolons, commas or spaces part them.

    A unit that stands behind the last one alone counts for all. A comma parts where a point is the decimal mark, and is
    the decimal mark elsewhere.

    >>> split_lengths("3.05, 3.06;3.1"), split_lengths("3,05 3,06"), split_lengths("0.120 0.121 in")
    (['3.05', '3.06', '3.1'], ['3,05', '3,06'], ['0.120 in', '0.121 in'])
    >>> split_lengths("1/8 in 3.2 mm"), split_lengths("1 1/4; 2 in")
    (['1/8 in', '3.2 mm'], ['1 1/4 in', '2 in'])
    """
    if "." in text:
        text = text.replace(",", ";")
    text = _WHOLE_AND_FRACTION.sub("\\1\N{NO-BREAK SPACE}\\2", text)
    found = [
        one.replace("\N{NO-BREAK SPACE}", " ").strip()
        for chunk in _BETWEEN.split(text)
        for one in _NEXT_NUMBER.split(chunk.strip())
    ]
    found = [one for one in found if one]
    unit = _ENDS_IN_UNIT.search(found[-1]) if found else None
    if unit and not any(_ENDS_IN_UNIT.search(one) for one in found[:-1]):
        found[:-1] = [f"{one} {unit[0]}" for one in found[:-1]]
    return found


@dataclass(frozen=True)
class Length:
    """A length as it was typed, with the unit its bare numbers count in. It is evaluated anew at each build."""

    text: str
    unit: Unit = "mm"

    def mm(self, names: Mapping[str, float] | None = None) -> float:
        return length_mm(self.text, self.unit, names)


def positive_mm(mm: float, field: str, what: str, largest: float = LARGEST_MM) -> float:
    """`mm`, if it lies in 0 < mm <= largest. Raises OutOfRange at `field` otherwise."""
    if not math.isfinite(mm) or not 0 < mm <= largest:
        raise OutOfRange(
            f"{what} is {say_mm(mm)}.",
            fix=f"Give more than 0 mm and at most {say_mm(largest)}.",
            field=field,
        )
    return mm


class _Reader:
    """Recursive descent over one short expression."""

    def __init__(self, text: str, unit: Unit, names: Mapping[str, float]) -> None:
        self.text = text.strip()
        self.unit = unit
        self.names = names
        self.depth = 0
        if not self.text:
            raise NotALength("No length is given.", fix="Type a length, for example 3.06, 1/8 in or width/3.")
        if len(self.text) > _LONGEST_TEXT:
            raise NotALength(
                f"The text has {len(self.text)} characters.",
                fix=f"Write a length in at most {_LONGEST_TEXT} characters.",
            )
        self.tokens = self._split()
        self.at = 0

    def _split(self) -> list[tuple[str, str]]:
        tokens, position = [], 0
        while position < len(self.text):
            match = _TOKEN.match(self.text, position)
            if not match or match.lastgroup is None:
                raise self._unreadable(self.text[position:].strip()[:12])
            tokens.append((match.lastgroup, match[match.lastgroup]))
            position = match.end()
        return tokens

    def _unreadable(self, place: str) -> NotchError:
        at = f"near “{place}” " if place else ""
        return NotALength(
            f"“{self.text[:40]}” cannot be read {at}as a length.",
            fix='Type a length, for example 3.06, 1/8 in, 0.475" or width/3 + 2 mm.',
        )

    def _next(self) -> tuple[str, str]:
        return self.tokens[self.at] if self.at < len(self.tokens) else ("end", "")

    def _take_op(self, ops: str) -> str | None:
        kind, value = self._next()
        value = _SAME_OP.get(value, value)
        if kind == "op" and value in ops:
            self.at += 1
            return value
        return None

    def read(self) -> _Quantity:
        result = self._sum()
        if self._next()[0] != "end":
            raise self._unreadable(self._next()[1])
        return result

    def _sum(self) -> _Quantity:
        self.depth += 1
        if self.depth > _DEEPEST:
            raise self._unreadable("(((")
        left = self._product()
        while op := self._take_op("+-"):
            right = self._product()
            if left.power != right.power and {left.power, right.power} == {0, 1}:
                left, right = self._as_length(left), self._as_length(right)
            if left.power != right.power:
                raise self._unreadable(op)
            value = left.value + right.value if op == "+" else left.value - right.value
            left = _Quantity(value, left.power)
        self.depth -= 1
        return left

    def _as_length(self, quantity: _Quantity) -> _Quantity:
        return quantity if quantity.power else _Quantity(quantity.value * MM_PER_UNIT[self.unit], 1)

    def _product(self) -> _Quantity:
        left = self._signed()
        while op := self._take_op("*/"):
            right = self._signed()
            if op == "*":
                left = _Quantity(left.value * right.value, left.power + right.power)
            elif right.value == 0:
                raise NotALength(f"“{self.text}” divides by zero.", fix="Divide by a number other than 0.")
            else:
                left = _Quantity(left.value / right.value, left.power - right.power)
        return left

    def _signed(self) -> _Quantity:
        sign = 1.0
        while op := self._take_op("+-"):
            sign = -sign if op == "-" else sign
        quantity = self._with_unit(self._primary())
        return _Quantity(sign * quantity.value, quantity.power)

    def _with_unit(self, quantity: _Quantity) -> _Quantity:
        kind, value = self._next()
        if kind in ("name", "mark") and value.lower() in MM_PER_UNIT:
            if quantity.power:
                raise self._unreadable(value)
            self.at += 1
            return _Quantity(quantity.value * MM_PER_UNIT[value.lower()], 1)
        return quantity

    def _primary(self) -> _Quantity:
        kind, value = self._next()
        self.at += 1
        if kind == "number":
            return _Quantity(self._decimal(value), 0)
        if kind == "fraction":
            whole, over, below = re.match(r"(?:(\d+)\s+)?(\d+)\s*/\s*(\d+)", value).groups()  # type: ignore[union-attr]
            if int(below) == 0:
                raise NotALength(f"“{self.text}” divides by zero.", fix="Divide by a number other than 0.")
            return _Quantity(int(whole or 0) + int(over) / int(below), 0)
        if kind == "name":
            if value not in self.names:
                known = ", ".join(sorted(self.names)) or "none here"
                raise NotALength(
                    f"“{value}” is no length known here.", fix=f"Use a number or one of these names: {known}."
                )
            return _Quantity(self.names[value], 1)
        if kind == "op" and value == "(":
            inner = self._sum()
            if self._take_op(")") is None:
                raise self._unreadable("(")
            return inner
        self.at -= 1
        raise self._unreadable(value)

    def _decimal(self, value: str) -> float:
        if re.fullmatch(r"\d+,\d{3}", value):
            raise NotALength(
                f"“{value}” may mean {value.replace(',', '')} or {value.replace(',', '.')}.",
                fix="Write decimals with a point, and large numbers without a comma.",
            )
        return float(value.replace(",", "."))
