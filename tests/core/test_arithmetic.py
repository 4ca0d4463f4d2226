"""Numbers as typed: functions, plain numbers, what is refused and where."""

import math

import pytest
from lean_notch.design import Dimension, ShapeStep, design_from_json, design_to_json
from lean_notch.ground.errors import BadDocument, CircularLengths, NotALength, OutOfRange
from lean_notch.lengths.length import Amount, Length, amount, length_mm, names_in, plain_number
from lean_notch.steps import Around, Disc
from plates import disc, made, plate

NAMES = {"width": 150.0, "thickness": 3.06, "dividers.thickness": 2.92}


@pytest.mark.parametrize(
    ("text", "mm"),
    [
        ("min(width/3, 20)", 20.0),
        ("max(width/3; 20)", 50.0),
        ("max(1 in; 20 mm)", 25.4),
        ("round(width/7)", 21.0),
        ("round(width/7; 5)", 20.0),
        ("round(-2.5)", -3.0),
        ("sqrt(width*width)", 150.0),
        ("sqrt(16)", 4.0),
        ("width*sin(30)", 75.0),
        ("2*width*cos(60) - dividers.thickness", 147.08),
        ("min(3,5; 4,5)", 3.5),
        ("max(min(width; 10); 2*(thickness + 1))", 10.0),
    ],
)
def test_arithmetic_has_the_usual_functions(text, mm):
    assert length_mm(text, names=NAMES) == pytest.approx(mm)


def test_round_counts_in_the_unit_of_the_field():
    assert length_mm("round(2.6)", "in") == pytest.approx(3 * 25.4)
    assert length_mm("round(1.1; 1/4)", "in") == pytest.approx(25.4)


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("min(3)", "two values or more, not 1"),
        ("min(3,4)", "two values or more, not 1"),  # a decimal comma: it is 3.4
        ("sin(width)", "the sin of a length"),
        ("sqrt(-1)", "less than 0"),
        ("sqrt(width)", "a length"),
        ("round(3; 0)", "rounds to 0"),
        ("tan(3)", "no function called “tan”"),
        ("width/(3 - 3)", "divides by zero"),
        ("max(width; )", "cannot be read"),
        ("(" * 90 + "1" + ")" * 90, "cannot be read"),
        ("(" * 1000 + "1" + ")" * 1000, "2001 characters"),
    ],
)
def test_arithmetic_that_cannot_be_says_why(text, said):
    with pytest.raises(NotALength, match=r".*") as error:
        length_mm(text, names=NAMES)
    assert said in error.value.why


def test_names_are_those_of_lengths_not_of_functions():
    assert names_in("max(width; 2*dividers.thickness) + sin(30)*min_gap") == ("width", "dividers.thickness", "min_gap")


@pytest.mark.parametrize("name", ["min", "sqrt", "kerf", "thickness", "mm"])
def test_reserved_names_are_refused(name):
    with pytest.raises(BadDocument, match=f"“{name}” is"):
        Dimension(name, "x", Length("1"))


def test_angles_and_counts_are_arithmetic_too():
    assert plain_number("360/8 + 2*sin(90)") == pytest.approx(47.0)
    assert plain_number("width/(20 mm)", NAMES) == pytest.approx(7.5)
    assert amount(90.0) == Amount("90")
    with pytest.raises(NotALength, match="is a length"):
        plain_number("width/2", NAMES)
    ring = made(disc("h", 4, x=70, y=30, pattern={"kind": "around", "count": "2*4", "x": 50, "y": 30}))
    assert len(ring.region.holes) == 8
    turned = made({**disc("h", 4, x=70, y=30), "turn": "90/2"})
    assert not turned.failed


@pytest.mark.parametrize(
    ("pattern", "field", "said"),
    [
        ({"kind": "around", "count": "7/2", "x": 50, "y": 30}, "pattern/count", "comes to 3.5"),
        ({"kind": "around", "count": "thickness", "x": 50, "y": 30}, "pattern/count", "is a length"),
        ({"kind": "grid", "columns": "4000/2", "dx": 1}, "pattern/columns", "comes to 2000"),
        ({"kind": "grid", "columns": 1000, "rows": 1000, "dx": 0.01, "dy": 0.01}, "pattern", "4,000,000 lines"),
    ],
)
def test_a_count_that_cannot_be_is_said_at_its_field(pattern, field, said):
    failed = made(disc("h", 4, x=50, y=30, pattern=pattern)).failed
    assert failed.error.field == f"parts/plate/steps/h/{field}"
    assert said in failed.error.why


def test_a_plain_number_stays_one_in_the_document():
    step = ShapeStep(
        "h", Disc(Length("4")), "cut", turn=Amount("360/7"), pattern=Around(Amount("5"), Length("1"), Length("2"))
    )
    design = plate().design
    design = design_from_json(design_to_json(design))
    part = design.parts[0]
    from dataclasses import replace

    design = replace(design, parts=(replace(part, steps=(*part.steps, step)),))
    document = design_to_json(design)
    written = document["parts"][0]["steps"][1]
    assert (written["turn"], written["pattern"]["count"]) == ("360/7", 5)
    assert design_from_json(document) == design


def test_a_circle_of_lengths_is_spelled_out():
    document = {
        "lean_notch_design": 2, "name": "x", "parts": [],
        "dimensions": [
            {"name": "free", "title": "free", "length": "12"},
            {"name": "a", "title": "a", "length": "b + free"},
            {"name": "b", "title": "b", "length": "2*c"},
            {"name": "c", "title": "c", "length": "a/3"},
            {"name": "d", "title": "d", "length": "a"},
        ],
    }  # fmt: skip
    with pytest.raises(CircularLengths, match=r"a depends on itself: a = b \+ free, b = 2\*c, c = a/3\."):
        design_from_json(document).evaluate({})


def test_what_comes_to_more_than_any_board_is_refused():
    with pytest.raises(OutOfRange):
        length_mm("max(width; 1e9)", names=NAMES)
    assert math.isfinite(length_mm("max(width; 1e4)", names=NAMES))
