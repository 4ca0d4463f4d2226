"""How much work one request may ask for: counted before it is begun, refused with its figures.

The figures are what the machines that this runs on do in a few seconds and some hundred megabytes; see docs/benchmarks.md.
"""

from __future__ import annotations

from .errors import TooMuchWork

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
