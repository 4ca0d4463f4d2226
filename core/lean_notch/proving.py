"""Proving a job's files: written files in, a proof of what they leave out."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

from .files import FileFormat, write_files
from .formats.frame import Frame
from .formats.read_file import ReadFile
from .geometry import Segment
from .job import Result
from .progress import Tell, between, untold
from .proof import Proof, prove
from .reading import read_outlines


def prove_files(
    result: Result, files: Mapping[int, Sequence[bytes]], file_format: FileFormat, tell: Tell = untold
) -> Proof:
    """Reads written files (by sheet number, together all that is on the sheet) back and judges what a beam of the
    basis' kerf leaves of them."""
    tell(0.0, "reading the file back")
    return prove_read(result, read_sheets(result, files, file_format), between(tell, 0.15, 1.0))


def read_sheets(result: Result, files: Mapping[int, Sequence[bytes]], file_format: FileFormat) -> dict[int, ReadFile]:
    """What written files hold, by sheet, where it lies on the sheet. Raises UnreadableFile."""
    return {
        number: _joined([_on_sheet(result, number, read_outlines(one, file_format), file_format) for one in some])
        for number, some in files.items()
    }


def prove_read(result: Result, sheets: Mapping[int, ReadFile], tell: Tell = untold) -> Proof:
    """Judges files that have been read."""
    return prove(sheets, result.build, result.layout, result.job.basis, result.plan, result.profile, tell)


def _on_sheet(result: Result, number: int, file: ReadFile, file_format: FileFormat) -> ReadFile:
    """A file's lines where they lie on the sheet: SVG says so itself, for DXF the profile does."""
    if file_format == "svg":
        return file
    area = result.layout.sheet(number).area
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
        hidden=tuple(dict.fromkeys(layer for file in files for layer in file.hidden)),
    )


def prove_job(result: Result, file_format: FileFormat = "svg", tell: Tell = untold) -> Proof:
    """The proof of what `write_files` writes."""
    tell(0.0, "writing the file")
    by_sheet: dict[int, list[bytes]] = {}
    whole = result.profile.split == "sheet"
    by_sheets = result if whole else replace(result, profile=replace(result.profile, split="sheet"))
    for file in write_files(by_sheets, file_format):
        if not file.back:
            by_sheet.setdefault(file.sheet, []).append(file.data)
    return prove_files(result, by_sheet, file_format, between(tell, 0.15, 1.0))
