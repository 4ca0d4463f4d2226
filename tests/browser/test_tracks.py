"""A divided case's columns and rows on its picture: typed, added, removed; a click alone changes nothing."""

import re

import pytest
from playwright.sync_api import Page, expect


@pytest.fixture
def case(page: Page) -> Page:
    page.get_by_role("region", name="Start something").get_by_role("link", name=re.compile("^Divided case")).click()
    expect(columns(page)).to_have_count(4)
    return page


def columns(page: Page, side: str = "Columns"):
    return page.get_by_role("button", name=re.compile(rf"^{side} \d .*, change$"))


def open_(page: Page, name: str) -> None:
    page.get_by_role("button", name=re.compile(f"^{name} ")).first.click()


def test_a_list_is_typed_in_place_of_one_column(case):
    open_(case, "Columns 2")
    case.keyboard.type("30 1fr")
    expect(columns(case)).to_have_count(4)  # the fifth beside the one that is open
    case.keyboard.press("Enter")
    expect(columns(case)).to_have_count(5)
    expect(case.get_by_role("button", name="Columns 2 30.00, change")).to_be_visible()
    open_(case, "Columns 1")
    case.keyboard.type("20 20")
    expect(columns(case)).to_have_count(5)
    case.keyboard.press("Escape")
    expect(case.get_by_role("button", name="Columns 1 52.00, change")).to_be_visible()
    expect(columns(case)).to_have_count(5)


def test_columns_and_rows_are_added_and_removed(case):
    case.get_by_role("button", name="Add a column").click()
    expect(columns(case)).to_have_count(5)
    case.get_by_role("button", name="Add a row").press("Enter")
    expect(columns(case, "Rows")).to_have_count(3)
    open_(case, "Columns 1")
    case.get_by_role("button", name="Remove this column").click()
    expect(columns(case)).to_have_count(4)
    expect(case.get_by_role("button", name="Columns 1 52.00, change")).to_have_count(0)
    open_(case, "Rows 1")
    case.keyboard.press("Backspace")
    case.keyboard.press("Enter")
    expect(columns(case, "Rows")).to_have_count(2)


def test_a_click_on_a_notch_moves_no_wall(case):
    """It turned `49.41 1fr` into a fixed 49."""
    handle = case.locator(".handle").first
    was = [one.get_attribute("aria-label") for one in columns(case).all()]
    handle.click()
    handle.dblclick()
    open_(case, "Columns 4")
    case.keyboard.press("Escape")
    assert [one.get_attribute("aria-label") for one in columns(case).all()] == was
    handle.press("ArrowRight")
    expect(case.get_by_role("button", name="Columns 1 53.00, change")).to_be_visible()
