"""What docs/adding.md shows is done in a copy of the core, and works; what is half of it is named."""

import json
import re
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[2]
BLOCKS = dict(
    re.findall(r"^```python (\S+)\n(.*?)^```", (ROOT / "docs/adding.md").read_text(), re.DOTALL | re.MULTILINE)
)
STEP, STEPS = "core/lean_notch/steps/pilot.py", "core/lean_notch/steps/__init__.py"

TRIED = """
import json
from lean_notch.acts.beginning import begun
from lean_notch.design.sentence import plain, sentence
from lean_notch.edits import edit_job
from lean_notch.job import compute, job_from_json, job_to_json

job = job_from_json(json.loads(input()))
job = edit_job(job, begun(compute(job), "plate", "pilot"), "mm")
job = job_from_json(job_to_json(job))
[*_, step] = job.design.part("plate").steps
[hole] = compute(job).build.part("plate").region.holes
print(json.dumps([plain(sentence(step)), hole.box]))
"""


@pytest.fixture
def copy(tmp_path):
    shutil.copytree(
        ROOT / "core/lean_notch", tmp_path / "core/lean_notch", ignore=shutil.ignore_patterns("__pycache__")
    )
    return tmp_path


def add(copy, *, less=""):
    """The step of the docs, `less` a line of it."""
    (copy / STEP).write_text("".join(line for line in BLOCKS[STEP].splitlines(True) if not less or less not in line))
    listed = (copy / STEPS).read_text()
    imported, more = BLOCKS[STEPS].strip().split("\n\n")
    place = "\nif TYPE_CHECKING:\n    Step = "
    assert listed.count(place) == 1
    (copy / STEPS).write_text(listed.replace(place, f"\n{imported}\n{more}\n{place}"))


def run(copy, code, given=""):
    return subprocess.run(
        [sys.executable, "-c", code], cwd=copy, env={"PYTHONPATH": str(copy / "core")}, input=given, capture_output=True, text=True
    )  # fmt: skip


def test_a_kind_of_step(copy):
    """In a plate of 100 x 60 the hole of 3 mm is round (50, 30)."""
    from lean_notch.job import job_to_json
    from plates import plate

    add(copy)
    done = run(copy, TRIED, json.dumps(job_to_json(plate())))
    assert done.stderr == ""
    assert json.loads(done.stdout) == ["Cut a pilot hole Ø 3 mm in the middle", pytest.approx([48.5, 28.5, 51.5, 31.5])]


@pytest.mark.parametrize(
    ("less", "lacks"),
    [
        ("    redraws = False", "redraws"),
        ("    begins = ", "begins"),
        ("    on: On = True", "on"),
        ("    kind: ClassVar", "kind"),
    ],
)
def test_a_step_that_lacks_something_fails_where_it_is_defined(copy, less, lacks):
    add(copy, less=less)
    done = run(copy, "import lean_notch.steps")
    assert done.returncode == 1
    assert f"The step PilotStep lacks {lacks}." in done.stderr
