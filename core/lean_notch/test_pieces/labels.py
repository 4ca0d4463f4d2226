"""What is written on a test piece: in, its design, the board and the machine; out, the design with lettering on every part."""

from __future__ import annotations

import unicodedata
from dataclasses import replace

from ..basis import Board, Machine
from ..design import Design, Lettering, Part, Rectangle, ShapeStep
from ..ground.operations import Operation
from ..lengths.length import Length, amount
from ..lengths.said import say_mm
from ..lettering import SINGLE_STROKE

LARGEST_MM = 3.0
SMALLEST_MM = 0.8
_ADVANCE = 0.9
"""About how wide a character is, for its height."""


def labelled(design: Design, stock: Board, machine: Machine) -> Design:
    """Board, measured thickness and machine on the piece, and its number on each part that has one."""
    # A router's tool cannot write that small: there it is for the eye only.
    operation: Operation = "score" if machine.kind == "laser" else "reference"
    about = [_plain(stock.name), say_mm(stock.readings.mean, 2), _plain(machine.name)]
    numbered = [part for part in design.parts if part.id[-1].isdigit()]
    if len(numbered) == len(design.parts):  # a row: a word each, upright
        words = {part.id: text for part, text in zip(design.parts, about, strict=False)}
    else:
        words = {design.parts[0].id: " ".join(about)}
    return replace(design, parts=tuple(_part(part, words.get(part.id, ""), operation) for part in design.parts))


def _part(part: Part, words: str, operation: Operation) -> Part:
    names = {"thickness": 0.0}
    blank = part.blank
    assert blank, "a test piece starts from a rectangle"
    assert isinstance(blank.shape, Rectangle)
    width, height = blank.shape.width.mm(names), blank.shape.height.mm(names)
    _, _, number = part.id.partition("-")
    marks = []
    if number:
        size = min(LARGEST_MM, width * 0.35)
        marks.append(_text("number", number, width / 2, 1.5, size, operation, centred=True))
    for slot in [step for step in part.steps if step.id.startswith("slot-")]:
        assert isinstance(slot, ShapeStep)
        assert isinstance(slot.shape, Rectangle)
        middle = slot.x.mm(names) + slot.shape.width.mm(names) / 2
        above = f"{slot.shape.height.text} + 2"
        marks.append(_text(f"number-{slot.id}", slot.id[5:], middle, above, LARGEST_MM, operation, centred=True))
    if words and number:
        room, across = height - 9, min(LARGEST_MM, width * 0.35)
        size = _size(words, room, across)
        marks.append(_text("about", words, width / 2 + size / 2, 7, size, operation, angle=90))
    elif words:
        size = _size(words, width - 4, LARGEST_MM)
        # From the upper edge, which is plain on every test piece; its height may follow the thickness.
        up = f"{blank.shape.height.text} - {size + 1.5:.3f}"
        marks.append(_text("about", words, 2, up, size, operation))
    return replace(part, steps=(*part.steps, *marks))


def _size(words: str, room: float, largest: float) -> float:
    return max(min(largest, room / (_ADVANCE * len(words))), SMALLEST_MM)


def _text(
    mark_id: str,
    words: str,
    x: float,
    y: float | str,
    height: float,
    operation: Operation,
    *,
    angle: float = 0,
    centred: bool = False,
) -> ShapeStep:
    up = y if isinstance(y, str) else f"{y:.3f}"
    shape = Lettering(words, Length(f"{height:.3f}"), SINGLE_STROKE, "middle" if centred else "left")
    return ShapeStep(mark_id, shape, "mark", operation, Length(f"{x:.3f}"), Length(up), turn=amount(angle))


def _plain(words: str) -> str:
    """Letters that any lettering has.

    >>> _plain("Étuis, 3 mm")
    'Etuis, 3 mm'
    """
    return unicodedata.normalize("NFKD", words).encode("ascii", "ignore").decode().strip() or "?"
