"""What a view weighs, what moves under the eye while it loads, and what is drawn again while a drawing is moved."""

from __future__ import annotations

import json
from pathlib import Path

import pytest
from browser_steps import go, open_job, part
from playwright.sync_api import Page, expect

pytestmark = pytest.mark.xdist_group("second browser")

DIST = Path(__file__).resolve().parents[2] / "web" / "dist"
HOME_BYTES = 200_000
VIEW_BYTES = 150_000
LOADED = "performance.getEntriesByType('resource').map(entry => new URL(entry.name).pathname)"


def gzipped(page: Page) -> int:
    """Bytes of script and style that the page has asked for since it was loaded, as a browser gets them, without fonts."""
    names = {name for name in page.evaluate(LOADED) if name.endswith((".js", ".css"))}
    assert len(names) >= 2
    files = [DIST / f"{name[1:]}.gz" for name in names]
    return sum((file if file.exists() else file.with_suffix("")).stat().st_size for file in files)


def test_home_is_light_and_no_view_adds_much(page, app):
    page.goto(app.address)
    page.get_by_role("link", name="Vial carrier").first.wait_for()
    assert gzipped(page) < HOME_BYTES
    open_job(page, "Vial carrier")
    job = page.url.rsplit("/", 1)[0]
    weights = {}
    stops = [f"{job}/{stop}" for stop in ("measure", "shape", "join", "lay-out", "prove", "hand-over")]
    for address in (
        *stops,
        *(f"{app.address}/{view}" for view in ("rack", "machines", "notebook", "check", "settings")),
    ):
        page.goto(address)
        page.locator("h1").first.wait_for()
        page.wait_for_load_state("networkidle")
        weights[address.rsplit("/", 1)[1]] = gzipped(page)
    assert {view: size for view, size in weights.items() if size > HOME_BYTES + VIEW_BYTES} == {}


SHIFTS = """
window.shifted = 0
new PerformanceObserver(list => list.getEntries().forEach(e => e.hadRecentInput || (window.shifted += e.value)))
  .observe({type: 'layout-shift', buffered: true})
"""


@pytest.mark.parametrize("view", ["", "rack", "machines", "notebook", "settings", "shape", "prove", "hand-over"])
def test_nothing_jumps_while_a_view_loads(page, app, view):
    """Layout shift as the browser itself counts it."""
    open_job(page, "Vial carrier")
    job = page.url.rsplit("/", 1)[0]
    page.add_init_script(SHIFTS)
    page.goto(f"{job}/{view}" if view in ("shape", "prove", "hand-over") else f"{app.address}/{view}")
    page.locator("h1").first.wait_for()
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(300)
    assert page.evaluate("window.shifted") < 0.05


@pytest.mark.parametrize("stop", ["Shape", "Lay out", "Prove"])
def test_moving_a_drawing_makes_no_element_of_it_anew(open_tray, stop):
    """But for names, which go where there is room at that scale."""
    go(open_tray, stop)
    part(open_tray, "Base").click()
    drawing = open_tray.locator(".frame > svg")
    expect(drawing.locator("g path").first).to_be_visible()
    expect(open_tray.get_by_role("navigation", name="Route")).to_contain_text("fits")
    open_tray.wait_for_timeout(300)
    open_tray.evaluate(
        """() => {
          window.made = []
          new MutationObserver(list => list.forEach(one => one.target.closest('.names') || one.addedNodes.forEach(n => window.made.push(n.nodeName))))
            .observe(document.querySelector('.frame > svg'), {childList: true, subtree: true})
        }"""
    )
    drawing.focus()
    before = drawing.locator("> g").first.get_attribute("transform")
    for key in ("+", "ArrowLeft", "ArrowUp", "-", "+", "ArrowRight"):
        open_tray.keyboard.press(key)
    assert drawing.locator("> g").first.get_attribute("transform") != before
    assert json.dumps(open_tray.evaluate("window.made")) == "[]"
