"""Bodies of every wrong kind, and where to send them."""

from __future__ import annotations

import json
import re
from collections.abc import Iterator
from pathlib import Path

ROUTES = [
    (method.upper(), path)
    for path, methods in json.loads((Path(__file__).parents[1] / "docs" / "openapi.json").read_text())["paths"].items()
    for method in methods
    if method in ("post", "put", "patch", "delete") and (method, path) != ("delete", "/api/session")
]
BODIES = {
    "nothing": (b"", "application/json"),
    "no JSON": (b"{", "application/json"),
    "a list": (b"[1]", "application/json"),
    "null": (b"null", "application/json"),
    "deep": (b"[" * 20_000, "application/json"),
    "digits": (b'{"sets": ' + b"9" * 6_000 + b"}", "application/json"),
    "no UTF-8": (b'{"name": "\xff\xfe"}', "application/json"),
    "a form": (b"--x\r\nContent-Disposition: form-data; name=\"a\"\r\n\r\n1\r\n--x--\r\n", "multipart/form-data; boundary=x"),
    "half a form": (b"--x\r\nContent-Disposition: form-data; name=\"file\"; filename=\"a\"\r\n\r\n1", "multipart/form-data; boundary=x"),
    "a form without a boundary": (b"--x", "multipart/form-data"),
    "text": (b"hello", "text/plain"),
}  # fmt: skip


def odd_requests(number: int) -> Iterator[tuple[str, str]]:
    """Every method and path that takes a body, of that job, stock or whatever it is, and of one that there cannot be."""
    for method, path in ROUTES:
        for one in (number, 10**30):
            yield method, re.sub(r"\{\w+\}", str(one), path)
