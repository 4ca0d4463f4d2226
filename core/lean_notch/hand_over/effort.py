"""How long work will take, told before it is begun: in, what is to be done; out, seconds of processor time, roughly.

Measured on the machines this runs on (docs/benchmarks.md); within a factor of three, which is enough to tell what may be done
while somebody waits from what wants to be done beside it.
"""

from __future__ import annotations

from ..cutting import segments_of
from ..formats.file_kinds import FORMATS
from ..geometry import Circle, Ring
from ..job import PLAN_S, Result
from .files import FileFormat
from .reading import reading_seconds

QUICK_SECONDS = 0.5
"""Work that takes less may be done while the maker waits."""

_PROOF_S, _ARC_S = 7e-5, 6e-4


def proof_seconds(result: Result) -> float:
    """Of a proof of all sheets."""
    arcs = sum(part.quantity * sum(_arcs(ring) for ring in part.region.rings) for part in result.build.parts)
    return _PROOF_S * segments_of(result.build) + _ARC_S * arcs


def _arcs(ring: Ring) -> int:
    """Quarters of a circle, roughly: each becomes a hundred chords."""
    return 4 if isinstance(ring, Circle) else sum(1 for corner in ring.corners if corner.bulge)


def export_seconds(result: Result, file_format: FileFormat) -> float:
    """Of planning and writing all files."""
    return (PLAN_S + FORMATS[file_format].seconds) * segments_of(result.build)


def check_seconds(data: bytes) -> float:
    """Of reading and checking a drawing."""
    return 2 * reading_seconds(data)
