"""Nothing is lost and nothing is dead: without a connection, after a session has ended, after a new release."""

from __future__ import annotations

import re

import pytest
from browser_steps import change, go
from playwright.sync_api import expect

pytestmark = pytest.mark.xdist_group("second browser")


def test_an_edit_without_a_connection_is_kept_through_other_stops_and_sent(open_tray):
    expect(open_tray.get_by_role("region", name="Parts")).to_be_visible()
    go(open_tray, "Measure")  # its script is there
    go(open_tray, "Shape")
    open_tray.context.set_offline(True)
    change(open_tray, "width", "160")
    banner = open_tray.get_by_role("alert").filter(has_text="No connection")
    expect(banner).to_contain_text("Your change is kept here and will be sent.")
    expect(open_tray.locator(".title-line")).to_contain_text("not saved yet")
    go(open_tray, "Measure")
    expect(open_tray.get_by_role("heading", name="Measure")).to_be_visible()
    open_tray.context.set_offline(False)
    expect(banner).to_have_count(0)
    go(open_tray, "Shape")
    expect(open_tray.get_by_text("inside 160 × 100 × 60")).to_be_visible()


def test_an_edit_that_was_under_way_when_the_page_was_loaded_again_is_sent(open_tray):
    open_tray.route("**/edits", lambda route: route.abort())
    open_tray.on("dialog", lambda dialog: dialog.accept())  # the browser asks whether to leave
    change(open_tray, "width", "165")
    expect(open_tray.get_by_role("alert").filter(has_text="No connection")).to_be_visible()
    open_tray.unroute("**/edits")
    open_tray.evaluate("window.addEventListener('beforeunload', e => e.stopImmediatePropagation(), true)")
    open_tray.reload()
    expect(open_tray.get_by_text("inside 165 × 100 × 60")).to_be_visible()


def test_a_session_that_ended_is_taken_up_where_it_was(open_tray):
    open_tray.context.clear_cookies()
    change(open_tray, "width", "170")
    banner = open_tray.get_by_role("alert").filter(has_text="You are no longer signed in")
    expect(banner).to_contain_text("Your change is kept here and will be sent.")
    expect(open_tray.locator(".title-line")).not_to_contain_text("Wren")
    banner.get_by_role("button", name="Sign in").click()
    open_tray.get_by_role("dialog").get_by_role("button", name="Sign in as Wren").click()
    expect(open_tray.get_by_text("inside 170 × 100 × 60")).to_be_visible()
    expect(banner).to_have_count(0)
    expect(open_tray.locator(".title-line")).to_contain_text("Wren")


def test_a_stop_whose_script_is_gone_after_a_release_loads_the_page_again(open_tray):
    gone = {"count": 0}

    def once(route):
        gone["count"] += 1
        route.fulfill(status=404) if gone["count"] == 1 else route.continue_()

    open_tray.route(re.compile(r"/assets/ProveStop-.*\.js"), once)
    go(open_tray, "Prove")
    expect(open_tray.get_by_role("heading", name="As cut", exact=True)).to_be_visible()
    assert gone["count"] >= 2


def test_a_stop_that_cannot_be_loaded_offline_says_so_and_opens_later(open_tray):
    open_tray.context.new_cdp_session(open_tray).send("Network.clearBrowserCache")
    open_tray.context.set_offline(True)
    go(open_tray, "Prove")
    banner = open_tray.get_by_role("alert").filter(has_text="The page you asked for opens once there is one.")
    expect(banner).to_be_visible()
    open_tray.context.set_offline(False)
    expect(open_tray.get_by_role("heading", name="As cut", exact=True)).to_be_visible()
    expect(banner).to_have_count(0)
    # Its stylesheets too: they were asked for once only, and the stop stood there without.
    assert open_tray.evaluate("[...document.querySelectorAll('link[rel=stylesheet]')].every((one) => one.sheet)")
    assert open_tray.evaluate("document.querySelectorAll('link[rel=stylesheet]').length") > 1


def test_the_drawing_of_standing_parts_does_not_grow_without_its_styles(open_tray):
    """A canvas that decided the size of its frame grew with it until memory ran out."""
    go(open_tray, "Join")
    open_tray.get_by_label("Assembled", exact=False).first.wait_for()
    open_tray.evaluate("document.querySelectorAll('link[rel=stylesheet]').forEach((one) => one.remove())")
    sizes = []
    for _ in range(4):
        open_tray.wait_for_timeout(150)
        sizes.append(open_tray.evaluate("document.querySelector('canvas').height"))
    assert sizes[-1] <= sizes[0] + 100, sizes


def test_what_is_on_its_way_shows_its_outline(open_tray):
    """Within 100 ms there is something to see, whatever the server takes."""
    open_tray.route("**/api/designs", lambda route: None)  # never answered
    open_tray.get_by_role("link", name="Lean Notch, all jobs").click()
    expect(open_tray.get_by_role("status", name="Loading jobs")).to_be_visible(timeout=2000)
