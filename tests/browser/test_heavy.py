"""What takes long runs beside the server: the page says how far it is, may end it, and goes on with everything else."""

from __future__ import annotations

import hostile
import pytest
from playwright.sync_api import expect

PUT = """
async (edits) => {
  const job = document.querySelector('#app').__vue_app__.config.globalProperties.$pinia._s.get('job')
  if (!(await job.edit(...edits))) throw new Error(job.problem?.why ?? 'nothing changed')
}
"""


def holes(columns, rows):
    """Edits that make a large tray whose base has so many holes."""
    step = {
        "id": "holes", "kind": "shape", "does": "cut", "x": "15", "y": "15", "shape": {"kind": "disc", "diameter": "3"},
        "pattern": {"kind": "grid", "columns": columns, "rows": rows, "dx": "6", "dy": "6"},
    }  # fmt: skip
    sizes = {"width": "500", "depth": "330", "height": "30"}
    edits = [{"verb": "put", "path": f"answers/{name}", "value": value} for name, value in sizes.items()]
    return [*edits, {"verb": "put", "path": "parts/base/steps/holes", "value": step}]


@pytest.fixture
def heavy(open_tray):
    open_tray.goto(open_tray.url.replace("shape", "prove"))
    open_tray.get_by_text("fits, as planned").or_(open_tray.get_by_text("Fits, if the kerf")).first.wait_for()
    open_tray.evaluate(PUT, holes(60, 40))
    return open_tray


def test_a_long_proof_says_how_far_it_is_is_cancelled_and_made_after_all(heavy):
    note = heavy.get_by_role("status").filter(has_text="The proof:")
    expect(note).to_be_visible()
    note.get_by_role("button", name="Cancel").click()
    expect(heavy.get_by_role("alert").filter(has_text="It was cancelled.")).to_be_visible()
    expect(heavy.get_by_text("not proved", exact=True)).to_have_count(1)  # on the route
    expect(heavy.get_by_role("region", name="Proof")).to_contain_text("Older figures are of revision 1")
    # An edit meanwhile goes on at once, and its proof is the one that is made.
    heavy.evaluate(PUT, holes(30, 20)[3:])
    expect(note).to_be_visible()
    expect(heavy.get_by_role("navigation", name="Route")).to_contain_text("fits, as planned", timeout=180_000)
    expect(note).to_have_count(0)
    expect(heavy.get_by_role("alert")).to_have_count(0)


def test_a_drawing_that_unfolds_to_much_is_checked_beside_the_server(page, app):
    page.goto(f"{app.address}/check")
    data = hostile.nested_uses(3)
    page.locator("input[type=file]").set_input_files({"name": "many.svg", "mimeType": "image/svg+xml", "buffer": data})
    expect(page.get_by_text("Do not cut it as it is")).to_be_visible()
    expect(page.get_by_role("complementary").get_by_text("999 like this")).to_be_visible()
