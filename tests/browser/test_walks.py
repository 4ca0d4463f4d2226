"""Whole jobs from nothing to a proved file, as a maker would, with their acts counted: none may come to take more.

Outside check: the file is read back by ezdxf and its parts measured against the sizes that were typed.
"""

from __future__ import annotations

import io
import re
from pathlib import Path

import ezdxf
import pytest
from browser_steps import acts, count_acts, go, save
from playwright.sync_api import expect


def boxes(data: bytes) -> list[tuple[float, float]]:
    """Width and height of every closed outline that is cut, the larger first."""
    drawing = ezdxf.read(io.StringIO(data.decode()))
    found = []
    for one in drawing.modelspace().query("LWPOLYLINE[layer=='CUT']"):
        xs, ys = zip(*((x, y) for x, y, *_ in one.get_points()), strict=True)
        found.append(tuple(sorted((max(xs) - min(xs), max(ys) - min(ys)), reverse=True)))
    return sorted(found, reverse=True)


def test_a_tray_by_numbers(page, capsys):
    """120 x 80 x 50 inside, of the board as it is measured: 13 acts when they were first counted."""
    count_acts(page)
    page.get_by_role("region", name="Start something").get_by_role("link", name=re.compile("^Open tray")).click()
    page.get_by_label("Name", exact=True).fill("Walked tray")
    page.get_by_label("Name", exact=True).press("Tab")
    for name, size in (("Width", "120"), ("Depth", "80"), ("Height", "50")):
        page.get_by_role("button", name=re.compile(rf"^{name} .*, change$", re.I)).first.click()
        page.keyboard.press("ControlOrMeta+A")
        page.keyboard.type(size)
        page.keyboard.press("Enter")
    page.get_by_role("button", name=re.compile("^Start this")).and_(page.locator(":enabled")).click()
    page.get_by_role("heading", name="Parts, flat").wait_for()
    go(page, "Hand over")
    with page.expect_download() as download:
        save(page, "DXF").click()
    counted = acts(page)
    with capsys.disabled():
        print(f"\na tray by numbers: {counted} acts")
    assert counted <= 13
    thick, kerf = 3.06, 0.14
    [largest, *_] = boxes(Path(download.value.path()).read_bytes())
    assert largest[0] == pytest.approx(120 + 2 * thick + kerf, abs=0.02)
    go(page, "Prove")
    expect(page.get_by_role("heading", name="As cut", exact=True)).to_be_visible()
