"""What is kept of an edit: the same answer for the same things, and no more of it than has room."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import replace

from conftest import drawn, edited, make_job
from joined import job
from lean_notch.design import design_from_json, design_to_json
from lean_notch.edits import Edit
from lean_notch.ground.errors import NotchError
from lean_notch.ground.remembered import Remembered, Same
from lean_notch.job import compute
from lean_notch.making import build
from lean_notch.proof.assembly import Body, near_pairs


def test_of_several_sets_too_only_the_part_that_changed_is_another_one():
    three = replace(make_job(), sets=3)
    hole = {
        "id": "hole",
        "kind": "shape",
        "shape": {"kind": "disc", "diameter": "5"},
        "does": "cut",
        "x": "20",
        "y": "15",
    }
    before, after = compute(three).build, compute(drawn(three, hole)).build
    again = compute(three).build
    assert [part.quantity for part in before.parts] == [3, 3, 3, 3, 3]
    assert all(one is other for one, other in zip(before.parts, again.parts, strict=True))
    assert before.part("left") is after.part("left")
    assert before.part("front") is not after.part("front")


def plate(count):
    """A plate with many holes and marks, and steps between them that need what is cut done, or that follow others."""
    blank = {"kind": "shape", "id": "blank", "shape": {"kind": "rectangle", "width": "wide", "height": 300}}
    steps = [
        {
            "kind": "shape", "id": f"s{i}", "shape": {"kind": "disc", "diameter": 8}, "does": ("cut", "mark", "add")[i % 3],
            "x": 15 + i % 15 * 19, "y": 15 + i // 15 * 27,
        }
        for i in range(count)
    ]  # fmt: skip
    steps[20:20] = [{"kind": "corner", "id": "round", "corners": ["blank.top-left"], "size": 5}]
    steps[30:30] = [
        {
            "kind": "shape",
            "id": "far",
            "shape": {"kind": "disc", "diameter": 4},
            "does": "cut",
            "from_x": "edge:blank.right",
            "x": 9,
            "y": 9,
        }
    ]
    return job([{"id": "plate", "title": "Plate", "steps": [blank, *steps]}], {}, [], dimensions=[WIDE])


WIDE = {"name": "wide", "title": "Wide", "length": "320", "chosen": True}


def test_a_part_that_is_gone_on_with_is_the_part_made_anew():
    """Whatever step changes, is switched off, moved or made to fail, and after a number of the design's changes: the same."""
    one = plate(70)
    places = [f"parts/plate/steps/s{i}" for i in (69, 68, 0, 31, 16, 55)]
    edits = [Edit("put", f"{place}/x", "40.5") for place in places]
    edits += [
        Edit("put", f"{places[3]}/on", False),
        Edit("put", f"{places[5]}/shape/diameter", "0"),
        Edit("put", "dimensions/wide/length", "330"),
    ]
    edits += [
        Edit("put", f"{places[5]}/shape/diameter", "9"),
        Edit("put", "parts/plate/steps/blank/shape/height", "310"),
        Edit("drop", places[2]),
    ]
    for edit in edits:
        with suppress(NotchError):
            one = edited(one, edit)
        anew = design_from_json(design_to_json(one.design))
        gone_on, made_anew = (build(design, one.basis) for design in (one.design, anew))
        [part], [again] = gone_on.parts, made_anew.parts
        assert gone_on.findings == made_anew.findings
        assert replace(part, failed=None) == replace(again, failed=None)
        assert str(part.failed and part.failed.error) == str(again.failed and again.failed.error)


def test_equal_things_that_are_not_the_same_are_worked_out_again():
    kept, made = Remembered[int](), []
    one, other = [1], [1]
    for given in (one, one, other, one):
        kept((Same(given),), lambda given=given: made.append(given) or len(made))
    assert len(made) == 2


def test_what_is_weighed_makes_room():
    kept = Remembered[str](10, len, 5)
    for text in ("aa", "bb", "cc", "dddddd"):
        kept((text,), lambda text=text: text)
    assert [kept.find((text,)) for text in ("aa", "bb", "cc", "dddddd")] == [None, None, None, None]
    assert kept(("ee",), lambda: "ee") == kept.find(("ee",)) == "ee"


def test_bodies_a_little_apart_are_near_where_that_is_asked():
    class Block:
        def __init__(self, x):
            self.x = x

        box = lambda self: ((self.x, 0.0, 0.0), (self.x + 10, 10.0, 3.0))  # noqa: E731

    blocks: list[Body] = [Block(0.0), Block(10.05)]  # type: ignore[list-item]
    assert near_pairs(blocks) == []
    assert near_pairs(blocks, -0.1) == [(0, 1)]
