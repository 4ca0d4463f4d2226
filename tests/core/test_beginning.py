"""A new step begins on its part, is made, and is beside what is there."""

from importlib import import_module
from pkgutil import iter_modules

import pytest
from conftest import edit_job, make_job
from lean_notch import steps
from lean_notch.acts.beginning import PURPOSES, begun
from lean_notch.ground.errors import MissingInput
from lean_notch.job import compute
from lean_notch.lengths.length import Length
from lean_notch.steps import ALL, ZERO
from plates import plate, rectangle

HALF_A_SIXTEENTH = 25.4 / 32
MADE_HERE = [name for name, (one, _) in PURPOSES.items() if not one.of]


def sheet_of(width=200):
    return plate(blank=rectangle("blank", width, 120))


def begin(job, purpose, unit="mm", other=""):
    edits = begun(compute(job), "plate", purpose, other, unit)
    return edit_job(job, edits, unit), edits[0].path.rpartition("/")[2]


def test_every_kind_of_step_begins_as_something():
    assert {kind for _, kind in PURPOSES.values()} == {kind.kind for kind in ALL}
    assert sum(len(kind.begins) for kind in ALL) == len(PURPOSES)  # no two are called alike


def test_every_kind_of_step_that_has_a_file_is_listed_under_a_name_of_its_own():
    for module in iter_modules(steps.__path__):
        import_module(f"lean_notch.steps.{module.name}")
    assert set(steps.StepKind.__subclasses__()) == set(ALL)
    assert len({kind.kind for kind in ALL}) == len(ALL)


@pytest.mark.parametrize("unit", ["mm", "in"])
@pytest.mark.parametrize("purpose", MADE_HERE)
def test_what_begins_is_made_and_lies_on_the_part(purpose, unit):
    job, name = begin(sheet_of(), purpose, unit)
    assert name == f"{purpose}-1"
    result = compute(job)
    [part] = result.build.parts
    assert part.failed is None
    assert [one for one in result.build.findings if one.severity == "stop"] == []
    step = job.design.parts[0].steps[-1]
    typed = [one for _, one in step.lengths if isinstance(one, Length) and one != ZERO]
    assert {one.unit for one in typed} <= {unit}
    at = step.mm({"thickness": 3.06})
    assert 0 <= at.get("x", 0) <= 200 + HALF_A_SIXTEENTH
    assert 0 <= at.get("y", 0) <= 120


def test_a_length_is_a_tenth_of_a_millimetre_or_a_sixteenth_of_an_inch():
    for unit, text in (("mm", "8"), ("in", "0.3125")):
        job, _ = begin(sheet_of(), "hole", unit)
        assert job.design.parts[0].steps[-1].shape.diameter.text == text


def test_one_that_begins_where_another_is_stands_beside_it():
    job = sheet_of()
    for _ in range(3):
        job, _ = begin(job, "hole")
    holes = job.design.parts[0].steps[1:]
    assert [one.id for one in holes] == ["hole-1", "hole-2", "hole-3"]
    assert [float(one.x.text) for one in holes] == [100, 110, 120]


def test_a_part_can_begin_as_another_one_and_says_what_it_lacks():
    job = make_job()
    [edit] = begun(compute(job), "front", "part", "left")
    assert edit.value["shape"] == {"kind": "part", "part": "left"}
    with pytest.raises(MissingInput, match="There is no part"):
        begin(sheet_of(), "part")
    with pytest.raises(MissingInput, match="There is no file"):
        begin(sheet_of(), "file")
    with pytest.raises(MissingInput, match="No step begins as"):
        begin(sheet_of(), "window")
    with pytest.raises(MissingInput, match="not there any more"):
        begun(compute(job), "lid", "hole")


@pytest.mark.parametrize("unit", ["mm", "in"])
@pytest.mark.parametrize("purpose", ["mirror", "repeat"])
@pytest.mark.parametrize("width", [156.16, 200, 99.97])
def test_what_is_mirrored_or_repeated_stays_in_one_piece(width, purpose, unit):
    """The wrong step: a line rounded to 156.2 mm beside a part that ends at 156.16 left two pieces."""
    job, _ = begin(sheet_of(width), purpose, unit)
    result = compute(job)
    assert result.build.findings == ()
    [part] = result.build.parts
    assert part.box[2] - part.box[0] == pytest.approx(2 * width, abs=0.01)
