"""What requests need and may take longer than they may: here where it is quick, else beside the server, and the request is made again.

Each works from documents alone, so that a child can do the same.
"""

from __future__ import annotations

import json
from collections.abc import Sequence
from dataclasses import asdict
from typing import Any

from lean_notch.basis.settings import CutSetting, setting_from_json, setting_to_json
from lean_notch.cutting import profile_from_json
from lean_notch.formats.paper import page_size
from lean_notch.formats.paper_html import write_html
from lean_notch.ground.findings import Finding
from lean_notch.ground.progress import Tell
from lean_notch.hand_over.differs import differs
from lean_notch.hand_over.files import FileFormat, write_files
from lean_notch.hand_over.job_sheet import Written, job_sheet
from lean_notch.hand_over.packed import packed_bytes, unpack
from lean_notch.hand_over.reading import read_any, reading_seconds
from lean_notch.job import Job, Result, compute, job_from_json
from pydantic import TypeAdapter
from tasks.kinds import Given

from . import schemas as out
from .compute import OUTLINES, again, computed, document_of, here_or_beside

_FINDINGS = TypeAdapter(tuple[Finding, ...])


def planned_stops(result: Result) -> list[Finding]:
    """What stops a job once its cuts are planned. Raises Beside."""
    found = here_or_beside(STOPS, lambda: document_of(result.job), lambda: _stops(result))
    return list(_FINDINGS.validate_json(found))


def _stops(result: Result) -> bytes:
    return _FINDINGS.dump_json(
        tuple(one for one in (*result.limits, *result.plan.findings) if one.severity == "stop")
    )  # fmt: skip


def _plan_stops(given: Given, tell: Tell) -> bytes:
    tell(0.0, "planning the cuts")
    return _stops(compute(job_from_json(given.document["job"]), outlines=OUTLINES))


STOPS = again("stops", "Planning the cuts", _plan_stops)


def job_sheet_of(job: Job, settings: dict[str, list[CutSetting]], written: Written, given: out.ReaderIn) -> bytes:
    """As a page to print, or as PDF. Raises NotchError, Beside."""

    def document() -> dict[str, Any]:
        kept = {board: [setting_to_json(one) for one in some] for board, some in settings.items()}
        return {**document_of(job), "settings": kept, "written": asdict(written), "reader": given.model_dump()}

    page_size(given.paper)  # one that is too small is told before anything is planned
    return here_or_beside(SHEET, document, lambda: _sheet(computed(job), settings, written, given))


def _sheet(result: Result, settings: dict[str, list[CutSetting]], written: Written, given: out.ReaderIn) -> bytes:
    paper, size = job_sheet(result, settings, written, given.reader), page_size(given.paper)
    if given.form == "html":
        return write_html(paper, size).encode()
    from lean_notch.formats.paper_pdf import write_pdf_paper  # what it needs is large, and seldom asked for

    return write_pdf_paper(paper, size)


def _make_sheet(given: Given, tell: Tell) -> bytes:
    tell(0.0, "planning the cuts")
    document = given.document
    settings = {board: [setting_from_json(one) for one in some] for board, some in document["settings"].items()}
    files = {int(sheet): named for sheet, named in document["written"]["files"].items()}
    written = Written(**{**document["written"], "files": files})
    result = compute(job_from_json(document["job"]), outlines=OUTLINES)
    return _sheet(result, settings, written, out.ReaderIn(**document["reader"]))


SHEET = again("job-sheet", "The job sheet", _make_sheet)


def layers_of(name: str, data: bytes) -> list[str]:
    """The layers that a drawing's closed outlines lie on. Raises NotchError for one that cannot be read, Beside."""
    found = here_or_beside(READ, lambda: {"name": name}, lambda: _layers(name, data), data, reading_seconds(data))
    layers: list[str] = json.loads(found)
    return layers


def _layers(name: str, data: bytes) -> bytes:
    paths = read_any(data, name).paths
    return json.dumps(sorted({path.layer for path in paths if path.goes_round and path.layer})).encode()


def _read(given: Given, tell: Tell) -> bytes:
    tell(0.0, "reading the drawing")
    return _layers(given.document["name"], given.data)


READ = again("read", "Reading the drawing", _read, 15.0)


def look_into_packed(data: bytes) -> None:
    """Raises NotchError for a packed job that cannot be read, or with a file that cannot; Beside."""
    here_or_beside(LOOK, dict, lambda: _looked(data), data, _PACKED_BYTE_S * packed_bytes(data))


_PACKED_BYTE_S = 1e-5


def _looked(data: bytes) -> bytes:
    _, files = unpack(data)
    for content in files.values():
        read_any(content, PACKED_TITLE)
    return b"{}"


def _look(given: Given, tell: Tell) -> bytes:
    tell(0.0, "reading the packed job")
    return _looked(given.data)


PACKED_TITLE = "from a packed job"
LOOK = again("unpack", "Reading the packed job", _look)


def would_differ(
    job: Job, profile: dict[str, Any], file_format: FileFormat, held: Sequence[Any], data: bytes
) -> list[str]:
    """What would be otherwise in a file of these bytes if it were written today; `held` says which of the job's files it is."""

    def document() -> dict[str, Any]:
        return {**document_of(job), "profile": profile, "format": file_format, "held": list(held)}

    found = here_or_beside(TODAY, document, lambda: _differs(job, profile, file_format, held, data), data)
    told: list[str] = json.loads(found)
    return told


def _differs(job: Job, profile: dict[str, Any], file_format: FileFormat, held: Sequence[Any], data: bytes) -> bytes:
    result = compute(job, profile_from_json(profile), OUTLINES)
    for file in write_files(result, file_format):
        if [file.sheet, file.part, file.operation, file.back] == list(held):
            return json.dumps(differs(data, file.data, file_format)).encode()
    return json.dumps(["It would not be written any more."]).encode()


def _compare(given: Given, tell: Tell) -> bytes:
    tell(0.0, "writing the file anew")
    document = given.document
    job = job_from_json(document["job"])
    return _differs(job, document["profile"], document["format"], document["held"], given.data)


TODAY = again("today", "The file as it would be today", _compare)
