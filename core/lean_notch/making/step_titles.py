"""What a step is called where nobody named it."""

from __future__ import annotations

from ..design import (
    Step,
)


def title_of(step: Step) -> str:
    """What a step is called in sentences.

    >>> from lean_notch.design import Disc, ShapeStep
    >>> from lean_notch.lengths.length import Length
    >>> title_of(ShapeStep("hole-1", Disc(Length("8")), "cut"))
    'hole 1'
    """
    return step.title or step.id.replace("-", " ").replace("_", " ")
