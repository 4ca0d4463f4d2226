"""A core result as the API's schemas: reading off, no rule of the job."""

from __future__ import annotations

from dataclasses import asdict
from functools import lru_cache
from typing import Any, cast

from config.problems import Problem
from lean_notch.basis import (
    DIRECTIONS,
    FITS,
    MACHINE_KINDS,
    STOCK_KINDS,
    USUAL_SPEEDS,
    Fit,
    Speeds,
    machine_to_json,
    stock_to_json,
)
from lean_notch.basis.comb import FEELS
from lean_notch.basis.settings import RESULTS
from lean_notch.build import FlatMark, FlatPart, Mate, Member
from lean_notch.build.fit import JointFit, joint_fits
from lean_notch.cutting import CutPath, SheetPlan, estimate
from lean_notch.design import MARK_LENGTHS, RELIEFS, Mark, Part, mark_to_json
from lean_notch.formats.svg_path import number, path_data, segments_data
from lean_notch.geometry import Region, flatten
from lean_notch.job import FILE_FORMATS, Result, file_name, read_any
from lean_notch.job_sheet import job_sheet
from lean_notch.ledger import ledger
from lean_notch.lettering import FONTS, SINGLE_STROKE
from lean_notch.operations import OPERATIONS
from lean_notch.proof import Proof
from lean_notch.proof.check_file import check_file
from lean_notch.recipes import RECIPES, Recipe
from lean_notch.route import route
from lean_notch.trial import Change, Trial
from lean_notch.units import Length
from workshop.actions import settings_of
from workshop.models import Stock
from workshop.schemas import MachineValues, SpeedValues, StockValues

from . import schemas as out
from .actions import News, head_of, news_of, try_swaps
from .compute import computed, proved
from .models import Design, Export

DRAWN_CHORD_MM = 0.05
"""Fine enough for a drawing of the assembled object."""


def show_design(design: Design) -> out.DesignOut:
    head = head_of(design)
    result = computed(head.job)
    job, rows = result.job, ledger(result)
    return out.DesignOut(
        id=design.id,
        name=design.name,
        moves=design.moves,
        revision=head.number,
        revisions=design.revisions.count(),
        saved=head.saved,
        can_undo=head.parent_id is not None,
        can_redo=head.redo_id is not None,
        recipe=job.design.recipe,
        settings=_settings(RECIPES.get(job.design.recipe), dict(job.design.settings)),
        quarter_turns=job.settings.quarter_turns,
        relief=job.design.relief,
        basis=_basis(result),
        parts=[_part(part, one) for part, one in zip(result.build.parts, job.design.parts, strict=True)],
        mates=[_mate(*pair) for pair in zip(result.build.mates, joint_fits(result.build, job.basis), strict=True)],
        placed=[
            out.PlacedOut(
                part=p.part, copy_number=p.copy, sheet=p.sheet,
                x=p.placement.x, y=p.placement.y, angle=p.placement.angle,
            )
            for p in result.layout.placed
        ],
        sheets=[
            out.SheetOut(
                number=number, width=result.layout.area.width, height=result.layout.area.height,
                file_names={kind: file_name(job, number, kind) for kind in FILE_FORMATS},
                keep_outs=[out.KeepOutOut(name=one.name, box=one.box) for one in job.basis.machine.keep_outs],
            )
            for number in range(1, result.layout.sheets + 1)
        ],
        ledger=rows,
        route=[out.StopOut.model_validate(stop) for stop in route(result)],
        variant_of=_kin(design.variant_of) if design.variant_of and not design.variant_of.removed else None,
        variants=[_kin(variant) for variant in design.variants.filter(removed=None).order_by("id")],
    )  # fmt: skip


def _kin(design: Design) -> out.Kin:
    return out.Kin(id=design.id, name=design.name)


def show_trial(trial: Trial) -> out.TrialOut:
    basis = trial.basis
    return out.TrialOut(
        stock=basis.stock.name, kind=basis.stock.kind, machine=basis.machine.name, thickness=basis.thickness,
        kerf=basis.kerf, slot=basis.slot, fit=basis.fit, doubts=list(basis.doubts),
        problem=_problem(trial), changes=[_change(change) for change in trial.changes],
        joints=len(trial.joints), failing=list(trial.failing), verdict=basis.finger_fit.verdict, wants=trial.wants,
        warnings=list(basis.finger_fit.warnings) if trial.joints else [],
        sheets=trial.sheets, used=trial.used, seconds=trial.seconds, area=trial.area, price=trial.price,
    )  # fmt: skip


def show_news(design: Design) -> list[out.NewsOut]:
    news = news_of(design)
    trials = try_swaps(design, [one.swap for one in news])
    return [_news(one, trial, design) for one, trial in zip(news, trials, strict=True)]


def _news(one: News, trial: Trial, design: Design) -> out.NewsOut:
    about: dict[str, Any] = {"of": "machine"}
    if isinstance(one.row, Stock):
        was = head_of(design).job.basis.stock.measured
        measured = one.row.document["measured"]
        about = {"of": "board", "measured": measured, "was_measured": was, "thickness": one.row.thickness}
    changes = [_change(change) for change in trial.changes]
    return out.NewsOut(id=one.row.pk, what=list(one.what), changes=changes, problem=_problem(trial), **about)


def _problem(trial: Trial) -> Problem | None:
    return Problem(**trial.error.as_json()) if trial.error else None


def _change(change: Change) -> out.ChangeOut:
    return out.ChangeOut(
        about=change.about, title=change.after.title, kind=change.after.kind,
        before=change.before.value, after=change.after.value,
        word_before=change.before.word, word_after=change.after.word,
    )  # fmt: skip


def _fit(fit: Fit) -> out.FitRangeOut:
    return out.FitRangeOut(
        low=fit.low, high=fit.high, verdict=fit.verdict, wants=fit.wants, loose=fit.loose, tight=fit.tight,
        fails=fit.fails, warnings=list(fit.warnings),
    )  # fmt: skip


def show_card(design: Design) -> out.DesignCard:
    head = head_of(design)
    result = computed(head.job)
    return out.DesignCard(
        id=design.id,
        name=design.name,
        changed=design.changed,
        revision=head.number,
        stock=result.job.basis.stock.name,
        thickness=result.job.basis.thickness,
        variant_of=design.variant_of.name if design.variant_of else "",
        news=[what for one in news_of(design) for what in one.what],
        silhouettes=[
            out.Silhouette(path=_path(part.region), box=part.region.box, quantity=part.quantity)
            for part in result.build.parts
        ],
    )


def show_proof(design: Design) -> out.ProofOut:
    job = head_of(design).job
    result, proof = computed(job), proved(job)
    return out.ProofOut(
        moves=design.moves,
        fits=proof.fits,
        findings=[out.FindingOut.model_validate(finding) for finding in proof.findings],
        parts=[
            out.PartProofOut(
                part=p.part, copy_number=p.copy, sheet=p.sheet,
                edge=p.edge, corner=p.corner, inside_corner=p.inside_corner, ok=p.ok,
            )
            for p in proof.parts
        ],
        mates=[out.MateProofOut.model_validate(mate) for mate in proof.mates],
        paths={
            sheet.number: [
                _cut_path(p) for p in sheet.paths
            ]
            for sheet in result.plan.sheets
        },
        finished=_finished(proof),
        times=[_time(sheet, job.basis.machine.usual) for sheet in result.plan.sheets],
        own_speeds=job.basis.machine.speeds is not None,
        route=[out.StopOut.model_validate(stop) for stop in route(result, proof)],
    )  # fmt: skip


def show_job_sheet(design: Design) -> str:
    job = head_of(design).job
    return job_sheet(computed(job), settings_of(job.basis.machine.id))


def show_check(name: str, data: bytes) -> out.CheckOut:
    file = read_any(data, name)
    report = check_file(file)
    return out.CheckOut(
        name=name,
        unit=report.unit,
        page=report.page,
        box=report.box,
        sound=report.sound,
        layers=[out.LayerCountOut.model_validate(row) for row in report.layers],
        findings=[out.FindingOut.model_validate(finding) for finding in report.findings],
        lines=[
            out.DrawnOut(layer=path.layer, closed=path.closed, path=segments_data(path.segments)) for path in file.paths
        ],
    )


def _cut_path(path: CutPath) -> out.CutPathOut:
    data = "".join(path_data(shape) for shape in (path.shape, *path.holes))
    return out.CutPathOut(part=path.part, copy_number=path.copy, operation=path.operation, inner=path.inner, path=data)


def _time(sheet: SheetPlan, speeds: Speeds) -> out.SheetTimeOut:
    time = estimate(sheet, speeds)
    return out.SheetTimeOut(
        number=sheet.number,
        seconds=time.total,
        work=[
            out.WorkOut(
                operation=operation, title=title, seconds=time.by_operation[operation],
                paths=sum(path.operation == operation for path in sheet.paths),
                length=sum(path.length for path in sheet.paths if path.operation == operation),
            )
            for operation, title in OPERATIONS.items()
            if operation in time.by_operation
        ],
        by_part=dict(time.by_part),
        travel_seconds=time.travel,
        travel=sheet.travel,
        travel_unordered=sheet.travel_unordered,
    )  # fmt: skip


def show_export(export: Export) -> out.ExportOut:
    return out.ExportOut(
        id=export.id,
        sheet=export.sheet,
        format=cast(out.FileFormat, export.format),
        file_name=export.file_name,
        bytes=len(export.data),
        made=export.made,
    )


def show_choices() -> out.ChoicesOut:
    return out.ChoicesOut(
        recipes=[
            out.RecipeOut(name=r.name, title=r.title, about=r.about, settings=_settings(r, {}))
            for r in RECIPES.values()
        ],
        directions=list(DIRECTIONS),
        feels=list(FEELS),
        results=list(RESULTS),
        stock_kinds=list(STOCK_KINDS),
        machine_kinds=list(MACHINE_KINDS),
        usual_speeds={kind: SpeedValues(**asdict(speeds)) for kind, speeds in USUAL_SPEEDS.items()},
        fonts=[*FONTS, SINGLE_STROKE],
        reliefs=list(RELIEFS),
        operations=dict(OPERATIONS),
        mark_lengths={kind: list(names) for kind, names in MARK_LENGTHS.items()},
    )


def _settings(recipe: Recipe | None, given: dict[str, Length | str]) -> list[out.SettingOut]:
    shown = []
    for setting in recipe.settings if recipe else ():
        value = given.get(setting.name, setting.default)
        typed, unit = (value.text, value.unit) if isinstance(value, Length) else (value, "mm")
        shown.append(out.SettingOut(**asdict(setting), typed=typed, unit=unit))
    return shown


def _basis(result: Result) -> out.BasisOut:
    basis = result.job.basis
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


def _part(part: FlatPart, designed: Part) -> out.PartOut:
    standing = part.standing
    drawn = {mark.id: _mark_path(mark) for mark in part.marks}
    return out.PartOut(
        id=part.id,
        title=part.title,
        quantity=part.quantity,
        path=_path(part.region),
        outline=_outline(part.region),
        box=part.region.box,
        origin=standing.origin,
        u=standing.u,
        v=standing.v,
        n=standing.n,
        thickness=standing.thickness,
        marks=[
            out.MarkOut(
                id=mark.id,
                operation=mark.operation,
                path=drawn.get(mark.id, ""),
                document=_mark_document(mark),
            )
            for mark in designed.marks
        ],
        corners=[out.CornerIn(corner=c.corner, shape=c.shape, size=_typed(c.size)) for c in designed.corners],
    )


def _mark_document(mark: Mark) -> out.MarkIn:
    """With every length in the unit it was typed in, so that it can be sent back whatever the page's unit is."""
    lengths = {name: _typed(value) for name, value in mark.lengths}
    return out.MarkIn.model_validate({**mark_to_json(mark), "lengths": lengths})


def _typed(length: Length) -> out.LengthValue:
    return out.LengthValue(text=length.text, unit=length.unit)


@lru_cache(maxsize=1024)
def _mark_path(mark: FlatMark) -> str:
    return "".join(path_data(shape) for region in mark.regions for shape in region.rings) + "".join(
        path_data(trace) for trace in mark.traces
    )


# An edit seldom changes every part: the others are drawn already.
@lru_cache(maxsize=1024)
def _outline(region: Region) -> list[tuple[float, float]]:
    return [(round(x, 3), round(y, 3)) for x, y in flatten(region.outer.segments, DRAWN_CHORD_MM)]


@lru_cache(maxsize=1024)
def _path(region: Region) -> str:
    return "".join(path_data(ring) for ring in region.rings)


def _mate(mate: Mate, joint: JointFit) -> out.MateOut:
    return out.MateOut(
        id=mate.id,
        title=mate.title,
        first=_member(mate, mate.first),
        second=_member(mate, mate.second),
        fingers=mate.division.count,
        finger=mate.division.finger,
        clearance=mate.division.clearance,
        depth=mate.first.depth,
        fit=_fit(joint.fit),
        proud=joint.proud,
    )


def _member(mate: Mate, member: Member) -> out.MemberOut:
    start, end = (member.point(position, 0.0) for position in (0.0, mate.division.cuts[-1]))
    return out.MemberOut(part=member.part, start=start, end=end)


def _finished(proof: Proof) -> dict[int, list[str]]:
    shown = {}
    for sheet, pieces in proof.pieces.items():
        polygons = [polygon for piece in pieces for polygon in getattr(piece, "geoms", [piece]) if not piece.is_empty]
        shown[sheet] = ["".join(_loop(ring.coords) for ring in (p.exterior, *p.interiors)) for p in polygons]
    return shown


def _loop(points: list[tuple[float, float]]) -> str:
    return "M" + "L".join(f"{number(x)} {number(y)}" for x, y in points[:-1]) + "Z"
