"""What a board and a tool ask of a design: the wrong designs first, each refused or named, then what is in order."""

import math
from dataclasses import replace

import pytest
import shapely
from conftest import make_basis
from lean_notch.basis import Limits, stock_from_json, stock_to_json
from lean_notch.basis.stock import KINDS
from lean_notch.design_rules import webs as thin_webs
from lean_notch.edits import Edit, edit_job
from lean_notch.geometry import loops
from lean_notch.ground.errors import NotchError
from lean_notch.job import Job, compute
from lean_notch.lettering import SINGLE_STROKE
from plates import disc, plate, rectangle


def on(job, kind="plywood", **limits):
    """The job on a board of that kind, with limits of its own."""
    board = job.basis.of("main")
    stock = replace(board.stock, kind=kind, limits=Limits(**limits))
    return replace(job, basis=job.basis.with_board("main", replace(board, stock=stock)))


def routed(job):
    board = job.basis.of("main")
    return replace(
        job,
        basis=job.basis.with_board(
            "main", replace(board, machine=replace(board.machine, kind="router", kerf=6.0, found=None))
        ),
    )


def found(job: Job):
    return {one.code: one for one in compute(job).limits}


def mended(job: Job, code: str) -> Job:
    mend = found(job)[code].mend
    assert mend
    return edit_job(job, [Edit("put", mend.path, mend.value)])


def test_cloth_wants_three_millimetres_between_shapes():
    """Common practice; the same holes in plywood pass."""
    holes = [disc("a", 8, x=40, y=30), disc("b", 8, x=50.5, y=30)]
    assert found(plate(*holes)) == {}
    web = found(on(plate(*holes), "cloth"))["web-thin"]
    assert (web.severity, web.amount, web.place) == (
        "look",
        pytest.approx(2.5, abs=1e-3),
        pytest.approx((45.25, 30), abs=0.05),
    )
    assert web.mend.says == "Move b 0.5 mm to the right"
    assert "web-thin" not in found(mended(on(plate(*holes), "cloth"), "web-thin"))


def test_the_width_of_a_web_is_what_a_geometry_library_measures():
    job = on(plate(disc("a", 9, x=20, y=30), rectangle("w", 12, 20, "cut", x=25.7, y=22)), web=2)
    region = compute(job).build.part("plate").region
    _, holes = loops(region, 1e-3)
    apart = shapely.Polygon(holes[0]).distance(shapely.Polygon(holes[1]))
    assert found(job)["web-thin"].amount == pytest.approx(apart, abs=0.01)


@pytest.mark.parametrize(
    ("step", "mend"),
    [
        (disc("h", 8, x=95, y=30), "0.5 mm to the left"),  # 1 mm to the right edge
        (disc("h", 8, x=30, y=5), "0.5 mm up"),
        (disc("h", 8, x=1, from_x="edge:blank.right", y=30), "0.5 mm to the left"),
        (disc("h", 8, x="width - 95", y=30), "0.5 mm to the right"),
    ],
)
def test_a_web_to_the_edge_is_mended_whatever_it_is_measured_from(step, mend):
    job = plate(step, dimensions=[{"name": "width", "title": "width", "length": "100", "chosen": True}])
    assert mend in found(job)["web-thin"].mend.says
    assert "web-thin" not in found(mended(job, "web-thin"))


def test_less_than_the_beam_is_a_stop():
    job = plate(disc("a", 8, x=40, y=30), disc("b", 8, x=48.1, y=30), kerf=0.2)
    assert found(job)["web-thin"].severity == "stop"
    assert found(plate(disc("h", 0.15, x=50, y=30), kerf=0.2))["hole-small"].severity == "stop"


def test_a_neck_of_one_outline_is_seen():
    bites = [rectangle("low", 4, 29.6, "cut", x=48, y=0), rectangle("high", 4, 29.6, "cut", x=48, y=30.4)]
    neck = found(on(plate(*bites), web=2))["web-thin"]
    assert neck.amount == pytest.approx(0.8, abs=0.02)
    assert neck.place == pytest.approx((50, 30), abs=2.5)
    assert "web-thin" not in found(on(plate(bites[0]), web=2))


def test_a_tongue_that_an_opening_leaves_is_seen_where_it_is_thin():
    """An opening round a disc of board that hangs on a neck of 0.9 mm; the same on one of 3 mm, and a plain slot, are left alone."""

    def keyhole(neck):
        ring = {"kind": "ring", "diameter": 30, "inside": 16}
        gap = rectangle("stay", neck, 12, "add", x=50 - neck / 2, y=35)
        return plate({"kind": "shape", "id": "round", "does": "cut", "shape": ring, "x": 50, "y": 30}, gap)

    thin = found(on(keyhole(0.9), web=2))["web-thin"]
    assert thin.amount == pytest.approx(0.9, abs=0.03)
    assert thin.place == pytest.approx((50, 41.5), abs=4)
    assert "web-thin" not in found(on(keyhole(3), web=2))
    assert "web-thin" not in found(on(plate(rectangle("slot", 30, 6, "cut", x=20, y=20)), web=2))


def test_small_holes_are_named_with_what_the_board_takes():
    job = plate(disc("h", 0.6, x=50, y=30))
    hole = found(job)["hole-small"]
    assert (hole.amount, hole.mend.says) == (pytest.approx(0.6), "Make it 1 mm")
    assert found(mended(job, "hole-small")) == {}


def test_letters_finer_than_the_beam_are_named():
    """The width of a stroke is about twice its area over its outline's length."""
    text = {
        "kind": "shape",
        "id": "t",
        "does": "mark",
        "x": 20,
        "y": 20,
        "shape": {"kind": "lettering", "text": "IIII", "height": 1.2},
    }
    fine = found(plate(text, kerf=0.3))["text-fine"]
    assert "strokes" in fine.why
    assert "text-fine" not in found(mended(plate(text, kerf=0.3), "text-fine"))
    low = found(plate(text, kerf=0.01))["text-fine"]
    assert "at least 2 mm can be read" in low.why
    stroke = {**text, "shape": {**text["shape"], "font": SINGLE_STROKE, "height": 5}}
    assert "text-fine" not in found(plate(stroke, kerf=0.3))


def test_inside_corners_that_a_tool_cannot_reach_are_counted():
    window = rectangle("window", 40, 20, "cut", x=30, y=20)
    router = routed(plate(window))
    tight = found(router)["corner-tight"]
    assert tight.why.startswith("4 inside corners of window stay round: the tool leaves 3 mm")
    assert "corner-tight" not in found(mended(router, "corner-tight"))
    assert "corner-tight" not in found(plate(window, kerf=0.15))


def test_a_cut_in_an_opening_cuts_nothing():
    job = plate(rectangle("window", 40, 20, "cut", x=30, y=20), disc("h", 8, x=50, y=30))
    assert found(job)["cut-in-void"].why == "H lies inside window: it cuts nothing."
    assert "cut-in-void" not in found(plate(rectangle("window", 40, 20, "cut", x=30, y=20), disc("h", 8, x=15, y=30)))
    arm = rectangle("arm", 40, 20, x=100, y=0)  # the plate is an L now, with nothing above the arm
    beside = found(plate(arm, disc("h", 8, x=120, y=45)))["cut-in-void"]
    assert beside.why == "H lies beside the board of Plate: it cuts nothing."
    biting = rectangle("bite", 20, 20, "cut", x=90, y=50)
    assert "cut-in-void" not in found(plate(biting, disc("over", 16, x=96, y=46)))


def test_an_opening_that_growing_closes_is_named_and_the_others_stay_known():
    """The silent design: a hole of 8 was gone once the outline had grown by 5, without a word."""
    grow = {"kind": "grow", "id": "more", "by": 5}
    job = plate(disc("h", 8, x=50, y=30), rectangle("window", 30, 20, "cut", x=60, y=20), grow)
    [finding] = [one for one in compute(job).build.findings if one.code == "opening-closed"]
    assert (finding.why, finding.field) == ("Growing Plate by 5 mm closes h.", "parts/plate/steps/more/by")
    part = compute(job).build.parts[0]
    assert [(one.title, one.regions[0].area) for one in part.openings] == [("window", pytest.approx(20 * 10))]
    assert "cut-in-void" not in found(job)
    less = plate(disc("h", 8, x=50, y=30), {**grow, "by": 3})
    assert [one.code for one in compute(less).build.findings] == []
    shrunk = compute(plate(disc("h", 8, x=50, y=30), {**grow, "by": -3})).build.parts[0]
    assert shrunk.openings[0].regions[0].area == pytest.approx(math.pi * 7**2)


def test_two_cuts_in_one_place_are_told():
    """The silent design: two holes in one place look like one, and the second is forgotten."""
    job = plate(disc("h", 8, x=50, y=30), disc("again", 8, x=50, y=30))
    finding = found(job)["cut-in-void"]
    assert (finding.why, finding.field) == (
        "Again lies where h is already: it cuts nothing.", "parts/plate/steps/again",
    )  # fmt: skip
    copies = disc("h", 8, x=50, y=30, pattern={"kind": "around", "count": 3, "x": 50, "y": 30})
    assert (
        found(plate(copies))["cut-in-void"].why == "2 of H lie where another of its copies is already: it cuts nothing."
    )
    assert "cut-in-void" not in found(plate(disc("h", 8, x=50, y=30), disc("other", 8, x=50, y=30.5)))


def test_many_findings_of_a_kind_are_a_few_and_a_count():
    grid = {"kind": "grid", "columns": 30, "rows": 10, "dx": 3, "dy": 5}
    job = on(plate(disc("h", 2, x=5, y=5, pattern=grid)), web=1.5)
    webs = [one for one in compute(job).limits if one.code == "web-thin"]
    assert len(webs) == 1
    assert "289 more as thin" in webs[0].why  # 10 rows of 29 gaps, less the one that is named


def test_a_boards_own_limits_are_kept_and_bounded():
    stock = make_basis().of("main").stock
    assert stock.least == (KINDS[stock.kind].web, 1.0, 2.0)
    document = {**stock_to_json(stock), "limits": {"web": "1/8 in", "density": "610"}}
    known = stock_from_json(document)
    assert known.least[0] == pytest.approx(3.175)
    assert known.density == 610
    for limits in ({"web": -1}, {"hole": "x"}, {"density": "heavy"}, {"text": 1e4}):
        with pytest.raises(NotchError) as error:
            stock_from_json({**document, "limits": limits})
        assert error.value.field.startswith("stock.limits.")


def test_what_a_part_weighs_is_area_times_thickness_times_density():
    from lean_notch.told.ledger import ledger

    job = on(plate(disc("h", 20, x=50, y=30)), density=800)
    rows = {row.key: row for row in ledger(compute(job))["part:plate"]}
    thickness = job.basis.of("main").thickness
    assert rows["weight"].value == pytest.approx((6000 - math.pi * 100) * thickness * 800 * 1e-6)


def test_a_stop_is_never_hidden_among_what_is_only_to_be_looked_at():
    """Fourteen holes that are small, and last of all one that the beam is wider than."""
    small = [disc(f"h{i}", 0.6, x=8 + 6 * i, y=20) for i in range(14)]
    result = compute(plate(*small, disc("gone", 0.1, x=50, y=40), kerf=0.2))
    holes = [one for one in result.limits if one.code == "hole-small"]
    assert [one.field for one in holes if one.severity == "stop"] == ["parts/plate/steps/gone"]
    [rest] = [one for one in holes if one.more]
    assert (rest.more, rest.mend) == (2, None)


def test_a_mend_is_the_same_whatever_bare_numbers_count_in():
    job = plate(disc("h", 8, x=95, y=30))
    mend = found(job)["web-thin"].mend
    for unit in ("mm", "in"):
        after = edit_job(job, [Edit("put", mend.path, mend.value)], unit)
        assert after.design.parts[0].step("h").x.mm() == pytest.approx(94.5)


@pytest.mark.parametrize(
    ("front", "back", "x", "told"),
    [
        ("1", "2.5", 60, "stop"),
        ("1", "1.9", 60, "look"),
        ("1", "1.5", 60, ""),
        ("1", "2.5", 15, ""),
        ("1.5", "1.54", 60, "stop"),
    ],
)
def test_pockets_of_both_faces_are_held_against_the_thinnest_place(front, back, x, told):
    """1 and 2.5 mm meet through a board of 3.06, and nobody said so. From the back 60 is 10 to 40 of the front."""

    def pocket(name, at, depth, face):
        shape = {"kind": "rectangle", "width": 30, "height": 20}
        return {
            "kind": "shape",
            "id": name,
            "does": "mark",
            "operation": "pocket",
            "depth": depth,
            "x": at,
            "y": 10,
            "shape": shape,
            "face": face,
        }

    job = plate(pocket("a", 10, front, "front"), pocket("b", x, back, "back"), readings=(3.04, 3.06, 3.08))
    found = [one for one in compute(job).limits if one.code == "pockets-meet"]
    assert [one.severity for one in found] == [told] * bool(told)
    if found:
        assert found[0].field == "parts/plate/steps/b/depth"
        assert found[0].place == pytest.approx((25, 20))


@pytest.mark.parametrize(("depth", "through"), [("3.03", False), ("3.04", True), ("3.05", True)])
def test_a_pocket_between_the_mean_and_the_thinnest_place_goes_through(depth, through):
    shape = {"kind": "rectangle", "width": 30, "height": 20}
    step = {
        "kind": "shape",
        "id": "a",
        "does": "mark",
        "operation": "pocket",
        "depth": depth,
        "x": 10,
        "y": 10,
        "shape": shape,
    }
    found = [one for one in compute(plate(step, readings=(3.04, 3.06, 3.08))).limits if one.code == "pocket-through"]
    assert [(one.severity, one.field) for one in found] == [("stop", "parts/plate/steps/a/depth")] * through


def test_whose_a_hole_is_is_known_without_looking_for_it_among_all_others(monkeypatch):
    """Thin webs between 400 holes are as many pairs; a search through all holes for each took two minutes for 10,000."""
    asked = []
    by_place = thin_webs.owner_of
    monkeypatch.setattr(thin_webs, "owner_of", lambda *given: asked.append(1) or by_place(*given))
    sieve = rectangle(
        "sieve", 2, 2, does="cut", x=5, y=5, pattern={"kind": "grid", "columns": 20, "rows": 20, "dx": 2.4, "dy": 2.4}
    )
    job = plate(sieve)
    [thin] = [one for one in compute(job).limits if one.code == "web-thin"]
    assert "1481 more" in thin.why  # 760 beside each other, 722 across corners, less the one that is named
    assert len(asked) <= 4
