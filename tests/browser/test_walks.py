"""Whole jobs from nothing to a proved file, as a maker would, with their acts counted: none may come to take more.

Outside check: the files are read back by ezdxf, their outlines measured by shapely against the sizes that were typed.
"""

from __future__ import annotations

import io
import itertools
import re
from pathlib import Path

import ezdxf
import pytest
import shapely
from browser_steps import acts, count_acts, go, save
from ezdxf import path as paths
from playwright.sync_api import Locator, Page, expect

LASER = 0.14
ROUTER = 6.0
BIRCH = 11.8775
"""The mean of the demo's four readings."""


class Cut:
    """A file as ezdxf reads it: closed outlines and lines by layer."""

    def __init__(self, data: bytes):
        self.drawing = ezdxf.read(io.StringIO(data.decode()))

    def closed(self, layer: str = "CUT") -> list[shapely.Polygon]:
        every = self.drawing.modelspace().query(f"LWPOLYLINE CIRCLE ARC SPLINE[layer=='{layer}']")
        return [shapely.Polygon([(p.x, p.y) for p in paths.make_path(one).flattening(0.001)]) for one in every]

    def lines(self, layer: str) -> list[shapely.LineString]:
        every = self.drawing.modelspace().query(f"LWPOLYLINE LINE[layer=='{layer}']")
        return [shapely.LineString([(p.x, p.y) for p in paths.make_path(one).flattening(0.001)]) for one in every]

    def outer(self) -> list[shapely.Polygon]:
        """What nothing else goes round: the parts."""
        every = self.closed()
        return [one for one in every if not any(other is not one and other.contains(one) for other in every)]


def sizes(some: list[shapely.Polygon]) -> list[tuple[float, float]]:
    """Width and height of each, the larger first."""
    found = []
    for left, low, right, high in (one.bounds for one in some):
        found.append(tuple(sorted((right - left, high - low), reverse=True)))
    return sorted(found, reverse=True)


def near(*wanted: tuple[float, float]) -> list[object]:
    return [pytest.approx(one, abs=0.02) for one in sorted(wanted, reverse=True)]


def field(page: Page, name: str) -> Locator:
    return page.locator(f"aside [data-field$='/{name}']")


def settled(page: Page) -> None:
    page.get_by_text(re.compile(r"· saved ")).first.wait_for()


def enter(page: Page, **given: str) -> None:
    """Fields one after the other: by Tab where they follow each other, else by a click."""
    for name, text in given.items():
        one = field(page, name.replace("__", "/"))
        one.wait_for()
        for _ in range(8):
            at = page.evaluate("document.activeElement.dataset.field ?? ''")
            if at.endswith(f"/{name.replace('__', '/')}"):
                break
            if not at:
                one.click()
                break
            page.keyboard.press("Tab")
        else:
            one.click()
        page.keyboard.type(text)
        page.keyboard.press("Tab")
    settled(page)


def empty_job(page: Page, name: str, board: str = "", machine: str = "") -> None:
    count_acts(page)
    page.get_by_role("link", name=re.compile("empty", re.I)).first.click()
    page.get_by_label("Name", exact=True).fill(name)
    page.get_by_label("Name", exact=True).press("Tab")
    for label, wanted in (("Board", board), ("Machine", machine)):
        if wanted:
            page.get_by_role("button", name=re.compile(f"^{label}: ")).click()
            page.get_by_role("menuitem", name=re.compile(f"^{wanted}")).click()
    page.get_by_role("button", name="Start an empty job").click()
    page.get_by_role("heading", name="Parts, flat").wait_for()


def add_part(page: Page, title: str, **given: str) -> None:
    page.get_by_role("button", name="Add a part").click()
    page.locator(":focus[data-field$='/title']").wait_for()
    page.keyboard.type(title)
    page.keyboard.press("Tab")
    enter(page, **given)


def add_step(page: Page, purpose: str, **given: str) -> None:
    page.locator("aside .add .el-select__wrapper").click()
    page.get_by_role("option", name=purpose, exact=True).click()
    page.locator(":focus[data-field*='/steps/']").wait_for()
    enter(page, **given)


def stand(page: Page, name: str, **given: str) -> None:
    """By its part's name, or one more of the part that is selected."""
    before = page.locator("aside [data-field^='placements/']").first
    was = before.get_attribute("data-field") if before.count() else ""
    page.get_by_role("button", name=name, exact=True).first.click()
    was = (was or "//").split("/")[1] or "none"
    page.locator(f":focus[data-field*='/pose/']:not([data-field^='placements/{was}/'])").wait_for()
    enter(page, **given)


def turn(page: Page, how: str) -> None:
    field(page, "pose").locator("xpath=ancestor::*[contains(@class, 'el-select__wrapper')]").click()
    page.get_by_role("option", name=how).click()
    expect(page.locator("aside .el-select__wrapper", has_text=how)).to_be_visible()
    settled(page)


def handed_over(page: Page, capsys: pytest.CaptureFixture[str], what: str, most: int) -> Cut:
    """Saves the DXF, tells the acts, and looks at the verdict: a name that says nothing else is of a file that fits."""
    go(page, "Hand over")
    with page.expect_download() as download:
        save(page, "DXF").click()
    counted = acts(page)
    with capsys.disabled():
        print(f"\n{what}: {counted} acts")
    assert counted <= most
    assert re.fullmatch(r"[\w-]+_[\w-]+_[\d.]+mm_sheet-1\.dxf", download.value.suggested_filename)
    return Cut(Path(download.value.path()).read_bytes())


def by_numbers(page: Page, **given: str) -> None:
    """Sizes on the picture of a recipe."""
    for name, size in given.items():
        page.get_by_role("button", name=re.compile(rf"^{name} .*, change$", re.I)).first.click()
        page.keyboard.press("ControlOrMeta+A")
        page.keyboard.type(size)
        page.keyboard.press("Enter")


def test_a_tray_by_numbers(page, capsys):
    """120 x 80 x 50 inside, of the board as it is measured."""
    count_acts(page)
    page.get_by_role("region", name="Start something").get_by_role("link", name=re.compile("^Open tray")).click()
    page.get_by_label("Name", exact=True).fill("Walked tray")
    page.get_by_label("Name", exact=True).press("Tab")
    by_numbers(page, width="120", depth="80", height="50")
    page.get_by_role("button", name=re.compile("^Start this")).and_(page.locator(":enabled")).click()
    page.get_by_role("heading", name="Parts, flat").wait_for()
    cut = handed_over(page, capsys, "a tray by numbers", 13)
    assert sizes(cut.outer())[0][0] == pytest.approx(120 + 2 * 3.06 + LASER, abs=0.02)
    go(page, "Prove")
    expect(page.get_by_role("heading", name="As cut", exact=True)).to_be_visible()


def test_a_box_of_a_board_that_is_measured_on_the_way(page, capsys):
    """Of a board of 5.9 mm that is not on the rack yet: 20 acts when they were first counted."""
    count_acts(page)
    page.get_by_role("region", name="Start something").get_by_role("link", name=re.compile("^Case")).click()
    page.get_by_role("button", name="My board is not here").click()
    dialog = page.get_by_role("dialog")
    for label, text in (
        ("Name", "Walked ply"), ("Nominal thickness", "6"), ("Readings", "5.9"), ("Sheet width", "600"), ("Sheet height", "400"),
    ):  # fmt: skip
        dialog.get_by_label(re.compile(f"^{label}")).first.fill(text)
        dialog.get_by_label(re.compile(f"^{label}")).first.press("Tab")
    dialog.get_by_role("button", name="Add board").click()
    page.get_by_role("button", name="Board: Walked ply").wait_for()
    page.get_by_label("Name", exact=True).fill("Walked box")
    page.get_by_label("Name", exact=True).press("Tab")
    by_numbers(page, width="100", depth="80", height="60")
    page.get_by_role("button", name=re.compile("^Start this")).and_(page.locator(":enabled")).click()
    page.get_by_role("heading", name="Parts, flat").wait_for()
    cut = handed_over(page, capsys, "a box of 5.9 mm by numbers", 20)
    assert (100 + 2 * 5.9 + LASER, 80 + 2 * 5.9 + LASER) in [pytest.approx(one, abs=0.02) for one in sizes(cut.outer())]


@pytest.mark.rare
def test_a_panel_from_an_empty_job(page, capsys):
    """97 acts when they were first counted."""
    empty_job(page, "Walked panel")
    add_part(page, "Plate", shape__width="240", shape__height="160")
    for x in ("20", "80"):
        add_step(page, "An opening", shape__width="40", shape__height="30", x=x, y="20")
    add_step(page, "A row of holes, evenly spread", shape__diameter="5", y="146", pattern__count="6")
    add_step(page, "An opening", shape__width="80", shape__height="50", shape__radius="5", x="20", y="70")
    add_step(page, "Letters to cut through, held by bridges", shape__text="RAIN", shape__height="20", x="180", y="80")
    add_step(page, "A scale: lines to score, evenly apart", shape__to_x="130", shape__to_y="8", x="130", y="0",
             pattern__columns="11", pattern__dx="10")  # fmt: skip
    cut = handed_over(page, capsys, "a panel", 59)
    [plate] = cut.outer()
    assert sizes([plate]) == near((240 + LASER, 160 + LASER))
    inside = sizes([one for one in cut.closed() if one is not plate and plate.contains(one)])
    for wanted in near((40 - LASER, 30 - LASER), (80 - LASER, 50 - LASER), (5 - LASER, 5 - LASER)):
        assert wanted in inside
    holes = sorted(one.centroid.x for one in cut.closed() if one.bounds[2] - one.bounds[0] < 5)
    assert [b - a for a, b in itertools.pairwise(holes)] == pytest.approx([(240 - 6 * 5) / 7 + 5] * 5, abs=0.01)
    marks = sorted(one.centroid.x for one in cut.lines("SCORE"))
    assert [b - a for a, b in itertools.pairwise(marks)] == pytest.approx([10] * 10, abs=0.001)


@pytest.mark.rare
def test_a_gauge_from_three_bars(page, capsys):
    """83 acts when they were first counted."""
    empty_job(page, "Walked gauge")
    add_part(page, "Gauge", shape__width="160", shape__height="30")
    add_step(page, "More material, a rectangle", shape__width="30", shape__height="140", x="65", y="30")
    add_step(page, "More material, a rectangle", shape__width="80", shape__height="20", x="40", y="150")
    add_step(page, "All corners to round or bevel", size="2")
    add_step(page, "A hole", shape__diameter="6", x="80", y="160")
    add_step(page, "Lettering", shape__text="T 90", shape__height="8", x="30", y="11")
    add_step(page, "A scale: lines to score, evenly apart", shape__to_x="71", shape__to_y="40", x="65", y="40",
             pattern__columns="1", pattern__rows="11", pattern__dy="10")  # fmt: skip
    cut = handed_over(page, capsys, "a gauge", 59)
    [gauge] = cut.outer()
    assert sizes([gauge]) == near((170 + LASER, 160 + LASER))
    bars = 160 * 30 + 30 * 120 + 80 * 20
    rounds = (1 - 3.141593 / 4) * 2**2  # eight corners lose it, four gain it
    assert gauge.buffer(-LASER / 2).area == pytest.approx(bars - 4 * rounds, abs=1.0)
    assert len(cut.lines("SCORE")) == 11


@pytest.mark.rare
def test_a_shelf_on_the_router(page, capsys):
    """Five parts, two copies of one, with four tabs and slots and a lap: about 80 acts when they were first counted."""
    empty_job(page, "Walked shelf", "Birch ply", "Barn router")
    for title, width, height in (
        ("Side", "200", "400"),
        ("Low", "300", "200"),
        ("High", "300", "200"),
        ("Divider", "200", "200"),
    ):
        add_part(page, title, shape__width=width, shape__height=height)
    go(page, "Join")
    stand(page, "Side")
    stand(page, "Stand one more", y="300 + thickness")
    stand(page, "Low", into="60", below="thickness")
    expect(page.get_by_text("It meets Side, copy 1 and Side, copy 2.")).to_be_visible()
    stand(page, "High", into="300", below="thickness")
    stand(page, "Divider", into="144", below="-100")
    page.locator(".offers").get_by_role("button", name="cross-lap").wait_for()
    page.get_by_role("button", name="Join all 5 that meet").click()
    page.get_by_role("heading", name="5 joints").wait_for()
    settled(page)
    cut = handed_over(page, capsys, "a shelf", 59)
    through = 300 + 2 * BIRCH + ROUTER
    assert sizes(cut.outer()) == [
        pytest.approx(one, abs=0.1)
        for one in ((400 + ROUTER, 206), (400 + ROUTER, 206), (through, 206), (through, 206), (206, 206))
    ]


@pytest.mark.rare
def test_a_stand_on_pegs(page, capsys):
    """A base with a row of holes and two supports with pegs: 91 acts when they were first counted."""
    empty_job(page, "Walked stand")
    add_part(page, "Base", shape__width="200", shape__height="120")
    add_part(page, "Support", shape__width="80", shape__height="150")
    go(page, "Join")
    stand(page, "Base")
    turn(page, "lying flat")
    stand(page, "Support")
    turn(page, "upright, seen from the side")
    enter(page, x="50", y="20", z="0")
    stand(page, "Stand one more", x="150")
    for left in (1, 0):
        page.locator(".offers").get_by_role("button", name="pegs in a row of holes").first.click()
        expect(page.locator(".offers").get_by_role("button", name="pegs in a row of holes")).to_have_count(left)
    settled(page)
    cut = handed_over(page, capsys, "a stand on pegs", 59)
    base, *supports = sizes(cut.outer())
    assert base == pytest.approx((200 + LASER, 120 + LASER), abs=0.02)
    assert supports == [pytest.approx((150 + 3.06 + LASER, 80 + LASER), abs=0.15)] * 2
