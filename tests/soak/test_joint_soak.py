"""Every recipe of joined parts at random sizes, boards, kerfs and fits: `make soak`, CASES=n for more. Not part of `make test`.

Every mate passes the proof with a basis whose board is as thin, as the mean and as thick as its readings; solids of the nominal
parts do not interfere by more than the press fit asked for, by a solid-boolean library. Seeds are printed; what was done is
skipped when STATE=file names a file to go on from.
"""

from __future__ import annotations

import os
import random
from pathlib import Path

import pytest
from conftest import make_basis
from joined import made
from lean_notch.errors import NotchError
from lean_notch.proof.interference import interference
from lean_notch.proving import prove_job
from lean_notch.recipes import RECIPES
from solids import common, flat, solids

CASES = int(os.environ.get("CASES", "25"))
STATE = Path(os.environ["STATE"]) if "STATE" in os.environ else None
JOINED = ("open-tray", "case", "divided-case", "divider-set", "rack", "framed-stand", "crossed-figure")
MOST_MM3 = 1e-3


def done() -> set[str]:
    return set(STATE.read_text().split()) if STATE and STATE.exists() else set()


def note(key: str, how: str) -> None:
    if STATE:
        with STATE.open("a") as file:
            file.write(f"{key} {how}\n")


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


@pytest.mark.parametrize("name", JOINED)
@pytest.mark.parametrize("seed", range(CASES))
def test_every_mate_fits_and_nothing_interferes(name, seed):
    key = f"{name}/{seed}"
    if key in done():
        pytest.skip("done before")
    assert name in RECIPES
    chance = random.Random(key)
    mean = chance.uniform(1.5, 4.5)
    spread = chance.uniform(0.0, 0.04)
    kerf = chance.choice([0.05, 0.1, 0.14, 0.2])
    clearance = chance.choice([-0.02, 0.0, 0.02, 0.1, 0.2])
    given = answers(name, chance)
    print(key, given, mean, spread, kerf, clearance)
    readings = (mean - spread, mean, mean + spread)
    refused = None
    try:
        result = made(name, given, make_basis(readings=readings, kerf=kerf, clearance=clearance, sheet=(2500, 2500)))
    except NotchError as error:
        refused = error
    if refused:  # a size that cannot be is said with its mend
        assert refused.fix
        note(key, "refused")
        return
    assert not result.build.lost, result.build.lost
    proof = prove_job(result)
    assert all(mate.ok for mate in proof.mates), [mate for mate in proof.mates if not mate.ok]
    assert "doubled" not in {one.code for one in proof.findings if one.severity == "stop"}
    assert interference(result.build, result.job.basis).findings == ()
    for board in readings:  # boards that are as thin, as usual and as thick throughout
        exact = made(name, given, make_basis(readings=(board,), kerf=0.0, clearance=0.0, sheet=(2500, 2500)))
        shapes = {part.id: flat(part.region) for part in exact.build.parts}
        shared = common(solids(exact.build, shapes))
        assert max(shared.values(), default=0.0) < MOST_MM3 + 1e-6 * len(shared), max(
            shared, key=lambda pair: shared[pair]
        )
    note(key, "fits")
