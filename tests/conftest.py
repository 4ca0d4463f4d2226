"""Shared by all tests: the tray of the demo and its basis."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import replace
from typing import Any

import pytest
from edit_paths import path_of
from hypothesis import HealthCheck, settings
from lean_notch.basis import Basis, Board, BoardBasis, Machine, Readings
from lean_notch.basis.machine import KerfFound
from lean_notch.design.migrate import mark_steps
from lean_notch.edits import Edit, edit_job
from lean_notch.hand_over.files import FileFormat, OutFile
from lean_notch.hand_over.proving import prove_files
from lean_notch.job import ChosenLayout, Job, Result
from lean_notch.lengths.units import Unit
from lean_notch.proof import Proof
from lean_notch.recipes import RECIPES

pytest_plugins = ["browser_fixtures"]

# Two shared cores: a slow example says nothing about the law.
settings.register_profile("calm", deadline=None, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("calm")

POPLAR = (3.02, 3.05, 3.06, 3.07, 3.10)


def make_board(
    readings: tuple[float, ...] = POPLAR,
    kerf: float = 0.14,
    clearance: float = 0.02,
    sheet: tuple[float, float] = (600, 400),
    sheets: int | None = None,
    *,
    typed_kerf: bool = False,
) -> BoardBasis:
    """A board whose kerf was measured on it, exactly, unless it was typed in."""
    board = Board("Poplar ply", "plywood", 3, Readings(readings), *sheet, sheets)
    found = None if typed_kerf else KerfFound("slats", board.name, board.readings.mean, "2026-03-01", 0.0)
    return BoardBasis(board, Machine("Shed laser", "laser", *sheet, kerf, found=found), clearance)


def one_board(board: BoardBasis) -> Basis:
    return Basis((("main", board),))


def make_basis(*args: Any, **values: Any) -> Basis:
    """The basis of a job of one board."""
    return one_board(make_board(*args, **values))


def with_board(basis: Basis, **values: Any) -> Basis:
    """The basis with other values of its one board."""
    return basis.with_board("main", replace(basis.of("main"), **values))


def edited(job: Job, *edits: Edit, unit: Unit = "mm", **values: object) -> Job:
    """The job with edits; `values` are of the recipe's answers, of the board's basis or layout, by their plain names."""
    named = [Edit("put", path_of(name), value) for name, value in values.items()]
    return edit_job(job, (*named, *edits), unit)


def drawn(job: Job, *steps: dict[str, Any], part: str = "front", unit: Unit = "mm") -> Job:
    """The job with steps put at the end of a part's."""
    return edit_job(job, [Edit("put", f"parts/{part}/steps/{step['id']}", step) for step in steps], unit)


def make_job(
    basis: Basis | None = None, layout: ChosenLayout | None = None, name: str = "Vial carrier", **settings: str
) -> Job:
    layouts = (("main", layout or ChosenLayout()),)
    return Job(RECIPES["open-tray"].design(name, settings), basis or make_basis(), layouts)


def with_marks(job: Job, *marks: dict[str, Any], part: str = "front", unit: Unit = "mm") -> Job:
    """The job with marks as version 1 wrote them: the shortest way to say what is drawn."""
    taken = {step.id for step in job.design.part(part).steps}
    return drawn(job, *mark_steps(list(marks), taken), part=part, unit=unit)


def prove_sheets(result: Result, sheets: Mapping[int, bytes], file_format: FileFormat = "svg") -> Proof:
    """The proof of the fronts of sheets, a file each."""
    files = [OutFile(f"sheet-{sheet}", sheet, data) for sheet, data in sheets.items()]
    return prove_files(result, files, file_format).proof


@pytest.fixture
def job() -> Job:
    return make_job()


@pytest.fixture
def tray() -> Callable[..., Job]:
    """A tray with settings of one's own."""
    return make_job


@pytest.fixture
def basis() -> Callable[..., Basis]:
    return make_basis
