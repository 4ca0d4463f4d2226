"""From design and basis to flat parts."""

import pytest
import shapely
from conftest import drawn
from hypothesis import given
from hypothesis import strategies as st
from lean_notch.design import design_from_json, design_to_json
from lean_notch.geometry import Circle
from lean_notch.ground.errors import NotchError
from lean_notch.making import build
from lean_notch.making.outline import Notch, can_be_drawn, outline


def test_a_finger_edge_has_two_corners_a_step(job):
    built = build(job.design, job.basis)
    steps = {mate.id: mate.figures[0].value - 1 for mate in built.mates}
    front = steps["front-left"] + steps["front-right"] + steps["front-base"]
    assert len(built.part("front").region.outer.vertices) == 2 * front + 4
    base = sum(steps[joint] for joint in ("front-base", "back-base", "left-base", "right-base"))
    assert len(built.part("base").region.outer.vertices) == 2 * base + 4


def test_no_corner_lies_on_a_straight_line(job):
    for part in build(job.design, job.basis).parts:
        vertices = part.region.outer.vertices
        for a, b, c in zip(vertices, vertices[1:], vertices[2:], strict=False):
            assert abs((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x)) > 1e-6


def test_a_panel_without_joints_is_a_rectangle():
    assert len(outline(30, 20, {}).vertices) == 4


def test_a_notch_over_the_whole_side_moves_the_side():
    assert outline(30, 20, {"left": [Notch(0, 20, 3)]}).box == (3, 0, 30, 20)


def test_notches_at_a_corner_meet_in_one_inside_point():
    points = [v.point for v in outline(30, 20, {"left": [Notch(0, 5, 3)], "bottom": [Notch(0, 6, 3)]}).vertices]
    assert len(points) == 8
    assert {(0, 5), (3, 5), (3, 3), (6, 3), (6, 0)} <= set(points)


def test_the_parts_follow_the_board(tray, basis):
    thin = build(tray(sizes="inside").design, basis(readings=(2.5,)))
    thick = build(tray(sizes="inside").design, basis(readings=(3.5,)))
    assert thick.names["outside_width"] - thin.names["outside_width"] == pytest.approx(2.0)


def test_sizes_may_depend_on_each_other_in_any_order(tray, basis):
    built = build(tray(width="2*depth", depth="height + 40", height="60").design, basis())
    assert (built.names["width"], built.names["depth"]) == (200, 100)


def test_sizes_that_depend_on_themselves_are_refused(tray, basis):
    with pytest.raises(NotchError) as caught:
        build(tray(width="depth", depth="width").design, basis())
    assert caught.value.code == "circular-lengths"
    assert caught.value.field in ("answers/width", "answers/depth")


def test_an_unknown_name_is_answered_with_every_name_there_is(tray, basis):
    with pytest.raises(NotchError) as caught:
        build(tray(width="widht").design, basis())
    assert caught.value.fix == "Use a number or one of these names: " + ", ".join(
        [
            "clearance",
            "depth",
            "height",
            "inside_depth",
            "inside_height",
            "main.clearance",
            "main.thickness",
            "outside_depth",
            "outside_height",
            "thickness.",
        ]
    )


@pytest.mark.parametrize(
    ("settings", "field", "code"),
    [
        ({"width": "0"}, "width", "out-of-range"),
        ({"width": "-5"}, "width", "out-of-range"),
        ({"width": "1e9"}, "width", "out-of-range"),
        ({"width": "30 m"}, "width", "out-of-range"),
        ({"depth": "abc"}, "depth", "not-a-length"),
        ({"height": "2"}, "height", "finger-too-wide"),
        ({"height": "2", "sizes": "outside"}, "height", "thickness-too-large"),
        ({"width": "6", "sizes": "outside"}, "width", "thickness-too-large"),
        ({"depth": "5"}, "depth", "finger-too-wide"),
        ({"finger": "60"}, "finger", "finger-too-wide"),
        ({"finger": "2"}, "finger", "finger-too-narrow"),
        ({"finger": "nonsense"}, "finger", "not-a-length"),
    ],
)
def test_impossible_sizes_are_refused_at_their_field(tray, basis, settings, field, code):
    with pytest.raises(NotchError) as caught:
        build(tray(**settings).design, basis())
    assert (caught.value.field, caught.value.code) == (f"answers/{field}", code)
    assert caught.value.fix


def test_a_design_survives_its_document(job):
    assert design_from_json(design_to_json(job.design)) == job.design


def holed(job, *holes):
    steps = [
        {"kind": "shape", "id": f"hole-{i}", "shape": {"kind": "disc", "diameter": d}, "does": "cut", "x": x, "y": y}
        for i, (x, y, d) in enumerate(holes)
    ]
    return drawn(job, *steps, part="base").design


def test_holes_stay_circles(job):
    base = build(holed(job, ("outside_width/2", 50, 8)), job.basis).part("base")
    assert base.region.holes == (Circle(78.06, 50, 4, hole=True),)


@pytest.mark.parametrize("hole", [(500, 50, 8), (50, 50, 0), (-30, 50, 8)])
def test_a_hole_beside_the_part_fails_at_its_step(job, hole):
    failed = build(holed(job, hole), job.basis).part("base").failed
    assert (failed.step, failed.error.field[:23]) == ("hole-0", "parts/base/steps/hole-0")


def test_a_cut_over_all_of_a_part_leaves_nothing(job):
    with pytest.raises(NotchError, match="Nothing is left of Base"):
        build(holed(job, (50, 50, 500)), job.basis)


@pytest.mark.parametrize(
    "change",
    [
        {"lean_notch_design": 99},
        {"parts": "none"},
        {"parts": [{}]},
        {"parts": [{"id": "x", "title": "X", "steps": [{"kind": "blob", "id": "a"}]}]},
        {"parts": [{"id": "x", "title": "X", "steps": []}] * 2},
        {"relief": True},
        {"lean_notch_design": True},
        {"dimensions": [{"name": "thickness", "title": "t", "length": 3}]},
        {"colour": "red"},
        {"dimensions": [{"name": "2x", "length": 3}]},
        {"name": ""},
    ],
)
def test_a_broken_design_document_names_the_place(job, change):
    with pytest.raises(NotchError) as caught:
        design_from_json({**design_to_json(job.design), **change})
    assert caught.value.field


def test_panels_that_do_not_meet_are_not_joined(job):
    document = design_to_json(job.design)
    document["joints"][0]["second"] = {"placement": "back", "edge": "blank.left"}
    [lost] = build(design_from_json(document), job.basis).lost.values()
    assert lost.code == "panels-do-not-meet"
    assert "parallel" in lost.why


edges = st.lists(st.tuples(st.integers(0, 9), st.integers(1, 3), st.integers(1, 4)), max_size=2)


@given(st.fixed_dictionaries(dict.fromkeys(("bottom", "right", "top", "left"), edges)))
def test_an_outline_that_can_be_drawn_does_not_cross_itself(asked):
    """Against the library's own judgement, for any notches that do not overlap along their side."""
    notches = {}
    for side, some in asked.items():
        length, at = (30 if side in ("bottom", "top") else 24), 0
        for gap, wide, deep in some:
            start = min(at + gap, length - wide)
            if start >= at:
                notches.setdefault(side, []).append(Notch(float(start), float(start + wide), float(deep)))
                at = start + wide + 1
    if can_be_drawn(30, 24, notches):
        drawn = shapely.Polygon([v.point for v in outline(30, 24, notches).vertices])
        boxes = {
            "bottom": lambda n: (n.start, 0, n.end, n.depth), "top": lambda n: (n.start, 24 - n.depth, n.end, 24),
            "left": lambda n: (0, n.start, n.depth, n.end), "right": lambda n: (30 - n.depth, n.start, 30, n.end),
        }  # fmt: skip
        cut = shapely.union_all([shapely.box(*boxes[side](n)) for side, some in notches.items() for n in some])
        assert drawn.is_valid
        assert drawn.symmetric_difference(shapely.box(0, 0, 30, 24).difference(cut)).area < 1e-9
