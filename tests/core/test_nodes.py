"""Nodes of a free outline, moved, added and bent by hand: where the part's own outline then is."""

import itertools
import math

import pytest
from lean_notch.acts.nodes import edge_bent, node_added, node_moved
from lean_notch.edits import edit_job
from lean_notch.ground.errors import NotchError
from lean_notch.job import compute
from plates import plate

NODES = [{"id": "n1", "x": 0, "y": 0}, {"id": "n2", "x": "20 + 10", "y": 0}, {"id": "n3", "x": "1 in", "y": 30}]
FRAMES = [
    {}, {"turn": 30}, {"scale": 2}, {"mirrored": True}, {"turn": 75, "scale": 0.5, "mirrored": True, "face": "back"},
]  # fmt: skip


def job_of(nodes=NODES, **frame):
    shape = {"kind": "outline", "nodes": nodes}
    step = {"kind": "shape", "id": "o", "does": "mark", "operation": "score", "shape": shape, "x": 50, "y": 20}
    return plate({**step, **frame})


def outline(job):
    [mark] = compute(job).build.parts[0].marks
    return mark.regions[0].outer


def places(job):
    return sorted(segment.start for segment in outline(job).segments)


@pytest.mark.parametrize("frame", FRAMES)
def test_a_node_goes_where_it_is_dragged_however_its_outline_lies(frame):
    job = job_of(**frame)
    was = places(job)
    for node in ("n1", "n2", "n3"):
        now = places(edit_job(job, node_moved(compute(job), "plate", "o", node, 3, -2)))
        [gone] = [one for one in was if not any(math.dist(one, other) < 1e-3 for other in now)]
        [new] = [one for one in now if not any(math.dist(one, other) < 1e-3 for other in was)]
        assert new == pytest.approx((gone[0] + 3, gone[1] - 2), abs=1e-3)


def test_what_was_typed_stays_arithmetic_and_keeps_its_unit():
    job = edit_job(job_of(), node_moved(compute(job_of()), "plate", "o", "n2", 1.5, 0))
    assert job.design.parts[0].step("o").shape.nodes[1].x.text == "20 + 10 + 1.5 mm"
    job = edit_job(job_of(), node_moved(compute(job_of()), "plate", "o", "n3", 2.54, 0))
    moved = job.design.parts[0].step("o").shape.nodes[2].x
    assert (moved.text, moved.unit) == ("1 in + 2.54 mm", "mm")


@pytest.mark.parametrize("bulge", [0, 0.4, -0.3])
def test_a_node_in_the_middle_of_an_edge_changes_nothing_and_gives_a_corner_more(bulge):
    """The dead end: a new node lay on the last one and was always refused, so no outline got a fourth corner."""
    nodes = [{**NODES[0], "bulge": bulge}, *NODES[1:]]
    job = job_of(nodes)
    area = outline(job).area
    for after in ("n1", "n2", "n3"):
        edits = node_added(compute(job), "plate", "o", after)
        more = edit_job(job, edits)
        shape = more.design.parts[0].step("o").shape
        assert [one.id for one in shape.nodes].index("n4") == int(after[1])
        assert outline(more).area == pytest.approx(area, abs=0.02)
        pulled = edit_job(more, node_moved(compute(more), "plate", "o", "n4", 0.5, -1))
        assert len(outline(pulled).segments) == 4


@pytest.mark.parametrize("frame", FRAMES)
def test_an_edge_bends_to_where_its_middle_is_dragged(frame):
    job = job_of(**frame)
    result = compute(job)
    bent = edit_job(job, edge_bent(result, "plate", "o", "n1", 0, -4))
    segments = [one for one in outline(bent).segments if one.bulge]
    assert len(segments) == 1
    if not frame:
        assert segments[0].at(0.5) == pytest.approx((50 + 15, 20 - 4), abs=1e-3)
    straight = edit_job(bent, edge_bent(compute(bent), "plate", "o", "n1", 0, 4))
    assert not any(one.bulge for one in outline(straight).segments)


def test_nodes_dragged_over_each_other_are_told_at_their_step():
    job = job_of([*NODES, {"id": "n4", "x": 0, "y": 30}], does="cut")
    crossed = compute(edit_job(job, node_moved(compute(job), "plate", "o", "n4", 60, -15)))
    [finding] = [one for one in crossed.build.findings if one.code == "step-failed"]
    assert (finding.severity, finding.field) == ("stop", "parts/plate/steps/o/shape/nodes")
    assert "without crossing" in finding.fix
    for ask, what in itertools.product((node_moved, edge_bent), ("gone", "n9")):
        with pytest.raises(NotchError):
            ask(compute(job), "plate", "o", what, 1, 1)
