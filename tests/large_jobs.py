"""Jobs larger than the demo's, for benchmarks."""

from __future__ import annotations

import re

from conftest import make_basis, make_job
from lean_notch.design import design_from_json, design_to_json
from lean_notch.job import ChosenLayout, Job


def forty_parts() -> Job:
    """Eight trays in one job, each of its own size: forty kinds of parts."""
    whole: dict = {
        "lean_notch_design": 2,
        "name": "Vial carrier",
        "parts": [],
        "placements": [],
        "joints": [],
        "dimensions": [],
    }
    for i in range(8):
        document = design_to_json(make_job(width=str(90 + 7 * i), depth=str(60 + 3 * i), height="40").design)
        names = "|".join(sorted((d["name"] for d in document["dimensions"]), key=len, reverse=True))

        def renamed(value, names=names, i=i):
            if isinstance(value, dict):
                return {key: renamed(one) for key, one in value.items()}
            if isinstance(value, list):
                return [renamed(one) for one in value]
            return re.sub(rf"\b({names})\b", rf"\1_{i}", value) if isinstance(value, str) else value

        whole["dimensions"] += [
            {**d, "name": renamed(d["name"]), "length": renamed(d["length"])} for d in document["dimensions"]
        ]
        for part in document["parts"]:
            whole["parts"].append({**part, "id": f"{part['id']}-{i}", "steps": renamed(part["steps"])})
        for one in document["placements"]:
            ids = {"id": f"{one['id']}-{i}", "part": f"{one['part']}-{i}"}
            stands = renamed(one)
            pose = stands.setdefault("pose", {"kind": "axes"})
            pose["x"] = f"{pose.get('x', '0')} + {i * 300}"  # side by side, not in each other
            whole["placements"].append({**stands, **ids})
        for joint in document["joints"]:
            ends = {end: {**joint[end], "placement": f"{joint[end]['placement']}-{i}"} for end in ("first", "second")}
            whole["joints"].append({**joint, "id": f"{joint['id']}-{i}", **ends})
    return Job(design_from_json(whole), make_basis(), (("main", ChosenLayout()),))
