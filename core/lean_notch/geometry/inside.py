"""Which places lie inside a shape that several threads may be asking about."""

from __future__ import annotations

from typing import TYPE_CHECKING

import numpy as np

from .segments import Flags, Floats

if TYPE_CHECKING:
    import shapely


def inside(shape: shapely.Geometry, places: Floats) -> Flags:
    """Of `places` (n, 2), those inside `shape`. A copy is asked: the question prepares what it is asked of, and a prepared shape
    must not be shared (two threads that ask the same one end the process).

    >>> import shapely
    >>> inside(shapely.box(0, 0, 2, 2), np.array([(1.0, 1.0), (3.0, 1.0)])).tolist()
    [True, False]
    """
    import shapely

    own = shapely.transform(shape, lambda places: places)
    return np.asarray(shapely.contains_xy(own, *np.asarray(places).T))
