"""Times for ratios within one run, as free of chance as a shared machine allows."""

from __future__ import annotations

import gc
import time
from collections.abc import Callable


def least_seconds(work: Callable[[], object], runs: int = 3) -> float:
    """Processor time of `work`, the least of some runs after a first one that counts for nothing.

    The garbage collector waits: late in a long run one collection takes longer than the work itself.
    """
    work()
    gc.collect()
    gc.disable()
    try:
        return min(_once(work) for _ in range(runs))
    finally:
        gc.enable()


def _once(work: Callable[[], object]) -> float:
    begin = time.process_time()
    work()
    return time.process_time() - begin
