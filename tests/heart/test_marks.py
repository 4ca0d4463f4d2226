"""What is drawn on parts: where it lies, what it takes away, and what is wrong with it."""

import math
from dataclasses import replace

import pytest
from conftest import drawn as with_steps
from conftest import edited, make_basis, make_board, make_job, with_marks
from lean_notch.basis import Machine
from lean_notch.basis.machine import KerfFound
from lean_notch.design import design_from_json, design_to_json
from lean_notch.edits import Edit, edit_job, refuse_own_failures
from lean_notch.geometry import Circle
from lean_notch.ground.errors import NotchError
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute
from lean_notch.making import build


def mark(kind, operation="cut", **values):
    lengths = {
        name: values.pop(name)
        for name in [*values]
        if name not in ("id", "text", "font", "align", "angle", "columns", "rows", "side")
    }
    return {"id": values.pop("id", f"{kind}-1"), "kind": kind, "operation": operation, "lengths": lengths, **values}


def drawn(job, *marks, part="front", unit="mm"):
    return with_marks(job, *marks, part=part, unit=unit)


def corner(name, size, shape="round"):
    return {"kind": "corner", "id": f"corner-{name}", "corners": [f"blank.{name}"], "size": size, "shape": shape}


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
    moved = drawn(job, mark("circle", x="outside_width/2", y="1", diameter="1/4 in"), unit="in")
    [hole] = front(moved).region.holes
    assert (hole.x, hole.y, hole.radius) == pytest.approx((156.12 / 2, 25.4, 3.175))


def test_marks_stay_when_the_recipe_is_asked_anew(job):
    before = drawn(job, mark("circle", x="outside_width/2", y="30", diameter="8"))
    after = edited(before, width="200")
    assert front(after).region.holes[0].x == pytest.approx(206.12 / 2)
    assert edit_job(after, [Edit("drop", "parts/front/steps/circle-1")]).design == edited(job, width="200").design


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
        (mark("circle", x="30", y="30", diameter="0"), "shape/diameter", "out-of-range"),
        (mark("circle", x="30", y="30", diameter="-4"), "shape/diameter", "out-of-range"),
        (mark("circle", x="500", y="30", diameter="8"), "", "bad-geometry"),
        (mark("circle", x="wide", y="30", diameter="8"), "x", "not-a-length"),
        (mark("rectangle", x="30", y="20", width="25", height="10", radius="6"), "shape/radius", "radius-too-large"),
        (mark("rectangle", x="30", y="20", width="25", height="10", radius="-1"), "shape/radius", "out-of-range"),
        (mark("rectangle", "pocket", x="30", y="20", width="25", height="10", depth="3.06"), "depth", "out-of-range"),
        (mark("rectangle", "pocket", x="30", y="20", width="25", height="10"), "depth", "out-of-range"),
        (mark("text", text="沼", x="30", y="20", height="10"), "shape/text", "missing-character"),
        (mark("text", text="A", font="single stroke", x="30", y="20", height="10"), "shape/font", "out-of-range"),
        (mark("line", "score", x="30", y="20", to_x="30", to_y="20"), "shape/to_x", "out-of-range"),
        (mark("line", "cut", x="30", y="20", to_x="40", to_y="20"), "does", "out-of-range"),
        (mark("circle", x="30", y="30", diameter="8", columns=3), "pattern/dx", "out-of-range"),
        (mark("circle", x="1e7", y="30", diameter="8"), "x", "out-of-range"),
    ],
)  # fmt: skip
def test_what_is_wrong_with_a_step_is_said_where_it_was_made_and_the_part_stays_as_it_was(job, wrong, field, code):
    """The part shows its last good state, the proof does not call it a fit, and the edit that did it is refused."""
    before = compute(job)
    after = compute(drawn(job, wrong))
    failed = front(drawn(job, wrong)).failed
    path = f"parts/front/steps/{wrong['id']}"
    assert (failed.error.field, failed.error.code) == (f"{path}/{field}".rstrip("/"), code)
    assert failed.error.fix
    assert after.build.part("front").region == before.build.part("front").region
    assert not prove_job(after).fits
    with pytest.raises(NotchError) as caught:
        refuse_own_failures([Edit("put", path)], before, after)
    assert caught.value is after.build.part("front").failed.error
    refuse_own_failures([Edit("put", "answers/width")], before, after)


def test_a_step_without_its_diameter_is_no_step(job):
    with pytest.raises(NotchError) as caught:
        drawn(job, mark("circle", x="30", y="30"))
    assert (caught.value.field, caught.value.code) == ("parts/front/steps/circle-1/shape/diameter", "bad-document")


def test_overlapping_holes_become_one(job):
    pair = [mark("circle", id=f"c{i}", x=str(40 + 5 * i), y="30", diameter="8") for i in range(2)]
    [hole] = front(drawn(job, *pair)).region.holes
    assert len(hole.segments) == 2


def test_a_mark_beyond_the_edge_is_mentioned_and_kept(job):
    over = drawn(job, mark("line", "score", x="-5", y="30", to_x="50", to_y="30"))
    [finding] = [one for one in compute(over).limits if one.code == "mark-beyond"]
    assert (finding.severity, finding.part) == ("stop", "front")
    assert finding.amount == pytest.approx(math.hypot(5, 3.06), abs=0.1)  # between two fingers the edge is further away
    assert [len(mark.traces) for mark in build(over.design, over.basis).part("front").marks] == [1]


def test_corners_are_rounded_and_cut_off_where_no_joint_is(job):
    done = with_steps(job, corner("top-left", "2"))
    assert front(done).region.area < front(job).region.area
    failed = front(with_steps(job, corner("top-left", "80"))).failed
    assert failed.error.field == "parts/front/steps/corner-top-left/size"
    base = build((of := with_steps(job, corner("top-left", "2"), part="base")).design, of.basis).part("base")
    assert "belongs to a joint" in base.failed.error.why


def test_a_part_or_mark_that_is_not_there_is_refused(job):
    with pytest.raises(NotchError, match="lid"):
        edit_job(job, [Edit("drop", "parts/lid/steps/x")])


def test_the_document_keeps_all_that_is_drawn(job):
    full = drawn(
        job,
        mark("text", "engrave", text="Bog", font="slab", align="middle", x="50", y="20", height="9", angle=-15.0),
        mark("rectangle", "pocket", x="90", y="20", width="9", height="9", depth="0.5", side="outside"),
    )
    relieved = replace(with_steps(full, corner("top-right", "1", "chamfer")).design, relief="t-bone")
    assert design_from_json(design_to_json(relieved)) == relieved


ROUTER = make_basis().with_board(
    "main",
    replace(
        make_board((11.86, 11.93), sheet=(1250, 1250)),
        machine=Machine(
            "Barn router", "router", 1250, 1250, 6.0, found=KerfFound("slats", "Poplar ply", 11.895, "2026-03-01", 0.0)
        ),
    ),
)


def router_job(relief, **sizes):
    job = make_job(ROUTER, width="500", depth="300", height="200", **sizes)
    return edited(job, relief=relief, spacing="14", margin="10")


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
    assert any(segment.bulge for segment in front(edited(job, relief="dogbone")).region.outer.segments)


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
    assert after.place == pytest.approx(base.motion.point(before.place))
    assert (after.sheet, after.copy) == (1, 1)
