"""What a recipe will make, as a drawing with its sizes on it: lengths in, views out, in mm with y up."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, fields, is_dataclass
from typing import Any, Literal, TypeVar

from ..geometry import Box, Point

Names = Mapping[str, float]
"""All named lengths of a design, in mm."""


@dataclass(frozen=True)
class Shape:
    """A board cut through (`board`), seen on its face (`face`), the room inside (`clear`), an edge behind (`hidden`), or what is
    engraved, scored or sunk (`mark`, `pocket`). A `wall` can be taken out, one that is `gone` put back: `piece` is what the
    recipe calls it. What is no plain box has its `outline`, x and y in turn."""

    kind: Literal["board", "face", "clear", "hidden", "mark", "pocket", "wall", "gone"]
    box: Box
    outline: tuple[float, ...] = ()
    piece: str = ""


@dataclass(frozen=True)
class SizeLine:
    """A size between two places, drawn on that side of the view, `row` lines away from it, or along them. `setting` is the recipe's setting
    that it shows, "" for one that follows; `says` names it. Of a track list it shows the entry `typed`, the entries in order."""

    says: str
    value: float
    start: Point
    end: Point
    side: Literal["below", "right", "along", "above", "left"]
    row: int
    setting: str = ""
    typed: str = ""


@dataclass(frozen=True)
class Handle:
    """What can be dragged along an axis to change a setting, mm by mm: of a track list its entry `entry`, from 0."""

    setting: str
    at: Point
    along: Literal["x", "y"]
    entry: int = -1


@dataclass(frozen=True)
class Clear:
    """The clear size of a place, width and depth, to be written in its middle."""

    size: tuple[float, float]
    at: Point


@dataclass(frozen=True)
class View:
    title: str
    shapes: tuple[Shape, ...]
    sizes: tuple[SizeLine, ...]
    handles: tuple[Handle, ...]
    clears: tuple[Clear, ...] = ()
    says: tuple[str, ...] = ()


Views = tuple[View, ...]
Draw = Callable[[Names, Mapping[str, str]], Views]
"""From named lengths and the settings as typed."""

T = TypeVar("T")


def slope(before: T, after: T) -> T:
    """How every number of a drawing moves from `before` to `after`; what is no number stays as it is. Raises ValueError where
    the two do not show the same things.

    >>> slope(Handle("width", (10.0, 5.0), "x"), Handle("width", (11.0, 5.0), "x"))
    Handle(setting='width', at=(1.0, 0.0), along='x', entry=0)
    """
    return _slope(before, after)  # type: ignore[no-any-return]


def _slope(before: Any, after: Any) -> Any:
    if isinstance(before, float):
        return after - before
    if isinstance(before, str | int) and before != after:
        raise ValueError("another drawing")
    if isinstance(before, int):
        return 0  # a row or a number of an entry: it does not move
    if isinstance(before, tuple):
        return tuple(_slope(a, b) for a, b in zip(before, after, strict=True))
    if is_dataclass(before) and not isinstance(before, type):
        parts = {one.name: _slope(getattr(before, one.name), getattr(after, one.name)) for one in fields(before)}
        return type(before)(**parts)
    return before
