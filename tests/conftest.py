"""Shared by all tests: the tray of the demo and its basis."""

from __future__ import annotations

from collections.abc import Callable

import pytest
from hypothesis import HealthCheck, settings
from lean_notch.basis import Basis, Machine, Readings, Stock
from lean_notch.job import Job
from lean_notch.nesting import LayoutSettings
from lean_notch.recipes import RECIPES

pytest_plugins = ["browser_fixtures"]

# Two shared cores: a slow example says nothing about the law.
settings.register_profile("calm", deadline=None, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("calm")

POPLAR = (3.02, 3.05, 3.06, 3.07, 3.10)


def make_basis(
    readings: tuple[float, ...] = POPLAR,
    kerf: float = 0.14,
    clearance: float = 0.02,
    sheet: tuple[float, float] = (600, 400),
    sheets: int | None = None,
) -> Basis:
    return Basis(
        Stock("Poplar ply", "plywood", 3, Readings(readings), *sheet, sheets),
        Machine("Shed laser", "laser", *sheet, kerf),
        clearance,
    )


def make_job(
    basis: Basis | None = None, layout: LayoutSettings | None = None, name: str = "Vial carrier", **settings: str
) -> Job:
    return Job(RECIPES["open-tray"].design(name, settings), basis or make_basis(), layout or LayoutSettings())


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
