"""What numbers, lengths and transforms of an SVG file say. W3C SVG 2, 8 and CSS Values."""

from __future__ import annotations

import math
import re
from collections.abc import Callable
from typing import Any

from ..ground.errors import UnreadableFile
from ..lengths.units import MM_PER_PT, MM_PER_PX, MM_PER_UNIT
from .curves import Affine

PER_UNIT = {**MM_PER_UNIT, "px": MM_PER_PX, "pt": MM_PER_PT, "pc": 12 * MM_PER_PT, "q": 0.25}
"""Millimetres per unit. W3C CSS Values and Units 3, absolute lengths."""


def tag_of(element: Any) -> str:
    return element.tag.rpartition("}")[2] if isinstance(element.tag, str) else ""


def size_of(text: str) -> tuple[float | None, str]:
    """A size and its unit, "" for none; no size where it is left out or a share of the window."""
    match = re.fullmatch(r"\s*([\d.]+(?:e[-+]?\d+)?)\s*([a-zA-Z]*)\s*", text)
    if not match:
        if text.strip() and not text.strip().endswith("%"):
            raise UnreadableFile(f"The SVG's size is “{text[:20]}”.", fix="Export it with width and height in mm.")
        return None, ""
    unit = match[2].lower()
    if unit and unit not in PER_UNIT:
        raise UnreadableFile(f"The SVG's size is “{text[:20]}”.", fix="Export it with width and height in mm.")
    value = float(match[1])
    if not 0 < value < 1e7:
        raise UnreadableFile(f"The SVG's size is “{text[:20]}”.", fix="Export it with a size of more than 0 mm.")
    return value, unit


def number_in(text: str) -> float:
    try:
        value = float(text)
    except ValueError:
        raise UnreadableFile(f"“{text[:20]}” is no number.", fix="Export the file again.") from None
    if not math.isfinite(value):
        raise UnreadableFile(f"“{text[:20]}” is no number.", fix="Export the file again.")
    return value


def length_in(text: str | None, default: float = 0.0) -> float:
    """A length inside the drawing, in its units (px)."""
    match = re.fullmatch(r"\s*([-+]?[\d.]+(?:[eE][-+]?\d+)?)\s*([a-zA-Z]*)\s*", text or "")
    if not match:
        if text and not text.strip().endswith("%") and text.strip() != "auto":
            raise UnreadableFile(f"“{text[:20]}” is not a length.", fix="Export the file again.")
        return default
    return number_in(match[1]) * PER_UNIT.get(match[2].lower(), MM_PER_PX) / MM_PER_PX


def nested_in(element: Any) -> Affine:
    """Where a nested drawing or symbol puts its units."""
    shift = Affine(e=length_in(element.get("x")), f=length_in(element.get("y")))
    box = [number_in(value) for value in re.split(r"[\s,]+", element.get("viewBox", "").strip()) if value]
    if len(box) != 4 or box[2] <= 0 or box[3] <= 0:
        return shift
    width, height = length_in(element.get("width"), box[2]), length_in(element.get("height"), box[3])
    scale = min(width / box[2], height / box[3])
    middle = Affine(scale, 0, 0, scale, (width - box[2] * scale) / 2, (height - box[3] * scale) / 2)
    return shift.after(middle).after(Affine(e=-box[0], f=-box[1]))


_TRANSFORM = re.compile(r"([a-zA-Z]+)\s*\(([^)]*)\)")


def transform_in(text: str) -> Affine:
    """W3C SVG 2, 8.5: the transforms of a list apply from the last to the first."""
    whole = Affine()
    for name, arguments in _TRANSFORM.findall(text):
        v = [number_in(value) for value in re.split(r"[\s,]+", arguments.strip()) if value]
        try:
            whole = whole.after(_ONE[name](*v))
        except (KeyError, TypeError):
            raise UnreadableFile(
                f"A transform says “{name}({arguments[:20]})”.", fix="Export the file again."
            ) from None
    return whole


def _rotate(degrees: float, x: float = 0.0, y: float = 0.0) -> Affine:
    cos, sin = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    return Affine(e=x, f=y).after(Affine(cos, sin, -sin, cos)).after(Affine(e=-x, f=-y))


_ONE: dict[str, Callable[..., Affine]] = {
    "matrix": Affine,
    "translate": lambda x, y=0.0: Affine(e=x, f=y),
    "scale": lambda x, y=None: Affine(x, 0, 0, x if y is None else y),
    "rotate": _rotate,
    "skewX": lambda degrees: Affine(c=math.tan(math.radians(degrees))),
    "skewY": lambda degrees: Affine(b=math.tan(math.radians(degrees))),
}
