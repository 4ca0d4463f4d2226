"""Where the tabs along an edge are, how many and how wide."""

from __future__ import annotations

from dataclasses import dataclass

from ..ground.errors import FingerTooNarrow, FingerTooWide
from ..lengths.said import say_mm
from .finger_division import narrowest_finger
from .mate import (
    Interval,
)

TAB_PER_THICKNESS = 5.0


TABS_APART = 4.0
"""Tabs about five times as wide as their board is thick, four of their widths from one to the next. Common practice."""


@dataclass(frozen=True)
class Tabs:
    """Tabs of one width: from where to where each goes along the edge, finished size before clearance; `pitch` from one's middle
    to the next one's."""

    spans: tuple[Interval, ...]
    width: float
    pitch: float

    @property
    def count(self) -> int:
        return len(self.spans)


def spread_tabs(
    length: float,
    thickness: float,
    through: float,
    clearance: float,
    count: int | None = None,
    width: float | None = None,
    inset: float | None = None,
) -> Tabs:
    """Tabs of a board of `thickness` along an edge of `length`, through a board `through` mm thick, all in mm: one in the middle of
    each of `count` equal stretches, or from `inset` mm of either end on.

    Raises FingerTooNarrow at "width", FingerTooWide at "width", "count", "inset" or "size".

    >>> spread_tabs(120, 3, 3, 0.02)
    Tabs(spans=((22.5, 37.5), (82.5, 97.5)), width=15.0, pitch=60.0)
    >>> spread_tabs(120, 3, 3, 0.02, inset=6).spans
    ((6.0, 21.0), (99.0, 114.0))
    """
    least = narrowest_finger(thickness, clearance)
    if width is not None and width < least:
        raise FingerTooNarrow(
            f"Tabs of {say_mm(width)} are narrower than their board is thick, {say_mm(thickness)}.",
            fix=f"Use tabs of at least {say_mm(least)}.", field="width",
        )  # fmt: skip
    made = max(least, min(TAB_PER_THICKNESS * thickness, length / 3)) if width is None else width
    many = max(1, round(length / (TABS_APART * made))) if count is None else count
    web = max(thickness, through)  # between slots, and half of it at either end
    if many * (made + abs(clearance) + web) > length * (1 + 1e-12):
        most = int(length / (made + abs(clearance) + web))
        raise FingerTooWide(
            f"{many} tab{'s' * (many > 1)} of {say_mm(made)} with {say_mm(web)} between their slots do not go into "
            f"{say_mm(length)}.",
            fix=f"Use at most {most} tab{'s' * (most > 1)} of that width, or narrower ones." if most
            else f"Use tabs of at most {say_mm(length - web - abs(clearance))}, or a longer edge.",
            field="count" if count is not None and count > 1 else "width" if width is not None else "size",
        )  # fmt: skip
    if inset is None:
        pitch = length / many
        middles = tuple((i + 0.5) * pitch for i in range(many))
        return Tabs(tuple((middle - made / 2, middle + made / 2) for middle in middles), made, pitch)
    room = length - 2 * inset if many > 1 else length - inset
    if inset < 0 or many * made + (many - 1) * web > room * (1 + 1e-12):
        room = (length - many * made - (many - 1) * web) / (2 if many > 1 else 1)
        raise FingerTooWide(
            f"{many} tab{'s' * (many > 1)} of {say_mm(made)} from {say_mm(inset)} on do not go into {say_mm(length)}.",
            fix=f"Begin {say_mm(max(room, 0.0))} from the end at most.", field="inset",
        )  # fmt: skip
    pitch = (room - made) / (many - 1) if many > 1 else length
    return Tabs(tuple((inset + i * pitch, inset + i * pitch + made) for i in range(many)), made, pitch)
