"""Sheets of discs with holes: paths to be put in order."""

from __future__ import annotations

import math
import random

from lean_notch.cutting.order import Stretch, innermost_first

HOME = (0.0, 0.0)


def discs(count: int, holes: int, side: float, seed: int = 1):
    """Discs in rows with holes in each: their paths, and which waits for which, as a sheet has them."""
    some = random.Random(seed)
    columns = math.ceil(math.sqrt(count))
    stretches, boxes = [], []
    for k in range(count):
        x, y = (k % columns + 0.5) * side / columns, (k // columns + 0.5) * side / columns
        r = 0.4 * side / columns
        for h in range(holes + 1):
            if h < holes:
                turn, out = some.uniform(0, 7), some.uniform(0, 0.7) * r
                a, b, size = x + out * math.cos(turn), y + out * math.sin(turn), 0.1 * r
            else:
                a, b, size = x, y, r
            stretches.append(Stretch(((a + size, b), (a, b + size), (a - size, b), (a, b - size))))
            boxes.append((a - size, b - size, a + size, b + size))
    return stretches, innermost_first(boxes)
