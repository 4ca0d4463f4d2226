"""Jobs as makers would start them, at random: every recipe, boards of 1.5 to 18 mm, a laser or a router's tools of 2 to 8 mm."""

from __future__ import annotations

import random
from collections import Counter
from dataclasses import replace
from typing import Literal

from conftest import make_basis
from lean_notch.basis import Basis
from lean_notch.ground.errors import NotchError
from lean_notch.hand_over.files import write_files
from lean_notch.hand_over.proving import prove_files
from lean_notch.job import Job, Result, compute
from lean_notch.recipes import RECIPES

JOINED = ("open-tray", "case", "divided-case", "divider-set", "rack", "framed-stand", "crossed-figure")
FORMATS = ("svg", "dxf", "pdf")
Ended = Literal["refused", "told nothing to do", "told", "fits"]


def tracks(chance: random.Random, most: int) -> str:
    words = [chance.choice(["1fr", "2fr", f"{chance.uniform(18, 50):.1f}"]) for _ in range(chance.randint(1, most))]
    return " ".join(words if "fr" in " ".join(words) else [*words, "1fr"])


def answers(name: str, chance: random.Random) -> dict[str, str]:
    def mm(low: float, high: float) -> str:
        return f"{chance.uniform(low, high):.2f}"

    if name == "crossed-figure":
        figure = chance.choice(["reed", "tree", "drop", "dragonfly"])
        height = mm(34, 60) if figure == "dragonfly" else mm(90, 260)
        return {"figure": figure, "width": mm(110, 260), "height": height, "span": mm(110, 260)}
    if name == "tag":
        return {"width": mm(80, 120), "height": mm(30, 50), "hole": mm(3, 6), "text": chance.choice(["Sedge", "Newt"])}
    if name == "panel":
        return {"width": mm(260, 400), "height": mm(130, 200), "rounds": str(chance.randint(1, 4)), "text": "WREN"}
    if name == "angle-gauge":
        return {"width": mm(120, 150), "height": mm(22, 26), "hole": mm(4, 6), "rule_width": mm(12, 14)}
    if name == "rack":
        return {
            "width": mm(300, 800), "depth": mm(160, 300), "height": mm(150, 300), "rail": mm(60, 140), "overhang": mm(20, 40),
            "uprights": str(chance.randint(1, 6)), "rails": str(chance.randint(1, 3)), "share": f"{chance.uniform(0.2, 0.8):.2f}",
        }  # fmt: skip
    if name == "framed-stand":
        return {
            "width": mm(60, 200), "depth": mm(70, 160), "height": mm(70, 120), "insert": mm(30, 45), "inserts": str(chance.randint(1, 4)),
            "held": chance.choice(["glued", "loose"]), "radius": chance.choice(["", "6"]),
        }  # fmt: skip
    sizes = {"width": mm(150, 420), "depth": mm(110, 300), "height": mm(40, 120)}
    if name == "divider-set":
        return {**sizes, "columns": tracks(chance, 5), "rows": tracks(chance, 4)}
    sizes["sizes"] = chance.choice(["inside", "outside"])
    if name == "divided-case":
        base = chance.choice(["a base", "no base"])
        return {
            **sizes,
            "columns": tracks(chance, 5),
            "rows": tracks(chance, 4),
            "base": base,
            "lower": chance.choice(["", "5"]),
        }
    if name == "case":
        lid = chance.choice(["open at the top", "closed all round", "a lid that lifts off"])
        feet = chance.choice(["", "18"])
        return {**sizes, "lid": lid, "feet": feet, "hand_hole": chance.choice(["", "50"])}
    return sizes


def random_job(seed: int) -> Job:
    """Raises NotchError for sizes that cannot be."""
    chance = random.Random(f"right/{seed}")
    name = chance.choice(list(RECIPES))
    given = answers(name, chance) if name in JOINED else {}
    thick = round(chance.uniform(1.5, 18.0), 2)
    routed = thick > 3 and chance.random() < 0.5
    kerf = chance.choice([2.0, 3.0, 3.175, 4.0, 6.0, 8.0]) if routed else chance.choice([0.08, 0.14, 0.2, 0.3])
    clearance = chance.choice([0.0, 0.02, 0.1, 0.2])
    readings = (thick - 0.02, thick, thick + 0.02)
    board = make_basis(readings=readings, kerf=kerf, clearance=clearance, sheet=(2500, 2500)).of("main")
    board = replace(board, stock=replace(board.stock, nominal=round(thick), kind=chance.choice(["plywood", "MDF"])))
    if routed:
        board = replace(board, machine=replace(board.machine, kind="router"))
    design = RECIPES[name].design(name, given)
    return Job(design, Basis(tuple((one.id, board) for one in design.boards)))


def known_stops(result: Result) -> set[str]:
    """What the design says of itself, before anything is written."""
    found = (*result.build.findings, *result.limits, *result.plan.findings)
    return {one.code for one in found if one.severity == "stop"}


def ended(seed: int) -> Ended:
    """How a random job ends: refused at a field with what would do, told to stop before it is written, or written and found to fit.
    Raises AssertionError for one that is stopped only by its file."""
    try:
        result = compute(random_job(seed))
    except NotchError as error:
        return "refused" if error.fix else "told nothing to do"
    known, file_format = known_stops(result), FORMATS[seed % len(FORMATS)]
    proof = prove_files(result, write_files(result, file_format), file_format)
    late = [one.why for one in proof.proof.findings if one.severity == "stop" and one.code not in known]
    assert not late, (seed, result.job.design.name, late)
    return "told" if known else "fits"


def count(seeds: range) -> Counter[Ended]:
    return Counter(ended(seed) for seed in seeds)
