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
from lean_notch.ground.errors import NotchError
from lean_notch.hand_over.proving import prove_job
from lean_notch.proof.interference import interference
from lean_notch.recipes import RECIPES
from right_jobs import JOINED, answers
from solids import common, flat, solids

CASES = int(os.environ.get("CASES", "25"))
STATE = Path(os.environ["STATE"]) if "STATE" in os.environ else None
MOST_MM3 = 1e-3


def done() -> set[str]:
    return set(STATE.read_text().split()) if STATE and STATE.exists() else set()


def note(key: str, how: str) -> None:
    if STATE:
        with STATE.open("a") as file:
            file.write(f"{key} {how}\n")


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
