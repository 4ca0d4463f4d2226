"""Bodies of the wrong kind, at every route: refused with what to do, never a failure of the server."""

import json
from pathlib import Path

import pytest
from client import edit
from django.core.files.uploadedfile import SimpleUploadedFile

ROUTES = [
    (method.upper(), path, spec.get("requestBody", {}).get("content", {}))
    for path, methods in json.loads((Path(__file__).parents[2] / "docs" / "openapi.json").read_text())["paths"].items()
    for method, spec in methods.items()
    if method in ("post", "put", "patch", "delete")
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


@pytest.mark.parametrize("kind", BODIES)
def test_a_body_of_the_wrong_kind_fails_nothing(wren, tray, kind):
    body, content_type = BODIES[kind]
    for method, path, _ in ROUTES:
        if path == "/api/session" and method == "DELETE":
            continue
        for number in (tray["id"], 10**30):
            place = path
            while "{" in place:
                start, end = place.index("{"), place.index("}")
                place = f"{place[:start]}{number}{place[end + 1 :]}"
            answer = wren.generic(method, place, body, content_type=content_type)
            assert answer.status_code < 500, (method, place, answer.content[:200])
            if answer.status_code >= 400:
                assert {"code", "why", "fix"} <= answer.json().keys(), (method, place)


@pytest.mark.parametrize("name", ["n" * 5_000 + ".svg", "../../x.svg", "صندوق.svg", "a\x00b.svg", ".svg", '"q".svg'])
@pytest.mark.parametrize("route", ["/api/files", "/api/check"])
def test_a_file_of_any_name_is_read(wren, route, name):
    svg = b'<svg xmlns="http://www.w3.org/2000/svg" width="20mm" height="20mm" viewBox="0 0 20 20"><path d="M0 0h20v20h-20z"/></svg>'
    answer = wren.post(route, {"file": SimpleUploadedFile(name, svg)})
    assert answer.status_code in (200, 201, 202, 422), answer.content[:300]


@pytest.mark.parametrize("value", ["text", 3, [], {"margin": {}}, {"margin": []}, {"spacing": "x" * 9_999}, True, None])
@pytest.mark.parametrize(
    "path", ["layout/main", "layout/main/margin", "basis/main/machine", "basis/main/readings", "sets"]
)
def test_any_value_at_a_path_of_the_job_is_taken_or_refused(wren, tray, path, value):
    answer = edit(wren, tray, {"verb": "put", "path": path, "value": value})
    assert answer.status_code in (200, 422), answer.content[:300]
