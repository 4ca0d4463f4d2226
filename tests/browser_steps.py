"""What browser tests do again and again."""

from __future__ import annotations

import re

from edit_paths import path_of
from playwright.sync_api import Locator, Page


def go(page: Page, stop: str) -> None:
    page.get_by_role("navigation", name="Route").get_by_role("link", name=re.compile(f"^{stop}")).click()


def recipe(page: Page) -> Locator:
    """The tray on the shelf."""
    return page.get_by_role("region", name="Start something").get_by_role("link", name=re.compile("^Open tray"))


def start(page: Page, name: str, board: str = "") -> None:
    """A tray from the shelf, as it comes."""
    recipe(page).click()
    page.get_by_label("Name", exact=True).fill(name)
    if board:
        page.get_by_role("button", name=re.compile("^Board: ")).click()
        page.get_by_role("menuitem", name=re.compile(f"^{re.escape(board)}")).click()
    page.get_by_role("button", name="Start this tray").click()
    page.get_by_role("heading", name="Parts, flat").wait_for()


def save(page: Page, format_name: str = "") -> Locator:
    """The strong action of Hand over; in another format than its receiver's, if one is named."""
    if format_name:
        page.get_by_role("button", name=re.compile("^Format: ")).click()
        page.get_by_role("menuitem", name=re.compile(f"^{format_name}( R2000, .*| 1:1, .*| for older .*)?$")).click()
    # Not “Save it without a proof”, which goes as soon as the proof is there.
    button = page.get_by_role("button", name=re.compile(r"^Save (the|\d+) "))
    button.and_(page.locator(":enabled")).first.wait_for()
    return button.first


def open_job(page: Page, name: str) -> None:
    """A job of the table, at Shape."""
    page.get_by_role("link", name=name, exact=True).first.click()
    page.locator("nav a[href$='/shape']").click()
    page.get_by_role("heading", name="Parts, flat").wait_for()


def workshop(page: Page, name: str) -> None:
    page.get_by_role("navigation", name="Workshop").get_by_role("link", name=name).click()


def typed(field: str, within: str = "aside") -> str:
    """The field of an input of the open job, by its plain name."""
    return f"{within} [data-field='{path_of(field)}']"


def change(page: Page, field: str, text: str) -> None:
    page.get_by_role("button", name=re.compile(f"^{field} .*, change$")).click()
    fill(page, f"aside [data-field='{path_of(field)}']", text)


def fill(page: Page, field: str, text: str) -> None:
    """Types into the field and commits it."""
    page.locator(field).fill(text)
    page.keyboard.press("Enter")


def choose(page: Page, box: Locator, option: str | re.Pattern[str]) -> None:
    """Opens a list of choices and takes one."""
    box.locator("xpath=ancestor::*[contains(@class, 'el-select__wrapper')]").click()
    listed = page.locator(f"[id='{box.get_attribute('aria-controls')}']")
    listed.get_by_role(
        "option", name=option if isinstance(option, re.Pattern) else re.compile(f"^{re.escape(option)}")
    ).first.click()


def choice(within: Page | Locator, label: str) -> Locator:
    return within.get_by_role("combobox", name=label)


def part(page: Page, title: str) -> Locator:
    """A part on the rail."""
    return page.get_by_role("region", name="Parts").get_by_role("button", name=re.compile(f"^{title}"))


def step_that(page: Page, operation: str) -> Locator:
    """The first step of the open part with that operation."""
    return page.locator("aside ol > li", has=page.locator(f".swatch.{operation}")).locator(".name").first


COUNTING = """() => {
  if (window.acts) return
  const acts = (window.acts = { clicks: 0, drags: 0, typed: 0 })
  let down = null
  let edited = null
  addEventListener('pointerdown', ({ clientX, clientY }) => (down = [clientX, clientY]), true)
  addEventListener('pointerup', ({ clientX, clientY }) => {
    if (down) acts[Math.hypot(clientX - down[0], clientY - down[1]) < 4 ? 'clicks' : 'drags']++
    down = null
  }, true)
  addEventListener('input', ({ target }) => (edited = target), true)
  // Finished by Enter, Tab or a click elsewhere; a key that repeats counts once a press.
  addEventListener('keydown', ({ key, repeat, target }) => {
    if (repeat || !['Enter', 'Tab'].includes(key)) return
    if (edited === target) acts.typed++
    else if (key === 'Enter') acts.clicks++
    edited = null
  }, true)
  addEventListener('focusout', ({ target }) => {
    if (edited === target) acts.typed++
    edited = null
  }, true)
}"""


def count_acts(page: Page) -> None:
    """From here on: a click, a drag, or a field or sentence that is finished is one act. Going to another address starts anew."""
    page.evaluate(COUNTING)


def acts(page: Page) -> int:
    return sum(page.evaluate("Object.values(window.acts)"))
