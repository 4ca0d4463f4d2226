"""A whole job: design + basis + layout settings in; build, layout, cut plan, files and proof out."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Mapping
from dataclasses import asdict, dataclass
from typing import Any, Literal

from .basis import Basis, basis_from_json, basis_to_json
from .build import Build, build
from .cutting import CutPlan, plan_cut
from .design import Design, design_from_json, design_to_json
from .documents import entry, mapping, mm
from .errors import PartTooLarge
from .formats.dxf_write import write_dxf
from .formats.svg_write import write_svg
from .nesting import Area, Layout, LayoutSettings, Piece, lay_out
from .proof import Proof, prove
from .units import say_mm

FileFormat = Literal["svg", "dxf", "dxf-r12"]
FILE_FORMATS: tuple[FileFormat, ...] = ("svg", "dxf", "dxf-r12")


@dataclass(frozen=True)
class Job:
    """All that is decided and measured; everything else is computed from it."""

    design: Design
    basis: Basis
    settings: LayoutSettings = LayoutSettings()


@dataclass(frozen=True)
class Result:
    job: Job
    build: Build
    layout: Layout
    plan: CutPlan


@dataclass(frozen=True)
class OutFile:
    """One written file, for one sheet."""

    name: str
    sheet: int
    data: bytes


def compute(job: Job, *, reference_square: bool = False) -> Result:
    """Build, lay out and plan the cuts. Raises NotchError at the field to mend."""
    built = build(job.design, job.basis)
    layout = place(job, built)
    plan = plan_cut(job.design.name, built, layout, job.settings, job.basis.kerf, reference_square=reference_square)
    return Result(job, built, layout, plan)


def place(job: Job, built: Build) -> Layout:
    """The build's parts on the basis' sheets. Raises PartTooLarge at the chosen size that the part goes back to."""
    width, height = job.basis.sheet_area
    pieces = [Piece(part.id, part.title, part.region, part.quantity) for part in built.parts]
    try:
        return lay_out(pieces, Area(width, height, job.basis.stock.sheets), job.settings)
    except PartTooLarge as error:
        part = next(part for part in job.design.parts if part.id == error.field)
        standing = built.part(part.id).standing
        longer = part.panel.width if standing.width >= standing.height else part.panel.height
        error.field = job.design.chosen_behind(longer)
        raise


def file_name(job: Job, sheet: int, file_format: FileFormat) -> str:
    """Design, stock, measured thickness and sheet number, so that nobody has to open the file to know.

    The thickness has the two decimals of a caliper.
    """
    stem = f"{slug(job.design.name)}_{slug(job.basis.stock.name)}_{job.basis.thickness:.2f}mm_sheet-{sheet}"
    return f"{stem}_R12.dxf" if file_format == "dxf-r12" else f"{stem}.{file_format}"


def slug(text: str) -> str:
    """A name that every file system takes.

    >>> slug("Étui à fioles, no. 2")
    'etui-a-fioles-no-2'
    """
    plain = unicodedata.normalize("NFKD", text).encode("ascii", "ignore").decode()
    return re.sub(r"[^a-z0-9]+", "-", plain.lower()).strip("-")[:60] or "job"


def write_files(result: Result, file_format: FileFormat) -> tuple[OutFile, ...]:
    """One file a sheet, the same bytes for the same job."""
    job = result.job
    files = []
    for sheet in result.plan.sheets:
        if file_format == "svg":
            thickness = say_mm(job.basis.thickness, 2)
            text = write_svg(f"{job.design.name}, {job.basis.stock.name} {thickness}, sheet {sheet.number}", sheet)
        else:
            text = write_dxf(sheet, "R12" if file_format == "dxf-r12" else "R2000")
        files.append(OutFile(file_name(job, sheet.number, file_format), sheet.number, text.encode()))
    return tuple(files)


def prove_files(result: Result, files: Mapping[int, bytes], file_format: FileFormat) -> Proof:
    """Reads written files (by sheet number) back and judges what a beam of the basis' kerf leaves of them."""
    if file_format == "svg":
        from .formats.svg_read import read_svg as read
    else:
        from .formats.dxf_read import read_dxf as read
    read_back = {sheet: read(data) for sheet, data in files.items()}
    return prove(read_back, result.build, result.layout, result.job.basis)


def prove_job(result: Result, file_format: FileFormat = "svg") -> Proof:
    """The proof of what `write_files` writes."""
    written = write_files(result, file_format)
    return prove_files(result, {file.sheet: file.data for file in written}, file_format)


def settings_from_json(document: object) -> LayoutSettings:
    settings, default = mapping(document, "layout"), LayoutSettings()
    return LayoutSettings(
        margin=mm(settings.get("margin", default.margin), "margin"),
        spacing=mm(settings.get("spacing", default.spacing), "spacing"),
        quarter_turns=bool(settings.get("quarter_turns", default.quarter_turns)),
    )


def job_from_json(document: object) -> Job:
    """A Job from its document. Raises NotchError at the entry that is wrong."""
    top = mapping(document, "job")
    return Job(
        design_from_json(entry(top, "design")),
        basis_from_json(entry(top, "basis")),
        settings_from_json(top.get("layout", {})),
    )


def job_to_json(job: Job) -> dict[str, Any]:
    """The document that `job_from_json` reads."""
    return {
        "design": design_to_json(job.design),
        "basis": basis_to_json(job.basis),
        "layout": asdict(job.settings),
    }
