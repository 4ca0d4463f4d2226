"""A file for another machine of the workshop: planned anew with its tool, kerf, bed and room between cuts, or refused."""

from __future__ import annotations

import math

import ezdxf
import pytest
from client import edit, post
from designs.models import Export
from lean_notch.formats.file_kinds import FORMATS
from workshop.actions import put_machine, put_stock

TOOLS = [{"name": "3 mm one-flute", "diameter": 3, "flute_length": 12, "flutes": 1}]


@pytest.fixture
def router(db):
    return put_machine({
        "name": "Barn router", "kind": "router", "bed_width": 1250, "bed_height": 1250, "kerf": 3.0, "tools": TOOLS, "tool": "3 mm one-flute",
    })  # fmt: skip


def boxes(data):
    found = []
    for path in FORMATS["dxf"].read(data).paths:
        if path.layer == "cut":
            sides = [segment.box for segment in path.segments]
            found.append(
                (
                    max(b[2] for b in sides) - min(b[0] for b in sides),
                    max(b[3] for b in sides) - min(b[1] for b in sides),
                )
            )
    return found


def test_it_is_planned_with_that_machines_tool_and_shown_before_it_is_saved(wren, tray, router):
    """The wrong file: the laser's kerf of 0.14 stayed, and a 3 mm tool would have left every part 2.86 mm too small."""
    address = f"/designs/{tray['id']}"
    own = post(wren, f"{address}/in-files", {"format": "dxf"}).json()
    other = post(wren, f"{address}/in-files", {"format": "dxf", "machine": router.pk}).json()
    assert own["planned"] is None
    planned = other["planned"]
    assert (planned["machine"], planned["kind"], planned["tool"], planned["kerf"]) == (
        "Barn router",
        "router",
        "3 mm one-flute",
        3.0,
    )
    assert planned["changes"]
    [made] = post(wren, f"{address}/exports", {"format": "dxf", "machine": router.pk}).json()
    [mine] = post(wren, f"{address}/exports", {"format": "dxf"}).json()
    wide, narrow = (sorted(boxes(bytes(Export.objects.get(pk=one["id"]).data)))[-1] for one in (made, mine))
    assert [a - b for a, b in zip(wide, narrow, strict=True)] == pytest.approx([3.0 - 0.14] * 2, abs=0.01)
    assert made["proof"]["verdict"] == "fits"
    assert wren.get(f"/api/exports/{made['id']}/today").json() == {"known": True, "differs": []}
    assert ezdxf.readfile  # read by our quick reader above, by a general one below
    arcs = sum(
        abs(segment.bulge) > 0
        for path in FORMATS["dxf"].read(bytes(Export.objects.get(pk=made["id"]).data)).paths
        for segment in path.segments
    )
    assert arcs > 0, "its corners are relieved for the tool"
    assert math.isclose(planned["kerf"], 3.0)


def test_the_job_itself_stays_on_its_own_machine(wren, tray, router):
    post(wren, f"/designs/{tray['id']}/exports", {"format": "dxf", "machine": router.pk})
    now = wren.get(f"/api/designs/{tray['id']}").json()
    assert now["revision"] == tray["revision"]
    assert now["boards"][0]["basis"]["machine"]["name"] == "Shed laser"


def test_what_cannot_be_cut_there_is_refused_with_what_would_do(wren, tray, router):
    coarse = put_machine({"name": "Big router", "kind": "router", "bed_width": 1250, "bed_height": 1250, "kerf": 12.0})
    said = post(wren, f"/designs/{tray['id']}/in-files", {"format": "dxf", "machine": coarse.pk})
    assert said.status_code == 422
    assert said.json()["fix"]
    assert post(wren, f"/designs/{tray['id']}/exports", {"format": "dxf", "machine": coarse.pk}).status_code == 422
    assert Export.objects.count() == 0


def test_a_machine_that_was_removed_meanwhile_is_said(wren, tray, router):
    from django.utils import timezone

    router.removed = timezone.now()
    router.save()
    said = post(wren, f"/designs/{tray['id']}/exports", {"format": "dxf", "machine": router.pk})
    assert said.status_code == 422
    assert said.json()["fix"]


def test_a_board_of_the_notebook_there_takes_the_kerf_that_was_found(wren, tray, router, stock):
    assert (
        put_stock({"name": "Other", "nominal": 3, "readings": [3.0], "sheet_width": 600, "sheet_height": 400}).pk
        != stock.pk
    )
    wider = edit(wren, tray, width="160").json()
    other = post(wren, f"/designs/{tray['id']}/in-files", {"format": "svg", "machine": router.pk}).json()
    assert other["planned"]["kerf"] == 3.0
    assert wider["revision"] == 2


def test_a_board_or_machine_that_is_archived_meanwhile_leaves_the_jobs_own_copy(wren, tray, stock, machine):
    for address in (f"/stocks/{stock.pk}", f"/machines/{machine.pk}"):
        assert wren.delete(f"/api{address}").status_code == 204
    assert post(wren, f"/designs/{tray['id']}/in-files", {"format": "svg"}).status_code == 200
    [made] = post(wren, f"/designs/{tray['id']}/exports", {"format": "svg"}).json()
    assert made["proof"]["verdict"] == "fits"
