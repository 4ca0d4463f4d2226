"""Recipes of flat parts: what they make, what they refuse, how their drawings follow; a design of one's own as a recipe."""

import pytest
from conftest import make_basis
from lean_notch.design import design_from_json, design_to_json
from lean_notch.edits import Edit, edit_job
from lean_notch.edits.own_recipes import own_recipe
from lean_notch.ground.errors import NotchError, RadiusTooLarge
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import Job, compute
from lean_notch.making import build
from lean_notch.recipes import RECIPES
from lean_notch.told.recipe_tried import draft
from plates import disc, plate

FLAT = ("tag", "panel", "angle-gauge")


def job_of(name, **settings):
    return Job(RECIPES[name].design(name, settings), make_basis(sheet=(600, 400)))


@pytest.mark.parametrize("name", FLAT)
def test_a_recipe_builds_without_a_problem_and_is_proved(name):
    result = compute(job_of(name))
    assert not result.build.findings
    assert not result.build.failed
    assert prove_job(result).fits
    design = result.job.design
    assert design_from_json(design_to_json(design)) == design


@pytest.mark.parametrize("name", FLAT)
def test_every_length_of_a_recipe_changes_what_it_makes(name):
    recipe = RECIPES[name]
    before = compute(job_of(name)).build.part(recipe.design("x", {}).parts[0].id)
    for setting in recipe.settings:
        if setting.kind != "length":
            continue
        longer = f"{float(setting.default) * 1.02:.3f}"
        after = compute(job_of(name, **{setting.name: longer})).build.part(before.id)
        assert (after.region, after.marks) != (before.region, before.marks), setting.name


def test_a_corner_takes_at_most_half_the_shorter_side():
    """Common practice: 15 on a 30 high tag, no more."""
    with pytest.raises(RadiusTooLarge, match="20 mm") as error:
        RECIPES["tag"].design("x", {"width": "80", "height": "30", "radius": "20"})
    assert (error.value.field, error.value.fix) == ("radius", "Use at most 15 mm.")
    assert compute(job_of("tag", radius="15")).build.part("tag").region.area < 80 * 30


@pytest.mark.parametrize(
    ("name", "settings", "field"),
    [
        ("tag", {"hole": "30"}, "hole"),
        ("tag", {"margin": "90"}, "margin"),
        ("tag", {"text": "x" * 61}, "text"),
        ("tag", {"width": ""}, "width"),
        ("panel", {"height": "30"}, "height"),
        ("panel", {"rounds": "-1"}, "rounds"),
        ("panel", {"marks": "many"}, "marks"),
        ("angle-gauge", {"rule_width": "22"}, "rule_width"),
        ("angle-gauge", {"rule_length": "119"}, "rule_length"),
        ("angle-gauge", {"second_angle": "400"}, "second_angle"),
        ("angle-gauge", {"second_angle": ""}, "second_angle"),
        ("angle-gauge", {"nose": "1"}, "nose"),
    ],
)
def test_what_a_recipe_cannot_make_is_said_at_its_setting(name, settings, field):
    with pytest.raises(NotchError) as error:
        RECIPES[name].design("x", settings)
    assert error.value.field == field


@pytest.mark.parametrize(
    ("second", "third", "field", "works"),
    [("41", "132", "third_angle", "133"), ("56", "142", "third_angle", "139"), ("64", "153", "third_angle", "156")],
)
def test_angles_that_leave_no_room_for_the_rounding_are_refused_with_one_that_works(second, third, field, works):
    with pytest.raises(NotchError) as refused:
        job_of("angle-gauge", second_angle=second, third_angle=third)
    assert (refused.value.field, refused.value.mend) == (field, works)
    mended = build(job_of("angle-gauge", second_angle=second, third_angle=works).design, make_basis())
    assert not mended.failed


def test_no_angle_that_is_taken_fails_and_none_that_is_refused_would_not():
    """Over a grid of gaps between bars: the closed form against the outline that is really made."""
    from lean_notch.recipes import angle_gauge

    for gap in range(6, 176, 13):
        given = {"second_angle": str(gap), "third_angle": str(min(gap + 150, 350)), "radius": "5"}
        try:
            design, refused = RECIPES["angle-gauge"].design("x", given), False
        except NotchError:
            with pytest.MonkeyPatch.context() as patch:
                patch.setattr(angle_gauge, "_check_angles", lambda *_: None)
                design, refused = RECIPES["angle-gauge"].design("x", given), True
        assert bool(build(design, make_basis()).failed) is refused, gap


def test_a_gauges_bars_stand_at_their_angles_and_are_one_piece():
    result = compute(job_of("angle-gauge", second_angle="90", third_angle="180", radius="", hole=""))
    part = result.build.part("gauge")
    assert part.box == pytest.approx((-120, 11 - 16.5, 120, 131))
    [pocket] = part.marks
    assert (pocket.operation, pocket.depth) == ("pocket", 1)
    assert pocket.regions[0].box == pytest.approx((30, 4.5, 120, 17.5))
    turned = compute(job_of("angle-gauge", second_angle="90/2 + 15"))
    assert not turned.build.failed


@pytest.mark.parametrize("name", FLAT)
def test_a_drawing_has_the_sizes_that_are_computed_and_follows_by_its_slopes(name):
    given = {setting.name: setting.default for setting in RECIPES[name].settings}
    made = draft(RECIPES[name], given, compute(job_of(name)))
    [view] = made.views
    shown = {size.setting: size.value for size in view.sizes}
    assert {"width", "height"} <= shown.keys()
    assert all(made.values[setting] == pytest.approx(value) for setting, value in shown.items())
    assert {handle.setting for handle in view.handles} == {"width", "height"}
    wider = str(made.values["width"] + 1)
    after = draft(RECIPES[name], {**given, "width": wider}, compute(job_of(name, width=wider)))
    [slope], [moved] = made.slopes["width"], after.views
    for shape, by, there in zip(view.shapes, slope.shapes, moved.shapes, strict=True):
        followed = [a + b for a, b in zip(shape.outline, by.outline, strict=True)]
        assert followed == pytest.approx(list(there.outline), abs=1e-6)


def test_a_design_of_ones_own_is_a_recipe_with_open_lengths():
    job = plate(disc("h", "hole", x="far", y=30), dimensions=[
        {"name": "hole", "title": "hole", "length": "8", "chosen": True},
        {"name": "far", "title": "from the left", "length": "20", "chosen": True},
        {"name": "twice", "title": "twice", "length": "2*hole"},
    ])  # fmt: skip
    recipe = own_recipe("own-1", "Plate with a hole", job.design, ["hole"])
    assert [(one.name, one.default) for one in recipe.settings] == [("hole", "8")]
    made = recipe.design("Mine", {"hole": "1/2"}, "in")
    assert (made.name, made.origin) == ("Mine", None)
    hole = build(made, job.basis).part("plate").region.holes[0]
    assert (hole.x, 2 * hole.radius) == (20, pytest.approx(12.7))
    [view] = draft(recipe, {"hole": "9"}, compute(Job(recipe.design("x", {"hole": "9"}), job.basis))).views
    assert [size.setting for size in view.sizes] == ["hole"]
    for wrong in (["twice"], ["none"], []):
        with pytest.raises(NotchError) as error:
            own_recipe("own-1", "x", job.design, wrong)
        assert error.value.field == "open"


def test_a_tray_of_ones_own_goes_on_following_its_recipe():
    job = Job(RECIPES["open-tray"].design("Tray", {"width": "120"}), make_basis())
    recipe = own_recipe("own-2", "My tray", job.design, ["width", "depth"])
    made = recipe.design("Longer", {"width": "200"})
    assert made.origin.answer("width").text == "200"
    assert compute(Job(made, job.basis)).build.names["outside_width"] == pytest.approx(200 + 2 * 3.06, abs=0.2)
    again = edit_job(Job(made, job.basis), [Edit("put", "answers/height", "30")])
    assert compute(again).build.names["height"] == 30
