"""The units that lengths are typed in, and how many millimetres each has."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

Unit = Literal["mm", "in"]

MM_PER_INCH = 25.4
"""Exact. International yard and pound agreement, 1959."""

MM_PER_PX = MM_PER_INCH / 96
MM_PER_PT = MM_PER_INCH / 72
"""W3C CSS Values and Units 3, absolute lengths: 1 in = 96 px = 72 pt."""

MM_PER_UNIT: Mapping[str, float] = {
    "mm": 1.0,
    "cm": 10.0,
    "m": 1000.0,
    "in": MM_PER_INCH,
    "inch": MM_PER_INCH,
    "inches": MM_PER_INCH,
    '"': MM_PER_INCH,
    "″": MM_PER_INCH,
    "ft": 12 * MM_PER_INCH,
    "thou": MM_PER_INCH / 1000,
}
