"""Parts that are stood up stand where they belong, and it is said where.

Outside check: the boxes of the boards in space, by arithmetic from the sizes that were given.
"""

import itertools

import pytest
from lean_notch.build import no_files, proposals, site_of
from lean_notch.design import Against
from lean_notch.edits import Edit, edit_job
from lean_notch.job import compute
from lean_notch.standing_up import stood_up
from lean_notch.where_it_stands import where_it_stands
from plates import plate, rectangle

THICK = 3.06
BOX = {"base": (120, 80), "front": (120, 50), "back": (120, 50), "left": (80, 50), "right": (80, 50)}


def job_of(**sizes):
    return plate(
        parts=[
            {"id": name, "title": name.title(), "loose": 1, "steps": [rectangle("blank", *size)]}
            for name, size in sizes.items()
        ]
    )


def stood(job, *parts):
    for part in parts:
        job = edit_job(job, stood_up(compute(job), part))
    return job


@pytest.mark.parametrize("order", list(itertools.permutations(BOX))[::5])
def test_five_boards_become_a_box_in_whatever_order_they_are_stood_up(order):
    """As large as its base and its walls, and every two that share an edge meet: eight edges of a box without a lid."""
    job = stood(job_of(**BOX), *order)
    boxes = [one.box for one in compute(job).build.standings]
    around = [max(b[1][i] for b in boxes) - min(b[0][i] for b in boxes) for i in range(3)]
    assert sorted(around) == pytest.approx([50, 80, 120])
    met = proposals(site_of(job.design, job.basis, no_files))
    assert sorted(round(one.length) for one in met) == [50, 50, 50, 50, 80, 80, 120, 120]
    assert not any(one.off for one in met)
    assert all(isinstance(one.pose, Against) for one in job.design.placements[1:])


def test_what_no_edge_is_as_long_as_stands_beside():
    job = stood(job_of(plate_a=(120, 80), plate_b=(90, 40)), "plate_a", "plate_b")
    assert job.design.placements[-1].pose.kind == "axes"
    said = where_it_stands(compute(job).build, "plate_b-1")
    assert said[-1] == "Nearest is Plate_A; this one stands 20 mm to the right of it."


def test_nothing_is_stood_up_in_the_way_of_another():
    """Both edges of a lone board are taken: the third of a size goes elsewhere, never on top of one."""
    job = stood(job_of(base=(120, 80), wall=(120, 50)), "base", "wall", "wall", "wall", "wall")
    boxes = [one.box for one in compute(job).build.standings]
    for one, other in itertools.combinations(boxes, 2):
        shared = sorted(min(a, b) - max(c, d) for a, b, c, d in zip(one[1], other[1], one[0], other[0], strict=True))
        assert shared[0] <= 1e-6 or shared[1] <= THICK + 0.5


def test_height_gaps_and_near_misses_are_said_with_copies_by_their_number():
    job = stood(job_of(base=(120, 80)), "base")
    (alone,) = where_it_stands(compute(job).build, "base-1")
    assert alone == "It is 80 mm high as it stands."
    pose = {"kind": "axes", "x": "120.4", "z": "12"}
    job = edit_job(job, [Edit("put", "placements/base-2", {"part": "base", "pose": pose})])
    built = compute(job).build
    assert where_it_stands(built, "base-2") == (
        "It is 80 mm high and begins 12 mm above the lowest part.",
        "It almost meets Base, copy 1: 0.4 mm to the right of it.",
    )
    job = edit_job(job, [Edit("put", "placements/base-2/pose/x", "120"), Edit("put", "placements/base-2/pose/z", "-5")])
    assert where_it_stands(compute(job).build, "base-2") == (
        "It is 80 mm high and reaches 5 mm below everything else.",
        "It meets Base, copy 1.",
    )
    assert where_it_stands(built, "gone") == ()


def test_offers_call_copies_by_their_number():
    job = stood(job_of(**BOX), "base", "front", "front")
    titles = " ".join(one.title for one in proposals(site_of(job.design, job.basis, no_files)))
    assert "Front, copy 1" in titles
    assert "-" not in titles
