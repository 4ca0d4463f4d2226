"""How much one person may ask for: each limit is checked before the work is begun, and refused with its figure.

The figures are what the machines that this runs on do in a few seconds and some hundred megabytes; see docs/benchmarks.md.
"""

from __future__ import annotations

from .elsewhere import about_to_take
from .errors import TooMuchWork

# What is brought

MOST_DRAWING_BYTES = 50_000_000
MOST_LINES = 300_000
"""Lines and arcs of a drawing, copies counted: what its checks go through in ten seconds and a gigabyte."""

MOST_ELEMENTS = 100_000
"""Elements of a drawing, copies counted."""

MOST_OPERATORS = 2_000_000
"""Of a page of PDF."""

MOST_FILES = 100
"""That a job uses."""

MOST_FILE_BYTES = 20_000_000
"""Of one file that a job uses."""

MOST_PACKED_BYTES = 60_000_000
"""Of everything in a packed job, unpacked."""

MOST_JOB_BYTES = 2_000_000
"""Of its document: forty parts with their joints take 30 kB."""

# What is designed

MOST_PARTS = 500
MOST_PLACEMENTS = 2000
MOST_JOINTS = 2000
MOST_BOARDS = 20
MOST_STEPS = 500
"""Of one part."""

MOST_NODES = 5000
"""Of one outline that is drawn."""

MOST_COPIES = 10_000
"""Of one step."""

MOST_TRACKS = 60
"""Columns or rows."""

MOST_SETS = 1000
MOST_TRIAL_PAIRS = 20
MOST_OPEN_ANSWERS = 20
"""Of a recipe of one's own."""

MOST_EDITS = 500
"""Sent at once."""

MOST_PLACED_AT_ONCE = 200
"""Steps."""

MOST_ENTRIES = 1000
"""Of a list that declares no limit of its own."""

MOST_TYPED = 200
"""Letters of a length or a number."""

# What is measured

MOST_READINGS = 100
MOST_SIZES = 50
"""Of sheets of one board."""

MOST_OFFCUTS = 200
MOST_CORNERS = 500
"""Of an off-cut."""

MOST_TOOLS = 100
MOST_KEEP_OUTS = 100

# What is computed

MOST_SEGMENTS = 60_000
"""Lines and arcs of one part, before anything is cut out of it."""

MOST_CROSSINGS = 6_000
"""Pairs of shapes of one part whose boxes overlap: each may cross."""

MOST_JOB_SEGMENTS = 250_000
"""Lines and arcs of all sheets of a job: what is planned, written, read back and proved."""


def check_part_work(segments: int, crossings: int, title: str, field: str) -> None:
    """Raises TooMuchWork at `field` for a part that would take too long to make."""
    if segments > MOST_SEGMENTS:
        raise TooMuchWork(
            f"{title} would need about {_round(segments)} lines and arcs; {MOST_SEGMENTS:,} are allowed.",
            fix="Use fewer copies, shorter lettering or a plainer outline.",
            field=field,
        )
    if crossings > MOST_CROSSINGS:
        raise TooMuchWork(
            f"In {title} about {_round(crossings)} pairs of shapes would overlap; {MOST_CROSSINGS:,} may.",
            fix="Set the copies further apart, or use fewer.",
            field=field,
        )
    about_to_take(segments * _SEGMENT_S + crossings * _CROSSING_S)


_SEGMENT_S, _CROSSING_S = 2e-5, 2e-4
"""Of processor time, roughly; see docs/benchmarks.md."""


def check_job_work(segments: int) -> None:
    """Raises TooMuchWork for a job too large to plan and prove at once."""
    if segments > MOST_JOB_SEGMENTS:
        raise TooMuchWork(
            f"The sheets of this job would hold about {_round(segments)} lines and arcs; {MOST_JOB_SEGMENTS:,} are allowed.",
            fix="Lower the quantities, or make several jobs of it.",
            field="sets",
        )


def _round(count: int) -> str:
    """
    >>> _round(412345), _round(812)
    ('410,000', '810')
    """
    return f"{float(f'{count:.2g}'):,.0f}"
