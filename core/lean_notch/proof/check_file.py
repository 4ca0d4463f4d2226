"""The checks of a drawing that came from anywhere: in, what a reader found in it; out, sizes, counts and findings.

Nothing is known of the job it is for. Every check looks at the lines themselves, in mm, whatever drew them.
"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from ..formats.read_file import ReadFile
from ..geometry import Box
from ..geometry.contour import FURTHEST_MM
from ..ground.findings import Finding, shortened
from ..ground.progress import Tell, untold
from ..lengths.said import say_mm
from ..lengths.units import MM_PER_INCH
from .check_ends import no_length, open_ends
from .check_lines import chords, too_close, twice_and_crossing
from .drawing import Drawing, finding

CLOSE_CUTS_MM = 1.0
"""Between cuts nearer than this the web burns or breaks. Common practice; thicker stock wants more."""

THINNEST_STROKE_MM = 0.02
MOST_OF_A_KIND = 20
"""Findings of one kind beyond this are counted, not listed."""


@dataclass(frozen=True)
class LayerCount:
    """What a layer holds: paths, closed ones among them, nodes, and the length of all its lines in mm."""

    layer: str
    paths: int
    closed: int
    nodes: int
    length: float


@dataclass(frozen=True)
class FileReport:
    """`box` is the extent of all lines in mm, None for a file without any; `unit` is "" where the file names none."""

    unit: str
    page: tuple[float, float] | None
    box: Box | None
    layers: tuple[LayerCount, ...]
    findings: tuple[Finding, ...]

    @property
    def sound(self) -> bool:
        """Whether nothing was found that is to be stopped for, and nothing was left out."""
        return not any(finding.severity in ("stop", "unseen") for finding in self.findings)


def check_file(file: ReadFile, close_mm: float = CLOSE_CUTS_MM, tell: Tell = untold) -> FileReport:
    """All that a receiver would complain about, each with its place and its mend."""
    tell(0.2, "looking at ends and sizes")
    drawing = Drawing(file.paths)
    findings = [*_units(file, drawing), *_far(drawing), *_strange(file), *open_ends(drawing), *no_length(drawing)]
    tell(0.4, "looking for doubles and crossings")
    findings += twice_and_crossing(drawing)
    tell(0.7, "looking for what is too close")
    findings += [*chords(drawing), *_looks(file), *too_close(drawing, close_mm)]
    page = (file.width, file.height) if file.width and file.height else None
    return FileReport(file.unit, page, drawing.box, tuple(_counts(drawing)), tuple(shortened(findings, MOST_OF_A_KIND)))


def _counts(drawing: Drawing) -> Iterator[LayerCount]:
    lengths = np.bincount(drawing.path, drawing.segments.length, minlength=len(drawing.paths))
    by_layer: dict[str, list[int]] = defaultdict(list)
    for number, path in enumerate(drawing.paths):
        by_layer[path.layer].append(number)
    for layer, numbers in sorted(by_layer.items()):
        mine = [drawing.paths[n] for n in numbers]
        nodes = sum(len(path.segments) + (not path.closed) for path in mine)
        yield LayerCount(layer, len(mine), sum(path.closed for path in mine), nodes, float(lengths[numbers].sum()))


def _units(file: ReadFile, drawing: Drawing) -> Iterator[Finding]:
    if drawing.box is None:
        if drawing.far:
            return
        yield finding(
            "empty", "stop", "The file holds no lines.",
            "Export it again; check that the layers with the outlines are switched on.", None,
        )  # fmt: skip
        return
    if not file.assumed:
        return
    left, low, right, high = drawing.box
    width, height = right - left, high - low
    if file.assumed == "mm":
        guesses = f"{say_mm(width * MM_PER_INCH, 1)} x {say_mm(height * MM_PER_INCH, 1)} if it was drawn in inches"
    else:
        guesses = f"{say_mm(width * 96 / 72, 1)} x {say_mm(height * 96 / 72, 1)} if 72 units are an inch"
    yield finding(
        "no-unit", "stop",
        f"The file does not say its unit. Taken as {file.assumed}, the drawing is {say_mm(width, 1)} x "
        f"{say_mm(height, 1)}; it is {guesses}.",
        "Ask what it should measure, and export it with its size in mm.", (left, low), max(width, height),
    )  # fmt: skip


def _far(drawing: Drawing) -> Iterator[Finding]:
    for path in drawing.far:
        yield finding(
            "far-away", "stop", f"Path {drawing.name(path)} reaches further than {say_mm(FURTHEST_MM, 0)} from the origin.",
            "Look at its numbers: a unit or a decimal point has slipped.", None,
        )  # fmt: skip


def _strange(file: ReadFile) -> Iterator[Finding]:
    for text in file.texts:
        yield finding(
            "text", "stop", f"“{text.text[:40]}” is still text: it may turn into another font, or into nothing.",
            "Turn text into outlines before handing it over.", text.place,
        )  # fmt: skip
    for place in file.points:
        yield finding("stray-point", "look", "There is a stray point in the drawing.", "Delete it.", place)
    for layer in file.hidden:
        yield finding(
            "hidden-layer", "look", f"The layer “{layer}” is switched off or frozen: what is on it was not looked at.",
            "Switch it on, or delete it.", None,
        )  # fmt: skip
    for kind in file.unread:
        yield finding(
            "not-an-outline", "look", f"The file also contains {kind}, which cannot be cut.", "Remove it.", None
        )
    for what in file.unheeded:
        yield finding(
            "drawn-otherwise", "unseen", f"The file has {what}: another program may draw it otherwise than it was read here.",
            "Apply it to the lines and take it away.", None,
        )  # fmt: skip


def _looks(file: ReadFile) -> Iterator[Finding]:
    filled: dict[str, list[int]] = defaultdict(list)
    unseen: dict[str, list[int]] = defaultdict(list)
    for number, path in enumerate(file.paths):
        if path.filled:
            filled[path.layer].append(number)
        elif path.stroke_mm is not None and path.stroke_mm < THINNEST_STROKE_MM:
            unseen[path.layer].append(number)
    for code, rows, what, fix in (
        ("filled", filled, "filled", "Remove the fill, unless the area is to be engraved: a laser may engrave it, or skip its outline."),
        ("invisible", unseen, "drawn without a line that can be seen", "Delete what is not meant, or give it a line of 0.1 mm."),
    ):  # fmt: skip
        for layer, some in rows.items():
            count = f"{len(some)} paths" if len(some) > 1 else "A path"
            where = f" on the layer “{layer}”" if layer else ""
            are = "are" if len(some) > 1 else "is"
            yield finding(
                code, "look", f"{count}{where} {are} {what}.", fix, file.paths[some[0]].segments[0].start, len(some)
            )
