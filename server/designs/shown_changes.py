"""What an edit, another basis or another machine changes, as the page gets it."""

from __future__ import annotations

from collections.abc import Sequence
from contextlib import suppress

from ground.problems import Problem
from lean_notch.edits import Edit, number_in
from lean_notch.ground.errors import NotchError
from lean_notch.lengths.units import Unit
from lean_notch.making import title_of
from lean_notch.told.another_basis import Change, Trial, moved
from lean_notch.told.what_breaks import broken

from . import schemas as out
from .actions import head_of, try_edits
from .compute import computed
from .models import Design
from .parts import path_of
from .shown import MOST_LETTERS, names_by_board
from .today import News, follow_edits, would_follow

MOST_CHANGES = 12


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


def _problem(trial: Trial) -> Problem | None:
    return Problem(**trial.error.as_json()) if trial.error else None


def show_change(change: Change) -> out.ChangeOut:
    return out.ChangeOut(
        subject=change.subject, key=change.after.key, about=change.about, title=change.after.title, kind=change.after.kind,
        before=change.before.value, after=change.after.value,
        word_before=change.before.word, word_after=change.after.word,
    )  # fmt: skip


def show_following(design: Design) -> out.FollowingOut:
    """What following all of it would make of the job."""
    found = would_follow(design)
    return out.FollowingOut(
        revision=head_of(design).number, moves=design.moves, said=said_of(found.news), edits=list(follow_edits(found.news)),
        changes=[show_change(one) for one in found.changes[:MOST_CHANGES]], more=max(len(found.changes) - MOST_CHANGES, 0),
        stays=Problem(**found.stays.as_json()) if found.stays else None,
    )  # fmt: skip


def said_of(news: Sequence[News]) -> list[str]:
    """Boards of one stock say the same."""
    return list(dict.fromkeys(one.said for one in news))
