"""What a clearance feels like, over all that is not known for sure."""

from dataclasses import replace

import pytest
from conftest import make_board, make_job, one_board
from hypothesis import given
from hypothesis import strategies as st
from lean_notch.basis import COMMON_FITS, FIT_WORDS, FITS, Board, KerfFound, Readings
from lean_notch.basis.fits import FitScale, scale_from_json, scale_to_json
from lean_notch.ground.errors import NotchError
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute
from lean_notch.lengths.length import length_mm
from lean_notch.making import build
from lean_notch.making.fit import fit_wants, joint_fits
from lean_notch.told.ledger import ledger
from lean_notch.told.route import route


def sure_within(basis, within, thickness=3.06):
    found = KerfFound("slats", "Poplar ply", thickness, "2026-11-02", within)
    return replace(basis, machine=replace(basis.machine, found=found))


def of_kind(basis, kind):
    stock = basis.stock
    changed = Board(stock.name, kind, stock.nominal, stock.readings, stock.sheet_width, stock.sheet_height)
    return replace(basis, stock=changed)


# Words


@given(st.floats(-3, 3), st.floats(0, 3))
def test_more_room_never_feels_tighter(clearance, more):
    tighter, looser = (FIT_WORDS.index(COMMON_FITS.word(value)) for value in (clearance, clearance + more))
    assert tighter <= looser


@given(st.floats(-3, -1e-6), st.floats(0, 1))
def test_a_board_that_gives_way_never_feels_tighter_and_never_looser_than_snug(clearance, squeeze):
    hard, soft = (FIT_WORDS.index(COMMON_FITS.word(clearance, give)) for give in (0.0, squeeze))
    assert hard <= soft <= FIT_WORDS.index("snug")


@pytest.mark.parametrize("name", FITS)
def test_each_fit_is_made_with_a_clearance_of_its_own_word(name):
    assert COMMON_FITS.word(getattr(COMMON_FITS, name)) == name


def test_facts_of_the_trade():
    """Common practice: a 3.95 mm insert in a 4.05 mm slot is snug; 0.001 in on finger joints closes with a light mallet
    if it is less than nothing, and holds if it is more; a board 0.3 mm too thick will not go."""
    readings = Readings((3.95, 3.95, 3.95))
    acrylic = replace(make_board(readings=readings.values_mm, clearance=0.10), machine=make_board().machine)
    assert acrylic.slot == pytest.approx(4.05)
    assert acrylic.slot_fit.verdict == "snug"
    thousandth = length_mm("0.001 in")
    assert COMMON_FITS.word(-thousandth) == "press"
    assert COMMON_FITS.word(thousandth) == "snug"
    assert COMMON_FITS.word(-0.3) == "will not go"


@pytest.mark.parametrize(
    "wrong",
    [(0.1, 0.0, 0.2, 0.3), (0, 0, 0.2, 0.3), (-0.1, 0, 0.2, 9), (float("nan"), 0, 0.2, 0.3)],
)
def test_a_scale_that_does_not_rise_is_refused(wrong):
    with pytest.raises(NotchError) as caught:
        FitScale(*wrong, limits=COMMON_FITS.limits)
    assert caught.value.field == "fits"


def test_a_scale_goes_out_and_in():
    scale = FitScale(-0.05, 0.01, 0.1, 0.2, (-0.1, -0.02, 0.05, 0.15, 0.5))
    assert scale_from_json(scale_to_json(scale)) == scale
    with pytest.raises(NotchError):
        scale_from_json({**scale_to_json(scale), "limits": [0, 1]})


# Spread


def test_a_finger_is_as_sure_as_the_kerf_is():
    """By hand: a kerf 0.01 wider takes 0.01 from the finger and gives 0.01 to the socket, 0.02 more room."""
    fit = sure_within(make_board(clearance=0.02), 0.01).finger_fit
    assert (fit.low, fit.high) == (pytest.approx(0.0), pytest.approx(0.04))
    assert (fit.verdict, fit.wants, fit.loose, fit.tight) == ("snug", "", False, False)


def test_a_kerf_that_is_not_sure_makes_a_fit_that_is_not():
    fit = sure_within(make_board(clearance=0.02), 0.05).finger_fit
    assert fit.verdict == "press to slide"
    assert fit.wants == "may be tight if the kerf is narrower, may be loose if the kerf is wider"
    assert not fit.fails


def test_a_board_in_a_slot_is_as_sure_as_its_thickness():
    """By hand: a slot of 3.06 + 0.02; less 3.10 is -0.02, less 3.02 is 0.06; the kerf adds its 0.005 on either side."""
    fit = sure_within(make_board(clearance=0.02), 0.005).slot_fit
    assert (fit.low, fit.high) == (pytest.approx(-0.025), pytest.approx(0.065))
    assert fit.wants == "may be tight where the board is thickest"
    loose = make_board(readings=(2.9, 3.06, 3.2), clearance=0.02).slot_fit
    assert "may be loose where the board is thinnest" in loose.wants
    assert "will not go where the board is thickest" in loose.wants
    assert loose.fails


def test_one_reading_knows_no_spread_and_says_so():
    basis = make_board()
    lone = replace(basis, stock=replace(basis.stock, readings=Readings((3.06,))))
    assert "One reading" in lone.slot_fit.warnings[0]
    assert basis.slot_fit.warnings == ()
    rows = {row.key: row for row in ledger(compute(make_job(one_board(lone))))["basis:main"]}
    assert (rows["spread"].value, rows["spread"].word) == (None, "not known")


def test_what_falls_out_or_will_not_go_fails_even_if_it_was_chosen():
    assert sure_within(make_board(clearance=0.5), 0.06).finger_fit.fails
    chosen = make_board(clearance=0.9).finger_fit
    assert (chosen.verdict, chosen.fails, chosen.wants) == ("falls out", True, "will fall out")
    tight = make_board(clearance=-0.11).finger_fit
    assert (tight.verdict, tight.fails, tight.wants) == ("will not go", True, "will not go")


@pytest.mark.parametrize("kind", ["acrylic", "composite"])
def test_a_brittle_board_never_gets_a_press_fit_without_a_warning(kind):
    pressed = of_kind(make_board(clearance=-0.03), kind)
    assert "brittle" in pressed.finger_fit.warnings[0]
    perhaps = sure_within(of_kind(make_board(clearance=0.02), kind), 0.03)
    assert perhaps.finger_fit.warnings
    assert not of_kind(make_board(clearance=0.02), kind).finger_fit.warnings
    assert not of_kind(make_board(clearance=-0.03), "plywood").finger_fit.warnings


def test_corrugated_board_may_be_squeezed():
    """A tenth of its thickness (common practice): 5 mm board takes 0.4 mm less room and is still snug."""
    board = of_kind(make_board(readings=(5.0, 5.0, 5.0), clearance=-0.4), "corrugated board")
    assert board.finger_fit.verdict == "snug"
    assert of_kind(board, "plywood").finger_fit.verdict == "will not go"
    assert (
        of_kind(make_board(readings=(5.0, 5.0, 5.0), clearance=-1), "corrugated board").finger_fit.verdict
        == "will not go"
    )


@given(st.floats(-0.3, 0.6), st.floats(0, 0.1), st.floats(0, 0.1))
def test_knowing_less_never_narrows_a_verdict(clearance, within, more):
    narrow, wide = (sure_within(make_board(clearance=clearance), value).finger_fit for value in (within, within + more))
    assert wide.low <= narrow.low <= narrow.high <= wide.high
    assert FIT_WORDS.index(wide.tightest) <= FIT_WORDS.index(narrow.tightest)
    assert FIT_WORDS.index(wide.loosest) >= FIT_WORDS.index(narrow.loosest)


# Joints, and the whole job


def test_every_joint_has_its_fit_and_how_far_its_faces_stand_out():
    job = make_job()
    built = build(job.design, job.basis)
    joints = joint_fits(built.parts, built.mates, job.basis)
    assert len(joints) == 8
    assert joints[0].proud == pytest.approx((0.04, 0, -0.04), abs=1e-9)
    assert fit_wants(joints) == ""


def test_the_whole_job_is_said_in_one_line():
    basis = sure_within(make_board(clearance=0.09), 0.02)
    built = compute(make_job(one_board(basis))).build
    joints = joint_fits(built.parts, built.mates, one_board(basis))
    assert fit_wants(joints) == "all 8 joints may be loose if the kerf is wider"
    sure = replace(joints[0], fit=make_board().finger_fit)
    assert fit_wants([sure, sure, *joints[2:4]]) == "2 of 4 joints may be loose if the kerf is wider"


def test_route_ledger_and_proof_say_the_same():
    basis = sure_within(make_board(clearance=0.09), 0.02)
    result = compute(make_job(one_board(basis)))
    join = next(stop for stop in route(result) if stop.key == "join")
    assert (join.state, join.line, join.wants) == (
        "look", "8 joints, snug to slide", "all 8 joints may be loose if the kerf is wider"
    )  # fmt: skip
    row = next(row for row in ledger(result)["joint:front-left"] if row.key == "fit")
    assert (row.word, row.because) == (
        "snug to slide",
        "clearance 0.05 mm to 0.13 mm: may be loose if the kerf is wider",
    )
    findings = [finding for finding in prove_job(result).findings if finding.code == "fit-spread"]
    assert [finding.severity for finding in findings] == ["look"]


def test_a_fit_that_may_fail_is_something_to_stop_for():
    result = compute(make_job(one_board(sure_within(make_board(clearance=0.02), 0.4))))
    assert ("fit-spread", "stop") in [(finding.code, finding.severity) for finding in result.build.findings]


def test_a_kerf_of_another_thickness_is_doubted_everywhere():
    result = compute(make_job(one_board(sure_within(make_board(), 0.002, thickness=5.0))))
    assert "measured on 5 mm; this board measures 3.06 mm" in result.job.basis.of("main").doubts[0]
    assert route(result)[0].wants == "kerf of another board"
    assert "kerf-doubt" in [finding.code for finding in result.build.findings]
    assert compute(make_job(one_board(sure_within(make_board(), 0.002)))).job.basis.of("main").doubts == ()
