"""What browser tests do again and again."""

from __future__ import annotations

import re

from edit_paths import path_of
from playwright.sync_api import Page


def go(page: Page, stop: str) -> None:
    page.get_by_role("navigation", name="Route").get_by_role("link", name=re.compile(f"^{stop}")).click()


def workshop(page: Page, name: str) -> None:
    page.get_by_role("navigation", name="Workshop").get_by_role("link", name=name).click()


def typed(field: str, within: str = "aside") -> str:
    """The field of an input of the open job, by its plain name."""
    return f"{within} [data-field='{path_of(field)}']"


def change(page: Page, field: str, text: str) -> None:
    page.get_by_role("button", name=f"change {field}", exact=True).click()
    fill(page, f"aside [data-field='{path_of(field)}']", text)


def fill(page: Page, field: str, text: str) -> None:
    """Types into the field and commits it."""
    page.locator(field).fill(text)
    page.keyboard.press("Enter")
