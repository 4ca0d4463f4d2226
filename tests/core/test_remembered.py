"""What is kept of an edit: the same answer for the same things, and no more of it than has room."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import dataclass, replace

import pytest
from conftest import drawn, edited, make_job
from joined import job
from lean_notch.design import design_from_json, design_to_json
from lean_notch.edits import Edit
from lean_notch.ground import remembered as module
from lean_notch.ground.errors import NotchError
from lean_notch.ground.remembered import LIGHT, MEMORIES, Remembered, Same, by_value, forget_all, remembered
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
    one, other = (tuple(range(2)) for _ in range(2))
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


class Loose:
    """Stands for what is not asked about: an object that is nothing but itself."""


def test_an_answer_is_kept_by_the_arguments_of_its_function():
    asked = []

    @remembered(2)
    def told(one: Loose, number: int) -> int:
        asked.append(number)
        return number

    one, other = Loose(), Loose()
    assert [told(one, 1), told(one, 1), told(other, 1), told(one, 2)] == [1, 1, 1, 2]
    assert asked == [1, 1, 2]
    with pytest.raises(TypeError, match="by position"):
        told(one, number=1)


@pytest.mark.parametrize("changing", [[1], {"a": 1}, {1}, bytearray(b"a"), Same([1])])
def test_nothing_is_remembered_by_what_can_change(changing):
    with pytest.raises(TypeError, match="can change"):
        remembered()(len)(changing)


def test_a_value_that_is_not_frozen_is_no_key():
    @dataclass
    class Open:
        size: int

    with pytest.raises(TypeError, match="Open can change"):
        Remembered[int]()((Open(3),), lambda: 3)


@pytest.mark.parametrize("whole", ["site", "shop", "result", "built"])
def test_what_holds_everything_is_refused_where_it_is_written(whole):
    scope: dict[str, object] = {}
    exec(f"def told({whole}, part): ...", scope)
    with pytest.raises(TypeError, match="holds everything"):
        remembered()(scope["told"])


def test_one_call_forgets_all():
    @by_value(8)
    def twice(number: int) -> int:
        return 2 * number

    compute(make_job())
    twice(2)
    assert sum(one.holds() for one in MEMORIES) > 50
    forget_all()
    assert [one.name for one in MEMORIES if one.holds()] == []


def test_all_memories_together_hold_so_much_and_the_heaviest_forgets_first(monkeypatch):
    """Of three that may hold 1000 each, 1500 are held: the light one keeps what it has."""
    forget_all()
    monkeypatch.setattr(module, "MOST_TOGETHER", 1500)
    heavy, light, third = (Remembered[str](100, len, 1000) for _ in range(3))
    light.keep((0,), "x" * 50)
    for memory in (heavy, third):
        for number in range(9):
            memory.keep((number,), "x" * 100)
    assert light.find((0,)) == "x" * 50
    assert (heavy.weighs + light.weighs + third.weighs, heavy.find((0,))) == (1450, None)
    heavy.forget()
    third.forget()
    assert module._TOGETHER.weigh == 50


def test_what_is_not_weighed_is_taken_for_light(monkeypatch):
    forget_all()
    monkeypatch.setattr(module, "MOST_TOGETHER", 10 * LIGHT)
    squares = Remembered[int]()
    for number in range(20):
        squares((number,), lambda number=number: number**2)
    assert (squares.find((9,)), squares.find((19,))) == (None, 361)
