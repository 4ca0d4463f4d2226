"""What a proof says: parts and joints as measured, findings, and a verdict that says no more than was looked at."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import TYPE_CHECKING, Literal

from ..formats.read_file import ReadFile
from ..geometry import Point
from ..ground.findings import Finding
from ..ground.operations import Operation
from .compare import Kept, Run

if TYPE_CHECKING:
    import shapely

    from .close_up import CloseUp
    from .tested import Tested

Verdict = Literal["fits", "does-not-fit", "as-far-as-seen"]

NOT_LOOKED_AT = (
    "how deep anything is cut: depths are stated, not swept",
    "the way that a part takes to its place, beyond the push of its joints",
    "warp, and how the board moves while it is cut",
    "scorching, char and tear-out",
)
"""What no reading of a flat file can see."""


@dataclass(frozen=True)
class Face:
    """What was read of one face of a sheet, joined where it is in several files; `operations` are those that the files are for."""

    file: ReadFile
    operations: frozenset[Operation]


@dataclass(frozen=True)
class Given:
    """What was read of a sheet; None for a face that no file was given of."""

    front: Face | None = None
    back: Face | None = None


@dataclass(frozen=True)
class PartProof:
    """One finished piece. `edge` and the corners are its worst distances from nominal in mm, None if there is none; `runs` and
    `kept` are where, on the sheet."""

    part: str
    copy: int
    sheet: int
    edge: float | None
    corner: float | None
    inside_corner: float | None
    ok: bool
    runs: tuple[Run, ...] = ()
    kept: tuple[Kept, ...] = ()


@dataclass(frozen=True)
class MateProof:
    """A mate over all its contacts as cut; `proud` is how far what stands through a board stands out of its face for the
    thinnest, mean and thickest reading (negative: it falls short). None: it could not be measured."""

    mate: str
    wanted: float
    clearance: tuple[float, float] | None
    proud: tuple[float, float, float] | None
    ok: bool


@dataclass(frozen=True)
class Said:
    """A proof in short, as it may be kept: `things` are how many there are to look at, a doubtful kerf (`doubted`)
    among them."""

    verdict: Verdict
    provided: str
    sentence: str
    things: int
    doubted: bool


@dataclass(frozen=True)
class Proof:
    """`pieces` are the finished shapes by sheet number, where they lie on it; `provided` what the verdict rests on that
    nobody measured, "" for nothing; `tested` is what was looked at and how. `close_ups` are of a corner of each part and of the
    findings' places; `as_cut` are the rings of finished parts, outline first, each flat in its own frame."""

    parts: tuple[PartProof, ...]
    mates: tuple[MateProof, ...]
    findings: tuple[Finding, ...]
    pieces: Mapping[int, tuple[shapely.Geometry, ...]]
    provided: str = ""
    tested: tuple[Tested, ...] = ()
    close_ups: tuple[CloseUp, ...] = ()
    as_cut: Mapping[str, tuple[tuple[Point, ...], ...]] = field(default_factory=dict)

    @property
    def verdict(self) -> Verdict:
        return self.said.verdict

    @property
    def fits(self) -> bool:
        return self.verdict == "fits"

    @property
    def sentence(self) -> str:
        return self.said.sentence

    @cached_property
    def said(self) -> Said:
        return said_of(self.findings, self.provided, measured=bool(self.parts))


_WORDS: dict[Verdict, str] = {
    "fits": "Fits",
    "does-not-fit": "Does not fit as it is",
    "as-far-as-seen": "Fits as far as seen",
}


def said_of(findings: Sequence[Finding], provided: str, *, measured: bool) -> Said:
    """The verdict of some findings, in words: "Fits, if the kerf is 0.14 mm (typed in, not measured)". Where nothing was
    `measured`, nothing is claimed."""
    severities = {finding.severity for finding in findings}
    verdict: Verdict = "fits"
    if "stop" in severities:
        verdict = "does-not-fit"
    elif "unseen" in severities or not measured:
        verdict = "as-far-as-seen"
    sentence = _WORDS[verdict] if measured or verdict == "does-not-fit" else "Nothing was measured"
    if provided and measured and verdict != "does-not-fit":
        sentence += f", if {provided}"
    doubted = any(finding.code == "kerf-doubt" for finding in findings)
    return Said(verdict, provided, sentence, len(findings), doubted)
