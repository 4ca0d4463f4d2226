"""What is kept of an edit: the same answer for the same things, and no more of it than has room."""

from __future__ import annotations

from dataclasses import replace

from conftest import drawn, make_job
from lean_notch.job import compute
from lean_notch.proof.assembly import Body, near_pairs
from lean_notch.remembered import Remembered, Same


def test_of_several_sets_too_only_the_part_that_changed_is_another_one():
    job = replace(make_job(), sets=3)
    hole = {
        "id": "hole",
        "kind": "shape",
        "shape": {"kind": "disc", "diameter": "5"},
        "does": "cut",
        "x": "20",
        "y": "15",
    }
    before, after = compute(job).build, compute(drawn(job, hole)).build
    again = compute(job).build
    assert [part.quantity for part in before.parts] == [3, 3, 3, 3, 3]
    assert all(one is other for one, other in zip(before.parts, again.parts, strict=True))
    assert before.part("left") is after.part("left")
    assert before.part("front") is not after.part("front")


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
