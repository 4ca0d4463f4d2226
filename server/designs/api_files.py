"""Files over HTTP: what a job uses, what leaves it, what is proved and printed of it."""

from __future__ import annotations

from accounts.names import shown_name
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils.http import content_disposition_header
from ground.problems import Problem
from lean_notch.formats.file_kinds import FORMATS
from lean_notch.ground.limits import MOST_DRAWING_BYTES, MOST_PACKED_BYTES
from lean_notch.hand_over.files import slug
from ninja import File, Query, Router, Status, UploadedFile
from tasks.api import TaskOut

from . import (
    files_of_jobs,
    handed_over,
    heavy,
    packed_jobs,
    shown,
    shown_proof,
)
from . import schemas as s
from .answering import (
    Refusals,
    answer_found,
    answer_list,
    answer_shown,
    job_called,
    user_of,
)
from .models import Export

router = Router()


@router.post("/designs/packed", response={201: s.DesignOut, **Refusals})
def unpack_design(request: HttpRequest, file: File[UploadedFile]) -> HttpResponse:
    """A new job from a packed one."""
    return answer_shown(packed_jobs.unpack_design(user_of(request), file.read(MOST_PACKED_BYTES + 1)), 201)


@router.post("/files", response={201: s.KeptFileOut, 422: Problem})
def keep_file(request: HttpRequest, file: File[UploadedFile]) -> Status[s.KeptFileOut]:
    """Keeps a drawing, so that a step may use its outlines."""
    data, title = file.read(MOST_DRAWING_BYTES + 1), file.name or "drawing"
    kept, layers = files_of_jobs.keep_file(user_of(request), title, data)
    return Status(201, shown.show_kept(kept, title, layers))


@router.get("/designs/{design_id}/packed", response={404: Problem, 422: Problem})
def pack_design(request: HttpRequest, design_id: int) -> HttpResponse:
    """The job and the files it uses, as one open file."""
    design = job_called(request, design_id)
    disposition = content_disposition_header(as_attachment=True, filename=f"{slug(design.name)}.lean-notch.zip")
    return HttpResponse(
        packed_jobs.pack_design(design), content_type="application/zip", headers={"Content-Disposition": disposition}
    )


@router.get("/designs/{design_id}/proof", response={200: s.ProofOut, 202: TaskOut, **Refusals})
def read_proof(request: HttpRequest, design_id: int) -> HttpResponse:
    return answer_found(heavy.proof(job_called(request, design_id), user_of(request)))


@router.get("/designs/{design_id}/exports", response={200: list[s.ExportOut], 404: Problem})
def list_exports(request: HttpRequest, design_id: int) -> HttpResponse:
    made = Export.objects.filter(layout__revision__design=job_called(request, design_id)).order_by("-id")
    made = made.select_related("layout__revision").defer("layout__revision__document", "layout__document")[:20]
    return answer_list([shown_proof.show_export(export) for export in made])


@router.post("/designs/{design_id}/exports", response={201: list[s.ExportOut], 202: TaskOut, **Refusals})
def export_design(request: HttpRequest, design_id: int, given: s.ExportIn) -> HttpResponse:
    design = job_called(request, design_id)
    return answer_found(
        heavy.export(design, given.format, given.profile.model_dump(), user_of(request), given.machine), 201
    )


@router.post("/designs/{design_id}/in-files", response={200: s.InFilesOut, 202: TaskOut, **Refusals})
def look_into_files(request: HttpRequest, design_id: int, given: s.ExportIn) -> HttpResponse:
    """What would be written for a receiver; nothing is kept."""
    design = job_called(request, design_id)
    return answer_found(
        heavy.in_files(design, given.format, given.profile.model_dump(), user_of(request), given.machine)
    )


@router.patch("/exports/{export_id}", response={200: s.ExportOut, 404: Problem, 422: Problem})
def tell_outcome(request: HttpRequest, export_id: int, given: s.OutcomeIn) -> s.ExportOut:
    """How a file came out."""
    export = get_object_or_404(Export, id=export_id, layout__revision__design__owner_id=request.user.pk)
    return shown_proof.show_export(handed_over.tell_outcome(export, given.outcome))


@router.get("/exports/{export_id}/today", response={200: s.TodayOut, 404: Problem, 422: Problem})
def compare_with_today(request: HttpRequest, export_id: int) -> s.TodayOut:
    """What would be otherwise in a file if it were written today."""
    export = get_object_or_404(Export, id=export_id, layout__revision__design__owner_id=request.user.pk)
    differs = handed_over.today(export)
    return s.TodayOut(known=differs is not None, differs=list(differs or ()))


@router.get("/exports/{export_id}/file", response={404: Problem, 422: Problem})
def read_file(request: HttpRequest, export_id: int) -> HttpResponse:
    export = get_object_or_404(Export, id=export_id, layout__revision__design__owner_id=request.user.pk)
    kind = FORMATS[export.format].content_type
    disposition = content_disposition_header(as_attachment=True, filename=export.file_name)
    return HttpResponse(handed_over.content_of(export), content_type=kind, headers={"Content-Disposition": disposition})


@router.get("/designs/{design_id}/job-sheet", response={404: Problem, 422: Problem})
def read_job_sheet(request: HttpRequest, design_id: int, given: Query[s.ReaderIn]) -> HttpResponse:
    """As a page to print, its lengths in the reader's unit."""
    design = job_called(request, design_id)
    sheet = heavy.job_sheet(design, shown_name(user_of(request)), given)
    if given.form == "html":
        return HttpResponse(sheet, content_type="text/html; charset=utf-8")
    disposition = content_disposition_header(as_attachment=False, filename=f"{slug(design.name)}_job-sheet.pdf")
    return HttpResponse(sheet, content_type="application/pdf", headers={"Content-Disposition": disposition})


@router.get("/designs/{design_id}/proof-paper", response={200: s.PaperOut, 202: TaskOut, 404: Problem, 422: Problem})
def read_proof_paper(request: HttpRequest, design_id: int, given: Query[s.ReaderIn]) -> HttpResponse:
    """The proof on one page, as PDF."""
    user = user_of(request)
    return answer_found(heavy.proof_paper(job_called(request, design_id), user, shown_name(user), given))


@router.post("/check", response={200: s.CheckOut, 202: TaskOut, 422: Problem})
def check_drawing(request: HttpRequest, file: File[UploadedFile]) -> HttpResponse:
    """Looks for what a cutter would complain about in any SVG or DXF. Nothing is kept once it is answered."""
    return answer_found(heavy.check(file.name or "drawing", file.read(MOST_DRAWING_BYTES + 1), user_of(request)))
