"""A fixed piece of work of about 50 ms in numpy and the geometry library: how fast this machine is just now.

A figure is worth something only beside it: shared machines vary by a factor of two from minute to minute.
"""

from __future__ import annotations

import time

import numpy as np
import shapely

SPREAD = 0.2
"""A figure whose calibrations before and after differ by more than this share is thrown away."""


def calibrate() -> float:
    """Seconds of processor time for the fixed work, the least of three runs."""
    return min(_once() for _ in range(3))


def _once() -> float:
    begin = time.process_time()
    grid = np.random.default_rng(7).random((300, 300))
    for _ in range(3):
        grid = grid @ grid
        grid /= np.abs(grid).max()
    points = np.random.default_rng(11).random((160, 2)) * 100
    discs = shapely.buffer(shapely.points(points), 4.0, quad_segs=12)
    whole = shapely.union_all(discs)
    assert shapely.area(whole) > 0
    return time.process_time() - begin


def steady(before: float, after: float) -> bool:
    return abs(before - after) <= SPREAD * min(before, after)


if __name__ == "__main__":
    print(f"{1000 * calibrate():.1f} ms")
