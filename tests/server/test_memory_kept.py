"""The server's process keeps under a limit of its own: what it remembers is forgotten before it holds more."""

from __future__ import annotations

import pytest
from client import get
from designs.compute import computed
from designs.models import Design
from ground import memory
from lean_notch.ground.remembered import MEMORIES


@pytest.fixture(autouse=True)
def never_yet(monkeypatch):
    monkeypatch.setattr(memory._Last, "at", -1e9)
    monkeypatch.setattr(memory, "PAUSE_SECONDS", 1e6)


def kept() -> int:
    return sum(one.holds() for one in MEMORIES)


def test_what_is_remembered_is_forgotten_once_it_is_too_much_and_not_at_every_request(wren, tray, monkeypatch):
    first = get(wren, f"/designs/{tray['id']}").content
    assert kept() > 20
    assert not memory.keep_within(10**12)
    assert kept() > 20
    monkeypatch.setattr("config.requests.keep_within", lambda: memory.keep_within(1))
    assert get(wren, f"/designs/{tray['id']}").content == first
    assert kept() == 0
    assert get(wren, f"/designs/{tray['id']}").content == first  # computed anew, and not forgotten at once again
    assert kept() > 20


def test_cached_functions_are_among_it():
    assert {"_boolean", "_outlines"} <= {one.name for one in MEMORIES}


def test_what_this_process_holds_is_known(wren, tray):
    assert 20_000_000 < memory.resident() < 20_000_000_000
    assert computed(Design.objects.get(pk=tray["id"]).head.job)
