"""Order, starts, lead-ins, hatching, time and profiles: what a machine is given, and how long it takes."""

import math
import random
from dataclasses import replace

import pytest
import shapely
from conftest import edited, make_basis, make_board, make_job, with_marks
from hypothesis import given
from hypothesis import strategies as st
from lean_notch.basis import USUAL_SPEEDS, Basis, Machine, Speeds, Tool
from lean_notch.basis.settings import in_use, most_telling, not_used, setting_from_json, settings_for
from lean_notch.cutting import Layer, Profile, estimate, profile_from_json, profile_to_json
from lean_notch.cutting.hatch import hatched
from lean_notch.cutting.order import Step, Stretch, shortest, travel
from lean_notch.cutting.starts import Waste, led_in, starting_at, starts
from lean_notch.cutting.time import path_seconds, travel_seconds
from lean_notch.edits import Edit
from lean_notch.geometry import Circle, Region, Trace, rectangle
from lean_notch.ground.errors import NotchError
from lean_notch.ground.operations import OPERATIONS
from lean_notch.hand_over.contents import left_out
from lean_notch.hand_over.files import write_files
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute
from plates import plate
from shapes import polygon, random_region

MARKS = [
    {"id": "a", "kind": "text", "operation": "engrave", "text": "Bog", "lengths": {"x": "20", "y": "20", "height": "12"}},
    {"id": "b", "kind": "line", "operation": "score", "lengths": {"x": "20", "y": "15", "to_x": "90", "to_y": "15"}},
    {"id": "c", "kind": "line", "operation": "fold", "lengths": {"x": "20", "y": "45", "to_x": "90", "to_y": "45"}},
    {"id": "d", "kind": "rectangle", "operation": "pocket", "lengths": {"x": "80", "y": "20", "width": "20", "height": "15", "depth": "1.5"}},
    {"id": "e", "kind": "circle", "operation": "cut", "lengths": {"x": "120", "y": "30", "diameter": "9"}},
]  # fmt: skip


@pytest.fixture
def marked(job):
    return with_marks(job, *MARKS)


def without_fold(job):
    """Of a part that is folded the flat length is not known, and so it is not all looked at."""
    return edited(job, Edit("drop", "parts/front/steps/c"))


def test_engraving_comes_first_and_outlines_last(marked):
    """Common practice: what shows before what weakens, holes before outlines, since a part that is cut out may move."""
    paths = compute(marked).plan.sheets[0].paths
    ranks = [list(OPERATIONS).index(path.operation) for path in paths]
    assert ranks == sorted(ranks)
    cuts = [path for path in paths if path.operation == "cut"]
    for copy in {(path.part, path.copy) for path in cuts}:
        own = [path.inner for path in cuts if (path.part, path.copy) == copy]
        assert own == sorted(own, reverse=True)


def test_the_workshops_own_order_is_kept(marked):
    order = ("score", "engrave", "fold", "pocket", "cut", "reference")
    paths = compute(marked, Profile(order=order)).plan.sheets[0].paths
    assert paths[0].operation == "score"


def test_what_is_not_included_is_not_there(marked):
    layers = {**Profile().layers, "engrave": Layer("ENGRAVE", "#CC79A7", include=False)}
    result = compute(without_fold(marked), Profile(layers=layers))
    assert all(path.operation != "engrave" for path in result.plan.sheets[0].paths)
    proof = prove_job(result)
    assert (proof.verdict, [one.code for one in proof.findings]) == ("as-far-as-seen", ["operation-not-given"])
    assert left_out(result) == ("engrave",)
    assert left_out(compute(marked)) == ()


def test_a_pocket_is_cut_inside_its_outline_by_half_the_tool(marked):
    pocket = next(path for path in compute(marked).plan.sheets[0].paths if path.operation == "pocket")
    left, low, right, high = pocket.shape.box
    assert (right - left, high - low) == pytest.approx((20 - 0.14, 15 - 0.14))
    assert pocket.depth == 1.5


@pytest.mark.parametrize("seed", range(5))
def test_the_order_shortens_the_way(seed):
    """Outside check: a tour of random points by this heuristic is within the known 5 % of 2-opt over the best for a
    uniform square, 0.7124 sqrt(n A) (Beardwood, Halton and Hammersley 1959; constant from memory)."""
    rng = random.Random(seed)
    count, side = 400, 1000.0
    stretches = [Stretch(((rng.uniform(0, side), rng.uniform(0, side)),)) for _ in range(count)]
    plain = [Step(i, 0) for i in range(count)]
    steps = shortest(stretches, (0.0, 0.0))
    assert sorted(step.index for step in steps) == list(range(count))
    way = travel(stretches, steps, (0.0, 0.0))
    assert way < 0.1 * travel(stretches, plain, (0.0, 0.0))
    assert way < 1.2 * 0.7124 * math.sqrt(count * side * side)


@given(st.lists(st.tuples(st.integers(0, 100), st.integers(0, 100)), min_size=1, max_size=9))
def test_few_stretches_are_all_done_and_never_the_longer_way(places):
    stretches = [
        Stretch(((float(x), float(y)), (float(x) + 5, float(y))), open=i % 2 == 0) for i, (x, y) in enumerate(places)
    ]
    steps = shortest(stretches, (0.0, 0.0))
    assert sorted(step.index for step in steps) == list(range(len(places)))
    greedy = [Step(i, 0) for i in range(len(places))]
    assert travel(stretches, steps, (0.0, 0.0)) <= travel(stretches, greedy, (0.0, 0.0)) + 5 * len(places)


def test_ordering_a_sheet_saves_travel(job):
    many = with_marks(job, {
        "id": "h", "kind": "circle", "operation": "cut", "columns": 9, "rows": 6,
        "lengths": {"x": "20", "y": "20", "diameter": "4", "dx": "12", "dy": "12"},
    }, part="base")  # fmt: skip
    sheet = compute(many).plan.sheets[0]
    assert sheet.travel < 0.8 * sheet.travel_unordered


def test_cuts_start_on_straight_runs_and_not_on_joint_faces(job):
    """Each start lies in the middle of a straight piece; where a part has an edge without a joint, on that one."""
    result = compute(job)
    placed = {(p.part, p.copy): p.motion for p in result.layout.placed}
    for path in result.plan.sheets[0].paths:
        first, last = path.shape.segments[0], path.shape.segments[-1]
        assert first.bulge == last.bulge == 0
        assert first.length == pytest.approx(last.length)
        if path.part != "base":  # the top edge of a side has no joint
            _, y = path.shape.vertices[0].point
            top = placed[path.part, path.copy].region(result.build.part(path.part).region).box[3]
            turned = placed[path.part, path.copy].angle
            assert turned or y == pytest.approx(top + 0.07)


def test_a_ring_starts_elsewhere_without_changing():
    ring = rectangle(0, 0, 30, 10)
    best = starts(ring, ())[0]
    moved = starting_at(ring, best)
    assert moved.vertices[0].point == best.point == (15, 0)
    assert (moved.area, moved.length) == pytest.approx((300, 80))
    assert starting_at(Circle(0, 0, 5), starts(Circle(0, 0, 5), ())[0]) == Circle(0, 0, 5)


WIDE = Waste([], 0.2, 500, 500)


def test_a_lead_in_comes_from_the_waste():
    outer = starting_at(rectangle(50, 50, 30, 10), starts(rectangle(50, 50, 30, 10), ())[0])
    led = led_in(outer, 2, WIDE)
    assert isinstance(led, Trace)
    assert led.vertices[0].y < 50
    assert led.vertices[-1].point == led.vertices[1].point
    hole = Region(rectangle(0, 0, 50, 50), (Circle(25, 25, 6),)).holes[0]
    start = led_in(hole, 2, WIDE).vertices[0].point
    assert math.dist(start, (25, 25)) < 6
    narrow = Region(rectangle(0, 0, 9, 9), (Circle(4, 4, 0.3, hole=True),))
    assert (
        led_in(narrow.holes[0], 4, Waste([Region(narrow.outer, (Circle(4, 4, 0.4, hole=True),))], 0.2, 50, 50)) is None
    )


def test_a_lead_in_keeps_out_of_the_next_part_and_says_where_it_cannot():
    """Parts 1.5 mm apart: 3 mm slantwise would come 0.6 mm into the next one. By hand: 3 / sqrt 2 = 2.1 > 1.5."""
    job = edited(make_job(make_basis(sheet=(200, 300)), width="120", depth="60", height="40"), spacing="1.5")
    for length in (3.0, 5.0):
        result = compute(job, Profile(lead_in_mm=length))
        proof = prove_job(result)
        assert proof.fits
        assert all(part.ok for part in proof.parts)
        led = [path for path in result.plan.sheets[0].paths if not path.closed]
        told = [one for one in result.plan.findings if one.code == "no-lead-in"]
        assert len(led) + sum(one.amount for one in told) == 5


def test_a_lead_that_cuts_the_next_part_is_found_by_the_proof(monkeypatch):
    """What the cut plan is careful about, the proof does not take on trust."""
    from lean_notch.cutting import starts as room

    monkeypatch.setattr(room.Waste, "clear", lambda *_: True)
    job = edited(make_job(make_basis(sheet=(200, 300)), width="120", depth="60", height="40"), spacing="1.5")
    proof = prove_job(compute(job, Profile(lead_in_mm=5.0)))
    [first, *_] = [one for one in proof.findings if one.code in ("off-size", "part-in-pieces")]
    assert proof.verdict == "does-not-fit"
    assert first.place


@pytest.mark.parametrize("file_format", ["svg", "dxf"])
def test_a_sheet_with_lead_ins_is_proved_like_any(marked, file_format):
    result = compute(without_fold(marked), Profile(lead_in_mm=1.0))
    assert all(not path.closed for path in result.plan.sheets[0].paths if path.operation == "cut")
    proof = prove_job(result, file_format)
    assert proof.fits
    assert len(proof.parts) == 5


@pytest.mark.parametrize("seed", range(20))
def test_hatch_lines_fill_an_area_and_nothing_else(seed):
    """Outside check: GEOS finds every line within the area, and their length x spacing is the area."""
    region, spacing = random_region(random.Random(seed)), 0.2
    lines = hatched([region], spacing)
    shape = polygon(region, 1e-4)
    together = shapely.MultiLineString([[v.point for v in line.vertices] for line in lines])
    assert together.length * spacing == pytest.approx(region.area, rel=0.02, abs=0.5)
    assert together.difference(shape.buffer(0.002)).length < 0.01
    assert all(line.vertices[0].y == line.vertices[1].y for line in lines)


def test_a_straight_way_takes_its_closed_form():
    """Uniform acceleration: v/a to speed up and down each, and the rest at v; or 2 sqrt(s/a) if v is never reached."""
    assert travel_seconds(100, 10, 1000) == pytest.approx(100 / 10 + 10 / 1000)
    assert travel_seconds(0.01, 100, 1000) == pytest.approx(2 * math.sqrt(0.01 / 1000))
    assert travel_seconds(0, 100, 1000) == 0


def test_corners_and_small_arcs_cost_time():
    straight = rectangle(0, 0, 400, 0.001).segments[:1]
    square = rectangle(0, 0, 100, 100).segments
    assert path_seconds(square, 200, 1000) > path_seconds(straight, 200, 1000) * 1.2
    circle = Circle(0, 0, 2).segments
    assert path_seconds(circle, 1000, 1000) > Circle(0, 0, 2).length / math.sqrt(1000 * 2)
    assert path_seconds((), 10, 10) == 0


def test_an_estimate_adds_up_by_part_and_operation(marked):
    plan, basis = compute(marked).plan.sheets[0], marked.basis.of("main")
    time = estimate(plan, basis)
    assert time.total == pytest.approx(sum(time.by_operation.values()) + time.travel)
    assert sum(time.by_part.values()) == pytest.approx(sum(time.by_operation.values()))
    assert set(time.by_operation) == {"engrave", "score", "fold", "pocket", "cut"}
    slow = replace(basis, machine=replace(basis.machine, speeds=replace(USUAL_SPEEDS["laser"], cut=5)))
    assert estimate(plan, slow).by_operation["cut"] > 2 * time.by_operation["cut"]
    filled = compute(marked, Profile(engrave="filled")).plan.sheets[0]
    hatch = compute(marked, Profile(engrave="hatch", hatch_mm=0.1)).plan.sheets[0]
    one, other = (estimate(sheet, basis).by_operation["engrave"] for sheet in (filled, hatch))
    assert one < other < 12 * one


def routed(thick, tool):
    board = make_board((thick - 0.05, thick + 0.04), kerf=tool)
    return replace(board, machine=replace(board.machine, kind="router"))


def test_a_tool_goes_round_as_often_as_the_board_is_deep():
    """12 mm and a hair with a 6 mm tool: three times round; with one of 4: four times. The way of one round is known."""
    basis = routed(12, 6.0)
    job = replace(plate(), basis=Basis((("main", basis),)), layouts=())
    [path] = [path for path in compute(job).plan.sheets[0].paths if path.operation == "cut"]
    once = path_seconds(path.shape.segments, USUAL_SPEEDS["router"].cut, USUAL_SPEEDS["router"].acceleration)
    plan = compute(job).plan.sheets[0]
    down = (12.04 + 0.05) / (USUAL_SPEEDS["router"].cut / 2)
    assert estimate(plan, basis).by_operation["cut"] == pytest.approx(3 * once + down)
    assert estimate(plan, routed(12, 4.0)).by_operation["cut"] == pytest.approx(4 * once + down)
    laser = replace(basis, machine=replace(basis.machine, kind="laser", speeds=USUAL_SPEEDS["router"]))
    assert estimate(plan, laser).by_operation["cut"] == pytest.approx(once)


@pytest.mark.parametrize(("wide", "high"), [(80, 50), (40, 40), (90, 20)])
def test_clearing_a_pocket_takes_as_long_as_its_rings_half_a_tool_apart(wide, high):
    """Quadrature: the rings that a tool goes, each half its width inside the last, laid down by another library."""
    tool, basis = 3.0, routed(12, 3.0)
    pocket = {
        "kind": "shape", "id": "p", "does": "mark", "operation": "pocket", "depth": "4", "x": 5, "y": 5,
        "shape": {"kind": "rectangle", "width": wide, "height": high},
    }  # fmt: skip
    job = replace(plate(pocket), basis=Basis((("main", basis),)), layouts=())
    seconds = estimate(compute(job).plan.sheets[0], basis).by_operation["pocket"]
    way, ring = 0.0, shapely.box(0, 0, wide, high).buffer(-tool / 2, join_style="mitre")
    while not ring.is_empty:
        way, ring = way + ring.length, ring.buffer(-tool / 2, join_style="mitre")
    depths = 2  # 4 mm in steps of no more than 3
    seconds -= 4 / (USUAL_SPEEDS["router"].pocket / 2)  # straight down
    assert seconds == pytest.approx(depths * way / USUAL_SPEEDS["router"].pocket, rel=0.1)


def cut_with(**values):
    given = {
        "stock": "Birch ply", "kind": "plywood", "thickness": 12, "operation": "cut", "date": "2026-11-02", "tool": "",
        "feed": 1800,
    }  # fmt: skip
    return setting_from_json(given | values)


def test_time_follows_what_was_set():
    """8,203 mm at 1800 mm a minute in two passes is 9 min 7 s, whatever the machine's own speeds are: feed, passes and the way
    down by hand."""
    basis = routed(12, 6.0)
    job = replace(plate(), basis=Basis((("main", basis),)), layouts=())
    plan = compute(job).plan.sheets[0]
    [path] = [path for path in plan.paths if path.operation == "cut"]
    once = path_seconds(path.shape.segments, 30, USUAL_SPEEDS["router"].acceleration)
    down = 12.09 / 15
    for values, passes, further in (
        ({"depth": 3}, 5, down), ({"passes": 2}, 2, down), ({}, 3, down), ({"depth": 6.5, "passes": 4}, 4, down),
        ({"depth": 6.5, "ramp": 3}, 2, 12.09 / math.tan(math.radians(3)) / 30),
    ):  # fmt: skip
        seconds = estimate(plan, basis, {"cut": cut_with(**values)}).by_operation["cut"]
        assert seconds == pytest.approx(passes * once + further), values
    laser = replace(basis, machine=replace(basis.machine, kind="laser"))
    beam = estimate(plan, laser, {"cut": cut_with(speed=30, passes=2)}).by_operation["cut"]
    acceleration = USUAL_SPEEDS["laser"].acceleration
    assert beam == pytest.approx(2 * path_seconds(path.shape.segments, 30, acceleration))


@pytest.mark.parametrize(
    ("given", "why"),
    [
        ({}, ""),
        ({"tool": "3 mm"}, "with 3 mm, not with 6 mm"),
        ({"tool": ""}, "with a tool not written down, not with 6 mm"),
        ({"stock": "Oak ply"}, "for Oak ply, not for Birch ply"),
        ({"thickness": 9}, "for 9 mm, not for 12 mm"),
        ({"result": "charred"}, "charred"),
        ({"feed": None, "speed": 30}, "without a feed"),
    ],
)
def test_a_setting_of_another_tool_or_board_is_not_used(given, why):
    basis = routed(12, 6.0)
    tool = Tool("6 mm", 6.0, 20.0)
    machine = replace(basis.machine, tools=(tool,), tool="6 mm")
    board = replace(basis.stock, name="Birch ply")
    setting = cut_with(**{"tool": "6 mm", **given})
    assert not_used(setting, board, machine) == why
    assert in_use(most_telling([setting], board, machine), board, machine) == ({} if why else {"cut": setting})
    # One with the tool that is in the spindle comes first, though the other is newer.
    newer = cut_with(tool="3 mm", date="2026-11-09")
    assert settings_for([newer, cut_with(tool="6 mm")], board, "cut", "6 mm")[0].tool == "6 mm"


@pytest.mark.parametrize("speed", [0, -1, math.inf, math.nan])
def test_speeds_that_are_none_are_refused(speed):
    with pytest.raises(NotchError) as caught:
        Speeds(speed, 1, 1, 1, 1, 1)
    assert caught.value.field == "machine.speeds.cut"


@pytest.mark.parametrize(
    ("document", "field"),
    [
        ({"layers": {"cut": {"name": "SCORE"}}}, "layers"),
        ({"layers": {"glue": {"name": "GLUE"}}}, "layers"),
        ({"layers": {"cut": {"name": "<cut>"}}}, "layers.cut.name"),
        ({"layers": {"cut": {"colour": "red"}}}, "layers.cut.colour"),
        ({"order": ["cut", "cut"]}, "order"),
        ({"split": "page"}, "split"),
        ({"unit": "furlong"}, "unit"),
        ({"origin": "middle"}, "origin"),
        ({"stroke_mm": "0"}, "stroke_mm"),
        ({"hatch_mm": "-1"}, "hatch_mm"),
        ({"lead_in_mm": "50"}, "lead_in_mm"),
        ({"name": ""}, "name"),
        ([], "profile"),
    ],
)
def test_what_is_wrong_with_a_profile_is_said_at_its_place(document, field):
    with pytest.raises(NotchError) as caught:
        profile_from_json(document)
    assert caught.value.field == field


def test_a_profile_keeps_what_it_says():
    profile = Profile(
        name="Mill Lane", split="part", unit="in", origin="centre", y_down=True, engrave="hatch", lead_in_mm=1.5
    )
    assert profile_from_json(profile_to_json(profile)) == profile
    assert profile_from_json({}) == Profile()


def test_a_layers_depth_does_not_hide_its_operation():
    plain = Profile()
    assert plain.operation_of("pocket-1.5mm") == plain.operation_of("POCKET_1_5MM") == "pocket"
    assert plain.operation_of("pockets") is None


@pytest.mark.parametrize("split", ["sheet", "part", "operation"])
@pytest.mark.parametrize("file_format", ["svg", "dxf", "dxf-r12", "pdf"])
def test_files_are_split_as_asked_and_the_same_each_time(marked, split, file_format):
    profile = Profile(split=split, labels=True, reference_square=True)
    files = write_files(compute(marked, profile), file_format)
    assert len(files) == {"sheet": 1, "part": 5, "operation": 6}[split]
    assert len({file.name for file in files}) == len(files)
    assert all("3.06mm" in file.name for file in files)
    assert files == write_files(compute(marked, profile), file_format)


def test_a_router_is_slower_than_a_laser():
    laser, router = Machine("a", "laser", 9, 9, 0.1), Machine("b", "router", 9, 9, 3)
    assert laser.usual.travel > router.usual.travel


def test_copies_and_thick_kerfs_are_lost_one_by_one():
    job = with_marks(edited(make_job(make_basis(kerf=2.0)), spacing="5"), {"id": "s", "kind": "circle", "operation": "cut", "lengths": {"x": "50", "y": "50", "diameter": "1.5"}},
        {"id": "l", "kind": "circle", "operation": "cut", "lengths": {"x": "80", "y": "50", "diameter": "9"}}, part="base")  # fmt: skip
    lost = [finding for finding in compute(job).plan.findings if finding.code == "tool-too-wide"]
    assert [finding.place for finding in lost] == [pytest.approx((50, 50))]
