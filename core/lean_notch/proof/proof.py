"""What a proof says: parts and joints as measured, findings, and a verdict that says no more than was looked at."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import TYPE_CHECKING, Literal

from ..findings import Finding
from ..geometry import Point
from .compare import Kept, Run

if TYPE_CHECKING:
    import shapely

    from .close_up import CloseUp
    from .tested import Tested

Verdict = Literal["fits", "does-not-fit", "as-far-as-seen"]

NOT_LOOKED_AT = (
    "how deep anything is cut: depths are stated, not swept",
    "warp, and how the board moves while it is cut",
    "scorching, char and tear-out",
)
"""What no reading of a flat file can see."""


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
    """A proof in short, as it may be kept: `things` are how many there are to look at, a doubtful kerf (`doubted`) apart."""

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
        severities = {finding.severity for finding in self.findings}
        if "stop" in severities:
            return "does-not-fit"
        return "as-far-as-seen" if "unseen" in severities or not self.parts else "fits"

    @property
    def fits(self) -> bool:
        return self.verdict == "fits"

    @property
    def sentence(self) -> str:
        """The verdict in words: "Fits, if the kerf is 0.14 mm (typed in, not measured)"."""
        words = {"fits": "Fits", "does-not-fit": "Does not fit as it is", "as-far-as-seen": "Fits as far as seen"}
        if not self.parts and self.verdict == "as-far-as-seen":
            return "Nothing was measured"
        said = words[self.verdict]
        return f"{said}, if {self.provided}" if self.provided and self.verdict != "does-not-fit" else said

    @property
    def said(self) -> Said:
        things = sum(finding.code != "kerf-doubt" for finding in self.findings)
        return Said(self.verdict, self.provided, self.sentence, things, things < len(self.findings))
