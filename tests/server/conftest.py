"""Two makers, a board and a machine, and a client that is signed in."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from client import post
from designs.models import Design
from django.contrib.auth.models import User
from django.core.cache import cache
from django.test import Client, override_settings
from tasks import kinds
from tasks.actions import RUNNING
from tasks.pool import Pool
from tasks.worker import Worker
from workshop.actions import put_machine, put_stock
from workshop.models import Machine, Stock


@pytest.fixture(autouse=True)
def as_in_a_small_process(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> Iterator[None]:
    """Wrong passwords of one test are not another's; a password takes no second to check, as it does on purpose elsewhere; and what
    is remembered is not forgotten because all tests share a process."""
    cache.clear()
    monkeypatch.setattr("results.store._folder", lambda: tmp_path / "results")
    monkeypatch.setattr("config.requests.keep_within", lambda: False)
    with override_settings(PASSWORD_HASHERS=["django.contrib.auth.hashers.MD5PasswordHasher"]):
        yield


@pytest.fixture
def stock(db: None) -> Stock:
    return put_stock(
        {
            "name": "Poplar ply",
            "nominal": 3,
            "readings": [3.02, 3.05, 3.06, 3.07, 3.10],
            "sheet_width": 600,
            "sheet_height": 400,
        }
    )


@pytest.fixture
def machine(db: None) -> Machine:
    return put_machine({"name": "Shed laser", "bed_width": 600, "bed_height": 400, "kerf": 0.14})


@pytest.fixture
def sign_in(db: None) -> Callable[[str], Client]:
    def signed_in(name: str) -> Client:
        client = Client()
        client.force_login(User.objects.get_or_create(username=name)[0])
        return client

    return signed_in


@pytest.fixture
def wren(sign_in: Callable[[str], Client]) -> Client:
    return sign_in("Wren")


@pytest.fixture
def tray(wren: Client, stock: Stock, machine: Machine) -> dict[str, Any]:
    """A tray of Wren's, as the API gives it."""
    answer = post(wren, "/designs", {"name": "Tray", "recipe": "open-tray", "stock": stock.id, "machine": machine.id})
    assert answer.status_code == 201, answer.content
    assert Design.objects.count() == 1
    shown: dict[str, Any] = answer.json()
    return shown


@pytest.fixture
def known(settings, monkeypatch):
    monkeypatch.setenv("DJANGO_SETTINGS_MODULE", "task_settings")
    settings.TASK_KINDS = ["designs.heavy", "designs.together", "designs.tries", "bad_kinds"]
    kinds._read_all.cache_clear()


@pytest.fixture(scope="session")
def spare():
    """Children that are ready, from one test to the next: each takes a second to get so."""
    workers = []
    yield workers
    for worker in workers:
        worker.end()


@pytest.fixture
def pool(known, db, spare):
    """Its first children are begun by this thread: a child ends with the thread that began it."""
    spare += [Worker() for _ in range(2 - len(spare))]

    class Sparing(Pool):
        def _end_all(self):
            if self._stopping:
                kept = [worker for worker in self._workers if worker in spare and worker.free]
                self._workers = [worker for worker in self._workers if worker not in kept]
                spare[:] = kept
            super()._end_all()

    RUNNING.pool = Sparing(2)
    RUNNING.pool._workers += spare
    RUNNING.pool.start()
    yield RUNNING.pool
    RUNNING.pool.stop()
    RUNNING.pool = None
