"""Edits of all verbs at random, on a job of any recipe: what soaks and laws start from."""

from __future__ import annotations

import random
from typing import Any

from conftest import make_basis
from lean_notch.basis import Basis
from lean_notch.documents import codec
from lean_notch.edits import Edit, edit_job
from lean_notch.edits.tree import keys_of, leaves
from lean_notch.ground.errors import NotchError
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import Job, Result, compute, job_from_json, job_to_json
from lean_notch.lengths.length import Amount, Length
from lean_notch.proof import Proof
from lean_notch.recipes import RECIPES

LISTS = ("parts", "placements", "joints", "dimensions", "boards")


def job_of(recipe: str) -> Job:
    design = RECIPES[recipe].design(RECIPES[recipe].title, {})
    one = make_basis(sheet=(1200, 1200)).of("main")
    return Job(design, Basis(tuple((board.id, one) for board in design.boards)))


def random_edit(job: Job, rng: random.Random) -> Edit:
    """Sensible more often than not; what cannot be made is refused where it is tried."""
    design = job.design
    kind = rng.choice(
        (
            "field",
            "field",
            "field",
            "answer",
            "basis",
            "layout",
            "step",
            "step",
            "drop",
            "move",
            "rename",
            "switch",
            "board",
            "sets",
        )
    )
    boards = keys_of(design.boards)
    steps = [(part.id, step.id) for part in design.parts for step in part.steps]
    some = [(head, key) for head in LISTS for key in keys_of(getattr(design, head))]
    if kind == "answer" and design.origin:
        name = rng.choice([one.name for one in RECIPES[design.origin.recipe].settings])
        return Edit("put", f"answers/{name}", rng.choice(("", "40", "90", "133", "2", "dogbone", "width/3", "inside")))
    if kind == "basis":
        board = rng.choice(boards)
        value: Any
        name, value = rng.choice((
            ("kerf", rng.choice(("0.1", "0.2"))), ("readings", rng.choice((["3.1"], ["3", "3.05"]))),
            ("clearance", rng.choice(("0", "0.05", "0.3"))), (f"into/{rng.choice(boards)}", rng.choice(("0.02", "0.1"))),
        ))  # fmt: skip
        return Edit("put", f"basis/{board}/{name}", value)
    if kind == "layout":
        name, value = rng.choice(
            (("margin", "6"), ("spacing", rng.choice(("2", "4"))), ("quarter_turns", rng.random() < 0.5))
        )
        return Edit("put", f"layout/{rng.choice(boards)}/{name}", value)
    if kind == "sets":
        return Edit("put", "sets", rng.randint(1, 3))
    if kind == "step" and design.parts:
        part = rng.choice(design.parts)
        does, operation = rng.choice(
            (("cut", "engrave"), ("mark", "engrave"), ("mark", "score"), ("mark", "pocket"), ("add", "engrave"))
        )
        shape = rng.choice(
            (
                {"kind": "disc", "diameter": rng.choice(("3", "5", "8"))},
                {"kind": "rectangle", "width": "6", "height": "4"},
            )
        )
        step = {
            "kind": "shape", "does": does, "operation": operation, "shape": shape, "x": str(rng.randint(5, 60)), "y": str(rng.randint(5, 40)),
            "depth": "1", "turn": rng.choice(("0", "30")), "face": rng.choice(("front", "back")),
        }  # fmt: skip
        return Edit("put", f"parts/{part.id}/steps/s{rng.randint(1, 4)}", step)
    if kind == "board":
        name = rng.choice(("lid", "floor"))
        return rng.choice((
            Edit("put", f"boards/{name}", {"title": name.title()}), Edit("drop", f"boards/{name}"),
            Edit("put", f"parts/{rng.choice(keys_of(design.parts) or ('none',))}/board", rng.choice(boards)),
        ))  # fmt: skip
    if kind == "switch" and steps:
        part, step = rng.choice(steps)
        return Edit("switch", f"parts/{part}/steps/{step}", rng.random() < 0.5)
    if kind in ("drop", "move", "rename") and some:
        head, key = rng.choice(some)
        path = f"{head}/{key}"
        if steps and rng.random() < 0.5:
            part, step = rng.choice(steps)
            path = f"parts/{part}/steps/{step}"
        if kind == "rename":
            return Edit("rename", path, to=rng.choice(("left", "hole", "eye", "top", "n1")))
        return Edit(kind, path, after="" if kind == "move" else None)  # type: ignore[arg-type]
    return _field(job, rng)


def _field(job: Job, rng: random.Random) -> Edit:
    fields = [
        (path, leaf) for path, leaf in leaves(job.design) if not path.endswith(("#order", "/kind", "id", "origin"))
    ]
    path, leaf = rng.choice(fields)
    if isinstance(leaf, Length):
        changed: Any = {"text": f"({leaf.text or 5})*{rng.choice(('1.01', '0.97', '1'))}", "unit": leaf.unit}
    elif isinstance(leaf, Amount):
        changed = f"({leaf.text})*1.01"
    elif isinstance(leaf, bool):
        changed = not leaf
    elif isinstance(leaf, int):
        changed = max(0, leaf + rng.choice((-1, 1)))
    else:
        changed = codec.write(leaf) if leaf is not None else None
    return Edit("put", path, changed)


def tried(job: Job, edit: Edit) -> Job | None:
    try:
        return edit_job(job, [edit])
    except NotchError:
        return None


def told(job: Job, *, proved: bool = False) -> object:
    """All that is computed of a job, to be compared; of one that cannot be, why."""
    try:
        result = compute(job)
        plan = result.plan
    except NotchError as error:
        return (error.code, error.why, error.field)
    return (
        _parts(result),
        _mates(result),
        result.layout,
        plan,
        result.build.findings,
        result.limits,
        _proof(prove_job(result)) if proved else (),
    )


def _parts(result: Result) -> object:
    return [
        (p.id, p.title, p.board, p.region, p.quantity, p.thickness, p.marks, p.openings, p.edges, p.corners, p.notes, p.failed and str(p.failed.error))
        for p in result.build.parts
    ]  # fmt: skip


def _mates(result: Result) -> object:
    return [
        (m.id, m.about, m.contacts, m.figures, m.findings, m.pushes, [c.sharp for c in m.members], m.members)
        for m in result.build.mates
    ]


def _proof(proof: Proof) -> object:
    return (proof.verdict, proof.parts, proof.mates, proof.findings, proof.tested)


def read_again(job: Job) -> Job:
    return job_from_json(job_to_json(job))
