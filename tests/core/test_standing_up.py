"""Standing parts up by hand: what is cut stays as many, and nothing stands in another."""

import itertools

import pytest
from lean_notch.acts.standing_up import stood_up
from lean_notch.design import Against
from lean_notch.edits import Edit, edit_job
from lean_notch.ground.errors import MissingInput
from lean_notch.job import compute
from plates import plate, rectangle


def boxes(job):
    return [one.box for one in compute(job).build.standings]


def apart(one, other):
    (a, b), (c, d) = one, other
    return any(b[i] <= c[i] or d[i] <= a[i] for i in range(3))


def quantity(job, part="plate"):
    return compute(job).build.part(part).quantity


def test_a_part_that_is_stood_up_is_cut_as_often_as_before():
    """The doubled part: the loose copy that a new part begins with stayed, and every part that was stood up was cut twice."""
    job = plate()
    assert quantity(job) == 1
    stood = edit_job(job, stood_up(compute(job), "plate"))
    assert (quantity(stood), len(stood.design.placements)) == (1, 1)
    one_more = edit_job(stood, stood_up(compute(stood), "plate"))
    assert (quantity(one_more), len(one_more.design.placements)) == (2, 2)


def test_what_is_stood_up_stands_beside_what_stands_already():
    other = {"id": "shelf", "title": "Shelf", "loose": 2, "steps": [rectangle("blank", 80, 40)]}
    job = plate(parts=(other,))
    for part in ("plate", "shelf", "plate", "shelf", "shelf"):
        job = edit_job(job, stood_up(compute(job), part))
    assert len(boxes(job)) == 5
    assert all(apart(one, two) for one, two in itertools.combinations(boxes(job), 2))
    assert quantity(job, "shelf") == 3


@pytest.mark.parametrize("angle", [90, -90, 180, 45])
def test_one_more_against_an_edge_stays_turned_and_stands_clear(angle):
    job = edit_job(plate(parts=({"id": "side", "title": "Side", "loose": 1, "steps": [rectangle("blank", 100, 30)]},)),
                   stood_up(compute(plate()), "plate"))  # fmt: skip
    pose = {
        "kind": "against",
        "edge": "blank.bottom",
        "placement": "plate-1",
        "other_edge": "blank.bottom",
        "angle": angle,
    }
    job = edit_job(job, [Edit("put", "placements/side-1", {"part": "side", "pose": pose})])
    more = edit_job(job, stood_up(compute(job), "side"))
    first, second = (one for one in compute(more).build.standings if one.part == "side")
    assert isinstance(more.design.placements[-1].pose, Against)
    assert (first.u, first.v) == (pytest.approx(second.u), pytest.approx(second.v))
    assert apart(first.box, second.box) or angle == 45


def test_a_part_that_another_window_removed_is_named():
    with pytest.raises(MissingInput):
        stood_up(compute(plate()), "gone")
