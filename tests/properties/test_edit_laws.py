"""Laws of edits: an edit and its inverse give the same job, edits apart from each other commute, a recipe keeps what is
done by hand, and what is written is read again."""

from __future__ import annotations

import json
import random

import pytest
from conftest import make_job
from hypothesis import assume, given, settings
from hypothesis import strategies as st
from lean_notch.design import dangling
from lean_notch.edits import Edit, edit_job, edits_between, edits_from_json, edits_to_json, independent, sentence
from lean_notch.ground.errors import NotchError
from lean_notch.hand_over.packed import pack, unpack
from lean_notch.job import Job, compute, job_from_json, job_to_json
from random_edits import job_of, random_edit, tried

PARTS = ["front", "back", "left", "right", "base"]
part = st.sampled_from(PARTS)
length = st.sampled_from(["12", "width/4", "thickness*3", "1/2 in", "height - 20", "main.thickness"])
name = st.sampled_from(["a", "b", "c"])
hole = st.builds(
    lambda x, y, d: {"kind": "shape", "does": "cut", "shape": {"kind": "disc", "diameter": d}, "x": x, "y": y},
    length, length, length,
)  # fmt: skip


def put(path, value, after=None):
    return Edit("put", path, value, after)


edits = st.one_of(
    st.builds(lambda v: put("answers/width", v), st.sampled_from(["140", "depth + 50", "7 in"])),
    st.builds(lambda v: put("answers/finger", v), st.sampled_from(["", "9", "3*thickness"])),
    st.builds(lambda v: put("answers/sizes", v), st.sampled_from(["inside", "outside"])),
    st.builds(lambda p, n, h: put(f"parts/{p}/steps/{n}", h), part, name, hole),
    st.builds(lambda p, n, v: put(f"parts/{p}/steps/{n}/x", v), part, name, length),
    st.builds(lambda p, n: Edit("drop", f"parts/{p}/steps/{n}"), part, name),
    st.builds(lambda p, n, v: Edit("switch", f"parts/{p}/steps/{n}", v), part, name, st.booleans()),
    st.builds(lambda p, n: Edit("move", f"parts/{p}/steps/{n}", after="blank"), part, name),
    st.builds(lambda p, n, t: Edit("rename", f"parts/{p}/steps/{n}", to=t), part, name, name),
    st.builds(lambda p, v: put(f"parts/{p}/loose", v), part, st.integers(0, 3)),
    st.builds(lambda p, v: put(f"parts/{p}/title", v), part, st.sampled_from(["One", "Two"])),
    st.builds(lambda p: Edit("drop", f"parts/{p}"), part),
    st.builds(lambda p: Edit("move", f"parts/{p}", after=""), part),
    st.builds(lambda p, t: Edit("rename", f"parts/{p}", to=t), part, name),
    st.builds(lambda n, v: put(f"dimensions/{n}", {"title": n, "length": v, "chosen": True}), name, length),
    st.builds(lambda n: Edit("drop", f"dimensions/{n}"), name),
    st.builds(lambda n, t: Edit("rename", f"dimensions/{n}", to=t), name, st.sampled_from(["d", "e", "width"])),
    st.builds(lambda v: put("joints/front-left/how/width", v), st.sampled_from(["", "8", "10"])),
    st.just(Edit("drop", "joints/front-left")),
    st.builds(lambda v: put("placements/front/mirrored", v), st.booleans()),
    st.builds(lambda v: put("basis/main/kerf", v), st.sampled_from(["0.1", "0.2"])),
    st.builds(lambda v: put("basis/main/readings", v), st.sampled_from([["3.1"], ["3", "3.05"]])),
    st.builds(lambda v: put("layout/main/margin", v), st.sampled_from(["5", "6"])),
    st.builds(lambda v: put("boards/lid", {"title": v}), st.sampled_from(["Lid", "Top"])),
    st.just(Edit("drop", "boards/lid")),
    st.builds(lambda p: put(f"parts/{p}/board", "lid"), part),
    st.builds(lambda v: put("sets", v), st.integers(1, 4)),
    st.builds(lambda v: put("name", v), st.sampled_from(["Tray", "Box"])),
)


def attempt(job: Job, *some: Edit) -> Job | None:
    try:
        return edit_job(job, some)
    except NotchError:
        return None


def some_job(before: list[Edit]) -> Job:
    job = make_job()
    for edit in before:
        job = attempt(job, edit) or job
    return job


@given(st.lists(edits, max_size=12), st.lists(edits, min_size=1, max_size=6))
@settings(max_examples=150)
def test_an_edit_and_its_inverse_give_the_same_job(before, some):
    job = some_job(before)
    changed = some_job([*before, *some])
    assert edit_job(changed, edits_between(changed, job)) == job
    assert edit_job(job, edits_between(job, changed)) == changed


@given(st.lists(edits, max_size=8), edits, edits)
@settings(max_examples=300)
def test_edits_that_keep_apart_commute(before, mine, theirs):
    job = some_job(before)
    one, other = attempt(job, mine), attempt(job, theirs)
    assume(one is not None and other is not None)
    if independent(job, [mine], one, [theirs], other):
        both, turned = attempt(one, theirs), attempt(other, mine)
        assert both is not None
        assert both == turned


@given(st.lists(edits, max_size=10))
def test_a_job_is_read_as_it_was_written_and_told_in_words(some):
    job, begun = some_job(some), make_job()
    assert job_from_json(json.loads(json.dumps(job_to_json(job)))) == job
    between = edits_between(begun, job)
    written = json.loads(json.dumps(edits_to_json(between)))
    assert edits_to_json(edits_from_json(written)) == written
    assert edit_job(begun, edits_from_json(written)) == job
    assert job == begun or sentence(begun, between, job)


by_hand = st.lists(
    st.one_of(
        st.builds(lambda p, n, h: put(f"parts/{p}/steps/{n}", h), part, name, hole),
        st.builds(lambda p, v: put(f"parts/{p}/loose", v), part, st.integers(1, 3)),
        st.builds(lambda p, v: put(f"parts/{p}/title", v), part, st.sampled_from(["One", "Two"])),
        st.builds(lambda p, v: put(f"parts/{p}/steps/blank/shape/width", v), part, length),
        st.builds(lambda v: put("joints/front-left/how/width", v), st.sampled_from(["8", "10"])),
        st.builds(lambda n, v: put(f"dimensions/{n}", {"title": n, "length": v, "chosen": True}), name, length),
        st.builds(lambda n: put(f"parts/{n}", {"title": n, "loose": 1, "steps": []}), name),
        st.builds(lambda p: Edit("drop", f"parts/{p}"), part),
        st.just(Edit("drop", "joints/back-base")),
    ),
    max_size=6,
)


@given(
    by_hand,
    st.lists(st.sampled_from(["130", "160", "width2", "8 in"]).filter(lambda v: v != "width2"), min_size=1, max_size=3),
)
@settings(max_examples=150)
def test_a_recipe_made_anew_keeps_all_that_was_done_by_hand(some, widths):
    """As answering first and doing the same by hand afterwards."""
    early = some_job(some)
    late = make_job()
    for width in widths:
        early = edit_job(early, [put("answers/width", width)])
        late = edit_job(late, [put("answers/width", width)])
    for edit in some:
        late = attempt(late, edit) or late
    assert early.design == late.design


def test_what_a_size_edit_dropped_once_is_kept():
    job = edit_job(
        make_job(),
        [
            put("parts/lid", {"title": "Lid", "loose": 1, "steps": []}), put("parts/left/loose", 2),
            put("joints/front-left/how/width", "8"), put("joints/front-left/title", "Corner"),
        ],
    )  # fmt: skip
    wider = edit_job(job, [put("answers/width", "200")])
    assert [one.id for one in wider.design.parts][-1] == "lid"
    assert wider.design.part("left").loose == 2
    joint = wider.design.joints[0]
    assert (joint.title, joint.how.width.text) == ("Corner", "8")
    fingers = edit_job(wider, [put("answers/finger", "12")])
    assert [one.how.width.text for one in fingers.design.joints[:2]] == ["8", "12"]


@pytest.mark.parametrize(
    ("mine", "theirs"),
    [
        (put("answers/width", "160"), put("answers/width", "170")),
        (Edit("rename", "dimensions/a", to="z"), put("parts/front/steps/h/x", "a")),
        (Edit("drop", "parts/front"), put("parts/front/title", "Face")),
        (Edit("drop", "parts/front/steps/h"), put("parts/front/steps/h/x", "5")),
        (put("basis/main/readings", ["3.2"]), put("basis/main/readings", ["3.3"])),
        (
            put("parts/front/steps/i", {"kind": "grow", "by": "1"}),
            put("parts/front/steps/j", {"kind": "grow", "by": "2"}),
        ),
        (Edit("rename", "parts/front", to="face"), put("placements/second", {"part": "front"})),
    ],
)
def test_edits_that_get_in_each_others_way_are_not_merged(mine, theirs):
    start = [
        put("dimensions/a", {"title": "a", "length": "9", "chosen": True}),
        put(
            "parts/front/steps/h",
            {"kind": "shape", "does": "cut", "shape": {"kind": "disc", "diameter": "5"}, "x": "9", "y": "9"},
        ),
    ]
    job = edit_job(make_job(), start)
    assert not independent(job, [mine], edit_job(job, [mine]), [theirs], edit_job(job, [theirs]))


@pytest.mark.parametrize(
    ("edit", "told"),
    [
        (put("parts/front/steps/h/x", "11"), "Moved h of Front by 2 mm to the right"),
        (put("parts/front/steps/h/shape/diameter", "6"), "Changed the diameter of h of Front from 5 mm to 6 mm"),
        (put("answers/width", "160"), "Set width to 160 mm"),
        (put("basis/main/kerf", "0.2"), "Changed the kerf from 0.14 mm to 0.2 mm"),
        (Edit("drop", "parts/left"), "Removed Left side"),
        (Edit("switch", "parts/front/steps/h", False), "Switched h of Front off"),
        (Edit("move", "parts/base", after=""), "Moved Base to the front"),
        (Edit("rename", "parts/front/steps/h", to="eye"), "Renamed h of Front to eye"),
        (put("name", "Box"), "Renamed the job to Box"),
        (put("sets", 12), "Made 12 sets of it"),
    ],
)
def test_history_reads_as_sentences(edit, told):
    step = {"kind": "shape", "does": "cut", "shape": {"kind": "disc", "diameter": "5"}, "x": "9", "y": "9"}
    job = edit_job(make_job(), [put("parts/front/steps/h", step)])
    assert sentence(job, [edit], edit_job(job, [edit])) == told


@pytest.mark.parametrize("recipe", ["crossed-figure", "framed-stand", "angle-gauge", "open-tray"])
def test_the_same_job_packs_to_the_same_bytes_and_its_history_has_whole_sentences(recipe):
    """Angles as 90 and as 90.0 are the same job; a sentence that ends in nothing tells nothing."""
    rng = random.Random(recipe)
    job = job_of(recipe)
    for _ in range(60):
        edit = random_edit(job, rng)
        after = tried(job, edit)
        if after is None or after == job:
            continue
        said = sentence(job, [edit], after)
        assert said == said.rstrip()
        assert not said.endswith((" to", " from", " of"))
        packed = pack(after, {})
        assert pack(unpack(packed)[0], {}) == packed
        job = after


def test_a_number_goes_as_a_whole():
    """What was a 500: a path into a length, an angle or a count."""
    job = make_job()
    for path in ("parts/front/steps/blank/x/text", "parts/front/steps/blank/turn/text", "dimensions/width/length/text"):
        assert attempt(job, put(path, "5")) is None


def test_a_step_called_like_an_edge_is_renamed_and_the_edge_is_not():
    """The wrong edit: `left` to `hole` made `blank.hole` of `blank.left`, and a joint broke."""
    step = {"kind": "shape", "does": "cut", "shape": {"kind": "disc", "diameter": "5"}, "x": "9", "y": "9"}
    near = {**step, "from_x": "centre:left", "from_y": "edge:blank.left", "y": "12"}
    job = edit_job(make_job(), [put("parts/front/steps/left", step), put("parts/front/steps/near", near)])
    renamed = edit_job(job, [Edit("rename", "parts/front/steps/left", to="hole")])
    one = next(s for s in renamed.design.part("front").steps if s.id == "near")
    assert (one.from_x, one.from_y) == ("centre:hole", "edge:blank.left")
    assert renamed.design.joints == job.design.joints


def test_an_answer_leaves_nothing_that_points_at_what_the_recipe_makes_no_more():
    job = job_of("framed-stand")
    three = edit_job(job, [put("answers/inserts", "3")])
    last = next(
        joint for joint in reversed(three.design.joints) if "insert-3" in joint.first.placement + joint.second.placement
    )
    by_hand = edit_job(three, [put(f"joints/{last.id}/how/width", "14")])
    two = edit_job(by_hand, [put("answers/inserts", "2")])
    assert not list(dangling(two.design))


def test_a_mark_on_a_part_of_nothing_is_refused_at_its_step():
    mark = {
        "kind": "shape",
        "does": "mark",
        "operation": "score",
        "shape": {"kind": "disc", "diameter": "5"},
        "x": "9",
        "y": "9",
    }
    job = edit_job(make_job(), [put("parts/front/steps/ring", mark), Edit("drop", "parts/front/steps/blank")])
    with pytest.raises(NotchError, match="nothing of Front to mark yet") as refused:
        compute(job)
    assert refused.value.field == "parts/front/steps/ring/does"
