"""Core values as the page shows them: nothing is computed here but what is asked of the core."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from contextlib import suppress
from functools import partial
from typing import Any, cast

from accounts.names import shown_name
from django.utils import timezone
from ground.problems import Problem
from lean_notch.basis import (
    FITS,
    Basis,
    BoardBasis,
    Fit,
    machine_to_json,
    stock_to_json,
)
from lean_notch.basis.settings import Settings, in_use, most_telling, not_used, say_setting
from lean_notch.cutting import CutPath, SheetPlan, estimate, rests_on
from lean_notch.cutting.profile import not_held
from lean_notch.design import BoardNeed, Part
from lean_notch.design import Design as Drawn
from lean_notch.design.sentence import titles_of
from lean_notch.documents import codec
from lean_notch.edits import Edit, edits_to_json, number_in
from lean_notch.formats.svg_path import number, path_data, segments_data
from lean_notch.ground.errors import NotchError
from lean_notch.ground.findings import Finding
from lean_notch.ground.operations import OPERATIONS
from lean_notch.ground.progress import Tell, untold
from lean_notch.ground.remembered import Same
from lean_notch.hand_over.contents import Work, in_files, left_out
from lean_notch.hand_over.files import FILE_FORMATS, FileFormat, file_name, planned_files
from lean_notch.hand_over.job_sheet import Written
from lean_notch.hand_over.reading import read_any
from lean_notch.job import Job, Result
from lean_notch.lengths.figures import Figure
from lean_notch.lengths.units import Unit
from lean_notch.making import Build, Contact, FlatPart, JointFit, Mate, joint_fits, title_of
from lean_notch.nesting import LayoutSettings
from lean_notch.proof import NOT_LOOKED_AT, Proof
from lean_notch.proof.check_file import check_file
from lean_notch.proof.interference import gap_of
from lean_notch.recipes import RECIPES
from lean_notch.test_pieces.trial_pair import fit_field, usual_clearances
from lean_notch.told.another_basis import Change, Trial, changes, moved
from lean_notch.told.ledger import ledger
from lean_notch.told.named_lengths import named_lengths
from lean_notch.told.route import Stop, route
from lean_notch.told.what_breaks import broken
from pydantic import BaseModel, TypeAdapter
from results import release
from workshop.actions import settings_of
from workshop.schemas import MachineValues, StockValues

from . import schemas as out
from . import verdicts
from .actions import head_of, try_edits
from .compute import computed, worked_out
from .fragments import Whole, keep_shown, piece, shown_of
from .models import Design, Export, KeptFile, Revision
from .parts import part_json, path_of
from .today import News, follow_edits, would_follow


def show_design(design: Design, since: int | None = None) -> str:
    """The design as JSON of DesignOut; as JSON of ChangesOut where it is known what revision `since` was shown as."""
    whole = _whole(design)
    before = design.revisions.filter(number=since).only("pk", "saved").first() if since is not None else None
    known = shown_of(before.key) if before else None
    return whole.since(known, since) if known and since is not None else whole.text()


def _whole(design: Design) -> Whole:
    head = head_of(design)
    known = shown_of(head.key)
    if known:
        return Whole(_about(design, head), known.plain, known.lists)
    try:
        result = computed(head.job)
        plain, lists = worked_out(head.job, lambda: (_plain(result), _lists(result)))
    except NotchError as error:
        return _broken(design, head, error)
    whole = Whole(_about(design, head), plain, lists)
    keep_shown(head.key, whole)
    return whole


def show_ahead(result: Result) -> None:
    """What a job's parts are shown as, for whoever it is worked out for."""
    _plain(result)
    _lists(result)


def _plain(result: Result) -> dict[str, str]:
    job, built, layout = result.job, result.build, result.layout
    sheets = [
        out.SheetOut(
            number=sheet.number, board=sheet.board, width=sheet.area.width, height=sheet.area.height,
            file_names={kind: file_name(job, sheet.number, kind, sheet.board) for kind in FILE_FORMATS},
            keep_outs=[out.KeepOutOut(name=one.name, box=one.box) for one in job.basis.of(sheet.board).machine.keep_outs],
        )
        for sheet in layout.sheets
    ]  # fmt: skip
    placed = [
        {
            "part": p.part,
            "copy_number": p.copy,
            "sheet": p.sheet,
            "x": p.motion.x,
            "y": p.motion.y,
            "angle": p.motion.angle,
        }
        for p in layout.placed
    ]
    return {
        **_inputs(job), "lengths": _listed([out.LengthOut.model_validate(one) for one in named_lengths(result)]), "problem": "null", "placed": json.dumps(placed), "sheets": _listed(sheets),
        "findings": _FINDINGS.dump_json((*built.findings, *result.limits)).decode(), "route": _ROUTE.dump_json(route(result)).decode(),
    }  # fmt: skip


def _lists(result: Result) -> dict[str, dict[str, str]]:
    job, built = result.job, result.build
    drawn = job.design
    fits = joint_fits(built.parts, built.mates, job.basis)
    names = names_by_board(result)
    parts = [(part, designed) for part in built.parts if (designed := drawn.part(part.id))]
    return {
        "parts": {part.id: _part_piece(part, one, drawn, names[part.board]) for part, one in parts},
        "standings": {
            one.placement: piece((one,), partial(out.StandingOut.model_validate, one)) for one in built.standings
        },
        "placements": {one.id: piece((one,), partial(codec.write, one, units=True)) for one in drawn.placements},
        "joints": {one.id: piece((one,), partial(codec.write, one, units=True)) for one in drawn.joints},
        "mates": {
            mate.id: piece((mate, fit, built.standing[mate.first.placement], job.basis), partial(show_mate, mate, fit, built, job.basis))
            for mate, fit in zip(built.mates, fits, strict=True)
        },
        "ledger": {
            subject: piece((Same(rows),), partial(_FIGURES.dump_python, rows, mode="json"))
            for subject, rows in ledger(result).items()
        },
    }  # fmt: skip


_FIGURES = TypeAdapter(tuple[Figure, ...])
_FINDINGS = TypeAdapter(tuple[Finding, ...])
_ROUTE = TypeAdapter(tuple[Stop, ...])


def _listed(models: Sequence[BaseModel]) -> str:
    return f"[{','.join(one.model_dump_json() for one in models)}]"


def _about(design: Design, head: Revision) -> dict[str, str]:
    about = {
        "id": design.pk, "name": design.name, "moves": design.moves, "revision": head.number,
        "revisions": design.revisions.count(), "saved": head.saved.isoformat(), "can_undo": head.parent_id is not None,
        "can_redo": head.redo_id is not None,
        "variant_of": _kin(design.variant_of) if design.variant_of and not design.variant_of.removed else None,
        "handed": _handed(head),
        "variants": [_kin(one) for one in design.variants.filter(removed=None).only("name").order_by("id")],
    }  # fmt: skip
    return {name: json.dumps(value) for name, value in about.items()}


def _handed(head: Revision) -> str | None:
    """When files of just this revision were handed over last."""
    made = Export.objects.filter(layout__revision=head).order_by("-id").values_list("made", flat=True).first()
    return made.isoformat() if made else None


def _inputs(job: Job) -> dict[str, str]:
    """What the maker may change of a job, whether or not it can be computed."""
    drawn = job.design
    lengths = [
        out.LengthOut(
            name=d.name, title=d.title, source="chosen" if d.chosen else "computed", text=d.length.text, unit=d.length.unit,
            field=drawn.input_of(d.name),
        )
        for d in drawn.dimensions
    ]  # fmt: skip
    boards = [(board, job.basis.of(board.id), job.settings(board.id)) for board in drawn.boards]
    return {
        "recipe": json.dumps(drawn.origin.recipe if drawn.origin else ""), "answers": _listed(_answers(job)),
        "sets": json.dumps(job.sets), "relief": json.dumps(drawn.relief), "lengths": _listed(lengths),
        "boards": f"[{','.join(_board(*one) for one in boards)}]",
    }  # fmt: skip


def _board(board: BoardNeed, basis: BoardBasis, settings: LayoutSettings) -> str:
    def shown() -> out.BoardOut:
        return out.BoardOut(
            id=board.id, title=board.title, basis=_basis(basis), margin=settings.margin, spacing=settings.spacing,
            quarter_turns=settings.quarter_turns, turned_about=settings.turned_about,
        )  # fmt: skip

    return piece((board, basis, *vars(settings).values()), shown)


def _broken(design: Design, head: Revision, error: NotchError) -> Whole:
    """A job that cannot be computed: its problem, and what there is to mend."""
    nothing: dict[str, object] = {
        "recipe": "", "answers": [], "sets": 1, "relief": "auto", "lengths": [], "boards": [], "placed": [], "sheets": [],
        "findings": [], "route": [],
    }  # fmt: skip
    plain = {name: json.dumps(value) for name, value in nothing.items()}
    with suppress(NotchError):  # where the document itself cannot be read, only the history leads on
        plain |= _inputs(head.job)
    plain["problem"] = Problem(**error.as_json()).model_dump_json()
    lists: dict[str, dict[str, str]] = {
        name: {} for name in ("parts", "standings", "placements", "joints", "mates", "ledger")
    }
    return Whole(_about(design, head), plain, lists)


def _kin(design: Design) -> dict[str, object]:
    return {"id": design.pk, "name": design.name}


def show_history(design: Design, most: int = 500) -> list[out.RevisionOut]:
    """The newest revisions first."""
    head = head_of(design)
    rows = list(
        design.revisions.select_related("by").defer("document", "picture").order_by("-number")[:most]
    )  # fmt: skip
    parents = {row.pk: row.parent_id for row in rows}
    before, here = set[int](), cast("int | None", head.pk)
    while here is not None and here not in before:
        before.add(here)
        here = parents.get(here)
    return [
        out.RevisionOut(
            number=row.number, sentence=row.sentence or ("Started" if row.parent_id is None else "Changed"),
            by=shown_name(row.by), saved=row.saved, before=row.pk in before, shown=row.pk == head.pk,
        )
        for row in rows
    ]  # fmt: skip


def show_trial(trial: Trial, board: str) -> out.TrialOut:
    basis = trial.basis.of(board)
    fits = [joint.fit for joint in trial.joints]
    verdicts = list(dict.fromkeys(fit.verdict for fit in fits))
    return out.TrialOut(
        board=board, stock=basis.stock.name, kind=basis.stock.kind, machine=basis.machine.name, thickness=basis.thickness,
        kerf=basis.kerf, slot=basis.slot, fit=basis.fit, doubts=list(basis.doubts),
        problem=_problem(trial), changes=[show_change(change) for change in trial.changes],
        joints=len(trial.joints), failing=list(trial.failing), verdict=", ".join(verdicts) or basis.finger_fit.verdict,
        wants=trial.wants, warnings=list(dict.fromkeys(warning for fit in fits for warning in fit.warnings)),
        sheets=trial.sheets, used=trial.used, seconds=trial.seconds, area=trial.area, price=trial.price,
    )  # fmt: skip


def show_tried(design: Design, edits: Sequence[Edit], unit: Unit, *, figures: bool = True) -> out.TriedOut:
    """Never raises for what an edit cannot do: that is the answer."""
    try:
        after, changed = try_edits(design, edits, unit, figures=figures)
    except NotchError as error:
        return out.TriedOut(values={}, changes=[], problem=Problem(**error.as_json()))
    result, before = computed(after), computed(head_of(design).job)
    names = names_by_board(result)
    values = {}
    for edit in edits:
        with suppress(NotchError):  # no number stands there
            values[edit.path] = number_in(after.design, edit.path, names)
    old = {part.id: part.region for part in before.build.parts}
    paths = {
        part.id: path for part in result.build.parts
        if old.get(part.id) not in (None, part.region) and len(path := path_of(part.region)) <= MOST_LETTERS
    }  # fmt: skip
    steps = {(part.id, step.id): title_of(step) for part in after.design.parts for step in part.steps}
    moves = [
        out.MovedOut(part=one.part, step=one.step, title=steps[one.part, one.step], dx=one.dx, dy=one.dy)
        for one in moved(before.build, result.build)
        if (one.part, one.step) in steps
    ]
    was = before.build.standing
    stands = [
        out.WouldStandOut(placement=one.placement, corners=list(one.corners))
        for one in result.build.standings if one != was.get(one.placement)
    ]  # fmt: skip
    return out.TriedOut(
        values=values, changes=[show_change(one) for one in changed], paths=paths, moved=moves, stands=stands[:MOST_STAND], problem=None,
        broken=[f"{one.why} {one.fix}" for one in broken(before, result)],
    )  # fmt: skip


MOST_STAND = 60
"""Boards that are shown where they would stand."""

MOST_LETTERS = 200_000
"""Of a part's outline that is shown before it is kept."""


class _Json:
    """A part that is written already."""

    def __init__(self, *of: Any) -> None:
        self.of = of

    def model_dump_json(self) -> str:
        return part_json(*self.of)


def _part_piece(part: FlatPart, designed: Part, drawn: Drawn, names: Mapping[str, float]) -> str:
    titles = titles_of(drawn, designed)
    used = tuple([names.get(name) for name in designed.names])
    others = tuple([other.title for other in drawn.parts]) if designed.made_of_others else ()
    return piece((part, designed, used, others), partial(_Json, part, designed, names, titles), part.id)


def names_by_board(result: Result) -> dict[str, dict[str, float]]:
    """All named lengths, as each board's parts see them."""
    basis = result.job.basis
    return {board.id: {**result.build.names, **basis.names(board.id)} for board in result.job.design.boards}


def show_following(design: Design) -> out.FollowingOut:
    """What following all of it would make of the job."""
    found = would_follow(design)
    return out.FollowingOut(
        revision=head_of(design).number, moves=design.moves, said=said_of(found.news), edits=edits_to_json(follow_edits(found.news)),
        changes=[show_change(one) for one in found.changes[:MOST_CHANGES]], more=max(len(found.changes) - MOST_CHANGES, 0),
        stays=Problem(**found.stays.as_json()) if found.stays else None,
    )  # fmt: skip


def said_of(news: Sequence[News]) -> list[str]:
    """Boards of one stock say the same."""
    return list(dict.fromkeys(one.said for one in news))


def _problem(trial: Trial) -> Problem | None:
    return Problem(**trial.error.as_json()) if trial.error else None


def show_change(change: Change) -> out.ChangeOut:
    return out.ChangeOut(
        subject=change.subject, key=change.after.key, about=change.about, title=change.after.title, kind=change.after.kind,
        before=change.before.value, after=change.after.value,
        word_before=change.before.word, word_after=change.after.word,
    )  # fmt: skip


def _fit(fit: Fit) -> out.FitRangeOut:
    return out.FitRangeOut(
        low=fit.low, high=fit.high, verdict=fit.verdict, wants=fit.wants, loose=fit.loose, tight=fit.tight,
        fails=fit.fails, warnings=list(fit.warnings),
    )  # fmt: skip


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


def show_kept(file: KeptFile, title: str, layers: list[str]) -> out.KeptFileOut:
    """With the layers that its closed outlines lie on."""
    return out.KeptFileOut(name=file.name, title=title[:200], size=file.size, layers=layers)


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


MOST_CHANGES = 12


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


def _answers(job: Job) -> list[out.AnswerOut]:
    """The recipe's questions with this job's answers."""
    origin = job.design.origin
    recipe = RECIPES.get(origin.recipe) if origin else None
    shown = []
    for setting in recipe.settings if recipe else ():
        answer = origin.answer(setting.name) if origin else None
        typed, unit = (answer.text, answer.unit) if answer else (setting.default, "mm")
        shown.append(out.AnswerOut(setting=setting, typed=typed, unit=unit))
    return shown


def _basis(basis: BoardBasis) -> out.BasisOut:
    return out.BasisOut(
        stock=StockValues(**stock_to_json(basis.stock)),
        machine=MachineValues(**machine_to_json(basis.machine)),
        clearance=basis.clearance,
        fit=basis.fit,
        thickness=basis.thickness,
        thin=basis.stock.readings.thin,
        thick=basis.stock.readings.thick,
        slot=basis.slot,
        slot_drawn=basis.slot_drawn,
        fits=[out.FitOut(name=name, clearance=getattr(basis.fits, name)) for name in FITS],
        finger_fit=_fit(basis.finger_fit),
        slot_fit=_fit(basis.slot_fit),
        doubts=list(basis.doubts),
        warnings=list(basis.stock.readings.warnings),
        outliers=list(basis.stock.readings.outliers),
    )


def show_mate(mate: Mate, joint: JointFit, built: Build, basis: Basis) -> out.MateOut:
    standing, strip = built.standing[mate.first.placement], mate.meeting.first
    gap = gap_of(mate, built, basis)
    start, end = (
        standing.frame.at(strip.point(position, (strip.low + strip.high) / 2), standing.thickness / 2)
        for position in (0.0, mate.meeting.length)
    )
    return out.MateOut(
        id=mate.id, title=mate.title, kind=mate.kind, about=mate.about, inner=mate.inner, outer=mate.outer,
        first=out.MemberOut.model_validate(mate.first), second=out.MemberOut.model_validate(mate.second),
        start=start, end=end, contacts=_contacts(mate), fit=_fit(joint.fit), proud=joint.proud,
        angle=mate.meeting.angle, gap=out.GapOut.model_validate(gap) if gap else None,
        fit_field=fit_field(mate, built), trial=usual_clearances(mate),
    )  # fmt: skip


def _contacts(mate: Mate) -> list[out.ContactOut]:
    """Contacts that are alike as one."""
    alike: dict[tuple[object, ...], list[Contact]] = {}
    for one in mate.contacts:
        key = (one.inner_part, one.outer.part, one.inner is None, round(one.width, 6), round(one.clearance, 6))
        alike.setdefault(key, []).append(one)
    return [
        out.ContactOut(
            count=len(some), inner_part=some[0].inner_part, outer_part=some[0].outer.part,
            by_thickness=some[0].inner is None, width=some[0].width, clearance=some[0].clearance, depth=some[0].depth,
            through=some[0].through,
        )
        for some in alike.values()
    ]  # fmt: skip


def _finished(proof: Proof) -> dict[int, list[str]]:
    shown = {}
    for sheet, pieces in proof.pieces.items():
        polygons = [polygon for piece in pieces for polygon in getattr(piece, "geoms", [piece]) if not piece.is_empty]
        shown[sheet] = ["".join(_loop(ring.coords) for ring in (p.exterior, *p.interiors)) for p in polygons]
    return shown


def _loop(points: list[tuple[float, float]]) -> str:
    return "M" + "L".join(f"{number(x)} {number(y)}" for x, y in points[:-1]) + "Z"
