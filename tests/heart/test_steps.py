"""Parts made of steps: what each does, in which order, and what is left when one fails."""

import math

import pytest
from conftest import drawn, edited, make_basis, make_job
from lean_notch.design import Design, design_from_json, design_to_json
from lean_notch.edits import Edit, edit_job
from lean_notch.geometry import Circle
from lean_notch.ground.errors import NotchError
from lean_notch.ground.limits import MOST_CROSSINGS, MOST_SEGMENTS
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute
from lean_notch.making import build
from plates import disc, made, plate, rectangle


def test_shapes_add_cut_and_keep():
    """By hand: a tab of 10 x 20 beyond the right edge, a notch of 8 x 30 from the top; kept within a disc."""
    assert made(rectangle("tab", 10, 20, x=100, y=20)).region.area == pytest.approx(6000 + 200)
    assert made(rectangle("slot", 8, 30, "cut", x=46, y=40)).region.area == pytest.approx(6000 - 8 * 20)
    kept = made(disc("round", 50, "keep", x=50, y=30)).region
    assert kept.area == pytest.approx(math.pi * 25**2)
    assert made(disc("eye", 10, x=20, y=20), disc("round", 50, "keep", x=50, y=30)).region.area == pytest.approx(
        kept.area - 0.0, abs=math.pi * 25
    )


def test_the_order_of_steps_counts():
    hole, patch = disc("hole", 20, x=50, y=30), rectangle("patch", 30, 30, x=35, y=15)
    assert made(hole, patch).region.holes == ()
    assert len(made(patch, hole).region.holes) == 1


def test_a_step_that_is_off_is_not_there():
    assert made({**disc("hole", 20, x=50, y=30), "on": False}).region == made().region


def test_patterns_are_grids_and_rings():
    grid = made(disc("drain", 4, x=10, y=10, pattern={"kind": "grid", "columns": 4, "rows": 3, "dx": 20, "dy": 15}))
    assert sorted((h.x, h.y) for h in grid.region.holes) == [(x, y) for x in (10, 30, 50, 70) for y in (10, 25, 40)]
    ring = made(disc("drain", 4, x=70, y=30, pattern={"kind": "around", "count": 6, "x": 50, "y": 30}))
    assert all(math.dist((h.x, h.y), (50, 30)) == pytest.approx(20) for h in ring.region.holes)
    assert len(ring.region.holes) == 6


def test_a_shape_is_turned_scaled_and_mirrored_about_its_place():
    turned = made(rectangle("slot", 20, 4, "cut", x=50, y=10, turn=90)).region.holes[0]
    assert turned.box == pytest.approx((46, 10, 50, 30))
    larger = made(disc("hole", 5, x=50, y=30, scale=2)).region.holes[0]
    assert larger == Circle(50, 30, 5, hole=True)
    mirrored = made(rectangle("slot", 20, 4, "cut", x=50, y=10, mirrored=True)).region.holes[0]
    assert mirrored.box == pytest.approx((30, 10, 50, 14))


def test_a_free_outline_goes_round_its_nodes_and_bends_where_they_bulge():
    nodes = [
        {"id": "a", "x": 20, "y": 20},
        {"id": "b", "x": 40, "y": 20, "bulge": 1.0},
        {"id": "c", "x": 40, "y": 40},
        {"id": "d", "x": 20, "y": 40},
    ]
    outline = {"kind": "shape", "id": "free", "does": "cut", "shape": {"kind": "outline", "nodes": nodes}}
    part = made(outline)
    assert 6000 - part.region.area == pytest.approx(400 + math.pi * 100 / 2)  # a square and half a disc
    assert {"free.a", "free.b", "free.c", "free.d"} <= {name for name, _ in part.edges}
    crossed = [nodes[0], nodes[2], nodes[1], nodes[3]]
    failed = made({**outline, "shape": {"kind": "outline", "nodes": crossed}}).failed
    assert failed.error.field == "parts/plate/steps/free/shape/nodes"


def test_corners_are_found_by_the_step_that_made_them():
    rounded = made({"kind": "corner", "id": "soft", "corners": ["blank.top-left", "blank.top-right"], "size": 10})
    assert 6000 - rounded.region.area == pytest.approx(2 * (100 - math.pi * 25))
    inner = made(
        rectangle("window", 40, 20, "cut", x=30, y=20),
        {"kind": "corner", "id": "soft", "corners": ["window.top-left"], "size": 5},
    )
    assert inner.region.area == pytest.approx(6000 - 800 + (1 - math.pi / 4) * 25)
    gone = made(
        rectangle("bite", 20, 20, "cut", x=0, y=40),
        {"kind": "corner", "id": "soft", "corners": ["blank.top-left"], "size": 5},
    )
    assert "cut away" in gone.failed.error.why
    unknown = made({"kind": "corner", "id": "soft", "corners": ["blank.middle"], "size": 5})
    assert "blank.top-left" in unknown.failed.error.fix


def test_all_of_it_is_mirrored_grown_turned_and_scaled():
    hole = disc("hole", 10, x=20, y=30)
    both = made(hole, {"kind": "mirror", "id": "fold", "x": 100, "y": 0, "angle": 90.0})
    assert both.region.area == pytest.approx(2 * (6000 - math.pi * 25))
    assert sorted(h.x for h in both.region.holes) == [20, 180]
    alone = made(hole, {"kind": "mirror", "id": "fold", "x": 50, "y": 0, "keep": False})
    assert [h.x for h in alone.region.holes] == pytest.approx([80])
    grown = made(hole, {"kind": "grow", "id": "more", "by": 2})
    assert grown.box == pytest.approx((-2, -2, 102, 62))
    assert grown.region.holes[0].radius == pytest.approx(3)
    assert "shrink" not in made({"kind": "grow", "id": "less", "by": -20}).title
    assert made({"kind": "grow", "id": "less", "by": -40}).failed.error.field == "parts/plate/steps/less/by"
    turned = made(hole, {"kind": "turn", "id": "turn", "turn": 90, "scale": 2})
    assert turned.box == pytest.approx((-120, 0, 0, 200))
    assert turned.region.holes[0].radius == pytest.approx(10)


def test_another_part_is_a_shape_and_a_part_of_itself_is_refused():
    coin = {"id": "coin", "title": "Coin", "loose": 1, "steps": [disc("blank", 20, "add")]}
    use = {"kind": "shape", "id": "coin", "does": "cut", "shape": {"kind": "part", "part": "coin"}, "x": 50, "y": 30}
    assert made(use, parts=[coin]).region.holes == (Circle(50, 30, 10, hole=True),)
    round_about = {**coin, "steps": [*coin["steps"], {**use, "id": "back", "shape": {"kind": "part", "part": "plate"}}]}
    job = plate(use, parts=[round_about])
    failed = {p.id: p.failed for p in build(job.design, job.basis).parts}
    assert failed["plate"].error.field == "parts/plate/steps/coin/shape/part"


def test_a_bend_line_is_a_fold_on_the_flat():
    part = made({"kind": "bend", "id": "lip", "x": 0, "y": 20, "to_x": 100, "to_y": 20, "angle": 90})
    assert [(mark.operation, len(mark.traces)) for mark in part.marks] == [("fold", 1)]


def test_what_is_on_the_back_is_in_a_file_of_its_own():
    job = plate({**disc("stamp", 10, "mark", x=20, y=30), "operation": "engrave", "face": "back"})
    [mark] = build(job.design, job.basis).part("plate").marks
    assert mark.regions[0].outer.x == pytest.approx(80)  # seen from the back, 20 from the left
    result = compute(job)
    assert {path.operation for path in result.plan.sheets[0].paths} == {"cut"}
    assert {path.operation for path in result.plan.sheets[0].back} == {"engrave", "reference"}
    assert prove_job(result).fits


def test_a_failed_step_leaves_what_the_ones_before_it_made():
    job = plate(disc("hole", 10, x=20, y=30), disc("lost", "nowhere", x=50, y=30), disc("after", 10, x=80, y=30))
    part = build(job.design, job.basis).part("plate")
    assert len(part.region.holes) == 1
    assert (part.failed.step, part.failed.error.field) == ("lost", "parts/plate/steps/lost/shape/diameter")
    result = compute(job)
    assert not prove_job(result).fits
    [finding] = [one for one in result.build.findings if one.severity == "stop"]
    assert finding.field == "parts/plate/steps/lost/shape/diameter"
    assert "lost" in finding.why


def test_a_part_without_a_shape_says_what_to_add():
    document = {"lean_notch_design": 2, "name": "x", "parts": [{"id": "a", "title": "A", "loose": 1, "steps": []}]}
    with pytest.raises(NotchError) as caught:
        build(design_from_json(document), make_basis())
    assert caught.value.field == "parts/a/steps"


def test_joints_are_cut_the_same_whether_or_not_something_is_added(job):
    """The outline drawn with its notches, and notches cut out of what the steps made, are the same outline."""
    patch = rectangle("patch", 20, 20, x=60, y=20)
    plain, added = (compute(one).build.part("front").region for one in (job, drawn(job, patch)))
    assert added.area == pytest.approx(plain.area, abs=1e-9)
    assert {v.point for v in added.outer.vertices} == {v.point for v in plain.outer.vertices}


def test_a_cut_into_a_joint_is_mentioned_with_its_place(job):
    built = compute(drawn(job, disc("bite", 12, x=0, y=30))).build
    [finding] = [one for one in built.findings if one.code == "joint-cut"]
    assert finding.part == "front"
    assert finding.place[0] == pytest.approx(1.5, abs=1.6)
    assert not any(one.code == "joint-cut" for one in compute(drawn(job, disc("eye", 12, x=40, y=30))).build.findings)


def test_a_joint_whose_edge_was_turned_away_is_lost_with_its_fix(job):
    turned = drawn(job, {"kind": "turn", "id": "turn", "turn": 90})
    lost = compute(turned).build.lost
    assert len(lost) == 3
    assert all(one.space and one.fix for one in lost.values())
    assert len(compute(turned).build.mates) == 5


@pytest.mark.parametrize(
    ("pattern", "what"),
    [
        ({"kind": "grid", "columns": 100, "rows": 100, "dx": 1, "dy": 1}, MOST_CROSSINGS),
        ({"kind": "around", "count": 3000, "x": 50, "y": 30}, MOST_CROSSINGS),
    ],
)
def test_too_much_work_is_refused_with_figures_before_it_is_begun(pattern, what):
    failed = made(disc("sieve", 5, x=20, y=20, pattern=pattern)).failed
    assert failed.error.code == "too-much-work"
    assert f"{what:,}" in failed.error.why
    assert failed.error.fix


def test_too_many_lines_are_refused_with_figures():
    text = {"kind": "lettering", "text": "W8&" * 60, "height": 1, "font": "slab"}
    step = {
        "kind": "shape",
        "id": "wall",
        "does": "mark",
        "shape": text,
        "pattern": {"kind": "grid", "columns": 100, "rows": 50, "dx": 1, "dy": 1},
    }
    failed = made(step).failed
    assert (failed.error.code, failed.error.field) == ("too-much-work", "parts/plate/steps/wall/pattern")
    assert f"{MOST_SEGMENTS:,}" in failed.error.why


def test_a_hundred_thousand_steps_are_refused():
    with pytest.raises(NotchError) as caught:
        plate(*[disc(f"h{i}", 1, x=1, y=1) for i in range(100_000)])
    assert caught.value.field == "parts/plate/steps"


def test_every_kind_of_step_goes_out_and_in(job):
    design = plate(
        rectangle("a", "width", "1/4 in", x="thickness", turn=12.5, scale=2, mirrored=True),
        {"kind": "corner", "id": "b", "corners": ["blank.top-left"], "size": {"text": "1/8", "unit": "in"}, "shape": "chamfer"},
        {"kind": "mirror", "id": "c"}, {"kind": "grow", "id": "d", "by": "-1"}, {"kind": "turn", "id": "e", "turn": 5},
        {"kind": "bend", "id": "f", "x": 0, "y": 0, "to_x": 9, "to_y": 9, "radius": 2, "title": "Lip", "on": False},
        {"kind": "shape", "id": "g", "does": "mark", "shape": {"kind": "imported", "file": "0" * 64, "layers": ["CUT"]}},
    ).design  # fmt: skip
    assert design_from_json(design_to_json(design)) == design
    assert isinstance(design, Design)
    assert edit_job(job, [Edit("put", "parts/front/steps/x", disc("x", 5))]) != edited(job)


def test_the_bench_of_joints_survives_a_hole(job):
    assert prove_job(compute(drawn(make_job(), disc("eye", 20, x=75, y=30)))).fits
    assert prove_job(compute(job)).fits
