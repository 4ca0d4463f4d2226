"""Arithmetic with lengths: a text and what its names stand for in, a quantity out; a length in mm, or a plain number."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ..ground.errors import NotALength, NotchError
from ..ground.remembered import by_value
from .said import NOISE_MM
from .units import MM_PER_UNIT, Unit

_TOKEN = re.compile(
    r"""\s*(?:
      (?P<fraction>\d+\s+\d+\s*/\s*\d+(?!\d)|\d+\s*/\s*\d+(?=\s*(?:mm|cm|m|inches|inch|in|ft|thou|"|″)(?![A-Za-z_])))
    | (?P<number>(?:\d+(?:\.\d*|,\d+)?|[.,]\d+)(?:[eE][+-]?\d+)?)
    | (?P<function>[A-Za-z_]\w*(?=\s*\())
    | (?P<name>[A-Za-z_]\w*(?:\.[A-Za-z_]\w*)?)
    | (?P<mark>["″])
    | (?P<op>[-+*/()×÷−,;])
    )""",
    re.VERBOSE | re.ASCII,
)


_MIXED = re.compile(r"(?<![\w.,/])(\d+)-(\d+)/(\d+)(?![\w.,/])(?=\s*(in\b|inch|\"|″|$|[^\w\s]))", re.ASCII)
_POWERS_OF_TWO = {2, 4, 8, 16, 32, 64}
_SAME_OP = {"×": "*", "÷": "/", "−": "-"}
_LONGEST_TEXT = 200
_DEEPEST = 40


@dataclass(frozen=True)
class Quantity:
    value: float
    power: int  # of length: 0 a bare number, 1 a length in mm


FUNCTIONS = ("min", "max", "round", "sqrt", "sin", "cos")
"""What arithmetic may call: names that nothing else can have. sin and cos take degrees; round(x, 5 mm) rounds to fives."""


def plain_fractions(text: str, unit: Unit) -> str:
    """`text` with mixed numbers of inches as they are spoken: on drawings 4-3/4 is four and three quarters.

    Only where it can be nothing else that people write: inches, no blanks, a fraction below 1 in halves down to 64ths.

    >>> plain_fractions("4-3/4", "in"), plain_fractions("4-3/4 in", "mm"), plain_fractions("width-3/4", "in")
    ('4 3/4', '4 3/4 in', 'width-3/4')
    >>> plain_fractions("4-3/4", "mm"), plain_fractions("4 - 3/4", "in"), plain_fractions("4-5/4", "in")
    ('4-3/4', '4 - 3/4', '4-5/4')
    """

    def spoken(found: re.Match[str]) -> str:
        whole, over, below, after = found.groups()
        inches = after[:2] in ("in", '"', "″") or (unit == "in" and not re.match(r"\s*[a-z]", text[found.end() :]))
        if not inches or int(below) not in _POWERS_OF_TWO or not 0 < int(over) < int(below):
            return found[0]
        return f"{whole} {over}/{below}"

    return _MIXED.sub(spoken, text)


@by_value(16_384)
def _tokens(text: str) -> tuple[tuple[tuple[str, str], ...], str]:
    """What an expression is made of, by kind; and the first that is none, or ""."""
    tokens: list[tuple[str, str]] = []
    position = 0
    while position < len(text):
        match = _TOKEN.match(text, position)
        if not match or match.lastgroup is None:
            return tuple(tokens), text[position:].strip()[:12] or " "
        tokens.append((match.lastgroup, match[match.lastgroup]))
        position = match.end()
    return tuple(tokens), ""


class Reader:
    """Recursive descent over one short expression."""

    def __init__(self, text: str, unit: Unit, names: Mapping[str, float], known: Sequence[str]) -> None:
        self.text = plain_fractions(text.strip(), unit)
        self.unit = unit
        self.names = names
        self.known = known
        self.depth = 0
        if not self.text:
            raise NotALength("No length is given.", fix="Type a length, for example 3.06, 1/8 in or width/3.")
        if len(self.text) > _LONGEST_TEXT:
            raise NotALength(
                f"The text has {len(self.text)} characters.",
                fix=f"Write a length in at most {_LONGEST_TEXT} characters.",
            )
        self.tokens, unread = _tokens(self.text)
        if unread:
            raise self._unreadable(unread)
        self.at = 0

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

    def read(self) -> Quantity:
        result = self._sum()
        if self._next()[0] != "end":
            raise self._unreadable(self._next()[1])
        return result

    def _sum(self) -> Quantity:
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
            left = Quantity(value, left.power)
        self.depth -= 1
        return left

    def _call(self, name: str) -> Quantity:
        """A function of what stands in brackets; a semicolon, or a comma before a blank, parts the values."""
        if name not in FUNCTIONS:
            raise NotALength(f"There is no function called “{name}”.", fix=f"Use one of: {', '.join(FUNCTIONS)}.")
        self._take_op("(")
        values = [self._sum()]
        while self._take_op(",;"):
            values.append(self._sum())
        if self._take_op(")") is None:
            raise self._unreadable("(")
        least, most = (2, _DEEPEST) if name in ("min", "max") else (1, 2 if name == "round" else 1)
        if not least <= len(values) <= most:
            wanted = "two values or more" if least == 2 else "one value or two" if most == 2 else "one value"
            raise NotALength(
                f"“{name}” takes {wanted}, not {len(values)}.",
                fix=f"Part values by a semicolon, as in {name}(width/3; 20)." if most > 1 else f"Write {name}(…).",
            )
        return self._called(name, values)

    def _called(self, name: str, values: Sequence[Quantity]) -> Quantity:
        first = values[0]
        if name in ("sin", "cos"):
            if first.power:
                raise NotALength(
                    f"“{self.text}” takes the {name} of a length.", fix=f"Give {name} an angle in degrees: {name}(30)."
                )
            turn = math.radians(first.value)
            return Quantity(math.sin(turn) if name == "sin" else math.cos(turn), 0)
        if name == "sqrt":
            if first.value < 0 or first.power % 2:
                of = "less than 0" if first.value < 0 else "a length"
                raise NotALength(
                    f"“{self.text}” takes the square root of what is {of}.",
                    fix="Take it of a number of 0 or more, or of a length times a length.",
                )
            return Quantity(math.sqrt(first.value), first.power // 2)
        if len({one.power for one in values}) > 1:
            values = [self._as_length(one) for one in values]
            if len({one.power for one in values}) > 1:
                raise self._unreadable(name)
        numbers = [one.value for one in values]
        power = values[0].power
        if name == "round":
            step = numbers[1] if len(numbers) == 2 else MM_PER_UNIT[self.unit] if power == 1 else 1.0
            if step <= 0:
                raise NotALength(f"“{self.text}” rounds to {step:g}.", fix="Round to a number above 0.")
            return Quantity(
                math.copysign(math.floor(abs(numbers[0]) / step + 0.5 + NOISE_MM) * step, numbers[0]), power
            )
        return Quantity(min(numbers) if name == "min" else max(numbers), power)

    def _as_length(self, quantity: Quantity) -> Quantity:
        return quantity if quantity.power else Quantity(quantity.value * MM_PER_UNIT[self.unit], 1)

    def _product(self) -> Quantity:
        left = self._signed()
        while op := self._take_op("*/"):
            right = self._signed()
            if op == "*":
                left = Quantity(left.value * right.value, left.power + right.power)
            elif right.value == 0:
                raise NotALength(f"“{self.text}” divides by zero.", fix="Divide by a number other than 0.")
            else:
                left = Quantity(left.value / right.value, left.power - right.power)
        return left

    def _signed(self) -> Quantity:
        sign = 1.0
        while op := self._take_op("+-"):
            sign = -sign if op == "-" else sign
        quantity = self._with_unit(self._primary())
        return Quantity(sign * quantity.value, quantity.power)

    def _with_unit(self, quantity: Quantity) -> Quantity:
        kind, value = self._next()
        if kind in ("name", "mark") and value.lower() in MM_PER_UNIT:
            if quantity.power:
                raise self._unreadable(value)
            self.at += 1
            return Quantity(quantity.value * MM_PER_UNIT[value.lower()], 1)
        return quantity

    def _primary(self) -> Quantity:
        kind, value = self._next()
        self.at += 1
        if kind == "number":
            return Quantity(self._decimal(value), 0)
        if kind == "fraction":
            whole, over, below = re.match(r"(?:([0-9]+)\s+)?([0-9]+)\s*/\s*([0-9]+)", value).groups()  # type: ignore[union-attr]
            if int(below) == 0:
                raise NotALength(f"“{self.text}” divides by zero.", fix="Divide by a number other than 0.")
            return Quantity(int(whole or 0) + int(over) / int(below), 0)
        if kind == "function":
            return self._call(value)
        if kind == "name":
            if value not in self.names:
                if not self.known:
                    raise NotALength(f"“{value}” is not a number.", fix="Type a number, such as 12.5 or 3 mm.")
                known = ", ".join(self.known)
                raise NotALength(
                    f"There is no length called “{value}”.", fix=f"Use a number or one of these names: {known}."
                )
            return Quantity(self.names[value], 1)
        if kind == "op" and value == "(":
            inner = self._sum()
            if self._take_op(")") is None:
                raise self._unreadable("(")
            return inner
        self.at -= 1
        raise self._unreadable(value)

    def _decimal(self, value: str) -> float:
        # A large number has one to three digits before its comma, and does not begin with 0.
        if re.fullmatch(r"[1-9]\d{0,2},\d{3}", value):
            raise NotALength(
                f"“{value}” may mean {value.replace(',', '')} or {value.replace(',', '.')}.",
                fix="Write decimals with a point, and large numbers without a comma.",
            )
        return float(value.replace(",", "."))
