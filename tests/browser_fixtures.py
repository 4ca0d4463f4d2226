"""The real app in a real browser, for browser tests and benchmarks."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect, sync_playwright
from running_app import BROWSER_ARGS, RunningApp, running_app

PATIENCE_MS = 60_000
"""A shared machine may be slow for a while; that is no fault of the app's."""

expect.set_options(timeout=PATIENCE_MS)


@pytest.fixture(scope="session")
def app() -> Iterator[RunningApp]:
    with running_app() as running:
        yield running


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=BROWSER_ARGS)
        yield browser
        browser.close()


@pytest.fixture(scope="session")
def wrens(app: RunningApp, browser: Browser) -> Iterator[BrowserContext]:
    """The browser as the demo's maker has it, signed in: scripts stay at hand from one test to the next."""
    context = browser.new_context(viewport={"width": 1280, "height": 800}, accept_downloads=True)
    yield context
    context.close()


def _sign_in(page: Page, address: str) -> None:
    page.goto(address)
    page.get_by_role("button", name="Sign in as Wren").click()
    page.get_by_role("heading", name="On the table", exact=True).wait_for()


@pytest.fixture
def tab(app: RunningApp, wrens: BrowserContext) -> Iterator[Page]:
    """An empty page, nothing of other tests kept in the browser; fails the test if the page's script does."""
    page = wrens.new_page()
    page.set_default_timeout(PATIENCE_MS)
    errors: list[str] = []
    page.on("pageerror", lambda error: errors.append(str(error)))
    kept = {"origin": app.address, "storageTypes": "local_storage,indexeddb,cache_storage"}
    if not wrens.cookies():
        _sign_in(page, app.address)
    wrens.new_cdp_session(page).send("Storage.clearDataForOrigin", kept)
    yield page
    page.close(run_before_unload=False)
    wrens.set_offline(False)
    assert errors == []


@pytest.fixture
def page(app: RunningApp, tab: Page) -> Page:
    """On the demo maker's jobs."""
    tab.goto(app.address)
    tab.get_by_role("heading", name="On the table", exact=True).wait_for()
    return tab


@pytest.fixture
def open_tray(app: RunningApp, tab: Page) -> Page:
    """On the Shape stop of a tray of this test's own, started without going by way of the shelf."""
    rows = {what: tab.request.get(f"{app.address}/api/{what}", max_retries=3).json() for what in ("stocks", "machines")}
    ids = {row["document"]["name"]: row["id"] for some in rows.values() for row in some}
    given = {"recipe": "open-tray", "name": "Specimen tray", "stock": ids["Poplar ply"], "machine": ids["Shed laser"]}
    token = next(one["value"] for one in tab.context.cookies() if one["name"] == "csrftoken")
    answer = tab.request.post(f"{app.address}/api/designs", data=given, headers={"X-CSRFToken": token}, max_retries=3)
    assert answer.status == 201, answer.text()
    tab.goto(f"{app.address}/jobs/{answer.json()['id']}/shape")
    tab.get_by_role("heading", name="Parts, flat").wait_for()
    return tab
