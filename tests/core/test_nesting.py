"""Layouts are judged by the checker, not by a stored picture."""

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st
from lean_notch.geometry import Circle, Motion, Region, rectangle
from lean_notch.ground.errors import OutOfRange, PartTooLarge, SheetsRunOut
from lean_notch.nesting import Area, Layout, LayoutSettings, Piece, Placed, Sheet, engine, lay_out, layout_faults


def piece(name: str, width: float, height: float, quantity: int = 1) -> Piece:
    return Piece(name, name, Region(rectangle(-3, 5, width, height)), quantity)


boxes = st.lists(st.tuples(st.floats(1, 190), st.floats(1, 140), st.integers(1, 4)), min_size=1, max_size=14)


@given(boxes, st.floats(0, 4), st.floats(0, 6), st.booleans())
def test_every_layout_is_inside_disjoint_and_complete(sizes, margin, spacing, turns):
    pieces = [piece(f"p{i}", w, h, n) for i, (w, h, n) in enumerate(sizes)]
    settings = LayoutSettings(margin, spacing, turns)
    layout = lay_out(pieces, Area(200, 150), settings)
    assert layout_faults(layout, pieces, settings) == []
    assert {placed.motion.angle for placed in layout.placed} <= ({0, 90} if turns else {0})


corners = st.tuples(st.floats(-20, 180), st.floats(-20, 140), st.floats(1, 60), st.floats(1, 50))


@given(
    st.lists(st.tuples(st.floats(1, 60), st.floats(1, 60), st.integers(1, 4)), min_size=1, max_size=9),
    st.lists(corners, min_size=1, max_size=4), st.floats(0, 6), st.booleans(),
)  # fmt: skip
def test_nothing_is_laid_over_a_clamp(sizes, clamps, spacing, turns):
    pieces = [piece(f"p{i}", w, h, n) for i, (w, h, n) in enumerate(sizes)]
    settings = LayoutSettings(3, spacing, turns)
    area = Area(200, 150, keep_outs=tuple((x, y, x + w, y + h) for x, y, w, h in clamps))
    try:
        layout = lay_out(pieces, area, settings)
    except PartTooLarge as error:
        assert "kept clear" in error.why  # noqa: PT017
        return
    assert layout_faults(layout, pieces, settings) == []


def test_a_clamp_in_the_middle_is_gone_round():
    area = Area(200, 150, keep_outs=((80, 0, 120, 150),))
    layout = lay_out([piece("a", 70, 140, 2)], area, LayoutSettings(2, 2))
    assert (len(layout.sheets), sorted(round(p.motion.x) for p in layout.placed)) == (1, [5, 125])
    [left] = lay_out([piece("a", 90, 140)], area, LayoutSettings(2, 2)).left
    assert "less what must be kept clear" in left.error.why
    assert "Move what the bed must be kept clear of" in left.error.fix


def test_the_checker_sees_a_part_over_a_clamp():
    placed = Layout((Placed("a", 1, 1, Motion(3, -5, 0.0)),), (Sheet(1, Area(200, 150, keep_outs=((5, 5, 9, 9),))),))
    assert layout_faults(placed, [piece("a", 20, 20)], LayoutSettings(0, 1)) == [
        "a 1 lies over what must be kept clear"
    ]


def test_a_part_that_fits_exactly_is_placed():
    settings = LayoutSettings(margin=5, spacing=2)
    layout = lay_out([piece("a", 190, 140)], Area(200, 150), settings)
    assert layout_faults(layout, [piece("a", 190, 140)], settings) == []


@pytest.mark.parametrize(("width", "height"), [(190.1, 140), (140, 190.1), (1e4, 1)])
def test_a_part_larger_than_the_sheet_is_left_over_and_the_others_are_laid_out(width, height):
    layout = lay_out([piece("a", width, height, 3), piece("b", 20, 20)], Area(200, 150), LayoutSettings(margin=5))
    [left] = layout.left
    assert (left.part, left.count, type(left.error)) == ("a", 3, PartTooLarge)
    assert [one.part for one in layout.placed] == ["b"]


def test_a_tall_part_is_turned_only_if_it_may_be():
    tall = [piece("a", 100, 190)]
    assert lay_out(tall, Area(200, 150), LayoutSettings()).placed[0].motion.angle == 90
    assert lay_out(tall, Area(200, 150), LayoutSettings(quarter_turns=False)).left[0].part == "a"


def test_sheets_that_run_out_are_counted_and_those_at_hand_are_filled():
    layout = lay_out([piece("a", 190, 140, 3)], Area(200, 150, sheets=2), LayoutSettings(margin=5))
    [left] = layout.left
    assert (left.count, type(left.error), len(layout.sheets)) == (1, SheetsRunOut, 2)
    assert "need 3 sheets" in left.error.why


@pytest.mark.parametrize(
    ("margin", "spacing", "field"), [(-1, 1, "margin"), (1, -1, "spacing"), (1, float("inf"), "spacing")]
)
def test_settings_are_checked_at_their_field(margin, spacing, field):
    with pytest.raises(OutOfRange) as caught:
        LayoutSettings(margin, spacing)
    assert caught.value.field == field


def test_a_margin_that_swallows_the_sheet_leaves_everything_over():
    layout = lay_out([piece("a", 10, 10)], Area(100, 100), LayoutSettings(margin=60))
    assert (len(layout.left), layout.sheets) == (1, ())


def placed(name: str, x: float, y: float, angle: float = 0) -> Placed:
    return Placed(name, 1, 1, Motion(x, y, angle))


@pytest.mark.parametrize(
    ("placements", "fault"),
    [
        ([(10, 10), (15, 15)], "apart"),  # overlapping
        ([(10, 10), (31, 10)], "apart"),  # 1 mm where 2 are wanted
        ([(10, 10), (99, 10)], "leaves the sheet"),
        ([(10, 10)], "not every part"),
        ([(10, 10), (10, 10)], "apart"),  # one on the other
    ],
)
def test_the_checker_finds_what_is_wrong(placements, fault):
    pieces = [Piece(name, name, Region(rectangle(0, 0, 20, 20))) for name in "ab"]
    layout = Layout(tuple(placed("ab"[i], *at) for i, at in enumerate(placements)), (Sheet(1, Area(110, 60)),))
    assert any(fault in found for found in layout_faults(layout, pieces, LayoutSettings(2, 2)))


def test_the_checker_lets_a_part_lie_in_anothers_hole():
    ring = Piece("ring", "ring", Region(rectangle(0, 0, 60, 60), (Circle(30, 30, 25),)))
    disc = Piece("disc", "disc", Region(Circle(0, 0, 10)))
    layout = Layout((placed("ring", 5, 5), placed("disc", 35, 35)), (Sheet(1, Area(110, 110)),))
    assert layout_faults(layout, [ring, disc], LayoutSettings(2, 2)) == []


def test_spacing_is_measured_between_outlines(job):
    """The outside check: the same distances by the geometry library itself."""
    from lean_notch.job import compute

    result = compute(job)
    shapes = [
        shapely.Polygon([p.motion.point(v.point) for v in result.build.part(p.part).region.outer.vertices])
        for p in result.layout.placed
    ]
    gaps = [a.distance(b) for i, a in enumerate(shapes) for b in shapes[:i]]
    assert min(gaps) == pytest.approx(job.settings("main").spacing, abs=1e-9)


def lying(*places, keep_outs=()):
    """Discs of 20 mm with a hole of 8 mm at these places of a sheet."""
    disc = Region(Circle(0, 0, 10), (Circle(0, 0, 4, True),))
    pieces = [Piece(f"disc-{i}", "Disc", disc, 1) for i in range(len(places))]
    placed = tuple(Placed(f"disc-{i}", 1, 1, Motion(x, y)) for i, (x, y) in enumerate(places))
    layout = Layout(placed, (Sheet(1, Area(200, 100, None, tuple(keep_outs))),))
    return layout_faults(layout, pieces, LayoutSettings(margin=5, spacing=2))


def test_round_parts_are_judged_by_their_arcs():
    """A micrometre too near is found; chords of a hundredth would not tell."""
    assert lying((20, 20), (42, 20)) == []
    assert lying((20, 20), (41.999, 20)) == ["disc-0 and disc-1 are 1.999 mm apart"]
    assert lying((15, 15)) == []
    assert lying((14.999, 15)) == ["disc-0 1 leaves the sheet"]


def test_a_part_that_lies_in_another_or_on_it_is_found():
    assert lying((20, 20), (20, 20)) == ["disc-0 and disc-1 are 0 mm apart"]
    assert lying((20, 20), (25, 22)) == ["disc-0 and disc-1 are 0 mm apart"]
    assert lying((50, 50), keep_outs=[(48, 44, 60, 52)]) == ["disc-0 1 lies over what must be kept clear"]
    assert lying((50, 50), keep_outs=[(30, 20, 90, 90)]) == ["disc-0 1 lies over what must be kept clear"]
    assert lying((50, 50), keep_outs=[(62, 44, 70, 52)]) == []


def test_a_sheet_that_had_no_room_for_a_size_is_not_looked_at_again(monkeypatch):
    looked = []
    lowest = engine._lowest
    monkeypatch.setattr(engine, "_lowest", lambda *given: looked.append(1) or lowest(*given))
    sizes = [(120, 80), (120, 40), (80, 40)]
    layout = lay_out([piece(f"p{i}", w, h, 300) for i, (w, h) in enumerate(sizes)], Area(600, 400), LayoutSettings())
    sheets, orders = len(layout.sheets), len(engine._ORDERS)
    assert sheets > 20
    assert len(looked) <= orders * (900 + len(sizes) * (sheets + 5) + sheets) + len(sizes)
