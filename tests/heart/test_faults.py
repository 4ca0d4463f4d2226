"""No wrong design and no spoiled file passes as "fits", and what is said of it names its place; no right one is stopped."""

from contextlib import suppress

import pytest
from conftest import prove_sheets
from faults import WrongDesign, right_job, wrong_designs
from lean_notch.ground.errors import NotchError, UnreadableFile
from lean_notch.hand_over.proving import prove_job
from lean_notch.job import compute
from lean_notch.proof import Proof
from spoiled import SpoiledFile, spoiled_files

DESIGNS = list(wrong_designs())
FILES = list(spoiled_files())


def beside(place, box):
    """How far a place is from a box, in any number of dimensions."""
    low, high = (box[0], box[1]) if len(box) == 2 else (box[:2], box[2:])
    return sum(max(a - x, 0.0, x - b) ** 2 for a, x, b in zip(low, place, high, strict=True)) ** 0.5


def proof_of_design(wrong: WrongDesign) -> Proof | None:
    """None for one that is refused before anything is cut."""
    with suppress(NotchError):
        return prove_job(compute(wrong.job))
    return None


def proof_of_files(spoiled: SpoiledFile) -> Proof | None:
    """None for files that cannot be read."""
    with suppress(UnreadableFile):
        return prove_sheets(spoiled.result, spoiled.files, spoiled.format)
    return None


def test_there_are_enough_of_them():
    assert len(DESIGNS) >= 60
    assert len(FILES) >= 60


@pytest.mark.rare
def test_no_more_of_them_than_are_known_make_nothing():
    assert sum(proof_of_design(one) is None for one in DESIGNS) <= 3
    assert [one.name for one in FILES if proof_of_files(one) is None] == ["unit: none"]


@pytest.mark.parametrize("seed", range(12))
def test_a_right_job_is_not_stopped(seed):
    proof = prove_job(compute(right_job(seed)), ("svg", "dxf", "dxf-r12")[seed % 3])
    assert proof.verdict == "fits", [one.why for one in proof.findings]


@pytest.mark.parametrize("wrong", DESIGNS, ids=lambda one: one.name)
def test_a_wrong_design_is_refused_at_its_place(wrong):
    proof = proof_of_design(wrong)
    if proof is None:
        return
    assert proof.verdict == "does-not-fit"
    stops = [one for one in proof.findings if one.severity == "stop"]
    assert all(one.why and one.fix for one in stops)
    if wrong.where:
        near = [one for one in stops if one.space and min(beside(one.space, box) for box in wrong.where) <= 1]
        assert near, [(one.code, one.space, one.why) for one in stops]


@pytest.mark.parametrize("spoiled", FILES, ids=lambda one: one.name)
def test_a_spoiled_file_is_refused_at_its_place(spoiled):
    proof = proof_of_files(spoiled)
    if proof is None:
        return
    assert proof.verdict != "fits"
    found = [one for one in proof.findings if one.severity in ("stop", "unseen")]
    assert all(one.why and one.fix for one in found)
    on_sheet = [one for one in found if one.sheet == spoiled.sheet]
    assert on_sheet, [(one.code, one.sheet) for one in found]
    if spoiled.where:
        near = [one for one in on_sheet if one.place and min(beside(one.place, box) for box in spoiled.where) <= 1]
        assert near, [(one.code, one.place, one.why) for one in on_sheet]
