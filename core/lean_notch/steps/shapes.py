"""The shapes that a step may draw: their fields, one class a kind."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from ..documents.rules import AmountRule, Many, Number, OneOf, Title, Words
from ..ground.limits import MOST_NODES
from ..lengths.length import Amount, Length
from ..lengths.units import MM_PER_INCH
from ..lettering import FONTS, SINGLE_STROKE
from ..lettering.text import Align
from .fields import Id


def _fonts() -> tuple[str, ...]:
    return (*FONTS, SINGLE_STROKE)


FILE_UNITS = {"mm": 1.0, "cm": 10.0, "in": MM_PER_INCH}
"""Millimetres in the units that a file may be said to be in."""


def file_units() -> tuple[str, ...]:
    return ("", *FILE_UNITS)


@dataclass(frozen=True)
class Rectangle:
    """From its lower left corner to the right and up; `radius` rounds its corners."""

    width: Annotated[Length, Title("Width")]
    height: Annotated[Length, Title("Height")]
    radius: Annotated[Length | None, Title("Corner radius", "empty: square")] = None
    kind: ClassVar[str] = "rectangle"


@dataclass(frozen=True)
class Disc:
    """Round its centre."""

    diameter: Annotated[Length, Title("Diameter")]
    kind: ClassVar[str] = "disc"


@dataclass(frozen=True)
class Ellipse:
    """Round its centre, along the axes."""

    width: Annotated[Length, Title("Width")]
    height: Annotated[Length, Title("Height")]
    kind: ClassVar[str] = "ellipse"


@dataclass(frozen=True)
class Annulus:
    """A ring round its centre: an outside and an inside diameter."""

    diameter: Annotated[Length, Title("Outside diameter")]
    inside: Annotated[Length, Title("Inside diameter")]
    kind: ClassVar[str] = "ring"


@dataclass(frozen=True)
class Polygon:
    """A regular polygon round its centre, a side at the bottom; `across` its corners (their circle) or its flats (the
    circle inside)."""

    sides: Annotated[Amount, AmountRule(3, 360, whole=True), Title("Sides")]
    across: Annotated[Length, Title("Across")]
    measured: Annotated[Literal["corners", "flats"], Title("Measured over")] = "corners"
    kind: ClassVar[str] = "polygon"


@dataclass(frozen=True)
class Slot:
    """A slot with round ends about its centre: `length` over all."""

    length: Annotated[Length, Title("Length over all")]
    width: Annotated[Length, Title("Width")]
    kind: ClassVar[str] = "slot"


@dataclass(frozen=True)
class Node:
    """A corner of an outline. `bulge` bends the edge to the next one: tan(angle / 4), positive to the left when leaving."""

    id: Id
    x: Annotated[Length, Title("From the left")]
    y: Annotated[Length, Title("From the bottom")]
    bulge: Annotated[float, Number(-1e3, 1e3), Title("Bulge")] = 0.0
    KEY: ClassVar[str] = "id"


@dataclass(frozen=True)
class Outline:
    """A closed outline through its nodes."""

    nodes: Annotated[tuple[Node, ...], Many(MOST_NODES, 2)]
    kind: ClassVar[str] = "outline"


@dataclass(frozen=True)
class Imported:
    """All closed outlines of an SVG or DXF file that the job keeps by its content; of some layers, if any are named. `unit` is asked
    for where the file names none; `width` is how wide all of it is to be, as drawn if it is left out."""

    file: Annotated[str, Words(64), Title("File")]
    layers: Annotated[tuple[Annotated[str, Words(120)], ...], Many(200)] = ()
    unit: Annotated[str, OneOf(file_units), Title("Unit of the file", "where it names none")] = ""
    width: Annotated[Length | None, Title("Width of all of it", "empty: as drawn")] = None
    kind: ClassVar[str] = "imported"


@dataclass(frozen=True)
class Lettering:
    """A line of text on its base line. `bridge` is how wide the bars are that hold the islands of cut letters."""

    text: Annotated[str, Words(200), Title("Text")]
    height: Annotated[Length, Title("Height of capitals")]
    font: Annotated[str, OneOf(_fonts), Title("Font")] = "sans"
    align: Annotated[Align, Title("Set")] = "left"
    bridge: Annotated[Length | None, Title("Bridges", "empty: as wide as the board is thick")] = None
    kind: ClassVar[str] = "lettering"


@dataclass(frozen=True)
class Line:
    """From the step's place to an end, both measured on the part."""

    to_x: Annotated[Length, Title("End, from the left")]
    to_y: Annotated[Length, Title("End, from the bottom")]
    kind: ClassVar[str] = "line"


@dataclass(frozen=True)
class OtherPart:
    """The outline of another part of the design, as its own steps make it, joints not counted."""

    part: Annotated[Id, Title("Part")]
    kind: ClassVar[str] = "part"


Shape = Rectangle | Disc | Ellipse | Annulus | Polygon | Slot | Outline | Imported | Lettering | Line | OtherPart
