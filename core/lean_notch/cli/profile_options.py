"""The hand-over profile that a command is given: a file, or options one by one."""

from __future__ import annotations

import argparse
from pathlib import Path

from .files import (
    put,
)


def add_profile_options(export: argparse.ArgumentParser) -> None:
    export.add_argument(
        "--profile", type=Path, metavar="FILE", help="a hand-over profile, as `lean-notch profile` writes"
    )
    export.add_argument("--split", choices=("sheet", "part", "operation"), help="one file for each (default: sheet)")
    export.add_argument("--unit", choices=("mm", "in"), help="unit of the file (default: mm)")
    export.add_argument(
        "--origin",
        metavar="CORNER",
        help="where coordinates are 0: plain, lower left, upper left, lower right, upper right or centre",
    )
    export.add_argument("--y-down", action="store_true", default=None, help="DXF: y grows downwards")
    export.add_argument("--stroke", dest="stroke_mm", metavar="LENGTH", help="width of the lines (default: 0.1)")
    export.add_argument("--engrave", choices=("outline", "filled", "hatch"), help="how engraved areas are drawn")
    export.add_argument("--hatch", dest="hatch_mm", metavar="LENGTH", help="distance of hatch lines (default: 0.2)")
    export.add_argument("--lead-in", dest="lead_in_mm", metavar="LENGTH", help="come in from the waste (default: 0)")
    export.add_argument("--labels", action="store_true", default=None, help="part names on a layer that is not cut")
    export.add_argument(
        "--reference-square", action="store_true", default=None, help="a 100 mm square on a layer that is not cut"
    )


PROFILE_OPTIONS = (
    "split", "unit", "origin", "y_down", "stroke_mm", "engrave", "hatch_mm", "lead_in_mm", "labels", "reference_square",
)  # fmt: skip


def print_profile(arguments: argparse.Namespace) -> int:
    from ..cutting import PLAIN, profile_to_json

    put(profile_to_json(PLAIN), arguments.out)
    return 0
