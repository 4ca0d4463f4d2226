"""The workshop table, starting from a picture, and the way from a newcomer's first click to a file."""

from __future__ import annotations

import math
import re

import pytest
from browser_steps import go, open_job, part, recipe, save, start
from playwright.sync_api import Browser, Page, expect

pytestmark = pytest.mark.xdist_group("browser")

TURN, TILT = math.radians(35), math.radians(28)
"""From where things on the table are looked at."""


def seen(width: float, depth: float, height: float) -> tuple[float, float]:
    """How wide and high a box is on a picture without perspective, by plain trigonometry."""
    across = width * math.cos(TURN) + depth * math.sin(TURN)
    return across, height * math.cos(TILT) + (width * math.sin(TURN) + depth * math.cos(TURN)) * math.sin(TILT)


def test_a_newcomer_comes_from_signing_in_to_a_file_in_eight_clicks(app, browser: Browser):
    context = browser.new_context(viewport={"width": 1280, "height": 800}, accept_downloads=True)
    page = context.new_page()
    clicks = 0

    def click(what):
        nonlocal clicks
        what.click()
        clicks += 1

    page.goto(app.address)
    click(page.get_by_role("button", name="Sign in as Wren"))
    click(recipe(page))
    click(page.get_by_role("button", name="Width inside 150.00, change"))
    page.keyboard.type("160")
    page.keyboard.press("Enter")
    expect(page.get_by_text("166.12")).to_be_visible()
    click(page.get_by_role("button", name="Start this tray"))
    page.get_by_role("heading", name="Parts, flat").wait_for()
    go(page, "Hand over")
    clicks += 1
    with page.expect_download() as download:
        click(save(page))
    assert clicks <= 8
    assert download.value.suggested_filename == "open-tray_poplar-ply_3.06mm_sheet-1.svg"
    context.close()


def test_jobs_stand_to_scale(page: Page):
    """The core's outside sizes of the tray: 156.12 x 106.12 x 63.06 mm."""
    stand = page.get_by_role("article", name="Vial carrier", exact=True).locator(".stand")
    stand.scroll_into_view_if_needed()  # what is out of sight is not drawn yet
    scale = float(stand.get_attribute("data-scale"))
    box = stand.locator("svg").bounding_box()
    wide, high = seen(156.12, 106.12, 63.06)
    assert box["width"] / scale == pytest.approx(wide, abs=4)
    assert box["height"] / scale == pytest.approx(high, abs=4)
    # The rule it stands on says the same: its long marks are 100 mm apart.
    marks = (
        page.locator(".edge")
        .filter(has=stand)
        .locator(".rule text")
        .evaluate_all("all => all.map(e => +e.getAttribute('x'))")
    )
    assert (marks[1] - marks[0]) / scale == pytest.approx(100, abs=0.5)


def test_a_start_is_drawn_to_scale_and_follows_a_drag(page: Page):
    recipe(page).click()
    board = page.locator(".picture rect.board")
    board.wait_for()
    scale = float(page.locator(".picture > svg").get_attribute("data-scale"))
    assert board.bounding_box()["width"] / scale == pytest.approx(156.12, abs=1)
    assert page.locator(".picture rect.face").bounding_box()["height"] / scale == pytest.approx(63.06, abs=1)
    handle = page.get_by_role("slider", name=re.compile("^Width"))
    box = handle.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    page.mouse.move(x + 20 * scale, y, steps=5)
    expect(page.get_by_role("button", name="Width inside 170.00, change")).to_be_visible()
    page.mouse.up()
    expect(page.get_by_text("was 150.00")).to_be_visible()
    expect(page.get_by_text("176.12")).to_be_visible()
    handle.press("ArrowRight")
    expect(page.get_by_role("button", name="Width inside 171.00, change")).to_be_visible()
    # Sheets, parts and the assembled picture follow.
    together = page.locator(".together")
    wide, _ = seen(177.12, 106.12, 63.06)

    def drawn() -> float:
        return together.locator("svg").bounding_box()["width"] / float(together.get_attribute("data-scale"))

    page.locator(".together svg").first.wait_for()
    assert drawn() == pytest.approx(wide, abs=4)


def test_a_size_that_cannot_be_is_said_where_it_stands_and_nothing_is_lost(page: Page):
    recipe(page).click()
    page.get_by_role("button", name="Width inside 150.00, change").click()
    page.keyboard.type("2")
    expect(page.locator(".size.wrong")).to_contain_text("has no room for three fingers")
    expect(page.get_by_role("button", name="Start this tray")).to_be_disabled()
    assert page.locator(".picture rect.board").bounding_box()["width"] > 100  # the last good picture
    page.locator(".size.wrong input").fill("2*60")
    expect(page.get_by_text("= 120.00 mm")).to_be_visible()
    page.keyboard.press("Enter")
    page.get_by_label("Name", exact=True).fill("Kept")
    page.get_by_role("link", name="Leave; the draft is saved").click()
    recipe(page).click()
    expect(page.get_by_role("button", name="Width inside 120.00, change")).to_be_visible()
    expect(page.get_by_label("Name", exact=True)).to_have_value("Kept")


def test_a_board_that_is_not_there_is_measured_without_losing_the_start(page: Page):
    recipe(page).click()
    page.get_by_role("button", name="Width inside 150.00, change").click()
    page.keyboard.type("140")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="My board is not here: measure it").click()
    dialog = page.get_by_role("dialog")
    for field, text in (
        ("name", "Larch of a start"),
        ("nominal", "4"),
        ("readings", "4.01 4.03"),
        ("sheet_width", "500"),
        ("sheet_height", "300"),
    ):
        dialog.locator(f"[data-field={field}]").fill(text)
    dialog.get_by_role("button", name="Add board").click()
    expect(page.get_by_role("button", name="Board: Larch of a start, change")).to_be_visible()
    expect(page.get_by_role("button", name="Width inside 140.00, change")).to_be_visible()
    expect(page.get_by_text("148.04")).to_be_visible()  # 140 + 2 x 4.02


def test_jobs_are_found_copied_and_told_apart(page: Page):
    article = page.get_by_role("article", name="Trail sign", exact=True)
    page.get_by_role("searchbox", name="Find a job, a part, a board").fill("left side")
    expect(page.get_by_text(re.compile(r"^\d+ of \d+ found$"))).to_be_visible()
    expect(article).to_have_class(re.compile("dimmed"))
    page.get_by_role("searchbox").fill("")
    page.get_by_role("button", name="More for Trail sign").click()
    page.get_by_role("menuitem", name="Duplicate").click()
    expect(page.get_by_role("article", name="Trail sign, copy", exact=True)).to_be_visible()


def test_a_name_of_eighty_letters_breaks_nothing(page: Page):
    start(page, "W" * 40 + "i" * 40)
    assert page.evaluate("document.querySelector('#app').scrollWidth") <= 1280
    page.get_by_role("link", name="Lean Notch, all jobs").click()
    page.get_by_role("article", name="W" * 40 + "i" * 40).wait_for()
    assert page.evaluate("document.querySelector('#app').scrollWidth") <= 1280


def test_a_proof_that_fails_is_mended_from_its_finding(page: Page):
    """A router's round tool leaves the inside corners of a tray that has no relief full: square fingers do not go home."""
    open_job(page, "Seed tray")
    page.evaluate(
        "document.querySelector('#app').__vue_app__.config.globalProperties.$pinia._s.get('job').put('relief', 'none')"
    )
    go(page, "Prove")
    expect(page.get_by_role("region", name="Proof")).to_contain_text("Does not fit as it is")
    finding = page.get_by_role("region", name="Findings")
    for _ in range(20):
        if finding.get_by_role("button", name="Relieve the inside corners").count():
            break
        page.keyboard.press("n")
    expect(finding).to_contain_text("the tool leaves")
    expect(page.get_by_role("figure")).to_contain_text("left in the corner")
    expect(page.get_by_role("button", name="Hand over", exact=True)).to_have_count(0)
    finding.get_by_role("button", name="Relieve the inside corners").click()
    expect(page.get_by_role("region", name="Proof")).to_contain_text("Fits")
    expect(page.get_by_role("navigation", name="Route")).to_contain_text("fits")
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("region", name="Proof")).to_contain_text("Does not fit")
    page.get_by_role("button", name="Redo").click()


def test_a_sheet_is_watched_path_by_path_and_put_together(page: Page):
    start(page, "Watched")
    go(page, "Prove")
    expect(page.get_by_role("region", name="Proof")).to_contain_text("Fits")
    expect(page.get_by_text("8 of 8 fit")).to_be_visible()
    expect(page.get_by_text("Not looked at:")).to_be_visible()
    page.get_by_role("slider", name="Paths cut").press("ArrowLeft")
    expect(page.get_by_text(re.compile("^path 4 of 5: cut, ")).first).to_be_visible()
    page.get_by_text("Assembled", exact=True).click()
    expect(page.locator("[data-size=width]")).to_have_text("156.12")
    part(page, "Left side").click()
    expect(page.get_by_role("figure")).to_contain_text("Inner corner of Left side")
    with page.expect_download() as download:
        page.get_by_role("button", name="The proof on paper").click()
    assert download.value.suggested_filename == "watched_revision-1_proof.pdf"


def test_help_opens_by_a_key_on_every_stop(page: Page):
    start(page, "Helped")
    for stop in ("Measure", "Shape", "Join", "Lay out", "Prove", "Hand over"):
        go(page, stop)
        expect(page).to_have_title(re.compile(f"^{stop} ·"))
        page.locator("h1").first.wait_for()
        page.keyboard.press("h")
        note = page.get_by_role("note")
        expect(note.locator("p")).to_have_count(3)
        expect(note).to_contain_text(f"{stop} ")
        expect(note).to_contain_text("What goes wrong")
        page.keyboard.press("h")
        expect(note).to_have_count(0)


def test_how_it_came_out_is_told_and_offered_the_next_time(page: Page):
    start(page, "Told")
    go(page, "Hand over")
    with page.expect_download():
        save(page).click()
    page.get_by_role("button", name="how was it?").first.click()
    page.get_by_role("button", name="not through", exact=True).click()
    speed = page.get_by_label("Speed")
    expect(speed).to_have_value("12")
    speed.fill("14")
    page.get_by_role("button", name=re.compile("^Add|^Save$")).last.click()
    expect(page.get_by_text("Written to the settings log")).to_be_visible()
    expect(page.get_by_text("not through", exact=False).first).to_be_visible()
    page.get_by_role("link", name="Lean Notch, all jobs").click()
    expect(page.get_by_role("article", name="Told", exact=True)).to_contain_text("Not through")


def test_a_profile_with_nothing_in_it_is_said_and_saves_nothing(page: Page):
    start(page, "Nothing")
    go(page, "Hand over")
    page.get_by_role("button", name="Save the SVG for the shed laser", exact=True).wait_for()
    page.get_by_role("button", name="leave out").first.click()
    expect(page.get_by_text("Not in this file: cuts. The plan that is proved has all of it.")).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("without cuts$"))).to_be_visible()
    more = page.get_by_role("button", name="leave out")
    for left in reversed(range(more.count())):
        more.first.click()
        expect(more).to_have_count(left)
    expect(page.get_by_text("Nothing would be in this file: put something in.")).to_be_visible()


def test_a_board_is_measured_on_a_phone_by_thumb(app, browser: Browser):
    context = browser.new_context(viewport={"width": 390, "height": 844}, has_touch=True)
    page = context.new_page()
    page.goto(app.address)
    page.get_by_role("button", name="Sign in as Wren").tap()
    page.get_by_role("heading", name="On the table").wait_for()
    assert page.evaluate("document.querySelector('#app').scrollWidth") <= 390
    boards = page.evaluate("fetch('/api/stocks').then(answer => answer.json())")
    board = next(one["id"] for one in boards if one["document"]["name"] == "Single-wall board")
    page.goto(f"{app.address}/rack/{board}/measure")
    go_on = page.locator(".go")
    for reading in ("5.02", "5,04", "5.61", "5.00"):
        page.get_by_role("button", name="Type it").tap()
        page.get_by_label("Reading", exact=True).fill(reading)
        page.keyboard.press("Enter")
        go_on.tap()
    expect(page.get_by_role("heading", name="Spot 5, left edge")).to_be_visible()
    page.get_by_role("button", name="Type it").tap()
    page.get_by_label("Reading", exact=True).fill("about five")
    go_on.tap()
    expect(page.locator("footer")).to_contain_text("“about” is not a number")
    page.get_by_label("Reading", exact=True).fill("5.01")
    page.keyboard.press("Enter")
    page.get_by_role("button", name=re.compile(r"^\+ 0.01")).tap()
    expect(page.get_by_text("is far from the others")).to_be_visible()
    expect(page.get_by_text("Slide drawer")).to_be_visible()
    page.reload()  # what was read stays on the phone
    expect(go_on).to_contain_text("Next: spot 3 again")
    go_on.tap()
    page.get_by_role("button", name="Type it").tap()
    page.get_by_label("Reading", exact=True).fill("5.03")
    page.keyboard.press("Enter")
    expect(go_on).to_have_text("Save 5 readings")
    go_on.tap()
    expect(page.get_by_role("heading", name=re.compile("^Saved: Single-wall board measures 5.0"))).to_be_visible()
    page.get_by_role("button", name="Use it for this job").first.tap()
    expect(page.get_by_text("follows now").first).to_be_visible()
    context.close()
