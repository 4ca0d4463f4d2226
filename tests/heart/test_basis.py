"""What was measured, and what is refused."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st
from lean_notch.basis import COMMON_FITS, Readings, board_basis_from_json, board_basis_to_json
from lean_notch.basis.machine import KerfFound
from lean_notch.basis.news import newer_entries
from lean_notch.basis.notebook import Entry
from lean_notch.ground.errors import KerfTooWide, NotchError, OutOfRange, ReadingsDisagree

DOCUMENT = {
    "stock": {
        "name": "Poplar ply", "kind": "plywood", "nominal": "3 mm", "readings": [3.02, "3.05", "0.1205 in"],
        "sheet_width": 600, "sheet_height": 400,
    },
    "machine": {"name": "Shed laser", "bed_width": 600, "bed_height": 400, "kerf": 0.14},
    "clearance": 0.02,
}  # fmt: skip


def changed(**parts):
    document = {key: dict(value) if isinstance(value, dict) else value for key, value in DOCUMENT.items()}
    for path, value in parts.items():
        first, _, second = path.partition("__")
        if second:
            document[first][second] = value
        else:
            document[first] = value
    return document


def test_readings_may_be_numbers_texts_and_inches():
    assert board_basis_from_json(DOCUMENT).stock.readings.values_mm == pytest.approx((3.02, 3.05, 3.0607))


def test_a_basis_survives_its_document():
    basis = board_basis_from_json(DOCUMENT)
    assert board_basis_from_json(board_basis_to_json(basis)) == basis


@given(st.lists(st.floats(2.9, 3.2), min_size=1, max_size=20))
def test_the_mean_lies_between_thin_and_thick(values):
    readings = Readings(tuple(values))
    assert readings.thin - 1e-9 <= readings.mean <= readings.thick + 1e-9
    assert readings.spread == pytest.approx(max(values) - min(values))


@pytest.mark.parametrize(
    ("readings", "error", "field"),
    [
        ([], OutOfRange, "readings"),
        ([3.0, 0.0], OutOfRange, "readings[1]"),
        ([3.0, -3.0], OutOfRange, "readings[1]"),
        ([float("inf")], NotchError, "readings[0]"),
        ([3.02, 30.5, 3.06], ReadingsDisagree, "readings[1]"),  # a decimal slip
        ([3.0, "three"], NotchError, "readings[1]"),
        ([3.0, None], NotchError, "readings[1]"),
        ([1e9], OutOfRange, "readings[0]"),
        ([3.0] * 101, NotchError, "readings"),
    ],
)
def test_bad_readings_are_refused_at_the_reading(readings, error, field):
    with pytest.raises(error) as caught:
        board_basis_from_json(changed(stock__readings=readings))
    assert caught.value.field == field


def test_readings_may_differ_by_exactly_a_quarter_of_their_mean():
    Readings((3.5, 4.5))
    with pytest.raises(ReadingsDisagree):
        Readings((3.49, 4.51))


@pytest.mark.parametrize(
    ("kerf", "error"), [(-0.1, OutOfRange), (float("nan"), NotchError), (60, KerfTooWide), ("wide", NotchError)]
)
def test_a_bad_kerf_is_refused_at_its_field(kerf, error):
    with pytest.raises(error) as caught:
        board_basis_from_json(changed(machine__kerf=kerf))
    assert caught.value.field == "kerf"


def test_no_kerf_at_all_is_allowed():
    assert board_basis_from_json(changed(machine__kerf=0)).kerf == 0


@pytest.mark.parametrize("document", [None, [], {}, {"stock": 3}, changed(clearance="x"), changed(stock__name="")])
def test_a_broken_document_names_the_place(document):
    with pytest.raises(NotchError) as caught:
        board_basis_from_json(document)
    assert caught.value.field
    assert caught.value.fix


@pytest.mark.parametrize(
    ("clearance", "word"), [(-0.01, "press"), (0, "snug"), (0.1, "snug"), (0.101, "slide"), (0.26, "free")]
)
def test_clearances_have_words(clearance, word):
    """Common practice: a 3.95 mm insert in a 4.05 mm slot is snug."""
    assert COMMON_FITS.word(clearance) == word


def test_a_board_larger_than_the_bed_is_cut_as_far_as_the_bed_goes():
    basis = board_basis_from_json(changed(stock__sheet_width=2440, stock__sheet_height=300))
    assert basis.sheet_area == (600, 300)


SLATS = {
    "way": "slats", "machine": "1", "stock": "7", "stock_name": "Poplar ply", "thickness": 3.0454, "within": 0.002,
}  # fmt: skip


@pytest.mark.parametrize(
    ("found_on", "pages", "newer"),
    [
        (None, [("2026-11-02", 0.15, True)], ["1"]),
        (None, [("2026-11-02", 0.14, True)], []),
        (None, [("2026-11-02", 0.15, False)], []),
        ("2026-11-01", [("2026-11-02", 0.15, True)], ["1"]),
        ("2026-11-02", [("2026-11-02", 0.15, True)], []),
        ("2026-11-03", [("2026-11-02", 0.15, True)], []),
        ("2026-11-03", [("2026-11-02", 0.15, True), ("2026-11-03", 0.14, False)], ["1"]),
        ("2026-11-03", [("2026-11-03", 0.14, False)], []),
    ],
)
def test_a_kerf_is_newer_if_found_later_or_instead_of_one_that_was_taken_back(found_on, pages, newer):
    """The job's own is 0.14, typed or found on a day; the notebook's pages are day, kerf and whether they are valid."""
    basis = board_basis_from_json(changed(stock__id="7", machine__id="1"))
    if found_on:
        found = KerfFound("slats", "Poplar ply", 3.0454, found_on, 0.002, "7")
        basis = replace(basis, machine=replace(basis.machine, found=found))
    notebook = [
        Entry(id=str(number), date=date, kerf=kerf, valid=valid, **SLATS)
        for number, (date, kerf, valid) in enumerate(pages, 1)
    ]
    assert [one.id for one in newer_entries(basis, notebook)] == newer
