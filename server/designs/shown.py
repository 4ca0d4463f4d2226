"""Core values as the page shows them: nothing is computed here but what is asked of the core."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from contextlib import suppress
from functools import partial
from typing import Any, cast

from accounts.names import shown_name
from ground.problems import Problem
from lean_notch.basis import (
    FITS,
    Basis,
    BoardBasis,
    Fit,
    machine_to_json,
    stock_to_json,
)
from lean_notch.design import BoardNeed, Part
from lean_notch.design import Design as Drawn
from lean_notch.design.sentence import titles_of
from lean_notch.documents import codec
from lean_notch.ground.errors import NotchError
from lean_notch.ground.findings import Finding
from lean_notch.ground.remembered import Same
from lean_notch.hand_over.files import file_names
from lean_notch.job import Job, Result
from lean_notch.lengths.figures import Figure
from lean_notch.making import Build, Contact, FlatPart, JointFit, Mate, joint_fits
from lean_notch.nesting import LayoutSettings
from lean_notch.proof.interference import gap_of
from lean_notch.recipes import RECIPES
from lean_notch.test_pieces.trial_pair import fit_field, usual_clearances
from lean_notch.told.ledger import ledger
from lean_notch.told.named_lengths import named_lengths
from lean_notch.told.route import Stop, route
from pydantic import BaseModel, TypeAdapter
from workshop.schemas import MachineValues, StockValues

from . import schemas as out
from .actions import head_of
from .compute import computed, worked_out
from .fragments import Whole, keep_shown, piece, shown_of
from .models import Design, Export, KeptFile, Revision
from .parts import part_json


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
            file_names=file_names(job, sheet.number, sheet.board),
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


def _fit(fit: Fit) -> out.FitRangeOut:
    return out.FitRangeOut(
        low=fit.low, high=fit.high, verdict=fit.verdict, wants=fit.wants, loose=fit.loose, tight=fit.tight,
        fails=fit.fails, warnings=list(fit.warnings),
    )  # fmt: skip


def show_kept(file: KeptFile, title: str, layers: list[str]) -> out.KeptFileOut:
    """With the layers that its closed outlines lie on."""
    return out.KeptFileOut(name=file.name, title=title[:200], size=file.size, layers=layers)


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
