"""Joining in the browser: solids that turn and come apart, what is offered and what is in the way, and starting on a plan."""

from __future__ import annotations

import re

import pytest
from browser_steps import choice, choose, go
from playwright.sync_api import expect

HASH = """() => {
  const canvas = document.querySelector('canvas')
  const { data } = canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height)
  let sum = 0
  for (let i = 0; i < data.length; i += 997) sum = (sum * 31 + data[i]) | 0
  return [sum, data.some(value => value)]
}"""


def picture(page) -> tuple[int, bool]:
    page.wait_for_timeout(350)  # while it moves it is drawn coarsely
    return tuple(page.evaluate(HASH))


@pytest.fixture
def joined(open_tray):
    go(open_tray, "Join")
    open_tray.get_by_role("heading", name="Assembled").wait_for()
    open_tray.locator("canvas").wait_for()
    return open_tray


def test_solids_are_turned_drawn_apart_and_cut_without_a_graphics_card(joined):
    """Sizes stand at the whole: 156.12 x 106.12 x 63.06."""
    seen = [picture(joined)]
    assert seen[0][1], "something is drawn"
    for key, value in (("width", "156.12"), ("depth", "106.12"), ("height", "63.06")):
        expect(joined.locator(f"[data-size={key}]")).to_have_text(value)
    view = joined.get_by_role("group", name=re.compile("^Assembled"))
    view.focus()
    joined.keyboard.press("ArrowRight")
    seen.append(picture(joined))
    box = view.bounding_box()
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] * 0.6
    joined.mouse.move(x, y)
    joined.mouse.down()
    joined.mouse.move(x + 80, y - 30, steps=4)
    joined.mouse.up()
    seen.append(picture(joined))
    joined.get_by_role("slider", name="How far apart").press("End")
    seen.append(picture(joined))
    joined.get_by_role("slider", name="How far it is cut through").press("End")
    seen.append(picture(joined))
    assert len({one for one, _ in seen}) == len(seen)
    joined.get_by_role("button", name=re.compile("^View")).click()
    joined.get_by_role("menuitem", name="From above").click()
    joined.get_by_label("Names").check()
    expect(view.get_by_text("Base", exact=True)).to_be_visible()


def test_what_is_picked_on_the_solids_is_picked_everywhere(joined):
    box = joined.locator("canvas").bounding_box()
    joined.mouse.click(box["x"] + box["width"] / 2, box["y"] + box["height"] * 0.62)
    expect(joined.get_by_role("region", name="Parts").get_by_role("button", pressed=True)).to_have_count(1)
    joined.get_by_role("button", name="Joint: Front meets base").focus()
    joined.keyboard.press("Enter")
    expect(joined.get_by_role("complementary").get_by_role("heading", name="Front meets base")).to_be_visible()


def test_a_joint_that_is_gone_is_offered_again_and_made(joined):
    joined.get_by_role("button", name=re.compile("^Front meets base")).click()
    joined.get_by_role("button", name="Remove", exact=True).click()
    offers = joined.locator(".offers")
    expect(offers).to_contain_text("Front and Base meet along 156.1 mm at 90°")
    way = joined.locator(".way")
    expect(way).to_contain_text("stand in each other")
    offers.get_by_role("button", name="finger joint").click()
    expect(offers).to_have_count(0)
    expect(way.get_by_text("none")).to_have_count(3)
    expect(joined.locator(".list h2")).to_have_text("8 joints")


def test_a_divided_case_is_started_on_its_plan(page):
    """The plan that led: 52 and 40 are fixed, two shares of 49.41; a piece of wall is taken out; a wall is moved by key."""
    page.get_by_role("region", name="Start something").get_by_role("link", name=re.compile("^Divided case")).click()
    expect(page.get_by_text("52.00 × 86.94")).to_be_visible()
    page.get_by_role("button", name="Piece of wall c2r1").click()
    expect(page.get_by_text("101.88 × 86.94")).to_be_visible()
    page.get_by_role("button", name=re.compile("^Columns 1 52.00")).click()
    page.keyboard.type("2*30 + 2")
    expect(page.get_by_text("= 62.00 mm")).to_be_visible()
    page.keyboard.press("Enter")
    expect(page.get_by_text("62.00 × 86.94")).to_be_visible()
    page.get_by_role("slider", name="Columns 3, drag or arrow keys").press("ArrowRight")
    expect(page.get_by_role("button", name=re.compile("^Columns 3 45.00"))).to_be_visible()
    page.get_by_role("button", name=re.compile("^Columns 3")).click()
    page.keyboard.type("400")
    expect(page.get_by_text("lacks")).to_be_visible()
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Start this case").click()
    page.get_by_role("heading", name="Parts, flat").wait_for()
    expect(page.get_by_role("region", name="Parts")).to_contain_text("Column wall B")


def test_a_part_is_placed_by_the_edge_that_it_meets(joined):
    """A shelf of the base's making: it is stood against the front's top edge, centred, and what it almost meets is told."""
    joined.get_by_role("region", name="Parts").get_by_role("button", name=re.compile("^Base")).click()
    place = joined.locator(".place")
    expect(place.get_by_role("heading", name="Where it stands")).to_be_visible()
    place.get_by_role("button", name="Stand one more").click()
    expect(place.get_by_text("Base, copy 2", exact=True)).to_be_visible()
    choose(joined, choice(joined, "Placed"), "edge against edge")
    expect(choice(joined, "Against")).to_be_visible()
    place.get_by_text("Centred on that edge").click()
    expect(joined.locator(".title-line")).not_to_contain_text("not saved")
    place.get_by_role("button", name="Take it down").click()
    expect(place.get_by_text("Base, copy 2", exact=True)).to_have_count(0)


def test_with_nothing_standing_join_says_what_to_do_and_a_part_is_stood_up_once(page):
    """The dead ends: a body of 1 x 1 x 1 was shown, and a part that was stood up was cut twice."""
    page.goto(page.url.rstrip("/") + "/start/empty")
    page.get_by_role("button", name=re.compile("^Start")).last.click()
    page.get_by_role("button", name="Add a part").first.click()
    go(page, "Join")
    expect(page.get_by_role("heading", name="Nothing stands yet")).to_be_visible()
    page.locator(".nothing").get_by_role("button").first.click()
    expect(page.get_by_role("group", name=re.compile("^Assembled"))).to_be_visible()
    expect(
        page.get_by_role("region", name="Parts").get_by_role("button", name=re.compile("^Part 1 ×1"))
    ).to_be_visible()
    place = page.locator(".place")
    place.get_by_role("button", name="Stand one more").click()
    expect(place.get_by_text("Part 1, copy 2", exact=True)).to_be_visible()
