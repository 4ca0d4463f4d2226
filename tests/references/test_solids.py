"""The as-cut parts extruded and stood up, against a solid-boolean library (Manifold, by its Python package)."""

import numpy as np
import pytest
import shapely
from conftest import edited, make_basis, make_board, make_job, one_board
from hypothesis import given, settings
from hypothesis import strategies as st
from lean_notch.design import ByNumbers, Design, Part, Placement, Rectangle, ShapeStep
from lean_notch.edits import Edit
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import Job, compute
from lean_notch.lengths.length import Length
from lean_notch.making import joint_fits
from lean_notch.proof.assembly import Body, shared
from lean_notch.proof.contacts import Gauge
from solids import common, flat, solids


@settings(max_examples=8)
@given(st.floats(60, 160), st.floats(60, 120), st.floats(35, 60), st.floats(1.5, 6))
def test_with_no_clearance_and_exactly_that_board_nothing_is_in_two_places(width, depth, height, thickness):
    """As cut with a beam of 0.002: what its rounding leaves in a corner is below the limit of 1e-3 mm³."""
    basis = make_basis((thickness,), kerf=0.002, clearance=0.0, sheet=(900, 700))
    result = compute(make_job(basis, width=repr(width), depth=repr(depth), height=repr(height)))
    pieces = {}
    for sheet, shapes in prove_job(result, "dxf").pieces.items():
        placed = result.layout.on_sheet(sheet)
        for one in placed:
            middle = one.motion.region(result.build.part(one.part).region)
            piece = max(shapes, key=lambda shape, m=middle: shape.intersection(flat(m)).area)
            pieces[one.part] = shapely.transform(
                piece, lambda xy, m=one.motion: np.array([m.back((x, y)) for x, y in xy])
            )  # fmt: skip
    assert max(common(solids(result.build, pieces)).values()) < 1e-3


@pytest.mark.parametrize("thick", [0.02, 0.04])
def test_thicker_boards_share_exactly_what_proud_predicts(thick):
    """Outlines for the mean, boards `thick` thicker than it."""
    basis = make_basis((3.0,), kerf=0.0, clearance=0.0)
    job = edited(make_job(basis), *(Edit("drop", f"parts/{one}") for one in ("back", "right", "base")))
    result = compute(job)
    [mate] = result.build.mates
    shapes = {part.id: flat(part.region) for part in result.build.parts}
    volume = common(solids(result.build, shapes, 3.0 + thick))["front", "left"]
    # Wherever one has its finger, the other's board behind the socket reaches `thick` into it, as wide as that board is.
    proud = joint_fits(result.build.parts, result.build.mates, make_basis((3.0 + thick,), kerf=0.0))[0].proud[1]
    assert proud == pytest.approx(-thick)
    predicted = -proud * (3.0 + thick) * mate.meeting.length
    assert volume == pytest.approx(predicted, rel=1e-6)


def slab(name: str, pose: ByNumbers, width=40.0, height=30.0):
    shape = ShapeStep("blank", Rectangle(Length(str(width)), Length(str(height))))
    return Part(name, name, (shape,)), Placement(name, name, pose)


turns = st.floats(-180, 180).map(lambda value: round(value, 1))
places = st.floats(-25, 25).map(lambda value: round(value, 2))


@settings(max_examples=120)
@given(turns, turns, turns, places, places, places)
def test_two_boards_anywhere_share_material_where_the_library_says_so(a, b, c, x, y, z):
    """Any pose: what shares more than a few mm³ is found, what shares nothing is not."""
    pose = ByNumbers(Length(str(x)), Length(str(y)), Length(str(z)), a, b, c)
    rows = [slab("one", ByNumbers()), slab("two", pose)]
    design = Design("two", tuple(part for part, _ in rows), tuple(stands for _, stands in rows))
    built = compute(Job(design, one_board(make_board((3.0,))))).build
    bodies = [
        Body(one.placement, one.part, one.frame, one.thickness, Gauge(flat(built.part(one.part).region)))
        for one in built.standings
    ]
    solid_ones = solids(built, {part.id: flat(part.region) for part in built.parts})
    volume = (solid_ones["one"] ^ solid_ones["two"]).volume()
    found = shared(bodies[0], bodies[1])
    if volume < 0.05**3 / 6:  # the least that reaches 0.05 in every direction: a corner
        assert not found
    if volume > 15:
        assert found
        low, high = np.array((solid_ones["one"] ^ solid_ones["two"]).bounding_box()).reshape(2, 3)
        assert ((low - 0.2 <= found[0].place) & (np.array(found[0].place) <= high + 0.2)).all()
