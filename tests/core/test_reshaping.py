"""A step that becomes another shape stays where it is, as large. Outside check: boxes by shapely."""

import pytest
import shapely
from lean_notch.acts.reshaping import RESHAPED, reshaped
from lean_notch.edits import edit_job
from lean_notch.geometry import loops
from lean_notch.ground.errors import NotchError
from lean_notch.job import compute
from plates import plate

KINDS = [one.kind for one in RESHAPED]


def opening(shape, **more):
    return {"kind": "shape", "id": "opening", "does": "cut", "shape": shape, **more}


def box_of(job):
    """Of the opening, as the part has it."""
    [hole] = [
        shapely.Polygon(inner)
        for inner in shapely.Polygon(*loops(compute(job).build.part("plate").region, 0.001)).interiors
    ]
    return hole.bounds


@pytest.mark.parametrize("to", KINDS)
@pytest.mark.parametrize("turn", ["0", "30"])
@pytest.mark.parametrize("scale", ["1", "1/2"])
def test_it_stays_about_its_middle(to, turn, scale):
    before = plate(
        opening({"kind": "rectangle", "width": "24", "height": "12"}, x="20", y="15", turn=turn, scale=scale)
    )
    after = edit_job(before, reshaped(compute(before), "plate", "opening", to))
    assert after.design.part("plate").step("opening").shape.kind == to
    middles = [((a + c) / 2, (b + d) / 2) for a, b, c, d in map(box_of, (before, after))]
    off = 24 * (1 - 0.866) / 2 if to == "polygon" else 0  # a hexagon's flats lie across, its corners stand out evenly
    assert middles[0] == pytest.approx(middles[1], abs=0.01 + off)
    back = edit_job(after, reshaped(compute(after), "plate", "opening", "rectangle"))
    assert ((box_of(back)[0] + box_of(back)[2]) / 2) == pytest.approx(middles[0][0], abs=0.01)


def test_arithmetic_and_units_stay():
    job = plate(
        opening(
            {"kind": "rectangle", "width": {"text": "1/2", "unit": "in"}, "height": "thickness + 9"}, x="20", y="15"
        )
    )
    after = edit_job(job, reshaped(compute(job), "plate", "opening", "ellipse"))
    shape = after.design.part("plate").step("opening").shape
    assert (shape.width.text, shape.width.unit, shape.height.text) == ("1/2", "in", "thickness + 9")


def test_counted_from_an_edge_what_is_nearest_to_it_stays():
    job = plate(opening({"kind": "rectangle", "width": "24", "height": "12"}, x="10", y="10",
                        from_x="edge:blank.left", from_y="edge:blank.bottom"))  # fmt: skip
    after = edit_job(job, reshaped(compute(job), "plate", "opening", "slot"))
    assert box_of(after) == pytest.approx((10, 10, 34, 22), abs=0.01)


@pytest.mark.parametrize("to", ["lettering", "outline", "", "disc; drop"])
def test_what_is_not_given_by_sizes_is_refused(to):
    job = plate(opening({"kind": "disc", "diameter": "12"}, x="30", y="30"))
    for step in ("opening", "gone"):
        with pytest.raises(NotchError) as caught:
            reshaped(compute(job), "plate", step, to)
        assert caught.value.fix


def test_a_corner_that_something_is_measured_from_is_named_when_it_is_gone():
    mark = {"kind": "shape", "id": "hole", "does": "cut", "shape": {"kind": "disc", "diameter": "4"}, "x": "8", "y": "4",
            "from_x": "corner:opening.bottom-left"}  # fmt: skip
    job = plate(opening({"kind": "rectangle", "width": "24", "height": "12"}, x="20", y="15"), mark)
    after = edit_job(job, reshaped(compute(job), "plate", "opening", "disc"))
    assert compute(after).build.part("plate").failed.step == "hole"
