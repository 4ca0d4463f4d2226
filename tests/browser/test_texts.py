"""Text that can be read: none lies over other text, none is cut off, none is drawn smaller than 12 px, on every view at four sizes of
window, with the demo's names and with the longest that can be given.

Outside check: the boxes that the browser itself gives to texts, as painted (tests/browser_text.js); targets by WCAG 2.2, 2.5.8.
"""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from playwright.sync_api import Page

pytestmark = pytest.mark.xdist_group("second browser")

FOUND = (Path(__file__).parents[1] / "browser_text.js").read_text()
AXE = (Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js").read_text()
SIZES = ((390, 844), (1024, 768), (1280, 800), (1920, 1080))
STOPS = ("measure", "shape", "join", "lay-out", "prove", "hand-over")
LONGEST = "Wide W" * 13 + "WW"
"""Eighty letters, as many as a name may have, and wide ones."""


def faults(page: Page, address: str) -> dict[str, list]:
    """What cannot be read there, by width of window and theme."""
    page.goto(address)
    page.locator("h1").first.wait_for()
    page.locator(".el-skeleton").first.wait_for(state="detached")
    page.wait_for_load_state("networkidle")
    if address.endswith("/prove"):
        page.locator(".inset").wait_for()
    page.wait_for_timeout(500)
    page.evaluate(AXE)
    wrong = {}
    for width, height in SIZES:
        page.set_viewport_size({"width": width, "height": height})
        for scheme in ("light", "dark"):
            page.emulate_media(color_scheme=scheme)
            page.wait_for_timeout(250 if scheme == "light" else 30)
            if found := page.evaluate(FOUND):
                wrong[f"{width} {scheme}"] = found
        if small := small_targets(page):
            wrong[f"{width} targets"] = small
    return wrong


def small_targets(page: Page) -> list[str]:
    """What a finger would miss: targets under 24 px, but for those in a sentence and those with as much room around them, by
    axe-core's rule for WCAG 2.2, 2.5.8. No selector is exempt."""
    answer = page.evaluate("axe.run({runOnly: ['target-size'], resultTypes: ['violations']})")
    return [node["html"][:160] for one in answer["violations"] for node in one["nodes"]]


@pytest.fixture
def jobs(page, app):
    cards = page.request.get(f"{app.address}/api/designs", max_retries=3).json()
    return {card["name"]: card["id"] for card in cards}


@pytest.mark.parametrize(
    "view",
    [
        "",
        "check",
        "settings",
        "rack",
        "machines",
        "notebook",
        "newer",
        "start/empty",
        "start/open-tray",
        "start/divided-case",
        "start/tag",
    ],
)
def test_texts_of_the_workshop_can_be_read(page, app, view):
    assert faults(page, f"{app.address}/{view}") == {}


@pytest.mark.parametrize(
    "name",
    [
        "Vial carrier",
        pytest.param("Boot rack", marks=pytest.mark.rare),
        pytest.param("Specimen viewer", marks=pytest.mark.rare),
    ],
)
def test_texts_of_a_job_can_be_read(page, app, jobs, name):
    wrong = {stop: faults(page, f"{app.address}/jobs/{jobs[name]}/{stop}") for stop in STOPS}
    assert {stop: found for stop, found in wrong.items() if found} == {}


@pytest.mark.rare
def test_texts_of_the_other_jobs_can_be_read(page, app, jobs):
    wrong = {}
    for name, number in jobs.items():
        if name in ("Vial carrier", "Boot rack", "Specimen viewer"):
            continue
        for stop in STOPS:
            if found := faults(page, f"{app.address}/jobs/{number}/{stop}"):
                wrong[f"{name}, {stop}"] = found
    assert wrong == {}


def test_the_longest_names_can_be_read(open_tray, app):
    """A job and all its parts, as long as names may be."""
    number = re.search(r"/jobs/(\d+)/", open_tray.url)[1]
    job = open_tray.request.get(f"{app.address}/api/designs/{number}", max_retries=3).json()
    edits = [{"verb": "put", "path": "name", "value": LONGEST}]
    edits += [{"verb": "put", "path": f"parts/{part['id']}/title", "value": LONGEST} for part in job["parts"]]
    token = next(one["value"] for one in open_tray.context.cookies() if one["name"] == "csrftoken")
    answer = open_tray.request.post(
        f"{app.address}/api/designs/{number}/edits", headers={"X-CSRFToken": token}, max_retries=3,
        data={"edits": edits, "unit": "mm", "seen": job["moves"], "revision": job["revision"]},
    )  # fmt: skip
    assert answer.status == 200, answer.text()
    wrong = {stop: faults(open_tray, f"{app.address}/jobs/{number}/{stop}") for stop in STOPS}
    wrong["home"] = faults(open_tray, app.address)
    assert {view: found for view, found in wrong.items() if found} == {}


def test_on_a_phone_the_stops_own_content_begins_above_the_fold(page, app, jobs):
    page.set_viewport_size({"width": 390, "height": 844})
    for stop in STOPS:
        page.goto(f"{app.address}/jobs/{jobs['Vial carrier']}/{stop}")
        page.locator("h1").wait_for()
        assert page.locator("h1").bounding_box()["y"] < 844 / 3, stop


def test_what_cannot_be_read_is_found(page):
    """The wrong pages that the check must refuse."""
    page.evaluate(
        """() => { document.body.innerHTML = `
          <p style="position:absolute;top:10px;left:10px;margin:0">one over</p><p style="position:absolute;top:12px;left:14px;margin:0">the other</p>
          <div style="position:absolute;top:60px;width:60px;overflow:hidden;white-space:nowrap">cut off at its end</div>
          <div style="position:absolute;top:90px;left:${innerWidth - 20}px;white-space:nowrap">beyond the page</div>
          <svg viewBox="0 0 200 40" width="100" style="position:absolute;top:130px"><text y="20" font-size="16">drawn small</text></svg>
          <div style="position:absolute;top:160px;left:200px;width:40px;border:1px solid;white-space:nowrap">hangs out of its box</div>
          <button style="position:absolute;top:240px;left:0;width:10px;height:16px;padding:0;border:0">a</button>
          <button style="position:absolute;top:240px;left:11px;width:10px;height:16px;padding:0;border:0">b</button>
          <p style="position:absolute;top:200px;margin:0">nothing wrong</p>` }"""
    )
    page.evaluate(AXE)
    assert [re.sub("<button.*>(.*)</button>", r"\1", one) for one in small_targets(page)] == ["a", "b"]
    found = [(kind, text) for kind, text, _ in page.evaluate(FOUND)]
    assert sorted(found) == [
        ("cut", "beyond the page"), ("cut", "cut off at its end"), ("cut", "hangs out of its box"), ("over", "the other"), ("small", "drawn small"),
    ]  # fmt: skip
