"""Boards, machines, notebook entries and settings: documents in and out, and what is refused where."""

from dataclasses import replace

import pytest
from conftest import make_board
from lean_notch.basis import (
    BoardBasis,
    KerfFound,
    Readings,
    board_basis_from_json,
    board_basis_to_json,
    machine_from_json,
    machine_to_json,
    stock_from_json,
    stock_to_json,
)
from lean_notch.basis.equip import equipped, with_kerf
from lean_notch.basis.fits import FitScale
from lean_notch.basis.news import news_of_machine, news_of_stock
from lean_notch.basis.notebook import Entry, offers
from lean_notch.basis.settings import (
    RUBS_BELOW_MM,
    chip_load,
    hints,
    passes_for,
    say_setting,
    setting_from_json,
    setting_to_json,
    settings_for,
)
from lean_notch.ground.errors import NotchError
from lean_notch.lengths.length import length_mm

BOARD = {
    "name": "Poplar ply", "nominal": 3, "readings": [3.05, 3.06, 3.07], "sheet_width": 600, "sheet_height": "24 in",
    "sheets": 4, "other_sheets": [{"width": 300, "height": 200}, {"width": "1 ft", "height": 200, "count": 2}],
    "offcuts": [{"name": "corner", "outline": [[0, 0], [380, 0], [380, 90], [140, 90], [140, 260], [0, 260]]}],
    "direction": "along the width", "price": "3,20", "note": "tape under the board", "id": "7", "measured": "2026-11-02",
}  # fmt: skip
ROUTER = {
    "name": "Barn router", "kind": "router", "bed_width": 1250, "bed_height": 1250, "kerf": 6,
    "origin": "upper right", "x_axis": "left", "y_axis": "down",
    "tools": [{"name": "six", "diameter": 6, "flute_length": 22}, {"name": "three", "diameter": "1/8 in", "flute_length": 9}],
    "tool": "six", "keep_outs": [{"name": "clamp", "x": 0, "y": 10, "width": 50, "height": 20}], "id": "2",
}  # fmt: skip


def test_a_board_goes_out_and_in():
    stock = stock_from_json(BOARD)
    assert stock_from_json(stock_to_json(stock)) == stock
    assert (stock.price, stock.other_sheets[1].width) == (3.2, pytest.approx(304.8))
    assert stock.offcuts[0].area == pytest.approx(380 * 90 + 140 * 170)  # by hand: an L


def test_an_off_cut_typed_the_other_way_round_is_the_same():
    outline = BOARD["offcuts"][0]["outline"]
    turned = stock_from_json({**BOARD, "offcuts": [{"name": "corner", "outline": outline[::-1]}]})
    assert turned.offcuts[0].area == pytest.approx(stock_from_json(BOARD).offcuts[0].area)


def test_a_sheet_of_another_size_is_cut_from():
    stock = stock_from_json(BOARD).cut_from(2)
    assert (stock.sheet_width, stock.sheets) == (pytest.approx(304.8), 2)
    assert sorted(size.width for size in stock.sizes) == sorted(size.width for size in stock_from_json(BOARD).sizes)
    with pytest.raises(NotchError) as caught:
        stock.cut_from(3)
    assert caught.value.field == "sheet"


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"other_sheets": [{"width": 0, "height": 5}]}, "stock.other_sheets[0]"),
        ({"other_sheets": [{"width": 5, "height": 5, "count": "some"}]}, "stock.other_sheets[0]"),
        ({"other_sheets": [{"width": 5}]}, "stock.other_sheets[0].height"),
        ({"offcuts": [{"name": "x", "outline": [[0, 0], [1, 1]]}]}, "stock.offcuts[0]"),
        ({"offcuts": [{"name": "x", "outline": [[0, 0], [9, 9], [9, 0], [0, 9]]}]}, "stock.offcuts[0]"),  # a bow tie
        ({"offcuts": [{"name": "x", "outline": [[0, 0], [9, 0], [0, 0], [0, 9]]}]}, "stock.offcuts[0]"),
        ({"offcuts": [{"name": "x", "outline": [[0, 0], [0, 0], [9, 9]]}]}, "stock.offcuts[0]"),
        ({"offcuts": [{"name": "x", "outline": [[0, 0], [9], [9, 9]]}]}, "stock.offcuts[0]"),
        ({"offcuts": [{"name": "x", "outline": [[0, 0], [9e9, 0], [9, 9]]}]}, "stock.offcuts[0]"),
        ({"offcuts": [{"name": "", "outline": [[0, 0], [9, 0], [9, 9]]}]}, "stock.offcuts[0]"),
        ({"direction": "up"}, "stock.direction"),
        ({"price": "cheap"}, "stock.price"),
        ({"price": -1}, "stock.price"),
        ({"note": "x" * 2000}, "stock.note"),
    ],
)
def test_a_board_that_cannot_be_is_refused_at_its_place(change, field):
    with pytest.raises(NotchError) as caught:
        stock_from_json({**BOARD, **change})
    assert caught.value.field == field


def test_a_machine_goes_out_and_in():
    machine = machine_from_json(ROUTER)
    assert machine_from_json(machine_to_json(machine)) == machine
    assert machine.in_spindle.diameter == 6
    found = KerfFound("slats", "Birch ply", 11.9, "2026-08-01", 0.02)
    assert machine_from_json({**ROUTER, "found": machine_to_json(machine)["found"]}).kerf_within == 0
    assert machine_from_json({**ROUTER, "found": vars(found)}).kerf_within == 0.02


def test_a_tool_in_the_spindle_is_the_kerf_and_no_longer_the_one_that_was_found():
    machine = machine_from_json({**ROUTER, "found": vars(KerfFound("slats", "Birch", 12, "2026-08-01", 0.02))})
    changed = machine.with_tool("three")
    assert (changed.kerf, changed.found) == (pytest.approx(3.175), None)
    assert machine.with_tool("").in_spindle is None


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"tool": "four"}, "tool"),
        ({"tools": [{"name": "a", "diameter": 0, "flute_length": 9}], "tool": ""}, "machine.tools[0]"),
        ({"tools": [{"name": "a", "diameter": 6, "flute_length": 9, "flutes": 0}], "tool": ""}, "machine.tools[0]"),
        ({"tools": [{"name": "a", "diameter": 6, "flute_length": 9}] * 2, "tool": "a"}, "machine.tools"),
        ({"keep_outs": [{"name": "c", "x": 0, "y": 0, "width": -1, "height": 3}]}, "machine.keep_outs[0]"),
        ({"keep_outs": [{"name": "c", "x": 1e6, "y": 0, "width": 1, "height": 3}]}, "machine.keep_outs[0]"),
        ({"origin": "middle"}, "machine.origin"),
        ({"x_axis": "up"}, "machine.x_axis"),
        ({"kerf": -0.1}, "kerf"),
        ({"kerf": 80}, "kerf"),
        ({"found": {"way": "guess"}}, "machine.found"),
    ],
)
def test_a_machine_that_cannot_be_is_refused_at_its_place(change, field):
    with pytest.raises(NotchError) as caught:
        machine_from_json({**ROUTER, **change})
    assert caught.value.field == field


@pytest.mark.parametrize("place", [{"x": 1250}, {"y": 1250}, {"x": -50}, {"y": -20}])
def test_a_clamp_beside_the_bed_is_a_slip(place):
    with pytest.raises(NotchError) as caught:
        machine_from_json({**ROUTER, "keep_outs": [{**ROUTER["keep_outs"][0], **place}]})
    assert caught.value.field == "machine.keep_outs[0]"


def test_a_lasers_kerf_wider_than_the_board_is_a_slip_but_not_in_card():
    document = board_basis_to_json(make_board())
    document["machine"]["kerf"] = 14
    with pytest.raises(NotchError, match=r"14 mm is wider than the board is thick, 3\.06 mm") as caught:
        board_basis_from_json(document)
    assert caught.value.field == "kerf"
    document["machine"]["kerf"] = 0.2
    document["stock"] |= {"nominal": 0.15, "readings": [0.15, 0.15]}
    assert board_basis_from_json(document).kerf == 0.2
    assert board_basis_from_json({**document, "machine": {**ROUTER, "kerf": 6}}).kerf == 6


# The notebook

SCALE = FitScale(-0.05, 0.01, 0.1, 0.2, (-0.1, -0.02, 0.05, 0.15, 0.5))


def page(number, date="2026-11-02", **more):
    common = {
        "machine": "1",
        "stock": "7",
        "stock_name": "Poplar ply",
        "thickness": 3.06,
        "kerf": 0.14,
        "within": 0.002,
    }
    return Entry(id=str(number), way="slats", date=date, **{**common, **more})


def workshop():
    basis = make_board(typed_kerf=True)
    machine = machine_from_json({**machine_to_json(basis.machine), "id": "1"})
    return stock_from_json(BOARD), machine


def test_the_newest_entry_without_a_doubt_comes_first():
    stock, machine = workshop()
    pages = [
        page(1, "2026-10-01"), page(2, "2026-11-01"), page(3, "2026-11-20", thickness=5.0, stock="8", stock_name="Other"),
        page(4, "2026-11-21", valid=False), page(5, "2026-11-22", machine="2"), page(6, "2026-11-23", tool="six"),
        page(7, "2026-11-10", stock="8", stock_name="Other"),
    ]  # fmt: skip
    found = offers(pages, machine, stock)
    assert [offer.entry.id for offer in found] == ["2", "1", "3", "7"]
    assert found[2].warnings == (
        "measured on 5 mm; this board measures 3.06 mm, and the kerf varies with thickness", "found on Other, not on Poplar ply",
    )  # fmt: skip
    assert found[3].warnings == ("found on Other, not on Poplar ply",)


def test_a_comb_cut_for_another_kerf_than_is_known_now_is_doubted():
    """By hand: a kerf that is 0.03 wider than the comb was cut for gives every pair 0.06 more room than is written on it."""
    stock, machine = workshop()
    comb = page(2, kerf=None, fits=SCALE, cut_with=0.14)
    assert [offer.warnings for offer in offers([page(1, kerf=0.145), comb], machine, stock)] == [(), ()]
    kerf, doubted = offers([page(1, kerf=0.17), comb], machine, stock)
    assert (kerf.entry.id, doubted.entry.id) == ("1", "2")
    assert doubted.warnings == ("cut for a kerf of 0.14 mm, which is 0.17 mm now: cut another comb",)
    assert equipped(stock, machine, [page(1, kerf=0.17), comb]).fits != SCALE


def test_a_basis_takes_what_is_sure_and_nothing_else():
    stock, machine = workshop()
    sure = equipped(stock, machine, [page(1), page(2, kerf=None, fits=SCALE)])
    assert (sure.kerf, sure.machine.found.date, sure.fits, sure.clearance) == (0.14, "2026-11-02", SCALE, 0.01)
    doubtful = equipped(stock, machine, [page(1, thickness=5.0, kerf=0.3)])
    assert (doubtful.kerf, doubtful.machine.found) == (machine.kerf, None)
    asked = with_kerf(machine, page(1, thickness=5.0, kerf=0.3))
    assert (asked.kerf, asked.found.thickness) == (0.3, 5.0)


def test_a_fit_chosen_by_its_word_is_kept_by_its_word():
    stock, machine = workshop()
    before = make_board(clearance=0.15)  # slide
    assert equipped(stock, machine, [page(2, kerf=None, fits=SCALE)], before).clearance == SCALE.slide
    typed = make_board(clearance=0.11)
    assert equipped(stock, machine, [page(2, kerf=None, fits=SCALE)], typed).clearance == 0.11


# News of the workshop


def test_a_job_on_the_same_board_and_machine_keeps_what_it_chose():
    stock, _ = workshop()
    router = machine_from_json({**ROUTER, "id": "1"})
    own = BoardBasis(stock.cut_from(1), replace(router.with_tool("three"), kerf=3.3), 0.07)
    measured = replace(stock, readings=Readings((3.2, 3.21)))
    followed = equipped(measured, router, [page(1), page(2, kerf=None, fits=SCALE)], own)
    assert followed.thickness == pytest.approx(3.205)
    assert (followed.stock.sheet_width, followed.machine.tool, followed.kerf) == (300, "three", 3.3)
    assert (followed.clearance, followed.fits) == (0.07, own.fits)
    other = equipped(replace(measured, id="9"), router, [], own)
    assert (other.stock.sheet_width, other.machine.tool, other.kerf) == (600, "three", pytest.approx(3.175))


@pytest.mark.parametrize(
    ("change", "what"),
    [
        ({}, ()), ({"measured": "2026-12-01"}, ()), ({"readings": [3.1]}, ("thickness",)), ({"note": "warped"}, ()),
        ({"sheets": 3}, ("sheets",)), ({"offcuts": []}, ()), ({"nominal": 3.2}, ("what it is sold as",)),
        ({"kind": "MDF", "price": 4}, ("kind", "price")), ({"limits": {"hole": 3}}, ("limits",)), ({"limits": {"hole": 1}}, ()),
    ],
)  # fmt: skip
def test_what_the_rack_says_otherwise_is_named(change, what):
    mine = stock_from_json(BOARD)
    rack = stock_from_json({**BOARD, **change})
    assert news_of_stock(stock_to_json(mine.board.cut_from(1)), stock_to_json(rack)) == what


@pytest.mark.parametrize(
    ("change", "what"),
    [
        ({}, ()), ({"kerf": 7, "tool": ""}, ()), ({"keep_outs": []}, ("what to keep clear of",)),
        ({"bed_width": 1300}, ("bed",)), ({"y_axis": "up"}, ("axes",)), ({"tools": [], "tool": ""}, ("tools",)),
    ],
)  # fmt: skip
def test_what_the_workshop_says_otherwise_of_a_machine_is_named(change, what):
    mine, workshop = (machine_to_json(machine_from_json(one)) for one in (ROUTER, {**ROUTER, **change}))
    assert news_of_machine(mine, workshop) == what


# Settings

LASERED = {
    "stock": "Poplar ply",
    "kind": "plywood",
    "thickness": 3.06,
    "power": 62,
    "speed": "12,5",
    "date": "2026-11-02",
}
ROUTED = {
    "stock": "Birch ply", "kind": "plywood", "thickness": "0.475 in", "tool": "six", "spindle": 18000, "feed": 3600,
    "depth": 6.35, "date": "2026-08-30",
}  # fmt: skip


def test_a_setting_goes_out_and_in():
    for document in (LASERED, ROUTED):
        setting = setting_from_json(document)
        assert setting_from_json(setting_to_json(setting)) == setting
    assert setting_from_json(LASERED).speed == 12.5


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"speed": ""}, "speed"), ({"power": 101}, "power"), ({"power": "much"}, "power"), ({"speed": -3}, "speed"),
        ({"passes": 0.5}, "passes"), ({"operation": "burn"}, "operation"), ({"result": "fine"}, "result"),
        ({"kind": "cheese"}, "kind"), ({"thickness": "thin"}, "thickness"),
    ],
)  # fmt: skip
def test_a_setting_that_cannot_be_is_refused_at_its_field(change, field):
    with pytest.raises(NotchError) as caught:
        setting_from_json({**LASERED, **change})
    assert caught.value.field == field


def test_a_setting_is_said_in_one_line_with_what_was_written_down():
    routed = {"spindle": 18000, "feed": 1800, "depth": 6.35, "passes": 2, "ramp": 10, "tool": "quarter"}
    common = {"stock": "Ply", "kind": "plywood", "thickness": 12, "date": "2026-11-02"}
    assert say_setting(setting_from_json({**common, **routed})) == (
        "18000 rpm · 1800 mm/min · 6.35 mm deep · 2 passes · ramp 10° · quarter"
    )


def test_what_did_i_use_for_the_board_has_an_answer():
    stock = stock_from_json(BOARD)
    rows = [
        setting_from_json({**LASERED, **change})
        for change in (
            {"stock": "Lime ply", "thickness": 5, "speed": 1}, {"stock": "Lime ply", "speed": 2},
            {"result": "charred", "speed": 3, "date": "2026-11-20"}, {"speed": 4, "date": "2026-10-01"},
            {"speed": 5, "date": "2026-11-01"}, {"kind": "acrylic", "stock": "Clear", "speed": 6},
            {"operation": "engrave", "speed": 7},
        )
    ]  # fmt: skip
    assert [row.speed for row in settings_for(rows, stock, "cut")] == [5, 4, 3, 2, 1]
    assert [row.speed for row in settings_for(rows, stock, "engrave")] == [7]


def test_hints_by_formula():
    """Chip load = feed / (turns x teeth), the general formula of milling: 3600 / (18000 x 2) = 0.1. Common practice: a pass of
    about 0.25 in for a 1/4 in tool, so half-inch ply takes two or more."""
    assert chip_load(3600, 18000, 2) == pytest.approx(0.1)
    half_inch, quarter = length_mm("1/2 in"), length_mm("1/4 in")
    assert passes_for(half_inch, quarter) == 3  # 0.05 mm into the spoilboard
    assert passes_for(length_mm("0.475 in"), quarter) == 2
    tool = machine_from_json({**ROUTER, "tools": [{"name": "six", "diameter": 6.35, "flute_length": 10}]}).in_spindle
    board = stock_from_json({**BOARD, "readings": [12.0, 12.1]})
    said = " ".join(hints(setting_from_json(ROUTED), board, tool))
    assert "3600 / (18000 × 2) = 0.1 mm a tooth" in said
    assert "in passes of 6.35 mm: 2" in said
    assert "flutes are 10 mm long: too short" in said


@pytest.mark.parametrize(("feed", "words"), [(100, "rubs"), (3600, ""), (40_000, "may break")])
def test_chips_too_thin_and_too_thick_are_said(feed, words):
    tool = machine_from_json(ROUTER).in_spindle
    said = " ".join(hints(setting_from_json({**ROUTED, "feed": feed}), stock_from_json(BOARD), tool))
    assert words in said
    assert ("rubs" in said) == (chip_load(feed, 18000, 2) < RUBS_BELOW_MM)


def test_a_setting_of_another_thickness_is_scaled_and_says_so():
    """The same energy a millimetre: half as thick, twice as fast."""
    thick = setting_from_json({**LASERED, "thickness": 6.12, "speed": 10})
    [said] = hints(thick, stock_from_json(BOARD))
    assert "20 mm/s" in said
    assert hints(setting_from_json(LASERED), stock_from_json(BOARD)) == ()
