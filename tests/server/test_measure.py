"""Measuring over HTTP: history, the notebook, settings, the practice machine, and jobs that follow what was measured."""

import json
from datetime import timedelta

import pytest
from client import BOARD, edit, get, patch, post, put
from django.core.exceptions import ObjectDoesNotExist
from django.core.management import call_command
from lean_notch.formats.file_kinds import FORMATS
from workshop.models import Machine, Measurement, NotebookEntry, Stock

THICKER = {**BOARD, "name": "Thick ply", "nominal": 5, "readings": [5.0, 5.02, 5.01]}
ACRYLIC = {**BOARD, "name": "Clear acrylic", "kind": "acrylic", "readings": [2.9, 2.91, 2.92], "price": "9,50"}
ROW = [98.6, 98.61, 98.59, 98.6, 98.6]


def piece(stock, machine, way="slats", **more):
    return {"way": way, "stock": stock.id, "machine": machine.id, **more}


@pytest.fixture
def found(wren, stock, machine):
    """A kerf of 0.14 that slats of the poplar have told."""
    return post(wren, "/notebook", piece(stock, machine, row=ROW)).json()[0]


# The rack


def test_measuring_anew_keeps_what_was_measured_before(wren, stock):
    first = get(wren, f"/stocks/{stock.id}/measurements").json()
    patch(wren, f"/stocks/{stock.id}", BOARD)
    patch(wren, f"/stocks/{stock.id}", {**BOARD, "note": "tape under the board"})  # no new readings
    history = get(wren, f"/stocks/{stock.id}/measurements").json()
    assert [row["readings"]["mean"] for row in history] == [pytest.approx(3.21), pytest.approx(3.06)]
    assert history[1] == first[0]
    assert history[0]["by"] == "Wren"
    [shown] = get(wren, "/stocks").json()
    assert shown["document"]["note"] == "tape under the board"
    assert (shown["measurements"], shown["document"]["id"]) == (2, str(stock.id))


def test_what_two_people_change_of_a_board_is_both_kept(wren, stock):
    """Neither saw what the other did; the second knows nothing of the new readings."""
    patch(wren, f"/stocks/{stock.id}", {"readings": ["3.2", "3.21"]})
    patch(wren, f"/stocks/{stock.id}", {"note": "tape under the board"})
    changed = patch(wren, f"/stocks/{stock.id}", {"sheets": "5", "nominal": "1/8", "unit": "in"}).json()
    assert changed["document"]["readings"] == [3.2, 3.21]
    assert (changed["document"]["note"], changed["document"]["sheets"]) == ("tape under the board", 5)
    assert (changed["document"]["nominal"], changed["measurements"]) == (3.175, 2)
    refused = patch(wren, f"/stocks/{stock.id}", {"sheet_width": "0"})
    assert (refused.status_code, refused.json()["field"]) == (422, "stock.sheet_width")


def test_sheets_off_cuts_and_price_come_in_any_unit(wren):
    body = {
        **BOARD, "unit": "in", "readings": ["0.12"], "nominal": "1/8", "sheet_width": "24", "sheet_height": "12",
        "other_sheets": [{"width": "12", "height": "300 mm", "count": "4"}], "price": "4,20", "direction": "along the width",
        "offcuts": [{"name": "corner", "outline": [["0", "0"], ["0", "4"], ["6", "4"], ["6", "0"]]}],
    }  # fmt: skip
    document = post(wren, "/stocks", body).json()["document"]
    assert document["other_sheets"] == [{"width": pytest.approx(304.8), "height": 300, "count": 4}]
    assert document["price"] == 4.2
    # Typed clockwise, kept counter-clockwise.
    assert document["offcuts"][0]["outline"] == [
        pytest.approx(corner) for corner in ([152.4, 0], [152.4, 101.6], [0, 101.6], [0, 0])
    ]


def test_readings_are_looked_at_before_they_are_kept(wren):
    look = post(wren, "/readings", {"readings": ["0.120", "3.05 mm", "3.06 mm", "3.31 mm"], "unit": "in"}).json()
    assert look["outliers"] == [3]
    assert "Reading 4" in look["warnings"][0]
    refused = post(wren, "/readings", {"readings": ["3.05", "3.06", "30.6"]})
    assert (refused.status_code, refused.json()["field"], refused.json()["mend"]) == (422, "readings[2]", "3.06 mm")
    assert Measurement.objects.count() == 0


def test_a_board_or_machine_put_away_comes_back(wren, stock, machine):
    for kind, thing in (("stocks", stock), ("machines", machine)):
        assert wren.delete(f"/api/{kind}/{thing.id}").status_code == 204
        assert get(wren, f"/{kind}").json() == []
        assert patch(wren, f"/{kind}/{thing.id}", thing.document).status_code == 404
        assert post(wren, f"/{kind}/{thing.id}/restore").status_code == 200
        assert len(get(wren, f"/{kind}").json()) == 1


# Machines


def test_a_router_with_tools_and_clamps(wren):
    body = {
        "name": "Barn router", "kind": "router", "bed_width": "50", "bed_height": "50", "kerf": "1/4", "unit": "in",
        "origin": "upper right", "x_axis": "left", "y_axis": "down", "tool": "quarter",
        "tools": [{"name": "quarter", "diameter": "1/4", "flute_length": "1", "flutes": "3"}],
        "keep_outs": [{"name": "clamp", "x": "0", "y": "0", "width": "2", "height": "50 mm"}],
    }  # fmt: skip
    document = post(wren, "/machines", body).json()["document"]
    assert document["tools"][0] == {"name": "quarter", "diameter": 6.35, "flute_length": 25.4, "flutes": 3}
    assert document["keep_outs"][0]["width"] == pytest.approx(50.8)
    assert (document["origin"], document["y_axis"]) == ("upper right", "down")
    refused = post(wren, "/machines", {**body, "tool": "half"}).json()
    assert (refused["field"], "quarter" in refused["fix"]) == ("tool", True)


def test_another_tool_in_the_spindle_brings_its_kerf(wren, machine):
    at = f"/machines/{machine.id}"
    tools = [{"name": name, "diameter": d, "flute_length": 20} for name, d in (("six", 6), ("three", 3))]
    router = {**machine.document, "kind": "router", "tools": tools}
    document = patch(wren, at, {**router, "tool": "six"}).json()["document"]
    assert document["kerf"] == 6
    assert patch(wren, at, {**document, "tool": "three"}).json()["document"]["kerf"] == 3
    assert patch(wren, at, {**document, "tool": "six", "kerf": 6.1}).json()["document"]["kerf"] == 6.1
    assert patch(wren, at, {**document, "tool": "", "kerf": 6.1}).json()["document"]["kerf"] == 6.1


def test_what_was_set_for_a_board_is_found_again_with_hints(wren, stock, machine):
    thick = post(wren, "/stocks", THICKER).json()
    at = f"/machines/{machine.id}/settings"
    common = {"kind": "plywood", "power": "70", "passes": "1"}
    post(wren, at, {**common, "stock": "Thick ply", "thickness": "5", "speed": "9", "date": "2026-10-01"})
    post(wren, at, {**common, "stock": "Thick ply", "thickness": "5", "speed": "14", "result": "not through"})
    post(wren, at, {**common, "stock": "Poplar ply", "thickness": "3.06", "speed": "16"})
    for_thick = get(wren, f"{at}?stock={thick['id']}").json()
    assert [row["speed"] for row in for_thick] == [9, 14, 16]
    assert for_thick[0]["hints"] == []
    assert "9.77 mm/s" in for_thick[2]["hints"][0]  # 16 x 3.06 / 5.01
    assert get(wren, f"{at}?stock={thick['id']}&operation=engrave").json() == []
    assert [row["by"] for row in get(wren, at).json()] == ["Wren"] * 3
    assert for_thick[0]["said"] == "70 % · 9 mm/s"
    assert wren.delete(f"/api{at}/{for_thick[0]['id']}").status_code == 204
    refused = post(wren, at, {**common, "stock": "x", "thickness": "5", "speed": "0"}).json()
    assert (refused["field"], "mm/s" in refused["fix"]) == ("speed", True)


# The notebook


def test_a_test_piece_is_shown_and_its_file_is_what_was_shown(wren, stock, machine):
    body = piece(stock, machine, settings={"pieces": "8", "length": "4"}, unit="in")
    shown = post(wren, "/test-pieces", body).json()
    assert sum(line["operation"] == "cut" for line in shown["lines"]) == 8
    assert shown["area"] == pytest.approx(101.6 * 30)
    answer = post(wren, "/test-pieces/file", {**body, "format": "dxf"})
    assert shown["file_names"]["dxf"] in answer["Content-Disposition"]
    cuts = [path for path in FORMATS["dxf"].read(answer.content).paths if path.layer == "cut"]
    assert len(cuts) == 8
    refused = post(wren, "/test-pieces", piece(stock, machine, settings={"pieces": "1"})).json()
    assert refused["field"] == "pieces"


def test_readings_become_an_entry_with_its_uncertainty(wren, stock, machine, found):
    assert found["kerf"] == pytest.approx(0.14)
    assert 0 < found["within"] < 0.002
    assert (found["by"], found["row"], found["offered"], found["thickness"]) == ("Wren", ROW, True, 3.06)
    read = post(wren, "/test-pieces/read", piece(stock, machine, row=["98.6", "98.61"])).json()
    assert read["kerf"] == pytest.approx(0.1395)
    assert "(100 mm - row 98.605 mm) / 10" in read["because"]
    assert NotebookEntry.objects.count() == 1


@pytest.mark.parametrize(
    ("told", "field", "mend"),
    [
        ({}, "row", ""),
        ({"row": ["98.6", "986", "98.61"]}, "row[1]", "98.6 mm"),
        ({"row": ["98.6", "3.882", "98.61"]}, "row[1]", "98.603 mm"),
        ({"row": ["98.6", "x"]}, "row[1]", ""),
        ({"row": ["101"]}, "slats", ""),
        ({"way": "plug", "hole": ["20.1"]}, "plug", ""),
        ({"way": "comb", "answers": ["holds", "slides", "holds"]}, "answers[2]", ""),
        ({"way": "comb", "answers": ["", "slides"]}, "answers", ""),
    ],
)
def test_what_cannot_be_is_refused_at_its_place_and_keeps_nothing(wren, stock, machine, told, field, mend):
    answer = post(wren, "/notebook", piece(stock, machine, **told))
    assert (answer.status_code, answer.json()["field"], answer.json()["mend"]) == (422, field, mend)
    assert NotebookEntry.objects.count() == 0


def test_the_newest_valid_entry_is_offered_and_older_ones_stay(wren, stock, machine, found):
    NotebookEntry.objects.update(made=NotebookEntry.objects.get().made - timedelta(days=1))
    newer, older = post(wren, "/notebook", piece(stock, machine, row=[98.4, 98.41], note="after cleaning")).json()
    assert (newer["offered"], older["offered"], newer["note"]) == (True, False, "after cleaning")
    assert put(wren, f"/notebook/{newer['id']}", {"valid": False}).status_code == 204
    newer, older = get(wren, f"/notebook?machine={machine.id}&stock={stock.id}").json()
    assert (newer["offered"], newer["valid"], older["offered"]) == (False, False, True)


def test_a_kerf_of_another_thickness_is_offered_with_a_warning_and_not_taken(wren, stock, machine, found):
    thick = Stock.objects.get(id=post(wren, "/stocks", THICKER).json()["id"])
    [entry] = get(wren, f"/notebook?machine={machine.id}&stock={thick.id}").json()
    assert entry["offered"] is False
    assert "3.06 mm" in entry["warnings"][0]
    assert "5.01 mm" in entry["warnings"][0]
    design = post(
        wren, "/designs", {"name": "Tray", "recipe": "open-tray", "stock": thick.id, "machine": machine.id}
    ).json()
    assert design["boards"][0]["basis"]["machine"]["found"] is None
    asked = edit(wren, design, entry=entry["id"]).json()
    assert asked["boards"][0]["basis"]["machine"]["kerf"] == pytest.approx(0.14)
    assert "measured on 3.06 mm" in asked["boards"][0]["basis"]["doubts"][0]
    assert asked["route"][0]["wants"] == "kerf of another board"
    typed = edit(wren, asked, kerf="0.15").json()
    own = typed["boards"][0]["basis"]
    assert (own["machine"]["found"], own["doubts"]) == (None, ["The kerf of 0.15 mm was typed in, not measured."])


def test_a_board_that_is_renamed_is_still_the_board_that_the_kerf_was_found_on(wren, stock, machine, found, tray):
    with_kerf = edit(wren, tray, entry=found["id"]).json()
    patch(wren, f"/stocks/{stock.id}", {"name": "Best poplar"})
    renamed = edit(wren, with_kerf, stock=stock.id).json()
    assert (renamed["boards"][0]["basis"]["stock"]["name"], renamed["boards"][0]["basis"]["doubts"]) == (
        "Best poplar",
        [],
    )


def test_a_new_job_takes_kerf_and_fits_from_the_notebook(wren, stock, machine, found):
    answers = ["will not go", "needs a mallet", "holds", "holds", "slides", "slides", "falls apart"]
    post(wren, "/notebook", piece(stock, machine, "comb", settings={"pairs": "7"}, answers=answers))
    basis = post(
        wren, "/designs", {"name": "Tray", "recipe": "open-tray", "stock": stock.id, "machine": machine.id}
    ).json()["boards"][0]["basis"]
    assert basis["machine"]["found"]["way"] == "slats"
    assert basis["machine"]["kerf"] == pytest.approx(0.14)
    assert [(fit["name"], fit["clearance"]) for fit in basis["fits"]] == [
        ("press", pytest.approx(-0.06)), ("snug", 0), ("slide", pytest.approx(0.08)), ("free", pytest.approx(0.2))
    ]  # fmt: skip
    assert (basis["fit"], basis["clearance"]) == ("snug", 0)


def test_a_comb_is_cut_for_the_kerf_that_the_notebook_has(wren, stock, machine):
    typed = post(wren, "/test-pieces", piece(stock, machine, "comb")).json()
    assert (typed["kerf_known"], "find it first" in typed["kerf_note"]) == (False, True)
    post(wren, "/notebook", piece(stock, machine, row=[98.2, 98.21, 98.2]))
    found = post(wren, "/test-pieces", piece(stock, machine, "comb")).json()
    assert (found["kerf_known"], "0.1797 mm ±" in found["kerf_note"]) == (True, True)
    data = post(wren, "/test-pieces/file", piece(stock, machine, "comb", format="svg")).content
    widths = [max(p[0] for p in points) - min(p[0] for p in points) for points in cut_points(data)]
    assert sum(width == pytest.approx(12.1797, abs=2e-3) for width in widths) == 12  # a key of 12, and a kerf


def cut_points(data):
    paths = [path for path in FORMATS["svg"].read(data).paths if path.layer == "cut"]
    return [[segment.start for segment in path.segments] for path in paths]


def test_a_practised_comb_wants_the_kerf_first(wren, stock, machine):
    cut = post(wren, "/test-pieces/practice", piece(stock, machine, "comb", seed=3)).json()
    truth = post(wren, "/test-pieces/practice/truth", piece(stock, machine, "comb", seed=3)).json()
    assert cut["kerf"] == pytest.approx(truth["kerf"], abs=0.01)
    assert len(cut["answers"]) == 12


def test_the_practice_machine_cuts_what_the_notebook_draws(wren, stock, machine):
    cut = post(wren, "/test-pieces/practice", piece(stock, machine, seed=3)).json()
    assert (cut["way"], len(cut["row"]), len(cut["thickness"])) == ("slats", 5, 5)
    kerf = post(wren, "/test-pieces/read", piece(stock, machine, row=cut["row"])).json()["kerf"]
    again = post(wren, "/test-pieces/practice", piece(stock, machine, "plug", seed=3)).json()
    plug = post(wren, "/test-pieces/read", piece(stock, machine, "plug", hole=again["hole"], plug=again["plug"])).json()
    assert plug["kerf"] == pytest.approx(kerf, abs=0.02)
    assert again["thickness"] == pytest.approx(cut["thickness"], abs=0.08)
    truth = post(wren, "/test-pieces/practice/truth", piece(stock, machine, seed=3)).json()
    assert kerf == pytest.approx(truth["kerf"], abs=0.01)
    assert len(truth["limits"]) == 4
    assert post(wren, "/test-pieces/practice", piece(stock, machine, seed=-1)).status_code == 422


def test_nobody_measures_without_signing_in(client, stock, machine):
    for path in ("/notebook", "/test-pieces", "/test-pieces/read", "/readings", f"/machines/{machine.id}/settings"):
        assert post(client, path, piece(stock, machine, readings=[])).status_code == 401


# Jobs


def news(client, design):
    return get(client, f"/designs/{design['id']}/news").json()


def test_a_job_says_what_it_was_computed_from_and_offers_to_follow(wren, stock, tray):
    assert news(wren, tray) == []
    patch(wren, f"/stocks/{stock.id}", BOARD)
    [offer] = news(wren, tray)
    assert (offer["of"], offer["what"]) == ("board", ["thickness"])
    assert (offer["was"], offer["now"]) == pytest.approx((3.06, 3.21))
    assert offer["said"] == "Poplar ply measures 3.21 mm now, was 3.06 mm"
    assert offer["at"] >= tray["boards"][0]["basis"]["stock"]["measured"][:19]
    rows = {(row["about"], row["title"]): (row["before"], row["after"]) for row in offer["changes"]}
    assert rows["", "outside width"] == (pytest.approx(156.12), pytest.approx(156.42))
    assert rows["Front", "height"] == (pytest.approx(63.06), pytest.approx(63.21))
    before = get(wren, f"/designs/{tray['id']}").json()
    assert before["boards"][0]["basis"]["thickness"] == pytest.approx(3.06)  # nothing happens unasked
    [card] = get(wren, "/designs").json()
    assert card["news"] == ["thickness"]
    followed = edit(wren, before, stock=stock.id).json()
    assert followed["boards"][0]["basis"]["thickness"] == pytest.approx(3.21)
    assert news(wren, tray) == []


def test_readings_typed_into_a_job_are_its_own(wren, tray):
    own = edit(wren, tray, readings=["3.1", "3.12", "3.11"]).json()
    assert own["boards"][0]["basis"]["stock"]["measured"] == ""
    [offer] = news(wren, tray)
    assert (offer["what"], offer["now"], offer["own"]) == (["thickness"], pytest.approx(3.06), True)
    assert offer["said"] == "Poplar ply measures 3.06 mm on the rack; this job has readings of its own, 3.11 mm"
    assert get(wren, "/designs").json()[0]["news"] == [], "it is not behind"


def test_following_keeps_the_sheet_and_the_kerf_that_the_job_chose(wren, stock, tray):
    sheets = {"sheet_width": 700, "sheet_height": 500, "other_sheets": [{"width": 600, "height": 400}]}
    patch(wren, f"/stocks/{stock.id}", {**BOARD, **sheets})
    own = edit(wren, tray, kerf="0.17").json()
    followed = edit(wren, own, stock=stock.id).json()["boards"][0]["basis"]
    assert (followed["machine"]["kerf"], followed["thickness"]) == (0.17, pytest.approx(3.21))
    assert (followed["stock"]["sheet_width"], followed["stock"]["other_sheets"][0]["width"]) == (600, 700)


def test_a_clamp_that_the_workshop_adds_is_news_for_every_job(wren, machine, tray):
    clamp = {"name": "clamp", "x": 0, "y": 0, "width": 80, "height": 80}
    patch(wren, f"/machines/{machine.id}", {**machine.document, "keep_outs": [clamp], "kerf": 0.2})
    [offer] = news(wren, tray)
    assert (offer["of"], offer["what"], offer["problem"]) == ("machine", ["what to keep clear of"], None)
    followed = edit(wren, tray, machine=machine.id).json()
    assert followed["sheets"][0]["keep_outs"][0]["name"] == "clamp"
    assert (
        followed["boards"][0]["basis"]["machine"]["kerf"] == tray["boards"][0]["basis"]["machine"]["kerf"]
    )  # its own, as long as it is the same board
    assert news(wren, tray) == []
    assert wren.delete(f"/api/machines/{machine.id}").status_code == 204
    assert news(wren, tray) == []


def test_a_clamp_beside_the_bed_is_refused_at_its_row(wren, machine):
    clamp = {"name": "clamp", "x": 700, "y": 0, "width": 80, "height": 80}
    refused = patch(wren, f"/machines/{machine.id}", {**machine.document, "keep_outs": [clamp]}).json()
    assert (refused["field"], "unit" in refused["fix"]) == ("machine.keep_outs[0]", True)


def test_another_basis_is_tried_side_by_side(wren, stock, machine, tray):
    ids = [post(wren, "/stocks", body).json()["id"] for body in (THICKER, ACRYLIC)]
    body = {**BOARD, "name": "Scrap", "sheet_width": 100, "sheet_height": 100}
    ids.append(post(wren, "/stocks", body).json()["id"])
    swaps = [{"stock": number} for number in ids]
    swaps[2]["machine"] = machine.id
    now, thick, acrylic, scrap = post(wren, f"/designs/{tray['id']}/tries", {"swaps": swaps}).json()
    assert (now["stock"], now["changes"], now["price"], now["problem"]) == ("Poplar ply", [], None, None)
    changed = {row["title"]: row["after"] for row in thick["changes"] if not row["about"]}
    assert changed["outside width"] == pytest.approx(150 + 2 * 5.01)
    assert acrylic["price"] == 9.5 * acrylic["sheets"]
    assert thick["seconds"] > 0
    assert (scrap["problem"]["code"], scrap["sheets"]) == ("part-too-large", 0)
    assert get(wren, f"/designs/{tray['id']}").json()["moves"] == tray["moves"]


def test_a_variant_keeps_its_link(wren, machine, tray):
    acrylic = post(wren, "/stocks", ACRYLIC).json()["id"]
    saved = post(wren, f"/designs/{tray['id']}/variants", {"name": "Clear tray", "stock": acrylic})
    assert saved.status_code == 201
    variant = saved.json()
    assert (variant["name"], variant["variant_of"]) == ("Clear tray", {"id": tray["id"], "name": "Tray"})
    assert variant["boards"][0]["basis"]["stock"]["name"] == "Clear acrylic"
    assert get(wren, f"/designs/{tray['id']}").json()["variants"] == [{"id": variant["id"], "name": "Clear tray"}]
    cards = {card["name"]: card["variant_of"] for card in get(wren, "/designs").json()}
    assert cards == {"Clear tray": "Tray", "Tray": ""}
    assert post(wren, f"/designs/{tray['id']}/variants", {"name": " ", "stock": acrylic}).json()["field"] == "name"


def test_another_makers_job_is_neither_tried_nor_varied(sign_in, tray):
    for path, body in (("tries", {"swaps": []}), ("variants", {"name": "Mine"})):
        assert post(sign_in("Heron"), f"/designs/{tray['id']}/{path}", body).status_code == 404
    assert get(sign_in("Heron"), f"/designs/{tray['id']}/news").status_code == 404


def test_a_press_fit_in_a_brittle_board_is_warned_of(wren, machine, tray):
    acrylic = post(wren, "/stocks", ACRYLIC).json()["id"]
    clear = edit(wren, tray, stock=acrylic, clearance="-0.05").json()
    assert "brittle" in clear["mates"][0]["fit"]["warnings"][0]
    findings = get(wren, f"/designs/{tray['id']}/proof").json()["findings"]
    assert "brittle" in [finding["code"] for finding in findings]


def test_the_seed_command_fills_rack_notebook_and_settings_once(db):
    call_command("seed_demo")
    counts = [model.objects.count() for model in (Stock, Machine, NotebookEntry)]
    call_command("seed_demo")
    assert [model.objects.count() for model in (Stock, Machine, NotebookEntry)] == counts
    assert all(count >= 2 for count in counts)


def test_entries_survive_a_machine_that_the_maker_renames(wren, stock, machine, found):
    patch(wren, f"/machines/{machine.id}", {**machine.document, "name": "Old laser"})
    [entry] = get(wren, f"/notebook?machine={machine.id}&stock={stock.id}").json()
    assert entry["offered"] is True
    with pytest.raises(ObjectDoesNotExist):
        NotebookEntry.objects.get(id=entry["id"] + 1)
    assert json.dumps(entry)
