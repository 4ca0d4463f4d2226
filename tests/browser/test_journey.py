"""A few whole journeys, as a maker would go them."""

import json
import re
import sqlite3
from contextlib import closing
from pathlib import Path

import ezdxf
import pytest
from browser_steps import change, choice, choose, fill, go, part, save, start, typed
from playwright.sync_api import expect

pytestmark = pytest.mark.xdist_group("browser")  # one server and one browser for all of them


def test_from_a_measured_board_to_a_file_that_fits(open_tray, tmp_path):
    """All six stops, once through."""
    expect(open_tray.get_by_role("navigation", name="Route")).to_contain_text("fits, as planned")
    go(open_tray, "Measure")
    open_tray.get_by_label("next reading").last.fill("3.12")
    open_tray.keyboard.press("Enter")
    expect(open_tray.get_by_role("navigation", name="Route")).to_contain_text("3.07 mm, 6 readings")
    go(open_tray, "Join")
    expect(open_tray.get_by_label("Joints").get_by_role("button")).to_have_count(8)
    go(open_tray, "Lay out")
    expect(open_tray.get_by_role("heading", name="Sheet 1 of 1")).to_be_visible()
    go(open_tray, "Prove")
    expect(open_tray.get_by_role("region", name="Proof")).to_contain_text("Fits.")
    corner = open_tray.get_by_role("figure", name=re.compile("^Inner corner of "))
    expect(corner).to_contain_text("0.029")
    go(open_tray, "Hand over")
    open_tray.get_by_role("button", name="Plain", exact=True).click()
    for name, begins in (("SVG", "<?xml"), ("DXF", "  0\nSECTION"), ("DXF R12", "  0\nSECTION")):
        with open_tray.expect_download() as download:
            save(open_tray, name).click()
        file = tmp_path / download.value.suggested_filename
        download.value.save_as(file)
        assert re.fullmatch(r"specimen-tray_poplar-ply_3\.07mm_sheet-1(_R12)?\.(svg|dxf)", file.name)
        assert file.read_text().startswith(begins)
    assert len(ezdxf.readfile(file).modelspace()) == 5
    expect(open_tray.get_by_role("link", name=re.compile("specimen-tray.*svg"))).to_be_visible()


def test_an_edit_marks_what_it_changed_and_can_be_undone_by_key(open_tray):
    change(open_tray, "width", "width")  # no length of its own
    expect(open_tray.get_by_role("alert")).to_contain_text("width depends on itself")
    open_tray.keyboard.press("Escape")
    change(open_tray, "width", "depth + 60 mm")
    expect(open_tray.get_by_text("Was 150.00")).to_be_visible()
    expect(open_tray.get_by_text("inside 160 × 100 × 60")).to_be_visible()
    open_tray.locator("h1").click()
    open_tray.keyboard.press("Control+z")
    expect(open_tray.get_by_text("inside 150 × 100 × 60")).to_be_visible()
    open_tray.reload()
    open_tray.get_by_role("heading", name="Parts, flat").wait_for()
    open_tray.keyboard.press("Control+Shift+z")
    expect(open_tray.get_by_text("inside 160 × 100 × 60")).to_be_visible()


@pytest.mark.parametrize(
    ("field", "text", "fix"),
    [
        ("width", "2", "or use a thinner board"),
        ("width", "700", "use a larger sheet and bed"),
        ("height", "tall", "Use a number or one of these names"),
        ("depth", "1e9", "check the decimal point"),
    ],
)
def test_bad_input_is_explained_at_its_field_and_the_picture_stays(open_tray, field, text, fix):
    before = open_tray.locator("path.part").first.get_attribute("d")
    change(open_tray, field, text)
    alert = open_tray.locator("aside").get_by_role("alert")
    expect(alert).to_contain_text(fix)
    expect(open_tray.locator(typed(field))).to_have_value(text)
    assert open_tray.locator("path.part").first.get_attribute("d") == before
    open_tray.keyboard.press("Escape")
    expect(alert).to_have_count(0)


def test_basis_chips_open_in_place_and_the_job_follows(open_tray):
    open_tray.get_by_role("button", name=re.compile("^Kerf")).click()
    open_tray.locator(typed("kerf", ".panel")).fill("-1")
    open_tray.keyboard.press("Enter")
    expect(open_tray.locator(".panel").get_by_role("alert")).to_contain_text("0 mm or more")
    open_tray.locator(typed("kerf", ".panel")).fill("0.2")
    open_tray.keyboard.press("Enter")
    expect(open_tray.locator(".sum")).to_contain_text("cut path 2.88")
    open_tray.keyboard.press("Escape")
    expect(open_tray.locator(".panel")).to_have_count(0)
    open_tray.get_by_role("button", name=re.compile("^Fit")).click()
    open_tray.locator(".panel").get_by_role("radiogroup", name="Fit").get_by_text("slide").click()
    expect(open_tray.locator(".sum")).to_contain_text("3.18")


def test_readings_can_be_pasted_and_a_slip_is_pointed_out(open_tray):
    go(open_tray, "Measure")
    last = open_tray.get_by_label("next reading").last
    last.focus()
    open_tray.evaluate(
        "const data = new DataTransfer(); data.setData('text', '3.01 3.09\\n30.4');"
        "document.activeElement.dispatchEvent(new ClipboardEvent('paste', {clipboardData: data, bubbles: true, cancelable: true}))"
    )
    expect(open_tray.get_by_role("alert")).to_contain_text("Is it 3.04 mm?")
    expect(open_tray.locator("[data-field='readings[7]']")).to_have_attribute("aria-invalid", "true")
    open_tray.locator("[data-field='readings[7]']").fill("3.04")
    open_tray.keyboard.press("Enter")
    expect(open_tray.get_by_role("navigation", name="Route")).to_contain_text("8 readings")


def test_a_machine_can_be_changed_at_any_time(open_tray):
    """The dead end: the router was refused, since a spacing that was chosen for the laser is narrower than its tool."""
    go(open_tray, "Lay out")
    change(open_tray, "spacing", "2")
    expect(open_tray.locator(".title-line")).to_contain_text("revision 2")
    open_tray.get_by_role("button", name=re.compile("^Kerf")).click()
    choose(open_tray, choice(open_tray.locator(".panel"), "Machine"), "Barn router")
    expect(open_tray.locator(".title-line")).to_contain_text("revision 3")
    expect(open_tray.get_by_role("alert")).to_have_count(0)
    open_tray.keyboard.press("Escape")
    go(open_tray, "Prove")
    expect(open_tray.get_by_role("navigation", name="Route")).to_contain_text("does not fit")
    expect(open_tray.get_by_text(re.compile("A spacing of 2 mm leaves nothing")).first).to_be_attached()


def test_a_board_of_ones_own_is_measured_and_used(open_tray):
    open_tray.get_by_role("button", name=re.compile("^Poplar")).click()
    open_tray.get_by_role("button", name="Add a board").click()
    dialog = open_tray.get_by_role("dialog")
    for field, text in {
        "name": "Clear acrylic", "nominal": "1/8 in", "readings": "2.9 29", "sheet_width": "24 in", "sheet_height": "300", "sheets": "2",
    }.items():  # fmt: skip
        dialog.locator(f"[data-field={field}]").fill(text)
    dialog.get_by_role("button", name="Add board").click()
    expect(dialog.get_by_role("alert")).to_contain_text("Is it 2.9 mm?")
    dialog.locator("[data-field=readings]").fill("2.90 2.94")
    dialog.get_by_role("button", name="Add board").click()
    expect(open_tray.locator(".sum")).to_contain_text("2.94")
    open_tray.get_by_label("Name of the job").fill("Clear tray")
    open_tray.keyboard.press("Enter")
    go(open_tray, "Hand over")
    expect(open_tray.get_by_text("clear-tray_clear-acrylic_2.92mm_sheet-1.svg")).to_be_visible()


def test_inches_are_shown_and_typed(open_tray):
    open_tray.get_by_role("radiogroup", name="Unit").get_by_text("in", exact=True).click()
    expect(open_tray.get_by_role("navigation", name="Route")).to_contain_text("0.1205 in")
    change(open_tray, "width", "6 1/2")
    expect(open_tray.get_by_role("button", name=re.compile("^width"))).to_contain_text("6 1/2")
    open_tray.get_by_role("radiogroup", name="Unit").get_by_text("mm", exact=True).click()
    expect(open_tray.get_by_role("button", name=re.compile("^width"))).to_contain_text("165.10")


def test_two_windows_never_lose_an_edit(open_tray):
    other = open_tray.context.new_page()
    other.goto(open_tray.url)
    other.get_by_role("heading", name="Parts, flat").wait_for()
    change(open_tray, "width", "155")
    expect(open_tray.get_by_text("Was 150.00")).to_be_visible()
    go(other, "Measure")
    fill(other, typed("kerf", "main"), "0.2")  # what is apart from it goes through
    expect(other.locator(".sum")).to_contain_text("cut path 2.88")
    go(other, "Shape")
    expect(other.get_by_text("inside 155 × 100 × 60")).to_be_visible()
    change(open_tray, "depth", "95")
    expect(open_tray.get_by_text("inside 155 × 95 × 60")).to_be_visible()
    change(other, "depth", "90")
    expect(other.get_by_role("dialog")).to_contain_text("Set depth to 95 mm")
    other.get_by_role("button", name="Save mine over theirs").click()
    expect(other.get_by_text("inside 155 × 90 × 60")).to_be_visible()
    change(open_tray, "depth", "50")
    open_tray.get_by_role("button", name="Use theirs, drop mine").click()
    expect(open_tray.get_by_text("inside 155 × 90 × 60")).to_be_visible()


def test_the_history_tells_what_was_done_and_leads_back(open_tray):
    change(open_tray, "width", "155")
    expect(open_tray.get_by_text("inside 155 × 100 × 60")).to_be_visible()
    change(open_tray, "depth", "90")
    expect(open_tray.get_by_text("inside 155 × 90 × 60")).to_be_visible()
    open_tray.get_by_role("button", name="History").click()
    rows = open_tray.get_by_role("dialog").get_by_role("listitem")
    expect(rows).to_have_count(3)
    expect(rows.first).to_contain_text("Set depth to 90 mm")
    rows.filter(has_text="Set width to 155 mm").get_by_role("button").click()
    expect(open_tray.get_by_text("inside 155 × 100 × 60")).to_be_visible()
    rows.filter(has_text="Set depth to 90 mm").get_by_role("button").click()
    expect(open_tray.get_by_text("inside 155 × 90 × 60")).to_be_visible()


def test_an_empty_job_is_filled_by_hand(page, tmp_path):
    """A part, a hole, a copy of it; the step is switched off, moved, removed; packed and opened again."""
    page.get_by_role("link", name=re.compile("^Empty job")).click()
    page.get_by_label("Name").fill("Plank")
    page.get_by_role("button", name="Start an empty job").click()
    expect(page.get_by_text("This job has no parts yet")).to_be_visible()
    expect(page.get_by_role("navigation", name="Route")).to_contain_text("nothing to prove yet")
    page.get_by_role("button", name="Add a part").click()
    expect(page.locator("path.part")).to_have_count(1)
    expect(page.get_by_role("navigation", name="Route")).to_contain_text("fits, as planned")
    choose(page, choice(page, "Add a step"), "A hole")
    field = page.locator("aside [data-field='parts/part-1/steps/hole-1/shape/diameter']")
    fill(page, "aside [data-field='parts/part-1/steps/hole-1/shape/diameter']", "0")
    expect(page.locator("aside").get_by_role("alert").first).to_contain_text("Give more than 0 mm")
    field.fill("12")
    page.keyboard.press("Enter")
    expect(page.locator("aside").get_by_role("alert")).to_have_count(0)
    steps = page.locator("aside ol > li")
    page.get_by_role("button", name="Duplicate", exact=True).last.click()
    expect(steps).to_have_count(3)
    page.get_by_role("button", name="Move up").last.click()
    expect(steps.nth(1).get_by_role("button", name="hole 2")).to_be_visible()
    page.get_by_role("button", name="Switch off").click()
    expect(steps.nth(1)).to_have_class(re.compile(r"\boff\b"))
    page.get_by_role("button", name="Remove", exact=True).last.click()
    expect(steps).to_have_count(2)
    fill(page, "aside [data-field='parts/part-1/title']", "Board")
    page.get_by_role("button", name="Duplicate", exact=True).first.click()
    expect(page.get_by_role("region", name="Parts").get_by_role("button")).to_have_count(2)
    go(page, "Hand over")
    save(page)  # everything has come, and nothing moves any more
    with page.expect_download() as download:
        page.get_by_role("link", name="The whole job, packed").click()
    download.value.save_as(tmp_path / "sign.zip")
    page.get_by_role("link", name="Lean Notch, all jobs").click()
    page.locator("input[type=file][accept*='.zip']").set_input_files(tmp_path / "sign.zip")
    expect(page.locator("path.part")).to_have_count(2)


def test_a_job_that_no_longer_builds_shows_why_and_is_mended_in_place(open_tray, app):
    job = int(re.search(r"/jobs/(\d+)", open_tray.url)[1])
    with closing(sqlite3.connect(Path(app.environment["LEAN_NOTCH_DATA"]) / "lean-notch.sqlite3", timeout=20)) as data:
        head, document = data.execute(
            "select r.id, r.document from designs_revision r join designs_design d on d.head_id = r.id where d.id = ?",
            (job,),
        ).fetchone()
        spoiled = json.loads(document)
        for one in (*spoiled["design"]["dimensions"], *spoiled["design"]["origin"]["answers"]):
            if one["name"] == "width":
                one["length" if "length" in one else "text"] = "2"
        # With another date, since what a server remembers of a revision holds for good.
        spoil = "update designs_revision set document = ?, saved = '2020-01-01 00:00:00' where id = ?"
        data.execute(spoil, (json.dumps(spoiled), head))
        data.commit()
    open_tray.reload()
    why = open_tray.get_by_text("Make that edge at least")
    why.wait_for()
    expect(why).to_be_in_viewport(ratio=1)
    fill(open_tray, "[data-field='answers/width']", "150")
    expect(open_tray.get_by_role("heading", name="Parts, flat")).to_be_visible()


def test_a_second_board_has_its_own_thickness_and_sheets(open_tray):
    go(open_tray, "Measure")
    open_tray.get_by_role("button", name="Add another board to this job").click()
    fill(open_tray, "[data-field='boards/board_1/title']", "Bottom")
    open_tray.get_by_label("next reading").last.wait_for()
    choose(open_tray, choice(open_tray, "Board from the stock rack"), "Clear acrylic")
    expect(open_tray.locator(".sum")).to_contain_text("Bottom: slot")
    go(open_tray, "Shape")
    part(open_tray, "Base").click()
    choose(open_tray, choice(open_tray.locator("aside"), "Board"), "Bottom")
    go(open_tray, "Lay out")
    expect(open_tray.get_by_role("heading", name="Sheet 1 of 2")).to_be_visible()
    open_tray.get_by_role("radiogroup", name="Sheet").get_by_text("2").click()
    expect(open_tray.get_by_text("Clear acrylic on Shed laser")).to_be_visible()


def test_everything_is_reached_by_keyboard(open_tray):
    """Tab goes through title line, chips, route, drawing, ledger, rail; the drawing zooms and pans by keys."""
    seen = set()
    for _ in range(80):
        open_tray.keyboard.press("Tab")
        seen.add(
            open_tray.evaluate(
                "(document.activeElement.getAttribute('aria-label') || document.activeElement.closest('label')?.textContent"
                " || document.activeElement.textContent).trim()"
            )
        )
    assert {"mm", "width 150.00 mm, change", "Show all"} <= seen
    assert any(name.startswith("Kerf") for name in seen)
    assert any(name.startswith("Front") for name in seen)
    drawing = open_tray.get_by_role("group", name=re.compile("Parts, flat"))
    drawing.focus()
    view = drawing.locator("> g").first
    before = view.get_attribute("transform")
    open_tray.keyboard.press("+")
    open_tray.keyboard.press("ArrowLeft")
    assert view.get_attribute("transform") != before
    open_tray.keyboard.press("0")
    expect(view).to_have_attribute("transform", before)
    assert drawing.evaluate("getComputedStyle(document.activeElement).outlineStyle") == "solid"


def test_an_archived_job_is_restored(page):
    start(page, "Spare tray")
    page.get_by_role("link", name="Lean Notch, all jobs").click()
    page.get_by_role("button", name="More for Spare tray").click()
    page.get_by_role("menuitem", name="Archive").click()
    expect(page.get_by_role("link", name=re.compile("Spare tray"))).to_have_count(0)
    page.reload()
    page.get_by_role("button", name=re.compile("^Archived jobs")).click()
    page.get_by_role("button", name="Restore Spare tray").click()
    expect(page.get_by_role("link", name=re.compile("Spare tray"))).to_be_visible()


def test_no_address_but_our_own_is_asked(page, app):
    hosts = page.evaluate("performance.getEntriesByType('resource').map(entry => new URL(entry.name).origin)")
    assert set(hosts) == {app.address}


def test_drawing_on_a_part_and_handing_it_over(open_tray, tmp_path):
    """A hole, lettering with a mistake in it, and a file for another receiver."""
    part(open_tray, "Front").click()
    choose(open_tray, choice(open_tray, "Add a step"), "A hole")
    field = open_tray.locator("[data-field='parts/front/steps/hole-1/shape/diameter']")
    field.fill("-9")
    open_tray.keyboard.press("Enter")
    expect(open_tray.get_by_role("alert").first).to_contain_text("Give more than 0 mm")
    field.fill("9")
    open_tray.keyboard.press("Enter")
    expect(open_tray.get_by_role("alert")).to_have_count(0)
    choose(open_tray, choice(open_tray, "Add a step"), "Lettering")
    expect(open_tray.locator("path.work.engrave").first).to_be_visible()
    expect(open_tray.get_by_role("navigation", name="Route")).to_contain_text("fits, as planned")
    go(open_tray, "Hand over")
    open_tray.get_by_role("button", name="Plain", exact=True).click()
    layer = open_tray.get_by_label("Layer for engrave")
    layer.fill("ETCH")
    layer.press("Tab")
    expect(open_tray.get_by_text("changed for this time only")).to_be_visible()
    with open_tray.expect_download() as download:
        save(open_tray, "DXF").click()
    file = tmp_path / "sheet.dxf"
    download.value.save_as(file)
    layers = {entity.dxf.layer for entity in ezdxf.readfile(file).modelspace()}
    assert layers == {"ETCH", "CUT"}
    with open_tray.expect_download() as download:
        save(open_tray, "PDF").click()
    download.value.save_as(tmp_path / "sheet.pdf")
    assert (tmp_path / "sheet.pdf").read_bytes().startswith(b"%PDF")


def test_a_drawing_from_elsewhere_is_looked_over(open_tray, tmp_path):
    drawing = tmp_path / "flap.svg"
    square = '<path fill="none" stroke="black" stroke-width="0.1" d="M10 10h30v30h-30z"/>'
    drawing.write_text(
        f'<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="60mm" viewBox="0 0 60 60">{square * 2}</svg>'
    )
    open_tray.get_by_role("link", name="Lean Notch").first.click()
    open_tray.get_by_role("link", name="Check a drawing").click()
    open_tray.wait_for_url("**/check")
    open_tray.locator("input[type=file]").set_input_files(drawing)
    expect(open_tray.get_by_text("Do not cut it as it is")).to_be_visible()
    expect(open_tray.get_by_role("complementary").get_by_text("is doubled")).to_be_visible()
    open_tray.get_by_role("button", name="Show the place").first.click()
    drawing.write_text(drawing.read_text().replace(square * 2, square))
    open_tray.locator("input[type=file]").set_input_files(drawing)
    expect(open_tray.get_by_text("No blocking problems")).to_be_visible()
    broken = tmp_path / "broken.svg"
    broken.write_bytes(b"not a drawing")
    open_tray.locator("input[type=file]").set_input_files(broken)
    expect(open_tray.get_by_role("alert")).to_contain_text("Choose a file")
    # Nothing of the clean one before is left to be taken for this one's.
    expect(open_tray.get_by_role("heading", name="Check a drawing").locator("..")).to_contain_text("broken.svg")
    expect(open_tray.get_by_text("No blocking problems")).to_have_count(0)
    expect(open_tray.locator("path.line")).to_have_count(0)


def test_a_joint_is_removed_missed_and_made_again(open_tray):
    """Without it two panels want the same corner: the proof says so, and the joint comes back by hand."""
    route = open_tray.get_by_role("navigation", name="Route")
    joints = open_tray.get_by_label("Joints").get_by_role("button")
    go(open_tray, "Join")
    expect(joints).to_have_count(8)
    open_tray.get_by_role("button", name="Change it").click()
    open_tray.get_by_role("complementary").get_by_role("button", name="Remove").first.click()
    expect(joints).to_have_count(7)
    expect(route).to_contain_text("does not fit as it is")
    go(open_tray, "Prove")
    expect(open_tray.get_by_role("complementary").get_by_text("stand in each other by").first).to_be_visible()
    go(open_tray, "Join")
    open_tray.get_by_role("button", name="Add a joint").click()
    open_tray.locator(".joint").get_by_role("button", name="finger joint").click()
    expect(open_tray.get_by_text("Cannot be made")).to_be_visible()
    for end, placement, edge in (("first", "front", "left"), ("second", "left", "right")):
        choose(open_tray, open_tray.locator(f"[data-field$='{end}/placement']"), re.compile(f"^{placement}"))
        choose(open_tray, open_tray.locator(f"[data-field$='{end}/edge']"), re.compile(f"^{edge}$"))
    expect(joints).to_have_count(8)
    expect(open_tray.get_by_text("Cannot be made")).to_have_count(0)
    expect(route).to_contain_text("fits, as planned")
