"""A plate of 100 x 60 with steps, as documents: what tests of steps, places and limits start from."""

from __future__ import annotations

from conftest import make_basis
from lean_notch.design import design_from_json
from lean_notch.job import Job
from lean_notch.making import build


def rectangle(step, width, height, does="add", **values):
    return {
        "kind": "shape",
        "id": step,
        "does": does,
        "shape": {"kind": "rectangle", "width": width, "height": height},
        **values,
    }


def disc(step, diameter, does="cut", **values):
    return {"kind": "shape", "id": step, "does": does, "shape": {"kind": "disc", "diameter": diameter}, **values}


def plate(*steps, blank=None, parts=(), dimensions=(), **basis):
    """A job with one loose part, 100 x 60 or as `blank` says, and more steps."""
    part = {"id": "plate", "title": "Plate", "loose": 1, "steps": [blank or rectangle("blank", 100, 60), *steps]}
    document = {"lean_notch_design": 2, "name": "Plate", "parts": [part, *parts], "dimensions": list(dimensions)}
    return Job(design_from_json(document), make_basis(**{"sheet": (600, 400), **basis}))


def made(*steps, **more):
    job = plate(*steps, **more)
    return build(job.design, job.basis).part("plate")
