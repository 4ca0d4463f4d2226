"""A divided case of 12 x 8 places, 23 parts with 121 mates. Asked for: from an edit to flat parts and figures under 100 ms of
processor time, interference of 40 parts under 2 s at each thickness. Figures are printed, and are no pass or fail."""

from __future__ import annotations

from joined import made
from lean_notch.edits import Edit, edit_job
from lean_notch.job import compute
from lean_notch.proof.interference import LEVELS, interference
from lean_notch.told.ledger import ledger

BIG = {"columns": "repeat(12, 1fr)", "rows": "repeat(8, 1fr)", "width": "420", "depth": "300"}


def test_a_divided_case_of_96_places_anew(benchmark):
    job = made("divided-case", BIG).job
    widths = iter(range(421, 600))

    def anew():
        result = compute(edit_job(job, [Edit("put", "answers/width", str(next(widths)))]))
        return ledger(result)

    benchmark.pedantic(anew, rounds=15)


def test_interference_of_forty_parts_at_three_thicknesses(benchmark):
    """19 x 19 walls of a set: 38 parts that cross 361 times."""
    walls = {"columns": "repeat(20, 1fr)", "rows": "repeat(20, 1fr)", "width": "500", "depth": "500"}
    widths = iter(range(501, 600))

    def fresh():
        result = made("divider-set", {**walls, "width": str(next(widths))})
        return (result,), {}

    benchmark.pedantic(
        lambda result: [interference(result.build, result.job.basis, level) for level in LEVELS], setup=fresh, rounds=8
    )
