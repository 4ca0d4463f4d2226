"""Lengths as people type them, in; millimetres, out.

`1/8 in`, `0.475"`, `3.06`, `3,06 mm`, `1 1/2 in`, `width/3 + 2 mm`, `(width - 2*thickness)/4` and
`max(width/3, 20 mm)` are all understood. A number without a unit takes the unit of the field it stands in. Angles, counts
and scales are typed alike (`Amount`); lengths in them have to cancel out.
"""

from __future__ import annotations

import math
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from ..ground.errors import NotALength, NotchError, OutOfRange
from ..ground.remembered import by_value

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
    | (?P<number>(?:\d+(?:\.\d*|,\d+)?|[.,]\d+)(?:[eE][+-]?\d+)?)
    | (?P<function>[A-Za-z_]\w*(?=\s*\())
    | (?P<name>[A-Za-z_]\w*(?:\.[A-Za-z_]\w*)?)
    | (?P<mark>["″])
    | (?P<op>[-+*/()×÷−,;])
    )""",
    re.VERBOSE | re.ASCII,
)
_NAMES = re.compile(r"[A-Za-z_]\w*(?:\.[A-Za-z_]\w*)?(?![\w.])(?!\s*\()", re.ASCII)
_MIXED = re.compile(r"(?<![\w.,/])(\d+)-(\d+)/(\d+)(?![\w.,/])(?=\s*(in\b|inch|\"|″|$|[^\w\s]))", re.ASCII)
_POWERS_OF_TWO = {2, 4, 8, 16, 32, 64}
_SAME_OP = {"×": "*", "÷": "/", "−": "-"}
_LONGEST_TEXT = 200
_DEEPEST = 40


@dataclass(frozen=True)
class _Quantity:
    value: float
    power: int  # of length: 0 a bare number, 1 a length in mm


FUNCTIONS = ("min", "max", "round", "sqrt", "sin", "cos")
"""What arithmetic may call: names that nothing else can have. sin and cos take degrees; round(x, 5 mm) rounds to fives."""


def say_mm(mm: float, digits: int = 3) -> str:
    """A length as the core writes it in sentences: at most three decimals and always "mm".

    >>> say_mm(3.06), say_mm(150), say_mm(-0.0001)
    ('3.06 mm', '150 mm', '0 mm')
    """
    text = rounded(mm, digits)
    text = text.rstrip("0").rstrip(".") if "." in text else text
    return f"{'0' if text in ('-0', '') else text} mm"


NOISE_MM = 1e-9
"""Sums of decimals are off by less than this in binary: 3.955 - 0.14 is 3.8149999999999995."""


def rounded(value: float, digits: int) -> str:
    """`value` to that many decimals, halves away from zero, as people round: the one rule for all figures that are shown.

    >>> rounded(3.955 - 0.14, 2), rounded(2.675, 2), rounded(-0.5, 0)
    ('3.82', '2.68', '-1')
    """
    return f"{value + (NOISE_MM if value > -NOISE_MM else -NOISE_MM):.{digits}f}"


def true_digits(total: float, terms: Sequence[float], least: int = 2, most: int = 6) -> int:
    """The fewest decimals at which `terms`, each rounded, add up to the rounded `total`: a sum that is shown must add up.

    >>> true_digits(3.815, (3.955, -0.14)), true_digits(0.01, (0.005, 0.005))
    (2, 3)
    """
    for digits in range(least, most):
        unit = 10**digits
        if sum(_units(term, unit) for term in terms) == _units(total, unit):
            return digits
    return most


def _units(value: float, unit: int) -> int:
    """`value` in whole units of 1 / `unit`, as `rounded` rounds."""
    whole = int((abs(value) + NOISE_MM) * unit + 0.5)
    return whole if value >= 0 else -whole


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
    names = names or {}
    used = names_in(text)
    # The same text on the same numbers is the same length: an edit changes few of either.
    return _length_mm(text, unit, tuple((name, names[name]) for name in used if name in names), _known(names, used))


def _known(names: Mapping[str, float], used: Sequence[str]) -> tuple[str, ...]:
    """All the names there are, for an error that lists them; nothing where none is missing."""
    missing = any(name not in names and name.lower() not in MM_PER_UNIT for name in used)
    return tuple(sorted(names)) if missing else ()


@by_value(16_384)
def names_in(text: str) -> tuple[str, ...]:
    """The names that stand in a length's text, units among them.

    >>> names_in("dividers.thickness + 2*width in")
    ('dividers.thickness', 'width', 'in')
    """
    return tuple(dict.fromkeys(_NAMES.findall(re.sub(r"[0-9.,]+[eE][+-]?[0-9]+", "1", text))))


@by_value(65_536)
def _length_mm(text: str, unit: Unit, names: tuple[tuple[str, float], ...], known: tuple[str, ...]) -> float:
    result = _Reader(text, unit, dict(names), known).read()
    if result.power not in (0, 1):
        raise NotALength(
            f"“{text.strip()}” is not a length: it multiplies or divides lengths.",
            fix="Multiply and divide by plain numbers only, as in width/3 + 2 mm.",
        )
    mm = result.value if result.power == 1 else result.value * MM_PER_UNIT[unit]
    if not math.isfinite(mm) or abs(mm) > LARGEST_MM:
        raise OutOfRange(
            f"“{text.strip()}” is too long.",
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


@dataclass(frozen=True)
class Length:
    """A length as it was typed, with the unit its bare numbers count in. It is evaluated anew at each build."""

    text: str
    unit: Unit = "mm"

    def mm(self, names: Mapping[str, float] | None = None) -> float:
        return length_mm(self.text, self.unit, names)


@dataclass(frozen=True)
class Amount:
    """A number without a unit as it was typed: degrees, a count, a scale. It may be arithmetic, `360/7` or `width/(20 mm)`."""

    text: str

    def value(self, names: Mapping[str, float] | None = None) -> float:
        """Raises NotALength for what is no plain number."""
        return plain_number(self.text, names)

    @property
    def literal(self) -> float | None:
        """The number, where it was typed as one."""
        return _literal(self.text)


@by_value(16_384)
def _literal(text: str) -> float | None:
    try:
        return float(text) if text.isascii() and "_" not in text and math.isfinite(float(text)) else None
    except ValueError:
        return None


def amount(value: float) -> Amount:
    """
    >>> amount(90.0), amount(12.5)
    (Amount(text='90'), Amount(text='12.5'))
    """
    return Amount(f"{value!r}".removesuffix(".0"))


def plain_number(text: str, names: Mapping[str, float] | None = None) -> float:
    """The number that `text` says; `names` are lengths in mm, which have to cancel out.

    >>> plain_number("360/7*2"), plain_number("width/(20 mm)", {"width": 150.0})
    (102.85714285714286, 7.5)
    """
    literal = _literal(text)
    if literal is not None:
        return literal
    names = names or {}
    used = names_in(text)
    return _plain(text, tuple((name, names[name]) for name in used if name in names), _known(names, used))


@by_value(4096)
def _plain(text: str, names: tuple[tuple[str, float], ...], known: tuple[str, ...]) -> float:
    result = _Reader(text, "mm", dict(names), known).read()
    if result.power:
        raise NotALength(
            f"“{text.strip()}” is a length, and a plain number is wanted.",
            fix="Divide it by a length, as in width/(20 mm).",
        )
    if not math.isfinite(result.value):
        raise OutOfRange(f"“{text.strip()}” is too large.", fix="Check the arithmetic.")
    return result.value


def positive_mm(mm: float, field: str, what: str, largest: float = LARGEST_MM) -> float:
    """`mm`, if it lies in 0 < mm <= largest. Raises OutOfRange at `field` otherwise."""
    if not math.isfinite(mm) or not 0 < mm <= largest:
        raise OutOfRange(
            f"{what} is {say_mm(mm)}.",
            fix=f"Give more than 0 mm and at most {say_mm(largest)}.",
            field=field,
        )
    return mm


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


class _Reader:
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

    def _call(self, name: str) -> _Quantity:
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

    def _called(self, name: str, values: Sequence[_Quantity]) -> _Quantity:
        first = values[0]
        if name in ("sin", "cos"):
            if first.power:
                raise NotALength(
                    f"“{self.text}” takes the {name} of a length.", fix=f"Give {name} an angle in degrees: {name}(30)."
                )
            turn = math.radians(first.value)
            return _Quantity(math.sin(turn) if name == "sin" else math.cos(turn), 0)
        if name == "sqrt":
            if first.value < 0 or first.power % 2:
                of = "less than 0" if first.value < 0 else "a length"
                raise NotALength(
                    f"“{self.text}” takes the square root of what is {of}.",
                    fix="Take it of a number of 0 or more, or of a length times a length.",
                )
            return _Quantity(math.sqrt(first.value), first.power // 2)
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
            return _Quantity(
                math.copysign(math.floor(abs(numbers[0]) / step + 0.5 + NOISE_MM) * step, numbers[0]), power
            )
        return _Quantity(min(numbers) if name == "min" else max(numbers), power)

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
            whole, over, below = re.match(r"(?:([0-9]+)\s+)?([0-9]+)\s*/\s*([0-9]+)", value).groups()  # type: ignore[union-attr]
            if int(below) == 0:
                raise NotALength(f"“{self.text}” divides by zero.", fix="Divide by a number other than 0.")
            return _Quantity(int(whole or 0) + int(over) / int(below), 0)
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
            return _Quantity(self.names[value], 1)
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
