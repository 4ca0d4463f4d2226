"""Jobs of several boards: each with its own thickness, kerf, sheets, files, price and names in arithmetic."""

from dataclasses import replace

import pytest
from conftest import drawn, edited, make_basis, make_board, make_job
from lean_notch.basis import Basis
from lean_notch.edits import Edit, edit_job, sentence
from lean_notch.formats.paper_html import write_html
from lean_notch.ground.errors import NotchError
from lean_notch.hand_over.files import write_files
from lean_notch.hand_over.job_sheet import job_sheet
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute, job_from_json, job_to_json
from lean_notch.told.another_basis import try_basis
from lean_notch.told.ledger import ledger
from lean_notch.told.route import route


def acrylic(**values):
    board = make_board(readings=(3.90, 3.92, 3.94), kerf=0.18, clearance=0.06, sheet=(600, 300), **values)
    return replace(board, stock=replace(board.stock, name="Clear acrylic", kind="acrylic", price=9.5))


@pytest.fixture
def viewer():
    """A tray whose base is of another board."""
    job = edited(
        make_job(), Edit("put", "boards/bottom", {"title": "Bottom"}), Edit("put", "parts/base/board", "bottom")
    )
    priced = replace(make_board(), stock=replace(make_board().stock, price=3.2))
    return replace(job, basis=Basis((("main", priced), ("bottom", acrylic()))))


def test_boards_are_told_by_their_titles(viewer):
    back = [Edit("put", "parts/base/board", "main")]
    assert sentence(viewer, back, edit_job(viewer, back)) == "Changed the board of Base from Bottom to Board"


def test_each_member_is_cut_for_the_others_thickness_and_its_own_kerf(viewer):
    """By hand: the base's board of 3.92 is how deep the sides' sockets are; the sides' of 3.06 how deep the base's."""
    result = compute(viewer)
    mate = next(mate for mate in result.build.mates if mate.id == "front-base")
    assert [change.strip.high for change in mate.members] == [pytest.approx(3.92), pytest.approx(3.06)]
    assert {contact.clearance for contact in mate.contacts} == {0.02}
    paths = {path.part: path.shape.box for sheet in result.plan.sheets for path in sheet.paths}
    for part, kerf in (("base", 0.18), ("front", 0.14)):
        left, _, right, _ = paths[part]
        assert right - left == pytest.approx(156.12 + kerf)
    assert prove_job(result).fits


def test_a_part_of_another_thickness_than_the_recipes_lengths_hold_is_said(viewer):
    """By hand: a base of 3.92 takes 0.86 of the 60 inside, which 60 + 3.06 of outside height do not give back."""
    [told] = [finding for finding in compute(viewer).build.findings if finding.code == "other-board"]
    assert (told.part, told.severity) == ("base", "look")
    assert "3.92 mm thick; the recipe's lengths are worked out for Board, 3.06 mm" in told.why
    alike = replace(viewer, basis=viewer.basis.with_board("bottom", make_board()))
    assert "other-board" not in {finding.code for finding in compute(alike).build.findings}


def test_sheets_files_times_and_prices_are_by_board(viewer):
    result = compute(viewer)
    assert [(sheet.number, sheet.board, sheet.area.height) for sheet in result.layout.sheets] == [
        (1, "main", 400),
        (2, "bottom", 300),
    ]
    names = [file.name for file in write_files(result, "svg")]
    assert names == ["vial-carrier_poplar-ply_3.06mm_sheet-1.svg", "vial-carrier_clear-acrylic_3.92mm_sheet-2.svg"]
    assert try_basis(result, viewer.basis).price == pytest.approx(3.2 + 9.5)
    sheet = write_html(job_sheet(result))
    assert "Bottom: Clear acrylic" in sheet
    assert "Board: Poplar ply" in sheet
    assert route(result)[0].line == "3.06 mm, 5 readings, 3.92 mm, 3 readings"


def test_names_in_arithmetic_are_the_parts_own_boards_or_another_by_its_id(viewer):
    hole = {"kind": "shape", "id": "eye", "does": "cut", "x": 60, "y": 30}
    sizes = {}
    for part in ("front", "base"):
        for name in ("thickness", "main.thickness", "bottom.thickness", "bottom.clearance*10"):
            job = drawn(viewer, {**hole, "shape": {"kind": "disc", "diameter": name}}, part=part)
            sizes[part, name] = 2 * compute(job).build.part(part).region.holes[0].radius
    assert (
        sizes["front", "thickness"]
        == sizes["front", "main.thickness"]
        == sizes["base", "main.thickness"]
        == pytest.approx(3.06)
    )
    assert sizes["base", "thickness"] == sizes["front", "bottom.thickness"] == pytest.approx(3.92)
    assert sizes["front", "bottom.clearance*10"] == pytest.approx(0.6)


@pytest.mark.parametrize("name", ["kerf", "main.kerf", "lid.thickness"])
def test_the_kerf_is_never_a_name_and_an_unknown_board_neither(viewer, name):
    hole = {"kind": "shape", "id": "eye", "does": "cut", "shape": {"kind": "disc", "diameter": name}, "x": 60, "y": 30}
    error = compute(drawn(viewer, hole)).build.part("front").failed.error
    assert error.code == "not-a-length"
    assert "bottom.thickness" in error.fix


def test_a_board_that_the_basis_does_not_name_is_named(viewer):
    with pytest.raises(NotchError) as caught:
        compute(replace(viewer, basis=make_basis()))
    assert (caught.value.code, caught.value.field) == ("missing-input", "basis/bottom")


def test_a_job_of_two_boards_goes_out_and_in(viewer):
    assert job_from_json(job_to_json(viewer)) == viewer


def test_a_fit_of_two_boards_takes_both_kerfs_into_account(viewer):
    rows = {row.key: row for row in ledger(compute(viewer))["joint:front-base"]}
    assert rows["finger_drawn"].because.endswith("kerf 0.14 mm")
    assert rows["socket_drawn"].because.endswith("kerf 0.18 mm")
    assert "thickness of Base, 3.9 mm to 3.94 mm" in rows["finger_length"].because


def test_sets_multiply_quantities_sheets_time_and_price(viewer):
    one, twelve = compute(viewer), compute(edit_job(viewer, [Edit("put", "sets", 12)]))
    assert [part.quantity for part in twelve.build.parts] == [12] * 5
    assert len(twelve.layout.placed) == 12 * len(one.layout.placed)
    before, after = try_basis(one, viewer.basis), try_basis(twelve, viewer.basis)
    assert after.seconds == pytest.approx(12 * before.seconds, rel=0.05)
    assert after.price > before.price
    assert "12 sets" in write_html(job_sheet(twelve))
    assert prove_job(twelve).fits


@pytest.mark.parametrize("sets", [0, -1, 1001, "many", True, 1.5])
def test_sets_are_counted(viewer, sets):
    with pytest.raises(NotchError) as caught:
        edit_job(viewer, [Edit("put", "sets", sets)])
    assert caught.value.field == "sets"


def test_a_job_too_large_to_prove_is_refused_with_figures():
    with pytest.raises(NotchError) as caught:
        _ = compute(replace(make_job(make_basis(sheet=(20000, 20000))), sets=1000)).plan
    assert (caught.value.code, caught.value.field) == ("too-much-work", "sets")
    assert "250,000" in caught.value.why


def test_shown_sums_add_up():
    """A slot of 3.955 with a kerf of 0.14 is drawn 3.815: never 3.96 beside 3.81."""
    job = make_job(make_basis(readings=(3.935,), clearance=0.02))
    rows = {row.key: row for row in ledger(compute(job))["basis:main"]}
    assert rows["slot"].because == "thickness 3.935 mm + clearance 0.02 mm"
    assert rows["slot_drawn"].because == "slot 3.955 mm − kerf 0.14 mm"
    for some in ledger(compute(job)).values():
        for row in some:
            terms = [
                part.split(" mm")[0].split()[-1] for part in row.because.replace("−", "+ -").split("+") if " mm" in part
            ]
            if " + " in row.because or (" − " in row.because and row.kind == "length" and len(terms) == 2):
                signs = [1, -1 if "−" in row.because else 1]
                total = sum(sign * float(term) for sign, term in zip(signs, terms, strict=False))
                if len(terms) == 2 and row.value is not None and row.source == "computed" and "×" not in row.because:
                    assert total == pytest.approx(row.value, abs=0.0005), row
