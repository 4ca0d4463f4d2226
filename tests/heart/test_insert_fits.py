"""What is told of a fit is what its readings say."""

from dataclasses import replace

import pytest
from conftest import make_board
from lean_notch.basis import Basis, Readings
from lean_notch.job import Job, compute
from lean_notch.making import joint_fits
from lean_notch.proof.interference import gap_of
from lean_notch.recipes import RECIPES


def test_an_inserts_fit_spans_what_its_loupe_shows():
    """A tab in its slot is as wide as the kerf is sure; the board in the same slot is as thick as it was measured."""
    design = RECIPES["framed-stand"].design("Viewer", {"insert": "40"}, "mm")
    sides = make_board((3.05, 3.06, 3.07))
    acrylic = replace(sides.stock, kind="acrylic", nominal=4.0, readings=Readings((3.90, 3.92, 3.91, 3.95, 3.92)))
    boards = {"main": sides, "inserts": replace(sides, stock=acrylic, clearance=0.06)}
    job = Job(design, Basis(tuple(boards.items())))
    built = compute(job).build
    fits = {fit.mate: fit.fit for fit in joint_fits(built.parts, built.mates, job.basis)}
    inserts = [mate for mate in built.mates if mate.id.startswith("insert")]
    assert inserts
    for mate in inserts:
        gap = gap_of(mate, built, job.basis)
        assert (fits[mate.id].low, fits[mate.id].high) == pytest.approx((gap.thick, gap.thin)), mate.id
        assert (gap.thick, gap.thin) == pytest.approx((0.03, 0.08))
