"""The practice machine: in, a test piece's file and a seed; out, what a caliper and two hands would tell of the cut pieces.

Each seed is another machine with another board: kerf, thickness and the feel of its joints are drawn from it and hidden. The
file is cut by the as-cut sweep, which shares nothing with the kerf compensation. Ranges are common practice; all is invented.
"""

from __future__ import annotations

import math
import random
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import TYPE_CHECKING

from ..basis.comb import FEELS
from ..basis.notebook import Way
from ..basis.readings import CALIPER_MM
from ..cutting import PLAIN
from ..formats.read_file import ReadPath
from ..geometry.contour import join_boxes, spans
from ..ground.errors import UnreadableFile
from ..hand_over.reading import read_any
from ..proof.as_cut import as_cut

if TYPE_CHECKING:
    import shapely

HAND_MM = 0.012
"""How much a reading wanders with how the caliper is held and the row pushed together (standard deviation)."""

FEEL_MM = 0.004
SAME_MM = 0.2
HAIR_MM = 0.02
LEAST_AREA = 1.0
"""In mm²: what the sweep leaves in corners is no slot."""

THICKNESS_PLACES = 5
ROW_READINGS = 5


@dataclass(frozen=True)
class PracticeCut:
    """What is measured of one cut, in mm: the board in five places; then the row of slats, or hole and plug, or how each
    pair of a comb felt, tightest first."""

    way: Way
    thickness: tuple[float, ...]
    row: tuple[float, ...] = ()
    hole: tuple[float, ...] = ()
    plug: tuple[float, ...] = ()
    answers: tuple[str, ...] = ()


@dataclass(frozen=True)
class Truth:
    """What a practice machine keeps to itself: its kerf, how thick its board is on the whole, and the four limits of
    clearance between its five feels, all in mm."""

    kerf: float
    board: float
    limits: tuple[float, ...]


@dataclass(frozen=True)
class Practice:
    """A practice machine and its board. `tool` is the diameter in a router's spindle, None for a laser; the board is
    sold as `nominal` mm."""

    seed: int
    nominal: float = 3.0
    tool: float | None = None
    truth: Truth = field(init=False, repr=False)

    def __post_init__(self) -> None:
        draw = random.Random(f"machine {self.seed} {'laser' if self.tool is None else 'router'}")
        kerf = draw.uniform(0.09, 0.24) if self.tool is None else self.tool + draw.uniform(-0.03, 0.12)
        board = self.nominal * draw.uniform(0.95, 1.04)
        press = draw.uniform(-0.02, 0.01)
        holds = press + draw.uniform(0.08, 0.12)
        slides = holds + draw.uniform(0.09, 0.16)
        limits = (press - draw.uniform(0.06, 0.1), press, holds, slides)
        object.__setattr__(self, "truth", Truth(kerf, board, limits))

    def cut(self, data: bytes, name: str) -> PracticeCut:
        """What the test piece in a file measures once it is cut. Raises UnreadableFile for a file that holds none."""
        cuts = [path for path in read_any(data, name).paths if path.closed and PLAIN.operation_of(path.layer) == "cut"]
        if not cuts:
            raise UnreadableFile(
                f"{name} has no closed outline on a layer “cut”.",
                fix="Use a test piece as `lean-notch test-piece` or the kerf notebook writes it.",
            )
        hand = random.Random(f"hand {self.seed} {len(data)}")
        pieces = [piece.finished for piece in as_cut(cuts, self.truth.kerf) if not piece.finished.is_empty]
        dropped = [piece.finished for piece in as_cut(_inner(cuts), self.truth.kerf) if not piece.finished.is_empty]
        thickness = self._board(hand)
        if dropped and len(pieces) == 1:
            hole = [span for ring in pieces[0].interiors for span in spans(ring.bounds)]
            plug = spans(dropped[0].bounds)
            return PracticeCut(
                "plug", thickness, hole=self._read([*hole, hole[0]], hand), plug=self._read([*plug, plug[0]], hand)
            )
        widths = [spans(piece.bounds) for piece in pieces]
        if len(pieces) > 1 and all(math.dist(a, widths[0]) < SAME_MM for a in widths):
            row = math.fsum(width for width, _ in widths)
            return PracticeCut("slats", thickness, row=self._read([row] * ROW_READINGS, hand))
        clearances = _comb(pieces)
        if not clearances:
            raise UnreadableFile(
                f"{name} is no test piece that this machine knows: neither slats, nor plug and hole, nor comb and keys.",
                fix="Write one with `lean-notch test-piece`, or in the kerf notebook.",
            )
        return PracticeCut("comb", thickness, answers=tuple(self._feel(room, hand) for room in clearances))

    def _board(self, hand: random.Random) -> tuple[float, ...]:
        """A board is thicker at one end, and wavy."""
        draw = random.Random(f"board {self.seed}")
        tilt, wave, turn = draw.uniform(-0.012, 0.012), draw.uniform(0, 0.006), draw.uniform(0, math.tau)
        places = [i / (THICKNESS_PLACES - 1) for i in range(THICKNESS_PLACES)]
        true = [self.truth.board * (1 + tilt * (x - 0.5) + wave * math.sin(math.tau * x + turn)) for x in places]
        return self._read(true, hand)

    def _read(self, true: Sequence[float], hand: random.Random) -> tuple[float, ...]:
        return tuple(round(round(hand.gauss(value, HAND_MM) / CALIPER_MM) * CALIPER_MM, 4) for value in true)

    def _feel(self, clearance: float, hand: random.Random) -> str:
        felt = hand.gauss(clearance, FEEL_MM)
        return FEELS[sum(felt > limit for limit in self.truth.limits)]


def _inner(cuts: Sequence[ReadPath]) -> list[ReadPath]:
    """The outlines that lie inside another: what they go round drops out."""
    boxes = [join_boxes(segment.box for segment in path.segments) for path in cuts]
    return [
        path
        for path, (a, b, c, d) in zip(cuts, boxes, strict=True)
        if any(left < a and low < b and right > c and high > d for left, low, right, high in boxes)
    ]


def _comb(pieces: Sequence[shapely.Polygon]) -> list[float]:
    """The room of each key in its slot, tightest first; empty if these are no comb and its keys."""
    import shapely

    if len(pieces) < 3:
        return []
    comb, *keys = sorted(pieces, key=lambda piece: -piece.area)
    # A hair inside its bounds: the sweep leaves edges straight to a micrometre, not better.
    left, low, right, high = comb.bounds
    within = shapely.box(left + HAIR_MM, low + HAIR_MM, right - HAIR_MM, high - HAIR_MM)
    slots = [slot for slot in shapely.get_parts(within.difference(comb)) if slot.area > LEAST_AREA]
    if len(slots) != len(keys):
        return []
    key = math.fsum(spans(piece.bounds)[0] for piece in keys) / len(keys)
    return sorted(_width(slot) - key for slot in slots)


def _width(slot: shapely.Polygon) -> float:
    import shapely

    left, low, right, high = slot.bounds
    middle = (low + high) / 2
    return float(slot.intersection(shapely.LineString([(left - 1, middle), (right + 1, middle)])).length)
