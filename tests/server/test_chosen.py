"""What a job takes from the workshop: another sheet, another tool, and numbers that are none."""

import pytest
from client import BOARD, edit, get, patch


@pytest.mark.parametrize("value", ["1", "", True, None, [], -1, 1.5])
@pytest.mark.parametrize("name", ["stock", "machine", "entry"])
def test_what_is_no_number_of_the_workshops_is_refused(wren, tray, name, value):
    refused = edit(wren, tray, **{name: value})
    assert refused.status_code == 422
    assert name in refused.json()["why"] + refused.json()["field"]


def test_another_size_of_sheet_and_another_tool_are_chosen(wren, stock, machine, tray):
    patch(wren, f"/stocks/{stock.id}", {**BOARD, "other_sheets": [{"width": 500, "height": 300}]})
    patch(
        wren,
        f"/machines/{machine.id}",
        {**machine.document, "kind": "router", "tools": [{"name": "three", "diameter": 3, "flute_length": 2}]},
    )
    now = edit(wren, tray, stock=stock.id, machine=machine.id, sheet="1").json()
    assert (now["sheets"][0]["width"], now["boards"][0]["basis"]["stock"]["other_sheets"][0]["width"]) == (500, 600)
    routed = edit(wren, now, tool="three", spacing="8", height="80", finger="12")
    assert routed.json()["boards"][0]["basis"]["machine"]["kerf"] == 3, routed.content
    codes = [finding["code"] for finding in get(wren, f"/designs/{tray['id']}/proof").json()["findings"]]
    assert "short-flutes" in codes
