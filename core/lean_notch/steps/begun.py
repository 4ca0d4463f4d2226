"""What a new step is wanted for, and the document that it begins with, near the middle of its part: a purpose in, a document out."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from math import floor
from typing import Any, Literal, NamedTuple

from ..geometry import Box
from ..lengths.units import MM_PER_INCH, MM_PER_UNIT, Unit

Document = dict[str, Any]
_INCHES = 16
"""A new step's lengths are in sixteenths of an inch, or in tenths of a millimetre."""

_FINE, _HAIR = 10_000, 1e-6


@dataclass(frozen=True)
class Where:
    """What a new step is put on: the part's box and corners, the unit that its lengths are typed in, and what it is made of where it
    comes from elsewhere (a kept file, another part)."""

    box: Box
    corners: tuple[str, ...] = ()
    unit: Unit = "mm"
    other: str = ""

    @property
    def width(self) -> float:
        return self.box[2] - self.box[0]

    @property
    def height(self) -> float:
        return self.box[3] - self.box[1]

    @property
    def size(self) -> float:
        """What is easily seen on it and does not fill it."""
        return min(self.width, self.height) / 4

    @property
    def x(self) -> float:
        return (self.box[0] + self.box[2]) / 2

    @property
    def y(self) -> float:
        return (self.box[1] + self.box[3]) / 2

    def typed(self, mm: float) -> Document:
        """
        >>> Where((0, 0, 100, 60)).typed(12.34), Where((0, 0, 100, 60), unit="in").typed(8)
        ({'text': '12.3', 'unit': 'mm'}, {'text': '0.3125', 'unit': 'in'})
        """
        if self.unit == "in":
            return {"text": f"{round(mm / MM_PER_INCH * _INCHES) / _INCHES:g}", "unit": "in"}
        return {"text": f"{round(mm, 1):g}", "unit": "mm"}

    def just(self, mm: float) -> Document:
        """Not rounded up, so that what begins at an end of the part does not leave it.

        >>> Where((0, 0, 100, 60)).just(156.16), Where((0, 0, 100, 60), unit="in").just(200)
        ({'text': '156.16', 'unit': 'mm'}, {'text': '7.874', 'unit': 'in'})
        """
        value = mm / MM_PER_UNIT[self.unit]
        return {"text": f"{floor(value * _FINE + _HAIR) / _FINE:.10g}", "unit": self.unit}

    @property
    def across(self) -> tuple[Document, Document]:
        """Where a line over the middle half of it begins and ends: "x" and "y", "to_x" and "to_y"."""
        start, end, y = (
            self.typed(self.box[0] + self.width / 4),
            self.typed(self.box[0] + self.width * 3 / 4),
            self.typed(self.y),
        )
        return {"x": start, "y": y}, {"to_x": end, "to_y": y}

    @property
    def middle(self) -> Document:
        return {"x": self.typed(self.x), "y": self.typed(self.y)}


class Begun(NamedTuple):
    """One purpose: its id, after which the step is called, what it is in a list of them, and its document on a part. `of` says what
    it is made of, where it comes from elsewhere."""

    purpose: str
    title: str
    document: Callable[[Where], Document]
    of: Literal["", "file", "part"] = ""
