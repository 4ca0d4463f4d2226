"""The fit comb: answers in, a scale of fits out."""

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from lean_notch.basis import FITS
from lean_notch.basis.comb import FEELS, comb_clearances, read_comb
from lean_notch.ground.errors import NotchError, OutOfRange, ReadingsDisagree

WORDS = dict(zip(FEELS[1:], FITS, strict=True))
PAIRS = comb_clearances(-0.1, 0.04, 12)


def test_limits_lie_between_the_last_of_one_feel_and_the_first_of_the_next():
    """By hand, from pairs at -0.10, -0.06, ... : not, mallet, mallet, holds, holds, slides, falls apart."""
    answers = [FEELS[i] for i in (0, 1, 1, 2, 2, 3, 4)]
    read = read_comb(comb_clearances(-0.1, 0.04, 7), answers)
    assert read.scale.limits[:4] == pytest.approx((-0.08, 0.0, 0.08, 0.12))
    assert (read.scale.press, read.scale.snug, read.scale.slide) == pytest.approx((-0.04, 0.04, 0.10))
    assert (read.within, read.notes) == (pytest.approx(0.02), ())


def test_common_steps_of_feel_on_thin_ply():
    """Common practice: on a 0.115 in ply, compensation steps of 0.005, 0.006, 0.007 and 0.008 in run from falls apart over
    light and glue fit to holds without glue. More compensation leaves less room; one thousandth is one step."""
    inch = 25.4
    rooms = sorted(-2 * step * inch for step in (0.005, 0.006, 0.007, 0.008))
    read = read_comb(rooms, ["holds", "slides", "slides", "falls apart"])
    assert read.scale.snug < rooms[1] < read.scale.free
    assert read.within == pytest.approx(0.001 * inch)


@given(st.lists(st.sampled_from(FEELS), min_size=12, max_size=12).map(lambda f: sorted(f, key=FEELS.index)))
def test_any_order_that_can_be_gives_a_scale_that_calls_each_pair_as_it_felt(answers):
    seen = [FEELS.index(answer) for answer in answers]
    assume(min(seen) <= 2 <= max(seen))  # else it tells nothing of joints that hold
    read = read_comb(PAIRS, answers)
    for clearance, answer in zip(PAIRS, answers, strict=True):
        if answer in WORDS and read.scale.word(clearance) != "falls out":
            assert read.scale.word(clearance) == WORDS[answer]
    unseen = [feel for feel in FEELS[1:] if feel not in answers]
    assert len(read.notes) == len(unseen)


@given(st.floats(-0.04, 0.04), st.floats(0.06, 0.15), st.floats(0.16, 0.3))
def test_the_middle_of_snug_is_found_within_a_step(press, snug, slide):
    def feel(room):
        return (
            "needs a mallet"
            if room < press
            else "holds"
            if room < snug
            else "slides"
            if room < slide
            else "falls apart"
        )

    read = read_comb(PAIRS, [feel(room) for room in PAIRS])
    assert abs(read.scale.snug - (press + snug) / 2) <= 0.04 / 2 + 1e-4


def test_pairs_that_were_not_tried_are_passed_over():
    full = ["needs a mallet", "needs a mallet", "holds", "holds", "slides", "slides", "falls apart"]
    some = ["needs a mallet", "", "holds", "holds", "", "slides", "falls apart"]
    pairs = comb_clearances(-0.1, 0.04, 7)
    assert read_comb(pairs, some).scale.limits[2:4] != read_comb(pairs, full).scale.limits[2:4]
    assert read_comb(pairs, some).scale.snug == pytest.approx(read_comb(pairs, full).scale.snug, abs=0.04)


def test_answers_that_contradict_each_other_are_named_by_their_pairs():
    with pytest.raises(ReadingsDisagree) as caught:
        read_comb(PAIRS, ["needs a mallet", "holds", "slides", "holds"])
    assert caught.value.field == "answers[3]"
    assert "Pair 4 (0.02 mm) holds, although pair 3 (-0.02 mm), with less room, slides" in caught.value.why
    assert "again" in caught.value.fix


@pytest.mark.parametrize(
    ("answers", "field", "words"),
    [
        ([], "answers", "0 pairs"),
        (["holds", "holds"], "answers", "three or more"),
        (["falls apart"] * 4, "first", "starts at -0.34 mm"),
        (["needs a mallet"] * 12, "first", "starts at 0.34 mm"),
        (["holds", "mallet", "slides"], "answers[1]", "needs a mallet"),
        (["holds"] * 13, "answers", "13 answers"),
    ],
)
def test_a_comb_that_tells_nothing_says_what_to_cut_instead(answers, field, words):
    with pytest.raises(NotchError) as caught:
        read_comb(PAIRS, answers)
    assert caught.value.field == field
    assert words in f"{caught.value.why} {caught.value.fix}"


@pytest.mark.parametrize(
    ("first", "step", "pairs", "field"),
    [
        (-0.1, 0.001, 9, "step"),
        (-0.1, 2, 9, "step"),
        (5, 0.04, 9, "first"),
        (0, 0.04, 2, "pairs"),
        (0, 0.04, 99, "pairs"),
    ],
)
def test_a_comb_that_cannot_be_felt_is_refused(first, step, pairs, field):
    with pytest.raises(OutOfRange) as caught:
        comb_clearances(first, step, pairs)
    assert caught.value.field == field
