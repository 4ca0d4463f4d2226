"""Retakes docs/screenshots/ from the demo's data, at 1280 x 800; with `--sheets FOLDER`, makes contact sheets of every view in both
themes and at three widths there instead, to be looked at together."""

from __future__ import annotations

import io
import re
import sys
from collections.abc import Iterator
from pathlib import Path
from typing import Literal

from PIL import Image, ImageDraw
from playwright.sync_api import Browser, Locator, Page, ViewportSize, expect, sync_playwright
from running_app import BROWSER_ARGS, ROOT, running_app

OUT = ROOT / "docs" / "screenshots"


SIZES = ((1024, 768), (1280, 800), (1920, 1080))
THEMES: tuple[Literal["light", "dark"], ...] = ("light", "dark")
THUMB = 640
"""Pixels of width that each picture has on a contact sheet."""


def main() -> None:
    sheets = Path(sys.argv[sys.argv.index("--sheets") + 1]).resolve() if "--sheets" in sys.argv else None
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=BROWSER_ARGS)
        if sheets is None:
            retake(browser)
        else:
            if sheets.is_relative_to(ROOT):
                sys.exit("Contact sheets are made outside the repository.")
            contact_sheets(browser, sheets)
        browser.close()


def retake(browser: Browser) -> None:
    OUT.mkdir(parents=True, exist_ok=True)
    with running_app() as app:
        page = browser.new_page(viewport={"width": 1280, "height": 800}, color_scheme="light")
        for name in take_all(page, app.address):
            page.screenshot(path=str(OUT / f"{name}.png"))
            print(OUT.relative_to(Path.cwd()) / f"{name}.png")
        for name in take_phone(page, app.address):
            page.screenshot(path=str(OUT / f"{name}.png"))
            print(OUT.relative_to(Path.cwd()) / f"{name}.png")


def contact_sheets(browser: Browser, folder: Path) -> None:
    """One picture a width and theme, with every view on it and its name below."""
    folder.mkdir(parents=True, exist_ok=True)
    for width, height in SIZES:
        for theme in THEMES:
            with running_app() as app:  # each from the demo as it is seeded
                page = browser.new_page(viewport={"width": width, "height": height}, color_scheme=theme)
                shots = [(name, page.screenshot()) for name in take_all(page, app.address)]
                page.context.close()
            file = folder / f"{width}-{theme}.png"
            laid(shots, THUMB, round(THUMB * height / width)).save(file)
            print(file)


def laid(shots: list[tuple[str, bytes]], width: int, height: int, across: int = 4) -> Image.Image:
    gap, below = 12, 24
    rows = -(-len(shots) // across)
    sheet = Image.new("RGB", (across * (width + gap) + gap, rows * (height + below + gap) + gap), "#808080")
    draw = ImageDraw.Draw(sheet)
    for i, (name, data) in enumerate(shots):
        x, y = gap + (i % across) * (width + gap), gap + (i // across) * (height + below + gap)
        sheet.paste(Image.open(io.BytesIO(data)).convert("RGB").resize((width, height)), (x, y))
        draw.text((x, y + height + 4), name, fill="white")
    return sheet


def take_all(page: Page, address: str) -> Iterator[str]:
    """Brings one view after the other onto the page, and gives each one's name when it is there."""
    page.goto(address)
    page.get_by_role("button", name="Sign in as Wren").wait_for()
    yield "sign-in"
    page.get_by_role("button", name="Sign in as Wren").click()
    page.get_by_role("article", name="Seed tray").wait_for()
    settle(page)
    yield "home"
    page.get_by_role("region", name="Start something").get_by_role("link", name=re.compile("^Divided case")).click()
    page.get_by_role("button", name="Piece of wall c2r1").click()
    page.get_by_role("button", name=re.compile("^Columns 1")).click()
    page.keyboard.type("2*28 + 2")
    page.get_by_text("= 58.00 mm").wait_for()
    settle(page)
    yield "start"
    page.goto(f"{address}/check")
    page.locator("input[type=file]").set_input_files(ROOT / "demo" / "dip-net.dxf")
    page.get_by_text("Do not cut it as it is").wait_for()
    settle(page)
    yield "check"
    page.goto(f"{address}/settings")
    page.get_by_role("heading", name="Settings").wait_for()
    settle(page)
    yield "settings"
    page.goto(address)
    open_job(page)
    settle(page)
    yield "shape"
    page.get_by_role("link", name="Lean Notch, all jobs").click()
    open_job(page, "Viewer side")
    page.get_by_role("region", name="Parts").get_by_role("button", name="Side panel").click()
    page.get_by_role("button", name="glass slide", exact=True).click()
    settle(page)
    yield "shape-steps"
    page.get_by_role("link", name="Lean Notch, all jobs").click()
    open_job(page)
    for stop in ("measure", "lay-out", "hand-over"):
        page.locator(f"nav a[href$='/{stop}']").click()
        settle(page)
        yield stop
    page.get_by_role("link", name="Lean Notch, all jobs").click()
    open_job(page, "Specimen viewer")
    page.locator("nav a[href$='/join']").click()
    page.get_by_role("button", name=re.compile("^Insert 2 meets side 1")).click()
    settle(page)
    yield "join"
    page.get_by_role("link", name="Lean Notch, all jobs").click()
    open_job(page)
    page.locator("nav a[href$='/measure']").click()
    yield from take_bases(page)
    yield from take_workshop(page)
    page.get_by_role("link", name="Lean Notch, all jobs").click()
    open_job(page)
    page.locator("nav a[href$='/prove']").click()
    settle(page)
    yield "prove"
    page.locator("nav a[href$='/shape']").click()
    page.get_by_role("button", name=re.compile("^width .*, change$")).click()
    page.locator("[data-field='answers/width']").fill("165")
    page.keyboard.press("Enter")
    page.get_by_text("Was 150").wait_for()
    page.get_by_role("button", name="History").click()
    page.get_by_role("dialog").get_by_text("Set width to 165 mm").wait_for()
    settle(page)
    yield "history"


def open_job(page: Page, name: str = "Vial carrier") -> None:
    page.get_by_role("link", name=name).first.click()
    page.locator("nav a[href$='/shape']").click()
    proved(page)


def take_phone(page: Page, address: str) -> Iterator[str]:
    """What is made for one hand, at the rack."""
    page.set_viewport_size(PHONE)
    boards = page.evaluate("fetch('/api/stocks').then(answer => answer.json())")
    board = next(one["id"] for one in boards if one["document"]["name"] == "Poplar ply")
    page.goto(f"{address}/rack/{board}/measure")
    for reading in ("3.05", "3.07", "3.31", "3.02"):
        page.get_by_role("button", name="Type it").click()
        page.get_by_label("Reading", exact=True).fill(reading)
        page.keyboard.press("Enter")
        page.locator(".go").click()
    page.get_by_role("button", name=re.compile(r"^\+")).click()
    page.get_by_text("is far from the others").wait_for()
    settle(page)
    yield "phone"


PHONE = ViewportSize(width=390, height=844)


def proved(page: Page) -> None:
    page.get_by_role("navigation", name="Route").get_by_text("fits, as planned").wait_for()


def settle(page: Page) -> None:
    page.mouse.move(0, 0)
    expect(page.locator(".el-skeleton")).to_have_count(0)
    page.wait_for_timeout(450)


def choose(page: Page, box: Locator, option: str) -> None:
    box.locator("xpath=ancestor::*[contains(@class, 'el-select__wrapper')]").click()
    listed = page.locator(f"[id='{box.get_attribute('aria-controls')}']")
    listed.get_by_role("option", name=re.compile(f"^{option}")).first.click()


def take_bases(page: Page) -> Iterator[str]:
    """The job on other boards, side by side."""
    for name in ("Clear acrylic", "Double-wall board"):
        choose(page, page.get_by_role("combobox", name="Compare with"), name)
        page.locator(".tries thead").get_by_text(name).wait_for()
    page.locator(".tries tbody tr").last.scroll_into_view_if_needed()
    settle(page)
    yield "bases"


def take_workshop(page: Page) -> Iterator[str]:
    """Rack, machines and notebook, the last one with a piece that the practice machine cut."""
    workshop = page.get_by_role("navigation", name="Workshop")
    workshop.get_by_role("link", name="Stock rack").click()
    page.get_by_role("heading", name="Measurements").wait_for()
    settle(page)
    yield "rack"
    workshop.get_by_role("link", name="Machines").click()
    page.get_by_role("heading", name="Settings log").wait_for()
    settle(page)
    yield "machines"
    workshop.get_by_role("link", name="Kerf notebook").click()
    shelf = page.get_by_role("navigation", name="Kerf notebook")
    choose(page, shelf.get_by_role("combobox", name="Machine"), "Shed laser")
    page.get_by_role("button", name="Practise").click()
    page.get_by_role("button", name="Show its true kerf").click()
    page.get_by_text("Its true kerf is").wait_for()
    settle(page)
    yield "notebook"
    page.get_by_role("button", name="Fit comb").click()
    page.get_by_role("button", name="Practise").click()
    page.get_by_role("region", name="Result").wait_for()
    settle(page)
    yield "comb"


if __name__ == "__main__":
    main()
