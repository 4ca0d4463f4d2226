"""What tests of the server share and is no fixture."""

from __future__ import annotations

from typing import Any

from django.test import Client


def post(client: Client, path: str, body: Any = None) -> Any:
    return client.post(f"/api{path}", body or {}, content_type="application/json")


def put(client: Client, path: str, body: Any = None) -> Any:
    return client.put(f"/api{path}", body or {}, content_type="application/json")


def patch(client: Client, path: str, body: Any = None) -> Any:
    return client.patch(f"/api{path}", body or {}, content_type="application/json")


def get(client: Client, path: str) -> Any:
    return client.get(f"/api{path}")
