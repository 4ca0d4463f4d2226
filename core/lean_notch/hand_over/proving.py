"""Proving a job's files: written files in; out, a proof of what they leave all together, and what it says of each.

Every file is read back as its receiver will read it and held against what was asked of it: the profile's promises, then the
parts, the marks and the joints. A proof is of bytes: it names each file with the SHA-256 of what was read.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from hashlib import sha256

from ..cutting import CutPlan, Profile, alone
from ..design_rules.stray_marks import marks_on
from ..formats.file_kinds import FORMATS, not_held
from ..formats.frame import Frame
from ..formats.read_file import ReadFile
from ..geometry import Segment
from ..ground.errors import MissingInput
from ..ground.findings import Finding
from ..ground.operations import Operation
from ..ground.progress import Tell, between, untold
from ..job import Result
from ..nesting import Area, Layout, Placed, Sheet
from ..proof import Face, Given, Proof, Said, promised, prove, registered, said_of
from .as_planned import as_planned
from .files import FileFormat, OutFile, Planned, files_to_prove, planned_files


@dataclass(frozen=True)
class FileProof:
    """What a proof says of one of its files, whose bytes have this SHA-256."""

    name: str
    sha256: str
    said: Said
    findings: tuple[Finding, ...]


@dataclass(frozen=True)
class FilesProof:
    """A proof of files together, and of each by itself, in the order in which they were given."""

    proof: Proof
    files: tuple[FileProof, ...]


def prove_files(result: Result, files: Sequence[OutFile], file_format: FileFormat, tell: Tell = untold) -> FilesProof:
    """Reads written files back and judges what a beam of the basis' kerf leaves of them: files of sheets and of operations on
    sheets as they lie there, files of parts as a set, each part against its own outline.

    Raises UnreadableFile, and MissingInput for a file that is no file of this job, or is there twice.
    """
    tell(0.0, "reading the files back")
    known = {_key(one): one for one in planned_files(result, file_format)}
    asked = [_asked(result, known, one) for one in files]
    _refuse_twice(files)
    read = [FORMATS[file_format].read(one.data) for one in files]
    ground = _parts_alone(result) if result.profile.split == "part" else _sheets(result)
    findings = list(not_held(result.profile, file_format))
    given: dict[int, Given] = {}
    for planned, file, one in zip(asked, read, files, strict=True):
        number = ground.number(planned)
        lying = _on_sheet(file, planned, result.profile, file_format)
        findings += [
            replace(finding, sheet=number, back=planned.back, file=one.name)
            for finding in (
                *promised(file, planned.plan, result.profile, file_format),
                *registered(lying, planned.plan, result.profile),
            )
        ]
        there = as_planned(lying, planned.plan, result.profile)
        face = Face(there, _operations(planned, result.profile))
        given[number] = _with(given.get(number, Given()), face, back=planned.back)
    findings += [one for part in result.build.parts for one in marks_on(part)]
    proof = prove(
        given, result.build, ground.layout, result.job.basis, ground.plan, result.profile, findings, ground.titles,
        between(tell, 0.15, 1.0),
    )  # fmt: skip
    shown = tuple(
        _of_one(proof, one, ground.number(planned), planned.back) for planned, one in zip(asked, files, strict=True)
    )
    return FilesProof(proof, shown)


def prove_job(result: Result, file_format: FileFormat = "svg", tell: Tell = untold) -> Proof:
    """The proof of the plan: of files a sheet, written and read back, whatever the profile's split is."""
    tell(0.0, "writing the file")
    by_sheets = replace(result, profile=replace(result.profile, split="sheet"))
    files = files_to_prove(by_sheets, file_format)
    return prove_files(by_sheets, files, file_format, between(tell, 0.15, 1.0)).proof


@dataclass(frozen=True)
class _Ground:
    """What files lie on: the job's sheets, or a sheet of its own for each part; then `titles` are the parts' by number."""

    layout: Layout
    plan: CutPlan
    titles: Mapping[int, str]
    numbers: Mapping[str, int]

    def number(self, planned: Planned) -> int:
        return planned.sheet or self.numbers[planned.part]


def _sheets(result: Result) -> _Ground:
    return _Ground(result.layout, result.plan, {}, {})


def _parts_alone(result: Result) -> _Ground:
    placed, sheets, plans, findings = [], [], [], []
    for number, part in enumerate(result.build.parts, 1):
        one = alone(part, result.build, result.job.kerfs[part.board], result.profile)
        placed.append(Placed(part.id, 1, number, one.motion))
        sheets.append(Sheet(number, Area(one.plan.width, one.plan.height), part.board))
        plans.append(replace(one.plan, number=number))
        findings += [
            replace(finding, sheet=number) if finding.code == "no-lead-in" else finding for finding in one.findings
        ]
    return _Ground(
        Layout(tuple(placed), tuple(sheets)), CutPlan(result.job.design.name, tuple(plans), tuple(findings)),
        {number: part.title for number, part in enumerate(result.build.parts, 1)},
        {part.id: number for number, part in enumerate(result.build.parts, 1)},
    )  # fmt: skip


_Key = tuple[int, str, str, bool]


def _key(one: OutFile | Planned) -> _Key:
    return (one.sheet, one.part, one.operation, one.back)


def _asked(result: Result, known: Mapping[_Key, Planned], file: OutFile) -> Planned:
    """What a file was to be."""
    planned = known.get(_key(file))
    if planned is None:
        raise MissingInput(
            f"{file.name or 'A file'} is no file of “{result.job.design.name}” as its profile splits it.",
            fix=f"Prove the files that were written of it: {', '.join(one.name for one in known.values())}.", field=file.name,
        )  # fmt: skip
    return planned


def _refuse_twice(files: Sequence[OutFile]) -> None:
    seen: dict[_Key, OutFile] = {}
    for one in files:
        before = seen.get(_key(one))
        if before:
            raise MissingInput(
                f"{one.name or 'A file'} and {before.name or 'another'} are the same file, given twice.",
                fix="Give each once.", field=one.name,
            )  # fmt: skip
        seen[_key(one)] = one


def _operations(planned: Planned, profile: Profile) -> frozenset[Operation]:
    """What a file is for: its own operation, or all that the profile includes."""
    included = frozenset(operation for operation, layer in profile.layers.items() if layer.include)
    return included & {planned.operation} if planned.operation else included


def _with(given: Given, face: Face, *, back: bool) -> Given:
    before = given.back if back else given.front
    both = Face(_joined([before.file, face.file]), before.operations | face.operations) if before else face
    return replace(given, back=both) if back else replace(given, front=both)


def _on_sheet(file: ReadFile, planned: Planned, profile: Profile, file_format: FileFormat) -> ReadFile:
    """A file's lines where they lie on the sheet: SVG and PDF say so themselves, for DXF the profile does."""
    if FORMATS[file_format].y_down is not None:
        return file
    frame = Frame.of(planned.plan, profile)
    sense = -1.0 if frame.flipped else 1.0
    paths = tuple(
        replace(
            path,
            segments=tuple(Segment(frame.back(s.start), frame.back(s.end), sense * s.bulge) for s in path.segments),
        )
        for path in file.paths
    )
    return replace(file, paths=paths)


def _joined(files: Sequence[ReadFile]) -> ReadFile:
    def each(name: str) -> tuple[str, ...]:
        return tuple(dict.fromkeys(one for file in files for one in getattr(file, name)))

    first = files[0]
    return replace(
        first, paths=tuple(path for file in files for path in file.paths), texts=tuple(text for file in files for text in file.texts),
        assumed=next((file.assumed for file in files if file.assumed), ""),
        unread=each("unread"), hidden=each("hidden"), unheeded=each("unheeded"),
    )  # fmt: skip


def _of_one(proof: Proof, file: OutFile, sheet: int, back: bool) -> FileProof:
    """What is said of a file, and of the job as a whole: not what is wrong with the other files."""
    mine = tuple(
        one for one in proof.findings
        if one.file == file.name or (not one.file and (not one.sheet or (one.sheet, one.back) == (sheet, back)))
    )  # fmt: skip
    measured = (
        back or bool(file.operation and file.operation != "cut") or any(one.sheet == sheet for one in proof.parts)
    )
    said = said_of(mine, "" if back else proof.provided, measured=measured)
    return FileProof(file.name, sha256(file.data).hexdigest(), said, mine)
