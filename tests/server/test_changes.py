"""Only what changed is sent: whatever a window does, what it holds then is what a fresh computation gives."""

from __future__ import annotations

import json

import pytest
from client import edit, get, post
from designs import fragments
from designs.models import Design
from forgetting import nothing_remembered

NAMES = {"standings": "placement"}
"""What tells the entries of a list apart, where it is not their id."""


def merged(held, changes):
    """As the page does it."""
    if "since" not in changes:
        return changes
    assert changes["since"] == held["revision"]
    after = {**held, **changes["plain"]}
    for name, change in changes["lists"].items():
        if name == "ledger":
            entries = {**held[name], **change["changed"]}
            after[name] = {key: entries[key] for key in change["order"] or held[name]}
            continue
        key = NAMES.get(name, "id")
        old = {one[key]: one for one in held[name]}
        order = change["order"] or list(old)
        after[name] = [change["changed"].get(one) or old[one] for one in order]
    return after


def fresh(client, held):
    """The same job as one that nobody computed before."""
    with nothing_remembered():
        found = get(client, f"/designs/{held['id']}").json()
    get(client, f"/designs/{held['id']}")  # so that the server knows again what a window holds
    return found


class Window:
    """Holds a job as the page does."""

    def __init__(self, client, shown):
        self.client, self.held = client, shown

    def ask(self, what, **body):
        answer = post(self.client, f"/designs/{self.held['id']}/{what}", {"since": self.held["revision"], **body})
        assert answer.status_code == 200, answer.content
        self.last = answer.json()
        self.held = merged(self.held, self.last)
        return self

    def put(self, path, value):
        edits = [{"verb": "put", "path": path, "value": value}]
        return self.ask("edits", edits=edits, seen=self.held["moves"], revision=self.held["revision"])

    def move(self, what, **body):
        return self.ask(what, seen=self.held["moves"], **body)

    def check(self):
        assert "since" in self.last
        assert self.held == fresh(self.client, self.held)


@pytest.fixture
def window(wren, tray):
    return Window(wren, tray)


TWO_BOARDS = [
    {"verb": "put", "path": "boards/sides", "value": {"id": "sides", "title": "Sides"}},
]
HOLE = {"id": "hole", "kind": "shape", "shape": {"kind": "disc", "diameter": "5"}, "does": "cut", "x": "20", "y": "15"}


@pytest.mark.parametrize(("path", "value"), [
    ("answers/width", "163"),
    ("parts/front/steps/hole", HOLE),
    ("basis/main/readings", ["3.2", "3.21"]),
    ("basis/main/kerf", "0.2"),
    ("basis/main/clearance", "0.3"),
    ("layout/main/spacing", "6"),
    ("layout/main/quarter_turns", False),
    ("parts/base/loose", 2),
    ("parts/front/title", "Face"),
    ("sets", 2),
    ("relief", "dogbone"),
    ("name", "Vials"),
])  # fmt: skip
def test_after_any_edit_what_is_held_is_what_is_computed_anew(window, path, value):
    window.put(path, value).check()


def test_an_edit_of_one_part_sends_that_part_and_its_rows(window):
    window.put("parts/front/steps/hole", HOLE)
    lists = window.last["lists"]
    assert list(lists["parts"]["changed"]) == ["front"]
    assert list(lists["ledger"]["changed"]) == ["part:front", "sheet:1"]
    assert "mates" not in lists
    assert "boards" not in window.last["plain"]


def test_parts_and_joints_that_come_and_go(window):
    added = {"id": "lid", "title": "Lid", "steps": [{"id": "blank", "kind": "shape", "does": "add", "shape": {
        "kind": "rectangle", "width": "80", "height": "40"}}], "loose": 1}  # fmt: skip
    window.put("parts/lid", added).check()
    window.ask(
        "edits", edits=[{"verb": "drop", "path": f"joints/{window.held['joints'][0]['id']}"}],
        seen=window.held["moves"], revision=window.held["revision"],
    ).check()  # fmt: skip
    window.ask(
        "edits", edits=[{"verb": "drop", "path": "parts/lid"}], seen=window.held["moves"],
        revision=window.held["revision"],
    ).check()  # fmt: skip


def test_after_undo_redo_and_going_back(window):
    window.put("answers/width", "163").put("basis/main/readings", ["3.2", "3.21"])
    window.move("undo").check()
    window.move("undo").check()
    window.move("redo").check()
    window.move("go", revision=1).check()


def test_after_a_merge_with_another_window(wren, tray):
    mine, other = Window(wren, tray), Window(wren, tray)
    other.put("parts/base/loose", 2)
    mine.put("parts/front/steps/hole", HOLE).check()
    assert next(one for one in mine.held["parts"] if one["id"] == "base")["loose"] == 2


def test_another_board_of_the_job_changes_its_own_parts_only(window, stock, machine):
    second = {"id": "other", "title": "Second board"}
    edits = [
        {"verb": "put", "path": "boards/other", "value": second},
        {"verb": "put", "path": "basis/other/stock", "value": stock.id},
        {"verb": "put", "path": "basis/other/machine", "value": machine.id},
        {"verb": "put", "path": "parts/base/board", "value": "other"},
    ]
    window.ask("edits", edits=edits, seen=window.held["moves"], revision=window.held["revision"]).check()
    window.put("basis/other/readings", ["4.1", "4.12"]).check()
    assert "base" in window.last["lists"]["parts"]["changed"]
    window.put("basis/other/kerf", "0.2").check()
    assert "parts" not in window.last["lists"]


def test_into_a_state_that_cannot_be_computed_and_out_of_it(window):
    document = Design.objects.get().head.document
    window.put("answers/width", "163")
    head = Design.objects.get().head
    head.document = {**document, "design": {"lean_notch_design": 99}}
    head.saved = head.saved.replace(year=2020)
    head.save()
    window.move("undo")
    assert window.held == fresh(window.client, window.held)
    window.move("redo")
    assert window.held["problem"]["code"] == "bad-document"
    window.move("undo")
    assert window.held["problem"] is None
    assert window.held == fresh(window.client, window.held)


def test_who_holds_a_revision_that_is_not_known_gets_all_of_it(wren, tray):
    fragments._SHOWN._known.clear()
    second = post(wren, f"/designs/{tray['id']}/edits", {
        "edits": [{"verb": "put", "path": "answers/width", "value": "163"}], "seen": tray["moves"],
        "revision": tray["revision"], "since": tray["revision"],
    }).json()  # fmt: skip
    assert "since" not in second
    assert len(json.dumps(edit(wren, second, width="170").json())) > 20_000
