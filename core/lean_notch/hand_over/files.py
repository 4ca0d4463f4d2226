"""A job's files: a computed job and a format in, named bytes out; the same bytes for the same job."""

from __future__ import annotations

import re
import unicodedata
from dataclasses import dataclass, replace
from pathlib import PurePath

from ..basis.never import refuse_never
from ..cutting import SheetPlan, alone
from ..cutting.plan import in_every_file
from ..cutting.profile import FileFormat as FileFormat
from ..formats.file_kinds import FORMATS
from ..formats.frame import only
from ..job import Job, Result, refuse_without_place
from ..lengths.said import rounded, say_mm


@dataclass(frozen=True)
class OutFile:
    """One written file: of a sheet, of one operation on a sheet, or of one part (then `sheet` is 0). `back` is what is done once
    the sheet is turned over."""

    name: str
    sheet: int
    data: bytes
    part: str = ""
    operation: str = ""
    back: bool = False


def file_name(job: Job, what: int | str, file_format: FileFormat, board: str) -> str:
    """Design, stock, measured thickness and what is in it (a sheet's number, or words), so that nobody has to open the
    file to know. The thickness has the two decimals of a caliper.
    """
    basis = job.basis.of(board)
    inside = f"sheet-{what}" if isinstance(what, int) else slug(what)
    stem = f"{slug(job.design.name)}_{slug(basis.stock.name)}_{rounded(basis.thickness, 2)}mm_{inside}"
    return f"{stem}{FORMATS[file_format].suffix}"


def file_names(job: Job, what: int | str, board: str) -> dict[FileFormat, str]:
    """In every format."""
    return {one.format: file_name(job, what, one.format, board) for one in FORMATS.values()}


_MARKS = {"fits": "", "does-not-fit": "does-not-fit", "as-far-as-seen": "not-all-proved", "": "not-proved"}


def marked(name: str, verdict: str) -> str:
    """A file's name, which says so where what is in it is not known to fit; `verdict` is "" where nothing was proved.

    >>> marked("tray_sheet-1.svg", "fits"), marked("tray_sheet-1.svg", "")
    ('tray_sheet-1.svg', 'tray_sheet-1_not-proved.svg')
    """
    path, mark = PurePath(name), _MARKS[verdict]
    return f"{path.stem}_{mark}{path.suffix}" if mark else name


MOST_BYTES = 60
"""Of one name within a file's: with three of them and a folder the whole stays within the 255 that file systems take."""


def slug(text: str) -> str:
    """A name that every file system takes: small letters and figures, Latin ones without their accents, others as they are.

    >>> slug("Étui à fioles, no. 2"), slug("علبة 3"), slug("…")
    ('etui-a-fioles-no-2', 'علبة-3', 'job')
    """
    words = "".join(map(_in_name, unicodedata.normalize("NFC", text).casefold()))
    short = re.sub("-+", "-", words).strip("-").encode()[:MOST_BYTES].decode(errors="ignore")
    return short.strip("-") or "job"


def _in_name(c: str) -> str:
    base = unicodedata.normalize("NFKD", c).encode("ascii", "ignore").decode()
    if base:
        return "".join(one if one.isalnum() else "-" for one in base)
    return c if unicodedata.category(c)[0] in "LMN" else "-"


@dataclass(frozen=True)
class Planned:
    """A file before it is written: its name, what it is of in words, and the plan that goes into it."""

    name: str
    what: str
    plan: SheetPlan
    board: str
    sheet: int = 0
    part: str = ""
    operation: str = ""
    back: bool = False


def write_files(result: Result, file_format: FileFormat) -> tuple[OutFile, ...]:
    """The files that the result's profile asks for, the same bytes for the same job. Raises NeverOnMachine at "machine", and
    PartTooLarge or SheetsRunOut where a part lies on no sheet."""
    refuse_never_cut(result.job)
    refuse_without_place(result)
    return files_to_prove(result, file_format)


def refuse_never_cut(job: Job) -> None:
    """Raises NeverOnMachine at "machine" for a job with a board that its machine never cuts."""
    for board in job.design.boards:
        basis = job.basis.of(board.id)
        refuse_never(basis.stock, basis.machine, "machine")


def files_to_prove(result: Result, file_format: FileFormat) -> tuple[OutFile, ...]:
    """What `write_files` writes, for reading only: a job that may not be cut can be looked at."""
    return tuple(
        OutFile(one.name, one.sheet, _written(result, one, file_format), one.part, one.operation, one.back)
        for one in planned_files(result, file_format)
    )


def planned_files(result: Result, file_format: FileFormat) -> tuple[Planned, ...]:
    """What will be written, by the profile's split: of sheets, of operations on a sheet, or of parts."""
    job, profile = result.job, result.profile
    if profile.split == "part":
        return _by_part(result, file_format)
    files = []
    for sheet in result.plan.sheets:
        board = result.layout.sheet(sheet.number).board
        faces = [("", sheet, False)]
        if sheet.back:
            turned = f" back, turned about its {sheet.turned_about} edge"
            # Before anything is cut through: then the parts are loose.
            faces.insert(0, (turned, replace(sheet, paths=sheet.back, back=(), travel=0.0, travel_unordered=0.0), True))
        for words, plan, back in faces:
            if profile.split == "sheet":
                what = f"sheet {sheet.number}{words}"
                name = file_name(job, what if back else sheet.number, file_format, board)
                files.append(Planned(name, what, plan, board, sheet.number, back=back))
                continue
            used = {path.operation for path in plan.paths}
            for operation in profile.order:
                if operation in used and profile.layers[operation].include:
                    what = f"sheet {sheet.number}{words}, {operation}"
                    name = file_name(job, what, file_format, board)
                    own = only(plan, [operation])
                    if operation != "reference":
                        own = replace(own, paths=(*own.paths, *filter(in_every_file, plan.paths)))
                    files.append(Planned(name, what, own, board, sheet.number, "", operation, back))
    return tuple(files)


def _by_part(result: Result, file_format: FileFormat) -> tuple[Planned, ...]:
    job, profile = result.job, result.profile
    files: dict[str, Planned] = {}
    for part in result.build.parts:
        plan = alone(part, result.build, job.kerfs[part.board], profile).plan
        what = f"{part.title} x{part.quantity}"
        name = file_name(job, what, file_format, part.board)
        if name in files:  # two parts of one title
            name = file_name(job, f"{what} {part.id}", file_format, part.board)
        files[name] = Planned(name, part.title, plan, part.board, 0, part.id)
    return tuple(files.values())


def _written(result: Result, one: Planned, file_format: FileFormat) -> bytes:
    basis, profile = result.job.basis.of(one.board), result.profile
    title = f"{result.job.design.name}, {basis.stock.name} {say_mm(basis.thickness, 2)}, {one.what}"
    return FORMATS[file_format].write(title, one.plan, profile)
