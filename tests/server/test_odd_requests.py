"""Bodies of the wrong kind, at every route: refused with what to do, never a failure of the server."""

import pytest
from client import edit
from django.contrib.auth.models import User
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from odd_bodies import BODIES, odd_requests


@pytest.mark.parametrize("kind", BODIES)
def test_a_body_of_the_wrong_kind_fails_nothing(wren, tray, kind):
    body, content_type = BODIES[kind]
    for method, path in odd_requests(tray["id"]):
        answer = wren.generic(method, path, body, content_type=content_type)
        assert answer.status_code < 500, (method, path, answer.content[:200])
        if answer.status_code >= 400:
            assert {"code", "why", "fix"} <= answer.json().keys(), (method, path)


@pytest.mark.parametrize("kind", ["a form", "half a form", "text"])
def test_a_form_where_json_is_wanted_is_refused_also_where_tokens_are_asked_for(tray, kind):
    """Looking for the token reads the body."""
    strict = Client(enforce_csrf_checks=True)
    strict.force_login(User.objects.get(username="Wren"))
    token = strict.get("/api/session").json()["token"]
    body, content_type = BODIES[kind]
    for method, path in odd_requests(tray["id"]):
        answer = strict.generic(method, path, body, content_type=content_type, HTTP_X_CSRFTOKEN=token)
        assert answer.status_code < 500, (method, path, answer.content[:200])


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
