"""What the server takes for a full home page, and for a job with a long history."""

from __future__ import annotations

import pytest
from client import edit, get
from conftest import make_job
from designs.models import Design, Revision
from designs.pictures import picture
from django.contrib.auth.models import User
from django.test import Client
from lean_notch.job import job_to_json

pytestmark = pytest.mark.django_db


@pytest.fixture
def wren():
    client = Client()
    client.force_login(User.objects.create(username="Wren"))
    return client


def keep(count, revisions):
    """So many trays, each with a history of that many revisions."""
    job, owner = make_job(), User.objects.get()
    document, shown = job_to_json(job), picture(job)
    for number in range(count):
        design = Design.objects.create(owner=owner, name=f"Tray {number}", moves=revisions)
        design.head = Revision.objects.bulk_create(
            Revision(design=design, number=at, document=document, sentence="Set width to 150 mm", picture=shown)
            for at in range(1, revisions + 1)
        )[-1]
        design.save()


def test_home_with_200_jobs_of_ten_revisions(benchmark, wren):
    """Asked for: under 200 ms."""
    keep(200, 10)
    assert len(benchmark(lambda: get(wren, "/designs").json())) == 200


def test_an_edit_after_2000_others(benchmark, wren):
    keep(1, 2000)
    design = get(wren, f"/designs/{Design.objects.get().id}").json()
    widths = iter(range(10_000))

    def change():
        nonlocal design
        design = edit(wren, design, width=str(100 + next(widths) / 100)).json()

    benchmark(change)
    assert design["revision"] > 2001


def test_a_history_of_2000(benchmark, wren):
    keep(1, 2000)
    job = Design.objects.get().id
    assert len(benchmark(lambda: get(wren, f"/designs/{job}/history").json())) > 0
