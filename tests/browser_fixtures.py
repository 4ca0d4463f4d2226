"""The real app in a real browser, for browser tests and benchmarks."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from browser_steps import start
from playwright.sync_api import Browser, Page, expect, sync_playwright
from running_app import BROWSER_ARGS, RunningApp, running_app

PATIENCE_MS = 20_000
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


@pytest.fixture
def page(app: RunningApp, browser: Browser) -> Iterator[Page]:
    """Signed in as the demo's maker, on their jobs; fails the test if the page's script does."""
    context = browser.new_context(viewport={"width": 1280, "height": 800}, accept_downloads=True)
    page = context.new_page()
    page.set_default_timeout(PATIENCE_MS)
    errors: list[str] = []
    page.on("pageerror", lambda error: errors.append(str(error)))
    page.goto(app.address)
    page.get_by_role("button", name="Sign in as Wren").click()
    page.get_by_role("heading", name="On the table", exact=True).wait_for()
    yield page
    context.close()
    assert errors == []


@pytest.fixture
def open_tray(page: Page) -> Page:
    """On the Shape stop of a tray of this test's own."""
    start(page, "Specimen tray")
    return page
