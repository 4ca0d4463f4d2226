"""What steps with a shape are wanted for."""

from __future__ import annotations

from ..geometry import Point
from .begun import Begun, Document, Where


def _shape(does: str, kind: str, sizes: Document, /, **values: object) -> Document:
    return {"kind": "shape", "shape": {"kind": kind, **sizes}, "does": does, **values}


def _hole(on: Where) -> Document:
    return _shape("cut", "disc", {"diameter": on.typed(min(on.size, 8))}, **on.middle)


def _holes(on: Where) -> Document:
    evenly = {"kind": "spread", "count": 5}
    return _shape("cut", "disc", {"diameter": on.typed(min(on.size, 6))}, y=on.typed(on.y), pattern=evenly)


def _rectangle(on: Where) -> Document:
    return {"width": on.typed(2 * on.size), "height": on.typed(on.size)}


def _round_middle(on: Where) -> Document:
    """A rectangle's place, so that its middle is the part's."""
    return {"x": on.typed(on.x - on.size), "y": on.typed(on.y - on.size / 2)}


def _opening(on: Where) -> Document:
    return _shape("cut", "rectangle", _rectangle(on), **_round_middle(on))


def _slot(on: Where) -> Document:
    return _shape("cut", "slot", {"length": on.typed(2 * on.size), "width": on.typed(on.size / 2)}, **on.middle)


def _pocket(on: Where) -> Document:
    place = _round_middle(on)
    return _shape("mark", "rectangle", _rectangle(on), operation="pocket", depth=on.typed(1), **place)


def _letters(on: Where, does: str, **values: object) -> Document:
    text = {"text": "Text", "height": on.typed(min(on.size, 15)), "align": "middle"}
    return _shape(does, "lettering", {**text, **values}, **on.middle)


def _lettering(on: Where) -> Document:
    return {**_letters(on, "mark"), "operation": "engrave"}


def _cut_letters(on: Where) -> Document:
    return _letters(on, "cut", font="stencil")


def _scale(on: Where) -> Document:
    x, low = on.box[0] + on.width / 4, on.box[1]
    apart = {"kind": "grid", "columns": 5, "rows": 1, "dx": on.typed(on.width / 8), "dy": on.typed(0)}
    end = {"to_x": on.typed(x), "to_y": on.typed(low + on.size)}
    return _shape("mark", "line", end, operation="score", x=on.typed(x), y=on.typed(low), pattern=apart)


def _across(on: Where, operation: str) -> Document:
    start, end = on.across
    return _shape("mark", "line", end, operation=operation, **start)


def _score(on: Where) -> Document:
    return _across(on, "score")


def _fold(on: Where) -> Document:
    return _across(on, "fold")


def _more(on: Where, kind: str, sizes: Document) -> Document:
    """Half on the part, half beyond its right end."""
    return _shape("add", kind, sizes, x=on.typed(on.box[2]), y=on.typed(on.y))


def _disc(on: Where) -> Document:
    return _more(on, "disc", {"diameter": on.typed(2 * on.size)})


def _ellipse(on: Where) -> Document:
    return _more(on, "ellipse", {"width": on.typed(3 * on.size), "height": on.typed(2 * on.size)})


def _ring(on: Where) -> Document:
    return _more(on, "ring", {"diameter": on.typed(2 * on.size), "inside": on.typed(on.size)})


def _polygon(on: Where) -> Document:
    return _more(on, "polygon", {"sides": 6, "across": on.typed(2 * on.size)})


def _material(on: Where) -> Document:
    place = {"x": on.typed(on.box[2] - on.size), "y": on.typed(on.y - on.size / 2)}
    return _shape("add", "rectangle", _rectangle(on), **place)


def _inside(on: Where) -> Document:
    return _shape("keep", "disc", {"diameter": on.typed(max(on.width, on.height))}, **on.middle)


def _outline(on: Where) -> Document:
    corners: tuple[Point, ...] = ((-on.size, -on.size / 2), (on.size, -on.size / 2), (0.0, on.size / 2))
    nodes = [{"id": f"n{i}", "x": on.typed(on.x + x), "y": on.typed(on.y + y)} for i, (x, y) in enumerate(corners, 1)]
    return _shape("cut", "outline", {"nodes": nodes})


def _file(on: Where) -> Document:
    return _shape("cut", "imported", {"file": on.other})


def _part(on: Where) -> Document:
    return _shape("cut", "part", {"part": on.other})


BEGINS = (
    Begun("hole", "A hole", _hole),
    Begun("holes", "A row of holes, evenly spread", _holes),
    Begun("opening", "An opening", _opening),
    Begun("slot", "A slot with round ends", _slot),
    Begun("pocket", "A pocket", _pocket),
    Begun("lettering", "Lettering", _lettering),
    Begun("letters", "Letters to cut through, held by bridges", _cut_letters),
    Begun("scale", "A scale: lines to score, evenly apart", _scale),
    Begun("score", "A line to score", _score),
    Begun("fold", "A line to fold", _fold),
    Begun("round", "More material, round", _disc),
    Begun("ellipse", "More material, an ellipse", _ellipse),
    Begun("ring", "More material, a ring", _ring),
    Begun("polygon", "More material, a regular polygon", _polygon),
    Begun("more", "More material, a rectangle", _material),
    Begun("inside", "Keep what lies inside", _inside),
    Begun("outline", "A free outline to cut out", _outline),
    Begun("file", "An outline from a file", _file, of="file"),
    Begun("part", "The outline of another part", _part, of="part"),
)
