"""What a step is called where nobody named it."""

from __future__ import annotations

from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from .kind import StepKind


def title_of(step: StepKind) -> str:
    """What a step is called in sentences.

    >>> from lean_notch.steps import Disc, ShapeStep
    >>> from lean_notch.lengths.length import Length
    >>> title_of(ShapeStep("hole-1", Disc(Length("8")), "cut"))
    'hole 1'
    """
    return step.title or step.id.replace("-", " ").replace("_", " ")
