"""Every hand and every eye: axe-core over every view in both themes; the main job by keys alone, and by touch at 1024.

axe-core's rules for WCAG 2.0 to 2.2, levels A and AA, are the outside check."""

from __future__ import annotations

import json
import re
from pathlib import Path

import pytest
from browser_steps import change, choice, choose, go, open_job, part, recipe, step_that
from playwright.sync_api import Browser, Page, expect

pytestmark = pytest.mark.xdist_group("second browser")

AXE = Path(__file__).resolve().parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"
RULES = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]
STOPS = ("measure", "shape", "join", "lay-out", "prove", "hand-over")


OF_COLOUR = {"type": "rule", "values": ["color-contrast"]}
OF_ALL = {"type": "tag", "values": RULES}


def violations(page: Page) -> list[str]:
    """What axe-core finds wrong, each with where: in the light by all rules, in the dark by those of colour, since the themes
    differ by nothing else."""
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE.read_text())
    found = []
    for theme, called, rules in (("dark", "dim", OF_COLOUR), ("light", "light", OF_ALL)):
        page.emulate_media(color_scheme=theme, reduced_motion="reduce")  # else colours fade from one to the other
        page.locator(f"html[data-theme='{called}']").wait_for(state="attached")
        run = page.evaluate("rules => axe.run(document, {runOnly: rules, resultTypes: ['violations']})", rules)
        found += [(theme, one) for one in run["violations"]]
    return [
        f"{one['id']}, {theme}: {json.dumps([node['target'] for node in one['nodes'][:3]])}" for theme, one in found
    ]


def settled(page: Page) -> None:
    page.locator("h1").first.wait_for()
    expect(page.locator(".el-skeleton")).to_have_count(0)
    page.wait_for_timeout(400)  # what moves has come to rest


@pytest.fixture
def new_here(app, browser: Browser):
    context = browser.new_context(viewport={"width": 1280, "height": 800})
    page = context.new_page()
    page.goto(f"{app.address}/sign-in")
    settled(page)
    assert violations(page) == []
    page.get_by_role("button", name="Sign in as Wren").click()
    page.get_by_role("link", name="Vial carrier").first.wait_for()
    yield page
    context.close()


def test_axe_finds_nothing_on_any_view_in_either_theme(new_here, app):
    settled(new_here)
    wrong = {"home": violations(new_here)}
    recipe(new_here).click()
    new_here.get_by_role("slider", name=re.compile("^Width")).wait_for()
    settled(new_here)
    wrong["start"] = violations(new_here)
    new_here.get_by_role("link", name="Lean Notch, all jobs").click()
    open_job(new_here, "Vial carrier")
    job = new_here.url.rsplit("/", 1)[0]
    for stop in STOPS:
        new_here.goto(f"{job}/{stop}")
        settled(new_here)
        wrong[stop] = violations(new_here)
    new_here.goto(f"{job}/shape")
    part(new_here, "Front").click()
    step_that(new_here, "engrave").click()
    settled(new_here)
    wrong["a step"] = violations(new_here)
    new_here.keyboard.press("?")
    new_here.get_by_role("dialog").wait_for()
    settled(new_here)
    wrong["keys"] = violations(new_here)
    new_here.keyboard.press("Escape")
    for view in ("rack", "machines", "notebook", "check", "settings"):
        new_here.goto(f"{app.address}/{view}")
        settled(new_here)
        wrong[view] = violations(new_here)
    assert {view: found for view, found in wrong.items() if found} == {}


def test_axe_sees_what_is_wrong(page):
    """The check itself is able to fail."""
    page.evaluate("document.querySelector('main').insertAdjacentHTML('beforeend', '<button></button><img src=x>')")
    page.evaluate(
        "document.querySelector('main').insertAdjacentHTML('afterbegin', '<p style=\"color: #333\">dark on dark</p>')"
    )
    assert {one.split(":")[0] for one in violations(page)} == {
        "button-name, light",
        "image-alt, light",
        "color-contrast, dark",
    }


def focus(page: Page, name: str) -> None:
    """Tab until what is called so has the focus."""
    for _ in range(120):
        page.keyboard.press("Tab")
        here = page.evaluate(
            "(e => (e.getAttribute('aria-label') || e.labels?.[0]?.textContent || e.textContent).trim())(document.activeElement)"
        )
        if re.search(name, here):
            return
    raise AssertionError(f"Tab never came to “{name}”.")


def test_a_job_is_made_proved_and_handed_over_by_keys_alone(page):
    focus(page, "^Open tray")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Start this tray").and_(page.locator(":enabled")).wait_for()
    focus(page, "^Name$")
    page.keyboard.press("Control+a")
    page.keyboard.type("By keys")
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="Parts, flat").wait_for()
    page.keyboard.press("Tab")
    skip = page.get_by_role("link", name="Skip to the main part")
    page.reload()
    page.get_by_role("heading", name="Parts, flat").wait_for()
    page.keyboard.press("Tab")
    expect(skip).to_be_focused()
    expect(skip).to_be_in_viewport()
    page.keyboard.press("Enter")
    focus(page, "^Width 150|^width 150")
    page.keyboard.press("Enter")
    page.keyboard.type("155")
    page.keyboard.press("Enter")
    expect(page.get_by_text("inside 155 × 100 × 60")).to_be_visible()
    expect(page.get_by_role("button", name=re.compile("^width 155"))).to_be_focused()
    page.reload()
    page.get_by_role("heading", name="Parts, flat").wait_for()
    focus(page, "^Front$")  # on the drawing
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Steps of Front")).to_be_visible()
    page.keyboard.press("Shift+F10")
    expect(page.get_by_role("menuitem", name="Duplicate")).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.get_by_role("menuitem")).to_have_count(0)
    page.reload()
    page.get_by_role("heading", name="Parts, flat").wait_for()
    focus(page, "^Hand over")
    page.keyboard.press("Enter")
    expect(page).to_have_title(re.compile("^Hand over · By keys · Lean Notch$"))
    expect(page.locator("main")).to_contain_text("✓ The plan is proved")
    focus(page, "^Save the SVG for the shed laser$")
    with page.expect_download() as download:
        page.keyboard.press("Enter")
    assert download.value.suggested_filename == "by-keys_poplar-ply_3.06mm_sheet-1.svg"


def test_a_tablet_shows_everything_and_takes_touches(app, browser: Browser):
    context = browser.new_context(viewport={"width": 1024, "height": 768}, has_touch=True)
    page = context.new_page()
    page.goto(app.address)
    page.get_by_role("button", name="Sign in as Wren").tap()
    page.get_by_role("link", name="Vial carrier").first.tap()
    page.get_by_role("navigation", name="Route").get_by_role("link", name=re.compile("^Shape")).tap()
    page.get_by_role("heading", name="Parts, flat").wait_for()
    for stop in STOPS:
        page.locator(f"nav a[href$='/{stop}']").tap()
        page.locator("h1").wait_for()
        page.wait_for_timeout(150)
        assert page.evaluate("document.querySelector('#app').scrollWidth") <= 1024, stop
        cut = page.evaluate(
            """() => [...document.querySelectorAll('aside .value, aside .because, .chip, .sum')]
              .filter(e => e.getBoundingClientRect().right > innerWidth + 1).map(e => e.textContent)"""
        )
        assert cut == [], stop
    page.locator("nav a[href$='/shape']").tap()
    small = page.evaluate(
        """() => [...document.querySelectorAll('button, a, input, [role=button], [role=slider]')]
          .filter(e => e.offsetParent && !e.closest('svg, .unseen, .skip, p, td'))
          .map(e => [e.closest('.el-input__wrapper, .el-select__wrapper, label') ?? e, e])
          .filter(([box]) => Math.min(box.getBoundingClientRect().width, box.getBoundingClientRect().height) < 23.5)
          .map(([box, e]) => e.outerHTML.slice(0, 120))"""
    )
    assert not small, small  # WCAG 2.2, 2.5.8: targets of 24 px
    part(page, "Front").tap()
    page.get_by_role("heading", name="Steps of Front").wait_for()
    step_that(page, "engrave").tap()
    expect(page.get_by_role("combobox", name="Font")).to_be_visible()
    page.get_by_role("button", name="All parts").tap()
    hole = page.locator("path.hit.opening").first.bounding_box()
    page.touchscreen.tap(hole["x"] + 8, hole["y"] + 8)
    expect(page.get_by_role("heading", name="Steps of Base")).to_be_visible()
    context.close()


def test_at_twice_the_size_nothing_is_lost(app, browser: Browser):
    """WCAG 2.2, 1.4.10: 1280 wide at 200 % is 640; at 400 % it is 320."""
    for width in (640, 320):
        context = browser.new_context(viewport={"width": width, "height": 512})
        page = context.new_page()
        page.goto(app.address)
        page.get_by_role("button", name="Sign in as Wren").click()
        open_job(page, "Vial carrier")
        for stop in STOPS:
            page.locator(f"nav a[href$='/{stop}']").click()
            page.locator("h1").wait_for()
            page.wait_for_timeout(150)
            assert page.evaluate("document.querySelector('#app').scrollWidth") <= width, (stop, width)
        drawing = page.locator(".frame")
        page.locator("nav a[href$='/shape']").click()
        assert drawing.first.bounding_box()["height"] >= 200
        context.close()


def test_what_is_picked_on_a_drawing_is_first_in_the_ledger(open_tray):
    """Parts, holes, marks and edges answer; the paper and Escape unselect; the menu does what the ledger does."""
    ledger = open_tray.get_by_role("complementary")
    part(open_tray, "Base").click()
    choose(open_tray, choice(open_tray, "Add a step"), "A hole")
    open_tray.locator("aside").get_by_role("button", name=re.compile("hole 1")).wait_for()
    open_tray.locator("h1").click()
    open_tray.keyboard.press("Escape")
    expect(ledger.get_by_role("heading", name="Steps of Base")).to_have_count(0)
    open_tray.locator("path.hit.opening").click()
    expect(ledger.get_by_role("button", name=re.compile("hole 1"))).to_have_attribute("aria-expanded", "true")
    box = ledger.locator("section").first.bounding_box()
    assert box["y"] < 120
    side = open_tray.locator("line.side").first.bounding_box()
    open_tray.mouse.click(side["x"] + side["width"] / 2, side["y"] + side["height"] / 2)
    expect(ledger).to_contain_text("Edge")
    frame = open_tray.locator(".frame > svg").bounding_box()
    open_tray.mouse.click(frame["x"] + frame["width"] - 30, frame["y"] + 30)
    expect(ledger.get_by_role("heading", name="Steps of Base")).to_have_count(0)
    open_tray.locator("path.part").nth(1).click(button="right")
    open_tray.get_by_role("menuitem", name="Duplicate").click()
    expect(open_tray.get_by_role("region", name="Parts").get_by_role("button")).to_have_count(6)
    go(open_tray, "Join")
    open_tray.get_by_role("button", name="Joint: Front meets left side").focus()
    open_tray.keyboard.press("Enter")
    expect(ledger.get_by_role("heading", name="Front meets left side")).to_be_visible()


def test_numbers_are_written_and_typed_in_the_readers_language(open_tray):
    open_tray.get_by_role("button", name=re.compile("▾")).click()
    open_tray.get_by_role("menuitem", name="Settings").click()
    choose(open_tray, choice(open_tray, "Language of numbers and dates"), re.compile("Deutsch"))
    expect(open_tray.get_by_text("3,06 mm", exact=True)).to_be_visible()
    open_tray.go_back()
    expect(open_tray.locator(".sum")).to_contain_text("3,08")
    expect(open_tray.get_by_role("navigation", name="Route")).to_contain_text("3,06 mm")
    change(open_tray, "width", "150,5")
    expect(open_tray.get_by_text("inside 150,5 × 100 × 60")).to_be_visible()
    change(open_tray, "width", "151.5")
    expect(open_tray.get_by_text("inside 151,5 × 100 × 60")).to_be_visible()
