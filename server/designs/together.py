"""The parts put together, as the page shows it: pairs that could be joined, and what stands in each other's way."""

from __future__ import annotations

from collections.abc import Sequence

from lean_notch.basis.fits import scale_to_json
from lean_notch.documents import codec
from lean_notch.ground.progress import Tell
from lean_notch.hand_over.effort import proof_seconds
from lean_notch.job import Job, Result, job_from_json
from lean_notch.making import Proposal, proposals, site_of
from lean_notch.proof.put_together import levels
from lean_notch.test_pieces.trial_pair import read_pair
from lean_notch.told.where_it_stands import where_it_stands
from tasks.kinds import Given
from workshop.schemas import ScaleValues

from . import schemas as out
from .compute import OUTLINES, again, computed, document_of, here_or_beside

MOST_SAID = 60
"""Placements whose place is told: each is held against all others."""


def together(job: Job) -> bytes:
    """JSON of TogetherOut. Raises NotchError as the job's computing does, Beside."""
    result = computed(job)
    return here_or_beside(TOGETHER, lambda: document_of(job), lambda: _shown(result), seconds=proof_seconds(result))


def _together(given: Given, tell: Tell) -> bytes:
    tell(0.0, "putting the parts together")
    return _shown(computed(job_from_json(given.document["job"])))


TOGETHER = again("together", "What stands in the way", _together)


def _shown(result: Result) -> bytes:
    return _show(result).model_dump_json().encode()


def _show(result: Result) -> out.TogetherOut:
    job, built = result.job, result.build
    found = proposals(site_of(job.design, job.basis, OUTLINES))
    return out.TogetherOut(
        stands={one.placement: list(where_it_stands(built, one.placement)) for one in built.standings[:MOST_SAID]},
        proposals=[_proposal(one) for one in found],
        levels=[out.LevelOut.model_validate(one) for one in levels(built, job.basis)],
    )


def show_pair(job: Job, joint: str, answers: Sequence[str]) -> out.PairReadOut:
    """Raises NotchError at "answers" or the joint."""
    read = read_pair(job, joint, answers)
    return out.PairReadOut(fits=ScaleValues(**scale_to_json(read.scale)), within=read.within, notes=list(read.notes))


def _proposal(one: Proposal) -> out.ProposalOut:
    closes = out.EditOut(path=one.closes.path, value=one.closes.value) if one.closes else None
    return out.ProposalOut(
        first=codec.write(one.first), second=codec.write(one.second), title=one.title, sentence=one.sentence, kinds=list(one.kinds),
        length=one.length, angle=one.angle, place=one.place, off=one.off, says=one.says, closes=closes,
    )  # fmt: skip
