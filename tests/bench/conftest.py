"""Every figure stands between two calibrations, and is given as a multiple of them too."""

from __future__ import annotations

import json
import subprocess
import sys
from collections.abc import Iterator
from typing import Any

import pytest
from bench.calibrate import calibrate, steady
from large_jobs import forty_parts
from lean_notch.job import job_to_json
from running_app import ROOT


@pytest.fixture(autouse=True)
def calibrated(benchmark: Any) -> Iterator[None]:
    before = calibrate()
    yield
    after = calibrate()
    if benchmark.stats is None:
        return
    median, unit = benchmark.stats.stats.median, (before + after) / 2
    kept = steady(before, after)
    benchmark.extra_info |= {"calibration_ms": round(1000 * unit, 1), "multiple": round(median / unit, 2), "kept": kept}
    said = f"{median / unit:.2f} calibrations of {1000 * unit:.0f} ms" if kept else (
        f"thrown away: the calibrations took {1000 * before:.0f} and {1000 * after:.0f} ms"
    )  # fmt: skip
    print(f"\n{benchmark.name}: {1000 * median:.1f} ms of processor time, {said}")


INSERT = """
import json
from django.contrib.auth.models import User
from designs.models import Design, Revision
document = json.load(open(FILE))
design = Design.objects.create(owner=User.objects.get(username="Wren"), name="Forty parts")
design.head = Revision.objects.create(design=design, number=1, document=document)
design.save()
print(design.id)
"""


@pytest.fixture
def forty(app, page, tmp_path):
    """The page at a job of forty kinds of parts, proved once."""
    file = tmp_path / "job.json"
    file.write_text(json.dumps(job_to_json(forty_parts())))
    code = INSERT.replace("FILE", repr(str(file)))
    shell = [sys.executable, str(ROOT / "server" / "manage.py"), "shell", "-v0", "-c", code]
    design = subprocess.run(shell, env=app.environment, check=True, capture_output=True, text=True).stdout.split()[-1]

    def opened(stop: str):
        page.goto(f"{app.address}/jobs/{design}/{stop}")
        page.get_by_text("40 parts, 40 kinds").wait_for()
        page.get_by_text("fits, as planned").first.wait_for()
        return page

    return opened
