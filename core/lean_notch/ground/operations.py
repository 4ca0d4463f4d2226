"""What a machine can be asked to do along a path or over an area."""

from __future__ import annotations

from typing import Literal

Operation = Literal["cut", "score", "engrave", "pocket", "fold", "reference"]

OPERATIONS: dict[Operation, str] = {
    "engrave": "Engrave an area",
    "score": "Score, not through",
    "fold": "Fold line",
    "pocket": "Pocket, to a depth",
    "cut": "Through-cut",
    "reference": "Reference only, do not cut",
}
"""In the order in which they are done: what shows before what weakens, through-cuts last. Common practice."""

Side = Literal["auto", "outside", "inside", "on"]
"""Where the middle of the beam or tool runs: beside an outline, or on it. `auto` keeps the part at its size."""

SIDES: tuple[Side, ...] = ("auto", "outside", "inside", "on")
