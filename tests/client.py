"""What tests of the server share and is no fixture."""

from __future__ import annotations

from typing import Any

from django.test import Client
from edit_paths import puts

BOARD = {"name": "Poplar ply", "nominal": 3, "readings": [3.2, 3.21, 3.22], "sheet_width": 600, "sheet_height": 400}
"""A board, as the page sends it."""


def edit(client: Client, design: Any, *edits: Any, unit: str = "mm", **values: object) -> Any:
    """Edits of a job as it was last shown; `values` by their plain names."""
    body = {"edits": [*edits, *puts(**values)], "unit": unit, "seen": design["moves"], "revision": design["revision"]}
    return post(client, f"/designs/{design['id']}/edits", body)


def post(client: Client, path: str, body: Any = None) -> Any:
    return client.post(f"/api{path}", body or {}, content_type="application/json")


def put(client: Client, path: str, body: Any = None) -> Any:
    return client.put(f"/api{path}", body or {}, content_type="application/json")


def patch(client: Client, path: str, body: Any = None) -> Any:
    return client.patch(f"/api{path}", body or {}, content_type="application/json")


def get(client: Client, path: str) -> Any:
    return client.get(f"/api{path}")
