"""What is drawn on parts: where it lies, what it takes away, and what is wrong with it."""

from dataclasses import replace

import pytest
from conftest import make_basis, make_job
from lean_notch.basis import Machine
from lean_notch.build import build
from lean_notch.design import design_from_json, design_to_json
from lean_notch.edits import edit_job
from lean_notch.errors import NotchError
from lean_notch.geometry import Circle
from lean_notch.job import compute, prove_job


def mark(kind, operation="cut", **values):
    lengths = {
        name: values.pop(name)
        for name in [*values]
        if name not in ("id", "text", "font", "align", "angle", "columns", "rows", "side")
    }
    return {"id": values.pop("id", f"{kind}-1"), "kind": kind, "operation": operation, "lengths": lengths, **values}


def drawn(job, *marks, part="front", **features):
    return edit_job(job, {"parts": {part: {"marks": list(marks), **features}}})


def front(job):
    return build(job.design, job.basis).part("front")


def test_a_cut_circle_is_a_hole_and_a_grid_of_them_many(job):
    plain = front(job).region
    one = front(drawn(job, mark("circle", x="30", y="30", diameter="8"))).region
    assert one.holes == (Circle(30, 30, 4, hole=True),)
    many = drawn(job, mark("circle", x="30", y="20", diameter="4", dx="10", dy="12", columns=4, rows=2))
    holes = front(many).region.holes
    assert sorted((hole.x, hole.y) for hole in holes) == [(x, y) for x in (30, 40, 50, 60) for y in (20, 32)]
    assert front(many).region.outer == plain.outer


def test_marks_follow_named_lengths_and_the_makers_unit(job):
    moved = edit_job(
        job, {"parts": {"front": {"marks": [mark("circle", x="outside_width/2", y="1", diameter="1/4 in")]}}}, "in"
    )
    [hole] = front(moved).region.holes
    assert (hole.x, hole.y, hole.radius) == pytest.approx((156.12 / 2, 25.4, 3.175))


def test_marks_stay_when_the_recipe_is_asked_anew(job):
    before = drawn(job, mark("circle", x="outside_width/2", y="30", diameter="8"))
    after = edit_job(before, {"width": "200"})
    assert front(after).region.holes[0].x == pytest.approx(206.12 / 2)
    assert edit_job(after, {"parts": {"front": {"marks": []}}}).design.parts[0].marks == ()


def test_a_rectangle_with_round_corners_turned(job):
    turned = drawn(
        job, mark("rectangle", "pocket", x="60", y="20", width="30", height="20", radius="4", depth="1", angle=30.0)
    )
    [pocket] = front(turned).marks
    assert pocket.depth == 1
    assert pocket.regions[0].area == pytest.approx(600 - (4 - 3.141592653589793) * 16)
    assert front(turned).region == front(job).region


def test_lettering_is_bridged_at_least_as_wide_as_the_board_is_thick(job):
    cut = drawn(job, mark("text", text="O", x="60", y="15", height="30", bridge="1"))
    built = build(cut.design, cut.basis)
    assert not any(finding.code == "drops-out" for finding in built.findings)
    assert len(built.part("front").region.holes) == 2


def test_islands_without_bridges_are_named_with_their_place(job):
    loose = drawn(job, mark("text", text="O", x="60", y="15", height="30", bridge="0"))
    built = build(loose.design, loose.basis)
    [finding] = [f for f in built.findings if f.code == "drops-out"]
    assert finding.part == "front"
    assert 60 < finding.place[0] < 90
    assert "bridge" in finding.fix


def test_single_strokes_are_lines(job):
    scored = drawn(job, mark("text", "score", text="HI", font="single stroke", x="60", y="20", height="10"))
    [lines] = front(scored).marks
    assert len(lines.traces) == 4
    assert not lines.regions


@pytest.mark.parametrize(
    ("wrong", "field", "code"),
    [
        (mark("circle", x="30", y="30", diameter="0"), "front.marks[0].diameter", "out-of-range"),
        (mark("circle", x="30", y="30", diameter="-4"), "front.marks[0].diameter", "out-of-range"),
        (mark("circle", x="2", y="30", diameter="8"), "front.marks[0]", "bad-geometry"),
        (mark("circle", x="500", y="30", diameter="8"), "front.marks[0]", "bad-geometry"),
        (mark("circle", x="wide", y="30", diameter="8"), "front.marks[0].x", "not-a-length"),
        (mark("rectangle", x="30", y="20", width="25", height="10", radius="6"), "front.marks[0].radius", "radius-too-large"),
        (mark("rectangle", x="30", y="20", width="25", height="10", radius="-1"), "front.marks[0].radius", "out-of-range"),
        (mark("rectangle", "pocket", x="30", y="20", width="25", height="10", depth="3.06"), "front.marks[0].depth", "out-of-range"),
        (mark("rectangle", "pocket", x="30", y="20", width="25", height="10"), "front.marks[0].depth", "out-of-range"),
        (mark("text", text="沼", x="30", y="20", height="10"), "front.marks[0].text", "missing-character"),
        (mark("text", text="A", font="single stroke", x="30", y="20", height="10"), "front.marks[0].font", "out-of-range"),
        (mark("line", "score", x="30", y="20", to_x="30", to_y="20"), "front.marks[0].to_x", "out-of-range"),
        (mark("line", "cut", x="30", y="20", to_x="40", to_y="20"), "front.marks[0].operation", "bad-document"),
        (mark("circle", x="30", y="30", diameter="8", columns=3), "front.marks[0].dx", "bad-document"),
        (mark("circle", x="30", y="30"), "front.marks[0].diameter", "bad-document"),
        (mark("circle", x="1e7", y="30", diameter="8"), "front.marks[0].x", "out-of-range"),
    ],
)  # fmt: skip
def test_what_is_wrong_with_a_mark_is_said_where_it_was_made(job, wrong, field, code):
    with pytest.raises(NotchError) as caught:
        compute(drawn(job, wrong))
    assert (caught.value.field, caught.value.code) == (field, code)
    assert caught.value.fix


def test_overlapping_holes_become_one(job):
    pair = [mark("circle", id=f"c{i}", x=str(40 + 5 * i), y="30", diameter="8") for i in range(2)]
    [hole] = front(drawn(job, *pair)).region.holes
    assert len(hole.segments) == 2


def test_a_mark_beyond_the_edge_is_mentioned_and_kept(job):
    over = drawn(job, mark("line", "score", x="-5", y="30", to_x="50", to_y="30"))
    assert [finding.code for finding in build(over.design, over.basis).findings] == ["off-part"]


def test_corners_are_rounded_and_cut_off_where_no_joint_is(job):
    done = drawn(job, corners=[{"corner": "top-left", "shape": "round", "size": "2"}])
    assert front(done).region.area < front(job).region.area
    with pytest.raises(NotchError) as caught:
        compute(drawn(job, corners=[{"corner": "bottom-left", "size": "80"}]))
    assert caught.value.field == "front.corners[0].size"


def test_a_part_or_mark_that_is_not_there_is_refused(job):
    with pytest.raises(NotchError, match="lid"):
        edit_job(job, {"parts": {"lid": {"marks": []}}})
    with pytest.raises(NotchError, match="share an id"):
        drawn(job, *[mark("circle", x="30", y="30", diameter="8")] * 2)


def test_the_document_keeps_all_that_is_drawn(job):
    full = drawn(
        job,
        mark("text", "engrave", text="Bog", font="slab", align="middle", x="50", y="20", height="9", angle=-15.0),
        mark("rectangle", "pocket", x="90", y="20", width="9", height="9", depth="0.5", side="outside"),
        corners=[{"corner": "top-right", "shape": "chamfer", "size": "1"}],
    )
    relieved = replace(full.design, relief="t-bone")
    assert design_from_json(design_to_json(relieved)) == relieved


ROUTER = replace(
    make_basis((11.86, 11.93), sheet=(1250, 1250)), machine=Machine("Barn router", "router", 1250, 1250, 6.0)
)


def router_job(relief, **sizes):
    job = make_job(ROUTER, width="500", depth="300", height="200", **sizes)
    return edit_job(job, {"relief": relief, "spacing": "10", "margin": "10"})


@pytest.mark.parametrize("relief", ["auto", "dogbone", "t-bone"])
def test_relieved_sockets_take_their_square_fingers(relief):
    """The proof measures what a 6 mm tool leaves over the corners of every finger: nothing."""
    proof = prove_job(compute(router_job(relief)))
    assert proof.fits
    assert not proof.findings


def test_without_relief_the_corners_are_blocked_by_their_closed_form():
    """A tool of radius r leaves (sqrt 2 - 1) r in a square corner: 1.243 mm for r = 3."""
    proof = prove_job(compute(router_job("none")))
    assert not proof.fits
    blocked = [finding for finding in proof.findings if finding.code == "corner-blocked"]
    assert len(blocked) == 8
    assert blocked[0].amount == pytest.approx((2**0.5 - 1) * 3, abs=0.02)
    assert "dogbone" in blocked[0].fix


def test_a_laser_gets_no_bones_unless_they_are_asked_for(job):
    assert not any(segment.bulge for segment in front(job).region.outer.segments)
    assert any(segment.bulge for segment in front(edit_job(job, {"relief": "dogbone"})).region.outer.segments)


def test_cuts_on_the_line_come_out_wider_and_are_proved_so(job):
    for side, wider in (("auto", 0.0), ("on", 0.14), ("outside", 0.28)):
        done = drawn(job, mark("circle", x="30", y="30", diameter="8", side=side))
        result = compute(done)
        path = next(p for p in result.plan.sheets[0].paths if p.part == "front" and p.inner)
        assert 2 * path.shape.radius + 0.14 == pytest.approx(8 + wider)
        assert prove_job(result).fits


def test_what_the_build_found_is_shown_where_the_part_lies_on_its_sheet(job):
    loose = drawn(job, mark("text", text="O", x="60", y="15", height="30", bridge="0"), part="base")
    result = compute(loose)
    [before] = [finding for finding in result.build.findings if finding.code == "drops-out"]
    [after] = [finding for finding in prove_job(result).findings if finding.code == "drops-out"]
    base = next(placed for placed in result.layout.placed if placed.part == "base")
    assert after.place == pytest.approx(base.placement.point(before.place))
    assert (after.sheet, after.copy) == (1, 1)
