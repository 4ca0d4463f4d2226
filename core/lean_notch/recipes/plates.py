"""What recipes of flat plates share: settings as named lengths, and places half-way up a plate."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import cast

from ..design import Dimension, ShapeStep
from ..ground.errors import RadiusTooLarge
from ..lengths.length import Length
from ..lengths.said import say_mm
from .recipe import Values


def named(values: Values, lengths: Mapping[str, str]) -> tuple[Dimension, ...]:
    """Settings as chosen lengths of the design; what was left empty is none."""
    typed = {name: cast(Length, values[name]) for name in lengths}
    return tuple(
        Dimension(name, title, typed[name], chosen=True) for name, title in lengths.items() if typed[name].text.strip()
    )


def check_radius(names: Mapping[str, float]) -> None:
    """A corner's radius is at most half the shorter side. Common practice."""
    most = min(names["width"], names["height"]) / 2
    if names["radius"] > most:
        raise RadiusTooLarge(
            f"A radius of {say_mm(names['radius'])} does not fit a plate of {say_mm(names['width'])} × {say_mm(names['height'])}.",
            fix=f"Use at most {say_mm(most)}.", field="radius",
        )  # fmt: skip


def half_way_up(step: ShapeStep) -> ShapeStep:
    """`step` with its middle half-way between the bottom and the top of the step called blank."""
    return replace(step, from_y="edge:blank.bottom", to_y="edge:blank.top")


def is_empty(values: Values, name: str) -> bool:
    """Whether a length was left out, or is plainly 0."""
    return cast(Length, values[name]).text.strip() in ("", "0")
