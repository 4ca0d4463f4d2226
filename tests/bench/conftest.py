"""Every figure stands between two calibrations, and is given as a multiple of them too."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import pytest
from bench.calibrate import calibrate, steady


@pytest.fixture(autouse=True)
def calibrated(benchmark: Any) -> Iterator[None]:
    before = calibrate()
    yield
    after = calibrate()
    if benchmark.stats is None:
        return
    median, unit = benchmark.stats.stats.median, (before + after) / 2
    kept = steady(before, after)
    benchmark.extra_info |= {"calibration_ms": round(1000 * unit, 1), "multiple": round(median / unit, 2), "kept": kept}
    said = f"{median / unit:.2f} calibrations of {1000 * unit:.0f} ms" if kept else (
        f"thrown away: the calibrations took {1000 * before:.0f} and {1000 * after:.0f} ms"
    )  # fmt: skip
    print(f"\n{benchmark.name}: {1000 * median:.1f} ms of processor time, {said}")
