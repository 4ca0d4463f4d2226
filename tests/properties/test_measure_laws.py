"""Laws of measuring: what must hold for any board, kerf and notebook."""

from dataclasses import replace

import pytest
from conftest import make_board
from hypothesis import given
from hypothesis import strategies as st
from lean_notch.basis import Readings, machine_to_json, stock_to_json
from lean_notch.basis.equip import equipped
from lean_notch.basis.kerf import kerf_of_plug, kerf_of_slats
from lean_notch.basis.news import news_of_machine, news_of_stock
from lean_notch.basis.notebook import Entry, offers
from lean_notch.lengths.units import MM_PER_INCH

BASIS = make_board()
STOCK = replace(BASIS.stock, id="7")
MACHINE = replace(BASIS.machine, id="1", found=None)
kerfs = st.floats(0.05, 0.4)
noise = st.lists(st.integers(-3, 3).map(lambda n: n / 100), min_size=2, max_size=8)


@given(kerfs, st.integers(4, 20), noise)
def test_slats_give_back_the_kerf_that_was_taken_from_them(kerf, pieces, off):
    """By hand: `pieces` kerfs are missing from the row, whatever the readings wander by is shared among them."""
    length = 10.0 * pieces
    found = kerf_of_slats(length, pieces, [length - pieces * kerf + error for error in off])
    assert found.value == pytest.approx(kerf - sum(off) / len(off) / pieces)


@given(kerfs, noise, noise)
def test_plug_and_hole_give_it_back_too(kerf, hole_off, plug_off):
    hole, plug = [20 + kerf + e for e in hole_off], [20 - kerf + e for e in plug_off]
    shared = (sum(hole_off) / len(hole_off) - sum(plug_off) / len(plug_off)) / 2
    if kerf + shared > 0:
        assert kerf_of_plug(hole, plug).value == pytest.approx(kerf + shared)


@given(kerfs, st.integers(2, 4))
def test_a_longer_row_of_more_slats_knows_the_kerf_better(kerf, times):
    """A row as many times as long misses as many times the kerf, and is read no worse."""
    off = (-0.01, 0.0, 0.01)
    short, long = (
        kerf_of_slats(10.0 * n, n, [10.0 * n - n * kerf + e for e in off]).standard for n in (10, 10 * times)
    )
    assert long == pytest.approx(short / times)


@given(st.lists(st.integers(290, 320).map(lambda n: n / 100), min_size=1, max_size=12), st.randoms())
def test_the_order_of_readings_says_nothing_of_the_board(values, shuffle):
    mixed = list(values)
    shuffle.shuffle(mixed)
    one, other = Readings(tuple(values)), Readings(tuple(mixed))
    assert (one.mean, one.thin, one.thick) == (other.mean, other.thin, other.thick)
    assert sorted(one.values_mm[i] for i in one.outliers) == sorted(other.values_mm[i] for i in other.outliers)


@given(st.lists(st.floats(2.9, 3.2), min_size=2, max_size=8))
def test_a_board_is_as_thick_in_inches(values):
    """1959: 25.4 mm."""
    there_and_back = Readings(tuple(value / MM_PER_INCH * MM_PER_INCH for value in values))
    assert there_and_back.mean == pytest.approx(Readings(tuple(values)).mean, abs=1e-9)


entries = st.lists(
    st.builds(
        lambda day, thickness, stock, machine, valid, kerf: Entry(
            "", "slats", machine, stock, f"board {stock}", thickness, f"2026-{day:02d}-01", kerf=kerf, valid=valid
        ),
        st.integers(1, 12), st.sampled_from([3.05, 3.06, 3.5, 5.0]), st.sampled_from("78"), st.sampled_from("12"),
        st.booleans(), kerfs,
    ),
    max_size=8, unique_by=lambda entry: entry.date,
).map(lambda found: [replace(entry, id=str(i)) for i, entry in enumerate(found)])  # fmt: skip


@given(entries, st.randoms())
def test_what_the_notebook_offers_does_not_hang_on_the_order_of_its_pages(found, shuffle):
    mixed = list(found)
    shuffle.shuffle(mixed)
    offered = offers(found, MACHINE, STOCK)
    assert offered == offers(mixed, MACHINE, STOCK)
    assert {offer.entry.id for offer in offered} == {e.id for e in found if e.valid and e.machine == "1"}
    doubts = [bool(offer.warnings) for offer in offered]
    assert doubts == sorted(doubts)  # the sure ones first
    for sure in (True, False):
        dates = [offer.entry.date for offer in offered if bool(offer.warnings) is not sure]
        assert dates == sorted(dates, reverse=True)


@given(entries)
def test_a_kerf_of_another_board_or_thickness_is_never_taken_unasked(found):
    basis = equipped(STOCK, MACHINE, found)
    taken = basis.machine.found
    own = [e for e in found if e.valid and e.machine == "1" and e.stock == "7" and abs(e.thickness - 3.06) <= 0.1]
    if not own:
        assert (taken, basis.kerf) == (None, MACHINE.kerf)
    else:
        newest = max(own, key=lambda entry: entry.date)
        assert taken is not None
        assert (taken.date, basis.kerf) == (newest.date, newest.kerf)
        assert basis.doubts == ()


@given(entries, st.floats(-0.1, 0.4))
def test_following_twice_is_following_once(found, clearance):
    own = replace(make_board(clearance=clearance), stock=STOCK, machine=MACHINE)
    rack = replace(STOCK, readings=Readings((3.3, 3.31)))
    once = equipped(rack, MACHINE, found, own)
    assert equipped(rack, MACHINE, found, once) == once
    assert news_of_stock(stock_to_json(once.stock), stock_to_json(rack)) == ()
    assert news_of_machine(machine_to_json(once.machine), machine_to_json(MACHINE)) == ()
    assert once.clearance == clearance
