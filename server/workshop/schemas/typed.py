"""What the border takes as it is typed, and choices that several parts of it share."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from lean_notch.documents.plain import in_unit
from lean_notch.lengths.units import Unit
from pydantic import Field

LengthIn = float | Annotated[str, Field(max_length=200)]


NumberIn = float | Annotated[str, Field(max_length=20)] | None


Operation = Literal["cut", "score", "engrave", "pocket", "fold", "reference"]


def typed_in_unit(document: dict[str, Any], unit: Unit, lengths: tuple[str, ...]) -> dict[str, Any]:
    """The document with the texts among `lengths` said to be typed in `unit`."""
    return {**document, **{name: in_unit(document[name], unit) for name in lengths if name in document}}
