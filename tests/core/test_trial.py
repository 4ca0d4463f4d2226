"""A job on another basis: what changes is what a rebuild says, and what cannot be made says why."""

from dataclasses import replace

import pytest
from conftest import make_basis, make_board, make_job, one_board
from hypothesis import given
from hypothesis import strategies as st
from lean_notch.basis import KerfFound
from lean_notch.job import compute
from lean_notch.told.another_basis import try_basis

NOW = compute(make_job())


def with_price(basis, price):
    board = basis.of("main")
    return one_board(replace(board, stock=replace(board.stock, price=price)))


def test_the_basis_at_hand_changes_nothing():
    trial = try_basis(NOW, NOW.job.basis)
    assert (trial.changes, trial.error, trial.sheets, trial.price) == ((), None, 1, None)
    assert (trial.failing, trial.wants) == ((), "")


def test_a_thicker_board_changes_what_it_should_by_what_it_should():
    """By hand: inside 150 x 100 x 60; outside is 2, 2 and 1 thicknesses more: 5.01 instead of 3.06."""
    trial = try_basis(NOW, make_basis(readings=(5.0, 5.01, 5.02)))
    by = {(change.about, change.before.key): (change.before.value, change.after.value) for change in trial.changes}
    assert by["", "thickness"] == (pytest.approx(3.06), pytest.approx(5.01))
    assert by["", "outside_width"] == (pytest.approx(156.12), pytest.approx(160.02))
    assert by["", "outside_height"] == (pytest.approx(63.06), pytest.approx(65.01))
    assert by["Base", "height"] == (pytest.approx(106.12), pytest.approx(110.02))
    assert ("", "clearance") not in by
    assert ("", "inside_width") not in by


def test_another_kerf_changes_no_part():
    trial = try_basis(NOW, make_basis(kerf=0.3))
    assert {change.subject for change in trial.changes} == {"basis:main"}
    assert {change.before.key for change in trial.changes} == {"kerf", "slot_drawn"}


@given(st.floats(1.5, 9), st.floats(0.05, 0.3), st.floats(-0.1, 0.3))
def test_every_change_is_what_the_job_on_that_basis_says(thickness, kerf, clearance):
    basis = make_basis(readings=(thickness,), kerf=kerf, clearance=clearance)
    trial = try_basis(NOW, basis)
    if trial.error:
        return
    built = compute(replace(NOW.job, basis=basis)).build
    for change in trial.changes:
        if change.subject == "job":
            assert change.after.value == pytest.approx(built.names[change.after.key])
        if change.subject.startswith("part:"):
            width, height = built.part(change.subject[5:]).size
            assert change.after.value == pytest.approx(width if change.after.key == "width" else height)


@pytest.mark.parametrize(
    ("basis", "code"),
    [
        (make_basis(sheet=(120, 120)), "part-too-large"),
        (make_basis(sheet=(200, 120), sheets=1), "sheets-run-out"),
        (make_basis(readings=(40.0,)), "finger-too-wide"),
    ],
)
def test_what_cannot_be_made_says_why_and_raises_nothing(basis, code):
    trial = try_basis(NOW, basis)
    assert trial.error.code == code
    assert trial.error.fix
    assert (trial.sheets, trial.joints) == (0, ())


def test_sheets_time_and_price_come_with_it():
    trial = try_basis(NOW, with_price(make_basis(sheet=(200, 120)), 2.5))
    assert trial.sheets > 1
    assert trial.price == 2.5 * trial.sheets
    assert trial.area == pytest.approx(trial.sheets * 200 * 120)
    assert trial.used == pytest.approx(sum(part.region.area for part in NOW.build.parts) / trial.area, rel=1e-3)
    assert trial.seconds > 60


def test_joints_that_would_fail_are_named():
    board = make_board()
    unsure = replace(board, machine=replace(board.machine, found=KerfFound("slats", "x", 3.06, "2026-11-02", 0.4)))
    trial = try_basis(NOW, one_board(unsure))
    assert trial.failing == tuple(mate.title for mate in NOW.build.mates)
    assert "all 8 joints" in trial.wants
