"""A file that was written before against what would be written today: in, the bytes of both; out, sentences."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Iterator, Sequence

from ..formats.file_kinds import FORMATS
from ..formats.read_file import ReadPath
from ..geometry import Segment
from ..lengths.said import say_mm
from ..proof.marks import compare_marks
from .files import FileFormat


def differs(before: bytes, today: bytes, file_format: FileFormat) -> tuple[str, ...]:
    """What is otherwise, one sentence a layer; nothing for the same bytes. Raises UnreadableFile."""
    if before == today:
        return ()
    old, new = (FORMATS[file_format].read(data) for data in (before, today))
    said = [f"Its unit was {old.unit}, and would be {new.unit}."] if old.unit != new.unit else []
    said += _lines(_by_layer(old.paths), _by_layer(new.paths))
    return tuple(said) or ("The lines are the same; they would be written in other words.",)


_Lines = dict[str, list[Sequence[Segment]]]


def _by_layer(paths: Sequence[ReadPath]) -> _Lines:
    found: _Lines = defaultdict(list)
    for path in paths:
        found[path.layer].append(path.segments)
    return found


def _lines(old: _Lines, new: _Lines) -> Iterator[str]:
    for layer in sorted({*old, *new}):
        for astray in compare_marks({("reference", 0.0): old.get(layer, [])}, {("reference", 0.0): new.get(layer, [])}):
            if math.isinf(astray.off):
                yield f"The layer “{layer}” {'would be new' if astray.extra else 'would be left out'}."
            elif astray.off:
                yield f"On the layer “{layer}” a line would lie {say_mm(astray.off, 2)} from where it is."
            else:
                more = "more" if astray.length > 0 else "less"
                yield f"The layer “{layer}” would have {say_mm(abs(astray.length), 1)} {more} of lines."
