"""A whole job: design + basis + layout settings in; build, layout, cut plan, files and proof out."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass, replace
from functools import cached_property
from typing import Any, Literal

from .basis import Basis, basis_from_json, basis_to_json
from .build import Build, build
from .cutting import (
    PLAIN,
    CutPlan,
    Profile,
    SheetPlan,
    check_room,
    cut_lengths,
    plan_cut,
    plan_part,
)
from .design import Design, design_from_json, design_to_json
from .documents import entry, mapping, mm
from .errors import PartTooLarge, UnreadableFile
from .formats.dxf_write import write_dxf
from .formats.frame import Frame, only
from .formats.read_file import ReadFile
from .formats.svg_write import write_svg
from .geometry import Segment
from .nesting import Area, Layout, LayoutSettings, Piece, lay_out
from .proof import Proof, prove
from .units import say_mm

FileFormat = Literal["svg", "dxf", "dxf-r12", "pdf"]
FILE_FORMATS: tuple[FileFormat, ...] = ("svg", "dxf", "dxf-r12", "pdf")


@dataclass(frozen=True)
class Job:
    """All that is decided and measured; everything else is computed from it."""

    design: Design
    basis: Basis
    settings: LayoutSettings = LayoutSettings()


@dataclass(frozen=True)
class Result:
    """What a job is. Its `plan`, for the receiver that `profile` describes, is made when it is asked for: most edits
    are followed by the next one before anybody cuts."""

    job: Job
    build: Build
    layout: Layout
    profile: Profile = PLAIN

    @cached_property
    def plan(self) -> CutPlan:
        job = self.job
        return plan_cut(job.design.name, self.build, self.layout, job.settings, job.basis.kerf, self.profile)

    @property
    def cut_lengths(self) -> tuple[float, ...]:
        """Of each sheet, in mm: all that is cut through."""
        return cut_lengths(self.build, self.layout, self.job.basis.kerf)


@dataclass(frozen=True)
class OutFile:
    """One written file: of a sheet, of one operation on a sheet, or of one part (then `sheet` is 0)."""

    name: str
    sheet: int
    data: bytes
    part: str = ""
    operation: str = ""


def compute(job: Job, profile: Profile = PLAIN) -> Result:
    """Build and lay out. Raises NotchError at the field to mend, also where the beam has no room to cut."""
    built = build(job.design, job.basis)
    layout = place(job, built)
    check_room(built, job.settings, job.basis.kerf)
    return Result(job, built, layout, profile)


def place(job: Job, built: Build) -> Layout:
    """The build's parts on the basis' sheets. Raises PartTooLarge at the chosen size that the part goes back to."""
    width, height = job.basis.sheet_area
    area = Area(width, height, job.basis.stock.sheets, tuple(one.box for one in job.basis.machine.keep_outs))
    pieces = [Piece(part.id, part.title, part.region, part.quantity) for part in built.parts]
    try:
        return lay_out(pieces, area, job.settings)
    except PartTooLarge as error:
        part = next(part for part in job.design.parts if part.id == error.field)
        standing = built.part(part.id).standing
        longer = part.panel.width if standing.width >= standing.height else part.panel.height
        error.field = job.design.chosen_behind(longer)
        raise


def file_name(job: Job, what: int | str, file_format: FileFormat) -> str:
    """Design, stock, measured thickness and what is in it (a sheet's number, or words), so that nobody has to open the
    file to know. The thickness has the two decimals of a caliper.
    """
    inside = f"sheet-{what}" if isinstance(what, int) else slug(what)
    stem = f"{slug(job.design.name)}_{slug(job.basis.stock.name)}_{job.basis.thickness:.2f}mm_{inside}"
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
        return tuple(
            OutFile(
                file_name(job, f"{part.title} x{part.quantity}", file_format), 0,
                _written(job, part.title, plan_part(part, result.build, job.basis.kerf, profile), profile, file_format),
                part.id,
            )
            for part in result.build.parts
        )  # fmt: skip
    files = []
    for sheet in result.plan.sheets:
        if profile.split == "sheet":
            data = _written(job, f"sheet {sheet.number}", sheet, profile, file_format)
            files.append(OutFile(file_name(job, sheet.number, file_format), sheet.number, data))
            continue
        used = {path.operation for path in sheet.paths}
        for operation in profile.order:
            if operation in used and profile.layers[operation].include:
                data = _written(
                    job, f"sheet {sheet.number}, {operation}", only(sheet, [operation]), profile, file_format
                )
                name = file_name(job, f"sheet {sheet.number} {operation}", file_format)
                files.append(OutFile(name, sheet.number, data, operation=operation))
    return tuple(files)


def _written(job: Job, what: str, sheet: SheetPlan, profile: Profile, file_format: FileFormat) -> bytes:
    title = f"{job.design.name}, {job.basis.stock.name} {say_mm(job.basis.thickness, 2)}, {what}"
    if file_format == "svg":
        return write_svg(title, sheet, profile).encode()
    if file_format == "pdf":
        from .formats.pdf_write import write_pdf

        return write_pdf(title, sheet, profile)
    return write_dxf(sheet, "R12" if file_format == "dxf-r12" else "R2000", profile).encode()


def read_outlines(data: bytes, file_format: FileFormat) -> ReadFile:
    """What a file of that format holds. Raises UnreadableFile; PDF is written here, not read."""
    if file_format == "svg":
        from .formats.svg_read import read_svg

        return read_svg(data)
    if file_format == "pdf":
        raise UnreadableFile("PDF is not read.", fix="Use the SVG or DXF of the same drawing.")
    from .formats.dxf_read import read_dxf

    return read_dxf(data)


def read_any(data: bytes, name: str) -> ReadFile:
    """What an SVG or DXF from anywhere holds, told by its content. Raises UnreadableFile."""
    start = data[:4096].lstrip(b"\xef\xbb\xbf \r\n\t")
    if start.startswith(b"%PDF"):
        return read_outlines(data, "pdf")
    if start.startswith(b"<"):
        return read_outlines(data, "svg")
    if name.lower().endswith(".dxf") or start[:1].isdigit():
        return read_outlines(data, "dxf")
    raise UnreadableFile(f"{name} is neither SVG nor DXF.", fix="Choose a file that ends in .svg or .dxf.")


def prove_files(result: Result, files: Mapping[int, Sequence[bytes]], file_format: FileFormat) -> Proof:
    """Reads written files (by sheet number, together all that is on the sheet) back and judges what a beam of the
    basis' kerf leaves of them."""
    read_back = {
        number: _joined([_on_sheet(result, read_outlines(one, file_format), file_format) for one in some])
        for number, some in files.items()
    }
    return prove(read_back, result.build, result.layout, result.job.basis, result.plan, result.profile)


def _on_sheet(result: Result, file: ReadFile, file_format: FileFormat) -> ReadFile:
    """A file's lines where they lie on the sheet: SVG says so itself, for DXF the profile does."""
    if file_format == "svg":
        return file
    area = result.layout.area
    frame = Frame.on(area.width, area.height, result.profile)
    sense = -1.0 if frame.flipped else 1.0
    return replace(
        file,
        paths=tuple(
            replace(
                path,
                segments=tuple(Segment(frame.back(s.start), frame.back(s.end), sense * s.bulge) for s in path.segments),
            )
            for path in file.paths
        ),
    )


def _joined(files: Sequence[ReadFile]) -> ReadFile:
    first = files[0]
    return replace(
        first,
        paths=tuple(path for file in files for path in file.paths),
        texts=tuple(text for file in files for text in file.texts),
        unread=tuple(dict.fromkeys(kind for file in files for kind in file.unread)),
    )


def prove_job(result: Result, file_format: FileFormat = "svg") -> Proof:
    """The proof of what `write_files` writes."""
    by_sheet: dict[int, list[bytes]] = {}
    for file in write_files(replace(result, profile=replace(result.profile, split="sheet")), file_format):
        by_sheet.setdefault(file.sheet, []).append(file.data)
    return prove_files(result, by_sheet, file_format)


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
