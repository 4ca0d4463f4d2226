"""Edits by the plain names of what they change: what most tests want to say."""

from __future__ import annotations

from typing import Any

_HEADS = {
    **dict.fromkeys(("readings", "kerf", "clearance", "tool", "sheet", "stock", "machine", "entry"), "basis/main/"),
    **dict.fromkeys(("margin", "spacing", "quarter_turns"), "layout/main/"),
    **dict.fromkeys(("name", "relief", "sets"), ""),
}


def path_of(name: str) -> str:
    """The path of an input of a one-board job; what is no name of its basis or layout is an answer of its recipe."""
    return f"{_HEADS.get(name, 'answers/')}{name}"


def puts(**values: object) -> list[dict[str, Any]]:
    """An edit for each value."""
    return [{"verb": "put", "path": path_of(name), "value": value} for name, value in values.items()]
