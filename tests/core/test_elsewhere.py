"""A job worked out in another process and handed over is the job worked out here."""

from __future__ import annotations

import pickle

import pytest
from conftest import make_job
from designs import carried
from ground.memory import forget
from lean_notch.ground.elsewhere import TooLongHere, about_to_take, keeping, taking, within
from lean_notch.job import compute, job_from_json, job_to_json
from plates import disc, plate
from right_jobs import random_job


@pytest.mark.parametrize("seed", [seed for seed in range(0, 40, 3) if seed not in (30, 36)])  # those boards cannot be
def test_what_is_handed_over_gives_the_same_job(seed, monkeypatch):
    job = random_job(seed)
    with keeping() as found:
        there = compute(job)
    forget()
    written = carried.written(found)
    again = job_from_json(job_to_json(job))
    with taking(carried.read(written)), monkeypatch.context() as alone:
        for place in ("finished.make_part", "before_joints._outline"):  # nothing of it is made anew
            alone.setattr(f"lean_notch.making.{place}", None)
        alone.setattr("lean_notch.job.job.lay_out", None)
        here = compute(again)
    assert here.build == there.build
    assert here.layout == there.layout
    assert here.plan == there.plan


def test_a_part_that_got_stuck_and_one_that_lies_on_no_sheet_are_handed_over_too():
    job = plate(
        disc("hole", "0 mm", x=50, y=30),
        blank={
            "kind": "shape",
            "id": "blank",
            "does": "add",
            "shape": {"kind": "rectangle", "width": 900, "height": 60},
        },
    )
    with keeping() as found:
        there = compute(job)
    assert there.build.parts[0].failed
    assert there.layout.left
    forget()
    with taking(carried.read(carried.written(found))):
        here = compute(job)
    assert [one.error.as_json() for one in here.layout.left] == [one.error.as_json() for one in there.layout.left]
    assert here.build.parts[0].failed.error.as_json() == there.build.parts[0].failed.error.as_json()


class Evil:
    def __reduce__(self):
        return (print, ("read",))


@pytest.mark.parametrize("bad", [Evil(), forget, pickle.Pickler, compute])
def test_nothing_but_the_cores_values_is_read(bad, capsys):
    with pytest.raises(pickle.UnpicklingError):
        carried.read(pickle.dumps({("part", "a"): bad}))
    assert capsys.readouterr().out == ""


def test_what_would_take_too_long_is_put_off_before_it_is_begun(monkeypatch):
    forget()
    sieve = plate(
        disc("sieve", 2, x=5, y=5, pattern={"kind": "grid", "columns": 150, "rows": 60, "dx": 3, "dy": 3}),
        blank={
            "kind": "shape",
            "id": "blank",
            "does": "add",
            "shape": {"kind": "rectangle", "width": 500, "height": 300},
        },
    )
    monkeypatch.setattr("lean_notch.ground.limits._SEGMENT_S", 1.0)
    with within(60), pytest.raises(TooLongHere):
        compute(sieve)
    assert compute(sieve).build.parts[0].failed is None  # nothing of it was kept half done
    with within(60):
        compute(make_job())
        about_to_take(1)
    about_to_take(1e9)


def test_an_inner_limit_never_outlives_the_one_around_it():
    with within(1), within(100), pytest.raises(TooLongHere):
        about_to_take(5)
