"""The soak that changes the heart: each change is one, and what did not fail a test is not taken for noticed."""

from __future__ import annotations

import ast
import subprocess

import mutants
import pytest


def test_every_change_reads_and_means_something_else():
    for change in mutants.drawn(1, 400):
        source = (mutants.ROOT / "core/lean_notch" / change.module).read_bytes()
        changed = source[: change.start] + change.new.encode() + source[change.end :]
        assert ast.dump(ast.parse(changed)) != ast.dump(ast.parse(source)), change.name


def test_all_that_a_review_found_is_still_there_to_be_changed():
    assert len(mutants.listed()) == 12


@pytest.mark.parametrize(("code", "said", "noticed"), [
    (1, "FAILED tests/heart/test_a.py::test_b", True), (2, "ERROR tests/heart/test_a.py", True), (0, "3 passed", False), (-9, "", False),
])  # fmt: skip
def test_only_a_test_that_fails_notices(tmp_path, monkeypatch, code, said, noticed):
    (tmp_path / "core/lean_notch/proof").mkdir(parents=True)
    (tmp_path / "core/lean_notch/proof/a.py").write_text("x = 1")
    monkeypatch.setattr(mutants.subprocess, "run", lambda *_, **__: subprocess.CompletedProcess([], code, said, ""))
    change = mutants.Change("proof/a.py", 4, 5, "1", "2", 1, "x = 1")
    assert bool(mutants.noticed(tmp_path, change)) == noticed
    assert (tmp_path / "core/lean_notch/proof/a.py").read_text() == "x = 1"


def test_what_takes_too_long_is_not_taken_for_noticed(tmp_path, monkeypatch):
    (tmp_path / "core/lean_notch").mkdir(parents=True)
    (tmp_path / "core/lean_notch/a.py").write_text("x = 1")

    def slow(*_, **__):
        raise subprocess.TimeoutExpired("pytest", 900)

    monkeypatch.setattr(mutants.subprocess, "run", slow)
    assert mutants.noticed(tmp_path, mutants.Change("a.py", 4, 5, "1", "2", 1, "x = 1")) == ""
