"""The stock rack and the machines over HTTP."""

import pytest
from client import edit, post
from workshop.models import Machine, Stock

BOARD = {"name": "Clear acrylic", "nominal": 3, "readings": ["2.9", "2.94"], "sheet_width": 600, "sheet_height": 300}
LASER = {"name": "Other laser", "bed_width": "24 in", "bed_height": 300, "kerf": "0.2"}


def test_a_board_is_added_and_listed_thin_ones_first(wren, stock):
    added = post(wren, "/stocks", {**BOARD, "nominal": 2}).json()
    assert added["thickness"] == pytest.approx(2.92)
    names = [row["document"]["name"] for row in wren.get("/api/stocks").json()]
    assert names == ["Clear acrylic", "Poplar ply"]


def test_a_machine_is_added_in_any_unit(wren, machine):
    added = post(wren, "/machines", {**LASER, "unit": "in", "kerf": "0.008", "bed_height": "12"}).json()
    assert added["document"]["bed_width"] == pytest.approx(609.6)
    assert added["document"]["bed_height"] == pytest.approx(304.8)
    assert added["document"]["kerf"] == pytest.approx(0.2032)
    assert len(wren.get("/api/machines").json()) == 2


def test_readings_typed_in_inches_are_kept_in_mm(wren, stock):
    body = {
        **BOARD,
        "readings": ["0.114", "2.94 mm"],
        "unit": "in",
        "nominal": "1/8",
        "sheet_width": "24",
        "sheet_height": "12",
    }
    changed = wren.patch(f"/api/stocks/{stock.id}", body, content_type="application/json").json()
    assert changed["document"]["readings"] == pytest.approx([2.8956, 2.94])
    assert Stock.objects.count() == 1


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"name": "  "}, "stock.name"),
        ({"nominal": "thick"}, "stock.nominal"),
        ({"nominal": 0}, "stock.nominal"),
        ({"readings": []}, "readings"),
        ({"readings": ["2.9", ""]}, "readings[1]"),
        ({"sheet_width": -1}, "stock.sheet_width"),
        ({"sheets": "many"}, "stock.sheets"),
        ({"sheets": 0}, "stock.sheets"),
        ({"kind": "cheese"}, "stock.kind"),
    ],
)
def test_a_board_that_cannot_be_is_refused_at_its_field(wren, change, field):
    answer = post(wren, "/stocks", {**BOARD, **change})
    assert (answer.status_code, answer.json()["field"]) == (422, field)
    assert answer.json()["fix"]
    assert Stock.objects.count() == 0


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"kerf": "-1"}, "kerf"),
        ({"kerf": "99"}, "kerf"),
        ({"bed_width": "1e9"}, "machine.bed_width"),
        ({"kind": "saw"}, "machine.kind"),
    ],
)
def test_a_machine_that_cannot_be_is_refused_at_its_field(wren, change, field):
    answer = post(wren, "/machines", {**LASER, **change})
    assert (answer.status_code, answer.json()["field"]) == (422, field)
    assert Machine.objects.count() == 0


def test_things_that_are_not_there_are_not_changed(wren):
    for path, body in (("/api/stocks/77", BOARD), ("/api/machines/77", LASER)):
        assert wren.patch(path, body, content_type="application/json").status_code == 404


def test_a_rack_measured_anew_leaves_jobs_as_they_were(wren, tray, stock):
    body = {**stock.document, "readings": ["3.2", "3.3"]}
    assert wren.patch(f"/api/stocks/{stock.id}", body, content_type="application/json").status_code == 200
    shown = wren.get(f"/api/designs/{tray['id']}").json()
    assert shown["boards"][0]["basis"]["thickness"] == pytest.approx(3.06)
    followed = edit(wren, shown, stock=stock.id).json()
    assert followed["boards"][0]["basis"]["thickness"] == pytest.approx(3.25)


def test_the_page_is_told_what_there_is_to_choose(wren):
    choices = wren.get("/api/choices").json()
    assert choices["feels"] == ["will not go", "needs a mallet", "holds", "slides", "falls apart"]
    recipe = choices["recipes"][0]
    assert [one["name"] for one in choices["recipes"]] == [
        "open-tray", "case", "divided-case", "divider-set", "rack", "framed-stand", "crossed-figure", "tag", "panel", "angle-gauge",
    ]  # fmt: skip
    assert [setting["name"] for setting in recipe["settings"]] == ["width", "depth", "height", "sizes", "finger"]
    assert "plywood" in choices["stock_kinds"]
    assert choices["machine_kinds"] == ["laser", "router"]
