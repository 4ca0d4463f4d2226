"""Track lists by the rules of the W3C's CSS Grid Layout, level 1 (7.2, 11.7: a sum of shares under 1 counts as 1), and the cases
that are made of them."""

import pytest
from conftest import edited, make_basis
from joined import made
from lean_notch.design import design_from_json, design_to_json
from lean_notch.edits import Edit
from lean_notch.ground.errors import NotchError
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute
from lean_notch.recipes import RECIPES
from lean_notch.recipes.tracks import read_tracks

T = 3.06


def names(**given):
    return made("divided-case", given).build.names


def test_shares_take_what_fixed_tracks_and_walls_leave():
    """By hand, as on the plan that led: 200 - 52 - 40 - 3 x 3.06 is 98.82, half of it 49.41."""
    found = names(columns="(2*25 + 2) 1fr 1fr 40", rows="45 1fr", width="200", depth="120")
    assert [found[f"col_{i}"] for i in range(1, 5)] == pytest.approx([52, 49.41, 49.41, 40])
    assert [found[f"row_{i}"] for i in (1, 2)] == pytest.approx([45, 71.94])
    assert found["outside_width"] == pytest.approx(206.12)


def test_shares_are_in_proportion_and_repeat_repeats():
    found = names(columns="1fr 2fr", rows="repeat(3, 1fr)", width="150", depth="120")
    assert found["col_2"] == pytest.approx(2 * found["col_1"])
    assert [found[f"row_{i}"] for i in (1, 2, 3)] == pytest.approx([(120 - 2 * T) / 3] * 3)


def test_shares_under_one_leave_the_rest_empty_behind_a_wall():
    found = names(columns=".25fr .5fr", rows="40", width="200", depth="")
    free = 200 - 2 * T
    assert (found["col_1"], found["col_2"]) == pytest.approx((free / 4, free / 2))
    assert found["col_wall_2"] == pytest.approx(T + free * 3 / 4 + T)


def test_three_compartments_of_1_3_and_4_inches_are_8_5_inches_outside():
    """Common practice: four walls of 1/8 in."""
    design = RECIPES["divided-case"].design("case", {"columns": "1 3 4", "rows": "2", "width": "", "depth": ""}, "in")
    found = compute(type(made("tag").job)(design, make_basis(readings=(3.175,), sheet=(900, 900)))).build.names
    assert found["outside_width"] / 25.4 == pytest.approx(8.5)


def test_fixed_tracks_overrule_the_size_and_the_plan_says_so():
    given = {"columns": "52 40", "rows": "30", "width": "300", "depth": ""}
    result = made("divided-case", given)
    assert result.build.names["inside_width"] == pytest.approx(52 + 40 + T)
    recipe = RECIPES["divided-case"]
    [view] = recipe.draw({**result.build.names, "thickness": T}, {"without": "", "sizes": "inside", **given})
    assert "95.06 mm" in view.says[0]
    assert [clear.size for clear in view.clears] == [pytest.approx((52, 30)), pytest.approx((40, 30))]


@pytest.mark.parametrize(("given", "field", "said"), [
    ({"columns": "52 -4 1fr"}, "columns", "Track 2 is -4 mm wide"),
    ({"columns": "52 (3 1fr"}, "columns", "bracket"),
    ({"columns": "52) 1fr"}, "columns", "bracket"),
    ({"columns": "0fr 1fr"}, "columns", "share of nothing"),
    ({"columns": ""}, "columns", "empty"),
    ({"columns": "   "}, "columns", "empty"),
    ({"columns": "40..5"}, "columns", "Track 1 is"),
    ({"columns": "repeat(99, 1fr)"}, "columns", "99"),
    ({"columns": "1fr", "width": ""}, "width", "share what is left"),
    ({"columns": "30 1fr", "without": "c2r1"}, "without", "no piece of wall c2r1"),
    ({"columns": "30 1fr", "without": "left"}, "without", "not a piece"),
])  # fmt: skip
def test_lists_that_cannot_be_are_refused_where_they_were_typed(given, field, said):
    with pytest.raises(NotchError) as caught:
        made("divided-case", given)
    assert caught.value.field == field
    assert said in caught.value.why
    assert caught.value.fix


def test_tracks_that_do_not_fit_are_said_with_what_is_missing():
    with pytest.raises(NotchError) as caught:
        made("divided-case", {"columns": "52 1fr 90", "width": "140"})
    assert "Column 2 comes to" in caught.value.why
    assert "lacks 8.12 mm" in caught.value.fix


WITHOUT = ["", "c2r1", "c2r1 r1c3", "c2r1 r1c3 r1c2 c1r2", "c1r1 c1r2", "r1c1", "c1r1 r1c1", "c3r2 r1c4"]


@pytest.mark.parametrize("without", WITHOUT)
def test_walls_cross_end_in_each_other_or_meet_in_corners_as_pieces_are_taken_out(without):
    result = made("divided-case", {"columns": "52 1fr 1fr 40", "rows": "45 1fr", "without": without})
    assert not result.build.lost
    assert prove_job(result).verdict == "fits"
    again = design_from_json(design_to_json(result.job.design))
    assert again == result.job.design


def test_taking_a_piece_out_makes_one_place_of_two():
    [view] = RECIPES["divided-case"].draw(
        {**names(columns="52 1fr 1fr 40", rows="45 1fr", without="c2r1"), "thickness": T},
        {"columns": "52 1fr 1fr 40", "rows": "45 1fr", "without": "c2r1", "sizes": "inside"},
    )
    sizes = [tuple(round(one, 2) for one in clear.size) for clear in view.clears]
    assert (101.88, 45.0) in sizes
    assert len(sizes) == 7
    assert {shape.piece for shape in view.shapes if shape.kind == "gone"} == {"c2r1"}


def test_a_wall_between_is_as_thick_as_its_own_board():
    """The sides are of 3.06, the walls of 3.92: their slots and the places between follow that."""
    from lean_notch.basis import Basis
    from lean_notch.job import Job

    design = RECIPES["divided-case"].design("case", {"columns": "1fr 1fr", "rows": "1fr 1fr", "board": "another board"})
    main, walls = (
        make_basis(sheet=(900, 900)).of("main"),
        make_basis(readings=(3.90, 3.92, 3.94), sheet=(900, 900)).of("main"),
    )
    result = compute(Job(design, Basis((("main", main), ("dividers", walls)))))
    assert result.build.names["col_1"] == pytest.approx((200 - 3.92) / 2)
    assert not result.build.lost
    assert prove_job(result).verdict == "fits"


def test_a_case_answered_anew_keeps_what_was_drawn_on_it():
    result = made("divided-case", {})
    hole = {"kind": "shape", "id": "hole", "does": "cut", "x": 20, "y": 25, "shape": {"kind": "disc", "diameter": 8}}
    drawn = edited(result.job, Edit("put", "parts/front/steps/hole", hole), Edit("put", "answers/columns", "60 1fr"))
    built = compute(drawn).build
    assert built.part("front").openings
    assert built.names["col_1"] == 60
    assert "col_3" not in built.names


def test_a_list_reads_as_it_is_written():
    assert [track.text for track in read_tracks("  (1/8 in)   1fr\t40 ", "columns").all] == ["1/8 in", "1fr", "40"]


CASES = [
    {"lid": lid, "sizes": sizes, **more}
    for lid in ("open at the top", "closed all round", "a lid that lifts off")
    for sizes in ("inside", "outside")
    for more in ({}, {"feet": "16", "hand_hole": "70"}, {"base": "no base"})
]


@pytest.mark.parametrize("given", CASES)
def test_every_case_fits_and_says_its_inside(given):
    result = made("case", given)
    found = result.build.names
    assert prove_job(result).verdict == "fits"
    assert found[f"{given['sizes']}_width"] == 180
    assert found["outside_width"] - found["inside_width"] == pytest.approx(2 * T)
    floor = 0 if given.get("base") else T + (16 if "feet" in given else 0)
    top = 0 if given["lid"].startswith("open") else T
    assert found["outside_height"] - found["inside_height"] == pytest.approx(floor + top)


@pytest.mark.parametrize(("name", "given"), [
    ("rack", {}), ("rack", {"rails": "3", "share": "0.3"}), ("rack", {"uprights": "1", "rails": "1"}),
    ("framed-stand", {"held": "glued"}), ("framed-stand", {"held": "loose", "radius": ""}), ("divider-set", {}),
    *(("crossed-figure", {"figure": one, "height": "150", "width": "110", "span": "90"}) for one in ("reed", "tree", "drop")),
    ("crossed-figure", {}),
])  # fmt: skip
def test_every_other_recipe_fits(name, given):
    result = made(name, given)
    assert not result.build.lost
    assert prove_job(result).verdict == "fits"


@pytest.mark.parametrize(("name", "given", "field"), [
    ("case", {"base": "no base", "feet": "20"}, "feet"),
    ("case", {"feet": "5"}, "answers/feet"),
    ("case", {"hand_hole": "120"}, "answers/hand_hole"),
    ("case", {"hand_hole": "90", "height": "40"}, "answers/hand_hole"),
    ("case", {"sizes": "outside", "width": "5"}, "answers/width"),
    ("rack", {"share": "2"}, "share"),
    ("rack", {"width": "70", "overhang": "40"}, "answers/overhang"),
    ("framed-stand", {"insert": "90"}, "answers/height"),
    ("divider-set", {"columns": "1fr", "width": "0.2"}, "answers/gap"),
])  # fmt: skip
def test_recipes_refuse_what_cannot_be_at_its_setting(name, given, field):
    with pytest.raises(NotchError) as caught:
        made(name, given)
    assert caught.value.field == field


def test_brittle_inserts_get_no_press_fit_without_a_warning():
    from dataclasses import replace

    from conftest import make_board
    from lean_notch.basis import Basis
    from lean_notch.job import Job

    design = RECIPES["framed-stand"].design("stand", {})
    clear = make_board(readings=(3.90, 3.92, 3.95), clearance=-0.05)
    clear = replace(clear, stock=replace(clear.stock, kind="acrylic"))
    built = compute(Job(design, Basis((("main", make_board()), ("inserts", clear))))).build
    assert any(one.code == "brittle" and "crack" in one.why for one in built.findings)


@pytest.mark.parametrize(
    "given", [{"columns": "1fr", "rows": "2fr"}, {"columns": "1fr 1fr", "rows": "1fr", "without": "c1r1"}]
)
def test_a_divider_set_without_a_divider_is_refused(given):
    with pytest.raises(NotchError) as caught:
        RECIPES["divider-set"].design("set", given)
    assert (caught.value.field, caught.value.fix[:15]) == ("columns", "Give two column")
