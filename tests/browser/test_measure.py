"""Rack, machines, notebook and bases side by side, as a maker would use them. Each test has a board of its own."""

import re

import pytest
from browser_steps import choice, choose, fill, go, start, workshop
from playwright.sync_api import Page, expect

pytestmark = pytest.mark.xdist_group("browser")


@pytest.fixture
def board(page: Page, request):
    """A new board on the rack, named after the test, and the rack open at it."""
    name = request.node.name.removeprefix("test_").replace("_", " ")[:40].strip()
    workshop(page, "Stock rack")
    page.get_by_role("button", name="Add a board").click()
    dialog = page.get_by_role("dialog")
    given = {"name": name, "nominal": "4", "readings": "3.95, 3.94, 3.96", "sheet_width": "600", "sheet_height": "400"}
    for field, text in given.items():
        dialog.locator(f"[data-field={field}]").fill(text)
    dialog.get_by_role("button", name="Add board").click()
    expect(page.get_by_role("heading", name="Measurements")).to_be_visible()
    expect(page.locator("main")).to_contain_text("mean of 3")
    return name


def start_tray(page: Page, board: str) -> None:
    page.get_by_role("link", name="Lean Notch, all jobs").click()
    start(page, f"Tray of {board}"[:60], board)


def test_measuring_anew_is_looked_at_kept_and_followed(page, board):
    start_tray(page, board)
    job = page.url
    workshop(page, "Stock rack")
    page.get_by_role("link", name=re.compile(board)).click()
    page.get_by_role("button", name="Measure again").click()
    fill(page, "main [data-field='readings[0]']", "4.01 4.02 4.01 4.23")
    expect(page.locator("main")).to_contain_text("Reading 4 (4.23 mm) is far from the others")
    fill(page, "main [data-field='readings[3]']", "40.2")
    expect(page.get_by_role("alert")).to_contain_text("Look at reading 4 again")
    page.get_by_role("button", name="Use 4.02 mm").click()
    expect(page.get_by_role("alert")).to_have_count(0)
    page.get_by_role("button", name="Save this measurement").click()
    expect(page.locator(".history li")).to_have_count(2)
    page.get_by_role("link", name="Lean Notch, all jobs").click()
    expect(page.locator("article", has_text=f"Tray of {board}"[:50])).to_contain_text(
        "in the workshop since: thickness"
    )
    page.goto(job.replace("shape", "measure"))
    note = page.locator("main").get_by_role("status").filter(has_text="measures")
    expect(note).to_contain_text("4.015")
    note.get_by_text("figures would change").click()
    expect(note).to_contain_text("outside width")
    expect(page.locator(".sum")).to_contain_text("3.97")
    note.get_by_role("button", name="Use the rack’s").click()
    expect(page.locator(".sum")).to_contain_text("4.04")
    expect(note).to_have_count(0)


def test_what_is_written_of_a_board_is_undone_and_redone(page, board):
    fill(page, "aside [data-field=note]", "tape under the board")
    fill(page, "aside [data-field=price]", "nothing")
    expect(page.get_by_role("alert")).to_contain_text("is not a price")
    fill(page, "aside [data-field=price]", "4,20")
    expect(page.get_by_role("alert")).to_have_count(0)
    page.get_by_role("button", name="Add an off-cut").click()
    page.get_by_label("Name, new row").fill("corner")
    page.get_by_label("Corners, or width × height, new row").fill("0 0; 100 0; 0 100; 160 100")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("cross")
    page.get_by_label("Corners, or width × height, new row").fill("100 × 4 in")
    page.keyboard.press("Enter")
    expect(page.locator("main")).to_contain_text("100 × 101.6")
    page.locator("h1").click()
    page.keyboard.press("Control+z")
    expect(page.locator("main")).not_to_contain_text("100 × 101.6")
    page.keyboard.press("Control+z")
    page.get_by_role("button", name="Undo").click()
    expect(page.locator("aside [data-field=note]")).to_have_value("")
    page.keyboard.press("Control+y")
    expect(page.locator("aside [data-field=note]")).to_have_value("tape under the board")
    page.get_by_role("button", name="Archive this board").click()
    shelf = page.get_by_role("navigation", name="Stock rack")
    expect(shelf.get_by_role("link", name=re.compile(board))).to_have_count(0)
    page.get_by_role("button", name=re.compile("^Archived boards")).click()
    page.get_by_role("button", name=f"Restore {board}").click()
    expect(shelf.get_by_role("link", name=re.compile(board))).to_be_visible()


def notebook(page: Page, board: str, way: str) -> None:
    workshop(page, "Kerf notebook")
    shelf = page.get_by_role("navigation", name="Kerf notebook")
    choose(page, choice(shelf, "Board"), board)
    choose(page, choice(shelf, "Machine"), "Shed laser")
    page.get_by_role("button", name=way).click()


def test_practice_is_held_against_what_is_hidden_and_never_kept(page, board):
    notebook(page, board, "Row of slats")
    page.get_by_label("Or cut it on practice machine").fill("12")
    page.keyboard.press("Enter")
    result = page.get_by_role("region", name="Result")
    expect(result).to_contain_text("(95 %)")
    expect(result.get_by_role("button", name="Save in the notebook")).to_have_count(0)
    result.get_by_role("button", name=re.compile("^Show its true")).click()
    expect(result).to_contain_text("Its true kerf is")
    page.get_by_role("button", name="Fit comb").click()
    expect(page.get_by_role("region", name="Result")).to_have_count(0)
    page.get_by_role("button", name="Practise").click()
    expect(page.locator("main")).to_contain_text("that its slats showed")
    page.get_by_role("button", name="Row of slats").click()
    expect(page.get_by_label("reading 5", exact=True)).to_be_visible()  # each way keeps its own
    result.get_by_role("button", name="Clear the readings").click()
    expect(page.get_by_role("region", name="Result")).to_have_count(0)


def test_slats_are_cut_measured_and_used(page, board, tmp_path):
    notebook(page, board, "Row of slats")
    fill(page, "[data-field=pieces]", "1")
    expect(page.get_by_role("alert")).to_contain_text("2")
    fill(page, "[data-field=pieces]", "10")
    expect(page.get_by_role("alert")).to_have_count(0)
    with page.expect_download() as download:
        page.get_by_role("button", name="SVG", exact=True).click()
    download.value.save_as(tmp_path / "slats.svg")
    assert (tmp_path / "slats.svg").read_text().startswith("<?xml")
    fill(page, "main [data-field='row[0]']", "98.4")
    expect(page.get_by_role("region", name="Result")).to_contain_text("One reading shows no spread")
    fill(page, "main [data-field='row[1]']", "9.841")
    expect(page.get_by_role("alert")).to_contain_text("98.41 mm")
    page.reload()  # nothing typed is lost
    expect(page.get_by_role("alert")).to_contain_text("98.41 mm")
    fill(page, "main [data-field='row[1]']", "98.41")
    result = page.get_by_role("region", name="Result")
    expect(result).to_contain_text("0.1595")
    result.get_by_placeholder("lens cleaned").fill("60 %, 10 mm/s")
    result.get_by_role("button", name="Save in the notebook").click()
    expect(page.locator("aside li").first).to_contain_text("60 %, 10 mm/s")
    expect(page.locator("aside li").first).to_contain_text("In use")
    expect(page.get_by_role("region", name="Result")).to_have_count(0)
    start_tray(page, board)
    go(page, "Measure")
    expect(page.locator("main")).to_contain_text("by a row of slats")


def answer(page: Page, pair: int, feel: str) -> None:
    page.get_by_role("radiogroup", name=f"Pair {pair}", exact=True).get_by_text(feel).click()


def test_answers_that_contradict_each_other_are_pointed_at(page, board):
    notebook(page, board, "Fit comb")
    expect(page.locator("main")).to_contain_text("nobody found on this board")
    for pair, feel in ((1, "needs a mallet"), (2, "holds"), (3, "slides"), (4, "holds")):
        answer(page, pair, feel)
    expect(page.get_by_role("alert")).to_contain_text("Try both again")
    answer(page, 3, "holds")
    answer(page, 5, "slides")
    answer(page, 6, "falls apart")
    result = page.get_by_role("region", name="Result")
    expect(result).to_contain_text("snug")
    result.get_by_role("button", name="Save in the notebook").click()
    expect(page.locator("aside li").first).to_contain_text("fit comb")


def test_another_basis_is_tried_adopted_and_saved_as_a_variant(page, board):
    start_tray(page, board)
    go(page, "Measure")
    beside = choice(page, "Compare with")
    choose(page, beside, "Double-wall board")
    choose(page, beside, "Barn router")
    tries = page.locator(".tries")
    expect(tries.locator("thead")).to_contain_text("Double-wall board")
    # A machine is no dead end: its spacing is its own, and where its tool leaves nothing of a joint that is a finding.
    expect(tries.locator("thead")).to_contain_text("Barn router")
    expect(tries).not_to_contain_text("Use a spacing")
    expect(tries.get_by_role("row", name=re.compile("outside width"))).to_contain_text("164.40")
    tries.get_by_role("button", name="Save as variant").first.click()
    expect(page.locator(".kin")).to_contain_text(f"A variant of Tray of {board}"[:40])
    job = page.url
    page.locator(".kin").get_by_role("link").click()
    expect(page).not_to_have_url(job)
    expect(page.locator(".kin")).to_contain_text("Its variant:")
    choose(page, choice(page, "Compare with"), "Single-wall board")
    page.locator(".tries").get_by_role("button", name="Use this").click()
    expect(page.locator(".sum")).to_contain_text("5.02")


def test_a_clamp_and_a_setting_are_written_down(page):
    workshop(page, "Machines")
    page.get_by_role("button", name="Add a machine").click()
    dialog = page.get_by_role("dialog")
    for field, text in {"name": "Spare laser", "kerf": "0.2", "bed_width": "300", "bed_height": "200"}.items():
        dialog.locator(f"[data-field={field}]").fill(text)
    dialog.get_by_role("button", name="Add machine").click()
    expect(page.locator("aside [data-field=name]")).to_have_value("Spare laser")
    page.get_by_role("button", name="Add an area").click()
    for label, text in {"Name": "clamp", "x": "400", "y": "0", "Width": "40", "Height": "20"}.items():
        page.get_by_label(f"{label}, new row", exact=True).fill(text)
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("beside the bed")
    page.get_by_label("x, new row", exact=True).fill("40")
    page.keyboard.press("Enter")
    expect(page.get_by_role("group", name=re.compile("Bed of"))).to_contain_text("clamp")
    log = page.locator("section", has_text="Settings log")
    choose(page, choice(log, "Board"), "Poplar ply")
    log.get_by_role("button", name="Add a setting").click()
    log.locator("[data-field=power]").fill("900")
    log.locator("[data-field=speed]").fill("12")
    log.get_by_role("button", name="Add setting").click()
    expect(page.get_by_role("alert")).to_contain_text("0.1 to 100 percent")
    log.locator("[data-field=power]").fill("55")
    log.get_by_role("button", name="Add setting").click()
    expect(log.get_by_role("listitem")).to_contain_text("55 % · 12 mm/s")
    log.get_by_role("button", name=re.compile("^Remove the setting")).click()
    page.locator(".el-message").get_by_role("button", name="Undo").click()
    expect(log.get_by_role("listitem")).to_contain_text("55 % · 12 mm/s")
    page.get_by_role("button", name="Archive this machine").click()
    expect(page.get_by_role("navigation", name="Machines").get_by_role("link", name=re.compile("Spare"))).to_have_count(
        0
    )
