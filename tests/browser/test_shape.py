"""The Shape stop: a part by its sentences, placed by what is known, on names that follow."""

from __future__ import annotations

import re

import pytest
from browser_steps import choice, choose, part, start
from playwright.sync_api import Page, expect


@pytest.fixture
def panel(page: Page) -> Page:
    """A panel of this test's own, its one part open."""
    page.get_by_role("link", name=re.compile("^Panel A plate")).click()
    page.get_by_role("button", name="Start this panel").and_(page.locator(":enabled")).click()
    page.get_by_role("heading", name="Parts, flat").wait_for()
    part(page, "Panel").click()
    page.get_by_role("heading", name="Steps of Panel").wait_for()
    return page


def steps(page: Page):
    return page.locator("aside ol > li")


def add(page: Page, what: str) -> None:
    before = steps(page).count()
    choose(page, choice(page, "Add a step"), what)
    expect(steps(page)).to_have_count(before + 1)


def number(step, which: int):
    return step.locator("button.number").nth(which)


def saved(page: Page, revision: int) -> None:
    expect(page.locator(".title-line")).to_contain_text(f"revision {revision}")


def test_a_number_in_a_sentence_says_what_it_would_do_before_it_is_kept(panel):
    add(panel, "A hole")
    hole = steps(panel).last
    number(hole, 1).click()
    field = hole.locator("input.figure").first
    field.fill("width/8")
    expect(hole.locator(".outcome")).to_contain_text("= 30.00 mm")
    expect(hole.locator(".outcome")).to_contain_text("moves 90.00 to the left")
    field.fill("width/nothing")
    expect(hole.locator(".outcome")).to_contain_text("There is no length called “nothing”")
    field.press("Escape")
    expect(number(hole, 1)).to_have_text("120.00")
    number(hole, 1).click()
    field.fill("width/8")
    field.press("Enter")
    expect(number(hole, 1)).to_have_text("30.00")
    saved(panel, 3)
    width = panel.get_by_role("button", name=re.compile("^Named length width,"))
    expect(width.locator(".comb .on").last).to_have_text("6")  # and so it stands in its comb


def test_a_step_is_measured_from_an_edge_that_is_clicked_and_the_distance_typed(panel):
    add(panel, "A hole")
    hole = steps(panel).last
    hole.locator("summary").click()
    panel.get_by_role("button", name="Measure from an edge or a point").click()
    panel.get_by_role("button", name="the right edge of plate", exact=True).press("Enter")
    field = panel.locator(".size.open input")
    expect(field).to_have_value("116")
    field.fill("20")
    field.press("Enter")
    expect(hole).to_contain_text("20.00 from the right edge of plate")
    expect(choice(hole, "Across, from")).to_be_visible()
    hole.get_by_role("button", name="Switch off").click()
    expect(hole).to_contain_text("switched off")


def test_steps_are_dragged_to_what_lies_there_and_moved_by_keys(panel):
    add(panel, "A hole")
    hit = panel.locator("path.hit.selected")
    box = hit.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    panel.mouse.move(x, y)
    panel.mouse.down()
    panel.mouse.move(x + 4, y - 30, steps=4)
    panel.mouse.move(x + 1, y - 40, steps=4)
    said = panel.locator(".said[role=status]")
    expect(said).to_contain_text("on the centre of plate")
    panel.mouse.up()
    hole = steps(panel).last
    expect(number(hole, 1)).to_have_text("120.00")
    saved(panel, 3)
    panel.locator("svg[role=group]").first.focus()
    for _ in range(6):
        panel.keyboard.press("ArrowRight")
    expect(said).to_contain_text("6 to the right")
    expect(number(hole, 1)).to_have_text("126.00")
    saved(panel, 4)  # six presses are one edit
    expect(said).to_contain_text("Moved 6 to the right since it was selected")
    panel.keyboard.press("Control+z")
    expect(number(hole, 1)).to_have_text("120.00")


def test_several_steps_are_aligned_copied_into_another_job_and_removed(panel):
    add(panel, "A hole")
    add(panel, "A hole")
    first, second = steps(panel).nth(5), steps(panel).nth(6)
    number(second, 1).click()
    second.locator("input.figure").first.fill("60")
    panel.keyboard.press("Enter")
    expect(number(second, 1)).to_have_text("60.00")
    first.locator(".name").click()
    second.locator(".name").click(modifiers=["Shift"])
    several = panel.get_by_role("region", name="Several steps")
    expect(several).to_contain_text("2 steps selected")
    several.get_by_role("button", name="left sides").click()
    expect(number(second, 1)).to_have_text("120.00")
    several.get_by_role("button", name="Copy").click()
    panel.keyboard.press("Delete")
    expect(steps(panel)).to_have_count(5)
    panel.get_by_role("link", name="Lean Notch, all jobs").click()
    start(panel, "Takes them")
    part(panel, "Base").click()
    panel.get_by_role("button", name="Paste 2 steps").click()
    expect(steps(panel)).to_have_count(3)


def test_steps_change_places_by_dragging_and_anything_is_found_by_name(panel):
    lower, upper = steps(panel).nth(2).locator(".row"), steps(panel).nth(1).locator(".row")
    lower.scroll_into_view_if_needed()
    lower.drag_to(upper, source_position={"x": 60, "y": 12}, target_position={"x": 60, "y": 3})
    expect(steps(panel).nth(1)).to_contain_text("26.00")
    panel.locator("h1").click()
    panel.keyboard.press("/")
    expect(panel.get_by_role("combobox", name=re.compile("^Find a part"))).to_be_focused()
    panel.keyboard.type("square")
    panel.keyboard.press("Enter")
    expect(steps(panel).nth(1).locator(".name")).to_have_attribute("aria-expanded", "true")
    panel.keyboard.press("m")
    panel.get_by_role("button", name="the left edge of plate", exact=True).press("Enter")
    panel.get_by_role("button", name="the right edge of plate", exact=True).press("Enter")
    expect(panel.locator(".said[role=status]")).to_contain_text("240.00 mm")


def test_a_web_too_thin_is_shown_in_its_place_and_mended(panel):
    add(panel, "A hole")
    hole = steps(panel).last
    number(hole, 1).click()
    hole.locator("input.figure").first.fill("5")
    panel.keyboard.press("Enter")
    finding = hole.locator(".finding")
    expect(finding).to_contain_text("A web of 1 mm")
    finding.get_by_role("button", name=re.compile("^Move hole 1")).click()
    expect(hole.locator(".finding")).to_have_count(0)
    expect(number(hole, 1)).to_have_text("5.50")


def test_a_job_becomes_a_recipe_on_the_shelf(panel):
    panel.get_by_role("button", name="Save this job as a recipe").click()
    dialog = panel.get_by_role("dialog")
    dialog.get_by_label("Name").fill("Hut panel")
    dialog.get_by_role("button", name="Save").click()
    expect(dialog.get_by_role("status")).to_contain_text("stands on the shelf")
    panel.keyboard.press("Escape")
    panel.get_by_role("link", name="Lean Notch, all jobs").click()
    panel.get_by_role("link", name=re.compile("^Hut panel")).click()
    expect(panel.get_by_role("slider", name=re.compile("^Width"))).to_be_visible()


def test_a_radius_too_large_is_said_with_the_largest(page):
    page.get_by_role("link", name=re.compile("^Tag A rounded")).click()
    field = page.get_by_role("textbox", name="Corner radius")
    field.fill("20")
    expect(page.locator(".sentences")).to_contain_text("Use at most 15 mm")
    expect(page.get_by_role("button", name="Start this tag")).to_be_disabled()
    field.fill("15")
    expect(page.get_by_role("button", name="Start this tag")).to_be_enabled()


def test_a_free_outline_gets_more_corners_and_is_dragged_bent_and_refused_where_it_was_done(panel):
    """The dead end: no outline got past three corners, and what was refused was said at another stop."""
    add(panel, "A free outline to cut out")
    saved(panel, 2)
    nodes = panel.locator(".nodes .node")
    expect(nodes).to_have_count(3)
    panel.get_by_role("button", name="Edge from node 1:").click()
    saved(panel, 3)
    expect(nodes).to_have_count(4)
    node = nodes.nth(1)
    node.focus()
    for _ in range(3):
        panel.keyboard.press("ArrowDown")
    saved(panel, 4)
    box = panel.locator(".nodes .edge").first.bounding_box()
    at = (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    panel.mouse.move(*at)
    panel.mouse.down()
    panel.mouse.move(at[0], at[1] + 12, steps=3)
    panel.mouse.up()
    saved(panel, 5)
    # Over the edge on its other side it would cross itself: refused where it was done, and nothing is lost.
    far, own = nodes.nth(3).bounding_box(), nodes.nth(1).bounding_box()
    panel.mouse.move(own["x"] + own["width"] / 2, own["y"] + own["height"] / 2)
    panel.mouse.down()
    panel.mouse.move(far["x"] + far["width"] / 2 + 20, far["y"] - 60, steps=5)
    panel.mouse.up()
    expect(panel.locator(".canvas").get_by_role("alert")).to_contain_text("without crossing")
    expect(nodes).to_have_count(4)
    nodes.nth(1).focus()
    panel.keyboard.press("Delete")
    expect(nodes).to_have_count(3)
