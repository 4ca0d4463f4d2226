"""Jobs larger than the demo's, for benchmarks."""

from __future__ import annotations

from conftest import make_basis, make_job
from lean_notch.design import design_from_json, design_to_json
from lean_notch.job import Job


def forty_parts() -> Job:
    """Eight trays in one job, each of its own size: forty kinds of parts."""
    documents = [
        design_to_json(make_job(width=str(90 + 7 * i), depth=str(60 + 3 * i), height="40").design) for i in range(8)
    ]
    whole = {**documents[0], "recipe": "", "settings": {}, "dimensions": [], "parts": [], "joints": []}
    for i, document in enumerate(documents):
        named = {d["name"]: f"{d['name']}_{i}" for d in document["dimensions"]}

        def renamed(text: str, named: dict[str, str] = named) -> str:
            for name in sorted(named, key=len, reverse=True):
                text = text.replace(name, named[name].upper())
            return text.lower()

        for d in document["dimensions"]:
            whole["dimensions"].append({**d, "name": named[d["name"]], "length": renamed(d["length"])})
        for part in document["parts"]:
            panel = {key: renamed(value) for key, value in part["panel"].items()}
            pose = {**part["pose"], "origin": [renamed(value) for value in part["pose"]["origin"]]}
            whole["parts"].append({**part, "id": f"{part['id']}-{i}", "panel": panel, "pose": pose})
        for joint in document["joints"]:
            ends = {end: {**joint[end], "part": f"{joint[end]['part']}-{i}"} for end in ("first", "second")}
            whole["joints"].append({**joint, "id": f"{joint['id']}-{i}", **ends})
    return Job(design_from_json(whole), make_basis())
