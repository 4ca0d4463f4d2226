"""A job as one open file: a zip of `job.json` and the files it uses, each under `files/` by the SHA-256 of its content.

In: a job and its files, or the bytes of such a zip; out: the other. The same job gives the same bytes.
"""

from __future__ import annotations

import hashlib
import io
import json
import lzma
import struct
import zipfile
import zlib
from collections.abc import Mapping

from ..design import Design, Imported, ShapeStep
from ..ground.errors import BadDocument, MissingInput, TooMuchWork, UnreadableFile
from ..ground.limits import MOST_FILE_BYTES, MOST_FILES, MOST_JOB_BYTES, MOST_PACKED_BYTES
from ..job import Job, job_from_json, job_to_json

JOB = "job.json"
FILES = "files/"
_MADE = (2026, 1, 1, 0, 0, 0)


def content_name(data: bytes) -> str:
    """What a file is called by: the SHA-256 of its content."""
    return hashlib.sha256(data).hexdigest()


def files_used(design: Design) -> tuple[str, ...]:
    """The files that a design's steps name, each once."""
    names = (
        step.shape.file
        for part in design.parts
        for step in part.steps
        if isinstance(step, ShapeStep) and isinstance(step.shape, Imported)
    )
    return tuple(dict.fromkeys(names))


def check_file(data: bytes, count: int = 0, together: int = 0) -> None:
    """Raises TooMuchWork for a file that a job with `count` others of `together` bytes cannot keep."""
    if len(data) > MOST_FILE_BYTES or together + len(data) > MOST_PACKED_BYTES or count >= MOST_FILES:
        raise TooMuchWork(
            f"The file has {len(data) / 1e6:.1f} MB; this job keeps {count} others of {together / 1e6:.1f} MB.",
            fix=f"A job keeps at most {MOST_FILES} files, {MOST_FILE_BYTES / 1e6:.0f} MB each and {MOST_PACKED_BYTES / 1e6:.0f} MB together.",
            field="file",
        )


def pack(job: Job, files: Mapping[str, bytes]) -> bytes:
    """The zip that `unpack` reads. Raises MissingInput for a file that the job uses and `files` do not have."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        _write(
            packed,
            JOB,
            (json.dumps(job_to_json(job_from_json(job_to_json(job))), indent=1, ensure_ascii=False) + "\n").encode(),
        )
        for name in files_used(job.design):
            if name not in files:
                raise MissingInput(
                    f"The job uses the file {name[:12]}, which is not here.",
                    fix="Remove the step that uses it.",
                    field="files",
                )
            _write(packed, f"{FILES}{name}", files[name])
    return out.getvalue()


def _write(packed: zipfile.ZipFile, name: str, data: bytes) -> None:
    entry = zipfile.ZipInfo(name, _MADE)
    entry.compress_type = zipfile.ZIP_DEFLATED
    packed.writestr(entry, data)


DAMAGED = (
    zipfile.BadZipFile, zlib.error, lzma.LZMAError, NotImplementedError, RuntimeError, EOFError, OSError, ValueError, KeyError, struct.error,
)  # fmt: skip
"""What reading a zip file raises where its bytes are not what they were."""


def packed_bytes(data: bytes) -> int:
    """Of all that is in it, unpacked, as its directory says; 0 for what is no zip."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as packed:
            return sum(entry.file_size for entry in packed.infolist())
    except DAMAGED:
        return 0


def unpack(data: bytes) -> tuple[Job, dict[str, bytes]]:
    """The job and the files in a packed job. Raises NotchError at what is wrong, before anything large is read."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as packed:
            return _unpacked(packed)
    except DAMAGED as error:
        raise UnreadableFile(
            f"The file is not a packed job: {error}.", fix="Choose one that `lean-notch job pack` or the page wrote."
        ) from None


def _unpacked(packed: zipfile.ZipFile) -> tuple[Job, dict[str, bytes]]:
    entries = packed.infolist()
    total = sum(entry.file_size for entry in entries)
    if len(entries) > MOST_FILES + 1 or total > MOST_PACKED_BYTES:
        raise TooMuchWork(
            f"The packed job holds {len(entries)} files, {total / 1e6:.0f} MB.",
            fix=f"At most {MOST_FILES} files and {MOST_PACKED_BYTES / 1e6:.0f} MB are taken.",
        )
    if any(entry.filename == JOB and entry.file_size > MOST_JOB_BYTES for entry in entries):
        raise TooMuchWork(
            f"{JOB} is larger than a job can be.", fix=f"At most {MOST_JOB_BYTES / 1e6:.0f} MB are taken."
        )
    names = [entry.filename for entry in entries]
    if JOB not in names or len(set(names)) < len(names):
        raise BadDocument(f"There is no {JOB} in it, or a file twice.", fix="Pack the job again.", field=JOB)
    try:
        job = job_from_json(json.loads(packed.read(JOB)))
    except (ValueError, RecursionError) as error:  # no text, no JSON, or a number of thousands of digits
        raise BadDocument(f"{JOB} is not JSON: {error}.", fix="Pack the job again.", field=JOB) from None
    used, files = files_used(job.design), {}
    for name in names:
        if name == JOB:
            continue
        content = packed.read(name)
        if name != f"{FILES}{content_name(content)}":
            raise BadDocument(
                f"“{name[:100]}” is not what its name says.",
                fix="Pack the job again; do not change its files.",
                field=name[:100],
            )
        if name.removeprefix(FILES) in used:
            files[name.removeprefix(FILES)] = content
    missing = [name for name in used if name not in files]
    if missing:
        raise MissingInput(
            f"The job uses the file {missing[0][:12]}, which is not in it.",
            fix="Pack the job again.",
            field=f"{FILES}{missing[0]}",
        )
    return job, files
