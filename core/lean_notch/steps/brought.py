"""Outlines that come from a file."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING

from ..geometry import (
    Region,
)
from ..geometry.transform import scaled_region
from ..ground.errors import MissingInput
from ..ground.findings import Finding, Mend
from ..ground.wording import counted
from ..lengths.length import positive_mm
from .carve import box_of_all
from .drawing import LARGEST_MM
from .shapes import Imported
from .titles import title_of

if TYPE_CHECKING:
    from .shape import ShapeStep


@dataclass(frozen=True)
class Brought:
    """What a file gives: its closed outlines as regions, how many outlines those have, what was `left` out, in words, and as what
    unit it was taken where neither it nor the step says one."""

    regions: tuple[Region, ...]
    kept: int
    left: tuple[str, ...] = ()
    assumed: str = ""


Outlines = Callable[[Imported], Brought]
"""What a file that a job keeps gives. Raises NotchError for one that is not there or cannot be read."""


def no_files(wanted: Imported) -> Brought:
    """The outlines of a job that keeps no file."""
    raise MissingInput(
        f"The file {wanted.file[:12]} is not kept with this job.", fix="Add the file again.", field="shape/file"
    )


def said_of_file(brought: Brought) -> str:
    """What came of a file, under its step."""
    kept = f"Kept: {counted(brought.kept, 'closed outline')}."
    return f"{kept} Left out: {', '.join(brought.left)}." if brought.left else kept


def findings_of_file(part: str, title: str, step: ShapeStep, brought: Brought) -> Iterator[Finding]:
    path = f"parts/{part}/steps/{step.id}/shape"
    if brought.left:
        yield Finding(
            "file-left-out", "unseen", f"Of the file of {title_of(step)} not all is in {title}: {', '.join(brought.left)}.",
            "Close its outlines and turn text into outlines, or choose the layers that are meant.", part, field=f"{path}/layers",
        )  # fmt: skip
    if brought.assumed:
        yield Finding(
            "file-no-unit", "stop", f"The file of {title_of(step)} does not say its unit; it was taken as {brought.assumed}.",
            "Say which unit it is in, or type how wide it is.", part, field=f"{path}/unit",
            mend=Mend("Take it as mm", f"{path}/unit", "mm"),
        )  # fmt: skip


def as_wide(regions: Sequence[Region], width: float | None) -> Sequence[Region]:
    """All of it made larger or smaller alike, so that it is `width` wide."""
    if width is None:
        return regions
    positive_mm(width, "shape/width", "The width", LARGEST_MM)
    left, _, right, _ = box_of_all(regions)
    return tuple(scaled_region(region, width / (right - left)) for region in regions)
