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

from ..ground.errors import NotALength, OutOfRange
from ..ground.remembered import by_value
from .arithmetic import Reader
from .said import say_mm
from .units import MM_PER_UNIT, Unit

LARGEST_MM = 100_000.0
"""Nothing cut flat is longer than a hundred metres; larger numbers are slips."""


_NAMES = re.compile(r"[A-Za-z_]\w*(?:\.[A-Za-z_]\w*)?(?![\w.])(?!\s*\()", re.ASCII)


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
    result = Reader(text, unit, dict(names), known).read()
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
    result = Reader(text, "mm", dict(names), known).read()
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
