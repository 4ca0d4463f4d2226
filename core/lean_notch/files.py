"""A job's files: a computed job and a format in, named bytes out; the same bytes for the same job."""

from __future__ import annotations

import re
import unicodedata
from dataclasses import dataclass
from typing import Literal, get_args

from .cutting import Profile, SheetPlan, plan_part
from .formats.dxf_write import write_dxf
from .formats.frame import only
from .formats.svg_write import write_svg
from .job import Job, Result
from .units import rounded, say_mm

FileFormat = Literal["svg", "dxf", "dxf-r12", "pdf"]
FILE_FORMATS: tuple[FileFormat, ...] = get_args(FileFormat)


@dataclass(frozen=True)
class OutFile:
    """One written file: of a sheet, of one operation on a sheet, or of one part (then `sheet` is 0)."""

    name: str
    sheet: int
    data: bytes
    part: str = ""
    operation: str = ""


def file_name(job: Job, what: int | str, file_format: FileFormat, board: str) -> str:
    """Design, stock, measured thickness and what is in it (a sheet's number, or words), so that nobody has to open the
    file to know. The thickness has the two decimals of a caliper.
    """
    basis = job.basis.of(board)
    inside = f"sheet-{what}" if isinstance(what, int) else slug(what)
    stem = f"{slug(job.design.name)}_{slug(basis.stock.name)}_{rounded(basis.thickness, 2)}mm_{inside}"
    return f"{stem}_R12.dxf" if file_format == "dxf-r12" else f"{stem}.{file_format}"


def slug(text: str) -> str:
    """A name that every file system takes.

    >>> slug("Étui à fioles, no. 2")
    'etui-a-fioles-no-2'
    """
    plain = unicodedata.normalize("NFKD", text).encode("ascii", "ignore").decode()
    return re.sub(r"[^a-z0-9]+", "-", plain.lower()).strip("-")[:60] or "job"


def write_files(result: Result, file_format: FileFormat) -> tuple[OutFile, ...]:
    """The files that the result's profile asks for, the same bytes for the same job."""
    job, profile = result.job, result.profile
    if profile.split == "part":
        return _by_part(result, file_format)
    files = []
    for sheet in result.plan.sheets:
        board = result.layout.sheet(sheet.number).board
        if profile.split == "sheet":
            data = _written(job, f"sheet {sheet.number}", sheet, profile, file_format, board)
            files.append(OutFile(file_name(job, sheet.number, file_format, board), sheet.number, data))
            continue
        used = {path.operation for path in sheet.paths}
        for operation in profile.order:
            if operation in used and profile.layers[operation].include:
                what = f"sheet {sheet.number}, {operation}"
                data = _written(job, what, only(sheet, [operation]), profile, file_format, board)
                name = file_name(job, what, file_format, board)
                files.append(OutFile(name, sheet.number, data, operation=operation))
    return tuple(files)


def _by_part(result: Result, file_format: FileFormat) -> tuple[OutFile, ...]:
    job, profile = result.job, result.profile
    files: dict[str, OutFile] = {}
    for part in result.build.parts:
        plan = plan_part(part, result.build, job.kerfs[part.board], profile)
        what = f"{part.title} x{part.quantity}"
        name = file_name(job, what, file_format, part.board)
        if name in files:  # two parts of one title
            name = file_name(job, f"{what} {part.id}", file_format, part.board)
        files[name] = OutFile(name, 0, _written(job, part.title, plan, profile, file_format, part.board), part.id)
    return tuple(files.values())


def _written(job: Job, what: str, sheet: SheetPlan, profile: Profile, file_format: FileFormat, board: str) -> bytes:
    basis = job.basis.of(board)
    title = f"{job.design.name}, {basis.stock.name} {say_mm(basis.thickness, 2)}, {what}"
    if file_format == "svg":
        return write_svg(title, sheet, profile).encode()
    if file_format == "pdf":
        from .formats.pdf_write import write_pdf

        return write_pdf(title, sheet, profile)
    return write_dxf(sheet, "R12" if file_format == "dxf-r12" else "R2000", profile).encode()
