"""Proofs, drawings that were checked, and files that were handed over, as the page gets them."""

from __future__ import annotations

from collections.abc import Mapping
from typing import cast

from django.utils import timezone
from lean_notch.basis import (
    BoardBasis,
)
from lean_notch.basis.settings import Settings, in_use, most_telling, not_used, say_setting
from lean_notch.cutting import CutPath, SheetPlan, estimate, rests_on
from lean_notch.formats.file_kinds import not_held
from lean_notch.formats.svg_path import number, path_data, segments_data
from lean_notch.ground.operations import OPERATIONS
from lean_notch.ground.progress import Tell, untold
from lean_notch.hand_over.contents import Work, in_files, left_out
from lean_notch.hand_over.files import FileFormat, planned_files
from lean_notch.hand_over.job_sheet import Written
from lean_notch.hand_over.reading import read_any
from lean_notch.job import Job, Result
from lean_notch.proof import NOT_LOOKED_AT, Proof
from lean_notch.proof.check_file import check_file
from lean_notch.told.another_basis import changes
from lean_notch.told.route import route
from results import release
from workshop.actions import settings_of

from . import schemas as out
from . import verdicts
from .compute import computed
from .models import Export, Revision
from .shown_changes import MOST_CHANGES, show_change

Told = Mapping[str, Settings]


def show_proof(job: Job, proof: Proof, told: Told) -> out.ProofFound:
    result, used = computed(job), _in_use(job, told)
    boards = {sheet.number: sheet.board for sheet in result.layout.sheets}
    return out.ProofFound(
        fits=proof.fits, verdict=proof.verdict, provided=proof.provided, sentence=proof.sentence,
        not_looked_at=NOT_LOOKED_AT, findings=proof.findings, parts=proof.parts, mates=proof.mates,
        paths={sheet.number: [_cut_path(p) for p in sheet.paths] for sheet in result.plan.sheets},
        finished=_finished(proof), tested=proof.tested, close_ups=proof.close_ups, as_cut=dict(proof.as_cut),
        times=[
            _time(sheet, job.basis.of(board := boards[sheet.number]), used[board]) for sheet in result.plan.sheets
        ],
        times_rest_on=rests_on((basis, used[board]) for board, basis in job.basis.boards),
        said=proof.said, route=route(result, proof.said),
    )  # fmt: skip


def told_settings(job: Job) -> Told:
    """By board, the settings to look at for it on its machine."""
    return {
        board: most_telling(settings_of(basis.machine.id), basis.stock, basis.machine)
        for board, basis in job.basis.boards
    }


def _in_use(job: Job, told: Told) -> Told:
    return {board: in_use(told[board], basis.stock, basis.machine) for board, basis in job.basis.boards}


def written_of(head: Revision, maker: str) -> Written:
    """Where a page about a revision comes from, with the newest files of it by sheet (0: of parts), and what the proof of each
    said."""
    files: dict[int, dict[tuple[str, str], str]] = {}
    made = (
        Export.objects.filter(layout__revision=head)
        .order_by("-id")
        .values_list("sheet", "file_name", "receiver", "proof", "sha256")
    )[:MOST_NAMED]
    for sheet, name, receiver, proof, sha256 in made:
        said = proof["sentence"] if proof and sha256 else "not read back"
        files.setdefault(sheet, {}).setdefault((name, receiver), said)
    several = len({receiver for _, _, receiver, _, _ in made}) > 1
    saved = timezone.localtime(head.saved).date().isoformat()
    named = {
        sheet: [
            f"{name}{f', for {receiver}' if several and receiver else ''} ({said})"
            for (name, receiver), said in some.items()
        ]
        for sheet, some in files.items()
    }
    return Written(maker, head.number, saved, verdicts.said(verdicts.known(head)), named)


MOST_NAMED = 50


def show_check(name: str, data: bytes, tell: Tell = untold) -> out.CheckOut:
    file = read_any(data, name)
    report = check_file(file, tell=tell)
    return out.CheckOut(
        name=name,
        unit=report.unit,
        page=report.page,
        box=report.box,
        sound=report.sound,
        layers=report.layers,
        findings=report.findings,
        lines=[
            out.DrawnOut(layer=path.layer, closed=path.closed, path=segments_data(path.segments)) for path in file.paths
        ],
    )


def _cut_path(path: CutPath) -> out.CutPathOut:
    data = "".join(path_data(shape) for shape in (path.shape, *path.holes))
    return out.CutPathOut(part=path.part, copy_number=path.copy, operation=path.operation, inner=path.inner, path=data)


def _time(sheet: SheetPlan, basis: BoardBasis, settings: Settings) -> out.SheetTimeOut:
    time = estimate(sheet, basis, settings)
    return out.SheetTimeOut(
        number=sheet.number,
        seconds=time.total,
        work=[
            out.WorkOut(
                operation=operation, title=title, seconds=time.by_operation[operation],
                paths=sum(path.operation == operation for path in sheet.work),
                length=sum(path.length for path in sheet.work if path.operation == operation),
            )
            for operation, title in OPERATIONS.items()
            if operation in time.by_operation
        ],
        by_part=dict(time.by_part),
        travel_seconds=time.travel,
        travel=sheet.travel,
        travel_unordered=sheet.travel_unordered,
    )  # fmt: skip


def show_planned(own: Result, other: Result) -> out.PlannedOut:
    """What another machine makes otherwise of a job."""
    machine = other.job.basis.of(other.job.design.boards[0].id).machine
    stops = tuple(one for one in (*other.build.findings, *other.plan.findings) if one.severity == "stop")
    return out.PlannedOut(
        machine=machine.name, kind=machine.kind, tool=machine.tool, kerf=machine.kerf,
        changes=[show_change(one) for one in changes(own, other)[:MOST_CHANGES]], findings=stops[:MOST_CHANGES],
    )  # fmt: skip


def show_in_files(
    result: Result, file_format: FileFormat, told: Told, anew: out.PlannedOut | None = None
) -> out.InFilesOut:
    """With what each board's machine was set to before, where its log knows."""
    basis, used = result.job.basis, _in_use(result.job, told)
    files = []
    for planned, one in zip(planned_files(result, file_format), in_files(result, file_format, used), strict=True):
        board = basis.of(planned.board)
        works = [_work_in_file(work, told[planned.board], board) for work in one.works]
        files.append(
            out.InFileOut(
                name=one.name, sheet=one.sheet, width=one.width, height=one.height, origin=one.origin, y_down=one.y_down,
                works=works, outlines=one.outlines, seconds=one.seconds,
            )
        )  # fmt: skip
    rest = rests_on((one, used[board]) for board, one in basis.boards)
    held = not_held(result.profile, file_format)
    return out.InFilesOut(files=files, left_out=left_out(result), times_rest_on=rest, not_held=held, planned=anew)


def _work_in_file(work: Work, told: Settings, basis: BoardBasis) -> out.WorkInFile:
    setting = told.get(work.operation)
    first = work.paths[0].shape.segments[0].start
    return out.WorkInFile(
        operation=work.operation, layer=work.layer, colour=work.colour, paths=len(work.paths), openings=work.openings,
        length=work.length, seconds=work.seconds, at=first,
        data="".join(path_data(shape) for path in work.paths for shape in (path.shape, *path.holes)),
        setting=say_setting(setting) if setting else "", setting_result=setting.result if setting else "",
        setting_date=setting.date if setting else "",
        setting_not_used=not_used(setting, basis.stock, basis.machine) if setting else "",
    )  # fmt: skip


def show_export(export: Export) -> out.ExportOut:
    return out.ExportOut(
        id=export.id,
        sheet=export.sheet,
        format=cast(FileFormat, export.format),
        file_name=export.file_name,
        bytes=len(export.data),
        made=export.made,
        revision=export.layout.revision.number,
        proof=_file_verdict(export.proof),
        sha256=export.sha256,
        older=not export.proof or export.proof.get("release") != release.core(),
        receiver=export.receiver,
        outcome=export.outcome,
    )


def _file_verdict(known: verdicts.Verdict | None) -> out.FileVerdictOut | None:
    if not known:
        return None
    found = known.get("found", ())
    said = {name: known[name] for name in out.VerdictOut.model_fields}
    lists = {
        f"{key}s" if key == "stop" else key: [why for kind, why in found if kind == key] for key in ("stop", "unseen")
    }
    return out.FileVerdictOut.model_validate(said | lists)


def show_verdict(known: verdicts.Verdict | None) -> out.VerdictOut | None:
    return out.VerdictOut.model_validate({name: known[name] for name in out.VerdictOut.model_fields}) if known else None


def _finished(proof: Proof) -> dict[int, list[str]]:
    shown = {}
    for sheet, pieces in proof.pieces.items():
        polygons = [polygon for piece in pieces for polygon in getattr(piece, "geoms", [piece]) if not piece.is_empty]
        shown[sheet] = ["".join(_loop(ring.coords) for ring in (p.exterior, *p.interiors)) for p in polygons]
    return shown


def _loop(points: list[tuple[float, float]]) -> str:
    return "M" + "L".join(f"{number(x)} {number(y)}" for x, y in points[:-1]) + "Z"
