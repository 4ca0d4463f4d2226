"""What is drawn on a panel: lines, rectangles, circles and text, each with what is to be done; and its cut corners.

In: plain documents; out: frozen values whose lengths stay as typed, and back.
"""

from __future__ import annotations

from dataclasses import asdict, dataclass
from typing import Any, Literal, cast

from ..documents import choice, entry, length, length_out, mapping, sequence, text, whole
from ..errors import BadDocument
from ..lettering import FONTS, SINGLE_STROKE
from ..lettering.text import Align
from ..operations import OPERATIONS, SIDES, Operation, Side
from ..units import Length

MarkKind = Literal["line", "rectangle", "circle", "text"]
MARK_LENGTHS: dict[MarkKind, tuple[str, ...]] = {
    "line": ("x", "y", "to_x", "to_y"),
    "rectangle": ("x", "y", "width", "height", "radius"),
    "circle": ("x", "y", "diameter"),
    "text": ("x", "y", "height", "bridge"),
}
"""The lengths that each kind of mark asks for; x and y are its start, lower left corner, centre or base line."""

_EITHER = ("dx", "dy", "depth")
_MAY_BE_EMPTY = ("radius", "bridge", "dx", "dy", "depth")
MOST_MARKS = 500
MOST_COPIES = 10_000


@dataclass(frozen=True)
class Mark:
    """Something drawn on a panel and what is to be done along or inside it, measured from its lower left corner.

    `lengths` are by the names of MARK_LENGTHS; `depth` is a pocket's; `columns` and `rows` repeat the mark `dx` and
    `dy` apart. `bridge` is how wide the bars are that hold the islands of cut letters; empty: as the board is thick.
    """

    id: str
    kind: MarkKind
    operation: Operation
    lengths: tuple[tuple[str, Length], ...]
    text: str = ""
    font: str = "sans"
    align: Align = "left"
    angle: float = 0.0
    side: Side = "auto"
    columns: int = 1
    rows: int = 1

    def length(self, name: str) -> Length | None:
        """The length of that name, or None if it is empty."""
        found = dict(self.lengths).get(name)
        return found if found and found.text.strip() else None


CornerName = Literal["bottom-left", "bottom-right", "top-right", "top-left"]
CORNERS: tuple[CornerName, ...] = ("bottom-left", "bottom-right", "top-right", "top-left")


@dataclass(frozen=True)
class CornerCut:
    """A corner of the panel that is rounded by a radius or cut off straight, `size` along both edges."""

    corner: CornerName
    shape: Literal["round", "chamfer"]
    size: Length


def mark_to_json(mark: Mark) -> dict[str, Any]:
    """The document that `mark_from_json` reads."""
    document = asdict(mark)
    document["lengths"] = {name: length_out(value) for name, value in mark.lengths}
    return document


def corner_to_json(cut: CornerCut) -> dict[str, Any]:
    """The document that `corners_from_json` reads."""
    return {"corner": cut.corner, "shape": cut.shape, "size": length_out(cut.size)}


def marks_from_json(value: object, part: str) -> tuple[Mark, ...]:
    """The marks of the part called `part` from their documents. Raises BadDocument at "part.marks[n].name"."""
    marks = tuple(
        _mark(mark, f"{part}.marks[{i}]") for i, mark in enumerate(sequence(value, f"{part}.marks", MOST_MARKS))
    )
    if len({mark.id for mark in marks}) < len(marks):
        raise BadDocument("Two marks share an id.", fix="Give each mark an id of its own.", field=f"{part}.marks")
    return marks


def _mark(value: object, field: str) -> Mark:
    document = mapping(value, field)
    kind = cast(MarkKind, choice(entry(document, "kind", field), tuple(MARK_LENGTHS), f"{field}.kind"))
    given = mapping(document.get("lengths", {}), f"{field}.lengths")
    names = (*MARK_LENGTHS[kind], *_EITHER)
    lengths = []
    for name in names:
        typed = length(given.get(name, ""), f"{field}.{name}")
        if not typed.text.strip():
            if name not in _MAY_BE_EMPTY:
                raise BadDocument(f"The {kind}'s {name} is empty.", fix="Type a length.", field=f"{field}.{name}")
            continue
        lengths.append((name, typed))
    operation = cast(Operation, choice(document.get("operation", "cut"), tuple(OPERATIONS), f"{field}.operation"))
    if kind == "line" and operation in ("cut", "pocket"):
        raise BadDocument(
            f"A line cannot be a {OPERATIONS[operation].lower()}: it goes round nothing.",
            fix="Score, fold or engrave along it, or draw a rectangle.",
            field=f"{field}.operation",
        )
    angle = document.get("angle", 0.0)
    if not isinstance(angle, int | float) or isinstance(angle, bool) or not abs(angle) <= 360:
        raise BadDocument(f"The angle is {angle!r}.", fix="Give degrees from -360 to 360.", field=f"{field}.angle")
    columns, rows = (whole(document.get(name, 1), f"{field}.{name}", 1, 1000) for name in ("columns", "rows"))
    if columns * rows > MOST_COPIES:
        raise BadDocument(
            f"{columns} x {rows} copies are too many.", fix=f"Use at most {MOST_COPIES}.", field=f"{field}.columns"
        )
    for count, step in ((columns, "dx"), (rows, "dy")):
        if count > 1 and step not in dict(lengths):
            raise BadDocument(
                f"{count} copies need a {step}.", fix="Type how far they are apart.", field=f"{field}.{step}"
            )
    return Mark(
        id=text(entry(document, "id", field), f"{field}.id", 40),
        kind=kind,
        operation=operation,
        lengths=tuple(lengths),
        text=text(document.get("text", ""), f"{field}.text", 200, required=kind == "text"),
        font=choice(document.get("font", "sans"), (*FONTS, SINGLE_STROKE), f"{field}.font"),
        align=cast(Align, choice(document.get("align", "left"), ("left", "middle", "right"), f"{field}.align")),
        angle=float(angle),
        side=cast(Side, choice(document.get("side", "auto"), SIDES, f"{field}.side")),
        columns=columns,
        rows=rows,
    )


def corners_from_json(value: object, part: str) -> tuple[CornerCut, ...]:
    """The rounded and cut corners of the part called `part`. Raises BadDocument at "part.corners[n].name"."""
    cuts = []
    for i, one in enumerate(sequence(value, f"{part}.corners", len(CORNERS))):
        field = f"{part}.corners[{i}]"
        document = mapping(one, field)
        corner = cast(CornerName, choice(entry(document, "corner", field), CORNERS, f"{field}.corner"))
        shape = cast(
            Literal["round", "chamfer"], choice(document.get("shape", "round"), ("round", "chamfer"), f"{field}.shape")
        )
        cuts.append(CornerCut(corner, shape, length(entry(document, "size", field), f"{field}.size")))
    return tuple(cuts)
