"""Retakes docs/screenshots/ from the demo's data, at 1280 x 800."""

from __future__ import annotations

from pathlib import Path

from playwright.sync_api import Page, sync_playwright
from running_app import BROWSER_ARGS, ROOT, running_app

OUT = ROOT / "docs" / "screenshots"


def main() -> None:
    with running_app() as app, sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=BROWSER_ARGS)
        page = browser.new_page(viewport={"width": 1280, "height": 800}, color_scheme="light")
        OUT.mkdir(parents=True, exist_ok=True)
        for name in take_all(page, app.address):
            page.screenshot(path=str(OUT / f"{name}.png"))
            print(OUT.relative_to(Path.cwd()) / f"{name}.png")
        browser.close()


def take_all(page: Page, address: str):  # type: ignore[no-untyped-def]
    """Brings one view after the other onto the page, and gives each one's name when it is there."""
    page.goto(address)
    page.get_by_role("button", name="Come in as Wren").wait_for()
    yield "sign-in"
    page.get_by_role("button", name="Come in as Wren").click()
    page.get_by_role("link", name="Vial carrier").wait_for()
    yield "home"
    page.get_by_role("link", name="Check a drawing").click()
    page.wait_for_url("**/check")
    page.locator("input[type=file]").set_input_files(ROOT / "demo" / "dip-net.dxf")
    page.get_by_text("Do not cut it as it is").wait_for()
    page.wait_for_timeout(300)
    yield "check"
    page.go_back()
    page.get_by_role("link", name="Vial carrier").click()
    page.get_by_text("fits, as cut from the file").wait_for()
    yield "shape"
    page.get_by_role("button", name="Front", exact=True).first.click()
    page.get_by_role("button", name="name engrave").click()
    page.wait_for_timeout(200)
    page.get_by_role("button", name="name engrave").scroll_into_view_if_needed()
    page.wait_for_timeout(200)
    yield "shape-steps"
    for stop, name in (("Measure", "measure"), ("Join", "join"), ("Lay out", "lay-out"), ("Hand over", "hand-over")):
        page.get_by_role("navigation", name="Route").get_by_role("link", name=stop).click()
        page.wait_for_timeout(300)
        yield name
    page.get_by_role("navigation", name="Route").get_by_role("link", name="Measure").click()
    yield from take_bases(page)
    yield from take_workshop(page)
    page.go_back()
    page.get_by_role("link", name="Lean Notch, your jobs").click()
    page.get_by_role("link", name="Vial carrier").click()
    page.get_by_text("fits, as cut from the file").wait_for()
    page.get_by_role("navigation", name="Route").get_by_role("link", name="Prove").click()
    page.wait_for_timeout(300)
    yield "prove"
    page.get_by_role("button", name="look at a corner").click()
    page.wait_for_timeout(200)
    yield "prove-corner"
    page.get_by_role("navigation", name="Route").get_by_role("link", name="Shape").click()
    page.get_by_role("button", name="dim").click()
    page.get_by_role("button", name="change width").click()
    page.locator("[data-field='answers/width']").fill("165")
    page.keyboard.press("Enter")
    page.get_by_text("was 150").wait_for()
    yield "shape-changed-dim"
    page.get_by_role("button", name="light").click()
    page.get_by_role("button", name="History").click()
    page.get_by_role("dialog").get_by_text("Set width to 165 mm").wait_for()
    page.wait_for_timeout(300)
    yield "history"


def take_bases(page: Page):  # type: ignore[no-untyped-def]
    """The job on other boards, side by side."""
    for name in ("Clear acrylic", "Double-wall board"):
        label = page.locator(".tries option", has_text=name).inner_text()
        page.get_by_label("what to try").select_option(label=label)
        page.locator(".tries thead").get_by_text(name).wait_for()
    page.locator(".tries tbody tr").last.scroll_into_view_if_needed()
    page.wait_for_timeout(300)
    yield "bases"


def take_workshop(page: Page):  # type: ignore[no-untyped-def]
    """Rack, machines and notebook, the last one with a piece that the practice machine cut."""
    workshop = page.get_by_role("navigation", name="Workshop")
    workshop.get_by_role("link", name="Stock rack").click()
    page.get_by_role("heading", name="Measured so far").wait_for()
    page.wait_for_timeout(300)
    yield "rack"
    workshop.get_by_role("link", name="Machines").click()
    page.get_by_role("heading", name="What it was set to").wait_for()
    page.wait_for_timeout(300)
    yield "machines"
    workshop.get_by_role("link", name="Kerf notebook").click()
    page.locator("nav.list select").nth(1).select_option(label="Shed laser")
    page.get_by_role("button", name="practise").click()
    page.get_by_role("button", name="tell me what it hides").click()
    page.get_by_text("Its kerf is").wait_for()
    yield "notebook"
    page.get_by_role("button", name="Fit comb").click()
    page.get_by_role("button", name="practise").click()
    page.get_by_role("region", name="Result").wait_for()
    page.wait_for_timeout(300)
    yield "comb"


if __name__ == "__main__":
    main()
