"""What shows on the back's file where the turned sheet has to lie: its outline and the corner it started from, none of it cut."""

from __future__ import annotations

from collections.abc import Iterator

from ..geometry import Motion, Trace, Vertex, mirror, rectangle
from ..lettering import SINGLE_STROKE, lettered
from ..nesting.problem import TurnedAbout
from .paths import CutPath

REGISTERING = "sheet-edge"
"""How what is drawn to register a sheet is named, beside a number."""

_LEG_MM = 20.0
_INSET_MM = 3.0
_WORDS_MM = 4.0
_SMALLEST_WORDS_MM = 1.0


def turned_over(width: float, height: float, about: TurnedAbout) -> Motion:
    """Where a sheet's places come to lie when it is turned over about an edge and pushed back to where it lay."""
    return mirror((width / 2, height / 2), 90.0 if about == "left" else 0.0)


def registering(number: int, width: float, height: float, about: TurnedAbout) -> Iterator[CutPath]:
    """Of the back of sheet `number`: the edge of the board all round, and an angle with words in the corner where the front's
    lower left comes to lie once the sheet is turned over about its left or bottom edge: lower right, or upper left.
    """
    yield CutPath(f"{REGISTERING}-1", "edge of the sheet", "reference", rectangle(0, 0, width, height))
    right, top = about == "left", about == "bottom"
    x, y = (width - _INSET_MM if right else _INSET_MM), (height - _INSET_MM if top else _INSET_MM)
    leg = min(_LEG_MM, width / 3, height / 3)
    corner = ((x + (-leg if right else leg), y), (x, y), (x, y + (-leg if top else leg)))
    yield _line(2, corner)
    told = (f"back of sheet {number}, turned over about its {about} edge", "this corner is the lower left of the front")
    wide = max(lettered(line, SINGLE_STROKE, _WORDS_MM).width for line in told)
    size = min(_WORDS_MM, _WORDS_MM * (width - 4 * _INSET_MM) / wide, (height - 4 * _INSET_MM) / 4)
    if size < _SMALLEST_WORDS_MM:
        return
    count = 2
    for line, words in enumerate(told):
        at_x = x + (-_INSET_MM if right else _INSET_MM)
        at_y = y - _INSET_MM - size * (1 + 1.6 * line) if top else y + _INSET_MM + size * 1.6 * (1 - line)
        for stroke in lettered(words, SINGLE_STROKE, size, "right" if right else "left").strokes:
            count += 1
            yield _line(count, tuple((px + at_x, py + at_y) for px, py in stroke))


def _line(count: int, places: tuple[tuple[float, float], ...]) -> CutPath:
    line = Trace(tuple(Vertex(*place) for place in places))
    return CutPath(f"{REGISTERING}-{count}", "where the sheet lies", "reference", line)
