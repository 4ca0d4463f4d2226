"""Writes `tests/files/prints.json`: the prints of all files of the demo's jobs and of one job a recipe; and, of a recipe
that is new, what it gives."""

from __future__ import annotations

import os
import sys
import tempfile
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent


def main() -> None:
    sys.path[:0] = [str(ROOT / "tests"), str(ROOT / "server")]
    with tempfile.TemporaryDirectory() as folder:
        os.environ |= {"LEAN_NOTCH_DATA": folder, "DJANGO_SETTINGS_MODULE": "config.settings"}
        import django

        django.setup()
        from designs.models import Design
        from django.core.management import call_command
        from prints import keep, keep_new_designs, prints_of, recipe_jobs

        call_command("migrate", verbosity=0)
        call_command("seed_demo")
        jobs = [(f"demo, {one.name}", one.head.job) for one in Design.objects.order_by("id") if one.head]
        keep_new_designs()
        keep({name: prints_of(job) for name, job in [*jobs, *recipe_jobs()]})


if __name__ == "__main__":
    main()
