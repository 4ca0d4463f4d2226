"""The demo's jobs, seeded as `make demo` does: their files are as they were."""

from __future__ import annotations

from designs.models import Design
from django.core.management import call_command
from prints import kept, prints_of


def test_every_file_of_the_demos_jobs_is_as_it_was(db):
    call_command("seed_demo")
    jobs = {f"demo, {one.name}": one.head.job for one in Design.objects.all()}
    kept_prints = kept()
    assert jobs.keys() == {name for name in kept_prints if name.startswith("demo, ")}
    for name, job in jobs.items():
        assert prints_of(job) == kept_prints[name], name
