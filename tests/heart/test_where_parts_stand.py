"""Parts that are stood up stand where they belong, and it is said where.

Outside check: the boxes of the boards in space, by arithmetic from the sizes that were given.
"""

import itertools

import pytest
from lean_notch.acts.standing_up import stood_up
from lean_notch.design import Against
from lean_notch.edits import Edit, edit_job
from lean_notch.job import compute
from lean_notch.making import no_files, proposals, site_of
from lean_notch.told.where_it_stands import where_it_stands
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


def said_of(job, pose):
    job = edit_job(job, [Edit("put", "placements/other-1", {"part": "other", "pose": {"kind": "axes", **pose}})])
    return where_it_stands(compute(job).build, "other-1")[1:]


def test_a_board_that_lies_in_another_does_not_meet_it():
    """Boxes that share room have no gap either."""
    job = stood(job_of(base=(120, 80), other=(60, 40)), "base")
    assert said_of(job, {"x": "20", "z": "10"}) == ("It lies in Base: move one of them.",)
    assert said_of(job, {"x": "20", "z": "10", "y": "thickness"}) == ("It meets Base.",)
    assert said_of(job, {"x": "20", "z": "10", "u": "+y", "v": "+z"}) == ("It meets Base.",)  # as one that crosses it


@pytest.mark.parametrize("how", ["turned", "notched"])
def test_what_does_not_fill_its_box_is_not_said_to_meet(how):
    job = stood(job_of(base=(120, 80), other=(60, 40)), "base")
    if how == "notched":
        notch = rectangle("notch", 20, 40, does="cut")
        job = edit_job(job, [Edit("put", "parts/other/steps/notch", notch)])
        assert said_of(job, {"x": "120"}) == ("By outer sizes alone it meets Base.",)
        return
    pose = {"kind": "numbers", "x": "120", "y": "0", "z": "0", "turn_z": "30"}
    job = edit_job(job, [Edit("put", "placements/other-1", {"part": "other", "pose": pose})])
    assert all("It meets" not in one for one in where_it_stands(compute(job).build, "other-1"))


def test_two_parts_of_one_name_are_no_copies_of_each_other():
    """The page numbers copies of one part; the core did so with parts that are only called the same."""
    job = stood(job_of(side=(120, 80), other=(90, 40)), "side", "other")
    job = edit_job(job, [Edit("put", "parts/other/title", "Side")])
    assert set(compute(job).build.called.values()) == set(job.design.called.values()) == {"Side"}
