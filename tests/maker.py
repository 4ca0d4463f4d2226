"""A maker at a real server over HTTP, as plain as it gets: for tests that kill or load it."""

from __future__ import annotations

import http.client
import json
import time
from typing import Any
from urllib.parse import urlsplit


class Maker:
    """Signed in, with one connection of its own."""

    def __init__(self, address: str, name: str, password: str) -> None:
        self.host = urlsplit(address).netloc
        self.cookies: dict[str, str] = {}
        self.token = ""
        self.connection = http.client.HTTPConnection(self.host, timeout=60)
        self.token = self.ask("GET", "/session")[1]["token"]
        status, said = self.ask("POST", "/session", {"name": name, "password": password})
        assert status == 200, said
        self.token = said["token"]

    def again(self) -> Maker:
        """The same, with another connection."""
        self.connection.close()
        self.connection = http.client.HTTPConnection(self.host, timeout=60)
        return self

    def ask(self, verb: str, path: str, body: Any = None, kind: str = "application/json") -> tuple[int, Any]:
        data = body if isinstance(body, bytes) else json.dumps(body).encode() if body is not None else None
        headers = {
            "Content-Type": kind, "X-CSRFToken": self.token, "Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items()),
        }  # fmt: skip
        self.connection.request(verb, f"/api{path}", data, headers)
        answer = self.connection.getresponse()
        content = answer.read()
        for name, value in answer.getheaders():
            if name.lower() == "set-cookie":
                key, _, rest = value.partition("=")
                self.cookies[key] = rest.partition(";")[0]
        return answer.status, json.loads(content) if content else None

    def put(self, job: dict[str, Any], path: str, value: Any) -> tuple[int, Any]:
        """An edit of a job as held; what it holds then is brought up to date."""
        body = {
            "edits": [{"verb": "put", "path": path, "value": value}], "seen": job["moves"], "revision": job["revision"],
            "since": job["revision"],
        }  # fmt: skip
        status, said = self.ask("POST", f"/designs/{job['id']}/edits", body)
        if status == 200:
            job.update({key: said.get("plain", said)[key] for key in ("moves", "revision")})
        return status, said

    def check(self, name: str, data: bytes) -> tuple[int, Any]:
        edge = b"----edge"
        body = (
            b"--" + edge + b'\r\nContent-Disposition: form-data; name="file"; filename="' + name.encode()
            + b'"\r\nContent-Type: application/octet-stream\r\n\r\n' + data + b"\r\n--" + edge + b"--\r\n"
        )  # fmt: skip
        return self.ask("POST", "/check", body, f"multipart/form-data; boundary={edge.decode()}")

    def followed(self, task: dict[str, Any], seconds: float = 60.0) -> dict[str, Any]:
        """The task once it has ended."""
        until = time.monotonic() + seconds
        while task["state"] in ("waiting", "running"):
            assert time.monotonic() < until, f"task {task['id']} is still {task['state']}"
            time.sleep(0.1)
            task = self.ask("GET", f"/tasks/{task['id']}")[1]
        return task
