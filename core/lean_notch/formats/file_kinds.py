"""The formats of files, one record each: what they are called, how they are written and read, and what they cannot hold."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import NamedTuple, get_args

from ..cutting import Profile, SheetPlan
from ..cutting.profile import FileFormat
from ..ground.findings import Finding
from .read_file import ReadFile


class Lack(NamedTuple):
    """What a profile may ask for and a format cannot hold: the profile's field, whether it is asked for, what is so instead, and what
    to do."""

    field: str
    asked: Callable[[Profile], bool]
    so: str
    fix: str


@dataclass(frozen=True)
class FileKind:
    """`write` takes a title, one sheet and the profile; `read` raises UnreadableFile. `y_down` is None where the profile says it, and
    then its coordinates are the profile's too; `own_unit` holds whatever unit is chosen, `any_colour` any colour. `seconds` is what a
    line or an arc takes to be written, of a processor."""

    format: FileFormat
    title: str
    about: str
    suffix: str
    content_type: str
    write: Callable[[str, SheetPlan, Profile], bytes]
    read: Callable[[bytes], ReadFile]
    seconds: float
    y_down: bool | None
    own_unit: bool
    any_colour: bool
    lacks: tuple[Lack, ...] = ()

    def runs_down(self, profile: Profile) -> bool:
        return profile.y_down if self.y_down is None else self.y_down


def _svg(title: str, sheet: SheetPlan, profile: Profile) -> bytes:
    from .svg_write import write_svg

    return write_svg(title, sheet, profile).encode()


def _read_svg(data: bytes) -> ReadFile:
    from .svg_read import read_svg

    return read_svg(data)


def _dxf(title: str, sheet: SheetPlan, profile: Profile) -> bytes:  # noqa: ARG001
    from .dxf_write import write_dxf

    return write_dxf(sheet, "R2000", profile).encode()


def _dxf_r12(title: str, sheet: SheetPlan, profile: Profile) -> bytes:  # noqa: ARG001
    from .dxf_write import write_dxf

    return write_dxf(sheet, "R12", profile).encode()


def _read_dxf(data: bytes) -> ReadFile:
    from .dxf_read import read_dxf

    return read_dxf(data)


def _pdf(title: str, sheet: SheetPlan, profile: Profile) -> bytes:
    from .pdf_write import write_pdf

    return write_pdf(title, sheet, profile)


def _read_pdf(data: bytes) -> ReadFile:
    from .pdf_read import read_pdf

    return read_pdf(data)


def _way(way: str) -> Lack:
    return Lack("y_down", lambda profile: profile.y_down, f"always runs {way}", "Leave that choice off, or use DXF.")


_UNFILLED = Lack(
    "engrave", lambda profile: profile.engrave == "filled", "cannot fill an area: it holds its outline",
    "Choose hatch lines or outlines, or use SVG or PDF.",
)  # fmt: skip
_POINTS = Lack(
    "unit", lambda profile: profile.unit == "in", "is in points, drawn at true size, whatever unit is asked for",
    "Choose mm, or SVG or DXF.",
)  # fmt: skip
_PAGE = Lack(
    "origin", lambda profile: profile.origin not in ("plain", "lower left"), "has its zero at the lower left of the page",
    "Choose the usual origin, or SVG or DXF.",
)  # fmt: skip

ALL = (
    FileKind("svg", "SVG", "1:1, a group for each operation", ".svg", "image/svg+xml", _svg, _read_svg, 1e-5, True, True, True, (_way("down"),)),
    FileKind("dxf", "DXF", "R2000, a layer for each operation", ".dxf", "application/dxf", _dxf, _read_dxf, 2e-5, None, True, False, (_UNFILLED,)),
    FileKind("dxf-r12", "DXF R12", "for older software", "_R12.dxf", "application/dxf", _dxf_r12, _read_dxf, 2e-5, None, True, False, (_UNFILLED,)),
    FileKind(
        "pdf", "PDF", "1:1, a layer that can be switched off for each operation", ".pdf", "application/pdf", _pdf, _read_pdf, 5e-5, False,
        False, True, (_POINTS, _PAGE, _way("up")),
    ),
)  # fmt: skip
"""The plainest name first."""

FORMATS: Mapping[str, FileKind] = {one.format: one for one in ALL}

if tuple(FORMATS) != get_args(FileFormat):
    raise TypeError(f"A profile's formats are {get_args(FileFormat)}; there are records of {tuple(FORMATS)}.")


def not_held(profile: Profile, file_format: FileFormat) -> tuple[Finding, ...]:
    """What a profile asks for and a format cannot hold, each at its field; the file is right all the same."""
    kind = FORMATS[file_format]
    lacks = [one for one in kind.lacks if one.asked(profile)]
    found = [(one.field, one.so, one.fix) for one in lacks]
    if profile.reference_square and not profile.layers["reference"].include:
        fix = "Include the reference layer, or leave the square off."
        found.append(("reference_square", "has no square: its layer is left out", fix))
    return tuple(Finding("not-held", "look", f"{kind.title} {so}.", fix, field=field) for field, so, fix in found)
