"""Reading plain JSON documents, with errors that name the place. Used by the design's and the basis' borders."""

from __future__ import annotations

import math
import re
import unicodedata
from collections.abc import Mapping, Sequence
from dataclasses import asdict
from typing import Any, cast

from ..ground.errors import BadDocument, NotchError
from ..lengths.arithmetic import plain_fractions
from ..lengths.length import Length, length_mm
from ..lengths.units import Unit


def mapping(value: object, field: str) -> Mapping[str, Any]:
    if type(value) is not dict and not isinstance(value, Mapping):  # dicts are quick to tell, and nearly all there is
        raise BadDocument(f"“{field}” is no object with named entries.", fix="Write it as {…}.", field=field)
    return value


def sequence(value: object, field: str, most: int) -> Sequence[Any]:
    """A list of at most `most` entries."""
    if not isinstance(value, list | tuple):
        raise BadDocument(f"“{field}” is no list.", fix="Write it as […].", field=field)
    if len(value) > most:
        raise BadDocument(f"“{field}” has {len(value)} entries.", fix=f"Give at most {most}.", field=field)
    return value


def entry(document: Mapping[str, Any], key: str, field: str = "") -> Any:
    if key not in document:
        path = f"{field}.{key}" if field else key
        raise BadDocument(f"The {called(path)} is missing.", fix=f"Add “{key}”.", field=path)
    return document[key]


def called(field: str) -> str:
    """What the last step of a path is called in a sentence.

    >>> called("stock.sheet_width"), called("parts/front/title"), called("tools[2].name")
    ('sheet width', 'title', 'name')
    """
    return re.sub(r"\[\d+\]$", "", re.split(r"[./]", field)[-1]).replace("_", " ") or "document"


def _shown(value: object) -> str:
    return f"“{value}”" if isinstance(value, str) else repr(value)


def text(value: object, field: str, longest: int = 120, *, required: bool = True) -> str:
    """Printable characters, without blanks around them, that can be stored and written into any file."""
    if not isinstance(value, str) or (required and not value.strip()):
        said = "is empty" if isinstance(value, str) or value is None else "is not a text"
        raise BadDocument(f"The {called(field)} {said}.", fix="Type a few words.", field=field)
    if len(value) > longest:
        raise BadDocument(
            f"The {called(field)} has {len(value)} characters.", fix=f"Use at most {longest}.", field=field
        )
    bad = next((c for c in value if c not in "\n\t" and unicodedata.category(c) in ("Cc", "Cs")), None)
    if bad is not None:
        raise BadDocument(
            f"The {called(field)} has a character that cannot be written, number {ord(bad)}.",
            fix="Type it again.",
            field=field,
        )
    return value.strip()


def flag(value: object, field: str) -> bool:
    """True or false; a text such as "false" is neither."""
    if not isinstance(value, bool):
        raise BadDocument(f"The {called(field)} is {_shown(value)}.", fix="Give true or false.", field=field)
    return value


def choice(value: object, allowed: Sequence[str], field: str) -> str:
    if not isinstance(value, str) or value not in allowed:
        raise BadDocument(
            f"The {called(field)} is {_shown(value)}.", fix=f"Choose one of: {', '.join(allowed)}.", field=field
        )
    return value


def whole(value: object, field: str, least: int, most: int) -> int:
    if isinstance(value, str) and value.strip().isascii() and value.strip().isdigit():
        value = int(value[:20])
    if isinstance(value, float) and value.is_integer():
        value = int(value)
    if not isinstance(value, int) or isinstance(value, bool) or not least <= value <= most:
        raise BadDocument(
            f"The {called(field)} is {_shown(value)}.", fix=f"Give a whole number from {least} to {most}.", field=field
        )
    return value


def length(value: object, field: str) -> Length:
    """A typed length: a number (mm), a text, or {"text": …, "unit": …}."""
    if isinstance(value, Mapping):
        unit = choice(value.get("unit", "mm"), ("mm", "in"), field)
        value = value.get("text", "")
        text = value if isinstance(value, str) else repr(value)
        return Length(plain_fractions(text, cast(Unit, unit)), cast(Unit, unit))
    if isinstance(value, str):
        return Length(plain_fractions(value, "mm"))
    if isinstance(value, int | float) and not isinstance(value, bool) and abs(value) < math.inf:
        return Length(f"{value!r}")
    raise BadDocument(
        f"The {called(field)} is not a length.", fix='Write a number in mm or a text such as "1/8 in".', field=field
    )


def length_out(value: Length) -> str | dict[str, str]:
    """The document that `length` reads."""
    return value.text if value.unit == "mm" else asdict(value)


def in_unit(value: object, unit: Unit) -> object:
    """A text said to be typed in `unit`; anything else as it is."""
    return {"text": value, "unit": unit} if isinstance(value, str) and unit != "mm" else value


def mm(value: object, field: str) -> float:
    """A measured length in mm, from a number (mm) or a text such as "0.475 in"."""
    typed = length(value, field)
    try:
        return length_mm(typed.text, typed.unit)
    except NotchError as error:
        raise error.at(field) from None
