"""Places measured from other things: corners, edges, middles, centres, halfway between; even spreads; what cannot be."""

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from lean_notch.acts.moving import aligned, centred_between, measured_from, moved_by, spread_evenly
from lean_notch.design import users
from lean_notch.design.sentence import plain, sentence, titles_of
from lean_notch.edits import Edit, edit_job
from lean_notch.ground.errors import NotchError
from lean_notch.job import compute
from plates import disc, made, plate, rectangle


def centre(part, number=0):
    holes = sorted(part.region.holes, key=lambda hole: hole.box)
    left, low, right, high = holes[number].box
    return ((left + right) / 2, (low + high) / 2)


@pytest.mark.parametrize(
    ("place", "wanted"),
    [
        ({"x": 12, "from_x": "edge:blank.right", "y": 7, "from_y": "edge:blank.top"}, (100 - 12 - 4, 60 - 7 - 4)),
        ({"x": 12, "from_x": "edge:blank.right", "y": 30, "anchor": "centre"}, (88, 30)),
        ({"x": -10, "from_x": "corner:blank.top-right", "y": -5, "from_y": "corner:blank.top-right"}, (90, 55)),
        ({"x": 0, "from_x": "middle:blank.top", "y": 20}, (50, 20)),
        ({"x": 0, "from_x": "edge:blank.left", "to_x": "edge:blank.right", "y": 30}, (50, 30)),
        ({"x": 3, "from_x": "edge:blank.left", "to_x": "edge:blank.right", "y": 30}, (53, 30)),
        ({"x": 20, "y": 30, "anchor": "left"}, (24, 30)),
        ({"x": 20, "y": 30, "anchor": "top-right"}, (16, 26)),
    ],
)
def test_a_place_is_measured_from_what_is_known(place, wanted):
    assert centre(made(disc("h", 8, **place))) == pytest.approx(wanted)


def test_from_an_opening_distances_count_into_the_board():
    window = rectangle("window", 20, 20, "cut", x=10, y=20)
    part = made(window, disc("h", 8, x=5, from_x="edge:window.right", y=0, from_y="centre:window"))
    assert centre(part, 1) == pytest.approx((30 + 5 + 4, 30))


def test_what_is_measured_from_follows_and_renaming_follows_too():
    window = rectangle("window", 20, 20, "cut", x=10, y=20)
    job = plate(window, disc("h", 8, x=5, from_x="edge:window.right", y=30))
    moved = edit_job(job, [Edit("put", "parts/plate/steps/window/x", "30")])
    assert centre(compute(moved).build.part("plate"), 1) == pytest.approx((59, 30))
    renamed = edit_job(job, [Edit("rename", "parts/plate/steps/window", to="light")])
    step = renamed.design.parts[0].step("h")
    assert step.from_x == "edge:light.right"
    assert not compute(renamed).build.failed


@settings(max_examples=40, deadline=None)
@given(st.floats(25, 155), st.floats(0, 360), st.lists(st.floats(2, 9), min_size=2, max_size=4))
def test_a_corners_bisector_goes_through_the_centre_of_every_circle_that_touches_both_sides(angle, turn, radii):
    """Euclid, Elements IV 4: parts placed by their edges only, at any corner of any triangle."""
    a = math.radians(angle)
    ends = [(0.0, 0.0), (300.0, 0.0), (300 * math.cos(a), 300 * math.sin(a))]
    t = math.radians(turn)
    nodes = [
        {"id": f"n{i}", "x": x * math.cos(t) - y * math.sin(t), "y": x * math.sin(t) + y * math.cos(t)}
        for i, (x, y) in enumerate(ends)
    ]
    outline = {"kind": "shape", "id": "tri", "shape": {"kind": "outline", "nodes": nodes}}
    ground = {"kind": "shape", "id": "blank", "does": "add", "shape": {"kind": "disc", "diameter": 1}}
    circles = [
        disc(f"c{i}", 2 * radius, x=0, from_x="edge:tri.n0", y=0, from_y="edge:tri.n2", does="mark", operation="score")
        for i, radius in enumerate(radii)
    ]
    part = made(outline, *circles, blank=ground)
    bisector = t + a / 2
    for mark, radius in zip(part.marks, radii, strict=True):
        ring = mark.regions[0].outer
        assert abs(ring.y * math.cos(bisector) - ring.x * math.sin(bisector)) < 1e-8
        assert math.hypot(ring.x, ring.y) == pytest.approx(radius / math.sin(a / 2), rel=1e-9)


def test_a_turned_shape_goes_by_its_own_corners_and_edges():
    bar = {**rectangle("bar", 40, 10, x=0, y=-10), "turn": 90, "anchor": "bottom-left", "from_x": "corner:blank.top-left",
           "from_y": "corner:blank.top-left"}  # fmt: skip
    part = made(bar)
    assert part.box == pytest.approx((-10, 0, 100, 90))
    by_edge = made({**bar, "anchor": "left", "turn": 0, "y": 0})
    assert by_edge.box == pytest.approx((0, 0, 100, 65))


@pytest.mark.parametrize(
    ("place", "field", "said"),
    [
        (
            {"x": 1, "from_x": "edge:blank.rigth", "y": 30},
            "from_x",
            "No step before this one has the edge “blank.rigth”",
        ),
        ({"x": 1, "from_x": "centre:later", "y": 30}, "from_x", "No step before this one"),
        ({"x": 1, "from_x": "centre:h", "y": 30}, "from_x", "No step before this one"),
        ({"x": 1, "from_x": "edge:blank.top", "y": 3, "from_y": "edge:blank.bottom"}, "from_y", "the same way"),
        ({"x": 1, "y": 1, "anchor": "nose"}, "anchor", "no anchor “nose”"),
        ({"x": 0, "from_x": "edge:blank.left", "to_x": "edge:blank.top", "y": 30}, "to_x", "slanted edge"),
        ({"y": 30, "pattern": {"kind": "spread", "count": 40}}, "pattern/count", "do not fit into 100 mm"),
        (
            {"y": 30, "pattern": {"kind": "spread", "count": 3, "start": "edge:blank.none"}},
            "pattern/start",
            "No step before",
        ),
    ],
)
def test_what_cannot_be_measured_from_is_said_at_its_field_and_the_part_stays(place, field, said):
    part = made(disc("h", 8, **{"x": 0, **place}), disc("later", 4, x=90, y=50))
    assert part.failed.error.field == f"parts/plate/steps/h/{field}"
    assert said in part.failed.error.why
    assert part.region.area == 6000


@pytest.mark.parametrize(
    ("pattern", "xs"),
    [
        ({"count": 3}, [23, 50, 77]),  # gaps (100 - 24) / 4 = 19
        ({"count": 3, "margin": 6}, [10, 50, 90]),
        ({"count": 3, "by": "centres"}, [25, 50, 75]),
        ({"count": 2, "start": "middle:blank.bottom", "end": "edge:blank.right"}, [65.3333, 84.6667 - 0.0]),
        ({"count": 1}, [50]),
    ],
)
def test_copies_are_spread_evenly(pattern, xs):
    part = made(disc("h", 8, y=30, pattern={"kind": "spread", **pattern}))
    assert sorted(hole.x for hole in part.region.holes) == pytest.approx(xs, abs=1e-3)


def test_steps_are_moved_measured_from_aligned_and_spread_by_edits():
    job = plate(
        disc("a", 8, x=20, y=20), disc("b", 8, x="width/2", y=31), disc("c", 10, x=85, y=44),
        dimensions=[{"name": "width", "title": "width", "length": "100", "chosen": True}],
    )  # fmt: skip
    result = compute(job)

    def after(edits):
        part = compute(edit_job(job, edits)).build.part("plate")
        return {one.step: dict(one.points)[f"centre:{one.step}"] for one in part.named}

    start = after([])
    moved = after(moved_by(result, "plate", ["a", "b"], 2.5, -1))
    assert moved["a"] == pytest.approx((22.5, 19))
    assert moved["b"] == pytest.approx((52.5, 30))
    typed = edit_job(job, moved_by(result, "plate", ["b"], 2.5, 0)).design.parts[0].step("b").x
    assert typed.text == "width/2 + 2.5 mm"
    for of in ("edge:blank.right", "corner:blank.top-left", "middle:blank.bottom", "centre:a", ""):
        assert after(measured_from(result, "plate", "c", of))["c"] == pytest.approx(start["c"])
    from_right = edit_job(job, measured_from(result, "plate", "c", "edge:blank.right"))
    assert from_right.design.parts[0].step("c").x.text == "10"
    back = edit_job(from_right, moved_by(compute(from_right), "plate", ["c"], -3, 0))
    assert back.design.parts[0].step("c").x.text == "13"
    between = after(centred_between(result, "plate", "c", "edge:blank.left", "edge:blank.right", "x"))
    assert between["c"][0] == pytest.approx(50)
    lined = after(aligned(result, "plate", ["a", "c"], "bottom"))
    assert lined["c"][1] - 5 == pytest.approx(lined["a"][1] - 4)
    even = after(spread_evenly(result, "plate", ["a", "c", "b"], "x"))
    assert even["b"][0] - 4 - (20 + 4) == pytest.approx(80 - (even["b"][0] + 4))


def test_what_cannot_be_placed_is_refused():
    result = compute(
        plate(disc("a", 8, y=30, pattern={"kind": "spread", "count": 3}), {"kind": "grow", "id": "g", "by": 0})
    )
    for ask in (
        lambda: moved_by(result, "plate", ["a"], 1, 0),
        lambda: moved_by(result, "plate", ["g"], 1, 0),
        lambda: moved_by(result, "none", ["a"], 1, 0),
        lambda: aligned(result, "plate", ["a"], "left"),
        lambda: spread_evenly(result, "plate", ["a", "a"], "x"),
        lambda: measured_from(result, "plate", "a", "edge:later.top"),
    ):
        with pytest.raises(NotchError):
            ask()


def test_a_step_is_a_sentence_and_says_what_it_follows():
    job = plate(
        disc("h", "2*thickness", x=12, from_x="edge:blank.right", y=0, from_y="edge:blank.bottom", to_y="edge:blank.top"),
        {"kind": "corner", "id": "soft", "which": "inner", "size": 2},
        dimensions=[{"name": "gap", "title": "gap", "length": "2*thickness"}, {"name": "far", "title": "far", "length": "gap + 1"}],
    )  # fmt: skip
    part = job.design.parts[0]
    said = [plain(sentence(step, titles_of(job.design, part), first=i == 0)) for i, step in enumerate(part.steps)]
    assert said == [
        "Start from a rectangle 100 mm × 60 mm",
        "Cut a hole Ø 2*thickness, 12 mm from the right edge of blank and centred between the bottom and the top of blank",
        "Round all inner corners 2 mm",
    ]
    follow = users(job.design)
    assert follow["thickness"].direct == ("parts/plate/steps/h", "dimensions/gap")
    assert follow["thickness"].by_way == ("dimensions/far",)


@pytest.mark.parametrize(("which", "gone"), [("all", 8), ("outer", 4), ("inner", 4)])
def test_corners_are_chosen_by_what_they_are(which, gone):
    """A square corner rounded by r loses (1 - π/4) r², an inside one gains as much."""
    part = made(
        rectangle("window", 40, 20, "cut", x=30, y=20), {"kind": "corner", "id": "soft", "which": which, "size": 4}
    )
    each = (1 - math.pi / 4) * 16
    change = {"all": 0.0, "outer": -4 * each, "inner": 4 * each}[which]
    assert part.region.area - (6000 - 800) == pytest.approx(change, abs=1e-9)
    arcs = sum(segment.bulge != 0 for ring in part.region.rings for segment in ring.segments)
    assert arcs == gone


@pytest.mark.parametrize("anchor", ["", "left", "centre"])
@pytest.mark.parametrize(
    "of", ["", "edge:blank.left", "edge:blank.right", "edge:blank.top", "centre:hole", "side:hole.left"]
)
def test_what_is_on_the_back_is_moved_and_measured_as_it_is_seen(of, anchor):
    """The wrong page: dragged to the right, a mark on the back went to the left. Measuring it anew does not move it."""
    job = plate(
        rectangle("ear", 20, 20, x=-15, y=20), disc("hole", 8, x=30, y=20),
        rectangle("mark", 12, 6, "mark", operation="score", x=22, y=35, face="back", anchor=anchor),
        rectangle("later", 30, 10, x=95, y=5),
    )  # fmt: skip

    def box(one):
        [mark] = compute(one).build.parts[0].marks
        return mark.regions[0].box

    was = box(job)
    anew = edit_job(job, measured_from(compute(job), "plate", "mark", of))
    assert box(anew) == pytest.approx(was)
    moved = edit_job(anew, moved_by(compute(anew), "plate", ["mark"], 4, -2))
    assert box(moved) == pytest.approx((was[0] + 4, was[1] - 2, was[2] + 4, was[3] - 2))


def test_what_is_on_the_back_is_aligned_and_spread_as_it_is_seen():
    job = plate(
        *(rectangle(name, 12, 6, "mark", operation="score", x=x, y=10 * i + 5, face="back")
          for i, (name, x) in enumerate((("a", 5), ("b", 31), ("c", 80)))),
    )  # fmt: skip

    def lefts(one):
        return [mark.regions[0].box[0] for mark in compute(one).build.parts[0].marks]

    first = lefts(job)[0]
    assert lefts(edit_job(job, aligned(compute(job), "plate", ["a", "b", "c"], "left"))) == pytest.approx([first] * 3)
    spread = lefts(edit_job(job, spread_evenly(compute(job), "plate", ["a", "b", "c"], "x")))
    assert spread[0] - spread[1] == pytest.approx(spread[1] - spread[2])
