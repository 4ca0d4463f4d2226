"""What of a design may take long: proofs, checks of drawings, exports. Quick ones are done at once, by the core's own estimate;
the others become tasks beside the server, and what comes of them is answered as if it had been done at once."""

from __future__ import annotations

import base64
import json
from collections.abc import Sequence
from dataclasses import asdict
from typing import Any

from django.contrib.auth.models import User
from lean_notch.basis.settings import setting_from_json, setting_to_json
from lean_notch.cutting import profile_from_json
from lean_notch.formats.paper import PageSize, page_size
from lean_notch.ground.elsewhere import keeping
from lean_notch.ground.findings import Finding
from lean_notch.ground.progress import Tell, between
from lean_notch.hand_over.effort import QUICK_SECONDS, check_seconds, export_seconds, proof_seconds
from lean_notch.hand_over.files import FileFormat, OutFile, slug, write_files
from lean_notch.hand_over.job_sheet import Written
from lean_notch.hand_over.proof_paper import proof_paper as make_proof_paper
from lean_notch.hand_over.proving import FileProof, prove_files, prove_job
from lean_notch.job import Job, compute, job_from_json, job_to_json
from lean_notch.proof import Proof, Said
from results import store
from tasks.actions import RUNNING, found
from tasks.kinds import Given, Kind, Write, register
from tasks.models import Task
from workshop.actions import settings_of

from . import actions, again, carried, handed_over, never_today, shown, shown_proof, verdicts
from .compute import OUTLINES, PATIENCE_SECONDS, WORK_OUT, computed, document_of, known_proof, proved
from .compute import again as again_kind
from .models import Design, Revision
from .pictures import keep_picture
from .schemas.asked import ReaderIn

READ_SHARE = 0.3
"""How much of a proof's time the proof of a file takes where its plan was proved just before (docs/benchmarks.md)."""

Found = bytes | Task
"""An answer, or what will give it."""


def proof(design: Design, owner: User) -> Found:
    """The proof of the design as it is, as JSON of ProofOut. Raises NotchError."""
    head = actions.head_of(design)
    job = head.job
    keep_picture(head)
    told = shown_proof.told_settings(job)
    document = {**document_of(job), "settings": _settings_json(told)}
    inputs = store.inputs_of(document)
    answer = store.find(PROOF.name, inputs)
    if answer is None:
        seconds = proof_seconds(computed(job))
        if _beside(seconds) and known_proof(job) is None:
            asked = found(owner, PROOF, f"job {design.pk}", document, seconds=seconds)
            if isinstance(asked, Task):
                return asked
            answer = asked
        else:
            answer = _proof_out(job, proved(job), told)
            store.keep_if_possible(PROOF.name, inputs, answer)
    if verdicts.known(head) is None:
        verdicts.keep(head, Said(**json.loads(answer)["said"]))
    return _with_state(answer, head, design.moves)


def proof_paper(design: Design, owner: User, maker: str, given: ReaderIn) -> Found:
    """The proof on one page, as JSON of PaperOut. Raises NotchError."""
    head = actions.head_of(design)
    job = head.job
    size = page_size(given.paper)  # a page that is too small is told before anything is proved
    seconds = proof_seconds(computed(job))
    if not _beside(seconds) or known_proof(job):
        made = proved(job)
        verdicts.keep(head, made.said)
        return _paper_out(job, made, shown_proof.written_of(head, maker), given, size)
    document = {
        **document_of(job),
        "written": asdict(shown_proof.written_of(head, maker)),
        "reader": given.model_dump(),
    }
    return found(owner, PAPER, f"job {design.pk}", document, seconds=seconds)


def job_sheet(design: Design, maker: str, given: ReaderIn) -> bytes:
    """As a page to print, or as PDF. Raises NotchError, Beside."""
    head = actions.head_of(design)
    job = head.job
    settings = {board.id: settings_of(job.basis.of(board.id).machine.id) for board in job.design.boards}
    return again.job_sheet_of(job, settings, shown_proof.written_of(head, maker), given)


def check(name: str, data: bytes, owner: User) -> Found:
    """What a drawing holds and what is wrong with it, as JSON of CheckOut. Raises NotchError."""
    if not _beside(check_seconds(data)):
        return shown_proof.show_check(name, data).model_dump_json().encode()
    return found(owner, CHECK, "drawing", {"name": name}, data)


def export(
    design: Design, file_format: FileFormat, profile: dict[str, Any], owner: User, machine: int | None = None
) -> Found:  # fmt: skip
    """Files written and kept, as JSON of a list of ExportOut, for the job's own machine or planned anew for another. Raises
    NotchError."""
    head = actions.head_of(design)
    job = handed_over.job_for(head.job, machine)
    never_today.refuse_never_today(job)
    now = computed(job)
    # What was measured of the plan here holds for the file: what is left is to read it.
    proving = proof_seconds(now) * (READ_SHARE if known_proof(job) else 1.0)
    seconds = export_seconds(now, file_format) + proving
    if not _beside(seconds, always=file_format == "pdf"):
        result = compute(job, profile_from_json(profile), OUTLINES)
        files = write_files(result, file_format)
        return _kept(head, file_format, files, prove_files(result, files, file_format).files, profile, machine)
    document = {
        **document_of(job),
        "format": file_format,
        "profile": profile,
        "revision": head.pk,
        "machine": machine,
    }
    return found(owner, EXPORT, f"job {design.pk}", document, seconds=seconds)


def in_files(
    design: Design, file_format: FileFormat, profile: dict[str, Any], owner: User, machine: int | None = None
) -> Found:  # fmt: skip
    """What the files for a receiver hold, as JSON of InFilesOut. Nothing is kept. Raises NotchError."""
    own = actions.head_of(design).job
    job = handed_over.job_for(own, machine)
    never_today.refuse_never_today(job)
    told = shown_proof.told_settings(job)
    if not _beside(export_seconds(computed(job), file_format)):
        return _in_files(job, own, profile, file_format, told)
    document = {
        **document_of(job), "own": job_to_json(own), "format": file_format, "profile": profile,
        "settings": _settings_json(told),
    }  # fmt: skip
    return found(owner, IN_FILES, f"job {design.pk}", document)


def _in_files(job: Job, own: Job, profile: dict[str, Any], file_format: FileFormat, told: shown_proof.Told) -> bytes:
    result = compute(job, profile_from_json(profile), OUTLINES)
    planned = shown_proof.show_planned(computed(own), result) if job != own else None
    return shown_proof.show_in_files(result, file_format, told, planned).model_dump_json().encode()


def _compute_in_files(given: Given, tell: Tell) -> bytes:
    tell(0.0, "planning the cuts")
    document = given.document
    job, own = (job_from_json(document[name]) for name in ("job", "own"))
    return _in_files(job, own, document["profile"], document["format"], _settings(document["settings"]))


def _settings_json(told: shown_proof.Told) -> dict[str, Any]:
    return {board: {name: setting_to_json(one) for name, one in some.items()} for board, some in told.items()}


def _settings(document: dict[str, Any]) -> shown_proof.Told:
    return {board: {name: setting_from_json(one) for name, one in some.items()} for board, some in document.items()}


def _beside(seconds: float, *, always: bool = False) -> bool:
    """Whether something is done in a child; PDF is read there `always`, by a library that is not ours."""
    return RUNNING.pool is not None and (always or seconds > QUICK_SECONDS)


def _compute_proof(given: Given, tell: Tell) -> bytes:
    job = job_from_json(given.document["job"])
    tell(0.0, "building the parts")
    return _proof_out(job, prove_job(computed(job), tell=tell), _settings(given.document["settings"]))


def _proof_out(job: Job, proof: Proof, told: shown_proof.Told) -> bytes:
    return shown_proof.show_proof(job, proof, told).model_dump_json().encode()


def _compute_paper(given: Given, tell: Tell) -> bytes:
    document = given.document
    reader, job = ReaderIn(**document["reader"]), job_from_json(document["job"])
    written = Written(**{**document["written"], "files": {}})
    tell(0.0, "building the parts")
    return _paper_out(job, prove_job(computed(job), tell=tell), written, reader, page_size(reader.paper))


def _paper_out(job: Job, proof: Proof, written: Written, given: ReaderIn, size: PageSize) -> bytes:
    from lean_notch.formats.paper_pdf import write_pdf_paper  # what it needs is large, and seldom asked for

    data = write_pdf_paper(make_proof_paper(computed(job), proof, written, given.reader), size)
    name = f"{slug(job.design.name)}_revision-{written.revision}_proof.pdf"
    return json.dumps({"name": name, "data": base64.b64encode(data).decode()}).encode()


def _work_out(given: Given, tell: Tell) -> bytes:
    """All that is made and shown of a job's parts, for the server to put together."""
    tell(0.0, "building the parts")
    with keeping() as made:
        result = computed(job_from_json(given.document["job"]))
        tell(0.7, "drawing the parts")
        shown.show_ahead(result)
    return carried.written(made)


def _with_state(answer: bytes, head: Revision, moves: int) -> bytes:
    """A proof is of a job; which revision it was asked for of, and when it was first proved, is added to it."""
    said = verdicts.known(head)
    assert said, "it was kept just now, at least here"
    state = {"moves": moves, "revision": head.number, "at": said["at"]}
    return answer[:-1] + b"," + json.dumps(state).encode()[1:]


def _compute_check(given: Given, tell: Tell) -> bytes:
    tell(0.0, "reading the drawing")
    return shown_proof.show_check(given.document["name"], given.data, tell).model_dump_json().encode()


def _compute_export(given: Given, tell: Tell) -> bytes:
    document = given.document
    tell(0.0, "planning the cuts")
    result = compute(job_from_json(document["job"]), profile_from_json(document["profile"]), OUTLINES)
    _ = result.plan
    tell(0.2, "writing the files")
    files = write_files(result, document["format"])
    proofs = prove_files(result, files, document["format"], between(tell, 0.3, 1.0)).files
    return json.dumps(
        [
            {**asdict(one), "data": base64.b64encode(one.data).decode(), "proof": asdict(proof)}
            for one, proof in zip(files, proofs, strict=True)
        ]
    ).encode()


def _keep_export(task: Task, answer: bytes) -> Write:
    rows, given = json.loads(answer), task.given
    proofs = [_file_proof(row.pop("proof")) for row in rows]
    files = [OutFile(**{**row, "data": base64.b64decode(row["data"])}) for row in rows]
    revision = Revision.objects.get(pk=given["revision"])
    _ = computed(revision.job)  # where its parts lay is kept too: known before anything is written
    return lambda: _kept(revision, given["format"], files, proofs, given["profile"], given.get("machine"))


def _file_proof(document: dict[str, Any]) -> FileProof:
    findings = tuple(Finding(one["code"], one["severity"], one["why"], one["fix"]) for one in document["findings"])
    return FileProof(document["name"], document["sha256"], Said(**document["said"]), findings)


def _kept(
    revision: Revision, file_format: FileFormat, files: Sequence[OutFile], proofs: Sequence[FileProof], profile: dict[str, Any],
    machine: int | None,
) -> bytes:  # fmt: skip
    exports = handed_over.keep_exports(revision, file_format, files, proofs, profile, machine)
    return json.dumps([json.loads(shown_proof.show_export(one).model_dump_json()) for one in exports]).encode()


again_kind(WORK_OUT, "Working out the parts", _work_out)
PROOF = register(Kind("proof", "The proof", 60.0, _compute_proof, stored=True, patience=PATIENCE_SECONDS))
CHECK = register(Kind("check", "The check of that drawing", 9.0, _compute_check, once=True))
PAPER = register(Kind("paper", "The proof on paper", 60.0, _compute_paper, stored=True))
IN_FILES = register(
    Kind("in-files", "What is in the files", 60.0, _compute_in_files, stored=True, patience=PATIENCE_SECONDS)
)
EXPORT = register(Kind("export", "Writing the files", 60.0, _compute_export, _keep_export))
