"""Whatever the API's own description allows, and much that it does not: never a failure of the server.

Schemathesis makes the requests from the OpenAPI document, some that fit it and some that do not.
"""

from __future__ import annotations

import json

import requests
import schemathesis
from config.api import api
from hypothesis import HealthCheck, Phase, settings
from schemathesis import GenerationMode

DOCUMENT = json.loads(json.dumps(api.get_openapi_schema()))
schema = schemathesis.openapi.from_dict(DOCUMENT)
schema.config.generation.update(modes=[GenerationMode.POSITIVE, GenerationMode.NEGATIVE])


# Sign-out would end the session of all that follows.
@schema.exclude(method="DELETE", path="/api/session").parametrize()
@settings(
    max_examples=8, deadline=None, derandomize=True, phases=[Phase.generate], database=None,
    suppress_health_check=list(HealthCheck),
)  # fmt: skip
def test_no_request_makes_the_server_fail(case, wren, tray):
    wren.raise_request_exception = False
    case.path_parameters = dict.fromkeys(case.path_parameters or {}, 1)  # what there is, as far as there is any
    asked = requests.Request(**case.as_transport_kwargs(base_url="http://localhost")).prepare()
    body = asked.body.encode() if isinstance(asked.body, str) else asked.body or b""
    answer = wren.generic(asked.method, asked.path_url, body, asked.headers.get("Content-Type", "application/json"))
    if answer.status_code >= 400:
        said = answer.json()
        assert answer.status_code < 500, said
        assert {"code", "why", "fix", "field"} <= said.keys()
        assert said["why"]
        assert said["fix"]
