"""A job on other bases: the boards and machines that are tried, and those of which the workshop says something newer. Nothing is kept."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from lean_notch.edits import Edit, edit_job
from lean_notch.ground.errors import NotchError
from lean_notch.ground.progress import Tell
from lean_notch.job import Job, Result, compute, job_from_json, job_to_json
from lean_notch.told.another_basis import Trial, try_basis
from pydantic import TypeAdapter
from tasks.kinds import Given

from . import schemas as out
from .actions import Swap, head_of
from .compute import OUTLINES, again, computed, document_of, here_or_beside
from .models import Design
from .rack import RACK
from .shown_changes import show_trial
from .today import News, news_of

_TRIALS = TypeAdapter(list[out.TrialOut])


def show_tries(design: Design, swaps: list[Swap]) -> list[out.TrialOut]:
    """The job as it is, then on each of the other bases."""
    job = head_of(design).job
    first = swaps[0].board if swaps else job.design.boards[0].id
    return _trials(job, [(swap.board, swap.edits) for swap in (Swap(first), *swaps)])


def show_news(design: Design) -> list[out.NewsOut]:
    """What the workshop says newer of the job's boards and machines, and what following each would change."""
    job = head_of(design).job
    news = news_of(job)
    trials = _trials(job, [(one.board, one.edits) for one in news]) if news else []
    return [_news(one, trial) for one, trial in zip(news, trials, strict=True)]


def _news(one: News, trial: out.TrialOut) -> out.NewsOut:
    return out.NewsOut(
        **{**vars(one), "what": list(one.what), "at": one.at or None},
        edits=list(one.edits),
        changes=trial.changes,
        problem=trial.problem,
    )


def _trials(now: Job, wanted: Sequence[tuple[str, Sequence[Edit]]]) -> list[out.TrialOut]:
    """What cannot be is told of each by itself. Raises NotchError where the job itself cannot be computed, Beside."""
    before = computed(now)
    jobs = [(board, _edited(now, edits)) for board, edits in wanted]
    able = [(board, job) for board, job in jobs if isinstance(job, Job)]

    def document() -> dict[str, Any]:
        return {**document_of(now), "tries": [[board, job_to_json(job)] for board, job in able]}

    shown = iter(_TRIALS.validate_json(here_or_beside(TRY, document, lambda: _tried(before, able))))
    return [next(shown) if isinstance(job, Job) else show_trial(Trial(now.basis, job), board) for board, job in jobs]


def _edited(now: Job, edits: Sequence[Edit]) -> Job | NotchError:
    try:
        return edit_job(now, edits, "mm", RACK)
    except NotchError as error:
        return error


def _tried(before: Result, each: Sequence[tuple[str, Job]]) -> bytes:
    return _TRIALS.dump_json([show_trial(try_basis(before, job.basis, OUTLINES), board) for board, job in each])


def _try(given: Given, tell: Tell) -> bytes:
    tell(0.0, "building the parts")
    before = compute(job_from_json(given.document["job"]), outlines=OUTLINES)
    return _tried(before, [(board, job_from_json(one)) for board, one in given.document["tries"]])


TRY = again("try", "The job on another board or machine", _try)
